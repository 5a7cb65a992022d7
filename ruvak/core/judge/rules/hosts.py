"""A box that belongs to a computer which the plan does not have."""

from collections.abc import Iterator

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import finding
from ruvak.core.results.records import RunResult
from ruvak.core.rig.part import belongs_to_computer, usb_ends
from ruvak.core.rig.rig import Gear, Rig, Run, connectors_in_use, earthing_of, name_of


def hosts(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Watch: it floats in the plan, though in the hall the computer's supply ties it to something."""
    run = next(run for run in rig.runs if run.id == result.run)
    for device in hostless(rig, run):
        params: dict[str, float | str] = {"device": name_of(rig, device.id)}
        yield finding(FindingCode.HOST_UNKNOWN, Grade.WATCH, result, device.id, "", params)


def hostless(rig: Rig, run: Run) -> tuple[Gear, ...]:
    """Devices of the run with a plug for a computer and nothing at its other end, where it matters: something else on
    the run has a mains supply, so that a loop may close."""
    owners = (rig.owners_by_id[owner] for owner in run.owners)
    gear = [owner for owner in owners if isinstance(owner, Gear)]
    powered = {device.id for device in gear if _has_supply(rig, device)}
    return tuple(device for device in gear if powered - {device.id} and _lacks_host(rig, device))


def _has_supply(rig: Rig, gear: Gear) -> bool:
    earthing = earthing_of(gear, rig.part_of(gear.id))
    return earthing is not None and earthing.type != "floating"


def _lacks_host(rig: Rig, gear: Gear) -> bool:
    part = rig.part_of(gear.id)
    if not belongs_to_computer(part) or any(gear.id in (bond.a.owner, bond.b.owner) for bond in rig.bonds):
        return False
    ends = usb_ends(part)
    return not any(end.owner == gear.id and end.connector in ends for end in connectors_in_use(rig))
