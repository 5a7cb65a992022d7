"""Runs moved from some sockets of a device to others, or two groups of sockets swapped."""

import re
from collections.abc import Iterator
from dataclasses import dataclass

from ruvak.core.entry.names import Directory
from ruvak.core.entry.sockets import SIDES, is_labelled, sockets, tokens
from ruvak.core.entry.words import expand_ranges, plain
from ruvak.core.rig.controls import phantom_settings
from ruvak.core.rig.edits import Op, SetField, set_setting
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import Gear, Join, Rig, Run, connectors_in_use
from ruvak.core.trace.run_ends import ends_of
from ruvak.core.trace.trace import connector_at


@dataclass(frozen=True)
class Sockets:
    """Sockets of one device: "desk 7/8", "desk main left". For each place the line names, the connectors it may mean.

    "Desk 5" is an input, though there is an aux 5 as well: outputs are meant only where no input answers.
    """

    gear: str
    words: str
    """The words after the device's name, as they are read back."""
    places: tuple[tuple[str, ...], ...]

    @classmethod
    def of_goals(cls, rig: Rig, run: Run) -> "Sockets":
        """Where a run ends."""
        ends = tuple(ends_of(rig, run, "in"))
        owner = ends[0].owner if ends else ""
        numbers = dict.fromkeys(number for end in ends for number in re.findall(r"\d+$", end.connector))
        return cls(owner, "/".join(numbers), tuple((end.connector,) for end in ends if end.owner == owner))

    def used(self, rig: Rig) -> set[Endpoint]:
        """Those of them in which something is plugged."""
        ids = {connector for place in self.places for connector in place}
        return {end for end in connectors_in_use(rig) if end.owner == self.gear and end.connector in ids}

    def runs(self, rig: Rig) -> tuple[Run, ...]:
        """Those that are plugged in there."""
        used = self.used(rig)
        return tuple(run for run in rig.runs if used & set(run.ends))


def sockets_of(rig: Rig, directory: Directory, text: str) -> Sockets | None:
    """What a name with sockets means, where the rig has such a device with such sockets."""
    for meaning in directory.meanings(text):
        if meaning.new is not None or len(meaning.gear) != 1 or not meaning.rest:
            continue
        gear = meaning.gear[0]
        part = rig.part_of(gear.id)
        numbers = [word for word in meaning.rest if word.isdigit()]
        kinds = [word for word in meaning.rest if not word.isdigit() and (word in SIDES or is_labelled(part, word))]
        if not numbers and not kinds:
            continue
        for role in ("goal", "source"):
            read = sockets(part, meaning.rest, role)
            if read.unknown is None and read.positions:
                return Sockets(gear.id, " ".join([*kinds, "/".join(numbers)]).strip(), read.positions)
    return None


def number_of(text: str) -> bool:
    """Whether a text is nothing but socket numbers."""
    words = plain(expand_ranges(plain(text))).split()
    return bool(words) and all(word.isdigit() for word in words)


def moved(rig: Rig, start: Sockets, target: Sockets, swap: bool) -> Iterator[Op]:
    """What moves every plug from the one group to the other, first to first; with `swap` back as well.

    Nothing where the groups are not as many, or where a plug fits no socket of its new place.
    """
    if len(start.places) != len(target.places):
        return
    plugs: dict[Endpoint, Endpoint] = {}
    ways = [(start, target), (target, start)] if swap else [(start, target)]
    for here, there in ways:
        for end in here.used(rig):
            at = next(at for at, place in enumerate(here.places) if end.connector in place)
            other = _alike(rig, end, there.gear, there.places[at])
            if other is None:
                return
            plugs[end] = other
    for run in rig.runs:
        joins = tuple(moved_join(join, plugs) for join in run.joins)
        if joins != run.joins:
            yield SetField(kind="runs", id=run.id, field="joins", value=joins)
    yield from _phantom(rig, plugs)


def _alike(rig: Rig, end: Endpoint, gear: str, place: tuple[str, ...]) -> Endpoint | None:
    """The socket of a place that a plug fits as well: of the same form and direction, with the most words in common."""
    now = connector_at(rig, end)
    fitting = [
        connector
        for connector in rig.part_of(gear).connectors
        if connector.id in place and (connector.form, connector.side) == (now.form, now.side)
    ]
    best = max(fitting, key=lambda connector: len(tokens(connector) & tokens(now)), default=None)
    return None if best is None else Endpoint(gear, best.id)


def moved_join(join: Join, plugs: dict[Endpoint, Endpoint]) -> Join:
    """A join whose ends are where `plugs` puts them."""
    a, b = plugs.get(join.a, join.a), plugs.get(join.b, join.b)
    return join if (a, b) == (join.a, join.b) else join.model_copy(update={"a": a, "b": b})


def _phantom(rig: Rig, plugs: dict[Endpoint, Endpoint]) -> Iterator[Op]:
    """Each phantom switch goes with its microphone."""
    wanted: dict[tuple[str, str], bool] = {}
    left: set[tuple[str, str]] = set()
    for end, other in plugs.items():
        before, after = (_phantom_switch(rig, each) for each in (end, other))
        if before and after and before != after:
            wanted[after] = _is_on(rig, before)
            left.add(before)
    wanted |= dict.fromkeys(left - set(wanted), False)
    for switch, on in wanted.items():
        if _is_on(rig, switch) != on:
            yield set_setting(*switch, on)


def _phantom_switch(rig: Rig, end: Endpoint) -> tuple[str, str] | None:
    """The device and the name of the switch that powers a socket."""
    names = tuple(phantom_settings(rig.part_of(end.owner), (end.connector,)))
    return (end.owner, names[0]) if names else None


def _is_on(rig: Rig, switch: tuple[str, str]) -> bool:
    gear = rig.owners_by_id[switch[0]]
    return isinstance(gear, Gear) and gear.settings.get(switch[1]) is True
