"""What an analysis says, in decibels and ohms. Gains are relative to the source's open-circuit emf at 1 kHz."""

from typing import Literal

from ruvak.core.circuit.circuit import CauseCode, ToleranceCode
from ruvak.core.rig.ports import SignalClass
from ruvak.core.rig.values import Record

NullReason = Literal["no_source", "one_channel", "nothing_arrives"]


class ChannelGain(Record):
    """How one channel of a source arrives. `in_phase` is None when nothing but a residue does."""

    source: int
    """Which of the run's sources."""
    channel: str
    gain_db: float
    floored: bool
    in_phase: bool | None


class Residue(Record):
    """One tolerance's share of the centre, relative to the louder side alone: likely and worst, in dB."""

    code: ToleranceCode
    owner: str
    likely_db: float
    worst_db: float
    source: str


class Sum(Record):
    """What happens to the centre (common to left and right) and the sides (their difference).

    In dB relative to the louder side alone: a good mono sum has centre +6, one side alone 0. `ideal_db` is what
    perfectly matched parts would give; likely adds the tolerances as powers, worst as magnitudes.
    """

    centre_db: float
    centre_worst_db: float
    centre_ideal_db: float
    centre_ideal_floored: bool
    sides_db: float
    sides_worst_db: float
    residues: tuple[Residue, ...]


class Levels(Record):
    """Levels at an input's contacts in one position of its switch, in dBu and dB.

    `arriving_dbu` is average programme common to both sides (what a voice in the middle delivers); `peak_dbu`
    the loudest thing that can arrive. gap = nominal - arriving: the gain wanted. `short_db` is what of it the
    control cannot give.
    """

    when: str | None
    active: bool
    arriving_dbu: float
    sides_dbu: float
    peak_dbu: float
    nominal_dbu: float
    clip_dbu: float
    noise_dbu: float
    headroom_db: float
    gap_db: float
    boost_db: float
    short_db: float


class Response(Record):
    """Level against frequency, in dB relative to 1 kHz, for what arrives strongest; floor-limited.

    `own_db`: the same of the source by itself, where it has a voice of its own (a pickup); corners and losses are
    then counted from there.
    """

    of: str
    frequencies_hz: tuple[float, ...]
    level_db: tuple[float, ...]
    own_db: tuple[float, ...] | None
    low_3db_hz: float | None
    high_3db_hz: float | None
    loss_10k_db: float
    loss_20k_db: float


class Balance(Record):
    """What really is balanced: impedance of each leg to the input's reference at 1 kHz, whatever the plugs are.

    An unbalanced input's cold is its own reference, 0 ohm, and counts as joined to the screen.
    """

    hot_ohm: float
    cold_ohm: float
    mismatch_percent: float
    cold_on_screen: bool
    hot_on_cold: bool
    screen_arrives: bool
    verdict: Literal["balanced", "unbalanced", "two_signals", "open", "shorted"]


class Tone(Record):
    """One frequency of a disturbance at an input's contacts, dBu."""

    frequency_hz: float
    likely_dbu: float
    worst_dbu: float


class CauseShare(Record):
    """What one cause leaves at an input by itself; `owner`: the earth point, device, lead or venue it comes from."""

    code: CauseCode
    owner: str
    likely_dbu: float
    worst_dbu: float
    weighted_dbu: float
    """A-weighted, likely."""
    tones: tuple[Tone, ...]


class Hum(Record):
    """Every disturbance at an input: rms over all tones, unweighted and A-weighted; causes by A-weighted size.

    Likely adds causes as powers, worst as sizes. `below_programme_db`: A-weighted under the arriving programme.
    """

    likely_dbu: float
    worst_dbu: float
    weighted_dbu: float
    weighted_worst_dbu: float
    below_programme_db: float | None
    below_programme_worst_db: float | None
    tones: tuple[Tone, ...]
    causes: tuple[CauseShare, ...]
    rest_dbu: float
    """All causes too small to be told one by one, likely."""


class Noise(Record):
    """Hiss at an input's contacts, 20 Hz to 20 kHz, unweighted: the input's own, and of the resistances before it.

    `thermal_dbu`: None where nothing resistive is joined.
    """

    receiver_dbu: float
    thermal_dbu: float | None
    total_dbu: float
    below_programme_db: float | None


class Crosstalk(Record):
    """The other run's source that is heard most at an input, against the input's own programme at 1 and 10 kHz."""

    gear: str
    channel: str
    at_1k_db: float
    at_10k_db: float


