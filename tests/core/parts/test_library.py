"""The parts library: sound, embedded into rigs, and never silently exchanged."""

import json
import unittest
from collections.abc import Iterator
from importlib.resources import files
from typing import Any

from ruvak.core.parts.library import default_assumptions, embed, library
from ruvak.core.rig.check import check
from ruvak.core.rig.points import Contact
from ruvak.core.rig.rig import Rig, Venue
from ruvak.core.rig.values import Record, Spread, Value
from ruvak.core.trace.layout import inside_links
from ruvak.core.trace.trace import merge_groups, points_of
from tests.support.rigs import demo_rig

DATA = files("ruvak.core.parts").joinpath("data")


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

    def test_no_id_stands_twice_in_the_data_files(self) -> None:
        ids = [
            part["id"]
            for name in ("gear", "boxes", "adapters", "leads")
            for part in json.loads(DATA.joinpath(f"{name}.json").read_text(encoding="utf-8"))
        ]
        self.assertEqual(len(ids), len(set(ids)))
        self.assertEqual(set(ids), set(library()))

    def test_the_sockets_of_one_unbalanced_output_share_their_return(self) -> None:
        """Else the right side of a player has none where the input floats, as at a transformer."""
        for part in library().values():
            links = ((link.a, link.b) for link in inside_links(part, screens=True))
            joined = merge_groups(points_of(part), links)
            for port in part.outputs:
                if port.type != "unbalanced" or not isinstance(port.common, Contact):
                    continue
                for socket in port.connectors:
                    own = Contact(connector=socket, contact=port.common.contact)
                    self.assertEqual(joined[own], joined[port.common], f"{part.id}: {socket}")

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
