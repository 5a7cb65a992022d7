"""What a line asks for, run by run, and why it may be refused."""

from dataclasses import dataclass, replace

from ruvak.core.entry.grammar import Piece
from ruvak.core.entry.leads_by_ends import with_same_ends
from ruvak.core.entry.line_ends import End, main_output
from ruvak.core.entry.reading import ProblemCode, ReadProblem
from ruvak.core.pieces.named import NamedPiece
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.ports import family_of
from ruvak.core.rig.rig import Join, KitItem


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
    named: tuple[NamedPiece, ...] = ()
    """What stands between the arrows, in its order; `parts` and `items` have it too, and what was added behind a
    comma."""
    shared: tuple[tuple[KitItem, Join], ...] = ()
    """Two-way pieces of other runs that this one goes by too, each with the join that both have."""
    goals_beside: tuple[End, ...] = ()
    """Further destination devices of the same run: one stereo socket to two speakers, one microphone to three desks."""

    @property
    def goals(self) -> tuple[End, ...]:
        """Every destination; none where it is built in."""
        return (self.goal, *self.goals_beside) if self.goal is not None else ()

    @property
    def channels(self) -> tuple[int, ...]:
        """Those of a socket with several channels that the line names."""
        return next((end.channels for end in (*self.sources, *self.goals) if end.channels), ())

    @property
    def comes_back(self) -> bool:
        """Whether it goes to a processor and back by one insert socket, to which one lead alone goes."""
        return len(self.sources) == 2 and self.goal is not None and self.sources[1].gear.id == self.goal.gear.id

    @property
    def names_pieces(self) -> bool:
        """Whether the line says what to use, so that practice has no say."""
        return bool(self.named or self.parts or self.items)


def by_other_outputs(wanted: Wanted) -> Wanted | None:
    """The same from the other sound outputs of its source, where the usual one was only taken for lack of another."""
    (start, *more) = wanted.sources
    usual = {end.connector for choice in start.choices for end in choice}
    if more or start.is_named or not start.part.outputs or usual != set(main_output(start.part).connectors):
        return None
    others = tuple(
        tuple(Endpoint(start.gear.id, name) for name in output.connectors)
        for output in start.part.outputs
        if family_of(output.signal) == "sound" and not usual & set(output.connectors)
    )
    return replace(wanted, sources=(replace(start, choices=others),)) if others else None


def by_parts_with_same_ends(wanted: Wanted) -> Wanted | None:
    """The same by leads and adapters with the same plugs as those it names, since one name often stands for several."""
    parts = tuple(map(with_same_ends, wanted.parts))
    if parts == wanted.parts:
        return None
    named = tuple(
        piece if piece.item is not None else replace(piece, parts=with_same_ends(piece.parts)) for piece in wanted.named
    )
    return replace(wanted, parts=parts, named=named)


def problem(code: ProblemCode, piece: Piece, sentence: str, *suggestions: str) -> Refused:
    """A refusal about one piece of the line, with whole lines to type instead."""
    end = piece.start + max(1, len(piece.text))
    refusal = ReadProblem(code=code, start=piece.start, end=end, sentence=sentence, suggestions=suggestions)
    return Refused(refusal)
