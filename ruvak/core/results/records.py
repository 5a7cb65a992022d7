"""What an analysis says, in decibels and ohms. Gains are relative to the source's open-circuit emf at 1 kHz."""

from typing import Literal

from ruvak.core.circuit.circuit import ToleranceCode
from ruvak.core.results.hum_records import CaseVoltage, Hum, LeadCurrent
from ruvak.core.results.line_records import DataLine, LoudspeakerLine
from ruvak.core.rig.ports import SignalClass
from ruvak.core.rig.values import Record

NullReason = Literal["no_source", "one_channel", "nothing_arrives"]


class ChannelGain(Record):
    """How one channel of a source arrives. `in_phase` is None when nothing but a residue does."""

    source: int
    """Which of the run's sources."""
    channel: str
    """The source's channel: L, R or 1."""
    gain_db: float
    """Level at the input against the source's open-circuit level, at 1 kHz, in dB."""
    floored: bool
    """Whether nothing measurable arrives, so that gain_db is only the floor of the computation."""
    in_phase: bool | None
    """Whether it arrives with its polarity kept; null where nothing but a residue arrives."""


class Residue(Record):
    """One tolerance's share of the centre, relative to the louder side alone: likely and worst, in dB."""

    code: ToleranceCode
    """Which tolerance it is."""
    owner: str
    """The device or piece the tolerance belongs to."""
    likely_db: float
    """Likely size in dB relative to the louder side alone."""
    worst_db: float
    """Worst size in dB relative to the louder side alone."""
    source: str
    """Where the tolerance's figure is from."""


class Sum(Record):
    """What happens to the centre (common to left and right) and the sides (their difference).

    In dB relative to the louder side alone: a good mono sum has centre +6, one side alone 0. `ideal_db` is what
    perfectly matched parts would give; likely adds the tolerances as powers, worst as magnitudes.
    """

    centre_db: float
    """Likely level of what both sides share, in dB relative to the louder side alone."""
    centre_worst_db: float
    """The same where every tolerance adds up, in dB."""
    centre_ideal_db: float
    """The same with perfectly matched parts, in dB."""
    centre_ideal_floored: bool
    """Whether centre_ideal_db is only the floor of the computation."""
    sides_db: float
    """Likely level of what differs between the sides, in dB relative to the louder side alone."""
    sides_worst_db: float
    """The same where every tolerance adds up, in dB."""
    residues: tuple[Residue, ...]
    """What each tolerance leaves of the centre, largest first."""


class Levels(Record):
    """Levels at an input's contacts in one position of its switch, in dBu and dB.

    `arriving_dbu` is average programme common to both sides (what a voice in the middle delivers); `peak_dbu`
    the loudest thing that can arrive. gap = nominal - arriving: the gain wanted. `short_db` is what of it the
    control cannot give.
    """

    when: str | None
    """The position of the input's switch; null where it has none."""
    active: bool
    """Whether the switch is in this position."""
    arriving_dbu: float
    """Average programme that both sides share, in dBu."""
    sides_dbu: float
    """Average programme of what differs between the sides, in dBu."""
    peak_dbu: float
    """The loudest that can arrive, in dBu."""
    nominal_dbu: float
    """Level the input wants, in dBu."""
    clip_dbu: float
    """Level the input clips at, in dBu."""
    noise_dbu: float
    """The input's own noise, 20 Hz to 20 kHz, in dBu."""
    headroom_db: float
    """clip_dbu less peak_dbu, in dB."""
    gap_db: float
    """Gain wanted: nominal_dbu less arriving_dbu, in dB."""
    boost_db: float
    """Gain the input's control can add, in dB."""
    short_db: float
    """What of gap_db the control cannot give, in dB."""


