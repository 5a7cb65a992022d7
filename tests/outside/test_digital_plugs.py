"""Plugs that carry data or several channels, against what is published of them (all from memory).

AES59: analogue audio on 25-pin D-type connectors, hot, cold and screen of each of eight channels. USB 2.0: 5 m of lead,
90 ohm. IEC 60958-3 over plastic fibre: light, so nothing that mains current could flow through; 5 to 10 m are common
practice.
"""

import unittest

from ruvak.core.analyse import analyse
from ruvak.core.judge.codes import FindingCode
from ruvak.core.parts.library import library
from ruvak.core.rig.connectors import SHAPES
from ruvak.core.rig.part import Part
from ruvak.core.rig.points import Contact
from ruvak.core.rig.ports import BalancedInput, BalancedOutput
from ruvak.core.trace.trace import trace
from tests.support.typed import typed_rig

AES59 = {1: (24, 12, 25), 2: (10, 23, 11), 3: (21, 9, 22), 4: (7, 20, 8), 5: (18, 6, 19), 6: (4, 17, 5), 7: (15, 3, 16),
         8: (1, 14, 2)}  # fmt: skip
"""Channel to the pins of hot, cold and screen."""


class DTypePins(unittest.TestCase):
    def test_every_loom_is_wired_as_published(self) -> None:
        looms = [part for part in library().values() if part.kind == "lead" and _families(part) & {"dsub25"}]
        self.assertEqual(len(looms), 5)
        for part in looms:
            with self.subTest(part.id):
                joined = {
                    (str(conductor.a), str(conductor.b)) for cable in part.cables for conductor in cable.conductors
                }
                pins = {
                    pin for pair in joined for end in pair for owner, pin in [end.split(".")] if owner in "d in out"
                }
                self.assertEqual(pins, {str(pin) for pins in AES59.values() for pin in pins})
                for pair in joined if "d" in {connector.id for connector in part.connectors} else ():
                    single, dtype = sorted(pair, key=lambda end: end.startswith("d."))
                    channel, contact = single.split(".")
                    at = ("2", "3", "1").index(contact) if contact.isdigit() else ("T", "R", "S").index(contact)
                    self.assertEqual(dtype, f"d.{AES59[int(channel)][at]}")

    def test_every_device_sends_and_listens_on_the_published_pins(self) -> None:
        part = library()["recorder-multitrack-dsub"]
        for number, (hot, cold, screen) in AES59.items():
            output, receiver = part.outputs[number - 1], part.inputs[number - 1]
            assert isinstance(output, BalancedOutput) and isinstance(receiver, BalancedInput)
            (channel,) = output.channels
            self.assertEqual((channel.hot, channel.cold), (Contact("out", str(hot)), Contact("out", str(cold))))
            self.assertEqual((receiver.hot, receiver.cold), (Contact("in", str(hot)), Contact("in", str(cold))))
            self.assertEqual(receiver.screen, Contact("in", str(screen)))

    def test_eight_channels_arrive_each_at_its_own_input(self) -> None:
        rig = typed_rig("multitrack > desk 9-16")
        result = analyse(rig).runs[0].result
        self.assertEqual([entry.input for entry in result.inputs], [f"line{number}" for number in range(9, 17)])
        for entry in result.inputs:
            self.assertAlmostEqual(entry.levels[0].arriving_dbu, 4.0, delta=0.2)

    def test_plugs_of_a_loom_that_hang_free_are_not_missed(self) -> None:
        result = analyse(typed_rig("desk aux 1-2 > multitrack 3-4")).runs[0].result
        self.assertEqual([entry.input for entry in result.inputs], ["in3", "in4"])

    def test_a_channel_whose_core_is_broken_is_still_judged(self) -> None:
        rig = typed_rig("multitrack > desk 9-16")
        loom = rig.parts_by_id["loom-dsub-trs"]
        cables = [cable.model_copy(deep=True) for cable in loom.cables]
        cut = tuple(
            conductor.model_copy(update={"b": None}) if str(conductor.b) == "3.T" else conductor
            for conductor in cables[2].conductors
        )
        cables[2] = cables[2].model_copy(update={"conductors": cut})
        parts = tuple(
            part.model_copy(update={"cables": tuple(cables)}) if part.id == loom.id else part for part in rig.parts
        )
        result = analyse(rig.with_fields(parts=parts)).runs[0].result
        levels = {entry.input: entry.levels[0].arriving_dbu for entry in result.inputs}
        self.assertEqual(len(levels), 8)
        self.assertLess(levels["line11"], levels["line10"] - 5.0)


class Light(unittest.TestCase):
    def test_it_joins_no_metal_of_the_two_devices(self) -> None:
        rig = typed_rig("tv optical > digital converter, 5 m")
        traced = trace(rig)
        near, far = ({str(traced.conductor_of[point]) for point in traced.conductor_of
                      if point.owner == owner and "light" not in str(point)}
                     for owner in ("tv", "digital-converter"))  # fmt: skip
        body = {name for name in near & far if "body" not in name}
        self.assertEqual(body, set())

    def test_its_length_is_kept_to(self) -> None:
        codes = {
            length: {f.code for f in analyse(typed_rig(f"tv optical > digital converter, {length} m")).runs[0].findings}
            for length in (5, 20)
        }
        self.assertIn(FindingCode.DATA_LONG, codes[20])
        self.assertNotIn(FindingCode.DATA_LONG, codes[5])

    def test_eight_channels_are_not_taken_for_two(self) -> None:
        rig = typed_rig("8 channel preamp optical > digital recorder optical")
        self.assertIn(FindingCode.CLASS_MIXED, [finding.code for finding in analyse(rig).runs[0].findings])


class Usb(unittest.TestCase):
    def test_a_lead_of_the_stated_impedance_sends_next_to_nothing_back(self) -> None:
        line = analyse(typed_rig("laptop > interface, 3 m")).runs[0].result.data
        assert line is not None
        self.assertLess(line.end_reflected_percent, 5.0)
        self.assertEqual((line.wave_ohm, line.limit_m), (90.0, 5.0))

    def test_more_than_five_metres_are_too_many(self) -> None:
        findings = analyse(typed_rig("laptop > interface, 10 m")).runs[0].findings
        self.assertIn(FindingCode.DATA_LONG, [finding.code for finding in findings])

    def test_a_computer_is_not_joined_to_a_computer(self) -> None:
        sockets = {SHAPES[connector.form].family for part in library().values() if part.id.startswith("laptop")
                   for connector in part.connectors}  # fmt: skip
        self.assertNotIn("usb-device", sockets)


def _families(part: Part) -> set[str]:
    return {SHAPES[connector.form].family for connector in part.connectors}
