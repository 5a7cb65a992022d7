"""Where leads lie, and hum from the loops they make on the plan."""

import math
import unittest
from itertools import pairwise

from ruvak.core.analyse import analyse
from ruvak.core.circuit.build import build
from ruvak.core.rig.earth import Position
from ruvak.core.rig.points import parse_endpoint
from ruvak.core.rig.rig import Join, Rig
from ruvak.core.stage.flux import pair_flux_wb
from ruvak.core.stage.plan import Plan
from ruvak.core.trace.trace import trace
from ruvak.core.units import volts_from_dbu
from tests.support.earths import Doc, class_1, earthed, hum_of, hum_v, outlets, quiet, ts_cable, ts_input, ts_source

FIELD_T = 1e-6
Spot = tuple[float, float]
PLACES: dict[str, Spot] = {"keys": (2.0, 1.0), "desk": (8.0, 4.0), "here": (1.5, 0.5), "there": (9.0, 5.0)}
BEND: Spot = (2.0, 4.0)
MAINS: tuple[Spot, Spot] = ((0.0, 3.0), (12.0, 3.0))


def turned(spot: Spot, angle: float = 0.0, shift: Spot = (0.0, 0.0)) -> dict[str, float]:
    x, y = spot
    cos, sin = math.cos(angle), math.sin(angle)
    return {"x_m": cos * x - sin * y + shift[0], "y_m": sin * x + cos * y + shift[1]}


def planned(
    angle: float = 0.0, shift: Spot = (0.0, 0.0), mains_a: float = 0.0, bends: int = 1, field: Doc | None = None
) -> Rig:
    """A keyboard and a desk on outlets of their own, one unbalanced lead of 1 ohm screen, everything on a plan."""

    def at(name: str) -> Doc:
        return {"at": turned(PLACES[name], angle, shift)}

    earth = outlets(here=0.0, there=0.0)
    mains = {
        "id": "feed",
        "name": "Feed",
        "points": [turned(one, angle, shift) for one in MAINS],
        "current_a": mains_a,
        "twist_db": 0,
        "spacing_m": 0.02,
    }
    rig = earthed(
        [ts_source("keys", 1000, class_1(1e-9)), ts_input("desk", 1e9, class_1(1e-9)), ts_cable()],
        [[("keys.out1", "left.in"), ("left.out", "desk.in1")]],
        {"left": {"part": "lead", "length_m": 20.0}},
        {"keys": "here", "desk": "there"},
        [{**one, **at(one["id"])} for one in earth],
        quiet(**(field or {"field_t": FIELD_T})),
        gear={"keys": at("keys"), "desk": at("desk")},
        venue={"bar_at": turned((0.0, 0.0), angle, shift), "mains": [mains] if mains_a else []},
    )
    bend = [Position(**turned(BEND, angle, shift))] * bends
    return rig.with_fields(runs=(rig.runs[0].model_copy(update={"route": tuple(bend)}),))


def area(*spots: Spot) -> float:
    ring = [*spots, spots[0]]
    return 0.5 * abs(sum(a[0] * b[1] - b[0] * a[1] for a, b in pairwise(ring)))


