"""Entries in any order, corrected and repeated; what they say about each run by now and the next week."""

import unittest
from datetime import UTC, date, datetime, timedelta
from random import Random
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st
from pydantic import ValidationError

from ruvak.core.log.entry import Entry, NewEntry, effective
from ruvak.core.log.last_time import last_time
from ruvak.core.log.standing import duration, standings
from ruvak.core.log.words import say

BEGAN = datetime(2026, 11, 29, 16, 0, tzinfo=UTC)


def entry(number: int, run: str | None = "keys", minutes: float = 0.0, **more: Any) -> Entry:
    values: dict[str, Any] = {
        "id": f"entry-{number:04d}",
        "number": number,
        "at": BEGAN + timedelta(minutes=minutes),
        "kind": "check",
        "run": run,
        "rig": "sunday",
        "rig_name": "Sunday",
        "run_name": "Keys",
        "thing_names": (),
        "person": "Ada",
        "received_at": BEGAN + timedelta(minutes=minutes),
    }
    return Entry(**(values | more))


class WhatAnEntrySays(unittest.TestCase):
    def test_a_check_a_reading_and_a_note_say_what_they_are_about(self) -> None:
        for kind, more in (("check", {"run": "keys"}), ("reading", {"run": "keys"}), ("note", {"words": "  "})):
            with self.subTest(kind), self.assertRaises(ValidationError):
                NewEntry.model_validate({"id": "entry-0001", "at": BEGAN, "kind": kind} | more)

    def test_a_time_without_a_zone_is_refused(self) -> None:
        with self.assertRaises(ValidationError):
            NewEntry.model_validate({"id": "entry-0001", "at": "2026-11-29T16:00:00", "kind": "note", "words": "x"})

    def test_what_is_taken_back_is_said_to_be(self) -> None:
        step: dict[str, Any] = {"kind": "step", "step": "radio:lectern", "run": None}
        self.assertEqual(say(entry(1, answer="good", **step)), "radio microphone, good")
        self.assertEqual(say(entry(2, corrects="entry-0001", **step)), "radio microphone, taken back")
        self.assertEqual(say(entry(3, answer="wrong", corrects="entry-0001", **step)), "radio microphone, wrong")
        self.assertEqual(say(entry(4, corrects="entry-0001")), "taken back")


class Standings(unittest.TestCase):
    def test_the_last_answer_by_when_it_happened_counts_though_it_came_first(self) -> None:
        late = entry(1, minutes=20, answer="good")
        early = entry(2, minutes=5, answer="wrong", heard="hum")
        self.assertEqual(standings((late, early), {})["keys"].answer, "good")

    def test_a_correction_stands_in_the_place_of_what_it_corrects(self) -> None:
        wrong = entry(1, minutes=1, answer="wrong", heard="hum")
        right = entry(2, minutes=1, answer="good", corrects="entry-0001")
        back = entry(3, minutes=1, corrects="entry-0002")
        self.assertEqual(standings((wrong, right), {})["keys"].answer, "good")
        self.assertEqual(standings((wrong, right, back), {}), {})

    def test_a_run_that_was_changed_since_is_to_be_checked_again(self) -> None:
        answered = (entry(1, answer="good", checked="aaaaaaaa"),)
        self.assertFalse(standings(answered, {"keys": "aaaaaaaa"})["keys"].changed)
        self.assertTrue(standings(answered, {"keys": "bbbbbbbb"})["keys"].changed)
        self.assertFalse(standings(answered, {})["keys"].changed)

    @settings(max_examples=100)
    @given(
        st.lists(st.tuples(st.sampled_from(("good", "wrong", "skipped")), st.integers(0, 9)), max_size=8), st.integers()
    )
    def test_the_order_in_which_entries_come_in_and_repetition_change_nothing(
        self, answers: list[tuple[str, int]], seed: int
    ) -> None:
        entries = [entry(n, minutes=m, answer=a) for n, (a, m) in enumerate(answers)]
        mixed = entries[:]
        Random(seed).shuffle(mixed)
        self.assertEqual(standings(tuple(mixed), {}), standings(tuple(entries), {}))
        self.assertEqual(effective(tuple(mixed)), effective(tuple(entries)))

    def test_a_check_is_ready_when_every_run_is_good(self) -> None:
        entries = (entry(1, answer="good"), entry(2, run="vox", minutes=9, answer="wrong", heard="silent"))
        mended = (*entries, entry(3, run="vox", minutes=12, answer="good"))
        self.assertIsNone(duration((), {}, ("keys",)))
        for log, state, minutes in ((entries, "going on", 9), (mended, "ready", 12)):
            took = duration(log, standings(log, {}), ("keys", "vox"))
            assert took is not None
            self.assertEqual((took.state, took.ended_at - took.began_at), (state, timedelta(minutes=minutes)))


class LastTime(unittest.TestCase):
    def test_what_was_wrong_is_said_with_the_lead_and_whether_it_was_mended(self) -> None:
        week_before = (
            entry(1, answer="wrong", heard="crackle", thing_names=("M31",), words="when moved"),
            entry(2, minutes=9, answer="good"),
        )
        (said,) = last_time([week_before]).values()
        self.assertEqual((said.words, said.on, said.mended), ("crackle, M31: when moved", date(2026, 11, 29), True))

    def test_only_the_latest_week_in_which_a_run_was_checked_counts(self) -> None:
        older = (entry(1, answer="wrong", heard="hum"), entry(2, run="vox", answer="wrong", heard="weak"))
        newer = (entry(3, answer="good"),)
        self.assertEqual(set(last_time([newer, older])), {"vox"})

    def test_a_skipped_check_says_nothing(self) -> None:
        self.assertEqual(last_time([(entry(1, answer="skipped"),)]), {})
