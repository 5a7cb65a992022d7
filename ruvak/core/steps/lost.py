"""What an occasion loses while a run does not work: which listeners no longer get what."""

from networkx import DiGraph, ancestors

from ruvak.core.rig.rig import Rig, name_of
from ruvak.core.rig.values import Id, Record
from ruvak.core.trace.run_ends import ends_of

MOST_NAMES = 4


class Loss(Record):
    """What is lost with a run."""

    run: Id
    """The run."""
    words: str
    """What is lost while nothing comes through it, as a sentence."""
    heard: str
    """Where it is heard while it plays but is not clean, as a sentence."""
    sources: int
    """How many sources some listener no longer gets."""
    listeners: int
    """How many listeners miss something."""


def losses(rig: Rig) -> tuple[Loss, ...]:
    """Of each run, as devices pass signals on: every input of a mixer counts as heard at each of its outputs."""
    graph = DiGraph()
    for run in rig.runs:
        out, into = _devices(rig, run.id)
        for a in out:
            for b in into:
                if a != b:
                    graph.add_edge(a, b, runs={*graph.get_edge_data(a, b, {"runs": set()})["runs"], run.id})
    listeners = {node for node in graph if graph.out_degree(node) == 0 or _listens(rig, node)}
    before = _heard(graph, graph, listeners)
    result = []
    for run in rig.runs:
        without = DiGraph((a, b) for a, b, runs in graph.edges(data="runs") if runs != {run.id})
        without.add_nodes_from(graph)
        after = _heard(without, graph, listeners)
        missing = {listener: before[listener] - after.get(listener, set()) for listener in before}
        missing = {listener: sources for listener, sources in missing.items() if sources}
        out, into = _devices(rig, run.id)
        lost = set().union(*missing.values()) or set(out)
        poorer = set(missing) or set(into)
        words = f"Without it {_names(rig, poorer)} {_verb(poorer)} {_names(rig, lost)}."
        heard = f"Heard at {_names(rig, poorer)}, on what comes from {_names(rig, lost)}."
        result.append(Loss(run=run.id, words=words, heard=heard, sources=len(lost), listeners=len(poorer)))
    return tuple(result)


def _devices(rig: Rig, run_id: str) -> tuple[list[str], list[str]]:
    run = next(run for run in rig.runs if run.id == run_id)
    return (
        list(dict.fromkeys(end.owner for end in ends_of(rig, run, "out"))),
        list(dict.fromkeys(end.owner for end in ends_of(rig, run, "in"))),
    )


def _listens(rig: Rig, device: str) -> bool:
    """Whether somebody hears a device that passes its signal on too: a speaker with a link, a recorder."""
    part = rig.part_of(device)
    return part.records or all(output.signal == "loudspeaker" for output in part.outputs)


def _heard(graph: DiGraph, whole: DiGraph, listeners: set[str]) -> dict[str, set[str]]:
    """The sources that reach each listener. `whole`: in which graph a device counts as a source."""
    sources = {node for node in whole if whole.in_degree(node) == 0}
    return {node: ancestors(graph, node) & sources for node in listeners}


def _verb(listeners: set[str]) -> str:
    return "gets nothing from" if len(listeners) == 1 else "get nothing from"


def _names(rig: Rig, ids: set[str]) -> str:
    names = [name_of(rig, gear.id) for gear in rig.gear if gear.id in ids]
    if len(names) > MOST_NAMES:
        names = [*names[:MOST_NAMES], f"{len(names) - MOST_NAMES} more"]
    return " and ".join(filter(None, (", ".join(names[:-1]), names[-1]))) if names else "nobody"
