"""What an analysis says of lines to loudspeakers and of data lines."""

from ruvak.core.rig.ports import SignalClass
from ruvak.core.rig.values import Record


class LoudspeakerLine(Record):
    """A loudspeaker at the end of an amplified run, at 1 kHz: what is lost after the amplifier, and what it gets."""

    sent_dbu: float
    """Loudest, at the amplifier's contacts as they are loaded."""
    gets_dbu: float
    """Loudest, at the loudspeaker's contacts, in dBu."""
    loss_db: float
    """Lost between amplifier and loudspeaker, in dB."""
    ohm: float
    """The loudspeaker's own impedance."""
    peak_w: float
    """Of the loudest the amplifier sends, as a sine."""
    rated_w: float
    """What it bears."""


class DataLead(Record):
    """A lead on a data line: its wave impedance, and what share of every edge it sends back."""

    owner: str
    """The lead."""
    ohm: float
    """Its wave impedance in ohms."""
    reflected_percent: float
    """Share of every edge it sends back, in percent."""


class DataLine(Record):
    """A run of data from its driver to its receivers; levels, hum and hiss say nothing about it.

    `end_ohm`: what receivers, and whatever else ends the line, put across it. `limit_m`, `most_receivers`: what such
    a line is made for, by `source`.
    """

    carries: SignalClass
    """What kind of data it carries."""
    matched: bool
    """Whether it must end in its own impedance; light and a slow current loop need not."""
    wave_ohm: float
    """Wave impedance such a line is made for, in ohms; stands for nothing where it need not be matched."""
    length_m: float
    """Length of all its leads in metres."""
    limit_m: float
    """Longest such a line is made for, in metres."""
    leads: tuple[DataLead, ...]
    """Its leads and what they reflect."""
    end_ohm: float
    """What receivers and ends put across the line, in ohms."""
    end_reflected_percent: float
    """Share of every edge the end sends back, in percent."""
    receivers: int
    """How many receivers it has."""
    most_receivers: int
    """How many such a line is made for."""
    source: str
    """Where the limits are from."""
