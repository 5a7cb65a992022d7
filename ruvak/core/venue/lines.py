"""Lines such as "circuit 2, 16 A, stage: outlets 5-8; strip stage left" and "outlet 5: 0.4 V against outlet 1"."""

import re

from ruvak.core.entry.words import expand_ranges, legible
from ruvak.core.errors import RigFault
from ruvak.core.rig.check_earth import HIGHER
from ruvak.core.rig.earth import EarthPoint, EarthVoltage, PointKind
from ruvak.core.rig.edits import Edit, apply
from ruvak.core.rig.rig import Rig
from ruvak.core.rig.values import Record
from ruvak.core.venue.draft import KIND_WORDS, KINDS, NAMED, Draft, Problem
from ruvak.core.venue.phrases import is_name, rephrase

MOST_LINES, MOST_LETTERS, MOST_LETTERS_OF_A_NAME = 200, 600, 120
MOST_BREAKER_A, MOST_RESIDUAL_A = 1000.0, 10.0

_FIGURE = r"(?P<number>\d+(?:[.,]\d+)?)\s*"
_BREAKER = re.compile(rf"^(?:(?:breaker|fuse|mcb)\s*)?{_FIGURE}(?:A|amps?)(?:\s*(?:breaker|fuse|mcb))?$", re.IGNORECASE)
_RESIDUAL = re.compile(rf"^(?:(?:rcd|gfci|rcbo|residual)\s*)?{_FIGURE}mA(?:\s*(?:rcd|gfci|rcbo))?$", re.IGNORECASE)
_OHM = re.compile(rf"^{_FIGURE}(?:ohms?|\N{{GREEK CAPITAL LETTER OMEGA}}|\N{{OHM SIGN}})$", re.IGNORECASE)
_VOLT = re.compile(
    rf"^(?:(?:reads|measured|is)\s+)?{_FIGURE}(?P<unit>m?V)(?:\s+(?:against|to|from)\s+(?P<against>.+))?$",
    re.IGNORECASE,
)
_ON = re.compile(r"\s+(?P<how>on|from|of|in|into|at|plugged into)\s+", re.IGNORECASE)
_PLACE_WORDS = ("of", "in", "at")
"""Words that may also say where something is: "board in the cellar"."""
_PREPOSITION = re.compile(r"(?:in|at|by|near|on|of|behind|under|over|beside|left|right)\b", re.IGNORECASE)
_COUNT = re.compile(r"^\s*(?:two|three|four|five|six|seven|eight|nine|ten|\d+\s*x?)\s*$", re.IGNORECASE)
_LETTERED = re.compile(r"\b([a-z])(\d{1,3})\s*(?:-|\N{EN DASH}|to)\s*([a-z])?(\d{1,3})\b", re.IGNORECASE)
_LETTERED_PLACE = re.compile(r"[a-z]\d{1,3}", re.IGNORECASE)
MOST_PLACES = 64
_PLACE = r"(?:\d{1,4}[a-z]?|[a-z]\d{1,3})"
_DECIMAL_COMMA = re.compile(r"\b(\d+),(\d+)(?=\s*(?:m?V|m?A|ohms?|amps?|\N{GREEK CAPITAL LETTER OMEGA})\b)")
_BEGINNING = re.compile(r"^\s*(?:(?:new|add|an?|the|there (?:is|are))\s+)+", re.IGNORECASE)
_WITHIN = re.compile(
    r"(?:\b(?:breaker|fuse|mcb|rcd|gfci|rcbo)\s*)?(?<![\w.,])\d+(?:[.,]\d+)?\s*(?:m?A|amps?|ohms?|m?V)\b"
    r"(?:\s*(?:breaker|fuse|mcb|rcd|gfci|rcbo)\b)?",
    re.IGNORECASE,
)
_BEHIND = re.compile(
    rf"(?:(?:reads|measured|is)\s+)?{_FIGURE}(?P<unit>m?V)\s+(?:against|to|from)\s+(?P<against>.+)$", re.IGNORECASE
)
_NEXT = re.compile(rf"\s*(?:,|\band\b)\s*(?=(?:{KINDS})s?\b)", re.IGNORECASE)
_REMOVE = re.compile(r"^\s*(?:remove|delete)\s+(?P<what>.+)$", re.IGNORECASE)
_RENAME = re.compile(r"^\s*rename\s+(?P<what>.+?)\s+(?:to|as)\s+(?P<name>.+)$", re.IGNORECASE)
_LIFTED = re.compile(
    r"\b(?:lift|cut|remove|open|break|disconnect)(?:s|ed|ing)?\s+(?:(?:the|its|an?|mains|protective|safety)\s+)*"
    r"(?:earth|ground)\b(?!\s+floor)",
    re.IGNORECASE,
)


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
    every = [line for line in legible_lines(text) if line.strip()]
    draft, lines = _read_each(rig, every[:MOST_LINES], False)
    try:
        _try(rig, draft)
    except RigFault:
        # Which line it was is found by trying each, which takes longer.
        draft, lines = _read_each(rig, every[:MOST_LINES], True)
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


