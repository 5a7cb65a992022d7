"""The check beside the runs, frequencies of radio microphones, and what is lost with a run."""

import unittest
from typing import Any

from hypothesis import given
from hypothesis import strategies as st

from ruvak.core.analyse import analyse
from ruvak.core.parts.reading import rig_from_document
from ruvak.core.prepare import prepare
from ruvak.core.rig.rig import Rig, TakenBand
from ruvak.core.steps.lost import losses
from ruvak.core.steps.radio import CLEAR_MHZ, LEAST_APART_MHZ, carriers_of, clashes, taken_elsewhere
from ruvak.core.steps.round import Round, check_round
from tests.support.random_rigs import random_rig
from tests.support.rigs import demo_rig


def round_of(rig: Rig) -> Round:
    rig = prepare(rig)
    return check_round(rig, analyse(rig))


def tuned(*mhz: tuple[float, ...]) -> Rig:
    """The concert with two more receivers, tuned so."""
    document: dict[str, Any] = demo_rig("midwinter-concert").model_dump(mode="json", exclude_none=True)
    (radio,) = (gear for gear in document["gear"] if gear["id"] == "radio")
    radio["radio_mhz"] = list(mhz[0])
    return rig_from_document(document)


class TheRound(unittest.TestCase):
    def test_each_destination_of_the_concert_is_checked_by_itself(self) -> None:
        steps = {step.id: step for step in round_of(demo_rig("midwinter-concert")).after}
        self.assertIn("loop receiver", steps["destination:loop"].words)
        self.assertIn("record ten seconds", steps["destination:recorder"].words)
        self.assertIn("alone", steps["destination:speaker-left"].words)
        self.assertNotIn("destination:lantern", steps)
        self.assertIn("its meter drops", steps["mute:desk"].words)
        self.assertRegex(steps["silence:all"].why, r"Most hum is computed for .* dBu")

    def test_after_the_runs_come_mutes_destinations_silence_the_walk_and_feedback_in_this_order(self) -> None:
        phases = list(dict.fromkeys(step.phase for step in round_of(demo_rig("midwinter-concert")).after))
        self.assertEqual(phases, ["mute", "destination", "silence", "walk", "edge"])

    def test_radio_microphones_come_first_and_a_call_has_a_second_person(self) -> None:
        before = round_of(demo_rig("midwinter-concert")).before
        self.assertEqual([step.id for step in before], ["radio:frequencies", "radio:radio"])
        self.assertIn("no volume control", before[1].words)
        self.assertIn("Desk: Mic 16", before[1].words)
        call = round_of(demo_rig("video-call"))
        self.assertEqual(call.before, ())
        self.assertTrue(any("second person joins the call" in step.words for step in call.after))

    def test_what_is_loud_says_so(self) -> None:
        (edge,) = [step for step in round_of(demo_rig("midwinter-concert")).after if step.phase == "edge"]
        self.assertIn("Warn everybody", edge.words)
        self.assertIn("NIOSH", edge.why)

    def test_ids_are_those_of_the_log_and_each_is_there_once(self) -> None:
        for seed in range(12):
            whole = round_of(random_rig(seed))
            ids = [step.id for step in (*whole.before, *whole.after)]
            self.assertEqual(len(set(ids)), len(ids))
            for name in ids:
                self.assertRegex(name, r"^[a-z]{1,16}:[a-z0-9-]{1,64}$")

    def test_frequencies_are_computed_where_they_are_said(self) -> None:
        free = round_of(tuned((606.0, 606.5))).before[0]
        self.assertIn("MHz: free of each other.", free.why)
        self.assertIn("note it at the venue", free.why)
        near = round_of(tuned((606.0, 606.2))).before[0]
        self.assertIn("lies only 0.200 MHz from", near.why)

    def test_what_is_taken_at_the_place_is_computed_with(self) -> None:
        rig = tuned((606.0, 606.5))
        taken = (TakenBand(low_mhz=470, high_mhz=478, by="television"), TakenBand(low_mhz=606.7, high_mhz=606.7))
        rig = rig.with_fields(venue=rig.venue.model_copy(update={"taken_mhz": taken[:1]}))
        self.assertTrue(round_of(rig).before[0].why.endswith("free of each other, 470 to 478 MHz (television)."))
        rig = rig.with_fields(venue=rig.venue.model_copy(update={"taken_mhz": taken}))
        why = round_of(rig).before[0].why
        self.assertIn("(606.5 MHz) meets 606.7 MHz, which is taken.", why)
        self.assertNotIn("606 MHz) meets", why)

    def test_what_another_rig_of_the_house_transmits_at_the_same_time_is_computed_with(self) -> None:
        def why(*elsewhere: float) -> str:
            rig = prepare(tuned((606.0, 606.5)))
            return check_round(rig, analyse(rig), taken_elsewhere(elsewhere)).before[0].why

        self.assertIn("free of each other, 1 of the house's other rigs at the same time.", why(610.0))
        self.assertIn("(606.5 MHz) meets 606.7 MHz (another rig of the house at the same time)", why(606.7))

    def test_an_in_ear_transmitter_counts_among_the_frequencies(self) -> None:
        document: dict[str, Any] = demo_rig("midwinter-concert").model_dump(mode="json", exclude_none=True)
        wedge = next(gear for gear in document["gear"] if gear["id"] == "wedge-1")
        wedge |= {"part": "in-ear-transmitter", "radio_mhz": [606.1]}
        (radio,) = (gear for gear in document["gear"] if gear["id"] == "radio")
        radio["radio_mhz"] = [606.2]
        carriers = carriers_of(rig_from_document({**document, "runs": []}))
        self.assertEqual(sorted(carriers.values()), [606.1, 606.2])
        self.assertEqual(len(clashes(carriers)), 1)


