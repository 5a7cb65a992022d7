"""What is joined on screen is what is joined in the metal: read from the strip's own geometry."""

from itertools import chain

from ruvak.core.analyse import RunAnalysis, analyse
from ruvak.core.remedies.search import remedies_for
from tests.support.browser import BrowserTest
from tests.support.rigs import demo_rig

READ = """() => {
    const svg = document.querySelector("article[data-run='slides'] svg[data-run]");
    return {
        contacts: [...svg.querySelectorAll('circle[data-contact]')].map(c =>
            [c.dataset.contact, +c.getAttribute('cx'), +c.getAttribute('cy')]),
        lines: [...svg.querySelectorAll('path.wire')].map(path => {
            const length = path.getTotalLength();
            const ends = [path.getPointAtLength(0), path.getPointAtLength(length)];
            return ends.map(point => [point.x, point.y]);
        })
    };
}"""
Partition = frozenset[frozenset[str]]


class StripIsTrue(BrowserTest):
    def drawn(self) -> Partition:
        """Contacts grouped by lines whose ends meet, within half a pixel."""
        read = self.page.evaluate(READ)
        spots: list[tuple[float, float]] = []

        def spot(x: float, y: float) -> int:
            for number, (other_x, other_y) in enumerate(spots):
                if abs(other_x - x) < 0.5 and abs(other_y - y) < 0.5:
                    return number
            spots.append((x, y))
            return len(spots) - 1

        contacts = {name: spot(x, y) for name, x, y in read["contacts"]}
        self.assertEqual(len(set(contacts.values())), len(contacts), "two contacts stand on one spot")
        lines = [(spot(*a), spot(*b)) for a, b in read["lines"]]
        group = list(range(len(spots)))
        for a, b in lines:
            group = [group[a] if g == group[b] else g for g in group]
        names: dict[int, set[str]] = {}
        for name, number in contacts.items():
            names.setdefault(group[number], set()).add(name)
        return frozenset(frozenset(one) for one in names.values())

    def traced(self, run: RunAnalysis) -> Partition:
        shown = set(chain.from_iterable(c.contacts for piece in run.drawing.pieces for c in (*piece.ins, *piece.outs)))
        groups = (frozenset(shown & set(conductor.points)) for conductor in run.drawing.conductors)
        return frozenset(group for group in groups if group)

    def test_the_demo_run(self) -> None:
        self.assertEqual(self.drawn(), self.traced(analyse(demo_rig()).runs[0]))
        self.assertEqual(len(self.drawn()), 3)

    def test_every_remedy_as_previewed(self) -> None:
        remedies = remedies_for(demo_rig(), "slides")
        cards = self.page.locator("button.remedy")
        cards.first.wait_for()
        self.assertEqual(cards.count(), len(remedies))
        for number, remedy in enumerate(remedies):
            cards.nth(number).focus()
            self.page.locator(".strip.ghost").wait_for()
            self.assertEqual(self.drawn(), self.traced(remedy.after), remedy.title)

    def test_on_a_phone(self) -> None:
        self.page.set_viewport_size({"width": 390, "height": 844})
        self.page.wait_for_timeout(200)
        self.assertEqual(self.drawn(), self.traced(analyse(demo_rig()).runs[0]))
