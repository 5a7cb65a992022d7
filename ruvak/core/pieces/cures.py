"""What kind of piece is made against what is wrong: by what is inside it, never by its name."""

from collections import Counter
from collections.abc import Callable, Collection, Iterable
from enum import StrEnum

from ruvak.core.rig.part import Part
from ruvak.core.rig.points import Contact, InnerNode

Made = Callable[[Part], bool]


class Cure(StrEnum):
    """A kind of piece that is made against some trouble."""

    ISOLATOR = "isolator"
    LIGHT_LOAD = "light-load"
    RESISTIVE_SUM = "resistive-sum"


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


def _is_at(point: Contact | InnerNode, connectors: set[str]) -> bool:
    return isinstance(point, Contact) and point.connector in connectors


_KNOWN_BY: dict[Cure, Made] = {
    Cure.ISOLATOR: is_isolator,
    Cure.LIGHT_LOAD: is_light_load,
    Cure.RESISTIVE_SUM: is_resistive_sum,
}
