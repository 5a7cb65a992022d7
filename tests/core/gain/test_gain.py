"""What a meter reads, how switches and volumes stand, how long a level may be listened to."""

import unittest

from ruvak.core.analyse import analyse
from ruvak.core.gain.exposure import exposure_words, longest_h
from ruvak.core.gain.levels import level_steps
from ruvak.core.gain.meter import BACK_DB, CLIP, meter_target
from ruvak.core.judge.sentences import MINUS
from ruvak.core.prepare import prepare
from ruvak.core.results.records import Levels
from ruvak.core.rig.rig import Alignment, Rig
from tests.support.typed import typed_rig


def levels(arriving_dbu: float, peak_dbu: float) -> Levels:
    return Levels(
        when=None,
        active=True,
        arriving_dbu=arriving_dbu,
        sides_dbu=arriving_dbu,
        peak_dbu=peak_dbu,
        nominal_dbu=-40.0,
        clip_dbu=6.0,
        noise_dbu=-120.0,
        headroom_db=6.0 - peak_dbu,
        gap_db=-40.0 - arriving_dbu,
        boost_db=40.0,
        short_db=0.0,
    )


class Meter(unittest.TestCase):
    def test_the_average_stands_on_the_mark(self) -> None:
        """SMPTE RP 155: +4 dBu average is 20 dB under full scale, the rig's default alignment."""
        target = meter_target(levels(-50.0, -36.0), Alignment(), "average-on-mark")
        self.assertEqual((target.average_dbfs, target.peak_dbfs), (-20.0, -6.0))
        self.assertEqual(target.words, f"gain until the average reads {MINUS}20 dBFS")

    def test_what_jumps_out_is_set_lower_so_that_it_does_not_clip(self) -> None:
        hot = Alignment(full_scale_dbu=16.0)
        target = meter_target(levels(-50.0, -25.0), hot, "average-on-mark")
        self.assertEqual((target.average_dbfs, target.peak_dbfs), (-18.0, -3.0))
        self.assertIn("6 dB below the mark", target.words)

    def test_a_microphone_that_could_give_more_is_set_for_what_is_usual(self) -> None:
        """Common practice: loud passages 12 to 18 dB over the average."""
        target = meter_target(levels(-50.0, -10.0), Alignment(), "average-on-mark")
        self.assertEqual((target.average_dbfs, target.peak_dbfs), (-20.0, -5.0))

    def test_up_to_the_light_and_back(self) -> None:
        target = meter_target(levels(-50.0, -36.0), Alignment(), CLIP)
        self.assertEqual((target.average_dbfs, target.peak_dbfs), (-25.0, -BACK_DB))
        self.assertIn("back 11 dB", target.words)
        self.assertIn(f"{MINUS}20 dBFS", target.other)

    def test_no_school_speaks_of_a_knob(self) -> None:
        for school in ("average-on-mark", CLIP):
            target = meter_target(levels(-50.0, -36.0), Alignment(), school)
            self.assertNotRegex(f"{target.words} {target.other}", "o'clock|turn|knob")


class Exposure(unittest.TestCase):
    def test_hours_are_those_of_the_published_table(self) -> None:
        """NIOSH 98-126, table 1-1: 85 dBA 8 h, 88 dBA 4 h, 91 dBA 2 h, 94 dBA 1 h, 97 dBA 30 min, 100 dBA 15 min."""
        for level_dba, hours in ((85, 8.0), (88, 4.0), (91, 2.0), (94, 1.0), (97, 0.5), (100, 0.25), (103, 0.125)):
            self.assertAlmostEqual(longest_h(float(level_dba)), hours, places=9)

    def test_they_are_said_as_people_say_them(self) -> None:
        said = [exposure_words(level) for level in (70.0, 88.0, 94.0, 100.0)]
        self.assertEqual(said, ["70 dBA: all day", "88 dBA: 4 h", "94 dBA: 60 min", "100 dBA: 15 min"])


class Steps(unittest.TestCase):
    def steps(self, line: str, **house: str) -> tuple[str, ...]:
        rig: Rig = typed_rig(line)
        rules = rig.venue.house.model_copy(update=house)
        rig = prepare(rig.with_fields(venue=rig.venue.model_copy(update={"house": rules})))
        return level_steps(rig, analyse(rig).runs[0])

    def test_a_speaker_s_switch_its_volume_and_the_house_last(self) -> None:
        steps = self.steps("desk main left > powered speaker, 10 m")
        self.assertRegex(steps[0], "switch at (line|mic)")
        self.assertIn("in the middle", steps[1])
        self.assertIn("the house level last", steps[-1])
        self.assertIn("94 dBA: 60 min", steps[-1])
        self.assertIn("fully up", self.steps("desk main left > powered speaker, 10 m", speaker_volume="full")[1])

    def test_a_laptop_is_up_or_at_half_as_the_house_has_it(self) -> None:
        self.assertIn("fully up", self.steps("laptop > desk 7/8, 5 m")[0])
        self.assertIn("half", self.steps("laptop > desk 7/8, 5 m", computer_volume="half")[0])

    def test_a_microphone_into_a_desk_needs_none_of_them(self) -> None:
        self.assertEqual(self.steps("dynamic mic > desk 1, 10 m"), ())
