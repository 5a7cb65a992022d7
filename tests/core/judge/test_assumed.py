"""What nobody has said is asked once, and no more once it is answered."""

import unittest

from ruvak.core.analyse import analyse
from ruvak.core.judge.assumed import AssumptionCode
from ruvak.core.rig.rig import Rig
from ruvak.service.demo_data import demo_rig


def asked(rig: Rig) -> dict[AssumptionCode, tuple[str, ...]]:
    return {one.code: one.gear for one in analyse(rig).assumed}


class DrawingCache(unittest.TestCase):
    def test_plugs_supplies_and_what_stands_between(self) -> None:
        found = asked(demo_rig("midwinter-concert"))
        self.assertNotIn("plug", found, "every earthed device names its strip")
        self.assertEqual(set(found["supply"]), {"keys", "slides", "camera", "recorder"})
        self.assertEqual(found["between"], ())

    def test_an_answer_ends_the_question(self) -> None:
        rig = demo_rig("midwinter-concert")
        gear = tuple(
            one.model_copy(update={"settings": {**one.settings, "supply": "battery"}})
            if one.id in ("keys", "slides", "camera", "recorder")
            else one
            for one in rig.gear
        )
        self.assertNotIn("supply", asked(rig.with_fields(gear=gear)))

    def test_a_plug_nobody_named_is_asked_for(self) -> None:
        rig = demo_rig("midwinter-concert")
        gear = tuple(one.model_copy(update={"outlet": None}) if one.id == "desk" else one for one in rig.gear)
        self.assertEqual(asked(rig.with_fields(gear=gear))["plug"], ("desk",))

    def test_one_strip_asks_nothing_about_the_building(self) -> None:
        self.assertNotIn("between", asked(demo_rig("sunday-talk")))
