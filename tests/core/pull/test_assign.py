"""The assignment of leads: against every possible one on small cases, and against what must never be on large ones."""

import unittest
from collections import Counter
from itertools import product

from hypothesis import given, settings
from hypothesis import strategies as st

from ruvak.core.parts.library import library
from ruvak.core.pull.assign import JOIN, SHORT, SUSPECT, Assignment, assign, length_to_get_m
from ruvak.core.pull.need import Need
from ruvak.core.pull.supply import Lead
from ruvak.core.pull.wiring import extends_itself, wiring_of
from ruvak.core.rig.rig import KitItem

MIC, JACK = library()["mic-lead"], library()["lead-ts-ts"]
DAY, MORNING, EVENING = (0.0, 24.0), (9.0, 12.0), (18.0, 22.0)


def lead(tag: str, length_m: float, suspect: bool = False, part: str = "mic-lead") -> Lead:
    return Lead(tag, library()[part].name, wiring_of(library()[part]), length_m, suspect, "cupboard", item=tag.lower())


def need(run: str, length_m: float, hours: tuple[float, float] = DAY, part: str = "mic-lead", rig: str = "rig") -> Need:
    planned = KitItem(id=f"get-{run}", tag=run, part=part, length_m=length_m, owned=False)
    kind = library()[part]
    return Need(rig, run, wiring_of(kind), length_m, (planned,), hours, extends_itself(kind))


def cost_of(wanted: Need, leads: tuple[Lead, ...]) -> float:
    if not leads:
        return SHORT + length_to_get_m(wanted.wiring, wanted.length_m)
    return (
        sum(each.length_m for each in leads)
        - wanted.length_m
        + JOIN * (len(leads) - 1)
        + SUSPECT * sum(each.suspect for each in leads)
    )


def cheapest(needs: list[Need], leads: list[Lead]) -> float:
    """By trying everything."""
    options = []
    for wanted in needs:
        own: list[tuple[Lead, ...]] = [()]
        own += [(each,) for each in leads if each.wiring == wanted.wiring and each.length_m >= wanted.length_m]
        short = [each for each in leads if each.wiring == wanted.wiring and each.length_m < wanted.length_m]
        if wanted.may_join:
            own += [
                (a, b)
                for i, a in enumerate(short)
                for b in short[i + 1 :]
                if a.length_m + b.length_m >= wanted.length_m
            ]
        options.append(own)

    def clash(chosen: tuple[tuple[Lead, ...], ...]) -> bool:
        taken = [(each, wanted.hours) for wanted, own in zip(needs, chosen, strict=True) for each in own]
        return any(
            a.tag == b.tag and p[0] < q[1] and q[0] < p[1] for i, (a, p) in enumerate(taken) for b, q in taken[i + 1 :]
        )

    return min(sum(map(cost_of, needs, chosen)) for chosen in product(*options) if not clash(chosen))


class Rules(unittest.TestCase):
    def check(self, needs: list[Need], leads: list[Lead], result: Assignment) -> None:
        """What must hold of any assignment."""
        self.assertEqual([each.need for each in result.filled], needs)
        taken: list[tuple[Lead, tuple[float, float]]] = []
        for filled in result.filled:
            total_m = sum(each.length_m for each in filled.leads)
            self.assertTrue(not filled.leads or total_m >= filled.need.length_m)
            self.assertTrue(all(each.wiring == filled.need.wiring for each in filled.leads))
            self.assertEqual(filled.get_m is None, bool(filled.leads))
            taken += [(each, filled.need.hours) for each in filled.leads]
        for i, (one, p) in enumerate(taken):
            for other, q in taken[i + 1 :]:
                self.assertFalse(one == other and p[0] < q[1] and q[0] < p[1], f"{one.tag} is in two places")
        cost = sum(cost_of(each.need, each.leads) for each in result.filled)
        self.assertAlmostEqual(cost, result.cost, places=3)
        self.assertGreaterEqual(result.cost + 1e-6, result.bound)


