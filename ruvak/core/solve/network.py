"""The solver's input: element arrays between numbered nodes. Node EARTH is the reference and has no unknown."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import cached_property

import numpy as np
from numpy.typing import NDArray

EARTH = -1

Bools = NDArray[np.bool_]
Ints = NDArray[np.int64]
Floats = NDArray[np.float64]
Complexes = NDArray[np.complex128]


@dataclass(frozen=True)
class Bundle:
    """Branches whose currents are unknowns, magnetically coupled to each other.

    For each branch k from node a[k] to node b[k], with current I flowing a to b and emf E driving that way:
    V_a - V_b - R_k I_k - j w sum_m L_km I_m = -E_k.
    `a`, `b`: shape (n,); `ohm`: (n,); `henry`: (n, n), symmetric.
    """

    a: tuple[int, ...]
    b: tuple[int, ...]
    ohm: tuple[float, ...]
    henry: tuple[tuple[float, ...], ...]


@dataclass(frozen=True)
class IdealTransformer:
    """(V_p - V_q) = ratio (V_s - V_t); secondary current is ratio times the primary's."""

    p: int
    q: int
    s: int
    t: int
    ratio: float


@dataclass(frozen=True)
class IdealAmplifier:
    """(V_s - V_t) = gain (V_p - V_q); it draws nothing at p and q and gives whatever current s and t ask for."""

    p: int
    q: int
    s: int
    t: int
    gain: float


@dataclass(frozen=True)
class Transresistance:
    """An emf of ohm times the current of branch `sensed`, driving branch `driven` from its a to its b."""

    driven: int
    sensed: int
    ohm: float


@dataclass(frozen=True)
class Network:
    """All elements. Unknowns, in order: node voltages, branch, transformer primary and amplifier output currents."""

    node_names: tuple[str, ...]
    conductances: tuple[tuple[int, int, float], ...]
    """(a, b, siemens)"""
    capacitances: tuple[tuple[int, int, float], ...]
    """(a, b, farad)"""
    bundles: tuple[Bundle, ...]
    transformers: tuple[IdealTransformer, ...]
    amplifiers: tuple[IdealAmplifier, ...] = ()
    transresistances: tuple[Transresistance, ...] = ()

    @property
    def is_reciprocal(self) -> bool:
        """Whether the matrix is its own transpose."""
        return not self.amplifiers and not self.transresistances

    @property
    def node_count(self) -> int:
        """Nodes without the reference."""
        return len(self.node_names)

    @property
    def branch_count(self) -> int:
        """Branches over all bundles, numbered in order."""
        return sum(len(bundle.a) for bundle in self.bundles)

    @cached_property
    def branch_ohms(self) -> tuple[float, ...]:
        """Resistance of each branch."""
        return tuple(ohm for bundle in self.bundles for ohm in bundle.ohm)

    @property
    def stiff(self) -> Iterator[tuple[int, int, int]]:
        """(branch, a, b) of every branch without any impedance: an emf or nothing between its nodes."""
        number = 0
        for bundle in self.bundles:
            for k, (a, b, ohm) in enumerate(zip(bundle.a, bundle.b, bundle.ohm, strict=True)):
                if ohm == 0.0 and not any(bundle.henry[k]):
                    yield number + k, a, b
            number += len(bundle.a)

    @property
    def size(self) -> int:
        """Number of unknowns."""
        return self.node_count + self.branch_count + len(self.transformers) + len(self.amplifiers)
