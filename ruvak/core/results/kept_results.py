"""Results of runs kept for the next analysis: an edit moves those of most runs by a billionth.

The whole rig is solved every time, since everything hangs together by the building's earth. What a run's figures are
made from is then compared with what they were made from before: where all of it agrees, nothing is worded or counted up
again, and the run's result is the same record as before.
"""

import hashlib
from collections import OrderedDict
from dataclasses import dataclass
from threading import Lock

import numpy as np

from ruvak.core.results.records import RunResult
from ruvak.core.solve.network import Complexes, Floats

SAME_SHARE = 1e-7
"""Of the largest figure beside it, by how much a figure may differ and still be the same. What is shown lies at most
60 dB below the largest (a cancelled centre; causes 40 dB): no level is off by more than a thousandth of a decibel."""
SAME_AT_LEAST = 1e-10
"""Volts, or volts a volt, that are no difference whatever stands beside them: -198 dBu. The lowest level shown, -140,
is off by a hundredth of a decibel then."""
EACH = 4
"""Results kept of one run: as it is, as it was, as a preview or two would have it."""
MOST_BYTES = 128 * 2**20
MOST_FIGURES = 40_000
"""Of a run with more figures none are kept: on so large a rig there is no room for all, and comparing costs more."""


Figures = list[Complexes | Floats]
"""Arrays, each of figures that are compared with the largest among them."""


@dataclass(frozen=True)
class _Kept:
    key: bytes
    figures: Figures
    result: RunResult

    @property
    def size_bytes(self) -> int:
        """What its figures take; the record itself is small beside them."""
        return sum(array.nbytes for array in self.figures)


class KeptResults:
    """The results last used, a few for each run."""

    def __init__(self, most_bytes: int = MOST_BYTES) -> None:
        self._most_bytes, self._bytes = most_bytes, 0
        self._kept: OrderedDict[tuple[str, str], list[_Kept]] = OrderedDict()
        self._lock = Lock()

    def find(self, rig_id: str, run_id: str, key: bytes, figures: Figures) -> RunResult | None:
        """The result that was made from the same. `key`: of all that is no figure; `figures`: all that is solved."""
        with self._lock:
            known = list(self._kept.get((rig_id, run_id), ()))
        for entry in known:
            if entry.key == key and same(entry.figures, figures):
                return entry.result
        return None

    def keep(self, rig_id: str, run_id: str, key: bytes, figures: Figures, result: RunResult) -> None:
        """Forgets the oldest to make room."""
        with self._lock:
            of_run = self._kept.setdefault((rig_id, run_id), [])
            self._kept.move_to_end((rig_id, run_id))
            of_run.insert(0, _Kept(key, figures, result))
            self._bytes += of_run[0].size_bytes - sum(old.size_bytes for old in of_run[EACH:])
            del of_run[EACH:]
            while self._bytes > self._most_bytes and self._kept:
                _, oldest = self._kept.popitem(last=False)
                self._bytes -= sum(old.size_bytes for old in oldest)


def same(before: Figures, after: Figures) -> bool:
    """Whether two lists of arrays agree within SAME_SHARE and SAME_AT_LEAST."""
    if len(before) != len(after):
        return False
    return all(_alike(entry, other) for entry, other in zip(before, after, strict=True))


def _alike(before: Complexes | Floats, after: Complexes | Floats) -> bool:
    if before.shape != after.shape:
        return False
    allowed = max(SAME_SHARE * float(np.abs(before).max(initial=0.0)), SAME_AT_LEAST)
    return float(np.abs(after - before).max(initial=0.0)) <= allowed


def digest(*texts: str | bytes) -> bytes:
    """A short name for all of these together."""
    whole = hashlib.blake2b(digest_size=20)
    for text in texts:
        whole.update(text.encode() if isinstance(text, str) else text)
        whole.update(b"\0")
    return whole.digest()
