"""Every fault of every lead is explained by what it reads, or the next reading is said that tells."""

import unittest
from itertools import combinations

from hypothesis import given, settings
from hypothesis import strategies as st

from ruvak.core.parts.library import library
from ruvak.core.rig.part import Part, contacts_in
from ruvak.core.rig.wiring_fault import WiringFault, with_faults
from ruvak.core.tester.diagnosis import Diagnosis, diagnose
from ruvak.core.tester.hypotheses import Bench
from ruvak.core.tester.lines import read_lines
from ruvak.core.tester.metal import groups_of
from ruvak.core.tester.reading import ContactReading, LeadTest
from tests.support.lead_readings import pairs_of, readings_of

MOST_CONTACTS = 16
SMALL = {
    id_: part
    for id_, part in library().items()
    if part.kind in ("lead", "adapter") and len(contacts_in(part)) <= MOST_CONTACTS and not part.elements
}
MIC = library()["mic-lead"]


def fault(kind: str, a: str, b: str) -> WiringFault:
    return WiringFault.model_validate({"kind": kind, "a": a, "b": b})


def reads_as(part: Part, diagnosis: Diagnosis) -> set[tuple[int, ...]]:
    """What each explanation of a diagnosis would read."""
    contacts = contacts_in(part)
    result = {groups_of(with_faults(part, each.faults), contacts) for each in diagnosis.explanations if each.faults}
    others = {each.wired_as for each in diagnosis.explanations}
    return result | {groups_of(p, contacts_in(p)) for p in library().values() if p.name in others}


class Whole(unittest.TestCase):
    """With every pair read."""

    def test_what_is_as_it_should_be_is_good(self) -> None:
        for id_, part in SMALL.items():
            with self.subTest(id_):
                self.assertEqual(diagnose(part, readings_of(part, ())).verdict, "good")

    def test_every_single_fault_of_every_lead_and_adapter_is_explained(self) -> None:
        for id_, part in SMALL.items():
            bench = Bench(part)
            for each in bench.singles():
                with self.subTest(id_, fault=each.faults[0]):
                    diagnosis = diagnose(part, readings_of(part, each.faults))
                    self.assertIn(diagnosis.verdict, ("faulty", "several"))
                    self.assertEqual(reads_as(part, diagnosis), {each.groups})

    def test_two_faults_of_a_microphone_lead_are_explained_or_read_like_fewer(self) -> None:
        bench = Bench(MIC)
        singles = list(bench.singles())
        for first, second in combinations(singles, 2):
            faults = (*first.faults, *second.faults)
            expected = groups_of(with_faults(MIC, faults), contacts_in(MIC))
            with self.subTest(faults=faults):
                diagnosis = diagnose(MIC, readings_of(MIC, faults))
                if expected == bench.sound:
                    self.assertEqual(diagnosis.verdict, "good")
                elif diagnosis.verdict != "unexplained":
                    self.assertEqual(reads_as(MIC, diagnosis), {expected})

    def test_faults_are_called_as_a_technician_would(self) -> None:
        for faults, words in (
            ((fault("open", "in.3", "out.3"),), "Pin 3 is broken."),
            ((fault("short", "out.2", "out.1"),), "Pin 2 and pin 1 touch."),
            ((fault("short", "in.3", "in.1"),), "Pin 3 and pin 1 touch."),
        ):
            with self.subTest(words):
                self.assertEqual(diagnose(MIC, readings_of(MIC, faults)).words, words)

    def test_a_screen_that_is_open_may_be_meant_so(self) -> None:
        diagnosis = diagnose(MIC, readings_of(MIC, (fault("open", "in.1", "out.1"),)))
        self.assertEqual(diagnosis.verdict, "several")
        self.assertIn("open the plugs", diagnosis.words.lower())
        self.assertEqual(
            [each.wired_as for each in diagnosis.explanations],
            [None, library()["mic-lead-lifted"].name],
        )

    def test_a_lead_that_is_made_for_another_job_is_recognised(self) -> None:
        xlr_to_rca, as_it_is = library()["lead-xlrf-trs35"], library()["adapter-xlrf-trs35"]
        self.assertNotEqual(xlr_to_rca, as_it_is)
        crossed = library()["mic-lead-crossed"]
        diagnosis = diagnose(crossed, readings_of(MIC, ()))
        self.assertIn(MIC.name, [each.wired_as for each in diagnosis.explanations])

    def test_a_lead_with_many_lines_is_tested_line_by_line(self) -> None:
        part = library()["multicore-24-8"]
        line = [(a, b) for a, b in pairs_of(part) if {a.connector, b.connector} <= {"s7", "t7"}]
        diagnosis = diagnose(part, readings_of(part, (fault("open", "s7.3", "t7.3"),), line))
        self.assertEqual(diagnosis.words, "Pin 3 is broken.")

    def test_a_resistor_inside_is_not_taken_for_a_fault(self) -> None:
        part = library()["adapter-trs35-xlr-sum"]
        self.assertEqual(diagnose(part, readings_of(part, ())).verdict, "good")


