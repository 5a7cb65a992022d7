"""Typed lines in, readings out: what was understood, the runs, their pieces and result, the edit that makes them."""

import re
from collections.abc import Collection
from dataclasses import replace
from itertools import islice

from ruvak.core.entry.alter import read_change
from ruvak.core.entry.alternatives import MOST, find_better, find_by_usb, list_others
from ruvak.core.entry.built import Built, OtherWiring, Proposal, RunLabel, solve_together
from ruvak.core.entry.free_places import into_computer_otherwise, with_free_places, with_other_outputs
from ruvak.core.entry.grammar import Sentence, split_statements
from ruvak.core.entry.hosts import plugged_by_usb
from ruvak.core.entry.leads_by_ends import with_same_ends
from ruvak.core.entry.line_ends import End
from ruvak.core.entry.lists import NamedInList, named_in
from ruvak.core.entry.names import Directory
from ruvak.core.entry.new_gear import has_many_sockets
from ruvak.core.entry.plan import Planner
from ruvak.core.entry.propose import Proposer
from ruvak.core.entry.reading import MOST_LETTERS, Reading, ReadProblem, ReadRun
from ruvak.core.entry.rewritten import join_sides, one_line_each, with_sides_joined
from ruvak.core.entry.rows import InputRow, line_of, line_of_typed_row, note_of
from ruvak.core.entry.run_reading import listed_sockets, read_run
from ruvak.core.entry.search import MOST_SOLVED
from ruvak.core.entry.sharing import with_shared_pieces
from ruvak.core.entry.suggest import suggest_lines
from ruvak.core.entry.wanted import Refused, Wanted, by_other_outputs, by_parts_with_same_ends
from ruvak.core.entry.words import legible, plain
from ruvak.core.rig.edits import Edit, apply
from ruvak.core.rig.ids import free_id, id_of
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.ports import family_of
from ruvak.core.rig.rig import Rig
from ruvak.core.trace.trace import connector_at

MOST_LINES = 200
MOST_BESIDE = 2
"""How many wirings are solved beside one whose pieces are named."""
MANY_OUTPUTS = 3
_GOES_TO = re.compile(r"\S\s+(?:goes|go|going)\s+(?:to|into)\s", re.IGNORECASE)
"""Said of what is there, and of what is yet to come."""
_BRACKETS = re.compile(r"\([^()]*\)")


def read(rig: Rig, line: str) -> Reading:
    """One line against a prepared rig."""
    line = legible(line)
    statements = split_statements(line[:MOST_LETTERS])
    reader = _Reader(rig, named_in(statements) if len(statements) > 1 else None)
    reading = reader.read(line)
    if reading.problems or reading.changes:
        return reading
    by_lead = _Reader(rig, most=1)
    by_usb = find_by_usb(rig, reading, by_lead.read)
    others = list_others(rig, reading, reader.others)
    if not others and not reader.passes_devices:
        # One run's solved wirings are shared: what was planned, the USB lead, the line without its named pieces.
        most = min(MOST_BESIDE, MOST_SOLVED - reader.solved - by_lead.solved)
        others = find_better(rig, reading, _Reader(rig, most=most).read) if most > 0 else ()
    return reading.model_copy(update={"alternatives": (*by_usb, *others)[:MOST]})


def read_rows(rig: Rig, rows: tuple[InputRow, ...], goal: str) -> tuple[Reading, ...]:
    """An input list into one desk, by its name or as a kind that the first row adds, row after row."""
    reader = _Reader(rig)
    readings: list[Reading] = []
    while len(readings) < len(rows):
        row, *following = rows[len(readings) : len(readings) + 2]
        line, *other = (legible(line_of(reader.rig, each, goal)) for each in (row, *following))
        readings += _read_with_next(reader, line, next(iter(other), ""), note_of(row))
    return tuple(readings)


