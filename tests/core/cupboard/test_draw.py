"""What a rig draws from the cupboard: only what it uses, never what is taken or out of order."""

import unittest

from ruvak.core.analyse import analyse
from ruvak.core.cupboard.draw import drawn_by, put_back_unused, with_cupboard, with_drawn
from ruvak.core.cupboard.item import CupboardItem, item_of
from ruvak.core.cupboard.lines import read_cupboard
from ruvak.core.cupboard.replace import replace_drawn
from ruvak.core.entry.reader import read
from ruvak.core.errors import RigFault
from ruvak.core.judge.codes import FindingCode
from ruvak.core.prepare import prepare
from ruvak.core.rig.check import check
from ruvak.core.rig.edits import Edit, PutThing, apply
from ruvak.core.rig.rig import Gear, KitItem, Rig, Venue

EMPTY = prepare(Rig(id="empty", name="Empty", venue=Venue(name="Hall")))


def cupboard(*lines: str) -> tuple[CupboardItem, ...]:
    return tuple(item for line in read_cupboard((), "\n".join(lines)) for item in line.items)


def planned(items: tuple[CupboardItem, ...], *lines: str, rig: Rig = EMPTY, devices: bool = False) -> Rig:
    """The rig with these lines typed, each with the cupboard within reach."""
    for line in lines:
        beside = with_cupboard(rig, items, drawn_by(rig).keys(), devices)
        edit = read(beside, line).edit
        assert edit is not None, line
        rig = apply(rig, with_drawn(rig.owners_by_id, beside, edit))
    return rig


class Drawing(unittest.TestCase):
    def test_a_line_draws_what_it_uses_and_nothing_else(self) -> None:
        items = cupboard("M1: 5 m mic lead", "M2: 10 m mic lead", "M3: 20 m mic lead", "B1: passive DI")
        rig = planned(items, "vocal mic > small mixer 1, 8 m")
        self.assertEqual([item.tag for item in rig.kit], ["M2"])
        self.assertEqual(drawn_by(rig).keys(), {("m2", 1)})
        self.assertEqual(rig.kit[0].length_m, 10.0)

    def test_of_several_alike_each_run_has_its_own(self) -> None:
        items = cupboard("3 mic leads 10 m")
        rig = planned(items, *(f"mic {number} > desk {number}, 8 m" for number in (1, 2, 3, 4)))
        self.assertEqual(drawn_by(rig).keys(), {("microphone-lead-10-m", number) for number in (1, 2, 3)})
        self.assertEqual([item.owned for item in rig.kit], [True, True, True, False])

    def test_what_is_taken_or_out_of_order_is_not_drawn_and_what_is_suspect_last(self) -> None:
        items = cupboard(
            "M1: 10 m mic lead, faulty", "M2: 10 m mic lead, away", "M3: 10 m mic lead, suspect", "M4: 15 m mic lead",
            "M5: 10 m mic lead",
        )  # fmt: skip
        beside = with_cupboard(EMPTY, items, {("m5", 1)})
        self.assertEqual({item.tag for item in beside.kit}, {"M3", "M4"})
        rig = planned(items[:4], "mic > desk 1, 8 m")
        self.assertEqual([item.tag for item in rig.kit], ["M4"])
        rig = planned(items[:4], "choir mic > desk 2, 8 m", rig=rig)
        self.assertEqual([item.tag for item in rig.kit], ["M4", "M3"])

    def test_the_house_s_devices_are_used_as_they_are_described(self) -> None:
        desk = cupboard("Desk: digital mixer, 32 inputs")[0].model_copy(update={"condition": "suspect"})
        rig = planned((desk,), "vocal mic > desk 1, 8 m", devices=True)
        self.assertIn(("desk", 1), drawn_by(rig))
        self.assertEqual([device.name for device in rig.gear if device.drawn], ["Desk"])

    def test_a_thing_of_the_rig_s_own_with_the_same_tag_is_most_likely_the_same(self) -> None:
        items = cupboard("M1: 10 m mic lead", "M2: 10 m mic lead")
        own = KitItem(id="own", tag="m1", part="mic-lead", length_m=10.0)
        rig = prepare(EMPTY.with_fields(kit=(own,)))
        self.assertEqual([item.tag for item in with_cupboard(rig, items, ()).kit], ["m1", "M2"])

    def test_what_no_run_uses_goes_back(self) -> None:
        items = cupboard("M1: 10 m mic lead", "M2: 10 m mic lead")
        rig = planned(items, "mic > desk 1, 8 m", "choir mic > desk 2, 8 m")
        self.assertIsNone(put_back_unused(rig))
        rig = rig.with_fields(runs=rig.runs[:1])
        edit = put_back_unused(rig)
        assert edit is not None
        self.assertEqual([item.tag for item in apply(rig, edit).kit], ["M1"])

    def test_a_rig_has_a_thing_once(self) -> None:
        rig = planned(cupboard("M1: 10 m mic lead"), "mic > desk 1, 8 m")
        twin = rig.kit[0].model_copy(update={"id": "twin", "tag": "twin"})
        with self.assertRaisesRegex(RigFault, "same thing of the cupboard"):
            check(rig.with_fields(kit=(*rig.kit, twin)))
        with self.assertRaisesRegex(RigFault, "same thing of the cupboard"):
            apply(rig, Edit(label="x", ops=(PutThing(kind="kit", thing=twin),)))

    def test_a_rig_s_thing_and_the_house_s_are_the_same_both_ways(self) -> None:
        for line in ("M1: 10 m mic lead, suspect: crackles", "Desk: digital mixer, 32 inputs", "B1: passive DI"):
            (item,) = cupboard(line)
            thing = item.in_rig()
            self.assertEqual(item_of(thing, item.part, item.id), item)


