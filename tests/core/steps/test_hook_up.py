"""Connecting and switching on: rules that hold for every rig, written down apart from what makes the order."""

import unittest

from ruvak.core.prepare import prepare
from ruvak.core.rig.rig import Rig
from ruvak.core.steps.hook_up import HookUp, HookUpStep, hook_up
from tests.support.random_rigs import random_rig
from tests.support.rigs import demo_rig
from tests.support.typed import typed_rig

SEEDS = 40
DEMOS = ("lantern-evening", "sunday-talk", "video-call", "midwinter-concert")


def broken_rules(rig: Rig, plan: HookUp) -> list[str]:
    """What an independent list of rules finds wrong with an order."""
    place = {step.id: number for number, step in enumerate(plan.up)}
    wrong: list[str] = []

    def of(phase: str) -> list[HookUpStep]:
        return [step for step in plan.up if step.phase == phase]

    def at(steps: list[HookUpStep]) -> list[int]:
        return [place[step.id] for step in steps]

    for step in (*plan.up, *plan.down):
        order = place if step.id in place else {each.id: number for number, each in enumerate(plan.down)}
        wrong += [f"{step.id} before {each}" for each in step.after if order[each] >= order[step.id]]
    if len(place) != len(plan.up):
        wrong.append("a step is there twice")
    if of("connect") and of("power") and max(at(of("connect"))) > min(at(of("power"))):
        wrong.append("something is plugged into live gear")
    if of("quiet") and of("connect") and max(at(of("quiet"))) > min(at(of("connect"))):
        wrong.append("something is plugged into an open channel")
    ends = {
        gear.id
        for gear in rig.gear
        if not rig.part_of(gear.id).outputs or all(o.signal == "loudspeaker" for o in rig.part_of(gear.id).outputs)
    }
    on = [step.things[0] for step in of("power")]
    if any(one in ends and other not in ends for i, one in enumerate(on) for other in on[i + 1 :]):
        wrong.append("a speaker is on before something that feeds it")
    speakers = [place[step.id] for step in of("power") if step.things[0] in ends]
    if speakers and of("phantom") and max(at(of("phantom"))) > min(speakers):
        wrong.append("phantom comes on with the speakers on")
    if of("level") and of("power") and min(at(of("level"))) < max(at(of("power"))):
        wrong.append("levels are up before everything is on")
    off = [step.things[0] for step in plan.down if step.phase == "off"]
    is_late = any(one not in ends and other in ends for i, one in enumerate(off) for other in off[i + 1 :])
    if sorted(off) != sorted(on) or is_late:
        wrong.append("the speakers do not go off first")
    phases = [step.phase for step in plan.down]
    if "unplug" in phases and "off" in phases[phases.index("unplug") :]:
        wrong.append("something is unplugged while it is on")
    if {step.run for step in of("connect")} != {run.id for run in rig.runs}:
        wrong.append("a run is not connected")
    return wrong


class Order(unittest.TestCase):
    def test_no_rule_is_broken_in_the_demonstration_in_either_school(self) -> None:
        for name in DEMOS:
            for school in ("sources-first", "mixer-first"):
                rig = demo_rig(name)
                house = rig.venue.house.model_copy(update={"power_order": school})
                rig = prepare(rig.with_fields(venue=rig.venue.model_copy(update={"house": house})))
                with self.subTest(name, school=school):
                    self.assertEqual(broken_rules(rig, hook_up(rig)), [])

    def test_no_rule_is_broken_in_random_rigs(self) -> None:
        for seed in range(SEEDS):
            rig = prepare(random_rig(seed))
            with self.subTest(seed=seed):
                self.assertEqual(broken_rules(rig, hook_up(rig)), [])


class Words(unittest.TestCase):
    def setUp(self) -> None:
        lines = ("condenser mic > desk 1, 10 m", "laptop > desk 7/8, 5 m", "desk main left > powered speaker, 10 m")
        self.rig = typed_rig(*lines)
        self.steps = {step.id: step for step in hook_up(self.rig).up}
        self.order = [step.phase for step in hook_up(self.rig).up]

    def test_the_phases_come_in_their_order(self) -> None:
        expected = ["place", "quiet", "connect", "power", "phantom", "choose", "level"]
        self.assertEqual(list(dict.fromkeys(self.order)), expected)

    def test_in_the_open_air_it_begins_with_rain_and_lightning(self) -> None:
        outside = self.rig.with_fields(venue=self.rig.venue.model_copy(update={"weather": "open-air"}))
        first = hook_up(outside).up[0]
        self.assertEqual(first.id, "place:rain")
        self.assertIn("residual-current device", first.words)
        self.assertIn("licensed electrician", first.why)
        self.assertNotIn("place:rain", self.steps)

    def test_phantom_waits_and_the_pin_is_in(self) -> None:
        phantom = next(step for step in self.steps.values() if step.phase == "phantom")
        self.assertIn("wait ten seconds", phantom.words)
        place = next(step for step in self.steps.values() if step.phase == "place")
        self.assertIn("the pin in", place.words)
        self.assertIn("two people", place.words)

    def test_a_run_is_said_with_its_leads(self) -> None:
        connect = [step.words for step in self.steps.values() if step.phase == "connect"]
        self.assertRegex(connect[0], r"^1  .* → .* → .*Mic 1")

    def test_the_other_school_switches_the_mixer_on_first(self) -> None:
        house = self.rig.venue.house.model_copy(update={"power_order": "mixer-first"})
        other = self.rig.with_fields(venue=self.rig.venue.model_copy(update={"house": house}))
        first = {
            name: next(step.words for step in hook_up(rig).up if step.phase == "power")
            for name, rig in (("sources", self.rig), ("mixer", other))
        }
        self.assertIn("Desk", first["mixer"])
        self.assertNotIn("Desk", first["sources"])
