"""The rest of the line check: radio microphones before the runs, and after them the mutes, each destination, silence, a
walk through the room and the edge of feedback.

Common practice throughout, no source, where none is named.
"""

from collections.abc import Iterator, Mapping, Sequence
from typing import Literal

from ruvak.core.analyse import Analysis
from ruvak.core.rig.part import ChoiceSetting, belongs_to_computer, is_computer, is_mixer, sounds
from ruvak.core.rig.ports import NOT_SOUND
from ruvak.core.rig.rig import Gear, Rig, TakenBand, earthing_of, setting_of
from ruvak.core.rig.values import Id, Record
from ruvak.core.steps.lost import Loss, losses
from ruvak.core.steps.radio import carriers_of, clashes, say_band
from ruvak.core.trace.run_ends import ends_of, say_ends
from ruvak.core.units import say_dbu

RoundPhase = Literal["radio", "mute", "destination", "silence", "walk", "edge"]
EXPOSURE = "NIOSH 1998: 85 dBA for 8 h, halved for every 3 dB more."
LOUDEST_HUMS = 3


class RoundStep(Record):
    """Something to be checked that is no run."""

    id: str
    """Its id, which stays while the rig's devices do."""
    phase: RoundPhase
    """Which part of the check it belongs to."""
    name: str
    """What it is about, in a few words."""
    words: str
    """What to do, and what should happen."""
    why: str
    """What goes wrong otherwise, or what was computed."""
    things: tuple[Id, ...]
    """Devices that it is about."""


class Round(Record):
    """Everything of the check beside the runs."""

    before: tuple[RoundStep, ...]
    """Before the runs."""
    after: tuple[RoundStep, ...]
    """After them."""
    losses: tuple[Loss, ...]
    """Of each run: what the occasion loses while it does not work."""


def check_round(rig: Rig, analysis: Analysis, elsewhere: Sequence[TakenBand] = ()) -> Round:
    """Of a prepared rig. `elsewhere`: what transmits in the house's other rigs at the same hours."""
    used = {owner for run in rig.runs for owner in run.owners}
    gear = [each for each in rig.gear if each.id in used]
    return Round(
        before=(*_frequencies(rig, gear, elsewhere), *_packs(rig, gear)),
        after=(*_mutes(rig, gear), *_destinations(rig), *_silence(rig, gear, analysis), *_walk(rig, gear)),
        losses=losses(rig),
    )


def _frequencies(rig: Rig, gear: list[Gear], elsewhere: Sequence[TakenBand]) -> Iterator[RoundStep]:
    by_radio = [each for each in gear if rig.part_of(each.id).role in ("radio-receiver", "in-ear-transmitter")]
    if by_radio:
        why = _say_free(carriers_of(rig), rig.venue.taken_mhz, elsewhere)
        words = (
            "Every transmitter off: each receiver's channel shows nothing. Let the receivers scan; then switch one "
            "transmitter on after the other. Which bands may be used is for the local licence."
        )
        yield _step("radio", "frequencies", "Frequencies", words, why, tuple(each.id for each in by_radio))


def _packs(rig: Rig, gear: list[Gear]) -> Iterator[RoundStep]:
    for each in gear:
        part = rig.part_of(each.id)
        if part.role != "radio-receiver":
            continue
        level = " ".join(
            f"{setting.label}: {setting_of(each, part, setting.id)}."
            for setting in part.settings
            if isinstance(setting, ChoiceSetting)
        )
        into = "; ".join(
            say_ends(rig, run, "in")
            for run in rig.runs
            if any(end.owner == each.id for end in ends_of(rig, run, "out"))
        )
        words = (
            f"The transmitter of {each.name}: paired with this receiver, named as here, unmuted, a fresh battery. Its "
            f"sensitivity so that the loudest word stays below its own clip light: it is no volume control. {level} "
            f"Then the gain at {into}."
        )
        why = "A pack that clips cannot be mended at the desk; one that is too low hisses."
        yield _step("radio", each.id, each.name, " ".join(words.split()), why, (each.id,))


def _say_free(carriers: Mapping[str, float], place: Sequence[TakenBand], elsewhere: Sequence[TakenBand]) -> str:
    """What was computed of the frequencies, and what only a scan shows."""
    taken = (*place, *elsewhere)
    if met := clashes(carriers, taken):
        return " ".join(f"{clash.name} ({clash.mhz:g} MHz) {clash.words}." for clash in met)
    sentences = []
    if carriers and (taken or len(carriers) > 1):
        of = [*(["each other"] if len(carriers) > 1 else []), *map(say_band, place)]
        if elsewhere:
            of.append(f"{len(elsewhere)} of the house's other rigs at the same time")
        named = ", ".join(f"{name} {mhz:g}" for name, mhz in carriers.items())
        sentences.append(f"Computed: {named} MHz: free of {', '.join(of)}.")
    if not place:
        sentences.append(
            "What the place has (television, neighbours, the hall's own) is seen only here, with a scan; note it at "
            "the venue, and it is computed with."
        )
    return " ".join(sentences)


def _mutes(rig: Rig, gear: list[Gear]) -> Iterator[RoundStep]:
    for each in gear:
        if is_mixer(rig.part_of(each.id)):
            words = (
                f"At {each.name}, with a source playing: mute its channel, and its meter drops and it is gone from "
                "every destination. Unmute it; the next."
            )
            why = "A source that is patched twice, or beside the fader, stays."
            yield _step("mute", each.id, f"Mutes at {each.name}", words, why, (each.id,))


