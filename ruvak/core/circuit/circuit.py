"""What the solver gets, and how to read its answer: drives, receivers, listening points, unknowns."""

from dataclasses import dataclass
from typing import Literal

from ruvak.core.rig.part import Input, Output, Sensitivity
from ruvak.core.solve.network import Network

UnknownCode = Literal["channel_match", "source_leg_mismatch", "input_leg_mismatch", "receiver_rejection"]


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


@dataclass(frozen=True)
class Unknown:
    """Something of unknown sign: how a unit of it changes the elements, and its likely and worst size.

    A unit means: the whole mismatch as a ratio, or, for rejection, a common-mode gain of one.
    `conductances`: (index, siemens per unit); `branch_ohms`: (branch, ohm per unit);
    `emfs`: (branch, relative change per unit).
    """

    code: UnknownCode
    owner: str
    likely: float
    worst: float
    source: str
    conductances: tuple[tuple[int, float], ...] = ()
    branch_ohms: tuple[tuple[int, float], ...] = ()
    emfs: tuple[tuple[int, float], ...] = ()
    receiver: int | None = None


@dataclass(frozen=True)
class Circuit:
    """The whole rig. `floating` names the owners whose potential rests on stray capacitance alone."""

    network: Network
    node_of: dict[str, int]
    drives: tuple[Drive, ...]
    receivers: tuple[Receiver, ...]
    unknowns: tuple[Unknown, ...]
    floating: tuple[str, ...]
