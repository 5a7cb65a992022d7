"""Runs solved by themselves, in a rig of only what they touch."""

from dataclasses import dataclass

from ruvak.core.analyse import quick_findings
from ruvak.core.entry.line_ends import links_of
from ruvak.core.judge.finding import Finding
from ruvak.core.rig.part import belongs_to_computer, usb_ends
from ruvak.core.rig.points import Endpoint
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
    small = sub_rig(rig, *run_ids, *_feeding(rig, run_ids), *_by_usb(rig, run_ids))
    traced = trace(small)
    results = zip(small.runs, quick_findings(small, traced), strict=True)
    return [SubRigResult(findings, small, traced) for run, findings in results if run.id in run_ids]


def _by_usb(rig: Rig, run_ids: tuple[str, ...]) -> set[str]:
    """Runs by which devices of these hang on their computer, whose supply decides what they hum."""
    owners = {owner for run in rig.runs if run.id in run_ids for owner in run.owners}
    devices = {device.id: rig.part_of(device.id) for device in rig.gear if device.id in owners}
    ends = {
        Endpoint(id_, name) for id_, part in devices.items() if belongs_to_computer(part) for name in usb_ends(part)
    }
    return {run.id for run in rig.runs if ends & set(run.ends)} - set(run_ids) if ends else set()


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
