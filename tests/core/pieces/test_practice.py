"""What counts against a wiring by common practice, each by itself."""

import unittest

from ruvak.core.pieces.pool import pool_for
from ruvak.core.pieces.practice import DEVIATION, PREFERENCE, misuses_di, practice_cost
from ruvak.core.pieces.route import Route
from tests.support.typed import typed_rig


class Practice(unittest.TestCase):
    def of(self, line: str) -> tuple[float, bool]:
        """Cost of what a line names, and whether it misuses a DI."""
        rig = typed_rig(line)
        run = rig.runs[0]
        items = {item.id: item for item in rig.kit}
        route = Route(tuple(items[piece] for piece in run.pieces), run.joins)
        gear = {device.id for device in rig.gear}
        sources = tuple(join.a for join in run.joins if join.a.owner in gear)
        goals = tuple(join.b for join in run.joins if join.b.owner in gear)
        pool = pool_for(rig)
        return practice_cost(pool, route, sources, goals), misuses_di(pool, route, goals)

    def test_each_deviation_counts(self) -> None:
        for line, cost in (
            ("bass > passive di > desk mic 3", 0.0),
            ("bass > active di > desk mic 3", PREFERENCE),
            ("guitar > active di > desk mic 3", 0.0),
            ("guitar > passive di > desk mic 3", PREFERENCE),
            ("guitar > instrument lead > desk line 3", DEVIATION),
            ("bass > instrument lead > desk line 3", 0.0),
            ("bass > jack to XLR > desk mic 3", DEVIATION),
            ("bass > jack to XLR > isolator > desk mic 3", DEVIATION + PREFERENCE),
            ("violin > active di > desk mic 3", PREFERENCE),
            ("violin > piezo di > desk mic 3", 0.0),
            ("bass > TRS lead > passive di > desk mic 3", PREFERENCE),
            ("wireless > pad > desk mic 3", DEVIATION),
            ("wireless > mic lead > desk mic 3", PREFERENCE),
            ("wireless > XLR to jack > desk line 3", 0.0),
            ("vocal > XLR to TRS > desk line 3", DEVIATION),
            ("desk phones > jack extension > headphones", DEVIATION),
            ("lapel > 3.5 mm extension > camera", 0.0),
            ("vocal > mic lead > desk mic 3, 50 m", 0.0),
            ("vocal > XLR to TRS > interface 1", DEVIATION),
            ("vocal > mic lead > interface 1", 0.0),
            ("vocal > polarity adapter > desk mic 3", DEVIATION),
            ("guitar > piezo di > desk mic 3", 2 * PREFERENCE),
            ("desk aux 1 > TS to XLR > powered speaker", PREFERENCE),
            ("desk aux 1 > TRS to XLR > powered speaker", 0.0),
        ):
            with self.subTest(line):
                self.assertEqual(self.of(line), (cost, False))

    def test_a_di_into_a_line_input_or_behind_an_xlr_is_misused(self) -> None:
        self.assertTrue(self.of("keys > di > desk line 3")[1])
        self.assertTrue(self.of("wireless > XLR to jack > di > desk mic 3")[1])
        self.assertFalse(self.of("keys > di > desk mic 3")[1])