def read_all(rig: Rig, text: str) -> tuple[Reading, ...]:
    """Many lines, each building on those before it; empty lines and lines that start with # are skipped. Of more than
    MOST_LINES the last reading says which were not read."""
    typed = map(legible, text.splitlines())
    every = [line for line in typed if line.strip() and not line.lstrip().startswith("#")]
    lines = every[:MOST_LINES]
    reader = _Reader(rig, named_in([line[:MOST_LETTERS] for line in lines]))
    readings: list[Reading] = []
    while len(readings) < len(lines):
        line, *following = lines[len(readings) : len(readings) + 2]
        readings += _read_with_next(reader, line, next(iter(following), ""), "")
    if len(every) > len(lines):
        first = every[len(lines)][:MOST_LETTERS]
        said = (
            f"{len(every) - len(lines)} more lines, from this one on, were not read: {MOST_LINES} at once are the most."
        )
        readings.append(_refused(first, _problem("too_many", first, f"{said} Enter these and then the rest.")))
    return tuple(readings)


def _read_with_next(reader: "_Reader", line: str, following: str, note: str) -> tuple[Reading, ...]:
    """The reading of a line; of two that are the sides of one stereo socket both, the second saying that it went along
    with the first."""
    joined = join_sides(Directory(reader.rig), line[:MOST_LETTERS], following[:MOST_LETTERS])
    if joined is None:
        return (reader.read(line, note),)
    along = "Goes with the line before: both sides leave by one socket."
    second = Reading(line=following, sentence=along, taken_for=(), runs=(), problems=(), edit=None)
    return reader.read(joined, note), second


