"""An analysis after another on what that left: never another answer."""

import unittest
from typing import Any

import numpy as np

from bench.rigs import earthed_rig
from ruvak.core.analyse import Analysis, analyse, assess
from ruvak.core.analysis_cache import AnalysisCache
from ruvak.core.prepare import prepare
from ruvak.core.results.kept_results import KeptResults
from ruvak.core.rig.edits import Edit, PutThing, SetField, apply
from ruvak.core.rig.values import Value
from ruvak.core.trace.kept_drawings import KeptDrawings
from ruvak.core.trace.trace import trace
from ruvak.service.demo_data import demo_rig


class Remembered(unittest.TestCase):
    def alike(self, one: Analysis, other: Analysis) -> None:
        """Equal; figures to a hundredth, which no screen shows."""
        self._alike(one.model_dump(mode="json"), other.model_dump(mode="json"), "analysis")

    def _alike(self, one: Any, other: Any, where: str) -> None:
        if isinstance(one, dict):
            self.assertEqual(one.keys(), other.keys(), where)
            for name, value in one.items():
                self._alike(value, other[name], f"{where}.{name}")
        elif isinstance(one, list):
            self.assertEqual(len(one), len(other), where)
            for number, (value, with_) in enumerate(zip(one, other, strict=True)):
                self._alike(value, with_, f"{where}[{number}]")
        elif isinstance(one, float) and isinstance(other, float):
            loud = max(one, other) > -140.0 or where.endswith("_a")
            self.assertTrue(abs(one - other) <= max(0.01, 1e-5 * abs(one)) or not loud, f"{where}: {one} and {other}")
        else:
            self.assertEqual(one, other, where)

    def test_an_edit_is_answered_as_if_nothing_had_been_solved_before(self) -> None:
        rig, cache = earthed_rig(12), AnalysisCache()
        analyse(rig, cache)
        for length_m in (3.0, 30.0, 3.0):
            edited = apply(
                rig,
                Edit(label="length", ops=(SetField(kind="kit", id=rig.kit[1].id, field="length_m", value=length_m),)),
            )
            self.alike(analyse(edited, cache), analyse(edited))

    def test_a_stage_with_a_multicore_too(self) -> None:
        rig, cache = prepare(demo_rig("midwinter-concert")), AnalysisCache()
        self.assertEqual(analyse(rig, cache), analyse(rig, cache))
        self.alike(analyse(rig, cache), analyse(rig))

    def test_an_edit_of_one_run_leaves_the_results_of_most_others_as_they_are(self) -> None:
        """A microphone lead: what is no part of a ground loop moves nothing beside it that anybody could measure."""
        rig, cache = earthed_rig(24), AnalysisCache()
        before = analyse(rig, cache)
        edited = apply(rig, Edit(label="l", ops=(SetField(kind="kit", id=rig.kit[1].id, field="length_m", value=8.0),)))
        after = analyse(edited, cache)
        kept = [one.result is other.result for one, other in zip(before.runs, after.runs, strict=True)]
        self.assertFalse(kept[1])
        self.assertGreater(sum(kept), 12)

    def test_what_somebody_else_changes_is_seen_in_a_run_whose_figures_were_kept(self) -> None:
        """An earth voltage, the room's temperature, another source's level: each moves runs that nobody touched."""
        rig, cache = prepare(demo_rig("midwinter-concert")), AnalysisCache()
        analyse(rig, cache)
        assert rig.assumptions is not None
        outlet = next(point for point in rig.venue.earth if point.kind == "circuit")
        hot = rig.assumptions.model_copy(update={"temperature_c": Value(value=60.0)})
        for edit in (
            SetField(kind="earth", id=outlet.id, field="emf_v", value=0.4),
            SetField(kind="rig", field="assumptions", value=hot.model_dump(mode="json")),
            SetField(kind="venue", field="mains_hz", value=60),
        ):
            edited = apply(rig, Edit(label="edit", ops=(edit,)))
            self.alike(analyse(edited, cache), analyse(edited))


class Assessed(unittest.TestCase):
    def test_the_same_figures_and_findings_as_the_whole_analysis(self) -> None:
        rig = prepare(demo_rig("midwinter-concert"))
        whole, light = analyse(rig), assess(rig, "slides")
        self.assertEqual(light.verdict, whole.verdict)
        self.assertEqual(light.target_run, next(one for one in whole.runs if one.run == "slides"))
        for one, other in zip(whole.runs, light.runs, strict=True):
            self.assertEqual(one.findings, other.findings)
            self.assertEqual(one.result.mixes, other.result.mixes)
            for mine, theirs in zip(one.result.inputs, other.result.inputs, strict=True):
                self.assertEqual(mine.levels, theirs.levels)
                assert mine.hum is not None and theirs.hum is not None
                self.assertEqual(mine.hum.weighted_dbu, theirs.hum.weighted_dbu)


class Drawings(unittest.TestCase):
    def test_a_drawing_that_was_kept_is_the_drawing_that_would_be_made(self) -> None:
        """After edits of everything a strip shows: names, lengths, parts, sockets, switches that a plug moves."""
        rig, kept = prepare(demo_rig("midwinter-concert")), KeptDrawings()
        run, lead, desk = rig.runs[0], rig.kit[0], rig.gear[0]
        edits = (
            SetField(kind="gear", id=desk.id, field="name", value="Another name"),
            SetField(kind="kit", id=lead.id, field="tag", value="X99"),
            SetField(kind="kit", id=lead.id, field="length_m", value=7.5),
            SetField(kind="runs", id=run.id, field="joins", value=[]),
            PutThing(kind="parts", thing=rig.part_of(desk.id).model_copy(update={"name": "Other", "revision": 2})),
        )
        for edit in (None, *edits):
            changed = apply(rig, Edit(label="edit", ops=(edit,))) if edit is not None else rig
            traced = trace(changed)
            fresh = KeptDrawings()
            for one in changed.runs:
                self.assertEqual(kept.draw(changed, traced, one), fresh.draw(changed, traced, one), one.id)

    def test_there_is_only_so_much_room(self) -> None:
        rig, kept = prepare(demo_rig("midwinter-concert")), KeptDrawings(most=2)
        traced = trace(rig)
        first = [kept.draw(rig, traced, run) for run in rig.runs[:3]]
        self.assertIs(kept.draw(rig, traced, rig.runs[2]), first[2])
        self.assertIsNot(kept.draw(rig, traced, rig.runs[0]), first[0])


class Results(unittest.TestCase):
    def test_there_is_only_so_much_room(self) -> None:
        rig = prepare(demo_rig("midwinter-concert"))
        whole, figures = analyse(rig).runs[0].result, [np.zeros(1000)]
        kept = KeptResults(most_bytes=2 * figures[0].nbytes)
        for run in ("a", "b", "c"):
            kept.keep("rig", run, b"key", list(figures), whole)
        held = [kept.find("rig", run, b"key", list(figures)) is not None for run in ("a", "b", "c")]
        self.assertEqual(held, [False, True, True])
        self.assertIsNone(kept.find("rig", "c", b"other", list(figures)))
        self.assertIsNone(kept.find("rig", "c", b"key", [np.ones(1000)]))
        self.assertIsNone(kept.find("rig", "c", b"key", [np.zeros(999)]))
