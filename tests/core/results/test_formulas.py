"""A displayed formula with its displayed inputs gives the displayed number."""

import math
import re
import unittest
from collections.abc import Iterator
from typing import Any

from ruvak.core.analyse import Analysis, analyse
from ruvak.core.results.formulas import FORMULAS, Formula
from ruvak.core.rig.rig import Rig
from tests.support.data_lines import lit
from tests.support.loudspeakers import speakers
from tests.support.random_rigs import random_rig
from tests.support.rigs import demo_rig

FUNCTIONS = {"log10": math.log10, "sqrt": math.sqrt, "abs": abs, "max": max, "sum": sum}


def scopes(rig: Rig, analysis: Analysis) -> Iterator[dict[str, Any]]:
    """What stands beside what on screen."""
    for run in analysis.runs:
        for one in run.result.inputs:
            level = next((level for level in one.levels if level.active), None)
            yield {
                "levels": level, "hum": one.hum, "noise": one.noise, "sum": one.sum, "balance": one.balance,
                "loudspeaker": one.loudspeaker, "data": run.result.data,
            }  # fmt: skip
    for destination in analysis.destinations:
        yield {"destination": destination, "venue": rig.venue}


def at(path: str, scope: dict[str, Any]) -> Any:
    """What a path leads to; None where a record on the way is missing."""
    first, *rest = path.split(".")
    found = scope.get(first)
    for index, name in enumerate(rest):
        if found is None:
            return None
        if name.endswith("[]"):
            return [at(".".join(["x", *rest[index + 1 :]]), {"x": one}) for one in getattr(found, name[:-2])]
        found = getattr(found, name)
    return found


def worked_out(formula: Formula, scope: dict[str, Any], digits: int | None = None) -> float | None:
    """The expression's value with its inputs, rounded as they are displayed where digits are given."""
    given = {one.symbol: at(one.path, scope) for one in formula.inputs}
    if any(value is None for value in given.values()):
        return None
    if digits is not None:
        given = {
            name: [round(x, digits) for x in v] if isinstance(v, list) else round(v, digits)
            for name, v in given.items()
        }
    return float(eval(formula.expression, {"__builtins__": {}, **FUNCTIONS, **given}))


class Formulas(unittest.TestCase):
    def test_each_gives_its_figure_wherever_that_is_shown(self) -> None:
        seen: dict[str, int] = {}
        loud = {"programme_db_spl": 85.0, "noise_dba": 32.0}
        loudspeakers = speakers("amplifier-two-channel", "loudspeaker-passive", "loudspeaker-lead", 20.0)
        for rig in (demo_rig(), loudspeakers, lit("mic-lead"), *(random_rig(seed) for seed in range(4))):
            rig = rig.with_fields(venue=rig.venue.model_copy(update=loud))
            for scope in scopes(rig, analyse(rig)):
                for formula in FORMULAS:
                    shown, exact = at(formula.figure, scope), worked_out(formula, scope)
                    if shown is None or exact is None or shown <= -129.0:
                        continue
                    self.assertAlmostEqual(exact, shown, delta=0.001 * max(1.0, abs(shown) * 1e-3), msg=formula.figure)
                    rounded = worked_out(formula, scope, 1)
                    assert rounded is not None
                    # A tenth of a decibel is a fortieth of the power.
                    delta = {"%": 1.0, "W": 0.03}.get(formula.unit, 0.0) * abs(shown) + 0.16
                    self.assertAlmostEqual(rounded, shown, delta=delta, msg=formula.figure)
                    seen[formula.figure] = seen.get(formula.figure, 0) + 1
        self.assertEqual(set(seen), {one.figure for one in FORMULAS})

    def test_every_symbol_is_an_input_and_every_input_is_used(self) -> None:
        for formula in FORMULAS:
            words = set(re.findall(r"[a-z][a-z0-9]*", formula.expression)) - {*FUNCTIONS, "for", "in", "x"}
            self.assertEqual(words, {one.symbol for one in formula.inputs}, formula.figure)
            self.assertTrue(formula.source and formula.name)
