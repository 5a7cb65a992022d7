"""Lines such as "circuit 2, 16 A, stage: outlets 5-8; strip stage left" and "outlet 5: 0.4 V against outlet 1"."""

import re

from ruvak.core.entry.words import expand_ranges, legible
from ruvak.core.rig.check_earth import HIGHER
from ruvak.core.rig.earth import EarthPoint, EarthVoltage, PointKind
from ruvak.core.rig.edits import Edit
from ruvak.core.rig.rig import Rig
from ruvak.core.rig.values import Record
from ruvak.core.venue.draft import KIND_WORDS, NAMED, Draft, Problem

MOST_LINES, MOST_LETTERS = 200, 600
MOST_BREAKER_A, MOST_RESIDUAL_A = 1000.0, 10.0

_FIGURE = r"(?P<number>\d+(?:[.,]\d+)?)\s*"
_BREAKER = re.compile(rf"^(?:(?:breaker|fuse|mcb)\s*)?{_FIGURE}(?:A|amps?)(?:\s*(?:breaker|fuse|mcb))?$", re.IGNORECASE)
_RESIDUAL = re.compile(rf"^(?:(?:rcd|gfci|rcbo|residual)\s*)?{_FIGURE}mA(?:\s*(?:rcd|gfci|rcbo))?$", re.IGNORECASE)
_OHM = re.compile(rf"^{_FIGURE}(?:ohms?|\N{{GREEK CAPITAL LETTER OMEGA}}|\N{{OHM SIGN}})$", re.IGNORECASE)
_VOLT = re.compile(
    rf"^(?:(?:reads|measured|is)\s+)?{_FIGURE}(?P<unit>m?V)(?:\s+(?:against|to|from)\s+(?P<against>.+))?$",
    re.IGNORECASE,
)
_ON = re.compile(r"\s+(?:on|from|of|in|into|at|plugged into)\s+(?P<parent>.+)$", re.IGNORECASE)
_DECIMAL_COMMA = re.compile(r"\b(\d+),(\d+)(?=\s*(?:m?V|m?A|ohms?|amps?|\N{GREEK CAPITAL LETTER OMEGA})\b)")
_REMOVE = re.compile(r"^\s*(?:remove|delete)\s+(?P<what>.+)$", re.IGNORECASE)
_RENAME = re.compile(r"^\s*rename\s+(?P<what>.+?)\s+(?:to|as)\s+(?P<name>.+)$", re.IGNORECASE)
_LIFTED = re.compile(r"\b(?:lift|cut|remove|open|break|disconnect)\w*\b.*\b(?:earth|ground)\b", re.IGNORECASE)


class VenueLine(Record):
    """One line as understood, or what is wrong with it and how to mend it."""

    line: str
    """The line as it was typed."""
    words: str
    """What it was understood to mean; empty where it was not."""
    problem: str | None
    """Why it was not understood; null where it was."""


class VenueReading(Record):
    """All lines, and one edit for everything that was understood."""

    lines: tuple[VenueLine, ...]
    """Each line as it was understood."""
    edit: Edit | None
    """The change that makes it so; null where no line was understood, or all of it stands there already."""


def read_venue(rig: Rig, text: str) -> VenueReading:
    """Every line that is not empty, in order; a later one may name what an earlier one adds."""
    draft, lines = Draft(rig), []
    every = [line for line in legible_lines(text) if line.strip()]
    for line in every[:MOST_LINES]:
        before = dict(draft.points)
        try:
            said = _Line(draft).read(line)
            lines.append(VenueLine(line=line.strip(), words="; ".join(said), problem=None))
        except Problem as problem:
            draft.points = before
            lines.append(VenueLine(line=line.strip(), words="", problem=str(problem)))
    if len(every) > MOST_LINES:
        more = f"{len(every) - MOST_LINES} more lines, from this one on, were not read"
        said_ = f"{more}: {MOST_LINES} at once are the most. Add these and then the rest."
        lines.append(VenueLine(line=every[MOST_LINES].strip(), words="", problem=said_))
    ops = tuple(draft.ops())
    understood = [line.words for line in lines if line.problem is None]
    if not ops:
        return VenueReading(lines=tuple(lines), edit=None)
    label = f"Venue: {understood[0]}" if len(understood) == 1 else f"Venue: {len(understood)} lines"
    return VenueReading(lines=tuple(lines), edit=Edit(label=label[:120], ops=ops))


