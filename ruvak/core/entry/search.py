"""Solves a few candidates for a run and chooses: the computed result first, then practice, then what is simplest."""

from collections import Counter
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from itertools import filterfalse

from ruvak.core.entry.solve_runs import SubRigResult
from ruvak.core.entry.wirings import Wiring, Wirings
from ruvak.core.judge.finding import SEVERITY, Finding, Grade
from ruvak.core.pieces.alike import contacts_joined
from ruvak.core.pieces.cures import cures, ids_of, pad_loss_db
from ruvak.core.pieces.pool import Pool

MOST_SOLVED = 4
"""How many wirings of one run are solved: to choose one, and to offer another beside it."""
SIMPLEST_SOLVED = 2
"""How many of these before what they leave wrong is looked at, and made good by one with a cure; of a line that names
its pieces no more are solved, and as many without them."""
TURNED_DOWN_DB = 6.0
"""What is less too loud than this is turned down and gets no pad: common practice."""


@dataclass(frozen=True)
class Tried:
    """A candidate solved; the smallest rank is the best."""

    wiring: Wiring
    solved: SubRigResult
    grade: Grade
    """Its worst, little headroom aside."""
    rank: tuple[float, ...]


def search(wirings: Wirings, solve: Callable[[Wiring], SubRigResult], most: int = MOST_SOLVED) -> list[Tried]:
    """What was solved, best first; none where nothing leads from one end to the other.

    The simplest first; then with what is made against what the best of these leaves wrong, for there are too many
    longer wirings to come upon that by chance; then the next simplest. Where the line names its pieces, what was typed
    is planned: what would do better is for the remedies to say.
    """
    simplest = wirings.simplest()
    if wirings.wanted.named or wirings.wanted.comes_back:
        result = _Search(wirings, solve, SIMPLEST_SOLVED)
        result.go_on(simplest, 1)
        result.go_on(filter(result.needs_its_boxes, simplest), SIMPLEST_SOLVED - 1)
    else:
        # Of what is named behind a comma the rest is chosen here; the last is left for the same without it.
        most = min(most, MOST_SOLVED - 1) if wirings.wanted.names_pieces else most
        result = _Search(wirings, solve, most)
        result.go_on(simplest, max(1, most // 2))
        has_boxes = all(map(result.has_boxes, (tried.wiring for tried in result.tried)))
        if has_boxes and len(result.tried) + 1 < most:
            # What practice puts a box into may be better without any.
            result.go_on(filterfalse(result.has_boxes, simplest), 1)
        result.go_on(result.find_cures(), 1)
        result.go_on(result.find_cures(), 1)
        result.go_on(filter(result.needs_its_boxes, simplest), most)
    return sorted(result.tried, key=lambda tried: tried.rank)


class _Search:
    def __init__(self, wirings: Wirings, solve: Callable[[Wiring], SubRigResult], most: int) -> None:
        self._wirings, self._solve, self._most = wirings, solve, most
        self.tried: list[Tried] = []
        self._keys: set[object] = set()
        self._wrong: list[Finding] = []
        self._needed: set[str] = set()
        """Parts that are made against what is wrong."""
        self._cured = 0
        """Of how many of the tried it is known what they leave wrong."""

    def go_on(self, candidates: Iterator[Wiring], most: int) -> None:
        """Solves so many more, until one is clear: what follows is less simple and cannot rank before it."""
        last = min(len(self.tried) + most, self._most)
        while len(self.tried) < last and not any(tried.grade is Grade.CLEAR for tried in self.tried):
            wiring = next(candidates, None)
            if wiring is None:
                return
            if not self._is_known(wiring):
                self.tried.append(_rate(wiring, self._solve(wiring)))

    def find_cures(self) -> Iterator[Wiring]:
        """Candidates with what is made against what the best of the newest leaves wrong."""
        # Where the cures looked for before led to nothing, what else is wrong is looked at too.
        in_vain = self._cured == len(self.tried)
        newest = self.tried[self._cured :] or self.tried
        self._cured = len(self.tried)
        if not newest:
            return
        findings = min(newest, key=lambda tried: tried.rank).solved.findings
        self._wrong += list(filter(_is_curable, findings)) if in_vain else _to_cure_first(findings)
        parts = self._wirings.pool.parts
        needed = ids_of(cures(finding.code.cure for finding in self._wrong), parts.values())
        needed = tuple(_pads_that_do(self._wirings.pool, ids, self._wrong) for ids in needed)
        wide = any(finding.code.is_too_loud for finding in self._wrong)
        self._needed.update(*needed)
        if needed:
            yield from self._wirings.with_cures(needed, wide)
        if len(needed) > 1:
            # Nothing has all of it: what is made against each by itself.
            for each in needed:
                yield from self._wirings.with_cures((each,), wide)

    def has_boxes(self, wiring: Wiring) -> bool:
        """Whether anything on the way is more than contacts and wire."""
        return any(self._wirings.pool.parts[part].elements for part in wiring.parts)

    def needs_its_boxes(self, wiring: Wiring) -> bool:
        """Whether what is more than contacts and wire (an isolator, a screen lift) is made against what is wrong, or is
        in what has been solved."""
        parts = self._wirings.pool.parts
        known = self._needed.union(*(tried.wiring.parts for tried in self.tried))
        return all(part in known or not parts[part].elements for part in wiring.parts)

    def _is_known(self, wiring: Wiring) -> bool:
        """Whether one that joins the same contacts has been solved, or one that only hums and had all but a few leads
        and adapters of it: they would not quieten it."""
        parts = self._wirings.pool.parts
        joined = tuple(filter(None, (contacts_joined(parts[part]) for part in wiring.parts)))
        key = (wiring.sources, wiring.goals, joined)
        if key in self._keys or any(self._is_only_longer(tried, wiring) for tried in self.tried):
            return True
        self._keys.add(key)
        return False

    def _is_only_longer(self, tried: Tried, wiring: Wiring) -> bool:
        before, pieces = Counter(tried.wiring.parts), Counter(wiring.parts)
        more = pieces - before
        boxes = any(self._wirings.pool.parts[part].kind == "box" for part in more)
        return before <= pieces and not boxes and _only_hums(tried.solved.findings)


def _rate(wiring: Wiring, solved: SubRigResult) -> Tried:
    # Little headroom is no reason for another wiring: whoever mixes turns it down.
    grades = [finding.grade for finding in solved.findings if not finding.code.says_nothing_of_wiring]
    grade = min(grades, key=lambda each: SEVERITY[each], default=Grade.CLEAR)
    return Tried(wiring, solved, grade, (-SEVERITY[grade], grades.count(grade), *wiring.cost))


def _to_cure_first(findings: tuple[Finding, ...]) -> list[Finding]:
    """What has a cure; a pad only where nothing else is wrong, since another wiring may be less loud, and where it is
    more than somebody would turn down."""
    curable = list(filter(_is_curable, findings))
    return [finding for finding in curable if not finding.code.is_too_loud] or curable


def _is_curable(finding: Finding) -> bool:
    turned_down = finding.code.is_too_loud and _over_db(finding) < TURNED_DOWN_DB
    return finding.code.cure is not None and not turned_down


def _over_db(finding: Finding) -> float:
    return float(finding.params.get("over_db", 0.0))


def _pads_that_do(pool: Pool, ids: tuple[str, ...], findings: list[Finding]) -> tuple[str, ...]:
    """Of pads those that take as much as is too much; of other parts, or where none takes as much, all."""
    over_db = max((_over_db(finding) for finding in findings if finding.code.is_too_loud), default=0.0)
    enough = tuple(entry for entry in ids if pad_loss_db(pool.parts[entry]) >= over_db)
    return enough if enough and all(pad_loss_db(pool.parts[entry]) > 0.0 for entry in ids) else ids


def _only_hums(findings: tuple[Finding, ...]) -> bool:
    """Whether hum is the one thing that has to be mended."""
    return any(finding.code.is_hum for finding in findings) and all(
        finding.code.is_hum or finding.grade is Grade.WATCH for finding in findings
    )