class _Reader:
    def __init__(self, rig: Rig, in_list: NamedInList | None = None, most: int = MOST_SOLVED) -> None:
        """`in_list`: see Planner; `most`: how many wirings of a run are solved."""
        self.rig, self._in_list, self._most = rig, in_list or NamedInList(), most
        self.others: tuple[OtherWiring, ...] = ()
        """Of the line that was read last, where all of its pieces were chosen here: what was solved besides."""
        self._stand_ins: list[str] = []
        self.solved = 0
        """How many wirings have been solved for one run, at most."""
        self.passes_devices = False
        """Whether a line that was read goes through devices, so that it is several runs, each with its own choice."""

    def read(self, line: str, note: str = "") -> Reading:
        if len(line) > MOST_LETTERS:
            said = f"This line has {len(line)} letters; a line may have {MOST_LETTERS}. Write one run a line."
            return _refused(line[:MOST_LETTERS], _problem("too_long", line[:MOST_LETTERS], said))
        changed = read_change(self.rig, line, lambda rig, other: _Reader(rig).read(other))
        if changed is not None and (not changed.problems or not _GOES_TO.search(line)):
            self.rig = apply(self.rig, changed.edit) if changed.edit is not None else self.rig
            return changed
        corrections: list[str] = []
        before, self._stand_ins = self.rig, []
        try:
            proposals = self._plan(corrections, line, note)
        except Refused as refused:
            self.rig = before
            if changed is not None:
                return changed
            if (reading := self._without_brackets(line, note)) is not None:
                return reading
            result = refused.problem
            lines = (
                result.suggestions
                or self._as_a_row(line, result)
                or suggest_lines(self.rig, line, result, self._problem_of)
            )
            return _refused(line, result.model_copy(update={"suggestions": lines}))
        runs = tuple(read_run(self.rig, proposal) for proposal in proposals)
        label = _label(runs)
        edit = Edit(label=label, ops=tuple(op for proposal in proposals for op in proposal.ops))
        taken_for = tuple(dict.fromkeys(corrections))
        return Reading(line=line, sentence=_sentence(runs), taken_for=taken_for, runs=runs, problems=(), edit=edit)

    def _without_brackets(self, line: str, note: str) -> Reading | None:
        """The reading of a line without what stands in brackets, where that makes the difference: "(mic level)"."""
        remarks = _BRACKETS.findall(line)
        if not remarks:
            return None
        before = self.rig
        reading = self.read(_BRACKETS.sub(" ", line), note)
        if reading.problems:
            self.rig = before
            return None
        left_out = tuple(f"“{remark}” was left out." for remark in remarks)
        return reading.model_copy(update={"line": line, "taken_for": (*reading.taken_for, *left_out)})

    def _as_a_row(self, line: str, problem: ReadProblem) -> tuple[str, ...]:
        """Of a line without an arrow: the line that it is as a row of an input list."""
        row = line_of_typed_row(self.rig, line) if problem.code == "no_arrow" else None
        return (row,) if row is not None and self._problem_of(row) is None else ()

    def _problem_of(self, line: str) -> ReadProblem | None:
        """Why it makes no run, or None; nothing is kept of it."""
        planner = Planner(self.rig, self._in_list)
        try:
            _, wanted, _ = planner.plan(line)
        except Refused as refused:
            return refused.problem
        # Of a line that passes a device only the way to it is looked at.
        proposer = Proposer(self.rig)
        unbuilt = next((entry for entry in wanted if not proposer.can_build(entry)), None)
        return _problem("no_route", line, _no_route(unbuilt)) if unbuilt is not None else None

    def _from_other_outputs(
        self, line: str, sentence: Sentence, wanted: Wanted, users: Collection[Endpoint]
    ) -> tuple[str, ...]:
        """Lines from other outputs, of those that make a run the first few."""
        lines = with_other_outputs(line, sentence, wanted, users)
        return tuple(islice((each for each in lines if self._problem_of(each) is None), MOST))

    def _plan(self, corrections: list[str], line: str, note: str) -> list[Proposal]:
        """Every run of a line, stretch by stretch where it passes devices. Raises Refused."""
        first, *statements = self._statements(line)
        rewritten = bool(statements) or first.strip() != line.strip()
        computer: str | None = None
        rest: str | None = first
        proposals: list[Proposal] = []
        passes = rewritten
        while rest is not None:
            planner = Planner(self.rig, self._in_list)
            try:
                sentence, wanted, onward = planner.plan(rest)
            except Refused as refused:
                if rest is line or (rest is first and line.startswith(first)):
                    raise
                # Of a later stretch the places are not those of the line as it was typed.
                raise Refused(refused.problem.model_copy(update={"start": 0, "end": len(line)})) from None
            proposals += self._propose(wanted, sentence, line, rest, note, computer)
            # What comes out of its box is the computer's sound.
            computer = _played_by(wanted) if onward is not None else None
            corrections += [*planner.corrections, *self._stand_ins]
            passes = passes or onward is not None
            self.passes_devices = self.passes_devices or onward is not None
            rest = onward if onward is not None else next(iter(statements), None)
            statements = statements if onward is not None else statements[1:]
        if passes:
            self.others = ()
        return proposals

    def _statements(self, line: str) -> list[str]:
        """The runs that a line asks for, each by itself."""
        directory = Directory(self.rig)
        typed = with_sides_joined(directory, split_statements(line) or [line])
        return [each for statement in typed for each in one_line_each(directory, statement) or [statement]]

    def _propose(
        self,
        wanted: tuple[Wanted, ...],
        sentence: Sentence,
        line: str,
        stretch: str,
        note: str,
        computer: str | None,
    ) -> list[Proposal]:
        """Every run's pieces; the reader goes on from the rig that has them. `stretch`: what of the line they are;
        `computer`: whose sound it is that this stretch carries on."""
        proposer = Proposer(self.rig, self._most)
        all_built: list[Built] = []
        for index, asked in enumerate(wanted):
            entry = with_shared_pieces(proposer.rig, proposer.users, asked)
            taken = _find_socket_in_use(proposer.rig, proposer.users, entry)
            if taken is not None:
                # Of a part of the line the places are not those of the line as it was typed.
                other = with_free_places(line, sentence, wanted, proposer.users) if stretch == line else None
                offered = (other,) if other is not None else _next_of_its_kind(self.rig, line, entry)
                if stretch == line and len(wanted) == 1:
                    offered += self._from_other_outputs(line, sentence, entry, proposer.users)
                    offered += into_computer_otherwise(line, sentence, entry, proposer.users)
                offered = (*offered, *_as_a_move(self.rig, sentence, entry))
                refused = _problem("socket_taken", line, taken)
                raise Refused(refused.model_copy(update={"suggestions": offered}))
            first = sentence.number + index if sentence.number is not None else None
            next_number = first or 1 + max((run.number for run in proposer.rig.runs), default=0)
            name = (
                sentence.label[:120]
                if sentence.label and len(wanted) == 1
                else computer or _name(entry, proposer.users)
            )
            label = RunLabel(_id_of_run(proposer.rig, name), next_number, name, note)
            made = proposer.build(entry, label)
            if made is None and (others := by_other_outputs(entry)) is not None:
                # What is named on the way may fit a headphone socket and not the usual one.
                made = proposer.build(others, label)
            if made is None and (others := by_parts_with_same_ends(entry)) is not None:
                made = proposer.build(others, label)
                self._stand_ins += _stand_ins(proposer.rig, entry, made)
            if made is None:
                nearer = entry.length_m is not None and Proposer(self.rig).can_build(replace(entry, length_m=None))
                raise Refused(_problem("no_route", line, _too_far(entry) if nearer else _no_route(entry)))
            all_built.append(made)
        self.rig = proposer.rig
        self.solved = max(self.solved, proposer.solved)
        self.others = () if wanted[0].names_pieces else all_built[0].others
        return solve_together(all_built)


