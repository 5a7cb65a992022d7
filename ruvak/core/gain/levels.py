"""What is set on a run besides the channel's gain: a speaker's switch and volume, a computer's, the house level."""

from collections.abc import Iterator

from ruvak.core.analyse import RunAnalysis
from ruvak.core.gain.exposure import exposure_words
from ruvak.core.results.records import InputResult, Levels
from ruvak.core.rig.part import is_computer, sounds
from ruvak.core.rig.rig import Rig, name_of

_SPEAKER_VOLUME = {"middle": "its volume in the middle", "full": "its volume fully up"}
_COMPUTER_VOLUME = {"full": "volume fully up, in the system and in the program", "half": "volume at half"}
LISTENED_TO_DBA = 94.0
"""Said where nobody stated how loud the programme is: an hour of it is a day's share."""


def level_steps(rig: Rig, analysis: RunAnalysis) -> tuple[str, ...]:
    """Sentences in the order in which they are done: source, then speaker, then the house."""
    if analysis.result.data is not None:
        return ()
    return (*_sources(rig, analysis), *_speakers(rig, analysis))


def _sources(rig: Rig, analysis: RunAnalysis) -> Iterator[str]:
    for gear in dict.fromkeys(source.gear for source in analysis.result.sources):
        if is_computer(rig.part_of(gear)):
            yield f"{name_of(rig, gear)}: {_COMPUTER_VOLUME[rig.venue.house.computer_volume]}"


def _speakers(rig: Rig, analysis: RunAnalysis) -> Iterator[str]:
    speakers = [each for each in analysis.result.inputs if _sounds(rig, each)]
    for receiver in speakers:
        name = name_of(rig, receiver.gear)
        if receiver.loudspeaker is not None:
            continue
        if (choice := _switch(receiver)) is not None:
            yield f"{name}: {choice}"
        yield f"{name}: {_SPEAKER_VOLUME[rig.venue.house.speaker_volume]}"
    if speakers:
        stated = rig.venue.programme_db_spl
        level_dba = stated if stated is not None else LISTENED_TO_DBA
        yield (
            "the house level last, slowly up from nothing; "
            f"a day's share of sound at {exposure_words(level_dba)} (NIOSH 1998)"
        )


def _sounds(rig: Rig, receiver: InputResult) -> bool:
    part = rig.part_of(receiver.gear)
    return sounds(part, next(each for each in part.inputs if each.id == receiver.input))


def _switch(receiver: InputResult) -> str | None:
    """Line where the level suffices, else the most sensitive position with what headroom is left; None without a
    switch."""
    by_name = {level.when: level for level in receiver.levels if level.when is not None}
    if len(by_name) < 2:
        return None
    least_sensitive = max(by_name.values(), key=lambda level: level.nominal_dbu)
    others = [level for level in by_name.values() if level is not least_sensitive]
    if least_sensitive.short_db <= 0.0:
        rest = "; ".join(f"at {level.when} {_headroom(level)}" for level in others)
        return f"switch at {least_sensitive.when}, {_headroom(least_sensitive)} ({rest})"
    best = min(others, key=lambda level: (level.headroom_db < 0.0, level.short_db))
    return (
        f"switch at {best.when}, {_headroom(best)}; at {least_sensitive.when} it is "
        f"{least_sensitive.short_db:.0f} dB too quiet"
    )


def _headroom(level: Levels) -> str:
    return f"{level.headroom_db:.0f} dB of headroom" if level.headroom_db >= 0.0 else "it clips"
