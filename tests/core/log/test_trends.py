"""What the log says over the weeks."""

import unittest
from datetime import UTC, datetime
from typing import Any

from ruvak.core.log.entry import Entry, Measured, Tested
from ruvak.core.log.trends import trends
from ruvak.core.rig.wiring_fault import WiringFault


def at(day: int, hour: int = 10, minute: int = 0) -> datetime:
    return datetime(2026, 1, day, hour, minute, tzinfo=UTC)


class Weeks(unittest.TestCase):
    number = 0

    def entry(self, kind: str, when: datetime, **more: Any) -> Entry:
        self.number += 1
        base = {
            "id": f"entry-{self.number:04}", "at": when, "kind": kind, "number": self.number, "rig": "hall",
            "rig_name": "Hall", "run": "keys", "run_name": "Keys", "thing_names": (), "person": "Ada",
            "received_at": when,
        }  # fmt: skip
        return Entry.model_validate(base | more)

    def test_a_day_is_from_the_first_answer_to_the_last_with_what_was_wrong_in_between(self) -> None:
        wrong = self.entry("check", at(4, 9), answer="wrong", heard="crackle", thing_names=("M31",))
        good = self.entry("check", at(4, 9, 40), answer="good")
        step = self.entry("step", at(4, 9, 50), answer="skipped", step="walk:room", run=None, run_name="")
        (day,) = trends((good, step, wrong), {"hall": at(4, 11)}).days
        self.assertEqual((day.began_at, day.ended_at, day.doors_at), (at(4, 9), at(4, 9, 50), at(4, 11)))
        self.assertEqual((day.good, day.wrong, day.found), (1, 0, ("Keys: crackle, M31",)))

    def test_days_are_apart_and_the_latest_first(self) -> None:
        entries = [self.entry("check", at(day), answer="good") for day in (4, 18, 11)]
        self.assertEqual([day.began_at.day for day in trends(entries, {}).days], [18, 11, 4])

    def test_measured_hum_stands_beside_what_was_computed_week_after_week(self) -> None:
        def read(day: int, value: float, predicted: float | None, run: str = "Keys") -> Entry:
            level = Measured(quantity="hum_dbu", value=value, predicted=predicted)
            return self.entry("reading", at(day), measured=level, run_name=run, rig=f"hall-{day}")

        curves = trends((read(11, -60.0, -61.5), read(4, -58.0, None), read(4, -70.0, -70.0, "Bass")), {}).hum
        self.assertEqual([curve.run_name for curve in curves], ["Keys", "Bass"])
        self.assertEqual(
            [(p.at.day, p.value_dbu, p.predicted_dbu) for p in curves[0].points], [(4, -58, None), (11, -60, -61.5)]
        )

    def test_what_fails_on_two_days_is_named_and_what_is_taken_back_is_not_counted(self) -> None:
        def failed(day: int, name: str) -> Entry:
            return self.entry("check", at(day), answer="wrong", heard="crackle", thing_names=(name,))

        open_core = WiringFault(kind="open", a="in.2", b="out.2")
        tested = self.entry(
            "test", at(18), rig=None, rig_name="", run=None, run_name="", thing_names=("M31",),
            tested=Tested(verdict="faulty", words="pin 2 is broken.", faults=(open_core,)),
        )  # fmt: skip
        twice, once = [failed(4, "M31"), tested], [failed(4, "M7"), failed(4, "M7")]
        mistake = failed(11, "M7")
        back = self.entry("check", at(11), answer=None, corrects=mistake.id)
        (again,) = trends((*twice, *once, mistake, back), {}).again
        self.assertEqual((again.name, [day.day for day in again.days]), ("M31", [18, 4]))
        self.assertEqual(again.words, "pin 2 is broken")

    def test_nothing_says_nothing(self) -> None:
        self.assertEqual(trends((), {}).model_dump(), {"days": (), "hum": (), "again": ()})


if __name__ == "__main__":
    unittest.main()
