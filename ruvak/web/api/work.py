"""How far long work on a rig is, and ending it."""

from flask import Response, make_response

from ruvak.service.long_work import WorkState
from ruvak.web.answers import answer, queue
from ruvak.web.api.blueprint import blueprint
from ruvak.web.schemas import WorkPath

api = blueprint("work", "Work that takes longer than a moment")


@api.get("/rigs/<rig_id>/work/<work_id>", responses={"200": WorkState})
def read_work(path: WorkPath) -> Response:
    """What is computed, whether it waits or runs, and how much of it is done.

    Its address came with the 202 of the request that asked for it; that request sent again brings the answer.
    """
    return answer(queue().state(path.rig_id, path.work_id))


@api.delete("/rigs/<rig_id>/work/<work_id>", responses={"204": None})
def cancel_work(path: WorkPath) -> Response:
    """Ends it; nothing of it is kept."""
    queue().cancel(path.rig_id, path.work_id)
    return make_response("", 204)
