"""Amplified runs: what a loudspeaker gets of what its amplifier sends, and what its lead keeps.

Lead and loudspeaker divide the amplifier's voltage: loss = 20 log10 |V at the amplifier / V at the loudspeaker|, as
solved, so whatever else hangs on the line counts. Power is V squared over the loudspeaker's impedance.
"""

import math
from collections.abc import Sequence

from ruvak.core.circuit.circuit import Drive, Receiver
from ruvak.core.results.gains import Gains
from ruvak.core.results.records import Levels, LoudspeakerLine
from ruvak.core.units import ratio_from_db, volts_from_dbu

SIGNAL = "loudspeaker"
HEARD_DB = -60.0
"""A loudspeaker that gets less than this gets nothing."""


def loudspeaker_line(
    gains: Gains, drives: Sequence[int], receiver: int, levels: Levels | None
) -> LoudspeakerLine | None:
    """`drives`: of the source that arrives loudest. None where no amplifier drives a loudspeaker."""
    if not drives or levels is None:
        return None
    drive = drives[0]
    sent, heard = gains.circuit.drives[drive], gains.circuit.receivers[receiver]
    if not _amplified(sent, heard):
        return None
    arrives = abs(complex(gains.nominal([receiver], [drive])[0, 0]))
    if arrives < ratio_from_db(HEARD_DB):
        return None
    return LoudspeakerLine(
        sent_dbu=sent.peak_dbu + 20.0 * math.log10(gains.terminal_gain(drive)),
        gets_dbu=sent.peak_dbu + 20.0 * math.log10(arrives),
        loss_db=20.0 * math.log10(gains.terminal_gain(drive) / arrives),
        ohm=heard.own_ohm,
        peak_w=volts_from_dbu(levels.peak_dbu) ** 2 / heard.own_ohm,
        rated_w=volts_from_dbu(levels.clip_dbu) ** 2 / heard.own_ohm,
    )


def _amplified(sent: Drive, heard: Receiver) -> bool:
    return sent.output.signal == SIGNAL and heard.input.signal == SIGNAL
