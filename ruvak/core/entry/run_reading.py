"""One run of a reading: from where to where, by which pieces, and what is said of it."""

from ruvak.core.entry.built import Proposal
from ruvak.core.entry.input_switches import words_of_switches
from ruvak.core.entry.reading import ReadPiece, ReadRun
from ruvak.core.entry.solve_runs import SubRigResult, solve_runs
from ruvak.core.judge.finding import Grade
from ruvak.core.rig.edits import SetField, is_setting
from ruvak.core.rig.part import Part
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import KitItem, Rig, Run
from ruvak.core.trace.drawing import draw
from ruvak.core.trace.run_ends import ends_of
from ruvak.core.trace.trace import connector_at


def read_run(rig: Rig, proposal: Proposal) -> ReadRun:
    """A run as it would be built."""
    wanted = proposal.wanted
    known = {item.id: item for item in (*(item for item, _ in wanted.shared), *proposal.route.items)}
    items = tuple(known[piece] for piece in proposal.run.pieces if not known[piece].installed)
    return _reading(rig, proposal.run, items, proposal.solved).model_copy(
        update={
            "through": tuple(entry for one in wanted.through for entry in one.entries),
            "to_words": words_of(rig, tuple(ends_of(rig, proposal.run, "in"))) or wanted.through[-1].item.tag,
            "new_gear": tuple(end.gear.part for end in (*wanted.sources, *wanted.goals) if end.is_new),
            "length_m": wanted.length_m,
            "reach_assumed": wanted.length_m is None,
            "options": wanted.options,
            "phantom_on": any(is_setting(op) and op.value is True for op in proposal.ops if isinstance(op, SetField)),
            "switched": words_of_switches(rig, proposal.ops),
        }
    )


def read_changed(rig: Rig, run_ids: tuple[str, ...]) -> tuple[ReadRun, ...]:
    """Runs as they stand in a rig, solved."""
    if not run_ids:
        return ()
    solved = dict(zip((run.id for run in rig.runs if run.id in run_ids), solve_runs(rig, run_ids), strict=True))
    kit = {item.id: item for item in rig.kit}
    return tuple(
        _reading(rig, run, tuple(kit[piece] for piece in run.pieces if not kit[piece].installed), solved[run.id])
        for run in rig.runs
        if run.id in solved
    )


def _reading(rig: Rig, run: Run, items: tuple[KitItem, ...], solved: SubRigResult) -> ReadRun:
    worst = solved.findings[0]
    sources, goals = (tuple(ends_of(rig, run, side)) for side in ("out", "in"))
    return ReadRun(
        run=run.id,
        number=run.number,
        name=run.name,
        sources=sources,
        through=(),
        goals=goals,
        from_words=words_of(rig, sources),
        to_words=words_of(rig, goals),
        pieces=tuple(
            ReadPiece(item=item.id, words=describe_piece(rig.part_of(item.id), item), in_kit=item.owned)
            for item in items
        ),
        new_gear=(),
        length_m=None,
        reach_assumed=False,
        options=(),
        phantom_on=False,
        switched=(),
        grade=Grade(worst.grade),
        finding=worst,
        drawing=draw(solved.rig, solved.traced, run),
    )


def describe_piece(part: Part, item: KitItem) -> str:
    """Its tag where it is owned, what it is, and its length."""
    length = f", {item.length_m:g} m" if item.length_m else ""
    tag = f"{item.tag} " if item.owned else ""
    return f"{tag}{part.name}{length}"


def words_of(rig: Rig, ends: tuple[Endpoint, ...]) -> str:
    """ "Desk, Line 7 and Line 8": one device's name once."""
    groups: dict[str, list[str]] = {}
    for end in ends:
        groups.setdefault(end.owner, []).append(connector_at(rig, end).label.split(",")[0])
    names = {gear.id: gear.name for gear in rig.gear}
    return "; ".join(f"{names[owner]}, {listed_sockets(labels)}" for owner, labels in groups.items())


def listed_sockets(labels: list[str]) -> str:
    """ "Line 7 and Line 8"; more than two that follow each other as "Line 9 to Line 16"."""
    stems = {label.rstrip("0123456789") for label in labels}
    numbers = [label[len(min(stems)) :] for label in labels] if len(stems) == 1 else []
    if len(labels) > 2 and all(number.isdigit() for number in numbers):
        first, last = int(numbers[0]), int(numbers[-1])
        if [int(number) for number in numbers] == list(range(first, last + 1)):
            return f"{labels[0]} to {labels[-1]}"
    return " and ".join(labels)
