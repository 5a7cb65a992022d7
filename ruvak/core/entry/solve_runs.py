"""Runs solved by themselves, in a rig of only what they touch."""

from dataclasses import dataclass

from ruvak.core.analyse import quick_findings
from ruvak.core.entry.line_ends import links_of
from ruvak.core.judge.finding import Finding
from ruvak.core.rig.prune import sub_rig
from ruvak.core.rig.rig import Rig
from ruvak.core.trace.run_ends import ends_of
from ruvak.core.trace.trace import Trace, trace


@dataclass(frozen=True)
class SubRigResult:
    """A run's findings, the small rig it was solved in, and that rig's trace."""

    findings: tuple[Finding, ...]
    rig: Rig
    traced: Trace


def solve_runs(rig: Rig, run_ids: tuple[str, ...]) -> list[SubRigResult]:
    """Runs of a rig solved by themselves, with those that feed them; in the order of the rig."""
    small = sub_rig(rig, *run_ids, *_feeding(rig, run_ids))
    traced = trace(small)
    results = zip(small.runs, quick_findings(small, traced), strict=True)
    return [SubRigResult(findings, small, traced) for run, findings in results if run.id in run_ids]


def _feeding(rig: Rig, run_ids: tuple[str, ...]) -> set[str]:
    """Runs without which these carry nothing, since they start at a socket that leads on what comes in at another."""
    result: set[str] = set()
    wanted = [run for run in rig.runs if run.id in run_ids]
    while wanted:
        run = wanted.pop()
        leading = {end.owner for end in ends_of(rig, run, "out") if end.connector in links_of(rig.part_of(end.owner))}
        for other in rig.runs if leading else ():
            if (
                other.id not in result
                and other.id != run.id
                and leading & {end.owner for end in ends_of(rig, other, "in")}
            ):
                result.add(other.id)
                wanted.append(other)
    return result - set(run_ids)
