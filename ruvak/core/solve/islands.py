"""Which nodes nothing ties to the reference: the physical reason a network has no unique solution."""

import numpy as np
from scipy.sparse import coo_matrix
from scipy.sparse.csgraph import connected_components

from ruvak.core.solve.network import Network


def islands(network: Network) -> tuple[tuple[int, ...], ...]:
    """Groups of nodes without any element to the rest that leads to EARTH, each sorted, in order of first node.

    An ideal transformer couples no voltage reference across, so its two windings tie only their own ends;
    an ideal amplifier ties only its output.
    """
    ties = [(a, b) for a, b, _ in (*network.conductances, *network.capacitances)]
    for bundle in network.bundles:
        ties += zip(bundle.a, bundle.b, strict=True)
    for transformer in network.transformers:
        ties += ((transformer.p, transformer.q), (transformer.s, transformer.t))
    ties += ((amplifier.s, amplifier.t) for amplifier in network.amplifiers)
    # EARTH is -1, so counted from the end it is the row behind the last node.
    size = network.node_count + 1
    a, b = np.array(ties, dtype=np.int64).reshape(-1, 2).T % size
    _, group_of = connected_components(coo_matrix((np.ones(len(a)), (a, b)), shape=(size, size)), directed=False)
    loose = np.flatnonzero(group_of[:-1] != group_of[-1])
    groups: dict[int, list[int]] = {}
    for node in loose:
        groups.setdefault(int(group_of[node]), []).append(int(node))
    return tuple(sorted(tuple(group) for group in groups.values()))