def _read_each(rig: Rig, every: list[str], try_each: bool) -> tuple[Draft, list[VenueLine]]:
    """The lines one after the other; `try_each`: refuses one after which the venue could not be as it says."""
    draft, lines, now = Draft(rig), [], rig
    for line in every:
        before = dict(draft.points)
        try:
            said = _Line(draft).read(line)
            if try_each:
                now = _try(now, draft)
            lines.append(VenueLine(line=line.strip(), words="; ".join(said), problem=None))
        except (Problem, RigFault) as problem:
            draft.points = before
            words = problem.faults[0].sentence if isinstance(problem, RigFault) else str(problem)
            lines.append(VenueLine(line=line.strip(), words="", problem=words))
    return draft, lines


def _try(rig: Rig, draft: Draft) -> Rig:
    """The rig with the draft's points. Raises RigFault for what a venue cannot be: a voltage that no earths have."""
    step = Draft(rig)
    step.points = draft.points
    ops = tuple(step.ops())
    return apply(rig, Edit(label="lines", ops=ops)) if ops else rig


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
        line = rephrase(line)
        if _LIFTED.search(line):
            raise Problem("A protective earth is never opened here; break the loop in the signal lead instead.")
        if match := _REMOVE.match(line):
            return [self._remove(name) for name in self._several(match["what"])]
        if match := _RENAME.match(line):
            return [self._rename(match["what"], match["name"].strip())]
        said: list[str] = []
        for clause in _with_points(line).split(";"):
            head, colon, rest = clause.partition(":")
            if colon and _is_figure(rest.strip()):
                said.append(self._set_and_say(self._draft.require(head), rest.strip()))
                continue
            if head.strip():
                said += self._things(head)
            for item in _items(rest):
                said += self._things(item)
        if not said:
            raise Problem("Say what is there, such as “circuit 2, 16 A, stage: outlets 5-8; strip stage left”.")
        return said

    def _several(self, words: str) -> list[str]:
        """What "outlets 5-8" or a single name stand for."""
        return self._names(words, []) if NAMED.match(words) else [words]

    def _remove(self, name: str) -> str:
        gone = self._draft.require(name)
        self._draft.remove(gone)
        return f"{gone.name} removed"

    def _rename(self, what: str, name: str) -> str:
        if not name or len(name) > MOST_LETTERS_OF_A_NAME:
            raise Problem(f"A name has 1 to {MOST_LETTERS_OF_A_NAME} letters.")
        point = self._draft.require(what)
        self._draft.change(point, name=_capital(name))
        return f"{point.name} renamed to {_capital(name)}"

    def _set_and_say(self, point: EarthPoint, figure: str) -> str:
        """What a meter or a label said: "outlet 5: 0.4 V against outlet 1", "circuit 2: 16 A"."""
        words = self._set(point, figure)
        return f"{point.name}{' ' if words.startswith('reads') else ', '}{words}"

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
        clause = _BEGINNING.sub("", clause.replace('"', ""))
        if several := _of_one_kind(clause):
            *before, last = several
            left, parent = self._without_parent(last)
            on = f" on {parent.name}" if parent is not None else ""
            return [said for part in (*before, left) for said in self._things(f"{part}{on}")]
        first, *more = [part.strip() for part in clause.split(",") if part.strip()] or [""]
        figures: list[str] = []
        words: list[str] = []
        for part in more:
            (figures if _is_figure(part) else words).append(part)
        first, figure = _figures_within(first)
        figures += figure
        if NAMED.match(first) is None and (known := self._draft.find(first)) is not None:
            # What is there already may be called by its name alone.
            first = known.name
        first, parent = self._without_parent(first)
        if parent is None and words:
            words[-1:], parent = self._behind_a_comma(words[-1])
        return [self._point(name, figures, parent) for name in self._names(first, words)]

    def _without_parent(self, words: str) -> tuple[str, EarthPoint | None]:
        """What is named before "on circuit 2", and that; a place behind such a word that is no point stays in the name:
        "board in the cellar"."""
        for match in _ON.finditer(words):
            there = words[match.end() :]
            named = match["how"].lower() != "of" or NAMED.match(there)
            parent = self._draft.find(there) if named else None
            if parent is not None and match.start() > 0:
                return words[: match.start()], parent
            is_place = match["how"].lower() in _PLACE_WORDS and not NAMED.match(there)
            if parent is None and not is_place:
                self._draft.require(there)
        return words, None

    def _behind_a_comma(self, words: str) -> tuple[list[str], EarthPoint | None]:
        """The same of the last words: "14 and 15 on circuit 4", "from main board", or "circuit 6" alone."""
        left, parent = self._without_parent(f"it {words}")
        left = left.removeprefix("it")
        if parent is not None:
            return [left.strip()] if left.strip() else [], parent
        if NAMED.match(words) and (parent := self._draft.find(words)) is not None:
            return [], parent
        return [words], None

    def _names(self, first: str, words: list[str]) -> list[str]:
        """ "outlets 5-8" and further numbers as four names; anything else as one, with its words behind a comma."""
        match = _named(first)
        kind = KIND_WORDS[match["kind"].lower()]
        if _COUNT.match(match["before"]):
            raise Problem(f"Say which: “{kind}s 5-7”, or a name for each; a number alone tells nobody which is meant.")
        if kind == "outlet" and not match["before"].strip():
            places = _places(", ".join([match["after"], *words]))
            if places:
                return [f"outlet {place}" for place in places]
        return [", ".join([first, *words])]

    def _point(self, name: str, figures: list[str], parent: EarthPoint | None) -> str:
        """One point, found or added, with its figures set."""
        match = _named(name)
        if len(name) > MOST_LETTERS_OF_A_NAME:
            raise Problem(f"A name has at most {MOST_LETTERS_OF_A_NAME} letters; “{name[:40]}…” has more.")
        if not is_name(name):
            sayings = "“outlet 5: 0.4 V against outlet 1”, “rename … to …”, “remove …”"
            raise Problem(f"“{name}” is no name of a place. Say {sayings}.")
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
        figures_said = "".join(f"{' ' if words.startswith('reads') else ', '}{words}" for words in said)
        return f"{point.name}{hung}{figures_said}"

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


