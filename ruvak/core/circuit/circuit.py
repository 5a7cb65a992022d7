"""What the solver gets, and how to read its answer: drives, receivers, listening points, tolerances."""

from dataclasses import dataclass
from functools import cached_property
from typing import Literal

from ruvak.core.circuit.elements import CircuitPoint
from ruvak.core.rig.points import ContactRef, NodeRef
from ruvak.core.rig.ports import Input, Output, Sensitivity
from ruvak.core.solve.network import Network

ToleranceCode = Literal["channel_match", "source_leg_mismatch", "input_leg_mismatch", "receiver_rejection"]
HumToleranceCode = Literal["screen_coupling", "core_screen_mismatch", "field_mismatch", "pin1"]
"""What matters to disturbances alone: it takes current in a screen to hear of it."""

Mates = dict[ContactRef | NodeRef, list[tuple[int, float]]]
"""By contact: the branches of what is plugged onto it, +1 where current in the branch flows into the contact."""

CauseCode = Literal["earth_measured", "earth", "field", "mains_pair", "touch", "electric", "computer", "supply_fault"]


@dataclass(frozen=True)
class Drive:
    """One programme channel of an output: which branches it drives, by how much. `mono`: every channel drives all."""

    gear: str
    output: Output
    channel: str
    branch_gains: tuple[tuple[int, float], ...]
    peak_dbu: float
    nominal_dbu: float
    mono: bool = False


@dataclass(frozen=True)
class Receiver:
    """An input's contacts as nodes, and its stated rejection (0 where its sign is unknown, or there is none).

    An unbalanced input's cold is its reference. `own_ohm`: what it puts between the two legs by itself.
    """

    gear: str
    input: Input
    mode: Sensitivity
    hot: int
    cold: int
    reference: int
    own_ohm: float
    stated_rejection: float
    rejection_corner_hz: float
    pin1: tuple[tuple[int, float], ...] = ()
    """(branch, ohm): what current through the screen contact adds to hot, where it is stated."""
    coupled: tuple[int, ...] = ()
    """Its conductances where phantom can be fed: capacitors keep direct current out of them."""
    leg_siemens: tuple[float, float] = (0.0, 0.0)
    """What a balanced input puts from hot and from cold to its reference."""


@dataclass(frozen=True)
class Tolerance:
    """Something of unknown sign: how a unit of it changes the elements, and its likely and worst size.

    A unit means: the whole mismatch as a ratio, or, for rejection, a common-mode gain of one.
    `conductances`: (index, siemens per unit); `branch_ohms`: (branch, ohm per unit);
    `emfs`: (branch, relative change per unit); `capacitances`: (index, farad per unit).
    """

    code: ToleranceCode | HumToleranceCode
    owner: str
    likely: float
    worst: float
    source: str
    conductances: tuple[tuple[int, float], ...] = ()
    branch_ohms: tuple[tuple[int, float], ...] = ()
    emfs: tuple[tuple[int, float], ...] = ()
    receiver: int | None = None
    capacitances: tuple[tuple[int, float], ...] = ()
    branch_henries: tuple[tuple[int, int, float], ...] = ()
    """(branch, branch, henry per unit): mutual inductance, once a pair."""
    currents: tuple[tuple[int, float], ...] = ()
    """(branch, ohm per unit): added to `receiver`'s hot."""
    transresistances: tuple[tuple[int, int, float], ...] = ()
    """(driven branch, sensed branch, ohm per unit): an emf that follows another branch's current."""


def cable_owner(item: str, index: int) -> str:
    """Whose tolerances those of one cable are: of a multicore only the ways that a run uses matter to it."""
    return f"{item}#{index}"


@dataclass(frozen=True)
class CauseLine:
    """One frequency of a disturbance: emfs in volts rms, complex, by branch."""

    frequency_hz: float
    emfs: tuple[tuple[int, complex], ...]


@dataclass(frozen=True)
class Cause:
    """One disturbance whose emfs belong together; different causes have no common phase.

    `likely` and `worst` multiply its lines. `owner`: the earth point, device, lead or venue it comes from.
    """

    code: CauseCode
    owner: str
    likely: float
    worst: float
    lines: tuple[CauseLine, ...]


def _legs(hot: int, cold: int, reference: int) -> tuple[int, ...]:
    """What is unbalanced has its reference for a cold leg: only hot carries power."""
    return (hot,) if cold == reference else (hot, cold)


@dataclass(frozen=True)
class Feed:
    """Phantom supply of an input that is switched on: through `ohm` to each leg against the reference.

    An unbalanced input's cold is its reference: it feeds hot alone.
    """

    gear: str
    input: str
    hot: int
    cold: int
    reference: int
    volt: float
    ohm: float

    @property
    def legs(self) -> tuple[int, ...]:
        """What is fed."""
        return _legs(self.hot, self.cold, self.reference)


@dataclass(frozen=True)
class Sink:
    """What phantom reaches or should reach: an output's legs.

    `ampere`: what its electronics draw, 0 for none, through `leg_ohm` from each leg.
    """

    gear: str
    output: str
    channel: str
    hot: int
    cold: int
    reference: int
    ampere: float
    min_v: float
    leg_ohm: float
    other_leg_ohm: float
    """What leg_ohm may be instead where nobody knows how the supply is wired inside; else the same."""

    @property
    def legs(self) -> tuple[int, ...]:
        """What it is fed by; an unbalanced output's hot alone."""
        return _legs(self.hot, self.cold, self.reference)


@dataclass(frozen=True)
class OpenableConnection:
    """A connection that could be opened: a lead's screen, or a bond beside the runs. `owner`: that one's id."""

    kind: Literal["screen", "bond"]
    owner: str
    branch: int


@dataclass(frozen=True)
class Core:
    """A transformer's core: the nodes its flux follows the voltage between, and the level it saturates at."""

    owner: str
    a: int
    b: int
    saturates_dbu: float
    saturates_hz: float


@dataclass(frozen=True)
class Circuit:
    """The whole rig. `floating` names the owners whose potential rests on stray capacitance alone."""

    network: Network
    node_of: dict[CircuitPoint, int]
    point_of: tuple[CircuitPoint, ...]
    """One of the points of each node."""
    drives: tuple[Drive, ...]
    receivers: tuple[Receiver, ...]
    tolerances: tuple[Tolerance, ...]
    hum_tolerances: tuple[Tolerance, ...]
    causes: tuple[Cause, ...]
    openable_connections: tuple[OpenableConnection, ...]
    feeds: tuple[Feed, ...]
    sinks: tuple[Sink, ...]
    border: tuple[int, ...]
    """Nodes at which runs meet: references and chassis of devices, the building's earth."""
    floating: tuple[str, ...]
    cores: tuple[Core, ...] = ()
    cables: tuple[tuple[str, tuple[int, ...]], ...] = ()
    """(kit item, branches of all conductors), a cable each."""

    @cached_property
    def drives_of(self) -> dict[str, list[int]]:
        """By gear: the numbers of its drives."""
        result: dict[str, list[int]] = {}
        for number, drive in enumerate(self.drives):
            result.setdefault(drive.gear, []).append(number)
        return result

    @cached_property
    def receivers_of(self) -> dict[str, list[int]]:
        """By gear: the numbers of its receivers."""
        result: dict[str, list[int]] = {}
        for number, receiver in enumerate(self.receivers):
            result.setdefault(receiver.gear, []).append(number)
        return result
