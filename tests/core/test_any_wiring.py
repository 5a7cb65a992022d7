"""Whatever is wired to whatever: no crash, no figure that is not finite, and directions that are always true."""

import unittest
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from ruvak.core.analyse import Analysis, analyse
from tests.support.figures import unfinite
from tests.support.rigs import receiver_part, source_part, stated_rig

CONTACTS = [*(f"in.{c}" for c in "TRS"), *(f"out{n}.{c}" for n in (1, 2) for c in "123"), "inner", "case"]
pairs = st.tuples(st.sampled_from(CONTACTS), st.sampled_from(CONTACTS)).filter(lambda pair: pair[0] != pair[1])
sizes = st.floats(-3, 3).map(lambda exponent: 10.0**exponent)


@st.composite
def elements(draw: st.DrawFn) -> dict[str, Any]:
    kind = draw(st.sampled_from(["resistor", "capacitor", "transformer"]))
    (a, b), (c, d), size = draw(pairs), draw(pairs), draw(sizes)
    if kind == "resistor":
        return {"type": kind, "a": a, "b": b, "ohm": 1000 * size}
    if kind == "capacitor":
        return {"type": kind, "a": a, "b": b, "farad": 1e-8 * size}
    return {
        "type": kind, "primary_a": a, "primary_b": b, "secondary_a": c, "secondary_b": d, "turns_ratio": size,
        "primary_ohm": 50, "secondary_ohm": 50, "magnetising_h": 10, "leakage_h": 1e-3, "winding_f": 1e-10,
    }  # fmt: skip


class AnyWiring(unittest.TestCase):
    @given(
        st.lists(pairs, max_size=8), st.lists(elements(), max_size=4), st.sampled_from(["mono", "stereo"]),
        st.booleans(), st.floats(-60, 0),
    )  # fmt: skip
    @settings(max_examples=120)
    def test_it_is_analysed(
        self, wires: list[tuple[str, str]], boxed: list[dict[str, Any]], mix: str, spread: bool, nominal: float
    ) -> None:
        analysis = self.analysed(wires, boxed, mix, spread, nominal)
        run = analysis.runs[0]
        self.assertEqual(unfinite(analysis.model_dump()), [])
        self.assertTrue(run.findings)
        self.assertEqual(sum(analysis.verdict.model_dump().values()), 1)
        for one in run.result.inputs:
            if one.sum is not None:
                self.assertLessEqual(one.sum.centre_db, one.sum.centre_worst_db + 1e-9, "likely never exceeds worst")
                self.assertLessEqual(one.sum.centre_ideal_db, one.sum.centre_db + 1e-9)
            self.assertEqual(one.sum is None, one.sum_null is not None)

    @given(st.lists(pairs, max_size=6), st.lists(elements(), max_size=2))
    @settings(max_examples=40)
    def test_the_order_of_entry_changes_nothing(
        self, wires: list[tuple[str, str]], boxed: list[dict[str, Any]]
    ) -> None:
        one = self.analysed(wires, boxed, "mono", True, 0.0).runs[0]
        other = self.analysed([(b, a) for a, b in reversed(wires)], boxed[::-1], "mono", True, 0.0).runs[0]
        self.assertEqual([f.code for f in one.findings], [f.code for f in other.findings])
        for mine, theirs in zip(one.result.inputs, other.result.inputs, strict=True):
            for left, right in zip(mine.channels, theirs.channels, strict=True):
                self.assertAlmostEqual(left.gain_db, right.gain_db, places=5)

    def analysed(
        self, wires: list[tuple[str, str]], boxed: list[dict[str, Any]], mix: str, spread: bool, nominal: float
    ) -> Analysis:
        unknown = {"likely": 0.01, "worst": 0.05} if spread else 0.01
        rejection = {"likely": 50, "worst": 40} if spread else 60
        return analyse(
            stated_rig(
                wires=wires, elements=boxed, outs=2,
                source=source_part(channel_match_db=unknown, z_mismatch=unknown, nominal_dbu=nominal, return_ohm=0.1),
                receiver=receiver_part(inputs=2, mix=mix, z_common_mismatch=unknown, rejection_db=rejection),
            )
        )  # fmt: skip
