"""Runs moved from some numbered sockets of a device to others, or two groups of sockets exchanged."""

import re
from collections.abc import Iterator
from dataclasses import dataclass

from ruvak.core.entry.names import Directory
from ruvak.core.entry.sockets import is_labelled, is_on, tokens
from ruvak.core.entry.words import expand_ranges, plain
from ruvak.core.rig.controls import phantom_settings
from ruvak.core.rig.edits import Op, SetField, set_setting
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import Gear, Join, Rig, Run, connectors_in_use
from ruvak.core.trace.run_ends import ends_of


@dataclass(frozen=True)
class Sockets:
    """Numbered sockets of one device: "desk 7/8", "desk aux 3". `kinds` are words that stand on them."""

    gear: str
    numbers: tuple[str, ...]
    kinds: tuple[str, ...]

    @classmethod
    def of_goals(cls, rig: Rig, run: Run) -> "Sockets":
        """Where a run ends."""
        ends = tuple(ends_of(rig, run, "in"))
        numbers = tuple(dict.fromkeys(number for end in ends if (number := _number_in(end.connector))))
        return cls(ends[0].owner if ends else "", numbers, ())

    def used(self, rig: Rig) -> set[Endpoint]:
        """Those of them in which something is plugged. "Desk 5" is an input, though there is an aux 5 as well."""
        part = rig.part_of(self.gear)
        numbered = [connector for connector in part.connectors if _number_in(connector.id) in self.numbers]
        meant = [connector for connector in numbered if all(is_on(connector, word) for word in self.kinds)]
        inputs = {connector.id for connector in meant if connector.side == "in"}
        ids = inputs if inputs and not self.kinds else {connector.id for connector in meant}
        return {end for end in connectors_in_use(rig) if end.owner == self.gear and end.connector in ids}


def sockets_of(rig: Rig, directory: Directory, text: str) -> Sockets | None:
    """What a name with numbers means, where the rig has such a device with such sockets."""
    for meaning in directory.meanings(text):
        if meaning.new is not None or len(meaning.gear) != 1:
            continue
        part = rig.part_of(meaning.gear[0].id)
        numbers = tuple(word for word in meaning.rest if word.isdigit())
        known = set().union(*(tokens(connector) for connector in part.connectors))
        kinds = tuple(word for word in meaning.rest if not word.isdigit() and is_labelled(part, word))
        if numbers and set(numbers) <= known:
            return Sockets(meaning.gear[0].id, numbers, kinds)
    return None


def number_of(text: str) -> bool:
    """Whether a text is nothing but socket numbers."""
    words = plain(expand_ranges(plain(text))).split()
    return bool(words) and all(word.isdigit() for word in words)


def moved(rig: Rig, start: Sockets, target: Sockets, swap: bool) -> Iterator[Op]:
    """What moves every plug from the one group to the other, first to first; with `swap` back as well.

    Nothing where the two are not of one device and as many, or where a socket of that kind is not there.
    """
    if start.gear != target.gear or len(start.numbers) != len(target.numbers):
        return
    gear = rig.owners_by_id[start.gear]
    if not isinstance(gear, Gear):
        return
    part = rig.part_of(gear.id)
    have = {connector.id: connector for connector in part.connectors}
    to = dict(zip(start.numbers, target.numbers, strict=True))
    if swap:
        to |= dict(zip(target.numbers, start.numbers, strict=True))
    plugs: dict[Endpoint, Endpoint] = {}
    for end in start.used(rig) | (target.used(rig) if swap else set()):
        number = _number_in(end.connector) or ""
        other = Endpoint(gear.id, re.sub(rf"{number}$", to[number], end.connector))
        if other.connector not in have or have[other.connector].form != have[end.connector].form:
            return
        plugs[end] = other
    for run in rig.runs:
        joins = tuple(_moved_join(join, plugs) for join in run.joins)
        if joins != run.joins:
            yield SetField(kind="runs", id=run.id, field="joins", value=joins)
    yield from _phantom(rig, gear, plugs)


def _moved_join(join: Join, plugs: dict[Endpoint, Endpoint]) -> Join:
    a, b = plugs.get(join.a, join.a), plugs.get(join.b, join.b)
    return join if (a, b) == (join.a, join.b) else join.model_copy(update={"a": a, "b": b})


def _phantom(rig: Rig, gear: Gear, plugs: dict[Endpoint, Endpoint]) -> Iterator[Op]:
    """Each phantom switch goes with its microphone."""
    part = rig.part_of(gear.id)
    wanted: dict[str, bool] = {}
    left: set[str] = set()
    for end, other in plugs.items():
        before, after = (tuple(phantom_settings(part, (each.connector,))) for each in (end, other))
        if before and after and before != after:
            wanted[after[0]] = gear.settings.get(before[0]) is True
            left.add(before[0])
    wanted |= dict.fromkeys(left - set(wanted), False)
    for name, on in wanted.items():
        if (gear.settings.get(name) is True) != on:
            yield set_setting(gear.id, name, on)


def _number_in(connector: str) -> str | None:
    found = re.search(r"(\d+)$", connector)
    return found[1] if found else None