def _destinations(rig: Rig) -> Iterator[RoundStep]:
    receivers, givers = (_devices(rig, side) for side in ("in", "out"))
    for each in rig.gear:
        part = rig.part_of(each.id)
        if each.id not in receivers:
            continue
        if any(receiver.signal in NOT_SOUND for receiver in part.inputs):
            continue
        if is_computer(part) and each.id in givers:
            words = (
                f"{each.name}: a second person joins the call from elsewhere, with their own sound off in this room. "
                "They hear the room and not themselves; they are heard here."
            )
            why = "An echo comes from a mix that carries the caller back, or from a second machine with its sound on."
        elif part.role == "hearing-loop":
            words = (
                f"{each.name}: walk through the seats with a loop receiver. Speech is clear and even, no buzz, nothing "
                "of it in guitar pickups."
            )
            why = (
                "IEC 60118-4 asks for 400 mA/m at peaks; a background 47 dB below that is good, 32 dB tolerable (from "
                "memory)."
            )
        elif part.role == "in-ear-transmitter":
            words = f"{each.name}: listen on its earphones with the volume down first, then raised; left is left."
            why = f"A jump in level goes straight into an ear. {EXPOSURE}"
        elif part.records:
            words = (
                f"{each.name}: record ten seconds and play them back, or watch the stream on another device with "
                "earphones. Both sides, clean, in step with the picture."
            )
            why = "A meter that moves says nothing of hum, of one side missing, or of the wrong source chosen."
        elif any(sounds(part, receiver) for receiver in part.inputs):
            words = (
                f"{each.name} alone, every other muted, at a low level: it plays what it should, from the side it "
                "should, highs and lows."
            )
            why = "Two together hide a dead one, a swapped pair and reversed polarity."
        elif not part.outputs:
            words = f"{each.name}: what is sent to it arrives there."
            why = "It is missed only when it is needed, and then there is no time."
        else:
            continue
        yield _step("destination", each.id, each.name, words, why, (each.id,))


def _devices(rig: Rig, side: Literal["in", "out"]) -> set[str]:
    """Devices at that side of a run, and computers whose sound boxes stand there."""
    own = {end.owner for run in rig.runs for end in ends_of(rig, run, side)}
    return own | {_host(rig, each) for each in rig.gear if each.id in own}


def _host(rig: Rig, box: Gear) -> str:
    """The computer of a sound box: the one that is named, or the only one there is; of any other device itself."""
    computers = [each.id for each in rig.gear if is_computer(rig.part_of(each.id))]
    if box.host is not None:
        return box.host
    is_box = belongs_to_computer(rig.part_of(box.id))
    return computers[0] if is_box and len(computers) == 1 else box.id


def _silence(rig: Rig, gear: list[Gear], analysis: Analysis) -> Iterator[RoundStep]:
    if not any(is_mixer(rig.part_of(each.id)) for each in gear):
        return
    hums = sorted(
        (
            (receiver.hum.likely_dbu, run.name)
            for run in rig.runs
            for result in analysis.runs
            if result.run == run.id
            for receiver in result.result.inputs
            if receiver.hum is not None
        ),
        reverse=True,
    )
    most = {name: level_dbu for level_dbu, name in reversed(hums)}
    loudest = sorted(most.items(), key=lambda item: -item[1])[:LOUDEST_HUMS]
    named = ", ".join(f"{name} {say_dbu(level_dbu, 0)}" for name, level_dbu in loudest)
    words = (
        "A minute of silence: everything at its level, nobody plays, lights as they will be, dimmers half up. Listen "
        "at each speaker and on earphones at the desk."
    )
    why = f"Most hum is computed for {named}." if named else "Dimmers, screens and chargers are on by now."
    yield _step("silence", "all", "A minute of silence", words, why, ())


def _walk(rig: Rig, gear: list[Gear]) -> Iterator[RoundStep]:
    speakers = [each for each in gear if any(sounds(rig.part_of(each.id), got) for got in rig.part_of(each.id).inputs)]
    if not speakers:
        return
    things = tuple(each.id for each in speakers)
    words = (
        "Walk through the room while something known plays: the front, the middle, the last row, below galleries, the "
        "far sides. No seat without highs, no echo, nothing rattles."
    )
    yield _step(
        "walk",
        "room",
        "Walk through the room",
        words,
        "What is heard at the desk is not what is heard in the last row.",
        things,
    )
    if any(_is_a_microphone(rig, each) for each in gear):
        words = (
            "Warn everybody, nobody near a speaker. Each microphone open at its place, one at a time, then together: "
            "the masters up slowly until it just begins to ring, down at once. Cut that band by 3 to 6 dB, once more, "
            "and bring the masters back by 6 dB at least. Never with in-ear monitors in an ear."
        )
        why = f"What rings now rings during the programme too. {EXPOSURE}"
        yield _step("edge", "feedback", "Edge of feedback", words, why, things)


def _is_a_microphone(rig: Rig, gear: Gear) -> bool:
    part = rig.part_of(gear.id)
    earthing = earthing_of(gear, part)
    is_floating = earthing is not None and earthing.type == "floating"
    microphone = any(output.signal == "microphone" for output in part.outputs)
    return not part.inputs and ((microphone and is_floating) or part.role == "radio-receiver")


def _step(phase: RoundPhase, name: str, title: str, words: str, why: str, things: tuple[str, ...]) -> RoundStep:
    return RoundStep(id=f"{phase}:{name}", phase=phase, name=title, words=words, why=why, things=things)
