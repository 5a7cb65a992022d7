"""Changes: edit, preview, undo, redo, history."""

from flask import Response

from ruvak.service.states import Preview, RigState
from ruvak.web.answers import answer, rigs
from ruvak.web.api.blueprint import blueprint
from ruvak.web.schemas import EditBody, HistoryList, PreviewBody, RigPath
from ruvak.web.security import person, visitor

api = blueprint("edits", "Changes to a rig, each a row")


@api.post("/rigs/<rig_id>/edits", responses={"200": RigState})
def edit_rig(path: RigPath, body: EditBody) -> Response:
    """Applies and saves an edit made on the given version; 409 when somebody saved meanwhile."""
    return answer(rigs().edited(path.rig_id, body.base_version, body.edit, person()))


@api.post("/rigs/<rig_id>/preview", responses={"200": Preview})
def preview_edit(path: RigPath, body: PreviewBody) -> Response:
    """What an edit would do, without doing it."""
    return answer(rigs().previewed(path.rig_id, body.edit))


@api.post("/rigs/<rig_id>/undo", responses={"200": RigState})
def undo_edit(path: RigPath) -> Response:
    """Takes back one's own latest edit."""
    return answer(rigs().undone(path.rig_id, person()))


@api.post("/rigs/<rig_id>/redo", responses={"200": RigState})
def redo_edit(path: RigPath) -> Response:
    """Does again what one undid last."""
    return answer(rigs().redone(path.rig_id, person()))


@api.get("/rigs/<rig_id>/history", responses={"200": HistoryList})
def list_history(path: RigPath) -> Response:
    """Everyone's edits, newest first."""
    return answer(HistoryList(tuple(rigs().history(path.rig_id, visitor()))))