class LoudspeakerLine(Record):
    """A loudspeaker at the end of an amplified run, at 1 kHz: what is lost after the amplifier, and what it gets."""

    sent_dbu: float
    """Loudest, at the amplifier's contacts as they are loaded."""
    gets_dbu: float
    loss_db: float
    ohm: float
    """The loudspeaker's own impedance."""
    peak_w: float
    """Of the loudest the amplifier sends, as a sine."""
    rated_w: float
    """What it bears."""


class DataLead(Record):
    """A lead on a data line: its wave impedance, and what share of every edge it sends back."""

    owner: str
    ohm: float
    reflected_percent: float


class DataLine(Record):
    """A run of data from its driver to its receivers; levels, hum and hiss say nothing about it.

    `end_ohm`: what receivers, and whatever else ends the line, put across it. `limit_m`, `most_receivers`: what such
    a line is made for, by `source`.
    """

    carries: SignalClass
    wave_ohm: float
    length_m: float
    limit_m: float
    leads: tuple[DataLead, ...]
    end_ohm: float
    end_reflected_percent: float
    receivers: int
    most_receivers: int
    source: str


class InputResult(Record):
    """One input that a run reaches. Sum, levels and response follow `main`, the source that arrives loudest."""

    gear: str
    input: str
    label: str
    signal: SignalClass | None
    main: int | None
    channels: tuple[ChannelGain, ...]
    sum: Sum | None
    sum_null: NullReason | None
    levels: tuple[Levels, ...]
    response: Response | None
    balance: Balance
    hum: Hum | None = None
    noise: Noise | None = None
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
    mix: str
    label: str
    inputs: tuple[str, ...]
    stereo: bool
    channels: tuple[ChannelGain, ...]
    sum: Sum | None
    sum_null: NullReason | None
    left: tuple[ChannelGain, ...]
    right: tuple[ChannelGain, ...]
    pair: Sum | None


class PhantomAt(Record):
    """Phantom at one channel of a source: volts of the legs' middle against its reference, and between the legs.

    `wanted_a`, `wanted_v`: what it draws and needs; None where it wants none. `leg_a`: direct current in a leg of an
    output's own impedance, which only a source that wants none should never see.
    """

    gear: str
    output: str
    channel: str
    wanted_a: float | None
    wanted_v: float | None
    volt: float
    across_v: float
    leg_a: float


class SourceResult(Record):
    """One output a run starts from, and the channels of it that the run takes."""

    gear: str
    output: str
    signal: SignalClass | None
    channels: tuple[str, ...]
    peak_dbu: float
    nominal_dbu: float
    mono: bool
    load_ohm: float
    """What the hardest-driven channel has to drive, at 1 kHz."""
    min_load_ohm: float | None


class CoreResult(Record):
    """A transformer on the way: what loud programme would put over its primary at `at_hz`, and what it bears there."""

    owner: str
    at_hz: float
    peak_dbu: float
    saturates_dbu: float


class RunResult(Record):
    """Everything computed about one run."""

    run: str
    sources: tuple[SourceResult, ...]
    inputs: tuple[InputResult, ...]
    mixes: tuple[MixResult, ...]
    floating: tuple[str, ...]
    phantom: tuple[PhantomAt, ...] = ()
    """At each channel of its sources, where some input of the rig feeds phantom."""
    cores: tuple[CoreResult, ...] = ()
    data: DataLine | None = None
    """Where it carries data to what is made for that data."""


class DestinationResult(Record):
    """What a device makes of all its inputs together, each at the gain that brings its programme to one level.

    Hum A-weighted and noise, below that level; as sound at the listener where the venue says how loud it is. Inputs'
    `faders_db` count. One cause's share adds up as it arrives, with its sign; different causes as powers.
    """

    gear: str
    inputs: tuple[str, ...]
    hum_below_db: float
    hum_below_worst_db: float
    noise_below_db: float
    hum_dba: float | None
    noise_dba: float | None
    room_dba: float | None


class Opening(Record):
    """What opening a connection does to one input: A-weighted hum before and after, likely and worst, dBu."""

    run: str
    gear: str
    input: str
    before_dbu: float
    after_dbu: float
    worst_before_dbu: float
    worst_after_dbu: float


class GroundLoop(Record):
    """A loop through a connection that could be opened (a lead's screen, a bond beside the runs), and its current.

    `is_return`: an unbalanced programme returns by it, so it cannot be opened. `openings`: best first, only changes.
    """

    kind: Literal["screen", "bond"]
    owner: str
    likely_a: float
    worst_a: float
    loop: tuple[str, ...]
    is_return: bool
    openings: tuple[Opening, ...]
