"""What is joined on screen is what is joined in the metal: read from the strips' own geometry."""

from itertools import chain

from networkx.utils import UnionFind
from playwright.sync_api import expect

from ruvak.core.analyse import RunAnalysis, analyse
from ruvak.core.remedies.search import remedies_for
from ruvak.core.rig.points import ContactRef, NodeRef, parse_point_ref
from ruvak.core.rig.rig import Rig
from ruvak.core.trace.trace import trace
from tests.support.browser import SOMEBODY, BrowserTest
from tests.support.rigs import demo_rig
from tests.support.wild import wild_rig

READ = """() => [...document.querySelectorAll("article[data-run] svg[data-run]")].map(svg => ({
    run: svg.dataset.run,
    contacts: [...svg.querySelectorAll('circle[data-contact]')].map(c =>
        [c.dataset.contact, +c.getAttribute('cx'), +c.getAttribute('cy')]),
    lines: [...svg.querySelectorAll('path.wire')].map(path => {
        const length = path.getTotalLength();
        const ends = [path.getPointAtLength(0), path.getPointAtLength(length)];
        return ends.map(point => [point.x, point.y]);
    })
}))"""
Partition = frozenset[frozenset[str]]
Read = dict[str, list[list[object]]]
WILD_RIGS, WILD_RUNS = 10, 20
"""Two hundred random wirings."""


class StripIsTrue(BrowserTest):
    def drawn(self) -> dict[str, Partition]:
        """By run: contacts grouped by lines whose ends meet, within half a pixel."""
        return {str(one["run"]): self.grouped(one) for one in self.page.evaluate(READ)}

    def grouped(self, read: Read) -> Partition:
        spots: list[tuple[float, float]] = []

        def spot(x: float, y: float) -> int:
            for number, (other_x, other_y) in enumerate(spots):
                if abs(other_x - x) < 0.5 and abs(other_y - y) < 0.5:
                    return number
            spots.append((x, y))
            return len(spots) - 1

        contacts = {str(name): spot(x, y) for name, x, y in read["contacts"]}  # type: ignore[arg-type]
        self.assertEqual(len(set(contacts.values())), len(contacts), "two contacts stand on one spot")
        lines = [(spot(*a), spot(*b)) for a, b in read["lines"]]  # type: ignore[misc]
        group = list(range(len(spots)))
        for a, b in lines:
            group = [group[a] if g == group[b] else g for g in group]
        names: dict[int, set[str]] = {}
        for name, number in contacts.items():
            names.setdefault(group[number], set()).add(name)
        return frozenset(frozenset(one) for one in names.values())

    def traced(self, run: RunAnalysis) -> Partition:
        shown = set(chain.from_iterable(c.contacts for piece in run.drawing.pieces for c in (*piece.ins, *piece.outs)))
        groups = (frozenset(map(str, shown & set(conductor.points))) for conductor in run.drawing.conductors)
        return frozenset(group for group in groups if group)

    def metal(self, rig: Rig, run_id: str, shown: frozenset[str]) -> Partition:
        """The same straight from the trace: the run's pieces and mates, and what a device joins within one socket."""
        run = next(one for one in rig.runs if one.id == run_id)
        contacts = [parse_point_ref(one) for one in shown]
        joined: UnionFind[ContactRef | NodeRef] = UnionFind(contacts)
        inside: UnionFind[ContactRef | NodeRef] = UnionFind()
        for link in trace(rig).links:
            if link.owner in run.pieces or (link.kind == "mate" and link.owner == run_id):
                joined.union(link.a, link.b)
            elif link.kind == "wire":
                inside.union(link.a, link.b)
        for one in contacts:
            for other in contacts:
                if one[:2] == other[:2] and inside[one] == inside[other]:
                    joined.union(one, other)
        groups = (frozenset(str(point) for point in group if point in contacts) for group in joined.to_sets())
        return frozenset(group for group in groups if group)

    def test_the_demo_run(self) -> None:
        self.run_card().locator(".strip svg").wait_for()
        drawn = self.drawn()["slides"]
        self.assertEqual(drawn, self.traced(analyse(demo_rig()).runs[0]))
        self.assertEqual(len(drawn), 3)

    def test_every_remedy_as_previewed(self) -> None:
        remedies = remedies_for(demo_rig(), "slides")
        cards = self.page.locator("button.remedy")
        expect(cards).to_have_count(len(remedies))
        for number, remedy in enumerate(remedies):
            cards.nth(number).focus()
            self.page.locator(".strip.ghost").wait_for()
            self.assertEqual(self.drawn()["slides"], self.traced(remedy.after), remedy.title)

    def test_on_a_phone(self) -> None:
        self.page.set_viewport_size({"width": 390, "height": 844})
        self.run_card().locator(".strip svg").wait_for()
        self.page.wait_for_timeout(200)
        self.assertEqual(self.drawn()["slides"], self.traced(analyse(demo_rig()).runs[0]))

    def test_two_hundred_random_wirings(self) -> None:
        # Nobody looks at the remedies here, and those of two hundred runs would take longer than everything else.
        self.page.route("**/remedies*", lambda route: route.fulfill(json=[]))
        for seed in range(WILD_RIGS):
            rig = wild_rig(seed, WILD_RUNS)
            for old in self.rigs.list_all():
                self.rigs.delete(old.id)
            self.rigs.import_rig(rig, SOMEBODY)
            self.page.goto(f"{self.server.address}/#/rigs/{rig.id}/runs")
            self.page.reload()
            self.expect_runs(WILD_RUNS)
            drawn: dict[str, Partition] = {}
            for run in rig.runs:
                # What is read are the drawing's own coordinates: it need not have come to rest.
                self.page.evaluate("address => (location.hash = address)", f"#/rigs/{rig.id}/runs/{run.id}")
                self.page.locator(f"article[data-run='{run.id}'] .strip svg").wait_for()
                drawn |= self.drawn()
            self.assertEqual(set(drawn), {run.id for run in rig.runs})
            for run_id, groups in drawn.items():
                shown = frozenset(chain.from_iterable(groups))
                self.assertEqual(groups, self.metal(rig, run_id, shown), f"seed {seed}, {run_id}")
