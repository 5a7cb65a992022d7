"""Analyses and remedies of the demonstration's rigs, made once in a process: several tests look at the same."""

from functools import cache

from ruvak.core.analyse import Analysis, analyse
from ruvak.core.analysis_cache import AnalysisCache
from ruvak.core.prepare import prepare
from ruvak.core.remedies.remedy import Remedy
from ruvak.core.remedies.search import remedies_for
from ruvak.core.rig.rig import Rig
from ruvak.service.demo_data import demo_rig


@cache
def solved_demo(name: str = "midwinter-concert") -> tuple[Rig, Analysis, AnalysisCache]:
    """The prepared rig, its analysis, and what was solved for it."""
    rig, kept = prepare(demo_rig(name)), AnalysisCache()
    return rig, analyse(rig, kept), kept


@cache
def demo_remedies(run: str, name: str = "midwinter-concert") -> tuple[Remedy, ...]:
    """Those of one run of a demonstration rig."""
    rig, before, kept = solved_demo(name)
    return remedies_for(rig, run, before, kept)
