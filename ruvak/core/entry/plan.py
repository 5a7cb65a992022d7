"""From a taken-apart line to the runs it wants: which devices, which sockets, through what, how far."""

from dataclasses import dataclass, replace

from ruvak.core.entry.grammar import Piece, Sentence, parsed
from ruvak.core.entry.line_ends import (
    End,
    Side,
    end_of,
    has_one_place,
    is_stereo,
    main_output,
    needs_both,
    one_each,
    speaks,
    split_up,
    takes_stereo,
)
from ruvak.core.entry.names import Directory, Meaning
from ruvak.core.entry.reading import ProblemCode, ReadProblem
from ruvak.core.entry.sockets import Role, sockets, usable
from ruvak.core.entry.words import expanded, plain
from ruvak.core.rig.part import Part
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import MAX_LENGTH_M, MIN_LENGTH_M, KitItem, Rig
from ruvak.core.units import METRES_PER_FOOT

PHANTOM = {"phantom", "48v", "+48v", "48 v", "+48 v", "p48", "+48"}
MONO = {"mono"}
MOST_RUNS = 64
FEW = 4
"""So many sockets are named one by one."""


class Refused(Exception):
    """A line that cannot be a run; carries what to tell."""

    def __init__(self, problem: ReadProblem) -> None:
        self.problem = problem
        super().__init__(problem.sentence)


@dataclass(frozen=True)
class Through:
    """What is built in and passed: one entry a line."""

    item: KitItem
    entries: tuple[Endpoint, ...]


@dataclass(frozen=True)
class Wanted:
    """One run the line asks for. `extra`: a second source device on the same run."""

    sources: tuple[End, ...]
    through: tuple[Through, ...]
    goal: End | None
    parts: tuple[tuple[str, ...], ...]
    """For each thing named on the way, the parts it may be."""
    items: tuple[str, ...]
    """Kit named by tag."""
    length_m: float | None
    options: tuple[str, ...]


def problem(code: ProblemCode, piece: Piece, sentence: str, suggestions: tuple[str, ...] = ()) -> Refused:
    """A refusal about one piece of the line."""
    end = piece.start + max(1, len(piece.text))
    return Refused(ReadProblem(code=code, start=piece.start, end=end, sentence=sentence, suggestions=suggestions))


