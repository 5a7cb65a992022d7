"""A copied run: desks give their next free sockets, small devices get another of their kind, the pieces are alike."""

import unittest

from ruvak.core.entry.reader import read
from ruvak.core.rig.edits import apply
from ruvak.core.rig.rig import Rig
from tests.core.entry.test_empty_rig import pieces_of
from tests.support.typed import typed_rig


def copied(line: str, *lines: str) -> Rig:
    rig = typed_rig(*lines)
    reading = read(rig, line)
    if reading.edit is None:
        raise AssertionError(reading.sentence)
    return apply(rig, reading.edit)


class Copying(unittest.TestCase):
    def test_the_copy_is_like_the_run(self) -> None:
        for lines, line, name, ends in (
            (["choir 1-2 > desk 1-2, 15 m"], "copy choir 2", "Choir 3", "choir-3.out desk.mic3"),
            (
                ["keys L/R > desk line 5/6"],
                "copy keys as organ",
                "organ",
                "organ.left organ.right desk.line7 desk.line8",
            ),
            (["keys > di > desk 7, 15 m"], "copy keys", "Keys 2", "keys-2.left desk.mic8"),
            (["desk aux 1 > wedge, 12 m"], "copy aux 1", "Aux 2", "desk.aux2 wedge-2.in1"),
            (["vocal > desk 1"], "copy vocal as bass to desk 9", "bass", "bass.out desk.mic9"),
            (["laptop > headphones"], "duplicate laptop", "Laptop 2", "laptop-2.phones headphones-2.plug"),
            (["vocal > desk 1", "tenor > desk 2"], "copy 1", "Vocal 2", "vocal-2.out desk.mic3"),
        ):
            with self.subTest(line):
                rig = copied(line, *lines)
                *_, before, run = rig.runs if len(lines) == 1 else (rig.runs[0], rig.runs[-1])
                gear = {device.id for device in rig.gear}
                plugged = sorted(str(end) for end in run.ends if end.owner in gear)
                self.assertEqual((run.name, plugged), (name, sorted(ends.split())))
                self.assertEqual(pieces_of(rig, run), pieces_of(rig, before))
                self.assertFalse(set(run.pieces) & set(before.pieces))

    def test_what_is_built_in_is_passed_by_its_next_free_line(self) -> None:
        rig = copied("copy vocal as tenor", "vocal > stage box 3 > desk 3, 8 m")
        first, second = rig.runs
        self.assertEqual(first.pieces[-1], second.pieces[-1])
        self.assertEqual(pieces_of(rig, first), pieces_of(rig, second))
        self.assertEqual([str(end) for end in second.ends if end.owner == "desk"], ["desk.mic4"])

    def test_settings_and_supply_go_with_the_device(self) -> None:
        rig = copied("copy laptop", "laptop on battery > desk 13/14")
        laptop, other = (gear for gear in rig.gear if gear.part.startswith("laptop"))
        self.assertEqual(laptop.model_copy(update={"id": other.id, "name": other.name}), other)

    def test_what_cannot_be_copied_says_why_and_changes_nothing(self) -> None:
        for lines, line, said in (
            (["vocal > desk 1"], "copy 1 as vocal", "There is a “vocal” already"),
            (["vocal > desk 1"], "copy nothing", "no device, run or socket called “nothing”"),
            (["desk main left > left speaker"], "copy main left", "no free socket like Main left"),
            (["vocal > desk 1", "tenor > desk 2"], "copy desk", "has 2 runs: name the run to copy"),
            (["vocal > desk 1"], "copy vocal to desk 99", "Desk has no “99”"),
        ):
            with self.subTest(line):
                reading = read(typed_rig(*lines), line)
                self.assertIsNone(reading.edit)
                self.assertIn(said, reading.sentence)
