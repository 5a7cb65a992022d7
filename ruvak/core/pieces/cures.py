"""What kind of piece is made against what is wrong: by what is inside it, never by its name."""

from collections import Counter
from collections.abc import Callable, Collection, Iterable
from enum import StrEnum
from math import log10

from ruvak.core.rig.part import Part
from ruvak.core.rig.points import Contact, InnerNode

Made = Callable[[Part], bool]


class Cure(StrEnum):
    """A kind of piece that is made against some trouble."""

    ISOLATOR = "isolator"
    LIGHT_LOAD = "light-load"
    RESISTIVE_SUM = "resistive-sum"
    PAD = "pad"


def cures(wanted: Iterable[Cure | None]) -> tuple[Made, ...]:
    """What each kind of piece is known by, each once."""
    return tuple(dict.fromkeys(_KNOWN_BY[cure] for cure in wanted if cure is not None))


def ids_of(made: Iterable[Made], parts: Collection[Part]) -> tuple[tuple[str, ...], ...]:
    """The parts of each kind, by their ids."""
    return tuple(tuple(part.id for part in parts if is_so(part)) for is_so in made)


def is_isolator(part: Part) -> bool:
    """A box whose two sides only a coil joins."""
    return part.kind == "box" and any(element.type == "transformer" for element in part.elements)


def is_light_load(part: Part) -> bool:
    """A box that loads what drives it lightly: a stage of its own, or a coil that steps down."""
    return part.kind == "box" and any(
        element.type == "buffer" or (element.type == "transformer" and element.turns_ratio.value > 1.0)
        for element in part.elements
    )


def is_resistive_sum(part: Part) -> bool:
    """Resistors bring two of its incoming contacts to one point."""
    ways_in = {connector.id for connector in part.connectors if connector.side == "in"}
    met: Counter[Contact | InnerNode] = Counter()
    for element in part.elements:
        if element.type == "resistor":
            ends = (element.a, element.b)
            for end, other in (ends, ends[::-1]):
                if _is_at(end, ways_in) and not _is_at(other, ways_in):
                    met[other] += 1
    return max(met.values(), default=0) > 1


def is_pad(part: Part) -> bool:
    """A box of resistors alone, of which one lies across an output: a divider."""
    leaving = {connector.id for connector in part.connectors if connector.side == "out"}
    return (
        part.kind == "box"
        and all(element.type == "resistor" for element in part.elements)
        and any(
            _is_at(element.a, leaving) and _is_at(element.b, leaving)
            for element in part.elements
            if element.type == "resistor"
        )
    )


def pad_loss_db(part: Part) -> float:
    """How much a pad takes from a source of low impedance into an open input, by the divider's rule; 0 for no pad."""
    leaving = {connector.id for connector in part.connectors if connector.side == "out"}
    resistors = [element for element in part.elements if element.type == "resistor"]
    across = [each for each in resistors if _is_at(each.a, leaving) and _is_at(each.b, leaving)]
    if not across:
        return 0.0
    ends = {across[0].a, across[0].b}
    in_series = sum(each.ohm.value for each in resistors if each not in across and {each.a, each.b} & ends)
    return 20.0 * log10((in_series + across[0].ohm.value) / across[0].ohm.value)


def _is_at(point: Contact | InnerNode, connectors: set[str]) -> bool:
    return isinstance(point, Contact) and point.connector in connectors


_KNOWN_BY: dict[Cure, Made] = {
    Cure.ISOLATOR: is_isolator,
    Cure.LIGHT_LOAD: is_light_load,
    Cure.RESISTIVE_SUM: is_resistive_sum,
    Cure.PAD: is_pad,
}
