"""Entering runs: typed lines, input lists, and legs changed on the strip."""

from sqlalchemy.orm import Session, sessionmaker

from ruvak.core.analyse import analyse, prepare
from ruvak.core.entry.complete import completions
from ruvak.core.entry.reader import read, read_all, read_rows
from ruvak.core.entry.reading import Reading
from ruvak.core.entry.rows import InputRow, destination
from ruvak.core.errors import BadEdit
from ruvak.core.kit.lines import KitReading, read_kit
from ruvak.core.legs.choices import LegChoice, choices
from ruvak.core.legs.plug import plugged
from ruvak.core.legs.routes import put_ops
from ruvak.core.results.clamp import earth_from_current
from ruvak.core.rig.earth import Preset
from ruvak.core.rig.edits import Edit, Op, PutRun, apply
from ruvak.core.rig.rig import KitItem, Rig, Run
from ruvak.service.problems import NotFound
from ruvak.service.rigs import rig_row, version_of
from ruvak.service.solved import Solved, Version
from ruvak.service.states import Preview, Readings, Rewired
from ruvak.store.rigs import load_rig

KEPT_RIGS = 4


class Entry:
    """Use cases that look at a saved rig and change nothing; what they propose is an edit."""

    def __init__(self, sessions: sessionmaker[Session], solved: Solved | None = None) -> None:
        self._sessions, self._solved = sessions, solved or Solved()
        self._prepared: dict[Version, Rig] = {}

    def read(self, rig_id: str, text: str) -> Readings:
        """One line with ways to go on, or several lines. Raises NotFound."""
        rig = self._rig(rig_id)
        lines = [line for line in text.splitlines() if line.strip()]
        if len(lines) <= 1:
            line = lines[0] if lines else ""
            readings: tuple[Reading, ...] = (read(rig, line),) if line.strip() else ()
            return Readings(readings=readings, completions=completions(rig, text), edit=_together(readings))
        readings = read_all(rig, text)
        return Readings(readings=readings, completions=(), edit=_together(readings))

    def read_list(self, rig_id: str, rows: tuple[InputRow, ...], goal: str | None) -> Readings:
        """An input list into a desk; without one, into the gear with the most inputs, or a new desk. Raises NotFound,
        BadEdit."""
        rig = self._rig(rig_id)
        into = next((gear.name for gear in rig.gear if gear.id == goal), None) if goal else destination(rig, rows)
        if into is None:
            raise BadEdit("goal", f"There is no gear '{goal}' in this rig for the list to go to.")
        readings = read_rows(rig, rows, into)
        return Readings(readings=readings, completions=(), edit=_together(readings))

    def read_kit(self, rig_id: str, text: str) -> KitReading:
        """Kit in plain words, one kind a line. Raises NotFound."""
        return read_kit(self._rig(rig_id), text)

    def choices(self, rig_id: str, run_id: str, at: int, replace: bool) -> tuple[LegChoice, ...]:
        """What could stand at a place of a run. Raises NotFound."""
        rig = self._rig(rig_id)
        run = _run(rig, run_id)
        if not 0 <= at <= len(run.legs):
            raise BadEdit("at", f"This run has {len(run.legs)} legs; place {at} is not among them.")
        return choices(rig, run, at, replace)

    def rewired(self, rig_id: str, run_id: str, legs: tuple[KitItem, ...]) -> Rewired:
        """The run with these legs in this order, plugged as far as they fit, solved. Raises NotFound, RigFault."""
        rig = self._rig(rig_id)
        run = _run(rig, run_id)
        ops: list[Op] = put_ops(rig, legs)
        with_legs = apply(rig, Edit(label="legs", ops=tuple(ops))) if ops else rig
        names = tuple(item.id for item in legs)
        found = plugged(with_legs, run, names)
        changed = run.model_copy(update={"legs": names, "joins": found.joins})
        edit = Edit(label=_label(rig, run, legs), ops=(*ops, PutRun(thing=changed)))
        return Rewired(
            gaps=found.gaps, preview=Preview(edit=edit, analysis=analyse(apply(rig, edit), self._solved.memory))
        )

    def earth_from_current(self, rig_id: str, item: str, reading_a: float, spectrum: Preset) -> Preview:
        """A clamp meter's reading round a lead, as the earth voltage it tells, solved. Raises NotFound, BadEdit."""
        rig = self._rig(rig_id)
        edit = earth_from_current(rig, item, reading_a, spectrum)
        return Preview(edit=edit, analysis=analyse(apply(rig, edit), self._solved.memory))

    def _rig(self, rig_id: str) -> Rig:
        """The rig as saved. A line is read with every key, so the last few are kept; a saved version never changes."""
        with self._sessions() as session:
            row = rig_row(session, rig_id)
            key = version_of(row)
            if key not in self._prepared:
                if len(self._prepared) >= KEPT_RIGS:
                    self._prepared.pop(next(iter(self._prepared)))
                self._prepared[key] = prepare(load_rig(session, row))
            return self._prepared[key]


def _run(rig: Rig, run_id: str) -> Run:
    run = next((one for one in rig.runs if one.id == run_id), None)
    if run is None:
        raise NotFound(f"There is no run '{run_id}' in this rig.")
    return run


def _together(readings: tuple[Reading, ...]) -> Edit | None:
    """One edit for everything that was understood, so that one undo takes it back."""
    edits = [reading.edit for reading in readings if reading.edit is not None]
    if not edits:
        return None
    runs = sum(len(reading.runs) for reading in readings)
    label = edits[0].label if len(edits) == 1 else f"Add {runs} runs"
    return Edit(label=label, ops=tuple(op for edit in edits for op in edit.ops))


def _label(rig: Rig, run: Run, legs: tuple[KitItem, ...]) -> str:
    """What was done to the legs, in words for the list of changes."""
    now, then = [item.id for item in legs], list(run.legs)
    tags = {item.id: item.tag for item in (*rig.kit, *legs)}
    added, gone = [one for one in now if one not in then], [one for one in then if one not in now]
    if added and gone:
        return (
            f"{run.name}: {', '.join(tags[one] for one in added)} in place of {', '.join(tags[one] for one in gone)}"[
                :120
            ]
        )
    if added:
        return f"{run.name}: insert {', '.join(tags[one] for one in added)}"[:120]
    if gone:
        return f"{run.name}: take out {', '.join(tags[one] for one in gone)}"[:120]
    return f"{run.name}: legs in another order"[:120]
