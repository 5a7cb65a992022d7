"""Loudspeaker lines: copper that keeps what the loudspeaker should get, and more power than it bears."""

from collections.abc import Iterator

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.rule import finding
from ruvak.core.judge.sentences import number
from ruvak.core.results.line_records import LoudspeakerLine
from ruvak.core.results.records import InputResult, RunResult
from ruvak.core.rig.rig import Rig, name_of

WATCH_DB, FIX_DB = 0.5, 3.0
"""A lead may keep half a decibel for itself, a tenth of the power: common practice. At 3 dB half of it is gone."""
COPPER_OHM_MM2_PER_M = 0.01724
"""IEC 60028, at 20 degrees."""
SIZES_MM2 = (0.75, 1.0, 1.5, 2.5, 4.0, 6.0, 10.0)
"""Cross-sections cables are made in: IEC 60228."""


def loudspeaker(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """What the copper costs, told once a run; what each loudspeaker gets beyond what it bears."""
    lines = [(receiver, receiver.loudspeaker) for receiver in result.inputs if receiver.loudspeaker is not None]
    yield from _copper(rig, result, sorted(lines, key=lambda pair: -pair[1].loss_db))
    for entry, line in lines:
        if line.peak_w > line.rated_w:
            watts: dict[str, float | str] = {"peak_w": line.peak_w, "rated_w": line.rated_w}
            place: dict[str, float | str] = {"place": name_of(rig, entry.gear)}
            yield finding(FindingCode.OVERPOWERED, Grade.FIX, result, entry.gear, entry.input, place | watts)


def _copper(rig: Rig, result: RunResult, lines: list[tuple[InputResult, LoudspeakerLine]]) -> Iterator[Finding]:
    """Of the loudspeaker that loses most, since copper for it is enough for all; the others behind it in a word."""
    losing = [(entry, line) for entry, line in lines if line.loss_db > WATCH_DB]
    if not losing:
        return
    (heard, line), others = losing[0], losing[1:]
    grade = Grade.FIX if line.loss_db > FIX_DB else Grade.WATCH
    shown = [f"{name_of(rig, two.gear)} {number(other.loss_db)} dB" for two, other in others]
    params: dict[str, float | str] = {
        "place": name_of(rig, heard.gear),
        "loss_db": line.loss_db,
        "left_percent": 100.0 * 10.0 ** (-line.loss_db / 10.0),
        "others": f"; on the way it costs {' and '.join(shown)}" if shown else "",
        "how": _how(rig, result, line),
    }
    yield finding(FindingCode.LINE_LOSS, grade, result, heard.gear, heard.input, params)


def _how(rig: Rig, result: RunResult, line: LoudspeakerLine) -> str:
    """Copper in proportion: a lead that keeps a decibels has R = R_load (10^(a / 20) - 1), and R is rho 2 l / A."""
    times = (10.0 ** (line.loss_db / 20.0) - 1.0) / (10.0 ** (WATCH_DB / 20.0) - 1.0)
    area_mm2 = times * _area_mm2(rig, result)
    sizes = [size for size in SIZES_MM2 if size >= area_mm2]
    thicker = f"cores of {sizes[0]:g} mm\N{SUPERSCRIPT TWO}" if sizes else "several cores side by side"
    return (
        f"Use {thicker} over this length, or put the amplifier nearer to the loudspeaker; "
        "over long ways a 100 V line needs less copper."
    )


def _area_mm2(rig: Rig, result: RunResult) -> float:
    """The thinnest core on the way."""
    run = next(run for run in rig.runs if run.id == result.run)
    metres = [cable.core_ohm_per_m.value for piece in run.pieces for cable in rig.part_of(piece).cables]
    return COPPER_OHM_MM2_PER_M / max([length_m for length_m in metres if length_m > 0.0], default=COPPER_OHM_MM2_PER_M)
