"""Chains of pieces: pairs, forks and merges, several leads in a row, and what is preferred."""

import unittest
from collections.abc import Iterable
from dataclasses import replace
from itertools import islice

from ruvak.core.pieces.chains import fill_chain, kinds, misfit
from ruvak.core.pieces.pool import Pool, pool_for
from ruvak.core.pieces.route import Route, simplicity
from ruvak.core.pieces.routes import routes
from ruvak.core.rig.connectors import Form, made_for
from ruvak.core.rig.points import Endpoint, parse_endpoint
from ruvak.core.trace.trace import connector_at
from tests.support.entry import entry_rig


def pool() -> Pool:
    return pool_for(entry_rig())


def ends(texts: Iterable[str]) -> tuple[Endpoint, ...]:
    return tuple(parse_endpoint(text) for text in texts)


def in_order(sources: tuple[str, ...], goals: tuple[str, ...], need_m: float) -> list[Route]:
    return sorted(islice(routes(pool(), ends(sources), ends(goals), need_m), 200), key=simplicity)


def best(sources: tuple[str, ...], goals: tuple[str, ...], need_m: float = 3.0) -> Route:
    return in_order(sources, goals, need_m)[0]


def parts(route: Route) -> list[str]:
    return [item.part for item in route.items]


class OneLine(unittest.TestCase):
    def test_the_shortest_owned_lead_that_reaches(self) -> None:
        for need, length in ((4.0, 5), (8.0, 10), (15.0, 20)):
            route = best(("vox.out",), ("desk.mic1",), need)
            self.assertEqual((parts(route), route.items[0].length_m, route.to_get), (["mic-lead"], length, 0))

    def test_two_leads_in_a_row_where_none_reaches(self) -> None:
        route = best(("vox.out",), ("desk.mic1",), 35.0)
        self.assertEqual(parts(route), ["mic-lead", "mic-lead"])
        self.assertGreaterEqual(sum(item.length_m or 0 for item in route.items), 35.0)

    def test_nothing_reaches_beyond_what_three_leads_can(self) -> None:
        steps = next(
            one for one in kinds(pool(), Form.XLR3_MALE, Form.XLR3_FEMALE) if len(one) == 1 and one[0].way.cabled
        )
        vox, mic = ends(("vox.out", "desk.mic1"))
        self.assertIsNone(fill_chain(pool(), steps, vox, mic, 900.0))

    def test_a_plug_made_for_the_socket_comes_first(self) -> None:
        self.assertEqual(misfit(Form.TS635_PLUG, Form.TS635_SOCKET), 0)
        self.assertEqual(misfit(Form.TS635_PLUG, Form.TRS635_SOCKET), 1)
        self.assertEqual(misfit(Form.TRS635_PLUG, Form.TS635_SOCKET), 2)
        self.assertEqual(parts(best(("guitar.out",), ("amp.in",))), ["lead-ts-ts"])

    def test_every_chain_fits_from_end_to_end(self) -> None:
        for goal in ("desk.line1", "desk.mic1", "camera.mic", "pocket.in"):
            for route in list(routes(pool(), ends(("keys.left",)), ends((goal,)), 3.0))[:40]:
                rig = entry_rig().with_fields(kit=entry_rig().kit + tuple(i for i in route.items if not i.owned))
                from ruvak.core.parts.library import embed

                for join in route.joins:
                    a, b = connector_at(embed(rig), join.a), connector_at(embed(rig), join.b)
                    self.assertTrue(made_for(a.form, b.form), (join, parts(route)))


class SeveralLines(unittest.TestCase):
    def test_a_pair_of_the_same_leads(self) -> None:
        route = best(("keys.left", "keys.right"), ("desk.line1", "desk.line2"))
        self.assertEqual(parts(route), ["lead-ts-ts", "lead-ts-ts"])
        self.assertEqual(len({item.id for item in route.items}), 2)

    def test_a_twin_lead(self) -> None:
        route = best(("player.left", "player.right"), ("desk.line1", "desk.line2"))
        self.assertEqual(parts(route), ["lead-rca-ts-twin"])
        self.assertEqual([join.b for join in route.joins][2:], list(ends(("desk.line1", "desk.line2"))))

    def test_a_fork(self) -> None:
        route = best(("laptop.phones",), ("desk.line1", "desk.line2"))
        self.assertEqual(parts(route), ["lead-trs35-two-ts"])

    def test_a_merge(self) -> None:
        route = best(("keys.left", "keys.right"), ("desk.mic1",))
        self.assertEqual(sum(join.a.owner == "keys" for join in route.joins), 2)
        self.assertEqual([join.b for join in route.joins].count(*ends(("desk.mic1",))), 1)

    def test_no_item_is_used_twice(self) -> None:
        cases = (
            (("keys.left", "keys.right"), ("desk.mic1", "desk.mic2")),
            (("laptop.phones",), ("left.in1", "left.in2")),
        )
        for sources, goals in cases:
            for route in list(routes(pool(), ends(sources), ends(goals), 3.0))[:60]:
                ids = [item.id for item in route.items]
                self.assertEqual(len(ids), len(set(ids)), ids)

    def test_owned_before_to_be_got(self) -> None:
        got = [route.to_get for route in in_order(("keys.left",), ("desk.line1",), 3.0)]
        self.assertEqual(got, sorted(got))
        self.assertEqual(got[0], 0)

    def test_of_named_pieces_only_wirings_with_them_are_put_together_and_all_of_those(self) -> None:
        cases = (
            (("keys.left", "keys.right"), ("desk.line1", "desk.line2")),
            (("laptop.phones",), ("desk.line1", "desk.line2")),
            (("keys.left", "keys.right"), ("desk.mic1",)),
        )
        for sources, goals in cases:
            every = list(routes(pool(), ends(sources), ends(goals), 3.0))
            for part in sorted({part for route in every for part in parts(route)}):
                named = replace(pool(), named=(frozenset((part,)),))
                having = [route for route in routes(named, ends(sources), ends(goals), 3.0) if part in parts(route)]
                self.assertCountEqual(having, [route for route in every if part in parts(route)], (sources, part))
