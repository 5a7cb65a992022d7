"""What one analysis leaves for the next, so that an edit costs less. Only a saving: answers are the same without."""

from dataclasses import dataclass, field

from ruvak.core.circuit.build import build
from ruvak.core.circuit.circuit import Circuit
from ruvak.core.prepare import prepare
from ruvak.core.results.kept_results import KeptResults
from ruvak.core.rig.prune import prune
from ruvak.core.rig.rig import Rig
from ruvak.core.solve.block_cache import BlockCache
from ruvak.core.trace.kept_drawings import KeptDrawings
from ruvak.core.trace.trace import Trace, trace


@dataclass(frozen=True)
class BuiltRig:
    """A rig with its own parts and assumptions, checked; the same without what nothing uses, its trace and network."""

    whole: Rig
    used: Rig
    traced: Trace
    circuit: Circuit


class LastBuilt:
    """The network of the rig that was asked for last: its verdict and its connections are asked for in turn."""

    def __init__(self) -> None:
        self._asked: Rig | None = None
        self._built: BuiltRig | None = None

    def of(self, rig: Rig) -> BuiltRig:
        """Of any rig; of the very same one as before what was built then. Raises RigFault."""
        if self._built is None or self._asked is not rig:
            whole = prepare(rig)
            used = prune(whole)
            traced = trace(used)
            self._built = BuiltRig(whole, used, traced, build(used, traced))
            self._asked = rig
        return self._built


@dataclass(frozen=True)
class AnalysisCache:
    """Solutions of blocks of the network, results and drawings of runs, the network of the last rig."""

    blocks: BlockCache = field(default_factory=BlockCache)
    results: KeptResults = field(default_factory=KeptResults)
    drawings: KeptDrawings = field(default_factory=KeptDrawings)
    built: LastBuilt = field(default_factory=LastBuilt)
