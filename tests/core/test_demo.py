"""The demo's faults: all of them are found, nothing else is, and mending one clears exactly what it caused."""

import unittest

from ruvak.core.analyse import Analysis, analyse
from ruvak.core.judge.finding import Grade
from ruvak.core.parts.library import library
from ruvak.core.prepare import prepare
from ruvak.core.rig.edits import Edit, Op, PutThing, apply, set_setting
from ruvak.core.rig.rig import Join, Rig, Run
from ruvak.service.demo_data import DEMOS, demo_rig

EXPECTED: dict[str, set[str]] = {
    "choir-4": {"phantom_missing"},
    "snare": {"inverted"},
    "fiddle": {"thin"},
    "radio-mic": {"phantom_harms"},
    "slides": {"centre_cancels"},
    "guitar": {"level_low"},
    "player": {"sides_swapped"},
    "stream": {"hum"},
    "recording": {"one_sided"},
    "camera": {"level_clips"},
    "lights": {"lead_class"},
    "foyer": {"line_overloaded"},
    "porch": {"line_loss"},
}
"""By run; every run not named is clear."""
EXPECTED_SMALL: dict[str, dict[str, set[str]]] = {
    "sunday-talk": {},
    "video-call": {"call-sound": {"hum"}, "second-lapel": {"silent", "phantom_missing"}},
}


def troubles(analysis: Analysis) -> dict[str, set[str]]:
    found = {run.run: {str(one.code) for one in run.findings if one.grade is not Grade.CLEAR} for run in analysis.runs}
    return {run: codes for run, codes in found.items() if codes}


def rewired(rig: Rig, run_id: str, pieces: list[str], *joins: tuple[str, str]) -> Op:
    run: Run = next(one for one in rig.runs if one.id == run_id)
    made = tuple(Join(a=a, b=b) for a, b in joins)
    return PutThing(kind="runs", thing=run.model_copy(update={"pieces": tuple(pieces), "joins": made}))


def cures(rig: Rig) -> dict[str, list[Op]]:
    """From the kit in the cupboard, what an engineer would do."""
    return {
        "choir-4": [set_setting("desk", "phantom8", True)],
        "radio-mic": [set_setting("desk", "phantom16", None)],
        "snare": [
            rewired(
                rig,
                "snare",
                ["ms4", "stage-box"],
                ("snare.out", "ms4.in"),
                ("ms4.out", "stage-box.s10"),
                ("stage-box.t10", "desk.mic10"),
            )
        ],
        "fiddle": [
            rewired(
                rig,
                "fiddle",
                ["j4", "da2", "ms5", "stage-box"],
                ("fiddle.out", "j4.in"),
                ("j4.out", "da2.in"),
                ("da2.out", "ms5.in"),
                ("ms5.out", "stage-box.s13"),
                ("stage-box.t13", "desk.mic13"),
            )
        ],
        "slides": [
            rewired(
                rig,
                "slides",
                ["p1", "b2", "ms6", "ms8", "stage-box"],
                ("slides.phones", "p1.in"),
                ("p1.out", "b2.in"),
                ("b2.left", "ms6.in"),
                ("b2.right", "ms8.in"),
                ("ms6.out", "stage-box.s17"),
                ("ms8.out", "stage-box.s19"),
                ("stage-box.t17", "desk.mic17"),
                ("stage-box.t19", "desk.mic19"),
            ),
            set_setting("slides", "volume", -20.0),
        ],
        "guitar": [
            rewired(
                rig,
                "guitar",
                ["j3", "d3", "ms7"],
                ("guitar.out", "j3.in"),
                ("j3.out", "d3.in"),
                ("d3.out", "ms7.in"),
                ("ms7.out", "desk.mic18"),
            )
        ],
        "player": [
            rewired(
                rig,
                "player",
                ["r2"],
                ("player.left", "r2.left-in"),
                ("player.right", "r2.right-in"),
                ("r2.left-out", "desk.line21"),
                ("r2.right-out", "desk.line22"),
            )
        ],
        "stream": [
            rewired(
                rig,
                "stream",
                ["r3", "b3", "r1"],
                ("desk.aux5", "r3.left-out"),
                ("desk.aux6", "r3.right-out"),
                ("r3.left-in", "b3.left-in"),
                ("r3.right-in", "b3.right-in"),
                ("b3.left-out", "r1.left-in"),
                ("b3.right-out", "r1.right-in"),
                ("r1.left-out", "switcher.left"),
                ("r1.right-out", "switcher.right"),
            )
        ],
        "recording": [
            rewired(
                rig,
                "recording",
                ["y1"],
                ("desk.aux7", "y1.send"),
                ("desk.aux10", "y1.return"),
                ("y1.insert", "recorder.in"),
            )
        ],
        "camera": [
            rewired(
                rig,
                "camera",
                ["x7", "pad2", "x5"],
                ("desk.aux8", "x7.in"),
                ("x7.out", "pad2.in"),
                ("pad2.out", "x5.in"),
                ("x5.out", "camera.mic"),
            )
        ],
        "foyer": [set_setting(f"foyer-{n}", "tap", "20 W") for n in range(1, 5)],
        "porch": [rewired(rig, "porch", ["ls1"], ("porch-amp.out1", "ls1.in"), ("ls1.out", "porch.in"))],
        "lights": [rewired(rig, "lights", ["q1"], ("lights.data", "q1.out"), ("q1.in", "lantern.data"))],
    }


class Concert(unittest.TestCase):
    rig: Rig

    @classmethod
    def setUpClass(cls) -> None:
        cls.rig = prepare(demo_rig("midwinter-concert"))

    def test_it_is_a_whole_evening(self) -> None:
        self.assertGreaterEqual(len(self.rig.runs), 24)
        self.assertGreaterEqual(len(self.rig.gear), 20)
        self.assertEqual(sum(point.kind == "circuit" for point in self.rig.venue.earth), 3)
        self.assertTrue(any(item.installed for item in self.rig.kit))
        self.assertGreaterEqual(len(EXPECTED), 8)

    def test_every_fault_is_found_and_none_invented(self) -> None:
        analysis = analyse(self.rig)
        self.assertEqual(troubles(analysis), EXPECTED)
        self.assertEqual(analysis.findings, (), "nothing about the rig as a whole, its 30 mA device included")

    def test_mending_one_clears_exactly_what_it_caused(self) -> None:
        ops = cures(self.rig)
        self.assertEqual(set(ops), set(EXPECTED))
        for run, mend in ops.items():
            with self.subTest(run=run):
                left = troubles(analyse(apply(self.rig, Edit(label="mend", ops=tuple(mend)))))
                self.assertEqual(left, {name: codes for name, codes in EXPECTED.items() if name != run})

    def test_everything_mended_is_clear(self) -> None:
        rig = self.rig
        for mend in cures(rig).values():
            rig = apply(rig, Edit(label="mend", ops=tuple(mend)))
        self.assertEqual(troubles(analyse(rig)), {})


class Small(unittest.TestCase):
    def test_the_small_rigs_say_what_they_are_for(self) -> None:
        for name, expected in EXPECTED_SMALL.items():
            self.assertEqual(troubles(analyse(demo_rig(name))), expected, name)

    def test_their_parts_are_the_librarys(self) -> None:
        for name in DEMOS:
            for part in demo_rig(name).parts:
                self.assertEqual(part, library()[part.id])
