"""By what a checked run is known again: how it is wired and set, and how its findings are graded."""

import hashlib
from collections.abc import Iterable, Iterator

from ruvak.core.judge.finding import Finding
from ruvak.core.rig.rig import Gear, Rig, Run, setting_of


def key_as_checked(rig: Rig, run: Run, findings: Iterable[Finding], switches: Iterable[tuple[str, str]]) -> str:
    """The same as long as the run's answer in a line check holds; `rig` has its parts embedded. `switches`: what can be
    switched at its ends, device and setting.

    Figures are left out: an edit anywhere in a rig moves each of them a little, and what somebody would hear of it is a
    finding that comes, goes or is graded otherwise.
    """
    said = sorted(f"{finding.code} {finding.grade} {finding.subject}" for finding in findings)
    return hashlib.sha256("\n".join([*_wiring(rig, run), *_settings(rig, switches), *said]).encode()).hexdigest()[:32]


def _wiring(rig: Rig, run: Run) -> Iterator[str]:
    for join in run.joins:
        yield f"{join.a} {join.b} {join.sleeve}"
    for owner in dict.fromkeys((*run.pieces, *run.owners)):
        thing = rig.owners_by_id[owner]
        yield f"{owner} {thing.drawn} {rig.part_of(owner).content_digest.hex()}"
        if not isinstance(thing, Gear):
            yield f"{thing.length_m} {thing.contacts} {thing.faults}"


def _settings(rig: Rig, switches: Iterable[tuple[str, str]]) -> Iterator[str]:
    for owner, setting in switches:
        device = rig.owners_by_id[owner]
        if isinstance(device, Gear):
            yield f"{owner} {setting} {setting_of(device, rig.part_of(owner), setting)}"
