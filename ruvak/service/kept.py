"""Saved rigs kept in this process by version, brought up to date by the edits made since instead of read anew."""

from collections import OrderedDict
from threading import Lock

from sqlalchemy.orm import Session, sessionmaker

from ruvak.core.rig.collections import COLLECTIONS, CollectionName, is_collection
from ruvak.core.rig.edits import Edit, replay, touched_by
from ruvak.core.rig.rig import Rig
from ruvak.service.problems import NotCurrent, NotFound
from ruvak.service.versions import Version, version_of
from ruvak.store import history
from ruvak.store.rigs import Holders, SavedRig, read_holders, read_rig

MOST = 24
"""Rigs kept; a large one takes some megabytes."""
MOST_EDITS = 200
"""With more than these to catch up, reading the whole rig is quicker."""


class KeptRigs:
    """Rigs last used. Any number of processes may each have their own: a saved version never changes."""

    def __init__(self) -> None:
        self._rigs: OrderedDict[str, SavedRig] = OrderedDict()
        self._lock = Lock()

    def current(self, session: Session, rig_id: str, lock: bool = False) -> SavedRig:
        """A rig as it is saved; `lock`: nobody else can save it until this transaction ends. Raises NotFound."""
        holders = _holders(session, rig_id, lock)
        while True:
            with self._lock:
                kept = self._rigs.get(rig_id)
            if kept is None or not holders.is_later_than(kept.holders):
                result = read_rig(session, holders)
            elif kept.holders.versions == holders.versions:
                return kept
            else:
                edits = history.since(session, holders, kept.holders)
                result = _caught_up(kept, edits, holders) if len(edits) <= MOST_EDITS else read_rig(session, holders)
            # Unless it is locked somebody may have saved while it was read, and then part of it is later than it says.
            now = holders if lock else _holders(session, rig_id)
            if now == holders:
                self.keep(result)
                return result
            holders = now

    def keep(self, saved: SavedRig) -> None:
        """Remembers a rig as it was just saved."""
        rig_id = saved.holders.ids["rig"]
        with self._lock:
            kept = self._rigs.get(rig_id)
            if kept is None or saved.holders.is_later_than(kept.holders) or kept.holders.born != saved.holders.born:
                self._rigs[rig_id] = saved
            self._rigs.move_to_end(rig_id)
            while len(self._rigs) > MOST:
                self._rigs.popitem(last=False)

    def clear(self) -> None:
        """Keeps none any longer."""
        with self._lock:
            self._rigs.clear()


def _holders(session: Session, rig_id: str, lock: bool = False) -> Holders:
    """Which versions it stands at. Raises NotFound."""
    holders = read_holders(session, rig_id, lock)
    if holders is None:
        raise NotFound(f"There is no rig '{rig_id}' here.")
    return holders


def _caught_up(kept: SavedRig, edits: list[Edit], holders: Holders) -> SavedRig:
    rig, positions = kept.rig, kept.positions
    for edit in edits:
        rig = replay(rig, edit)
        kinds: dict[CollectionName, None] = {}
        for op in edit.ops:
            if is_collection(kind := touched_by(op).kind):
                kinds[kind] = None
        for name in kinds:
            positions, _ = positions.follow(name, tuple(thing.id for thing in COLLECTIONS[name].things(rig)))
    return SavedRig(rig, holders, positions)


def read_current(sessions: sessionmaker[Session], kept: KeptRigs, rig_id: str, version: Version | None = None) -> Rig:
    """The rig as it stands. Raises NotFound, and NotCurrent where that is no longer the version named."""
    with sessions() as session:
        saved = kept.current(session, rig_id)
    if version is not None and version != version_of(saved.holders):
        raise NotCurrent(version_of(saved.holders))
    return saved.rig
