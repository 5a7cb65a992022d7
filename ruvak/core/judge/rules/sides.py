"""A side that never arrives, swapped sides, reversed polarity."""

from collections.abc import Iterator

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import HeardAt, alive, finding, name_of, places
from ruvak.core.results.missing_side import loudest_db
from ruvak.core.results.records import ChannelGain, MixResult, RunResult
from ruvak.core.results.sums import LOST_BELOW_LOUDER_DB
from ruvak.core.rig.rig import Rig

SIDE_LOST_DB = 20.0
"""A side this far below the other is not heard beside it: common practice."""

_SPOKEN = {"L": "left", "R": "right"}


def sides(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Watch for a missing side, reversed polarity or two sources of opposite polarity, Fix for swapped sides."""
    for place in places(rig, result):
        if not place.arrives:
            continue
        for number, source in enumerate(result.sources):
            own = tuple(channel for channel in place.channels if channel.source == number)
            if len(own) == 2 and not source.mono:
                yield from _missing(result, place, own)
        if place.stereo is not None:
            yield from _judge_silent_side(result, place, place.stereo)
        if place.stereo is not None and _are_swapped(place.stereo.left, place.stereo.right):
            yield finding(FindingCode.SIDES_SWAPPED, Grade.FIX, result, place.gear, place.id, {"place": place.words})
        heard = place.stereo.left + place.stereo.right if place.stereo else place.channels
        known = [channel.in_phase for channel in heard if channel.in_phase is not None]
        if not any(known):
            yield finding(FindingCode.INVERTED, Grade.WATCH, result, place.gear, place.id, {"place": place.words})
        elif (opposed := _opposed(rig, result, heard)) is not None:
            params = {"place": place.words, **opposed}
            yield finding(FindingCode.SOURCES_OPPOSED, Grade.WATCH, result, place.gear, place.id, params)


def _opposed(rig: Rig, result: RunResult, heard: tuple[ChannelGain, ...]) -> dict[str, float | str] | None:
    """By name a device that arrives with its polarity kept and another that arrives with it reversed. A device of which
    some channels are reversed is no such: its own sides cancel, which another rule says."""
    kept: dict[str, set[bool]] = {}
    for channel in heard:
        if channel.in_phase is not None:
            kept.setdefault(result.sources[channel.source].gear, set()).add(channel.in_phase)
    whole = next((gear for gear, ways in kept.items() if ways == {True}), None)
    turned = next((gear for gear, ways in kept.items() if ways == {False}), None)
    if whole is None or turned is None:
        return None
    return {"reversed": name_of(rig, turned), "kept": name_of(rig, whole)}


def _judge_silent_side(result: RunResult, place: HeardAt, stereo: MixResult) -> Iterator[Finding]:
    """A stereo destination of which both sides are plugged in and one stays silent."""
    if not stereo.left or not stereo.right or len(stereo.inputs) < 2:
        return
    sides = (("left", stereo.left), ("right", stereo.right))
    least_db = max(loudest_db(side) for _, side in sides) - LOST_BELOW_LOUDER_DB
    silent = [word for word, side in sides if not alive(side) or loudest_db(side) < least_db]
    if len(silent) == 1:
        heard = "right" if silent == ["left"] else "left"
        params: dict[str, float | str] = {"place": place.words, "heard": heard, "silent": silent[0]}
        yield finding(FindingCode.ONE_SIDED, Grade.WATCH, result, place.gear, place.id, params)


def _missing(result: RunResult, place: HeardAt, pair: tuple[ChannelGain, ...]) -> Iterator[Finding]:
    quieter, louder = sorted(pair, key=lambda channel: channel.gain_db)
    if quieter.gain_db < louder.gain_db - SIDE_LOST_DB:
        params: dict[str, float | str] = {
            "place": place.words,
            "present": _SPOKEN.get(louder.channel, louder.channel),
            "missing": _SPOKEN.get(quieter.channel, quieter.channel),
        }
        yield finding(FindingCode.SIDE_MISSING, Grade.WATCH, result, place.gear, place.id, params)


def _are_swapped(left: tuple[ChannelGain, ...], right: tuple[ChannelGain, ...]) -> bool:
    if len(left) != 2 or len(right) != 2:
        return False
    return left[1].gain_db > left[0].gain_db + SIDE_LOST_DB and right[0].gain_db > right[1].gain_db + SIDE_LOST_DB
