"""What the meter should read once a channel's gain is set, in both schools."""

from ruvak.core.results.records import Levels
from ruvak.core.rig.rig import Alignment
from ruvak.core.rig.values import Record

BACK_DB = 11.0
"""Up to the clip light on the loudest passage and back by so much: common practice is 10 to 12 dB."""
PASSAGE_DB = 15.0
"""The loudest passage over the average: common practice is 12 to 18 dB for speech and singing, 20 and more for
percussion. A device that cannot give as much gives what it can."""
LEAST_PEAK_ROOM_DB = 3.0
"""The loudest passage stays so far under full scale, if need be with the average below the mark: common practice."""
CLIP = "clip-and-back"


class MeterTarget(Record):
    """One input's gain."""

    average_dbfs: float
    """What the meter reads on average, in dB under full scale."""
    peak_dbfs: float
    """What the loudest reads."""
    words: str
    """How it is set in this house."""
    other: str
    """How the other school sets it, and what its meter reads."""


def meter_target(level: Levels, alignment: Alignment, school: str) -> MeterTarget:
    """From the average as it arrives and the loudest passage over it. The gain raises both alike, so what lies between
    them stays."""
    crest_db = min(PASSAGE_DB, max(0.0, level.peak_dbu - level.arriving_dbu))
    mark_dbfs = -alignment.headroom_db
    on_mark_dbfs = min(mark_dbfs, -LEAST_PEAK_ROOM_DB - crest_db)
    backed_off_dbfs = -BACK_DB - crest_db
    by_average = f"gain until the average reads {_dbfs(on_mark_dbfs)}" + (
        f", {mark_dbfs - on_mark_dbfs:.0f} dB below the mark, since its loudest lies {crest_db:.0f} dB over the average"
        if on_mark_dbfs < mark_dbfs - 0.5
        else ""
    )
    by_clip = (
        f"gain up to the clip light on the loudest passage, then back {BACK_DB:.0f} dB: the average reads about "
        f"{_dbfs(backed_off_dbfs)}"
    )
    if school == CLIP:
        return _target(backed_off_dbfs, crest_db, by_clip, by_average)
    return _target(on_mark_dbfs, crest_db, by_average, by_clip)


def _target(average_dbfs: float, crest_db: float, words: str, other: str) -> MeterTarget:
    return MeterTarget(
        average_dbfs=round(average_dbfs, 1), peak_dbfs=round(average_dbfs + crest_db, 1), words=words, other=other
    )


def _dbfs(level_dbfs: float) -> str:
    return f"\N{MINUS SIGN}{abs(level_dbfs):.0f} dBFS"