def legible_lines(text: str) -> list[str]:
    """The lines, each in letters that can be read."""
    return [legible(line) for line in re.split(r"[\r\n]+", text)]


class _Line:
    """Reads one line; what its first clause is about, the clauses behind a semicolon or colon hang on."""

    def __init__(self, draft: Draft) -> None:
        self._draft = draft
        self._head: EarthPoint | None = None

    def read(self, line: str) -> list[str]:
        if len(line) > MOST_LETTERS:
            raise Problem(f"This line is longer than {MOST_LETTERS} letters; part it into several.")
        if _LIFTED.search(line):
            raise Problem("A protective earth is never opened here; break the loop in the signal lead instead.")
        if match := _REMOVE.match(line):
            gone = self._draft.require(match["what"])
            self._draft.remove(gone)
            return [f"{gone.name} removed"]
        if match := _RENAME.match(line):
            return [self._rename(match["what"], match["name"].strip())]
        said: list[str] = []
        for clause in _with_points(line).split(";"):
            head, colon, rest = clause.partition(":")
            if colon and (said_of := self._measured(head, rest)):
                said.append(said_of)
                continue
            if head.strip():
                said += self._things(head)
            for item in _items(rest):
                said += self._things(item)
        if not said:
            raise Problem("Say what is there, such as “circuit 2, 16 A, stage: outlets 5-8; strip stage left”.")
        return said

    def _rename(self, what: str, name: str) -> str:
        if not name or len(name) > 120:
            raise Problem("A name has 1 to 120 letters.")
        point = self._draft.require(what)
        self._draft.change(point, name=_capital(name))
        return f"{point.name} renamed to {_capital(name)}"

    def _measured(self, head: str, rest: str) -> str | None:
        """What a meter showed at an outlet: "outlet 5: 0.4 V against outlet 1"."""
        match = _VOLT.match(rest.strip())
        if match is None:
            return None
        return self._measure(self._draft.require(head), match)

    def _measure(self, point: EarthPoint, match: re.Match[str]) -> str:
        volts = _float(match) * (0.001 if match["unit"].lower() == "mv" else 1.0)
        against = self._draft.require(match["against"]) if match["against"] else None
        voltage = EarthVoltage(reading_v=volts, against=against.id if against else None)
        if against is not None and against.id == point.id:
            raise Problem(f"{point.name} cannot be measured against itself.")
        self._draft.change(point, voltage=voltage)
        return f"{point.name} reads {volts:g} V against {against.name if against else 'the main bar'}"

    def _things(self, clause: str) -> list[str]:
        """Points of one kind with what is said of them, separated by commas: "circuit 2, 16 A, stage"."""
        first, *more = [part.strip() for part in clause.split(",") if part.strip()] or [""]
        figures: list[str] = []
        words: list[str] = []
        for part in more:
            (figures if _is_figure(part) else words).append(part)
        first, figure = _figure_behind(first)
        figures += figure
        parent: EarthPoint | None = None
        if match := _ON.search(first):
            parent, first = self._draft.require(match["parent"]), first[: match.start()]
        elif words and (match := _ON.search(f" {words[-1]}")):
            parent = self._draft.require(match["parent"])
            words[-1:] = [left] if (left := words[-1][: max(0, match.start() - 1)].strip()) else []
        return [self._point(name, figures, parent) for name in self._names(first, words)]

    def _names(self, first: str, words: list[str]) -> list[str]:
        """ "outlets 5-8" and further numbers as four names; anything else as one, with its words behind a comma."""
        match = _named(first)
        kind = KIND_WORDS[match["kind"].lower()]
        if kind == "outlet" and not match["before"].strip():
            numbers = expand_ranges(", ".join([match["after"], *words])).split()
            if numbers and all(re.fullmatch(r"\d{1,4}[a-z]?", number) for number in numbers):
                return [f"outlet {number}" for number in dict.fromkeys(numbers)]
        return [", ".join([first, *words])]

    def _point(self, name: str, figures: list[str], parent: EarthPoint | None) -> str:
        """One point, found or added, with its figures set."""
        match = _named(name)
        kind = KIND_WORDS[match["kind"].lower()]
        point = self._draft.find(name) or self._draft.find(name.partition(",")[0])
        plugged = parent
        parent = self._draft.above(parent, kind) if parent is not None else None
        on = parent or (self._head if self._head is not None and self._hangs(kind) else None)
        new = point is None
        if point is None:
            above = on.id if on else (self._draft.only_board() if kind in ("circuit", "strip", "outlet") else None)
            point = self._draft.add(_capital(_in_order(match)), kind, above)
        elif on is not None and on.id != point.id:
            point = self._draft.change(point, parent=on.id)
        said = [self._set(point, figure) for figure in figures]
        if self._head is None or not self._hangs(kind):
            self._head = self._draft.points[point.id]
        where = self._draft.points.get(self._draft.points[point.id].parent or "")
        hung = f" on {where.name}" if where is not None and (new or on is not None) else ""
        if plugged is not None and plugged is not parent:
            hung += f", by {plugged.name}"
        return f"{point.name}{hung}{''.join(f', {words}' for words in said)}"

    def _hangs(self, kind: PointKind) -> bool:
        """Whether something of this kind can hang on what the line began with."""
        return self._head is not None and HIGHER.index(kind) < HIGHER.index(self._head.kind)

    def _set(self, point: EarthPoint, figure: str) -> str:
        point = self._draft.points[point.id]
        if match := _RESIDUAL.match(figure):
            ampere = _within(_float(match) / 1000.0, MOST_RESIDUAL_A, figure)
            self._draft.change(point, residual_a=ampere)
            return f"{1000 * ampere:g} mA residual-current device"
        if match := _BREAKER.match(figure):
            ampere = _within(_float(match), MOST_BREAKER_A, figure)
            self._draft.change(point, breaker_a=ampere)
            return f"{ampere:g} A"
        if match := _OHM.match(figure):
            self._draft.change(point, ohm=_float(match))
            return f"{_float(match):g} Ω of earth conductor"
        if match := _VOLT.match(figure):
            return self._measure(point, match).removeprefix(f"{point.name} ")
        raise Problem(f"“{figure}” is no rating, resistance or voltage.")


