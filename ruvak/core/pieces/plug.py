"""Plugs a run's pieces together in a given order, as far as they fit, and says where they do not."""

from dataclasses import dataclass

from ruvak.core.pieces.pool import MOST_CONNECTORS
from ruvak.core.rig.connectors import SHAPES, fits
from ruvak.core.rig.part import Connector
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import Join, Rig, Run, name_of
from ruvak.core.trace.run_ends import ends_of
from ruvak.core.trace.trace import connector_at


@dataclass(frozen=True)
class Plugged:
    """Joins in order from the source; `gaps`: sentences about what could not be plugged."""

    joins: tuple[Join, ...]
    gaps: tuple[str, ...]


def plug_pieces(rig: Rig, run: Run, pieces: tuple[str, ...]) -> Plugged:
    """The run's own end sockets joined by these pieces, first to last. The rig knows all of them."""
    sources, goals = list(ends_of(rig, run, "out")), list(ends_of(rig, run, "in"))
    kept = {(join.a, join.b): join for join in run.joins}
    open_ends, joins, gaps = sources, [], []
    for piece in pieces:
        used = [join for join in run.joins if piece in (join.a.owner, join.b.owner)]
        entries, exits = _sides(rig, piece, used)
        taken = []
        for entry in entries:
            end = next(
                (open_end for open_end in open_ends if _fit(rig, open_end, entry) and open_end not in taken), None
            )
            if end is not None:
                joins.append(kept.get((end, entry), Join(a=end, b=entry)))
                taken.append(end)
        if entries and not taken and open_ends:
            gaps.append(_gap(rig, open_ends[0], entries[0]))
            open_ends = exits
        else:
            open_ends = [end for end in open_ends if end not in taken] + exits if taken else exits
    for goal in goals:
        end = next((open_end for open_end in open_ends if _fit(rig, open_end, goal)), None)
        if end is None:
            gaps.append(
                _gap(rig, open_ends[0], goal) if open_ends else f"Nothing is left to plug into {_words(rig, goal)}."
            )
            continue
        joins.append(kept.get((end, goal), Join(a=end, b=goal)))
        open_ends = [open_end for open_end in open_ends if open_end != end]
    return Plugged(tuple(joins), tuple(gaps))


def _sides(rig: Rig, piece: str, used: list[Join]) -> tuple[list[Endpoint], list[Endpoint]]:
    """Entries and exits; of a multicore only the ways this run uses, of the rest all."""
    connectors = rig.part_of(piece).connectors
    own = {end.connector for join in used for end in join.ends if end.owner == piece}
    if len(connectors) > MOST_CONNECTORS and own:
        connectors = tuple(connector for connector in connectors if connector.id in own)
    entries = [Endpoint(piece, connector.id) for connector in connectors if connector.side == "in"]
    exits = [Endpoint(piece, connector.id) for connector in connectors if connector.side == "out"]
    both = [Endpoint(piece, connector.id) for connector in connectors if connector.side == "both"]
    return entries or both, exits or both


def _fit(rig: Rig, endpoint: Endpoint, other: Endpoint) -> bool:
    return fits(connector_at(rig, endpoint).form, connector_at(rig, other).form)


def _gap(rig: Rig, endpoint: Endpoint, other: Endpoint) -> str:
    return f"{_words(rig, endpoint)} does not go into {_words(rig, other)}; something belongs between."


def _words(rig: Rig, end: Endpoint) -> str:
    connector: Connector = connector_at(rig, end)
    return f"{name_of(rig, end.owner)}, {SHAPES[connector.form].words}"
