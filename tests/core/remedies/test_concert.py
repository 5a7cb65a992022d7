"""What an engineer would do about each fault of the concert stands first: by switch, by the cupboard, by the plugs."""

import unittest

from ruvak.core.entry.reader import read_all
from ruvak.core.judge.finding import Grade
from tests.support.solved import demo_remedies, solved_demo

FIRST: dict[str, str] = {
    "choir-4": "Desk: Phantom, mic 8 on",
    "snare": "Take out A2 Polarity adapter, XLR",
    "fiddle": "Put a DI in: DA2 Active DI box for piezo pickups",
    "radio-mic": "Desk: Phantom, mic 16 off",
    "guitar": "Plug into Desk, Mic 18, XLR",
    "player": "Change the plugs over",
    "stream": "Isolate Stream: B3 Stereo line isolator, RCA",
    "recording": "Adapter, mono to both sides, 6.35 mm",
    "lights": "Q1 Lighting data lead, three-pin, 20 m",
    "foyer": "Foyer 1, Foyer 2, Foyer 3 and Foyer 4: Tap 20 W",
    "porch": "LS1 Loudspeaker lead, 30 m",
}


class Concert(unittest.TestCase):
    def test_the_first_of_each_is_what_an_engineer_would_do(self) -> None:
        for run, title in FIRST.items():
            found = demo_remedies(run)
            self.assertEqual(found[0].title, title)
            self.assertIs(found[0].after.findings[0].grade, Grade.CLEAR, run)

    def test_a_row_of_taps_is_one_thing_to_do(self) -> None:
        self.assertEqual([one.title for one in demo_remedies("foyer")], [FIRST["foyer"]])

    def test_sides_that_are_only_exchanged_are_not_given_up_for_mono(self) -> None:
        self.assertFalse([one.title for one in demo_remedies("player") if "Mono" in one.title])

    def test_a_typed_data_line_takes_a_lead_made_for_it(self) -> None:
        concert, *_ = solved_demo()
        rig = concert.with_fields(runs=tuple(run for run in concert.runs if run.id != "lights"))
        run = read_all(rig, "Lighting desk > Front lantern, 15 m")[0].runs[0]
        self.assertEqual([piece.item for piece in run.pieces], ["q1"])