def _named(words: str) -> re.Match[str]:
    """Words that say a kind of point. Raises Problem."""
    match = NAMED.match(words)
    if match is None:
        raise Problem(f"“{words}” is no board, circuit, strip or outlet; begin with one of these words.")
    return match


def _with_points(line: str) -> str:
    """Figures with a decimal point for a comma: "0,2 V"; in "circuit 3,30 mA" it parts a number from a figure."""

    def figure(match: re.Match[str]) -> str:
        numbered = NAMED.match(line[: match.start()].split(";")[-1])
        return match[0] if numbered and not numbered["after"].strip(" ") else f"{match[1]}.{match[2]}"

    return _DECIMAL_COMMA.sub(figure, line)


def _items(rest: str) -> list[str]:
    """What follows a colon: things parted by commas, where a bare number belongs to the thing before it."""
    result: list[str] = []
    for part in rest.split(","):
        if result and not NAMED.match(part):
            result[-1] += f",{part}"
        elif part.strip():
            result.append(part)
    return result


def _is_figure(part: str) -> bool:
    return any(pattern.match(part) for pattern in (_BREAKER, _RESIDUAL, _OHM, _VOLT))


def _figure_behind(first: str) -> tuple[str, list[str]]:
    """ "circuit 2 16 A" as "circuit 2" and its figure: the longest end that is one."""
    words = first.split()
    for at in range(1, len(words)):
        if _is_figure(" ".join(words[at:])):
            return " ".join(words[:at]), [" ".join(words[at:])]
    return first, []


def _in_order(match: re.Match[str]) -> str:
    """A name as people write it: "strip stage left" as "stage left strip", "circuit 2, stage" as it is."""
    before, kind, after = match["before"].strip(), match["kind"].lower(), match["after"].strip()
    if before or not after or re.match(r"^\d", after) or after.startswith(","):
        return f"{before} {kind}{after if after.startswith(',') else ' ' + after}".strip()
    return f"{after} {kind}"


def _capital(name: str) -> str:
    return name[:1].upper() + name[1:]


def _float(match: re.Match[str]) -> float:
    return float(match["number"].replace(",", "."))


def _within(value: float, most: float, typed: str) -> float:
    if not 0.0 < value <= most:
        raise Problem(f"“{typed}” cannot be; look at what is printed there once more.")
    return value
