"""Everything that takes computation, over one database: what a compute process does, and the tests do in place."""

import gzip
from functools import reduce

from sqlalchemy.orm import Session, sessionmaker

from ruvak.core.analyse import Analysis, analyse, ground_loops_of
from ruvak.core.analysis_cache import AnalysisCache
from ruvak.core.building import read_building
from ruvak.core.compare import RigComparison, compare
from ruvak.core.cupboard.draw import with_drawn
from ruvak.core.entry.complete import completions
from ruvak.core.entry.reader import read, read_all, read_rows
from ruvak.core.entry.reading import Reading
from ruvak.core.entry.rows import InputRow, destination
from ruvak.core.errors import BadEdit
from ruvak.core.kit.lines import KitReading, read_kit
from ruvak.core.pieces.choices import choices
from ruvak.core.pieces.plug import plug_pieces
from ruvak.core.pieces.route import put_ops
from ruvak.core.prepare import prepare
from ruvak.core.progress import Progress, portion, report_nothing
from ruvak.core.remedies.search import first_remedy, remedies_for
from ruvak.core.results.clamp import earth_from_current
from ruvak.core.rig.earth import Preset
from ruvak.core.rig.edits import Edit, Op, PutThing, apply, changes, replay
from ruvak.core.rig.rig import KitItem, Rig, Run
from ruvak.core.run_changes import VerdictChange, changed_runs, verdict_changes
from ruvak.core.sheets.sheets import RigSheets, rig_sheets
from ruvak.core.steps.card import check_card
from ruvak.core.steps.causes import likely_causes
from ruvak.core.steps.radio import taken_elsewhere
from ruvak.core.steps.round import Round, check_round
from ruvak.core.venue.document import difference
from ruvak.core.venue.lines import VenueReading
from ruvak.service.analysis_parts import RunParts, card_key, keep, key_of, remedies_key, run_key
from ruvak.service.kept import KeptRigs, read_current
from ruvak.service.kept_cupboard import KeptCupboard
from ruvak.service.problems import NotCurrent, NotFound
from ruvak.service.pull import DayPull, pull_of_day
from ruvak.service.states import (
    DestinationList,
    GroundLoopList,
    PieceChoiceList,
    Preview,
    Readings,
    RemedyList,
    Rewired,
    RunChangeList,
    VenueComparison,
)
from ruvak.service.takings import carriers_at_the_same_time
from ruvak.service.venues import house_venue_of, newest_document
from ruvak.service.versions import Version, version_of
from ruvak.store import history
from ruvak.store.rigs import SavedRig
from ruvak.store.solved import SolvedParts, StoredPart, part_of

KEPT_ANALYSES = 8
HALF = 0.5
"""Of a comparison, for each of its two sides."""
MOST_EDITS_BACK = 500
"""Edits taken back to show an older one: as many as the list of changes is long, and those made since it was read."""


