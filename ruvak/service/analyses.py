"""Analyses of saved rigs in parts, computed once for each content and kept for every process."""

import gzip

from sqlalchemy.orm import Session, sessionmaker

from ruvak.service.analysis_parts import key_of, run_key
from ruvak.service.kept import KeptRigs
from ruvak.service.pool import Compute, as_it_is
from ruvak.service.problems import NotCurrent, NotFound
from ruvak.service.states import Overview
from ruvak.service.versions import Version, version_of
from ruvak.store.solved import Part, SolvedParts


class Analyses:
    """Parts of saved rigs' analyses: what is kept is read at once, what is not is computed."""

    def __init__(self, sessions: sessionmaker[Session], kept: KeptRigs, compute: Compute) -> None:
        self._sessions, self._kept, self._compute = sessions, kept, compute
        self._parts = SolvedParts(sessions)

    def overview(self, rig_id: str, version: Version) -> Part:
        """The analysis at a glance. Raises NotFound, NotCurrent, RigFault, Busy."""
        return self._part(rig_id, version, "overview")

    def destinations(self, rig_id: str, version: Version) -> Part:
        """What each device makes of all its inputs together. Raises as overview()."""
        return self._part(rig_id, version, "destinations")

    def connections(self, rig_id: str, version: Version) -> Part:
        """Connections that close loops, ranked. Raises as overview()."""
        return self._part(rig_id, version, "connections")

    def runs(self, rig_id: str, version: Version, keys: tuple[str, ...]) -> dict[str, Part]:
        """Details of runs, by the keys that the overview gives them. Raises as overview()."""
        kept = self._parts.find_all([run_key(key) for key in keys])
        result = {key: kept[run_key(key)] for key in keys if run_key(key) in kept}
        if len(result) < len(set(keys)):
            result = self._compute.run(rig_id, as_it_is("runs", rig_id, version, keys))
        return result

    def run(self, rig_id: str, version: Version, run_id: str) -> Part:
        """One run in detail. Raises as overview()."""
        overview = Overview.model_validate_json(gzip.decompress(self.overview(rig_id, version).body))
        for summary in overview.runs:
            if summary.run == run_id:
                return self.runs(rig_id, version, (summary.key,))[summary.key]
        raise NotFound(f"There is no run '{run_id}' in this rig.")

    def _part(self, rig_id: str, version: Version, name: str) -> Part:
        with self._sessions() as session:
            saved = self._kept.current(session, rig_id)
        if version != version_of(saved.holders):
            raise NotCurrent(version_of(saved.holders))
        match = self._parts.find(key_of(saved.rig, name))
        return match or self._compute.run(rig_id, as_it_is(name, rig_id, version))