class Frequencies(unittest.TestCase):
    def met(self, **carriers: float) -> set[tuple[str, str]]:
        return {
            (clash.name, clash.words.replace("\N{MINUS SIGN}", "-").replace("\N{MULTIPLICATION SIGN}", "x"))
            for clash in clashes(carriers)
        }

    def test_equally_spaced_carriers_meet_each_others_products(self) -> None:
        # 2 f2 - f1 = f3 for three equally spaced carriers: the textbook case of third-order intermodulation.
        met = {("C", "is met by 2 x B - A"), ("A", "is met by 2 x B - C")}
        self.assertEqual(self.met(A=600.0, B=600.5, C=601.0), met)

    def test_three_carriers_meet_a_fourth(self) -> None:
        # f1 + f2 - f3.
        self.assertIn(("D", "is met by A + B - C"), self.met(A=600.0, B=600.7, C=602.1, D=598.6))

    def test_a_published_free_set_is_free(self) -> None:
        # Golomb ruler marks 0 1 4 9 11 (J. W. Babcock, 1953, gave such spacings for channels without third-order
        # interference): no difference occurs twice, so no product of two or three falls on another.
        marks = (0, 1, 4, 9, 11)
        self.assertEqual(clashes({str(mark): 600.0 + 0.4 * mark for mark in marks}), ())

    def test_a_carrier_keeps_off_both_edges_of_a_band_and_further_off_a_single_carrier(self) -> None:
        def meets(mhz: float, low: float, high: float) -> bool:
            return clashes({"A": mhz}, [TakenBand(low_mhz=low, high_mhz=high)]) != ()

        self.assertTrue(meets(474, 470, 478))
        self.assertTrue(meets(474, 478, 470), "typed the wrong way round")
        for mhz, expected in ((469.85, False), (469.95, True), (478.05, True), (478.15, False)):
            self.assertEqual(meets(mhz, 470, 478), expected, mhz)
        for mhz, expected in ((599.6, False), (599.7, True), (600.3, True), (600.4, False)):
            self.assertEqual(meets(mhz, 600, 600), expected, mhz)

    @given(st.lists(st.integers(0, 200), min_size=2, max_size=6, unique=True))
    def test_against_every_product_written_out(self, marks: list[int]) -> None:
        carriers = {str(mark): 600.0 + mark * 0.025 for mark in marks}
        step, apart = round(CLEAR_MHZ / 0.025), round(LEAST_APART_MHZ / 0.025)
        met = set()
        for victim in marks:
            others = [mark for mark in marks if mark != victim]
            met |= {victim for a in others for b in others if a != b and abs(2 * a - b - victim) < step}
            met |= {
                victim
                for a in others
                for b in others
                for c in others
                if len({a, b, c}) == 3 and abs(a + b - c - victim) < step
            }
        near = {b for i, a in enumerate(marks) for b in marks[i + 1 :] if abs(a - b) < apart}
        self.assertEqual({int(clash.name) for clash in clashes(carriers)}, met | near)


class Losses(unittest.TestCase):
    def test_a_source_is_lost_everywhere_and_a_speaker_loses_every_source(self) -> None:
        words = {loss.run: loss for loss in losses(prepare(demo_rig("sunday-talk")))}
        lectern = words["lectern"]
        self.assertEqual((lectern.sources, lectern.listeners), (1, 3))
        self.assertEqual(
            lectern.words, "Without it Left speaker, Right speaker and Hearing loop get nothing from Lectern."
        )
        self.assertEqual(
            lectern.heard, "Heard at Left speaker, Right speaker and Hearing loop, on what comes from Lectern."
        )
        main = next(loss for loss in words.values() if loss.listeners == 1 and loss.sources > 1)
        self.assertIn("gets nothing from Lectern, Reader and Keys", main.words)

    def test_speakers_that_are_linked_through_are_listeners_too(self) -> None:
        words = {loss.run: loss.words for loss in losses(prepare(demo_rig("midwinter-concert")))}
        self.assertIn("Foyer 1, Foyer 2, Foyer 3 and Foyer 4 get nothing", words["foyer"])

    def test_of_two_ways_one_costs_nothing_more_than_itself(self) -> None:
        for seed in range(12):
            rig = prepare(random_rig(seed))
            found = losses(rig)
            self.assertEqual([loss.run for loss in found], [run.id for run in rig.runs])
            for loss in found:
                self.assertTrue(loss.words.startswith("Without it ") and loss.words.endswith("."))


if __name__ == "__main__":
    unittest.main()
