"""What is wrong with a piece, from what a tester reads: every fault that explains the readings, and where several do,
the reading that tells them apart."""

from collections.abc import Iterable, Iterator
from itertools import combinations
from typing import Literal

from ruvak.core.parts.library import library
from ruvak.core.rig.part import Part, contacts_in
from ruvak.core.rig.points import Contact, Point
from ruvak.core.rig.prune import prune_multicore
from ruvak.core.rig.rig import Condition
from ruvak.core.rig.values import Label, Record
from ruvak.core.rig.wiring_fault import WiringFault, contact_words, fault_words
from ruvak.core.tester.hypotheses import Bench, Hypothesis
from ruvak.core.tester.metal import Groups, across_components, groups_of
from ruvak.core.tester.reading import MOST_OHM, LeadTest, State
from ruvak.core.units import engineering

Verdict = Literal["good", "faulty", "several", "unfinished", "other", "unexplained"]
PASSED = "The tester says pass. It names no contact, so what such a tester does not look for may go unseen."
TWO_AT_MOST = "No two faults together read like this: read these pairs again, then open the plugs."
SAME_READINGS = "The contacts read the same for each of these: open the plugs and look."
RESISTIVE = "a bad solder joint or a dirty plug rather than a clean break."
OPEN_OHM = 100e3
"""What reads more is a break: between it and a joined conductor lies a joint that has gone bad. Common practice."""
OTHERS_UNREAD = "These contacts read as they should; the other lines were not read."
MOST_AT_ONCE = 32
"""Contacts of a piece that is tested as a whole; of a larger one, the lines that were read."""
MOST_EXPLANATIONS = 8
MOST_DOUBLES = 160
"""Single faults of which every two are tried; of a larger piece those at contacts that read otherwise than they
should."""
OTHER_WEIGHT = 2.0
"""How often a piece is made otherwise than somebody wrote down, against a fault: common practice, no source."""
TINY = 1e-9
_UNUSUAL: dict[State, str] = {
    "joined": "joined, and should not be",
    "open": "open, and should be joined",
    "flickers": "comes and goes",
}


class Explanation(Record):
    """Something that would read exactly so."""

    faults: tuple[WiringFault, ...]
    """What is otherwise than the part says; none for a piece that is wired as another part is."""
    wired_as: Label | None = None
    """The part whose wiring it would be."""
    words: str
    """In words."""
    condition: Condition
    """How a piece is of which this is so."""
    share: float
    """How likely it is among the explanations, 0 to 1, by how often each turns out to be it."""


class NextReading(Record):
    """The reading that tells most."""

    a: Point
    """A contact."""
    b: Point
    """Another."""
    words: str
    """Which, in words."""


class Diagnosis(Record):
    """What the readings say."""

    verdict: Verdict
    """good: nothing else reads so. faulty: one explanation. several: more than one. unfinished: as it should be, and
    readings are missing. other: it is made as another part is. unexplained: more than two faults at once, or a wrong
    reading."""
    words: str
    """In a sentence."""
    condition: Condition | None = None
    """How the piece is by that; null where that cannot be said yet."""
    explanations: tuple[Explanation, ...] = ()
    """The likeliest first."""
    next: NextReading | None = None
    """What to read next, where that tells explanations apart."""
    unusual: tuple[str, ...] = ()
    """Pairs that read otherwise than they should, in words."""


def diagnose(whole: Part, test: LeadTest) -> Diagnosis:
    """What is wrong with a piece. ValueError for a reading of a contact that it does not have."""
    read = {point for reading in test.readings for point in (reading.a, reading.b)}
    if unknown := read - set(contacts_in(whole)):
        raise ValueError(f"{whole.name} has no contact {min(map(str, unknown))}.")
    if len(contacts_in(whole)) <= MOST_AT_ONCE:
        case = _Case(whole, test)
        return case.with_resistances(case.diagnose())
    used = {point.connector for point in read if isinstance(point, Contact)}
    part = prune_multicore(whole, used) if used else whole
    case = _Case(part, test)
    diagnosis = case.with_resistances(case.diagnose())
    if diagnosis.verdict == "good" and part is not whole:
        return diagnosis.model_copy(update={"verdict": "unfinished", "words": OTHERS_UNREAD})
    return diagnosis


