"""Analyses of saved rigs in parts, computed once for each content and kept for every process."""

import gzip

from sqlalchemy.orm import Session, sessionmaker

from ruvak.core.analyse import draw_run
from ruvak.core.rig.rig import Rig
from ruvak.core.trace.drawing import RunDrawing
from ruvak.service.analysis_parts import card_key, key_of, run_key
from ruvak.service.kept import KeptRigs, read_current
from ruvak.service.pool import Compute
from ruvak.service.problems import NotFound
from ruvak.service.states import Overview
from ruvak.service.task import as_it_is
from ruvak.service.versions import Version
from ruvak.store.solved import SolvedParts, StoredPart


class Analyses:
    """Parts of saved rigs' analyses: what is kept is read at once, what is not is computed."""

    def __init__(self, sessions: sessionmaker[Session], kept: KeptRigs, compute: Compute) -> None:
        self._sessions, self._kept, self._compute = sessions, kept, compute
        self._parts = SolvedParts(sessions)

    def overview(self, rig_id: str, version: Version) -> StoredPart:
        """The analysis at a glance. Raises NotFound, NotCurrent, RigFault, Busy."""
        return self._part(rig_id, version, "overview")

    def destinations(self, rig_id: str, version: Version) -> StoredPart:
        """What each device makes of all its inputs together. Raises as overview()."""
        return self._part(rig_id, version, "destinations")

    def connections(self, rig_id: str, version: Version) -> StoredPart:
        """Connections that close loops, ranked. Raises as overview()."""
        return self._part(rig_id, version, "connections")

    def runs(self, rig_id: str, version: Version, keys: tuple[str, ...]) -> dict[str, StoredPart]:
        """Details of runs, by the keys that the overview gives them. Raises as overview()."""
        kept = self._parts.find_all([run_key(key) for key in keys])
        result = {key: kept[run_key(key)] for key in keys if run_key(key) in kept}
        if len(result) < len(set(keys)):
            result = self._compute.run(rig_id, as_it_is("runs", rig_id, version, keys))
        return result

    def run(self, rig_id: str, version: Version, run_id: str) -> StoredPart:
        """One run in detail. Raises as overview()."""
        key = self._key_of_run(rig_id, version, run_id)
        return self.runs(rig_id, version, (key,))[key]

    def card(self, rig_id: str, version: Version, run_id: str) -> StoredPart:
        """A run's card for the line check. Raises as overview()."""
        key = self._key_of_run(rig_id, version, run_id)
        rig = self._rig(rig_id, version)
        run = next(run for run in rig.runs if run.id == run_id)
        match = self._parts.find(card_key(key, run, rig))
        return match or self._compute.run(rig_id, as_it_is("card", rig_id, version, run_id))

    def drawing(self, rig_id: str, version: Version, run_id: str) -> RunDrawing:
        """One run's conductors, traced at once, before anything is solved. Raises NotFound, NotCurrent."""
        try:
            return draw_run(self._rig(rig_id, version), run_id)
        except KeyError as unknown:
            raise _no_run(run_id) from unknown

    def _key_of_run(self, rig_id: str, version: Version, run_id: str) -> str:
        """Of a run's details, as the overview gives it."""
        overview = Overview.model_validate_json(gzip.decompress(self.overview(rig_id, version).body))
        key = next((summary.key for summary in overview.runs if summary.run == run_id), None)
        if key is None:
            raise _no_run(run_id)
        return key

    def _part(self, rig_id: str, version: Version, name: str) -> StoredPart:
        match = self._parts.find(key_of(self._rig(rig_id, version), name))
        return match or self._compute.run(rig_id, as_it_is(name, rig_id, version))

    def _rig(self, rig_id: str, version: Version) -> Rig:
        return read_current(self._sessions, self._kept, rig_id, version)


def _no_run(run_id: str) -> NotFound:
    return NotFound(f"There is no run '{run_id}' in this rig.")