class Response(Record):
    """Level against frequency, in dB relative to 1 kHz, for what arrives strongest; floor-limited.

    `own_db`: the same of the source by itself, where it has a voice of its own (a pickup); corners and losses are
    then counted from there.
    """

    of: str
    """The channel it is of."""
    frequencies_hz: tuple[float, ...]
    """Frequencies in Hz."""
    level_db: tuple[float, ...]
    """Level at each frequency in dB relative to 1 kHz."""
    own_db: tuple[float, ...] | None
    """The same of the source by itself, where it has a response of its own."""
    low_3db_hz: float | None
    """Frequency in Hz below which more than half the power at 1 kHz is lost; null where it is below 1 Hz."""
    high_3db_hz: float | None
    """Frequency in Hz above which more than half the power at 1 kHz is lost; null where it is above 200 kHz."""
    passband_db: float
    """Level of the passband in dB relative to 1 kHz: the highest that holds over an octave."""
    passband_low_hz: float | None
    """Frequency in Hz below which more than half the passband's power is lost; null where it is below 1 Hz."""
    passband_high_hz: float | None
    """Frequency in Hz above which more than half the passband's power is lost; null where it is above 200 kHz."""
    loss_10k_db: float
    """Loss at 10 kHz in dB."""
    loss_20k_db: float
    """Loss at 20 kHz in dB."""


class Balance(Record):
    """What really is balanced: impedance of each leg to the input's reference at 1 kHz, whatever the plugs are.

    An unbalanced input's cold is its own reference, 0 ohm, and counts as joined to the screen.
    """

    hot_ohm: float
    """Impedance from the hot leg to the input's reference, in ohms."""
    cold_ohm: float
    """Impedance from the cold leg to the input's reference, in ohms."""
    mismatch_percent: float
    """Difference of the two in percent."""
    cold_on_screen: bool
    """Whether cold is joined to the screen."""
    hot_on_cold: bool
    """Whether hot is joined to cold."""
    screen_arrives: bool
    """Whether a screen arrives from the source."""
    body_arrives: bool
    """Whether the metal of a balanced source is joined to the input's screen."""
    verdict: Literal["balanced", "unbalanced", "two_signals", "open", "shorted"]
    """What the line really is."""


class Noise(Record):
    """Hiss at an input's contacts, 20 Hz to 20 kHz, unweighted: the input's own, and of the resistances before it.

    `thermal_dbu`: None where nothing resistive is joined.
    """

    receiver_dbu: float
    """Noise of the input itself, in dBu."""
    thermal_dbu: float | None
    """Thermal noise of the resistances before it, in dBu; null where none is joined."""
    total_dbu: float
    """Both together, in dBu."""
    below_programme_db: float | None
    """How many dB it lies under the arriving programme; null where none arrives."""


class Crosstalk(Record):
    """The other run's source that is heard most at an input, against the input's own programme at 1 and 10 kHz."""

    gear: str
    """The device that is heard."""
    channel: str
    """Its channel."""
    at_1k_db: float
    """Level at 1 kHz in dB against the input's own programme."""
    at_10k_db: float
    """Level at 10 kHz in dB against the input's own programme."""


class InputResult(Record):
    """One input that a run reaches. Sum, levels and response follow `main`, the source that arrives loudest."""

    gear: str
    """The device."""
    input: str
    """The input of its part."""
    label: str
    """What is printed beside the input."""
    signal: SignalClass | None
    """What kind of signal the input is made for."""
    main: int | None
    """Which of the run's sources arrives loudest, by its place in sources; null where none does."""
    channels: tuple[ChannelGain, ...]
    """How each channel of each source arrives."""
    sum: Sum | None
    """What happens to centre and sides; null where sum_null says why."""
    sum_null: NullReason | None
    """Why there is no sum."""
    levels: tuple[Levels, ...]
    """Levels in each position of the input's switch."""
    response: Response | None
    """Level against frequency of what arrives loudest."""
    balance: Balance
    """Whether the line is really balanced."""
    hum: Hum | None = None
    """Hum and buzz, where it was asked for."""
    noise: Noise | None = None
    """Hiss, where it was asked for."""
    crosstalk: Crosstalk | None = None
    """All three are left out where nobody asked; crosstalk also where nothing comes through."""
    loudspeaker: LoudspeakerLine | None = None
    """Where an amplifier drives a loudspeaker."""


class MixResult(Record):
    """Inputs heard together: one mono sum, or a left and a right and what they become in mono.

    `channels` and `sum` are what all inputs make together. `pair` compares the two sides of a stereo destination
    for a programme in the middle: its centre is what mono playback leaves of it.
    """

    gear: str
    """The device."""
    mix: str
    """The mix of its part."""
    label: str
    """What the mix is called."""
    inputs: tuple[str, ...]
    """The inputs heard together."""
    stereo: bool
    """Whether it has a left and a right."""
    channels: tuple[ChannelGain, ...]
    """How each channel arrives through all inputs together."""
    sum: Sum | None
    """What happens to centre and sides; null where sum_null says why."""
    sum_null: NullReason | None
    """Why there is no sum."""
    left: tuple[ChannelGain, ...]
    """How each channel arrives on the left."""
    right: tuple[ChannelGain, ...]
    """How each channel arrives on the right."""
    pair: Sum | None
    """What mono playback leaves of a programme in the middle of a stereo destination."""


