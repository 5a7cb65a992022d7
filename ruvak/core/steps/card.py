"""A run's card for the line check: where to make a sound, where it comes out, what to expect there, in a few words."""

from ruvak.core.analyse import RunAnalysis
from ruvak.core.gain.levels import level_steps
from ruvak.core.gain.meter import MeterTarget, meter_target
from ruvak.core.judge.rule import active, alive, input_words
from ruvak.core.rig.rig import Rig, Run, name_of
from ruvak.core.rig.values import Id, Record
from ruvak.core.steps.beside import carries_data
from ruvak.core.steps.causes import LikelyCause
from ruvak.core.trace.run_ends import say_ends


class Expected(Record):
    """What arrives at one input, and what to do with it there."""

    input: str
    """The input, as it is written on the device."""
    arriving_dbu: float | None
    """Average programme, in dBu; null where nothing measurable arrives."""
    wants_dbu: float
    """What the input is made for, in dBu; its gain makes up the difference."""
    short_db: float
    """What of it the input's control cannot give, in dB."""
    meter: MeterTarget
    """What the meter of a digital desk reads once the gain is set."""
    headroom_db: float | None
    """From the loudest that can arrive to where the input clips, in dB, before its gain."""


class CheckCard(Record):
    """All that somebody with a phone needs to know about one run."""

    run: Id
    """The run."""
    number: int
    """Its number."""
    name: str
    """What it is called."""
    source: str
    """The device to make a sound at, with its sockets."""
    into: str
    """Where to listen, with its sockets."""
    pieces: tuple[str, ...]
    """Leads, adapters and boxes on the way, from the source."""
    piece_ids: tuple[Id, ...]
    """The same by id."""
    phantom: str
    """Whether its source needs phantom, in words; empty where it does not."""
    expected: tuple[Expected, ...]
    """At each input."""
    levels: tuple[str, ...]
    """What else is set: a speaker's switch and volume, a computer's, the house level."""
    warnings: tuple[str, ...]
    """What was computed to be wrong, and what stays audible."""
    causes: tuple[LikelyCause, ...]
    """What is likely when it is not as it should be."""
    is_data: bool
    """Whether it carries lighting data: then lamps that do nothing stand for silence, and flickering for crackle."""


def check_card(rig: Rig, run: Run, analysis: RunAnalysis, causes: tuple[LikelyCause, ...]) -> CheckCard:
    """The card of a run from its own analysis. The rig is prepared."""
    return CheckCard(
        run=run.id,
        number=run.number,
        name=run.name,
        source=say_ends(rig, run, "out"),
        into=say_ends(rig, run, "in"),
        pieces=tuple(name_of(rig, piece) for piece in run.pieces),
        piece_ids=run.pieces,
        phantom=_phantom(analysis),
        expected=tuple(_expected(rig, analysis)),
        levels=level_steps(rig, analysis),
        warnings=tuple(finding.sentence for finding in analysis.findings if finding.grade.value in ("stop", "fix")),
        causes=causes,
        is_data=carries_data(rig, run),
    )


def _phantom(analysis: RunAnalysis) -> str:
    wants = [supply for supply in analysis.result.phantom if supply.wanted_v is not None]
    if not wants:
        return ""
    return "needs phantom: mute the channel, switch it on, wait ten seconds"


def _expected(rig: Rig, analysis: RunAnalysis) -> list[Expected]:
    result = []
    for receiver in analysis.result.inputs if analysis.result.data is None else ():
        level = active(receiver)
        if level is None:
            continue
        arrives = alive(receiver.channels)
        result.append(
            Expected(
                input=input_words(rig, receiver),
                arriving_dbu=round(level.arriving_dbu, 1) if arrives else None,
                wants_dbu=round(level.nominal_dbu, 1),
                short_db=round(level.short_db, 1),
                meter=meter_target(level, rig.alignment, rig.venue.house.gain),
                headroom_db=round(level.headroom_db, 1) if arrives else None,
            )
        )
    return result
