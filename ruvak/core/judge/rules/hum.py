"""Hum and buzz against the programme, as they sound."""

from collections.abc import Iterator

from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import finding, input_words, usable
from ruvak.core.results.records import CauseShare, Hum, RunResult
from ruvak.core.rig.rig import Rig

CLEAR_DB, FIX_DB = 70.0, 55.0
"""A-weighted hum so far under average programme is not heard, and nearer than that an audience notices, where the
room's own noise is not known: common practice."""

WHY: dict[str, str] = {
    "earth_measured": "the two ends stand on different earths",
    "earth": "the two ends stand on different earths",
    "field": "the lead and the earth path beside it make a loop in the mains' field",
    "mains_pair": "a mains cable lies beside the lead",
    "touch": "the supply with two pins lets current through that returns by the screen",
    "electric": "the mains' electric field reaches an open or unscreened stretch",
    "computer": "the computer's own noise finds a way back through another earth",
    "supply_fault": "a supply is failing",
}
WHAT: dict[str, str] = {
    "earth_measured": "Put both on one strip, or isolate this line; opening a mains earth is never the way.",
    "earth": "Put both on one strip, or isolate this line; opening a mains earth is never the way.",
    "field": "Keep the lead close along its mains cord, or isolate it.",
    "mains_pair": "Move the lead away from the mains cable, or cross it at a right angle.",
    "touch": "Isolate this line, or give the device an earthed supply if its maker has one.",
    "electric": "Use a screened lead whose screen is joined at one end at least.",
    "computer": "Try it on battery to prove it; isolate this line to cure it.",
    "supply_fault": "Take that device out of service and have its supply mended.",
}


def hum(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Per input that something usable reaches."""
    for one in result.inputs:
        if one.hum is None or one.hum.below_programme_db is None or not usable(result, one):
            continue
        if one.hum.below_programme_db >= CLEAR_DB or not one.hum.causes:
            continue
        grade = Grade.FIX if one.hum.below_programme_db < FIX_DB else Grade.WATCH
        main = _main(one.hum)
        params: dict[str, float | str] = {
            "place": input_words(rig, one),
            "below_db": one.hum.below_programme_db,
            "worst_db": one.hum.below_programme_worst_db or 0.0,
            "why": WHY[main.code],
            "what": WHAT[main.code],
        }
        yield finding("hum", grade, result, one.gear, one.input, params)


def _main(heard: Hum) -> CauseShare:
    """Causes come largest first."""
    return heard.causes[0]
