"""Connecting a rig in a safe order, and taking it down again."""

from flask import Response

from ruvak.core.prepare import prepare
from ruvak.core.steps.hook_up import HookUp, hook_up
from ruvak.service.access import Right
from ruvak.web.answers import answer, use_cases
from ruvak.web.api.blueprint import blueprint
from ruvak.web.schemas import RigPath

api = blueprint("hook_up", "Hook-up order", reads_need=Right.READ)


@api.get("/rigs/<rig_id>/hook-up", responses={"200": HookUp})
def read_hook_up(path: RigPath) -> Response:
    """The steps in a safe order, each with its reason and what has to be done before. What was done is in the log."""
    return answer(hook_up(prepare(use_cases().rigs.export(path.rig_id))))
