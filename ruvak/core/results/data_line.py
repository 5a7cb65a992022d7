"""Data lines: what a lead and the line's end send back of every edge, how long it is, how many hang on it.

Where a line of impedance Z0 meets Z, (Z - Z0) / (Z + Z0) of a wave's voltage comes back: any textbook of lines.
"""

from dataclasses import dataclass

from ruvak.core.circuit.circuit import Circuit
from ruvak.core.results.gains import Gains
from ruvak.core.results.line_records import DataLead, DataLine
from ruvak.core.results.run_ports import RunPorts
from ruvak.core.rig.connectors import SHAPES
from ruvak.core.rig.ports import SignalClass
from ruvak.core.rig.rig import Rig, Run, length_m


@dataclass(frozen=True)
class Made:
    """What a kind of line is made for: ohms of its pair, metres, receivers side by side."""

    wave_ohm: float
    limit_m: float
    most: int
    source: str
    matched: bool = True
    """Whether the line must end in its own impedance; a slow current loop need not."""


_LIGHTING = Made(120.0, 300.0, 32, "ANSI E1.11, EIA-485: 32 unit loads; the length from memory")
_LIGHT = Made(100.0, 10.0, 1, "common practice: 5 to 10 m of plastic fibre", matched=False)
_USB = Made(90.0, 5.0, 1, "USB 2.0: 5 m; from memory")
MADE: dict[tuple[SignalClass, str], Made] = {
    ("lighting-data", "xlr3"): _LIGHTING,
    ("lighting-data", "xlr5"): _LIGHTING,
    ("digital-audio", "xlr3"): Made(110.0, 100.0, 1, "AES3, IEC 60958-4: one receiver; 100 m from memory"),
    ("digital-audio", "rca"): Made(75.0, 10.0, 1, "IEC 60958-3; 10 m is common practice"),
    ("digital-audio", "optical"): _LIGHT,
    ("eight-channel-digital", "optical"): _LIGHT,
    ("computer-data", "usb"): _USB,
    ("computer-data", "usb-device"): _USB,
    ("video", "hdmi"): Made(
        100.0, 10.0, 1, "common practice: a passive lead of 10 m; longer ones have amplifiers inside"
    ),
    ("computer-data", "din5"): Made(
        100.0, 15.0, 1, "MIDI 1.0 electrical specification: 15 m; from memory", matched=False
    ),
    ("computer-data", "modular8"): Made(100.0, 100.0, 1, "ISO/IEC 11801: 100 m of channel; from memory"),
}
"""By signal and family of its plugs."""


def data_line(rig: Rig, run: Run, circuit: Circuit, ports: RunPorts, gains: Gains) -> DataLine | None:
    """None where the run carries something else, or where what sends and what listens are not of one kind."""
    drives = [circuit.drives[number] for group in ports.groups for number in group]
    receivers = [circuit.receivers[number] for number in ports.receivers]
    kinds = {drive.output.signal for drive in drives} | {receiver.input.signal for receiver in receivers}
    if len(kinds) != 1 or not receivers or not drives:
        return None
    part = rig.part_of(drives[0].gear)
    form = next(connector.form for connector in part.connectors if connector.id in drives[0].output.connectors)
    (signal,) = kinds
    made = MADE.get((signal, SHAPES[form].family)) if signal is not None else None
    if signal is None or made is None:
        return None
    # All receivers side by side; less where something else ends the line, which the driver is loaded with too.
    together = 1.0 / sum(1.0 / receiver.own_ohm for receiver in receivers)
    end_ohm = min(together, *(gains.load_ohm(number) for group in ports.groups for number in group))
    return DataLine(
        carries=signal,
        matched=made.matched,
        wave_ohm=made.wave_ohm,
        length_m=length_m(rig, run),
        limit_m=made.limit_m,
        leads=tuple(_leads(rig, run, made.wave_ohm)) if made.matched else (),
        end_ohm=end_ohm,
        end_reflected_percent=reflected_percent(end_ohm, made.wave_ohm) if made.matched else 0.0,
        receivers=len(receivers),
        most_receivers=made.most,
        source=made.source,
    )


def _leads(rig: Rig, run: Run, wave_ohm: float) -> list[DataLead]:
    """Leads whose impedance is stated."""
    result = []
    for piece in run.pieces:
        stated = [
            cable.characteristic_ohm for cable in rig.part_of(piece).cables if cable.characteristic_ohm is not None
        ]
        if stated:
            ohm = stated[0].value
            result.append(DataLead(owner=piece, ohm=ohm, reflected_percent=reflected_percent(ohm, wave_ohm)))
    return result


def reflected_percent(ohm: float, wave_ohm: float) -> float:
    """How much of an edge's voltage comes back where a line of `wave_ohm` meets `ohm`, whatever its sign."""
    return 100.0 * abs((ohm - wave_ohm) / (ohm + wave_ohm))
