"""Another run's source heard where it does not belong."""

from collections.abc import Iterator

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import finding, input_words, usable
from ruvak.core.results.records import RunResult
from ruvak.core.rig.rig import Rig, name_of

WATCH_DB, FIX_DB = -50.0, -30.0
"""Against the run's own programme: what is further down is covered by it, and nearer it is plainly heard: common
practice."""


def crosstalk(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Per input, the loudest stranger."""
    for receiver in result.inputs:
        if receiver.crosstalk is None or not usable(result, receiver):
            continue
        worst_db = max(receiver.crosstalk.at_1k_db, receiver.crosstalk.at_10k_db)
        if worst_db < WATCH_DB:
            continue
        params: dict[str, float | str] = {
            "place": input_words(rig, receiver),
            "stranger": name_of(rig, receiver.crosstalk.gear),
            "below_db": -worst_db,
        }
        yield finding(
            FindingCode.CROSSTALK,
            Grade.FIX if worst_db >= FIX_DB else Grade.WATCH,
            result,
            receiver.gear,
            receiver.input,
            params,
        )