class Computer:
    """Use cases that look at a saved rig and change nothing; what they propose is an edit.

    Keeps what it solved last. Nothing kept is ever out of date: a saved version never changes, and blocks of networks
    are known by what they are made of.
    """

    def __init__(self, sessions: sessionmaker[Session], kept: KeptRigs, progress: Progress = report_nothing) -> None:
        self._sessions, self._kept, self._progress = sessions, kept, progress
        self._parts, self._cupboard = SolvedParts(sessions), KeptCupboard()
        self._cache, self._written = AnalysisCache(), RunParts()
        self._analyses: dict[str, Analysis] = {}

    def forget(self) -> None:
        """Keeps nothing of what was read and solved before."""
        self._kept.clear()
        self._cache, self._written = AnalysisCache(), RunParts()
        self._analyses.clear()

    def overview(self, rig_id: str, version: Version) -> StoredPart:
        """The analysis at a glance. Raises NotFound, NotCurrent, RigFault."""
        rig = self._rig(rig_id, version)
        return self._parts.find(key_of(rig, "overview")) or keep(self._parts, rig, self._analysis(rig), self._written)

    def destinations(self, rig_id: str, version: Version) -> StoredPart:
        """What each device makes of all its inputs. Raises NotFound, NotCurrent, RigFault."""
        rig = self._rig(rig_id, version)
        match = self._parts.find(key_of(rig, "destinations"))
        return match or part_of(DestinationList(self._analysis(rig).destinations).model_dump_json().encode())

    def connections(self, rig_id: str, version: Version) -> StoredPart:
        """Connections that close loops, ranked. Raises NotFound, NotCurrent, RigFault."""
        rig = self._rig(rig_id, version)
        key = key_of(rig, "connections")
        if (match := self._parts.find(key)) is not None:
            return match
        made = part_of(GroundLoopList(ground_loops_of(rig, self._cache)).model_dump_json().encode())
        self._parts.keep([(key, made)])
        return made

    def runs(self, rig_id: str, version: Version, keys: tuple[str, ...]) -> dict[str, StoredPart]:
        """Details of runs by the keys that the overview gives them; those of no run are left out."""
        result = self._parts.find_all([run_key(key) for key in keys])
        if len(result) < len(set(keys)):
            # Emptied meanwhile: the analysis keeps them again.
            rig = self._rig(rig_id, version)
            keep(self._parts, rig, self._analysis(rig), self._written)
            result = self._parts.find_all([run_key(key) for key in keys])
        return {key: result[run_key(key)] for key in keys if run_key(key) in result}

    def card(self, rig_id: str, version: Version, run_id: str) -> StoredPart:
        """A run's card for the line check. Raises NotFound, NotCurrent, RigFault."""
        rig = self._rig(rig_id, version)
        run, analysis = _run(rig, run_id), self._analysis(rig)
        own = next(each for each in analysis.runs if each.run == run_id)
        # What the run's details say is what the card says: an edit elsewhere leaves the card as it was.
        key = card_key(self._written.part(rig.id, own).etag, run, rig)
        match = self._parts.find(key)
        if match is None:
            causes = likely_causes(rig, run_id, analysis, self._cache)
            match = part_of(check_card(prepare(rig), run, own, causes).model_dump_json().encode())
            self._parts.keep([(key, match)])
        return match

    def preview(self, rig_id: str, edit: Edit) -> Preview:
        """What an edit would do. Raises NotFound, BadEdit, RigFault."""
        return self._preview(self._rig(rig_id), edit)

    def remedies(self, rig_id: str, run_id: str, first: bool) -> RemedyList:
        """Solved remedies of one run; `first`: only the one found soonest. Raises NotFound, and NotCurrent where the
        rig is saved meanwhile: then nobody needs them any longer, and the new version waits for this process."""
        saved = self._saved(rig_id)
        rig = saved.rig
        _run(rig, run_id)
        beside = self._beside(rig)
        key = remedies_key(rig, beside, run_id, first)
        if (match := self._parts.find(key)) is not None:
            return RemedyList.model_validate_json(gzip.decompress(match.body))
        before = self._analysis(rig)
        if not first:
            remedies = remedies_for(beside, run_id, before, self._cache, self._while_current(saved))
        else:
            soonest = first_remedy(beside, run_id, before, self._cache)
            remedies = (soonest,) if soonest is not None else ()
        known = rig.owners_by_id
        result = RemedyList(
            tuple(remedy.model_copy(update={"edit": with_drawn(known, beside, remedy.edit)}) for remedy in remedies)
        )
        self._parts.keep([(key, part_of(result.model_dump_json().encode()))])
        return result

    def read_lines(self, rig_id: str, text: str) -> Readings:
        """One line with ways to go on, or several lines. Raises NotFound."""
        saved, beside = self._saved_beside(rig_id)
        lines = [line for line in text.splitlines() if line.strip()]
        several = len(lines) > 1

        def read_in(rig: Rig) -> tuple[Reading, ...]:
            return read_all(rig, text) if several else tuple(read(rig, line) for line in lines)

        readings = read_in(beside)
        if any(map(_looks_elsewhere, readings)) and (other := self._beside(saved.rig, devices=True)) is not beside:
            readings, beside = _better((readings, beside), (read_in(other), other))
        drawn = _drawn(saved.rig, beside, readings)
        return _readings(saved, drawn, () if several else completions(saved.rig, text))

    def read_list(self, rig_id: str, rows: tuple[InputRow, ...], goal: str | None) -> Readings:
        """An input list into a desk; without one, into the gear with the most inputs, or a new desk. Raises NotFound,
        BadEdit."""
        saved, beside = self._saved_beside(rig_id)
        rig = saved.rig
        into = next((gear.name for gear in rig.gear if gear.id == goal), None) if goal else destination(rig, rows)
        if into is None:
            raise BadEdit("goal", f"There is no gear '{goal}' in this rig for the list to go to.")
        return _readings(saved, _drawn(rig, beside, read_rows(beside, rows, into)))

    def show_edit(self, rig_id: str, edit_id: int) -> RunChangeList:
        """Runs before and after an edit, found by taking back what was done since. Raises NotFound."""
        with self._sessions() as session:
            saved = self._kept.current(session, rig_id)
            known = history.back_to(session, rig_id, edit_id, MOST_EDITS_BACK)
        if known is None:
            raise NotFound(f"There is no change {edit_id} among the last {MOST_EDITS_BACK} of this rig.")
        edit, (*later, own) = known
        after = reduce(replay, later, saved.rig)
        return RunChangeList(changed_runs(replay(after, own), after, edit))

    def read_kit(self, rig_id: str, text: str) -> KitReading:
        """Kit in plain words, one kind a line. Raises NotFound."""
        return read_kit(self._rig(rig_id), text)

    def read_venue(self, rig_id: str, text: str) -> VenueReading:
        """Boards, circuits, outlets, what was measured and what is built in, one thing a line. Raises NotFound."""
        return read_building(self._rig(rig_id), text)

    def newer_venue(self, rig_id: str) -> VenueComparison:
        """What the house's newest revision of the rig's venue would change. Raises NotFound, RigFault."""
        with self._sessions() as session:
            rig = self._kept.current(session, rig_id).rig
            venue_id = house_venue_of(session, rig_id)
            if venue_id is None:
                raise NotFound("This rig belongs to no venue of the house yet.")
            number, document = newest_document(session, venue_id)
        found = difference(rig, document, f"Venue: revision {number}", number)
        runs: tuple[VerdictChange, ...] = ()
        if found.edit is not None and found.said:
            before = self._analysis(rig, portion(self._progress, 0.0, HALF))
            after = analyse(apply(rig, found.edit), self._cache, portion(self._progress, HALF, 1.0))
            runs = tuple(verdict_changes(rig, before, after))
        return VenueComparison(revision=number, edit=found.edit, said=found.said, kept=found.kept, runs=runs)

    def compare(self, rig_id: str, other_id: str) -> RigComparison:
        """What a second rig has otherwise than a first. Raises NotFound, RigFault."""
        before, after = self._rig(rig_id), self._rig(other_id)
        solved_before = self._analysis(before, portion(self._progress, 0.0, HALF))
        return compare(before, solved_before, after, self._analysis(after, portion(self._progress, HALF, 1.0)))

    def pull(self, rig_id: str, spare_m: float) -> DayPull:
        """The pull list of a rig's day: the cheapest assignment of leads to all its runs. Raises NotFound."""
        with self._sessions() as session:
            return pull_of_day(session, self._kept, self._cupboard.items(session), rig_id, spare_m)

    def sheets(self, rig_id: str) -> RigSheets:
        """What is printed of a rig. Raises NotFound, RigFault."""
        rig = self._rig(rig_id)
        return rig_sheets(prepare(rig), self._analysis(rig, self._progress))

    def round(self, rig_id: str) -> Round:
        """The check beside the runs, and what is lost with each run. Raises NotFound, RigFault."""
        rig = self._rig(rig_id)
        with self._sessions() as session:
            elsewhere = taken_elsewhere(carriers_at_the_same_time(session, rig_id))
        return check_round(prepare(rig), self._analysis(rig, self._progress), elsewhere)

    def choices(self, rig_id: str, run_id: str, at: int, replace: bool) -> PieceChoiceList:
        """What could stand at a place of a run. Raises NotFound, BadEdit."""
        rig = self._rig(rig_id)
        run = _run(rig, run_id)
        if not 0 <= at <= len(run.pieces):
            raise BadEdit("at", f"This run has {len(run.pieces)} pieces; place {at} is not among them.")
        return PieceChoiceList(choices(self._beside(rig), run, at, replace))

    def rewire(self, rig_id: str, run_id: str, pieces: tuple[KitItem, ...]) -> Rewired:
        """The run with these pieces in this order, plugged as far as they fit, solved. Raises NotFound, RigFault."""
        rig = self._rig(rig_id)
        run = _run(rig, run_id)
        beside = self._beside(rig)
        ops: list[Op] = put_ops(beside, pieces)
        with_pieces = apply(beside, Edit(label="pieces", ops=tuple(ops))) if ops else beside
        names = tuple(item.id for item in pieces)
        result = plug_pieces(with_pieces, run, names)
        ops += changes("runs", run, run.model_copy(update={"pieces": names, "joins": result.joins}))
        if not ops:
            raise BadEdit("pieces", "The run has these pieces in this order already.")
        edit = with_drawn(rig.owners_by_id, beside, Edit(label=_label(rig, run, pieces), ops=tuple(ops)))
        return Rewired(gaps=result.gaps, preview=self._preview(rig, edit))

    def earth_from_current(self, rig_id: str, item: str, reading_a: float, spectrum: Preset) -> Preview:
        """A clamp meter's reading round a lead, as the earth voltage it tells, solved. Raises NotFound, BadEdit."""
        rig = self._rig(rig_id)
        return self._preview(rig, earth_from_current(rig, item, reading_a, spectrum))

    def _preview(self, rig: Rig, edit: Edit) -> Preview:
        return Preview(edit=edit, analysis=analyse(apply(rig, edit), self._cache, self._progress))

    def _while_current(self, saved: SavedRig) -> Progress:
        """Progress that ends the work with NotCurrent, or NotFound, once the rig is saved or gone."""

        def tell(share: float) -> None:
            self._progress(share)
            now = version_of(self._saved(saved.holders.ids["rig"]).holders)
            if now != version_of(saved.holders):
                raise NotCurrent(now)

        return tell

    def _analysis(self, rig: Rig, progress: Progress | None = None) -> Analysis:
        key = key_of(rig, "analysis")
        if key not in self._analyses:
            while len(self._analyses) >= KEPT_ANALYSES:
                self._analyses.pop(next(iter(self._analyses)))
            self._analyses[key] = analyse(rig, self._cache, progress or self._progress)
        return self._analyses[key]

    def _saved(self, rig_id: str) -> SavedRig:
        with self._sessions() as session:
            return self._kept.current(session, rig_id)

    def _saved_beside(self, rig_id: str) -> tuple[SavedRig, Rig]:
        """A rig, and the same with the free kit of the house's cupboard within reach."""
        with self._sessions() as session:
            saved = self._kept.current(session, rig_id)
            return saved, self._cupboard.beside(session, saved.rig)

    def _beside(self, rig: Rig, devices: bool = False) -> Rig:
        with self._sessions() as session:
            return self._cupboard.beside(session, rig, devices)

    def _rig(self, rig_id: str, version: Version | None = None) -> Rig:
        return read_current(self._sessions, self._kept, rig_id, version)