class Planner:
    """Reads lines against one rig. Raises Refused."""

    def __init__(self, rig: Rig) -> None:
        self.rig = rig
        self.directory = Directory(rig)
        self.corrections: list[str] = []

    def plan(self, line: str) -> tuple[Sentence, tuple[Wanted, ...]]:
        """The runs a line asks for."""
        self.corrections = []
        sentence = parsed(line, METRES_PER_FOOT if self.rig.length_unit == "ft" else 1.0)
        whole = Piece(line.strip(), len(line) - len(line.lstrip()))
        if sentence.arrows == 0:
            raise problem("no_arrow", whole, "Say where it goes: write > and the destination, as in “keys > desk 7/8”.")
        first, *middle, last = sentence.pieces
        if not first.text:
            raise problem("no_source", whole, "Nothing stands before the arrow: write where the sound comes from.")
        if plain(first.text) == plain(last.text):
            raise problem("no_destination", last, "Source and destination are the same; write where it goes.")
        if not last.text:
            raise problem("no_destination", whole, "Nothing stands after the arrow: write where the sound goes.")
        length_m = self._length(sentence, whole)
        parts, items, options = self._extras(sentence)
        passed: list[tuple[KitItem, Piece]] = []
        for piece in middle:
            self._way(piece, passed, parts, items)
        built_in = self._built_in_name(last)
        sources = [self._source(piece, parts) for piece in _added(first)]
        goal = None if built_in else self._side(last, "goal")
        if built_in:
            passed.append((built_in, last))
        runs = self._runs(sources, passed, goal, "mono" in options or any(s.mono for _, _, s in sources[0].devices))
        made = tuple(
            replace(run, parts=(*run.parts, *parts), items=tuple(items), length_m=length_m, options=options)
            for run in runs
        )
        return sentence, made

    def _length(self, sentence: Sentence, whole: Piece) -> float | None:
        if sentence.length is None and sentence.bare_m is None:
            return None
        metres = sentence.length.metres if sentence.length else sentence.bare_m
        assert metres is not None
        if not MIN_LENGTH_M <= metres <= MAX_LENGTH_M:
            sentence_ = f"A length is {MIN_LENGTH_M:g} to {MAX_LENGTH_M:g} m; {metres:g} m is not."
            raise problem("bad_length", whole, sentence_)
        return round(metres, 6)

    def _extras(self, sentence: Sentence) -> tuple[list[tuple[str, ...]], list[str], tuple[str, ...]]:
        parts: list[tuple[str, ...]] = []
        items: list[str] = []
        options: list[str] = []
        for extra in sentence.extras:
            word = plain(extra.text).removeprefix("with ").removeprefix("via ").removeprefix("and ")
            if word in PHANTOM:
                options.append("phantom")
            elif word in MONO:
                options.append("mono")
            elif not self._thing(word, parts, items):
                sentence_ = f"“{extra.text}” is neither a length, an option (phantom, mono) nor a lead, adapter or box."
                raise problem("unknown_option", extra, sentence_)
        return parts, items, tuple(dict.fromkeys(options))

    def _thing(self, text: str, parts: list[tuple[str, ...]], items: list[str]) -> bool:
        """A lead, adapter or box named on the way: a tagged one, or any of a kind."""
        tagged = self.directory.by_tag.get(plain(text))
        if tagged is not None and not tagged.installed:
            items.append(tagged.id)
            return True
        result = self.directory.parts_called(text)
        if result:
            parts.append(_ids(result))
        return bool(result)

    def _built_in_name(self, piece: Piece) -> KitItem | None:
        words = plain(expanded(plain(piece.text))).split()
        for count in range(len(words), 0, -1):
            name = " ".join(words[:count])
            if name in self.directory.by_name:
                return None
            for wanted in (name, name.replace(" ", "")):
                known = self.directory.built_in
                squeezed = {entry.replace(" ", ""): item for entry, item in known.items()}
                if wanted in known or wanted in squeezed:
                    return known.get(wanted) or squeezed[wanted]
        return None

    def _way(
        self, piece: Piece, passed: list[tuple[KitItem, Piece]], parts: list[tuple[str, ...]], items: list[str]
    ) -> None:
        item = self._built_in_name(piece)
        if item is not None:
            passed.append((item, piece))
        elif not self._thing(plain(piece.text), parts, items):
            sentence = f"“{piece.text}” is neither built in here nor a lead, adapter or box."
            raise problem("unknown_way", piece, sentence)

    def _source(self, piece: Piece, parts: list[tuple[str, ...]]) -> Side:
        """Where the sound starts; in "guitar DI" the last words name the box it goes through."""
        try:
            return self._side(piece, "source")
        except Refused:
            words = piece.text.split()
            for first in range(max(1, len(words) - 2), len(words)):
                boxes = [entry for entry in self.directory.parts_called(" ".join(words[first:])) if entry.kind == "box"]
                if boxes:
                    side = self._side(Piece(" ".join(words[:first]), piece.start), "source")
                    parts.append(tuple(box.id for box in boxes))
                    return side
            raise

    def _side(self, piece: Piece, role: Role) -> Side:
        """One end of the line: the first meaning whose sockets exist."""
        unknown: tuple[Meaning, str] | None = None
        for meaning in self.directory.meanings(piece.text):
            if meaning.missing is not None:
                code: ProblemCode = "unknown_source" if role == "source" else "unknown_destination"
                raise problem(code, piece, f"There is no “{meaning.missing}” in this rig.")
            devices = []
            for gear in meaning.gear:
                part = meaning.new or self.rig.parts_by_id[gear.part]
                named = sockets(part, meaning.rest, role)
                if not usable(part, role) or not speaks(part, role):
                    break
                if named.unknown is not None:
                    if meaning.new is None or named.unknown.isdigit():
                        unknown = unknown or (meaning, named.unknown)
                    if meaning.exact and named.unknown.isdigit():
                        raise self._not_found(piece, role, unknown)
                    break
                devices.append((gear, part, named))
            if len(devices) == len(meaning.gear):
                if meaning.corrected:
                    self.corrections.append(f"“{piece.text}” was taken for {meaning.corrected}.")
                return Side(tuple(devices), piece, meaning)
        raise self._not_found(piece, role, unknown)

    def _not_found(self, piece: Piece, role: Role, unknown: tuple[Meaning, str] | None) -> Refused:
        if unknown is not None:
            meaning, word = unknown
            gear = meaning.gear[0]
            part = meaning.new or self.rig.parts_by_id[gear.part]
            have = ", ".join(usable_way.label for usable_way in usable(part, role)[:6])
            return problem("unknown_socket", piece, f"{gear.name} has no “{word}” here; it has {have}, …")
        code: ProblemCode = "unknown_source" if role == "source" else "unknown_destination"
        what, kind = ("sends sound", "dynamic mic") if role == "source" else ("takes sound", "powered speaker")
        sentence = f"Nothing here called “{piece.text}” {what}. Write a name from this rig, or add what it is, "
        return problem(code, piece, f"{sentence}as in “{piece.text} {kind}”.")

    def _runs(
        self, sources: list[Side], passed: list[tuple[KitItem, Piece]], goal: Side | None, mono: bool
    ) -> list[Wanted]:
        first = sources[0]
        if goal is not None and {g.id for g, _, _ in first.devices} & {g.id for g, _, _ in goal.devices}:
            raise problem("no_destination", goal.piece, "Source and destination are the same; write where it goes.")
        if len(sources) > 1:
            ends = tuple(end_of(*side.devices[0], 1, "source", side.meaning.new is not None) for side in sources)
            if goal is None:
                raise problem("no_destination", first.piece, "Two sources need one destination to meet at.")
            return [self._one(ends, passed, goal, 0, 1)]
        starts = one_each(first, "source", mono)
        if goal is None:
            return [self._one((end,), passed, None, i, len(starts)) for i, end in enumerate(starts)]
        return self._paired(first, goal, passed, mono)

    def _paired(self, first: Side, goal: Side, passed: list[tuple[KitItem, Piece]], mono: bool) -> list[Wanted]:
        """As many runs as there are pairs of devices; one where both ends are one device."""
        many_from, many_to = len(first.devices), len(goal.devices)
        if many_from == 1 and many_to == 1:
            return self._between_two(first, goal, passed, mono)
        places_from = many_from if many_from > 1 else max(1, len(first.devices[0][2].positions))
        if many_from == 1 and not first.devices[0][2].positions:
            # "desk main > speakers": the sides of the first output, one to each.
            places_from = min(many_to, len(main_output(first.devices[0][1]).connectors))
        places_to = many_to if many_to > 1 else len(goal.devices[0][2].positions)
        if many_to == 1 and places_to == 0 and many_from > 1:
            raise problem("unknown_socket", goal.piece, f"Say which inputs of {goal.devices[0][0].name} these go to.")
        if places_from != places_to:
            for side in (first, goal):
                if side.meaning.several:
                    names = ", ".join(gear.name for gear, _, _ in side.devices)
                    raise problem("ambiguous_name", side.piece, f"“{side.piece.text}” may be {names}: write which.")
            sentence = f"{places_from} on the left and {places_to} on the right: write as many places on both sides."
            raise problem("counts_differ", goal.piece, sentence)
        return self._one_each(first, goal, passed, places_from)

    def _one_each(self, first: Side, goal: Side, passed: list[tuple[KitItem, Piece]], count: int) -> list[Wanted]:
        """A run for each of so many places, first to first."""
        starts, ends = split_up(first, "source", count), split_up(goal, "goal", count)
        return [
            Wanted((start,), self._passing(passed, i, 1, count), end, (), (), None, ())
            for i, (start, end) in enumerate(zip(starts, ends, strict=True))
        ]

    def _between_two(self, first: Side, goal: Side, passed: list[tuple[KitItem, Piece]], mono: bool) -> list[Wanted]:
        (gear, part, named), (_, target, places) = first.devices[0], goal.devices[0]
        count_from, count_to = len(named.positions), len(places.positions)
        new = first.meaning.new is not None
        if count_to == 0 and not has_one_place(target):
            labels = [usable_way.label for usable_way in usable(target, "goal")]
            how = " or ".join(labels) if len(labels) <= FEW else f"write its number, as in “{goal.piece.text} 3”"
            raise problem("unknown_socket", goal.piece, f"Say which input of {goal.devices[0][0].name}: {how}.")
        if count_from > 2 or count_to > 2:
            if count_from != count_to:
                sentence = f"{count_from or 1} on the left and {count_to} on the right: write as many on both sides."
                raise problem("counts_differ", goal.piece, sentence)
            return self._one_each(first, goal, passed, count_from)
        lines = count_to or (2 if is_stereo(part, named, mono) and takes_stereo(target) else 1)
        from_lines = 2 if needs_both(part, named) and not passed else lines
        start = end_of(gear, part, named, 1 if mono else from_lines, "source", new)
        insert = self._returning(start, goal)
        end = end_of(*goal.devices[0], 1 if insert else lines, "goal", goal.meaning.new is not None)
        wide = max(len(start.choices[0]), len(end.choices[0]))
        through = self._passing(passed, 0, wide, wide)
        if insert:
            return [
                Wanted((start, insert), through, end, (_ids(self.directory.parts_called("insert lead")),), (), None, ())
            ]
        return [Wanted((start,), through, end, (), (), None, ())]

    def _returning(self, start: End, goal: Side) -> End | None:
        """From an insert signal comes back: the processor's output is a source of the same run."""
        gear, part, _ = goal.devices[0]
        connectors = {connector.id: connector for connector in start.part.connectors}
        socket = connectors[start.choices[0][0].connector]
        if socket.side != "both" or not socket.id.startswith("insert") or not part.outputs:
            return None
        return End(gear, part, ((Endpoint(gear.id, part.outputs[0].connectors[0]),),))

    def _one(
        self, ends: tuple[End, ...], passed: list[tuple[KitItem, Piece]], goal: Side | None, index: int, many: int
    ) -> Wanted:
        end = end_of(*goal.devices[0], 1, "goal", goal.meaning.new is not None) if goal else None
        wide = len(ends[0].choices[0])
        return Wanted(ends, self._passing(passed, index, wide, many * wide), end, (), (), None, ())

    def _passing(self, passed: list[tuple[KitItem, Piece]], index: int, wide: int, many: int) -> tuple[Through, ...]:
        """What is built in, with the entries this run takes: `wide` of them, the line naming `many` altogether."""
        result = []
        for item, piece in passed:
            words = plain(expanded(plain(piece.text))).split()
            part = self.rig.part_of(item.id)
            places = [word for word in words if word.isdigit()]
            kinds = [word for word in words if word in ("return", "returns", "send", "sends")]
            named = sockets(part, (*kinds, *places), "through")
            if named.unknown is not None or not named.positions:
                have = ", ".join(usable_way.label for usable_way in usable(part, "through")[:6])
                raise problem("unknown_socket", piece, f"{item.tag} has no “{named.unknown or '?'}”; it has {have}, …")
            if len(named.positions) != many:
                sentence = f"{item.tag} is given {len(named.positions)} places, but {many} are wanted."
                raise problem("counts_differ", piece, sentence)
            own = named.positions[index * wide : (index + 1) * wide]
            result.append(Through(item, tuple(Endpoint(item.id, position[0]) for position in own)))
        return tuple(result)


def _ids(parts: tuple[Part, ...]) -> tuple[str, ...]:
    return tuple(part.id for part in parts)


def _added(piece: Piece) -> list[Piece]:
    """ "A + B" with a name on both sides: two sources. "L + R" and "7 + 8" are sockets of one."""
    halves = piece.text.split(" + ")
    if len(halves) == 2 and all(len(half.split()) > 1 for half in halves):
        return [Piece(halves[0], piece.start), Piece(halves[1], piece.start + len(halves[0]) + 3)]
    return [piece]
