"""The parts library: sound, embedded into rigs, and never silently exchanged."""

import unittest
from collections.abc import Iterator
from typing import Any

from ruvak.core.parts.library import default_assumptions, embed, library
from ruvak.core.rig.check import check
from ruvak.core.rig.rig import Rig, Venue
from ruvak.core.rig.values import Record, Spread, Value
from tests.support.rigs import demo_rig


def quantities(record: Any) -> Iterator[Value | Spread]:
    if isinstance(record, Value | Spread):
        yield record
    elif isinstance(record, Record):
        for name in type(record).model_fields:
            yield from quantities(getattr(record, name))
    elif isinstance(record, tuple | dict):
        for one in record.values() if isinstance(record, dict) else record:
            yield from quantities(one)


class Library(unittest.TestCase):
    def test_every_part_is_sound(self) -> None:
        check(Rig(id="all", name="All", venue=Venue(name="x"), parts=tuple(library().values())))

    def test_every_figure_says_where_it_comes_from(self) -> None:
        for record in (*library().values(), default_assumptions()):
            for one in quantities(record):
                self.assertNotIn(one.source, ("", "stated"), getattr(record, "id", "assumptions"))

    def test_figures_lie_in_their_own_range(self) -> None:
        for part in library().values():
            for one in quantities(part):
                if isinstance(one, Value):
                    self.assertLessEqual(one.low if one.low is not None else one.value, one.value, part.id)
                    self.assertGreaterEqual(one.high if one.high is not None else one.value, one.value, part.id)

    def test_a_rig_gets_copies_of_what_it_names(self) -> None:
        bare = demo_rig().with_fields(parts=(), assumptions=None)
        full = embed(bare)
        self.assertEqual({part.id for part in full.parts}, {g.part for g in bare.gear} | {k.part for k in bare.kit})
        self.assertEqual(embed(full), full)

    def test_a_part_the_rig_carries_is_not_replaced(self) -> None:
        mine = demo_rig().parts[0].model_copy(update={"name": "My own"})
        rig = demo_rig().with_fields(parts=(mine, *demo_rig().parts[1:]))
        self.assertEqual(embed(rig).parts[0].name, "My own")
