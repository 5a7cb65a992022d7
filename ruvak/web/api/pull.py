"""The pull list: which lead of the cupboard goes into which run, what is short, what is packed."""

from flask import Response

from ruvak.formats.pull_list import pull_to_csv
from ruvak.service.access import NotAllowed
from ruvak.service.pull import DayPull
from ruvak.service.pulling import Taken
from ruvak.service.task import as_it_is
from ruvak.web.answers import answer, answer_computed, download, use_cases
from ruvak.web.api.blueprint import blueprint, file_of, or_later
from ruvak.web.log_schemas import SpareQuery
from ruvak.web.schemas import RigPath
from ruvak.web.who import person, signed_in

api = blueprint("pull", "Pull list")


@api.get("/rigs/<rig_id>/pull", responses=or_later(DayPull))
def read_pull_list(path: RigPath, query: SpareQuery) -> Response:
    """The cheapest assignment of the cupboard's leads to the runs of all rigs of that day, and what it would change."""
    require_the_house()
    return answer_computed(path.rig_id, "pull", query.spare_m)


@api.get("/rigs/<rig_id>/pull/table", responses={"200": file_of("text/csv")})
def export_pull_list(path: RigPath, query: SpareQuery) -> Response:
    """The list as CSV: rig, number, run, kind, metres, leads, store, to get."""
    require_the_house()
    day = use_cases().compute.run(path.rig_id, as_it_is("pull", path.rig_id, query.spare_m))
    return download(pull_to_csv(day.list), "text/csv; charset=utf-8", "pull-list.csv")


@api.post("/rigs/<rig_id>/pull", responses={"200": Taken})
def take_leads(path: RigPath, body: SpareQuery) -> Response:
    """Every rig of the day has the leads of the list from then on; each can be undone by itself."""
    return answer(use_cases().pulling.take(path.rig_id, body.spare_m, person()))


def require_the_house() -> None:
    """A pull list is of all rigs of a day. Raises NotAllowed for whoever came by a link to one of them."""
    if signed_in().rig is not None:
        raise NotAllowed("This link opens one rig; a pull list is of all rigs of a day.")
