"""Clear means clear: what the figures themselves say of every input of a run that is called so, in any wiring."""

import unittest
from collections.abc import Iterator

from ruvak.core.analyse import RunAnalysis, analyse
from ruvak.core.remedies.search import remedies_for
from ruvak.core.results.records import InputResult
from ruvak.core.rig.edits import apply
from ruvak.core.rig.rig import Rig
from tests.support.random_rigs import random_rig
from tests.support.rigs import demo_rig, wired
from tests.support.wild import wild_rig

RESIDUE_DB = 40.0
"""An input so far under another of the same device gets only what leaks over."""


def loudest_db(one: InputResult) -> float:
    return max((channel.gain_db for channel in one.channels), default=-200.0)


def heard(run: RunAnalysis) -> list[InputResult]:
    """Inputs that more than a residue reaches."""
    found = []
    for one in run.result.inputs:
        best_db = max(loudest_db(other) for other in run.result.inputs if other.gear == one.gear)
        alive = any(channel.in_phase is not None for channel in one.channels)
        if alive and loudest_db(one) >= best_db - RESIDUE_DB:
            found.append(one)
    return found


def unclear(rig: Rig) -> Iterator[str]:
    """What contradicts a Clear, run by run."""
    for run in analyse(rig).runs:
        if run.findings[0].code != "clear":
            continue
        if not heard(run):
            yield f"{rig.id} {run.run}: nothing is heard anywhere"
        for one in heard(run):
            level = next((level for level in one.levels if level.active), None)
            if one.sum is not None and one.sum.centre_db <= -2.0:
                yield f"{rig.id} {run.run} {one.input}: the centre is {one.sum.centre_db} dB"
            if (
                one.loudspeaker is None
                and level is not None
                and not (level.headroom_db >= 3.0 and level.short_db <= 0.0)
            ):
                yield f"{rig.id} {run.run} {one.input}: {level.headroom_db} dB of headroom, {level.short_db} dB short"
            if rig.venue.noise_dba is None and one.hum is not None and (one.hum.below_programme_db or 999.0) < 70.0:
                yield f"{rig.id} {run.run} {one.input}: hum {one.hum.below_programme_db} dB under the programme"


def difference_on_two_inputs() -> Rig:
    """A stereo plug in a balanced lead, split to two channels of a desk: each gets left less right."""
    joins = (
        ("laptop.phones", "straight.in"),
        ("straight.out", "split.in"),
        ("split.a", "desk.mic2"),
        ("split.b", "desk.mic3"),
    )
    run = {"id": "slides", "number": 1, "name": "Slides", "pieces": ["straight", "split"]}
    return wired(
        demo_rig(),
        parts=[],
        gear=[
            {"id": "laptop", "name": "Laptop", "part": "laptop-headphone-trs35"},
            {"id": "desk", "name": "Desk", "part": "mixer-analogue-12"},
        ],
        kit=[
            {"id": "straight", "tag": "A1", "part": "adapter-trs35-xlr-straight"},
            {"id": "split", "tag": "Y1", "part": "lead-y-xlr-split", "length_m": 3},
        ],
        runs=[{**run, "joins": [{"a": a, "b": b} for a, b in joins]}],
    )


class Clear(unittest.TestCase):
    def test_in_any_wiring(self) -> None:
        self.assertEqual([said for seed in range(12) for said in unclear(wild_rig(seed))], [])

    def test_in_random_earthed_rigs(self) -> None:
        self.assertEqual([said for seed in range(40) for said in unclear(random_rig(seed))], [])

    def test_left_less_right_on_each_of_two_inputs_is_a_stop(self) -> None:
        run = analyse(difference_on_two_inputs()).runs[0]
        self.assertEqual([(one.code, one.grade) for one in run.findings[:1]], [("centre_cancels", "stop")])
        self.assertIn("Mic 2 and Mic 3", run.findings[0].sentence)

    def test_what_is_offered_is_clear_where_it_is_called_so(self) -> None:
        rig = difference_on_two_inputs()
        offered = remedies_for(rig, "slides")
        self.assertTrue(offered)
        for remedy in offered:
            self.assertEqual(list(unclear(apply(rig, remedy.edit))), [])