def _figures_within(words: str) -> tuple[str, list[str]]:
    """ "circuit 3 20 A 30 mA gallery" as "circuit 3 gallery" and its figures; a measurement with what it is against."""
    if match := _BEHIND.search(words):
        return words[: match.start()].strip(), [match[0].strip()]
    figures = [figure for figure in _WITHIN.findall(words) if _is_figure(figure.strip())]
    left = " ".join(_WITHIN.sub(" ", words).split()) if figures else words
    return left, [figure.strip() for figure in figures]


def _of_one_kind(clause: str) -> list[str]:
    """ "strip 5, strip 6 and strip 7" as three; nothing where there is one thing alone, or one that another is on."""
    parts = [part for part in _NEXT.split(clause) if part.strip()]
    kinds = {KIND_WORDS[match["kind"].lower()] for part in parts if (match := NAMED.match(part))}
    return parts if len(parts) > 1 and len(kinds) == 1 and all(NAMED.match(part) for part in parts) else []


def _in_order(match: re.Match[str]) -> str:
    """A name as people write it: "strip stage left" as "stage left strip", "circuit 2, stage" as it is."""
    before, kind, after = match["before"].strip(), match["kind"], match["after"].strip()
    kind = kind if kind.isupper() else kind.lower()
    printed = re.match(rf"(?:{_PLACE}|[a-z])\b|[,(-]", after, re.IGNORECASE)
    if before or not after or printed or _PREPOSITION.match(after):
        return f"{before} {kind}{after if after.startswith(',') else ' ' + after}".strip()
    return f"{after} {kind}"


def _places(text: str) -> list[str]:
    """Numbers of outlets as printed: "5-8", "A2-A4", "40/41"; none where anything else stands there."""
    text = _LETTERED.sub(lambda match: " ".join(_lettered(match)), text)
    places = [place.upper() if place[0].isalpha() else place for place in re.split(r"[\s,/&+]+", text) if place]
    if any(_LETTERED_PLACE.fullmatch(place) for place in places):
        return list(dict.fromkeys(places)) if all(re.fullmatch(_PLACE, p, re.IGNORECASE) for p in places) else []
    numbers = expand_ranges(text).split()
    return list(dict.fromkeys(numbers)) if all(re.fullmatch(r"\d{1,4}[a-z]?", number) for number in numbers) else []


def _lettered(match: re.Match[str]) -> list[str]:
    letter, first, last = match[1], int(match[2]), int(match[4])
    if (match[3] and match[3].lower() != letter.lower()) or not 0 < last - first < MOST_PLACES:
        raise Problem(f"“{match[0]}” is no range; write it as A2-A4.")
    return [f"{letter}{number}" for number in range(first, last + 1)]


def _capital(name: str) -> str:
    return name[:1].upper() + name[1:]


def _float(match: re.Match[str]) -> float:
    return float(match["number"].replace(",", "."))


def _within(value: float, most: float, typed: str) -> float:
    if not 0.0 < value <= most:
        raise Problem(f"“{typed}” cannot be; look at what is printed there once more.")
    return value