def _run(rig: Rig, run_id: str) -> Run:
    run = next((run for run in rig.runs if run.id == run_id), None)
    if run is None:
        raise NotFound(f"There is no run '{run_id}' in this rig.")
    return run


def _readings(saved: SavedRig, readings: tuple[Reading, ...], completions: tuple[str, ...] = ()) -> Readings:
    version = version_of(saved.holders)
    return Readings(readings=readings, completions=completions, edit=_together(readings), version=version)


def _drawn(rig: Rig, beside: Rig, readings: tuple[Reading, ...]) -> tuple[Reading, ...]:
    """Readings made with the cupboard within reach, as edits of the rig: each draws what it uses and none before it
    has drawn."""
    known = set(rig.owners_by_id)
    result = []
    for reading in readings:
        if reading.edit is not None:
            edit = with_drawn(known, beside, reading.edit)
            known |= {op.thing.id for op in edit.ops if isinstance(op, PutThing)}
            reading = reading.model_copy(update={"edit": edit})
        result.append(reading)
    return tuple(result)


def _looks_elsewhere(reading: Reading) -> bool:
    """Whether it could mean a device of the house: it was not understood, or would add one of the library."""
    return reading.edit is None or any(run.new_gear for run in reading.runs)


def _better(
    plain: tuple[tuple[Reading, ...], Rig], other: tuple[tuple[Reading, ...], Rig]
) -> tuple[tuple[Reading, ...], Rig]:
    """The reading with the house's devices within reach, where it is understood no worse and adds fewer devices."""

    def weight(readings: tuple[Reading, ...]) -> tuple[int, int]:
        problems = sum(reading.edit is None for reading in readings)
        return problems, sum(len(run.new_gear) for reading in readings for run in reading.runs)

    return other if weight(other[0]) < weight(plain[0]) else plain


def _together(readings: tuple[Reading, ...]) -> Edit | None:
    """One edit for everything that was understood, so that one undo takes it back."""
    edits = [reading.edit for reading in readings if reading.edit is not None]
    if not edits:
        return None
    runs = sum(len(reading.runs) for reading in readings)
    label = edits[0].label if len(edits) == 1 else f"Add {runs} runs"
    return Edit(label=label, ops=tuple(op for edit in edits for op in edit.ops))


def _label(rig: Rig, run: Run, pieces: tuple[KitItem, ...]) -> str:
    """What was done to the pieces, in words for the list of changes."""
    now, then = [item.id for item in pieces], list(run.pieces)
    tags = {item.id: item.tag for item in (*rig.kit, *pieces)}
    added = ", ".join(tags[entry] for entry in now if entry not in then)
    gone = ", ".join(tags[entry] for entry in then if entry not in now)
    if added and gone:
        return f"{run.name}: {added} in place of {gone}"[:120]
    if added:
        return f"{run.name}: insert {added}"[:120]
    return f"{run.name}: take out {gone}"[:120] if gone else f"{run.name}: pieces in another order"[:120]
