"""The house's cupboard: typed as lines or given as CSV, changed thing by thing, drawn from by rigs."""

from flask import Response

from ruvak.core.cupboard.item import CupboardDocument
from ruvak.formats.kit_list import cupboard_to_csv, lines_from_csv
from ruvak.service.access import Right
from ruvak.service.cupboard_records import CupboardLines, CupboardList
from ruvak.service.states import EditOutcome
from ruvak.web.answers import answer, download, use_cases
from ruvak.web.api.blueprint import blueprint, file_of
from ruvak.web.house_schemas import (
    AddedBody,
    ChangeItemBody,
    ConditionBody,
    CupboardChangeList,
    ItemPath,
    RigItemPath,
)
from ruvak.web.schemas import KitListBody, LinesBody, RigPath
from ruvak.web.who import person

api = blueprint("cupboard", "The house's cupboard", reads_need=Right.READ)


@api.get("/cupboard", responses={"200": CupboardList})
def list_cupboard() -> Response:
    """Everything in it, where it is, how it is, and who has it from now on."""
    return answer(use_cases().cupboard.list_all())


@api.post("/cupboard/lines", responses={"200": CupboardLines})
def read_cupboard_lines(body: LinesBody) -> Response:
    """What typed lines would add; nothing is saved."""
    return answer(use_cases().cupboard.read(body.text))


@api.post("/cupboard/items", responses={"200": CupboardLines})
def add_items(body: LinesBody) -> Response:
    """Adds what typed lines say; lines that are not understood add nothing."""
    return answer(use_cases().cupboard.add(body.text, person()))


@api.post("/cupboard/list", responses={"200": CupboardLines})
def add_list(body: KitListBody) -> Response:
    """Adds the rows of a list as CSV."""
    return answer(use_cases().cupboard.add(lines_from_csv(body.csv), person()))


@api.patch("/cupboard/items/<item_id>", responses={"204": None})
def change_item(path: ItemPath, body: ChangeItemBody) -> Response:
    """Changes one field of a thing; the rigs that have it follow."""
    use_cases().cupboard.change(path.item_id, body.field, body.value, body.was, person())
    return Response(status=204)


@api.put("/cupboard/items/<item_id>/condition", responses={"204": None})
def note_condition(path: ItemPath, body: ConditionBody) -> Response:
    """Notes how a thing is; the rigs that have it follow at once. Of several alike a single piece can be named."""
    use_cases().cupboard.note_condition(path.item_id, body.condition, body.was, body.remark, person(), body.number)
    return Response(status=204)


@api.delete("/cupboard/items/<item_id>", responses={"204": None})
def remove_item(path: ItemPath) -> Response:
    """Takes a thing out of the cupboard for good. 409 while a rig has it."""
    use_cases().cupboard.remove(path.item_id, person())
    return Response(status=204)


@api.get("/cupboard/changes", responses={"200": CupboardChangeList})
def list_cupboard_changes() -> Response:
    """What was done in it, the newest first."""
    return answer(CupboardChangeList(tuple(use_cases().cupboard.list_changes())))


@api.get("/cupboard/file", responses={"200": file_of("application/json")})
def export_cupboard() -> Response:
    """The cupboard as a file, each thing with its part."""
    return download(use_cases().cupboard.export().model_dump_json(), "application/json", "cupboard.ruvak-cupboard.json")


@api.get("/cupboard/table", responses={"200": file_of("text/csv")})
def export_cupboard_table() -> Response:
    """The cupboard as CSV: tag, count, what, length_m, store, condition, remark."""
    table = cupboard_to_csv(use_cases().cupboard.export().items)
    return download(table, "text/csv; charset=utf-8", "cupboard.csv")


@api.post("/cupboard", responses={"200": AddedBody})
def import_cupboard(body: CupboardDocument) -> Response:
    """Adds what a cupboard's file has and this one does not."""
    return answer(AddedBody(added=use_cases().cupboard.import_document(body, person())))


@api.post("/rigs/<rig_id>/cupboard", responses={"200": EditOutcome, "204": None})
def adopt_kit(path: RigPath) -> Response:
    """A rig's own kit and devices become the house's. 204 where it has none of its own."""
    made = use_cases().cupboard.adopt(path.rig_id, person())
    return answer(made) if made is not None else Response(status=204)


@api.put("/rigs/<rig_id>/cupboard/<item_id>", responses={"200": EditOutcome})
def draw_item(path: RigItemPath) -> Response:
    """The rig draws a thing, where one is free for its hours."""
    return answer(use_cases().cupboard.draw(path.rig_id, path.item_id, person()))


@api.delete("/rigs/<rig_id>/cupboard", responses={"200": EditOutcome, "204": None})
def put_back(path: RigPath) -> Response:
    """What no run of the rig uses goes back. 204 where everything is in use."""
    made = use_cases().cupboard.put_back(path.rig_id, person())
    return answer(made) if made is not None else Response(status=204)