def _stand_ins(rig: Rig, wanted: Wanted, built: Built | None) -> list[str]:
    """What was taken in place of a named lead or adapter that does not fit."""
    named = {part for options in wanted.parts for part in options}
    others = {part for options in wanted.parts for part in with_same_ends(options)} - named
    parts = dict.fromkeys(item.part for item in built.route.items if item.part in others) if built is not None else {}
    names = (rig.parts_by_id[part].name for part in parts)
    return [f"What you named does not fit there; {name}, which has the same plugs, was taken." for name in names]


def _played_by(wanted: tuple[Wanted, ...]) -> str | None:
    """The computer that a line begins with and goes on from by USB."""
    for entry in wanted:
        if entry.sources[0].gear.id in plugged_by_usb(entry).values():
            return entry.sources[0].gear.name
    return None


def _name(wanted: Wanted, users: Collection[Endpoint]) -> str:
    """The source's name; of a desk's many outputs the socket's, the first that is free, since that is what the tape
    would say."""
    first = wanted.sources[0]
    sockets = {output.connectors for output in first.part.outputs if family_of(output.signal) == "sound"}
    if len(sockets) <= MANY_OUTPUTS:
        return first.gear.name
    ids = [end.connector for end in next(iter(first.free_choices(users)), first.choices[0])]
    labels = [connector.label.split(",")[0] for connector in first.part.connectors if connector.id in ids]
    return listed_sockets(labels)[:120]


def _refused(line: str, problem: ReadProblem) -> Reading:
    return Reading(line=line, sentence=problem.sentence, taken_for=(), runs=(), problems=(problem,), edit=None)


def _problem(code: str, line: str, sentence: str) -> ReadProblem:
    return ReadProblem(code=code, start=0, end=len(line), sentence=sentence)


def _too_far(wanted: Wanted) -> str:
    goal = " and ".join(end.gear.name for end in wanted.goals) or "there"
    return (
        f"No leads reach {wanted.length_m:g} m from {wanted.sources[0].gear.name} to {goal}, though shorter ones do: "
        "bring the two nearer, or go through a box to a balanced line or a multicore."
    )