class _Case:
    """One piece and its readings, by the places of its contacts."""

    def __init__(self, part: Part, test: LeadTest) -> None:
        self._part, self._test, self._bench = part, test, Bench(part)
        self._contacts = self._bench.contacts
        self._sound = self._bench.sound
        self._unjudged = across_components(part, self._contacts)
        self._states: dict[tuple[int, int], State] = {}
        places = {contact: place for place, contact in enumerate(self._contacts)}
        for reading in test.readings:
            p, q = sorted((places[reading.a], places[reading.b]))  # type: ignore[index]
            if self._is_judged(p, q):
                self._states[p, q] = reading.state

    def diagnose(self) -> Diagnosis:
        if "flickers" in self._states.values() and self._explains(self._sound):
            return self._moving()
        singles = list(self._bench.singles())
        left = [each for each in singles if self._explains(each.groups)]
        if self._explains(self._sound):
            return self._as_it_should([each for each in left if self._can_be_told(each.groups)])
        explanations = _merged(left, self._bench) or _merged(self._doubles(singles), self._bench)
        others = list(self._wired_as())
        if not explanations and not others:
            return Diagnosis(verdict="unexplained", words=TWO_AT_MOST, condition="faulty", unusual=self._unusual())
        return self._explained(explanations, others)

    def with_resistances(self, said: Diagnosis) -> Diagnosis:
        """The same, with what reads neither joined nor open: common practice, no source."""
        places = {contact: place for place, contact in enumerate(self._contacts)}
        for reading in self._test.readings:
            p, q = sorted((places[reading.a], places[reading.b]))  # type: ignore[index]
            if (
                reading.ohm is not None
                and MOST_OHM < reading.ohm < OPEN_OHM
                and self._is_joined(p, q)
                and self._is_judged(p, q)
            ):
                figure = engineering(reading.ohm, "ohm")
                words = f"{said.words} {_sentence(self._pair_words(p, q))[:-1]} reads {figure}: {RESISTIVE}"
                return said.model_copy(update={"words": words})
        return said

    def _explained(self, faulty: list[Hypothesis], others: list[tuple[Part, Groups]]) -> Diagnosis:
        """One explanation or several, with the reading that tells them apart."""
        faulty = sorted(faulty, key=lambda each: -each.weight)
        candidates = [(each.groups, each.weight) for each in faulty] + [(groups, OTHER_WEIGHT) for _, groups in others]
        total = sum(weight for _, weight in candidates)
        said = [
            Explanation(
                faults=each.faults,
                words=self._words(each.faults),
                condition="faulty",
                share=round(each.weight / total, 3),
            )
            for each in faulty
        ]
        for part, _ in others:
            share = round(OTHER_WEIGHT / total, 3)
            said.append(
                Explanation(
                    faults=(), wired_as=part.name, words=f"made as: {part.name}", condition="faulty", share=share
                )
            )
        next_reading = self._next(candidates) if len(said) > 1 else None
        verdict: Verdict = "several"
        if len(said) == 1:
            verdict, words = ("other" if others else "faulty"), _sentence(said[0].words)
        elif next_reading is not None:
            words = f"It can still be one of {len(said)}. Read next: {next_reading.words}."
        elif len(faulty) == 1:
            words = _sentence(f"{said[0].words}, or it is {said[1].words}. Open the plugs and look")
        else:
            words = SAME_READINGS
        shown = tuple(said[:MOST_EXPLANATIONS])
        return Diagnosis(
            verdict=verdict,
            words=words,
            condition="faulty",
            explanations=shown,
            next=next_reading,
            unusual=self._unusual(),
        )

    def _as_it_should(self, left: list[Hypothesis]) -> Diagnosis:
        """Nothing reads wrong: good once no single fault would read the same."""
        if self._test.lamp == "pass" and not self._states:
            return Diagnosis(verdict="good", words=PASSED, condition="good")
        if self._test.lamp == "fail":
            words = "The tester says fail" + (", and what was read is as it should be." if self._states else ".")
        elif not left:
            return Diagnosis(verdict="good", words="Every contact reads as it should.", condition="good")
        else:
            words = "As it should be so far."
        heaviest = max((each.weight for each in left), default=1.0)
        next_reading = self._next([*((each.groups, each.weight) for each in left), (self._sound, heaviest)])
        more = f" Read next: {next_reading.words}." if next_reading is not None else ""
        return Diagnosis(
            verdict="unfinished",
            words=words + more,
            condition="suspect" if self._test.lamp == "fail" else None,
            next=next_reading,
        )

    def _moving(self) -> Diagnosis:
        """What comes and goes: contacts that touch, or the conductors whose break opens such pairs and no other."""
        moving = {pair for pair, state in self._states.items() if state == "flickers"}
        apart = sorted(pair for pair in moving if not self._is_joined(*pair))
        broken = moving - set(apart)
        faults = [WiringFault(kind="short-flickers", a=self._contacts[p], b=self._contacts[q]) for p, q in apart[:1]]
        for each in self._bench.singles() if broken else ():
            opened = {(p, q) for p, q in self._states if self._is_joined(p, q) and each.groups[p] != each.groups[q]}
            if each.faults[0].kind == "open" and opened & broken and opened <= broken:
                faults.append(each.faults[0].model_copy(update={"kind": "flickers"}))
        first, last = self._part.connectors[0].label, self._part.connectors[-1].label
        where = {"near": f" at {first}", "far": f" at {last}", "middle": " in the middle of the lead"}
        words = (self._words(faults) or "a contact comes and goes") + where.get(self._test.moved_at or "", "")
        condition: Condition = "suspect" if faults else "faulty"
        said = (Explanation(faults=tuple(faults), words=words, condition=condition, share=1.0),)
        return Diagnosis(
            verdict="faulty",
            words=_sentence(words),
            condition=condition,
            explanations=said,
            unusual=self._unusual(),
        )

    def _doubles(self, singles: list[Hypothesis]) -> list[Hypothesis]:
        if len(singles) > MOST_DOUBLES:
            nets = {self._sound[place] for pair in self._odd() for place in pair}
            at = {contact for place, contact in enumerate(self._contacts) if self._sound[place] in nets}
            singles = [each for each in singles if {each.faults[0].a, each.faults[0].b} <= at]
        return [each for each in self._bench.doubles(singles[:MOST_DOUBLES]) if self._explains(each.groups)]

    def _wired_as(self) -> Iterator[tuple[Part, Groups]]:
        """Parts with the same plugs, made otherwise, of which everything would read so."""
        forms = [connector.form for connector in self._part.connectors]
        seen = {self._sound}
        for other in library().values():
            plugs = [connector.form for connector in other.connectors]
            if other.kind != self._part.kind or plugs != forms or other.elements:
                continue
            groups = groups_of(other, contacts_in(other))
            if groups not in seen and self._explains(groups):
                seen.add(groups)
                yield other, groups

    def _explains(self, groups: Groups) -> bool:
        """Whether every steady reading is as it would be."""
        return all(
            (groups[p] == groups[q]) == (state == "joined")
            for (p, q), state in self._states.items()
            if state != "flickers"
        )

    def _can_be_told(self, groups: Groups) -> bool:
        """Whether some pair that is judged would read otherwise than it should."""
        pairs = combinations(range(len(self._contacts)), 2)
        return any((groups[p] == groups[q]) != self._is_joined(p, q) for p, q in pairs if self._is_judged(p, q))

    def _next(self, candidates: list[tuple[Groups, float]]) -> NextReading | None:
        """The pair not read yet that divides the explanations most evenly; None where none does."""
        total = sum(weight for _, weight in candidates)
        best, best_gap = None, total - TINY
        for p, q in combinations(range(len(self._contacts)), 2):
            if (p, q) in self._states or not self._is_judged(p, q):
                continue
            joined = sum(weight for groups, weight in candidates if groups[p] == groups[q])
            if (gap := abs(2.0 * joined - total)) < best_gap - TINY:
                best, best_gap = (p, q), gap
        if best is None:
            return None
        a, b = (self._contacts[place] for place in best)
        return NextReading(a=a, b=b, words=self._pair_words(*best))

    def _is_judged(self, p: int, q: int) -> bool:
        return frozenset((self._contacts[p], self._contacts[q])) not in self._unjudged

    def _is_joined(self, p: int, q: int) -> bool:
        return self._sound[p] == self._sound[q]

    def _odd(self) -> list[tuple[int, int]]:
        """Pairs that read otherwise than they should."""
        return [
            (p, q)
            for (p, q), state in self._states.items()
            if state == "flickers" or (state == "joined") != self._is_joined(p, q)
        ]

    def _unusual(self) -> tuple[str, ...]:
        return tuple(f"{self._pair_words(p, q)}: {_UNUSUAL[self._states[p, q]]}" for p, q in self._odd())

    def _words(self, faults: Iterable[WiringFault]) -> str:
        return ", and ".join(fault_words(self._part, fault) for fault in faults)

    def _pair_words(self, p: int, q: int) -> str:
        a, b = self._contacts[p], self._contacts[q]
        plugs = plug_names(self._part)
        if a.connector == b.connector:
            return f"{contact_words(a)} to {contact_words(b)}, both at {plugs[a.connector]}"
        return f"{contact_words(a)} at {plugs[a.connector]} to {contact_words(b)} at {plugs[b.connector]}"


def plug_names(part: Part) -> dict[str, str]:
    """By connector: what is printed beside it, with a number where two are the same."""
    labels = [connector.label for connector in part.connectors]
    result: dict[str, str] = {}
    for place, connector in enumerate(part.connectors):
        nth = labels[: place + 1].count(connector.label)
        result[connector.id] = f"{connector.label} {nth}" if labels.count(connector.label) > 1 else connector.label
    return result


def _merged(explanations: list[Hypothesis], bench: Bench) -> list[Hypothesis]:
    """What is the same to a technician counts once: contacts exchanged at the one plug or at the other, a short at
    either end."""
    nets = dict(zip(bench.contacts, bench.sound, strict=True))

    def concerns(fault: WiringFault) -> object:
        ends = (fault.a, fault.b)
        return fault.kind, frozenset(ends if fault.kind == "open" else (nets[end] for end in ends))  # type: ignore[index]

    merged: dict[object, Hypothesis] = {}
    for each in explanations:
        merged.setdefault((frozenset(map(concerns, each.faults)), each.groups), each)
    return list(merged.values())


def _sentence(words: str) -> str:
    return f"{words[0].upper()}{words[1:]}."
