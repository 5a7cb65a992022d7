"""Analyses of saved versions, in parts: each has an address and a tag of its contents."""

import gzip
import json

from flask import Response, make_response

from ruvak.core.analyse import RunAnalysis
from ruvak.core.steps.card import CheckCard
from ruvak.core.trace.drawing import RunDrawing
from ruvak.service.access import Right
from ruvak.service.states import DestinationList, GroundLoopList, Overview, RemedyList
from ruvak.web.answers import JSON, answer, answer_computed, part, use_cases
from ruvak.web.api.blueprint import blueprint, or_later
from ruvak.web.schemas import FirstQuery, KeysQuery, RunDetails, RunPath, RunVersionPath, VersionPath

api = blueprint("analyses", "Analyses of saved versions, in parts", "410", reads_need=Right.READ)


@api.get("/rigs/<rig_id>/versions/<version>/overview", responses=or_later(Overview))
def read_overview(path: VersionPath) -> Response:
    """Verdict, what concerns the whole rig, and each run in a line with the key of its details.

    410 where somebody has saved the rig since.
    """
    return part(use_cases().analyses.overview(path.rig_id, path.version))


@api.get("/rigs/<rig_id>/versions/<version>/runs", responses=or_later(RunDetails))
def read_runs(path: VersionPath, query: KeysQuery) -> Response:
    """Details of several runs, by the keys that the overview gives them. What a key names never changes."""
    keys = tuple(dict.fromkeys(query.keys.split(",")))
    result = use_cases().analyses.runs(path.rig_id, path.version, keys)
    bodies = [json.dumps(key).encode() + b":" + gzip.decompress(entry.body) for key, entry in result.items()]
    return make_response(b"{" + b",".join(bodies) + b"}", 200, JSON)


@api.get("/rigs/<rig_id>/versions/<version>/runs/<run_id>", responses=or_later(RunAnalysis))
def read_run(path: RunVersionPath) -> Response:
    """One run in detail: its drawing, figures, findings and controls."""
    return part(use_cases().analyses.run(path.rig_id, path.version, path.run_id))


@api.get("/rigs/<rig_id>/versions/<version>/runs/<run_id>/drawing", responses={"200": RunDrawing})
def read_drawing(path: RunVersionPath) -> Response:
    """One run's conductors as that version has them, at once: nothing is solved for it."""
    return answer(use_cases().analyses.drawing(path.rig_id, path.version, path.run_id))


@api.get("/rigs/<rig_id>/versions/<version>/runs/<run_id>/card", responses=or_later(CheckCard))
def read_card(path: RunVersionPath) -> Response:
    """A run's card for the line check: what to expect, and what is likely when it is wrong, each cause solved."""
    return part(use_cases().analyses.card(path.rig_id, path.version, path.run_id))


@api.get("/rigs/<rig_id>/versions/<version>/destinations", responses=or_later(DestinationList))
def read_destinations(path: VersionPath) -> Response:
    """What each device makes of all its inputs together."""
    return part(use_cases().analyses.destinations(path.rig_id, path.version))


@api.get("/rigs/<rig_id>/versions/<version>/connections", responses=or_later(GroundLoopList))
def read_connections(path: VersionPath) -> Response:
    """Every connection that closes a loop, its current, and what opening it would do to every input.

    Opening a protective earth is never among them.
    """
    return part(use_cases().analyses.connections(path.rig_id, path.version))


@api.get("/rigs/<rig_id>/runs/<run_id>/remedies", responses=or_later(RemedyList))
def list_remedies(path: RunPath, query: FirstQuery) -> Response:
    """Solved remedies for one run, best first; then what is often tried and does not help.

    With `first` the search ends at the first that clears the run, which is soonest. 410 where somebody saves the rig
    while they are solved.
    """
    return answer_computed(path.rig_id, "remedies", path.run_id, query.first)
