"""Which nodes nothing ties to the reference: the physical reason a network has no unique solution."""

import networkx as nx

from ruvak.core.solve.network import EARTH, Network


def islands(network: Network) -> tuple[tuple[int, ...], ...]:
    """Groups of nodes without any element to the rest that leads to EARTH, each sorted, in order of first node.

    An ideal transformer couples no voltage reference across, so its two windings tie only their own ends;
    an ideal amplifier ties only its output.
    """
    graph = nx.Graph()
    graph.add_nodes_from(range(EARTH, network.node_count))
    graph.add_edges_from((a, b) for a, b, _ in (*network.conductances, *network.capacitances))
    for bundle in network.bundles:
        graph.add_edges_from(zip(bundle.a, bundle.b, strict=True))
    for transformer in network.transformers:
        graph.add_edge(transformer.p, transformer.q)
        graph.add_edge(transformer.s, transformer.t)
    for amplifier in network.amplifiers:
        graph.add_edge(amplifier.s, amplifier.t)
    groups = (tuple(sorted(group)) for group in nx.connected_components(graph) if EARTH not in group)
    return tuple(sorted(groups))