class Cases(Rules):
    def tags(self, needs: list[Need], leads: list[Lead]) -> list[str]:
        result = assign(needs, leads)
        self.check(needs, leads, result)
        self.assertTrue(result.proven)
        return ["+".join(each.tag for each in filled.leads) or f"get {filled.get_m:g} m" for filled in result.filled]

    def test_the_shortest_that_reaches(self) -> None:
        leads = [lead("A", 20.0), lead("B", 10.0), lead("C", 5.0)]
        self.assertEqual(self.tags([need("1", 8.0), need("2", 4.0)], leads), ["B", "C"])

    def test_a_longer_lead_before_a_join_and_a_join_before_getting_another(self) -> None:
        self.assertEqual(self.tags([need("1", 12.0)], [lead("A", 10.0), lead("B", 5.0), lead("C", 50.0)]), ["C"])
        self.assertEqual(self.tags([need("1", 12.0)], [lead("A", 10.0), lead("B", 5.0)]), ["A+B"])
        self.assertEqual(self.tags([need("1", 12.0)], [lead("A", 5.0), lead("B", 5.0)]), ["get 15 m"])

    def test_suspect_leads_last_but_before_none_at_all(self) -> None:
        leads = [lead("A", 10.0, suspect=True), lead("B", 50.0)]
        self.assertEqual(self.tags([need("1", 8.0)], leads), ["B"])
        self.assertEqual(self.tags([need("1", 8.0), need("2", 8.0)], leads), ["A", "B"])

    def test_what_does_not_go_into_itself_is_not_joined(self) -> None:
        jacks = [lead(tag, 5.0, part="lead-ts-ts") for tag in ("J1", "J2")]
        expected = f"get {length_to_get_m(wiring_of(JACK), 8.0):g} m"
        self.assertEqual(self.tags([need("1", 8.0, part="lead-ts-ts")], jacks), [expected])

    def test_one_lead_serves_the_morning_and_the_evening(self) -> None:
        needs = [need("1", 8.0, MORNING, rig="chapel"), need("2", 8.0, EVENING, rig="hall")]
        self.assertEqual(self.tags(needs, [lead("A", 10.0)]), ["A", "A"])
        needs = [need("1", 8.0, MORNING, rig="chapel"), need("2", 8.0, (11.0, 13.0), rig="hall")]
        self.assertEqual(Counter(self.tags(needs, [lead("A", 10.0)]))["A"], 1)

    def test_the_smallest_lead_is_got_that_cures_the_shortage(self) -> None:
        """The ten-metre lead goes to the run that would cost more to buy for."""
        self.assertEqual(self.tags([need("1", 4.0), need("2", 9.0)], [lead("A", 10.0)]), ["get 5 m", "A"])

    def test_what_lies_there_already_stays(self) -> None:
        there = KitItem.model_validate(
            {"id": "own-b", "tag": "B", "part": "mic-lead", "length_m": 10.0, "drawn": {"item": "b", "number": 1}}
        )
        wanted = need("1", 8.0)
        wanted = Need(wanted.rig, wanted.run, wanted.wiring, 8.0, (there,), DAY, True)
        leads = [lead("A", 10.0), lead("B", 10.0), lead("C", 10.0)]
        self.assertEqual(self.tags([need("0", 8.0), wanted], leads), ["A", "B"])

    def test_without_needs_there_is_nothing_to_prove(self) -> None:
        self.assertEqual(assign([], [lead("A", 5.0)]).filled, ())


LENGTHS = st.sampled_from([2.5, 5.0, 10.0, 15.0, 20.0])
HOURS = st.sampled_from([MORNING, EVENING, DAY])
KINDS = st.sampled_from(["mic-lead", "lead-ts-ts"])


class Small(Rules):
    @settings(max_examples=150)
    @given(
        st.lists(st.tuples(LENGTHS, HOURS, KINDS), min_size=1, max_size=3),
        st.lists(st.tuples(LENGTHS, st.booleans(), KINDS), max_size=4),
    )
    def test_it_is_as_cheap_as_the_best_of_all(
        self, wanted: list[tuple[float, tuple[float, float], str]], there: list[tuple[float, bool, str]]
    ) -> None:
        needs = [need(str(n), length_m, hours, part) for n, (length_m, hours, part) in enumerate(wanted)]
        leads = [lead(f"L{n}", length_m, suspect, part) for n, (length_m, suspect, part) in enumerate(there)]
        result = assign(needs, leads)
        self.assertTrue(result.proven)
        ordered = sorted(needs, key=lambda each: [filled.need for filled in result.filled].index(each))
        self.check(ordered, leads, result)
        self.assertAlmostEqual(result.cost, cheapest(needs, leads), places=3)
