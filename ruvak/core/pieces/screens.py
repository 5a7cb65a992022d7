"""Which leads and boxes open a screen."""

from collections.abc import Hashable

from networkx.utils import UnionFind

from ruvak.core.rig.connectors import DSUB25_CHANNELS, SHAPES, carries_many_channels
from ruvak.core.rig.part import Part
from ruvak.core.rig.points import Contact

SCREENS = frozenset({"1", "S", "R2", "sleeve", "screen", "shell"})
"""The second ring is the ground of some headset plugs."""
_DTYPE_SCREENS = frozenset(screen for _, _, screen in DSUB25_CHANNELS)


def opens_screen(part: Part) -> bool:
    """Whether signal passes through metal from one side to the other while no screen does."""
    joined: UnionFind[Hashable] = UnionFind()
    for wire in part.wires:
        joined.union(wire.a, wire.b)
    for conductor in (conductor for cable in part.cables for conductor in cable.conductors):
        if conductor.a is not None and conductor.b is not None:
            joined.union(conductor.a, conductor.b)
    sides: tuple[set[Hashable], set[Hashable]] = (set(), set())
    screens: tuple[set[Hashable], set[Hashable]] = (set(), set())
    for connector in part.connectors:
        named = _DTYPE_SCREENS if carries_many_channels(connector.form) else SCREENS
        for contact in SHAPES[connector.form].contacts:
            group = joined[Contact(connector.id, contact)]
            for index, side in enumerate(("in", "out")):
                if connector.side in (side, "both"):
                    (screens if contact in named else sides)[index].add(group)
    has_screens = bool(screens[0]) and bool(screens[1])
    return has_screens and bool(sides[0] & sides[1]) and not screens[0] & screens[1]