class Partial(unittest.TestCase):
    """With some pairs read."""

    def test_nothing_is_good_while_a_single_fault_reads_the_same(self) -> None:
        pin_1 = ContactReading.model_validate({"a": "in.1", "b": "out.1", "state": "joined"})
        diagnosis = diagnose(MIC, LeadTest(readings=(pin_1,)))
        self.assertEqual(diagnosis.verdict, "unfinished")
        self.assertIsNotNone(diagnosis.next)

    def test_lamps_say_no_more_than_they_show(self) -> None:
        self.assertEqual(diagnose(MIC, LeadTest(lamp="pass")).verdict, "good")
        failed = diagnose(MIC, LeadTest(lamp="fail"))
        self.assertEqual(failed.verdict, "unfinished")
        self.assertIsNotNone(failed.next)
        lit = readings_of(MIC, (fault("open", "in.2", "out.2"),))
        self.assertEqual(diagnose(MIC, lit.model_copy(update={"lamp": "fail"})).words, "Pin 2 is broken.")

    def test_a_contact_that_the_piece_does_not_have_is_refused(self) -> None:
        pin_9 = ContactReading.model_validate({"a": "in.9", "b": "out.1", "state": "open"})
        with self.assertRaisesRegex(ValueError, "no contact in.9"):
            diagnose(MIC, LeadTest(readings=(pin_9,)))

    @settings(max_examples=60)
    @given(st.data())
    def test_taking_the_next_reading_again_and_again_ends_at_the_fault(self, data: st.DataObject) -> None:
        part = SMALL[data.draw(st.sampled_from(sorted(SMALL)))]
        bench = Bench(part)
        singles = list(bench.singles())
        hidden = data.draw(st.sampled_from(singles)).faults
        if data.draw(st.booleans()):
            hidden = (*hidden, *data.draw(st.sampled_from(singles)).faults)
        contacts = contacts_in(part)
        truth = groups_of(with_faults(part, hidden), contacts)
        read = set(data.draw(st.lists(st.sampled_from(pairs_of(part)), max_size=3)))
        for _ in pairs_of(part):
            diagnosis = diagnose(part, readings_of(part, hidden, read))
            if diagnosis.next is None:
                break
            pair = (diagnosis.next.a, diagnosis.next.b)
            self.assertNotIn(pair, read)
            read.add(pair)  # type: ignore[arg-type]
        explained = reads_as(part, diagnosis) or ({bench.sound} if diagnosis.verdict == "good" else set())
        at = [(contacts.index(a), contacts.index(b)) for a, b in sorted(read)]
        if diagnosis.verdict != "unexplained":
            on_read = {tuple(groups[p] == groups[q] for p, q in at) for groups in explained}
            self.assertEqual(on_read, {tuple(truth[p] == truth[q] for p, q in at)})
        if len(hidden) == 1:
            self.assertIn(truth, explained)


class Resistances(unittest.TestCase):
    def test_what_reads_neither_joined_nor_open_is_a_bad_joint(self) -> None:
        # Common practice: a break reads more than 100 kohm, a conductor less than some ohms.
        for ohm, said in ((45.0, True), (3300.0, True), (2e6, False), (0.4, False)):
            text = f"1-1 0.3 ohm, 2-2 0.3 ohm, 3-3 {ohm / 1e3:g} kohm"
            words = diagnose(MIC, read_lines(MIC, text)).words
            self.assertEqual("bad solder joint" in words, said, words)
        self.assertIn("reads 45 ohm", diagnose(MIC, read_lines(MIC, "3-3 45 ohm")).words)


class Moved(unittest.TestCase):
    """What comes and goes."""

    def flickering(self, a: str, b: str, moved_at: str) -> Diagnosis:
        test = readings_of(MIC, ())
        pair = {a, b}
        readings = tuple(
            each.model_copy(update={"state": "flickers"}) if {str(each.a), str(each.b)} == pair else each
            for each in test.readings
        )
        return diagnose(MIC, LeadTest.model_validate({"readings": readings, "moved_at": moved_at}))

    def test_the_conductor_and_the_place_are_named(self) -> None:
        diagnosis = self.flickering("in.2", "out.2", "far")
        self.assertEqual(diagnosis.words, "Pin 2 breaks when it is moved at XLR male.")
        self.assertFalse(diagnosis.explanations[0].faults[0].is_steady)

    def test_contacts_that_touch_now_and_then_are_named(self) -> None:
        diagnosis = self.flickering("in.1", "in.3", "middle")
        self.assertIn("touch when it is moved", diagnosis.words)


class Quickly(unittest.TestCase):
    @settings(max_examples=100)
    @given(st.data())
    def test_the_bench_reads_what_the_part_with_these_faults_reads(self, data: st.DataObject) -> None:
        part = SMALL[data.draw(st.sampled_from(sorted(SMALL)))]
        bench = Bench(part)
        singles = list(bench.singles())
        faults = tuple(each.faults[0] for each in data.draw(st.lists(st.sampled_from(singles), max_size=3)))
        self.assertEqual(bench.groups(faults), groups_of(with_faults(part, faults), contacts_in(part)))
