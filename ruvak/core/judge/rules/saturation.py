"""A transformer that loud bass drives into saturation."""

from collections.abc import Iterator

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import finding
from ruvak.core.results.records import RunResult
from ruvak.core.rig.rig import Rig, name_of

BASS_BELOW_PEAK_DB = 10.0
"""So far below the programme's loudest peaks lie those at 30 Hz alone: from memory."""


def saturation(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Per box or device, the core that is driven furthest over."""
    worst: dict[str, tuple[float, float, float, float]] = {}
    for core in result.cores:
        bass_dbu = core.peak_dbu - BASS_BELOW_PEAK_DB
        over = (bass_dbu - core.saturates_dbu, bass_dbu, core.saturates_dbu, core.at_hz)
        worst[core.owner] = max(worst.get(core.owner, over), over)
    for owner, (over_db, bass_dbu, saturates_dbu, at_hz) in worst.items():
        if over_db > 0.0:
            params: dict[str, float | str] = {
                "box": name_of(rig, owner),
                "over_db": over_db,
                "bass_dbu": bass_dbu,
                "saturates_dbu": saturates_dbu,
                "at_hz": at_hz,
            }
            yield finding(FindingCode.SATURATES, Grade.WATCH, result, owner, "core", params)
