"""Drawings of runs kept for the next analysis: after an edit all but a few are the same again.

A drawing is known by all it is made of, so nothing kept can be out of date.
"""

from collections import OrderedDict
from threading import Lock

from ruvak.core.rig.rig import Rig, Run
from ruvak.core.trace.drawing import RunDrawing, draw
from ruvak.core.trace.trace import Trace

MOST = 4096


class KeptDrawings:
    """The drawings last used, up to so many."""

    def __init__(self, most: int = MOST) -> None:
        self._most = most
        self._kept: OrderedDict[bytes, RunDrawing] = OrderedDict()
        self._lock = Lock()

    def draw(self, rig: Rig, traced: Trace, run: Run) -> RunDrawing:
        """As draw() answers."""
        key = content_of_run(rig, traced, run)
        with self._lock:
            known = self._kept.get(key)
            if known is not None:
                self._kept.move_to_end(key)
                return known
        drawn = draw(rig, traced, run)
        with self._lock:
            self._kept[key] = drawn
            while len(self._kept) > self._most:
                self._kept.popitem(last=False)
        return drawn


def content_of_run(rig: Rig, traced: Trace, run: Run) -> bytes:
    """A name for the run and every device and piece on it: itself, its part, its metal as its switches stand."""
    owners = dict.fromkeys((*run.pieces, *run.owners))
    return run.content_digest + b"".join(_owner_key(rig, traced, owner) for owner in owners)


def _owner_key(rig: Rig, traced: Trace, owner: str) -> bytes:
    known = traced.drawing_cache.keys
    if owner not in known:
        # What a switch closes is the only part of a device's metal that its part does not say by itself.
        metal = hash(tuple(traced.inside.get(owner, ())))
        digests = rig.owners_by_id[owner].content_digest + rig.part_of(owner).content_digest
        known[owner] = digests + metal.to_bytes(8, "little", signed=True)
    return known[owner]
