"""What can be wrong with a run that its wiring does not show: controls, neighbours, what lies near.

Common practice throughout, no source: what is said here, and how often each turns out to be it.
"""

from collections.abc import Iterator
from dataclasses import dataclass

from ruvak.core.judge.symptoms import Heard
from ruvak.core.rig.part import is_mixer, sounds
from ruvak.core.rig.ports import NOT_SOUND
from ruvak.core.rig.rig import Gear, Rig, Run, runs_on_battery

WEIGHTS = {"channel": 6.0, "socket": 4.0, "gain": 4.0, "other": 3.0, "supply": 3.0, "near": 2.0}
"""How often each turns out to be the cause, against each other."""


@dataclass(frozen=True)
class Suspicion:
    """Something that would be heard so, and what to do to find out; `weight`: how often it turns out to be it."""

    heard: Heard
    words: str
    weight: float
    things: tuple[str, ...] = ()


def carries_data(rig: Rig, run: Run) -> bool:
    """Whether what it ends at listens to lighting data and not to sound."""
    signals = [
        receiver.signal
        for end in run.ends
        for receiver in rig.part_of(end.owner).inputs
        if end.connector in receiver.connectors
    ]
    return bool(signals) and NOT_SOUND.issuperset(signals)


def beside(rig: Rig, run: Run) -> Iterator[Suspicion]:
    """Of a run of a prepared rig; nothing where no device is at its ends."""
    gear = {each.id: each for each in rig.gear}
    ends = [end for end in run.ends if end.owner in gear]
    if not ends:
        return
    source, into = gear[ends[0].owner], gear[ends[-1].owner]
    if carries_data(rig, run):
        yield from _data(source, into)
        return
    yield from _anywhere(source, into)
    if is_mixer(rig.part_of(into.id)):
        yield from _into_a_mixer(run, into)
    else:
        yield from _into_anything_else(rig, source, into)
    if runs_on_battery(source, rig.part_of(source.id)):
        supply, at_source = WEIGHTS["supply"], (source.id,)
        yield Suspicion("silent", f"the battery of {source.name} is empty", supply, at_source)
        yield Suspicion("crackle", f"the battery of {source.name} is nearly empty", supply, at_source)


def _data(source: Gear, into: Gear) -> Iterator[Suspicion]:
    channel, other = WEIGHTS["channel"], WEIGHTS["other"]
    yield Suspicion("silent", f"{into.name} listens to another address or mode", channel, (into.id,))
    yield Suspicion("silent", f"{source.name} sends nothing here: another output, or its level is down", channel)
    yield Suspicion("crackle", "nothing ends the line at its last device: put the terminator there", channel)
    yield Suspicion("crackle", "a microphone lead is in the line: put a data lead in its place", other)


def _anywhere(source: Gear, into: Gear) -> Iterator[Suspicion]:
    at_desk, at_source = (into.id,), (source.id,)
    channel, gain = WEIGHTS["channel"], WEIGHTS["gain"]
    muted = f"the channel at {into.name} is muted, its fader down or its source another"
    yield Suspicion("silent", muted, channel, at_desk)
    yield Suspicion("silent", f"{source.name} is muted, off or turned down", channel, at_source)
    yield Suspicion("silent", "the plug is in the neighbour's socket: follow the lead with a hand", WEIGHTS["socket"])
    near = f"a phone, dimmer or plug-in supply lies beside a lead or {source.name}: move it away"
    yield Suspicion("hum", near, WEIGHTS["near"])
    yield Suspicion("weak", f"the gain at {into.name} is too low", gain, at_desk)
    too_high = f"the gain at {into.name} is too high: back until the clip light stays off"
    yield Suspicion("distorted", too_high, gain, at_desk)
    yield Suspicion("distorted", f"{source.name} itself is too loud", gain / 2, at_source)


def _into_a_mixer(run: Run, into: Gear) -> Iterator[Suspicion]:
    at_desk, other = (into.id,), WEIGHTS["other"]
    hums = f"it comes by another channel: mute {run.name}; what stays is not this run"
    yield Suspicion("hum", hums, other, at_desk)
    twice = "the same sound comes by another channel too, later or with its polarity reversed: mute the others"
    yield Suspicion("thin", twice, other, at_desk)
    filters = f"low cut, equaliser or polarity of the channel at {into.name}"
    yield Suspicion("thin", filters, other, at_desk)
    panned = f"balance or pan of the channel at {into.name} is turned to a side"
    yield Suspicion("one_side", panned, WEIGHTS["gain"], at_desk)
    yield Suspicion("one_side", "a main speaker is off: listen to another channel", other)


def _into_anything_else(rig: Rig, source: Gear, into: Gear) -> Iterator[Suspicion]:
    at_source, at_end, other = (source.id,), (into.id,), WEIGHTS["other"]
    how = "mute every channel there" if is_mixer(rig.part_of(source.id)) else "listen to it on headphones"
    hums = f"it comes out of {source.name} already: {how}; what is gone then comes from before it"
    yield Suspicion("hum", hums, other, at_source)
    part = rig.part_of(into.id)
    if any(sounds(part, receiver) for receiver in part.inputs):
        yield Suspicion("thin", f"one way of {into.name} does not work: listen to it alone, close by", other, at_end)
        reversed_ = "another speaker plays the same with its polarity reversed: mute one; both together must be louder"
        yield Suspicion("thin", reversed_, other)
    else:
        summed = f"left and right are added at {into.name}, and one of them has its polarity reversed"
        yield Suspicion("thin", summed, other, at_end)
    side = f"one side of {source.name} gives nothing: swap left and right there; what moves with the lead is the lead"
    yield Suspicion("one_side", side, other, at_source)