class OnThePlan(unittest.TestCase):
    def test_the_loop_of_lead_cords_and_building_gets_its_own_area(self) -> None:
        # Faraday: e = w B S; 1 ohm of 1.2 in the loop is the screen's.
        ring = area(PLACES["keys"], BEND, PLACES["desk"], PLACES["there"], (0.0, 0.0), PLACES["here"])
        expected = 2 * math.pi * 50 * FIELD_T * ring * 1.0 / 1.2
        # What stands along the lead stands in its core and its screen alike: the input sees the screen's drop.
        self.assertAlmostEqual(hum_v(planned()) / expected, 1.0, delta=1e-4)

    def test_the_sections_of_a_long_lead_catch_together_what_the_lead_does(self) -> None:
        rig = planned()
        long = rig.kit[0].model_copy(update={"length_m": 250.0})
        ring = area(PLACES["keys"], BEND, PLACES["desk"], PLACES["there"], (0.0, 0.0), PLACES["here"])
        # The screen's 12.5 ohm of 12.7 in the loop.
        expected = 2 * math.pi * 50 * FIELD_T * ring * 12.5 / 12.7
        self.assertAlmostEqual(hum_v(rig.with_fields(kit=(long,))) / expected, 1.0, delta=1e-3)

    def test_a_board_off_the_way_gives_the_building_an_area_of_its_own(self) -> None:
        board: Spot = (0.0, 6.0)
        rig = planned()
        feed = rig.venue.earth[0].model_copy(update={"id": "board", "kind": "board", "at": Position(**turned(board))})
        here, there = rig.venue.earth
        earth = (feed, here, there.model_copy(update={"parent": "board"}))
        rig = rig.with_fields(venue=rig.venue.model_copy(update={"earth": earth}))
        ring = area(PLACES["keys"], BEND, PLACES["desk"], PLACES["there"], board, (0.0, 0.0), PLACES["here"])
        # The board's own feed adds 0.1 ohm to the loop.
        expected = 2 * math.pi * 50 * FIELD_T * ring * 1.0 / 1.3
        self.assertAlmostEqual(hum_v(rig) / expected, 1.0, delta=1e-4)

    def test_moving_and_turning_the_whole_plan_changes_nothing(self) -> None:
        for field in ({"field_t": FIELD_T}, {"field_t": FIELD_T, "electric_f_per_m": 1e-12, "touch_a": 1e-4}):
            still = hum_of(planned(mains_a=10.0, field=field))
            for angle, shift in ((0.0, (40.0, -7.0)), (1.1, (0.0, 0.0)), (2.9, (-300.0, 120.0))):
                moved = hum_of(planned(angle, shift, mains_a=10.0, field=field))
                self.assertAlmostEqual(moved.likely_dbu, still.likely_dbu, places=6)
                self.assertEqual([one.owner for one in moved.causes], [one.owner for one in still.causes])

    def test_a_lead_beside_the_mains_catches_more_than_one_across_the_hall(self) -> None:
        quiet_lead = hum_of(planned(mains_a=10.0, bends=0, field={"field_t": 0})).likely_dbu
        self.assertGreater(hum_of(planned(mains_a=10.0, field={"field_t": 0})).likely_dbu, quiet_lead + 1.0)

    def test_a_mains_pair_on_the_plan_drives_the_loop_by_its_flux(self) -> None:
        # Faraday again, with the flux of 10 A there and back through the ring; tests/core/stage/test_flux.py has it by
        # Biot and Savart.
        spots = (PLACES["keys"], BEND, PLACES["desk"], PLACES["there"], (0.0, 0.0), PLACES["here"], PLACES["keys"])
        ring, wire = ([Position(**turned(spot)) for spot in some] for some in (spots, MAINS))
        weber = 10.0 * pair_flux_wb(Position(x_m=0.0, y_m=0.0), tuple(ring), tuple(wire), 0.02)
        hum = hum_of(planned(mains_a=10.0, field={"field_t": 0}))
        at_50 = hum.tones.frequencies_hz.index(50.0)
        expected_v = 2 * math.pi * 50 * abs(weber) * 1.0 / 1.2
        for levels_dbu in (hum.tones.likely_dbu, hum.tones.worst_dbu):
            self.assertAlmostEqual(volts_from_dbu(levels_dbu[at_50]) / expected_v, 1.0, delta=1e-3)

    def test_without_a_plan_the_stated_width_holds(self) -> None:
        bare = planned(field={"field_t": FIELD_T, "loop_width_m": 0.5})
        gear = tuple(one.model_copy(update={"at": None}) for one in bare.gear)
        earth = tuple(one.model_copy(update={"at": None}) for one in bare.venue.earth)
        bare = bare.with_fields(gear=gear, venue=bare.venue.model_copy(update={"earth": earth}))
        expected = 2 * math.pi * 50 * FIELD_T * 20.0 * 0.5 * 1.0 / 1.2
        self.assertAlmostEqual(hum_v(bare) / expected, 1.0, delta=1e-4)

    def test_a_device_nobody_put_down_is_where_its_neighbour_is(self) -> None:
        rig = planned()
        gear = tuple(
            one.model_copy(update={"at": None, "outlet": None}) if one.id == "keys" else one for one in rig.gear
        )
        plan = Plan(rig.with_fields(gear=gear))
        self.assertEqual(plan.gear("keys"), Position(**turned(PLACES["desk"])))
        self.assertFalse(plan.is_drawn(rig.kit[0]))

    def test_a_chain_of_leads_lies_along_its_route_by_length(self) -> None:
        rig = planned()
        short, long = (rig.kit[0].model_copy(update={"id": id_, "length_m": m}) for id_, m in (("s", 2.5), ("l", 7.5)))
        ends = [map(parse_endpoint, pair) for pair in (("keys.out1", "s.in"), ("s.out", "l.in"), ("l.out", "desk.in1"))]
        joins = tuple(Join(a=a, b=b) for a, b in ends)
        run = rig.runs[0].model_copy(update={"pieces": ("s", "l"), "joins": joins, "route": ()})
        plan = Plan(rig.with_fields(kit=(short, long), runs=(run,)))
        connection = Position(x_m=2.0 + 0.25 * 6.0, y_m=1.0 + 0.25 * 3.0)
        self.assertEqual(plan.lead(short, ["in", "out"]), (Position(**turned(PLACES["keys"])), connection))
        self.assertEqual(plan.lead(long, ["out", "in"]), (Position(**turned(PLACES["desk"])), connection))

    def test_the_emfs_stand_in_the_building_too(self) -> None:
        rig = planned()
        circuit = build(rig, trace(rig))
        field = next(cause for cause in circuit.causes if cause.code == "field")
        driven = {branch for line in field.lines for branch, _ in line.emfs}
        # Core and screen of the lead, two cords; the two conductors from the bar lie on their lines from the bar.
        self.assertEqual(len(driven), 4)
        self.assertEqual(analyse(rig).verdict, analyse(planned(shift=(5.0, 5.0))).verdict)