class Replacing(unittest.TestCase):
    def setUp(self) -> None:
        self.items = cupboard("M1: 10 m mic lead", "M2: 12 m mic lead", "M3: 20 m mic lead", "Desk: digital desk, 32")
        self.rig = planned(self.items, "mic > desk 1, 8 m", devices=True)

    def test_nothing_changes_while_all_is_to_be_had(self) -> None:
        self.assertEqual(replace_drawn(self.rig, self.items, ()), (None, ()))

    def test_the_shortest_that_is_long_enough_takes_its_place(self) -> None:
        edit, said = replace_drawn(self.rig, self.items, {("m1", 1)})
        assert edit is not None
        rig = apply(self.rig, edit)
        self.assertEqual([(item.tag, item.length_m) for item in rig.kit], [("M2", 12.0)])
        self.assertEqual(rig.runs, self.rig.runs)
        self.assertEqual(said, ("M1 is taken: M2 in its place.",))

    def test_without_another_it_has_to_be_got(self) -> None:
        edit, said = replace_drawn(self.rig, self.items, {("m1", 1), ("m2", 1), ("m3", 1), ("desk", 1)})
        assert edit is not None
        rig = apply(self.rig, edit)
        self.assertEqual([(item.owned, item.drawn) for item in rig.kit], [(False, None)])
        self.assertEqual(drawn_by(rig), {})
        self.assertEqual(len(said), 2)

    def test_what_was_marked_as_faulty_since_is_replaced_and_what_is_suspect_follows(self) -> None:
        m1, *others = self.items
        faulty = (m1.model_copy(update={"condition": "faulty"}), *others)
        _, said = replace_drawn(self.rig, faulty, ())
        self.assertEqual(said, ("M1 is faulty: M2 in its place.",))
        suspect = (m1.model_copy(update={"condition": "suspect", "remark": "crackles"}), *others)
        edit, said = replace_drawn(self.rig, suspect, ())
        assert edit is not None
        self.assertEqual((apply(self.rig, edit).kit[0].remark, said), ("crackles", ()))


class Condition(unittest.TestCase):
    def findings(self, condition: str) -> list[FindingCode]:
        rig = planned(cupboard("M1: 10 m mic lead"), "mic > desk 1, 8 m")
        piece = rig.kit[0].model_copy(update={"condition": condition, "remark": "crackles"})
        rig = rig.with_fields(kit=(piece,))
        return [finding.code for finding in analyse(rig).runs[0].findings]

    def test_a_run_says_what_is_the_matter_with_its_pieces(self) -> None:
        self.assertNotIn(FindingCode.UNUSABLE, self.findings("good"))
        self.assertIn(FindingCode.SUSPECT, self.findings("suspect"))
        for condition in ("faulty", "away"):
            self.assertIn(FindingCode.UNUSABLE, self.findings(condition))

    def test_a_device_counts_too(self) -> None:
        rig = planned((), "mic > desk 1, 8 m")
        gear = tuple(device.model_copy(update={"condition": "faulty"}) for device in rig.gear)
        self.assertTrue(all(isinstance(device, Gear) for device in gear))
        codes = [finding.code for finding in analyse(rig.with_fields(gear=gear)).runs[0].findings]
        self.assertEqual(codes.count(FindingCode.UNUSABLE), 2)


if __name__ == "__main__":
    unittest.main()
