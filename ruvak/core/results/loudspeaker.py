"""Amplified runs: what a loudspeaker gets of what its amplifier sends, and what its lead keeps.

Lead and loudspeaker divide the amplifier's voltage: loss = 20 log10 |V at the amplifier / V at the loudspeaker|, as
solved, so whatever else hangs on the line counts. Power is V squared over the loudspeaker's impedance.
"""

import math

from ruvak.core.results.gains import Gains
from ruvak.core.results.line_records import LoudspeakerLine
from ruvak.core.results.records import Levels
from ruvak.core.units import ratio_from_db, volts_from_dbu

SIGNAL = "loudspeaker"
HEARD_DB = -60.0
"""A loudspeaker that gets less than this gets nothing."""


def loudspeaker_line(gains: Gains, drive: int, gain: complex, receiver: int, levels: Levels) -> LoudspeakerLine | None:
    """`drive` arrives loudest at `receiver`, with this gain. None where no amplifier drives a loudspeaker."""
    sent, heard = gains.circuit.drives[drive], gains.circuit.receivers[receiver]
    arrives = abs(gain)
    if sent.output.signal != SIGNAL or heard.input.signal != SIGNAL or arrives < ratio_from_db(HEARD_DB):
        return None
    sent_dbu, gets_dbu = (sent.peak_dbu + 20.0 * math.log10(entry) for entry in (gains.terminal_gain(drive), arrives))
    return LoudspeakerLine(
        sent_dbu=sent_dbu,
        gets_dbu=gets_dbu,
        loss_db=sent_dbu - gets_dbu,
        ohm=heard.own_ohm,
        peak_w=volts_from_dbu(levels.peak_dbu) ** 2 / heard.own_ohm,
        rated_w=volts_from_dbu(levels.clip_dbu) ** 2 / heard.own_ohm,
    )