class PhantomAt(Record):
    """Phantom at one channel of a source: volts of the legs' middle against its reference, and between the legs.

    `wanted_a`, `wanted_v`: what it draws and needs; None where it wants none. `leg_a`: direct current in a leg of an
    output's own impedance, which only a source that wants none should never see.
    """

    gear: str
    """The source's device."""
    output: str
    """The output of its part."""
    channel: str
    """Its channel."""
    wanted_a: float | None
    """Current it draws in amperes; null where it wants none."""
    wanted_v: float | None
    """Voltage it needs; null where it wants none."""
    volt: float
    """Volts of the legs' middle against its reference, as the supply is wired inside or most likely is."""
    volt_low: float
    """Least it may be where nobody knows how the supply is wired inside, in volts."""
    volt_high: float
    """Most it may be where nobody knows how the supply is wired inside, in volts."""
    across_v: float
    """Volts between the legs."""
    leg_a: float
    """Direct current in a leg of the output's own impedance, in amperes."""


class SourceResult(Record):
    """One output a run starts from, and the channels of it that the run takes."""

    gear: str
    """The device."""
    output: str
    """The output of its part."""
    signal: SignalClass | None
    """What kind of signal it gives."""
    channels: tuple[str, ...]
    """The channels the run takes."""
    peak_dbu: float
    """Loudest open-circuit level, in dBu."""
    nominal_dbu: float
    """Average open-circuit programme level, in dBu."""
    mono: bool
    """Whether its channels are summed by a switch."""
    load_ohm: float
    """What the hardest-driven channel has to drive, at 1 kHz."""
    min_load_ohm: float | None
    """The lowest load it drives properly, in ohms."""


class CoreResult(Record):
    """A transformer on the way: what loud programme would put over its primary at `at_hz`, and what it bears there."""

    owner: str
    """The piece or device with the transformer."""
    at_hz: float
    """Frequency in Hz the two levels are for."""
    peak_dbu: float
    """What loud programme puts over the primary, in dBu."""
    saturates_dbu: float
    """What the core bears there, in dBu."""


class RunResult(Record):
    """Everything computed about one run."""

    run: str
    """The run."""
    sources: tuple[SourceResult, ...]
    """The outputs it starts from."""
    inputs: tuple[InputResult, ...]
    """The inputs it reaches."""
    mixes: tuple[MixResult, ...]
    """Inputs that are heard together."""
    floating: tuple[str, ...]
    """Devices and pieces on its way that nothing ties to earth."""
    phantom: tuple[PhantomAt, ...] = ()
    """At each channel of its sources, where some input of the rig feeds phantom."""
    cores: tuple[CoreResult, ...] = ()
    """Transformers on its way."""
    data: DataLine | None = None
    """Where it carries data to what is made for that data."""
    lead_currents: tuple[LeadCurrent, ...] = ()
    """What a clamp meter would read round each of its leads; left out in short results."""
    case_voltages: tuple[CaseVoltage, ...] = ()
    """What a voltmeter would read on each of its devices that floats; left out in short results."""


class DestinationResult(Record):
    """What a device makes of all its inputs together, each at the gain that brings its programme to one level.

    Hum A-weighted and noise, below that level; as sound at the listener where the venue says how loud it is. Inputs'
    `faders_db` count. One cause's share adds up as it arrives, with its sign; different causes as powers.
    """

    gear: str
    """The device."""
    inputs: tuple[str, ...]
    """Its inputs that are heard together."""
    hum_below_db: float
    """Likely hum, A-weighted, in dB under the programme."""
    hum_below_worst_db: float
    """Worst hum, A-weighted, in dB under the programme."""
    noise_below_db: float
    """Hiss in dB under the programme."""
    hum_dba: float | None
    """Hum at the listener in dB SPL, A-weighted; null where nobody said how loud the programme is."""
    noise_dba: float | None
    """Hiss at the listener in dB SPL, A-weighted; null where nobody said how loud the programme is."""
    room_dba: float | None
    """The room's own noise, A-weighted; null where nobody said."""