def _no_route(wanted: Wanted) -> str:
    goal = " and ".join(end.gear.name for end in wanted.goals) or "there"
    if wanted.parts or wanted.items:
        return f"What you named on the way does not fit between {wanted.sources[0].gear.name} and {goal}; leave it out."
    if wanted.length_m is not None and wanted.length_m > 50:
        return (
            f"No leads for {wanted.length_m:g} m from {wanted.sources[0].gear.name} to {goal}; go through a multicore."
        )
    sent, taken = (_kinds(ends) for ends in (wanted.sources, wanted.goals))
    if sent and taken and not sent & taken:
        return f"{wanted.sources[0].gear.name} sends {_listed(sent)} there, and {goal} takes {_listed(taken)}."
    return f"No leads or adapters lead from {wanted.sources[0].gear.name} to {goal}; check the two sockets."


def _kinds(ends: tuple[End, ...]) -> set[str]:
    """What the sockets that the line may mean carry: sound, video, lighting data."""
    return {
        family_of(port.signal).replace("-", " ")
        for end in ends
        for port in (*end.part.outputs, *end.part.inputs)
        if any(socket.connector in port.connectors for choice in end.choices for socket in choice)
    }


def _listed(kinds: set[str]) -> str:
    return " and ".join(sorted(kinds))


def _find_socket_in_use(rig: Rig, user: dict[Endpoint, str], wanted: Wanted) -> str | None:
    """A sentence where a socket that the line may mean is in use."""
    ends = [*wanted.sources, *wanted.goals]
    for end in ends:
        if not end.free_choices(user):
            socket = next(socket for choice in end.choices for socket in choice if socket in user)
            label = next(c.label for c in end.part.connectors if c.id == socket.connector)
            return f"{end.gear.name}, {label} is in use by “{user[socket]}”; choose another socket or change that run."
    for through in wanted.through:
        for entry in through.entries:
            if entry in user:
                label = connector_at(rig, entry).label
                return f"{through.item.tag}, {label} is in use by “{user[entry]}”; choose another."
    return None


def _as_a_move(rig: Rig, sentence: Sentence, wanted: Wanted) -> tuple[str, ...]:
    """ "move vocal to desk 4", where the line has the vocal, which has a run, go somewhere else."""
    source, goal = wanted.sources[0].gear, sentence.pieces[-1].text
    runs = [run for run in rig.runs if source.id in {end.owner for end in run.ends}]
    goals = {end.gear.id for end in wanted.goals}
    free = all(end.free_choices({end for run in rig.runs for end in run.ends}) for end in wanted.goals)
    has_one_run = len(runs) == 1 and len(sentence.pieces) == 2 and not has_many_sockets(wanted.sources[0].part)
    if not has_one_run or not free or not goals & {end.owner for end in runs[0].ends}:
        return ()
    return (f"move {source.name} to {goal}",)


def _next_of_its_kind(rig: Rig, line: str, wanted: Wanted) -> tuple[str, ...]:
    """The line with a further device: "mic > desk 2" where Mic is in use is "mic 2 > desk 2"."""
    first = wanted.sources[0]
    if first.is_new or len(first.part.outputs) != 1 or first.part.inputs:
        return ()
    typed = re.match(rf"\s*{re.escape(first.gear.name)}", line, re.IGNORECASE)
    return (f"{Directory(rig).next_name(first.gear.name)}{line[typed.end() :]}",) if typed else ()


def _id_of_run(rig: Rig, name: str) -> str:
    return free_id(id_of(plain(name), "run"), {run.id for run in rig.runs})


def _sentence(runs: tuple[ReadRun, ...]) -> str:
    if len(runs) == 1:
        run = runs[0]
        pieces = ", ".join(piece.words for piece in run.pieces) or "plugged straight in"
        return f"{run.from_words} to {run.to_words}: {pieces}{'; phantom switched on' if run.phantom_on else ''}."
    return f"{len(runs)} runs, {runs[0].from_words} to {runs[0].to_words} first."


def _label(runs: tuple[ReadRun, ...]) -> str:
    if len(runs) == 1:
        return f"Add {runs[0].name} to {runs[0].to_words}"[:120]
    return f"Add {len(runs)} runs, {runs[0].name} to {runs[-1].name}"[:120]
