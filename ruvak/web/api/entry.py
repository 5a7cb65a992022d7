"""Entering runs: typed lines, input lists, pieces on the strip. Nothing here saves; what it answers is an edit."""

from flask import Response

from ruvak.core.results.formulas import FORMULAS
from ruvak.core.rig.connectors import SHAPES
from ruvak.formats.input_list import rows_from_csv
from ruvak.service.states import PieceChoiceList, Preview, Readings, Rewired
from ruvak.web.answers import answer, answer_computed
from ruvak.web.api.blueprint import blueprint, or_later
from ruvak.web.schemas import (
    ContactList,
    FormulaList,
    InputListBody,
    LinesBody,
    PiecesBody,
    PlaceQuery,
    RigPath,
    RunPath,
    ScreenCurrentBody,
)

api = blueprint("entry", "Entering runs")


@api.post("/rigs/<rig_id>/lines", responses={"200": Readings})
def read_lines(path: RigPath, body: LinesBody) -> Response:
    """What typed lines mean, with pieces chosen and solved."""
    return answer_computed(path.rig_id, "read_lines", body.text)


@api.post("/rigs/<rig_id>/input-list", responses={"200": Readings})
def read_input_list(path: RigPath, body: InputListBody) -> Response:
    """What an input list means, row by row."""
    return answer_computed(path.rig_id, "read_list", rows_from_csv(body.csv), body.goal)


@api.post("/rigs/<rig_id>/screen-current", responses=or_later(Preview))
def read_screen_current(path: RigPath, body: ScreenCurrentBody) -> Response:
    """What a clamp meter round a lead shows, as the voltage between the outlets at its ends."""
    return answer_computed(path.rig_id, "earth_from_current", body.item, body.reading_a, body.spectrum)


@api.get("/formulas", responses={"200": FormulaList})
def list_formulas() -> Response:
    """How displayed figures follow from others: formula, inputs with their paths in the analysis, source."""
    return answer(FormulaList(FORMULAS))


@api.get("/contacts", responses={"200": ContactList})
def list_contacts() -> Response:
    """What contacts a connector of each form has: to draw a lead's wiring."""
    return answer(ContactList({form: shape.contacts for form, shape in SHAPES.items()}))


@api.get("/rigs/<rig_id>/runs/<run_id>/choices", responses={"200": PieceChoiceList})
def list_choices(path: RunPath, query: PlaceQuery) -> Response:
    """What could stand at a place among a run's pieces."""
    return answer_computed(path.rig_id, "choices", path.run_id, query.at, query.replace)


@api.post("/rigs/<rig_id>/runs/<run_id>/pieces", responses=or_later(Rewired))
def rewire_run(path: RunPath, body: PiecesBody) -> Response:
    """The run with other pieces, plugged as far as they fit, solved."""
    return answer_computed(path.rig_id, "rewire", path.run_id, body.pieces)
