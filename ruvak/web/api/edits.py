"""Changes: edit, preview, undo, redo, history."""

from flask import Response

from ruvak.service.access import RIGHTS, Right
from ruvak.service.states import EditOutcome, Preview, RunChangeList
from ruvak.web.answers import answer, answer_computed, use_cases
from ruvak.web.api.blueprint import blueprint, or_later
from ruvak.web.schemas import AgainBody, EditBody, HistoryList, HistoryPath, PreviewBody, RigPath
from ruvak.web.who import person, signed_in

api = blueprint("edits", "Changes to a rig, each a row")


@api.post("/rigs/<rig_id>/edits", responses={"200": EditOutcome})
def edit_rig(path: RigPath, body: EditBody) -> Response:
    """Applies and saves an edit made on the given version, beside whatever others have changed since.

    409 where somebody changed the same field of the same thing, with both values. An edit whose `id` was sent before
    is answered again and not applied again. Nothing is computed: the analysis of the new version has its own address.
    What a helper sends records what was really done, and is refused where it changes the plan otherwise.
    """
    only_work = Right.PLAN not in RIGHTS[signed_in().role]
    made = use_cases().edits.make(path.rig_id, body.base_version, body.edit, person(), body.id, only_work)
    return answer(made)


@api.post("/rigs/<rig_id>/preview", responses=or_later(Preview))
def preview_edit(path: RigPath, body: PreviewBody) -> Response:
    """What an edit would do, without doing it."""
    return answer_computed(path.rig_id, "preview", body.edit)


@api.post("/rigs/<rig_id>/undo", responses={"200": EditOutcome})
def undo_edit(path: RigPath, body: AgainBody) -> Response:
    """Takes back one's own latest edit."""
    return answer(use_cases().edits.undo(path.rig_id, person(), body.id))


@api.post("/rigs/<rig_id>/redo", responses={"200": EditOutcome})
def redo_edit(path: RigPath, body: AgainBody) -> Response:
    """Does again what one undid last."""
    return answer(use_cases().edits.redo(path.rig_id, person(), body.id))


@api.get("/rigs/<rig_id>/history", responses={"200": HistoryList})
def list_history(path: RigPath) -> Response:
    """Everyone's edits, newest first."""
    return answer(HistoryList(tuple(use_cases().rigs.list_history(path.rig_id, person()))))


@api.get("/rigs/<rig_id>/history/<edit_id>/runs", responses=or_later(RunChangeList))
def show_edit(path: HistoryPath) -> Response:
    """Runs before and after one edit of the list, drawn and solved by themselves; 404 for one far back."""
    return answer_computed(path.rig_id, "show_edit", path.edit_id)


@api.post("/rigs/<rig_id>/history/<edit_id>/keep", responses={"204": None})
def keep_as_built(path: HistoryPath) -> Response:
    """Makes what a helper recorded the plan."""
    use_cases().edits.keep_as_built(path.rig_id, path.edit_id)
    return Response(status=204)


@api.post("/rigs/<rig_id>/history/<edit_id>/restore", responses={"200": EditOutcome})
def restore_plan(path: HistoryPath) -> Response:
    """Takes back what a helper recorded. 409 where others have built on it."""
    return answer(use_cases().edits.restore_plan(path.rig_id, path.edit_id, person()))
