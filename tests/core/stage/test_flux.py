"""Areas and fluxes against closed forms."""

import math
import unittest

from ruvak.core.rig.earth import Position
from ruvak.core.stage.flux import Path, loop_area_m2, pair_flux_wb, wire_flux_wb


def path(*points: tuple[float, float]) -> Path:
    return tuple(Position(x_m=float(x), y_m=float(y)) for x, y in points)


BAR = path((0, 0))[0]


class Areas(unittest.TestCase):
    def test_a_rectangle_has_its_area_and_its_sign_by_the_way_round(self) -> None:
        way = path((0, 0), (4, 0), (4, 3), (0, 3), (0, 0))
        self.assertAlmostEqual(loop_area_m2(BAR, way), 12.0)
        self.assertAlmostEqual(loop_area_m2(BAR, way[::-1]), -12.0)

    def test_two_ways_between_the_same_ends_differ_by_what_lies_between(self) -> None:
        straight, bent = path((5, 1), (9, 1)), path((5, 1), (5, 2), (9, 2), (9, 1))
        self.assertAlmostEqual(loop_area_m2(BAR, straight) - loop_area_m2(BAR, bent), 4.0)

    def test_a_figure_of_eight_cancels(self) -> None:
        self.assertAlmostEqual(loop_area_m2(BAR, path((0, 0), (2, 2), (2, 0), (0, 2), (0, 0))), 0.0)


class Mains(unittest.TestCase):
    LONG = path((-2000, 0), (2000, 0))

    def rectangle(self, near: float, far: float, length: float) -> Path:
        return path((0, near), (length, near), (length, far), (0, far), (0, near))

    def test_a_long_wire_puts_mu0_i_l_over_two_pi_times_the_logarithm_through_a_rectangle(self) -> None:
        # Any textbook: flux = mu0 I L / (2 pi) ln(far / near).
        for near, far, length in ((0.1, 0.6, 10.0), (0.02, 0.3, 3.0), (1.0, 5.0, 20.0)):
            found = wire_flux_wb(BAR, self.rectangle(near, far, length), self.LONG, 0.004)
            self.assertAlmostEqual(abs(found) / (2e-7 * length * math.log(far / near)), 1.0, delta=1e-3)

    def test_a_pair_is_the_difference_of_its_two_wires(self) -> None:
        near, far, length, spacing = 0.05, 0.55, 8.0, 0.01
        closed = (
            2e-7
            * length
            * (
                math.log((far - spacing / 2) / (near - spacing / 2))
                - math.log((far + spacing / 2) / (near + spacing / 2))
            )
        )
        found = pair_flux_wb(BAR, self.rectangle(near, far, length), self.LONG, spacing)
        self.assertAlmostEqual(abs(found) / closed, 1.0, delta=1e-3)

    def test_crossing_at_a_right_angle_catches_nothing_along_the_crossing_piece(self) -> None:
        # The loop lies evenly on both sides: what one half catches the other gives back.
        way = path((0, -2), (1, -2), (1, 2), (0, 2), (0, -2))
        self.assertLess(abs(wire_flux_wb(BAR, way, self.LONG, 0.004)), 1e-12)

    def test_where_the_bar_is_changes_no_closed_loop(self) -> None:
        way = self.rectangle(0.1, 0.6, 10.0)
        here = wire_flux_wb(BAR, way, self.LONG, 0.004)
        elsewhere = wire_flux_wb(Position(x_m=30.0, y_m=-12.0), way, self.LONG, 0.004)
        self.assertAlmostEqual(here / elsewhere, 1.0, places=9)
