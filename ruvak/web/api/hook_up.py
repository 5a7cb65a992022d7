"""Connecting a rig in a safe order, and taking it down again."""

from flask import Response

from ruvak.core.prepare import prepare
from ruvak.core.steps.hook_up import HookUp, hook_up
from ruvak.core.steps.round import Round
from ruvak.service.access import Right
from ruvak.web.answers import answer, answer_computed, use_cases
from ruvak.web.api.blueprint import blueprint, or_later
from ruvak.web.schemas import RigPath

api = blueprint("hook_up", "Hook-up order", reads_need=Right.READ)


@api.get("/rigs/<rig_id>/hook-up", responses={"200": HookUp})
def read_hook_up(path: RigPath) -> Response:
    """The steps in a safe order, each with its reason and what has to be done before. What was done is in the log."""
    return answer(hook_up(prepare(use_cases().rigs.export(path.rig_id))))


@api.get("/rigs/<rig_id>/round", responses=or_later(Round))
def read_round(path: RigPath) -> Response:
    """The check beside the runs: radio microphones, mutes, destinations, silence, walk, feedback; and what the occasion
    loses with each run. What was answered is in the log."""
    return answer_computed(path.rig_id, "round")
