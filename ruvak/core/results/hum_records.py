"""What disturbances leave: hum at an input by cause, tone and mechanism, meters' readings, ground loops."""

from typing import Literal

from ruvak.core.circuit.circuit import CauseCode
from ruvak.core.rig.values import Record


class Tones(Record):
    """A disturbance at an input's contacts by frequency, levels in dBu; three lists of one length.

    Frequencies at which there is nothing at all are left out.
    """

    frequencies_hz: tuple[float, ...] = ()
    """Frequencies in Hz."""
    likely_dbu: tuple[float, ...] = ()
    """Likely level at each, in dBu."""
    worst_dbu: tuple[float, ...] = ()
    """Worst level at each, in dBu."""


class CauseShare(Record):
    """What one cause leaves at an input by itself; `owner`: the earth point, device, lead or venue it comes from."""

    code: CauseCode
    """What kind of cause it is."""
    owner: str
    """Where it comes from: an earth point, a device, a lead or the venue."""
    likely_dbu: float
    """Likely level in dBu, unweighted."""
    worst_dbu: float
    """Worst level in dBu, unweighted."""
    weighted_dbu: float
    """A-weighted, likely."""
    tones: Tones
    """By frequency."""


MechanismCode = Literal["direct", "leg_imbalance", "rejection", "pin1", "screen_coupling", "field_mismatch"]
"""By which way hum enters an input; see results/mechanisms.py."""


class MechanismShare(Record):
    """What enters an input by one mechanism alone, all causes together.

    Likely shares add up to the whole as powers, except where two of them are known with their signs: then they may
    cancel or add.
    """

    code: MechanismCode
    """Direct (in series with the programme), unequal legs, the receiver's rejection, pin 1, or a lead's screen."""
    likely_dbu: float
    """Likely level in dBu, unweighted."""
    worst_dbu: float
    """Worst level in dBu, unweighted."""
    weighted_dbu: float
    """Likely level in dBu, A-weighted."""
    weighted_worst_dbu: float
    """Worst level in dBu, A-weighted."""


class Hum(Record):
    """Every disturbance at an input: rms over all tones, unweighted and A-weighted; causes by A-weighted size.

    Likely adds causes as powers, worst as sizes. `below_programme_db`: A-weighted under the arriving programme.
    """

    likely_dbu: float
    """Likely level in dBu, unweighted."""
    worst_dbu: float
    """Worst level in dBu, unweighted."""
    weighted_dbu: float
    """Likely level in dBu, A-weighted."""
    weighted_worst_dbu: float
    """Worst level in dBu, A-weighted."""
    below_programme_db: float | None
    """How many dB it lies under the arriving programme, A-weighted; null where none arrives."""
    below_programme_worst_db: float | None
    """The same for the worst level, in dB."""
    tones: Tones
    """All causes together, by frequency; empty in short results."""
    causes: tuple[CauseShare, ...]
    """What each cause leaves by itself, by A-weighted size."""
    rest_dbu: float
    """All causes too small to be told one by one, likely."""
    mechanisms: tuple[MechanismShare, ...] = ()
    """By which way it enters, A-weighted size first: each has a cure of its own. Empty in short results."""


class LeadCurrent(Record):
    """What a clamp meter closed round a whole lead reads: the net current of all its conductors, true rms."""

    item: str
    """The lead, by the id of the kit item."""
    likely_a: float
    """Likely reading in amperes."""
    worst_a: float
    """Worst reading in amperes."""


class CaseVoltage(Record):
    """A case that nothing but capacitances ties to the building's earth, measured against that earth, true rms."""

    gear: str
    """The device."""
    likely_v: float
    """Likely reading of a voltmeter of 10 Mohm, in volts."""
    worst_v: float
    """Worst reading of a voltmeter of 10 Mohm, in volts."""
    touch_likely_a: float
    """Likely current in amperes through somebody who touches the case and earth, by the body network of IEC 60990."""
    touch_worst_a: float
    """Worst such current, in amperes."""


class Opening(Record):
    """What opening a connection does to one input: A-weighted hum before and after, likely and worst, dBu."""

    run: str
    """The run."""
    gear: str
    """The device."""
    input: str
    """The input of its part."""
    before_dbu: float
    """Likely hum before, A-weighted, in dBu."""
    after_dbu: float
    """Likely hum after, A-weighted, in dBu."""
    worst_before_dbu: float
    """Worst hum before, A-weighted, in dBu."""
    worst_after_dbu: float
    """Worst hum after, A-weighted, in dBu."""
    change_best_db: float
    """After less before in dB where the two largest causes stand to each other so that opening helps most."""
    change_worst_db: float
    """The same where they stand so that it helps least, or harms: well above change_best_db, the benefit rests on two
    causes of unknown phase."""


class GroundLoop(Record):
    """A loop through a connection that could be opened (a lead's screen, a bond beside the runs), and its current.

    `is_return`: an unbalanced programme returns by it, so it cannot be opened. `openings`: best first, only changes.
    """

    kind: Literal["screen", "bond"]
    """A lead's screen, or a bond beside the runs."""
    owner: str
    """The lead or bond that could be opened."""
    likely_a: float
    """Likely current round it in amperes."""
    worst_a: float
    """Worst current round it in amperes."""
    loop: tuple[str, ...]
    """What the current passes through, in order."""
    is_return: bool
    """Whether an unbalanced programme returns by it, so that it cannot be opened."""
    openings: tuple[Opening, ...]
    """What opening it changes at which input, best first."""
