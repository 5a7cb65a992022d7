"""What one analysis leaves for the next, so that an edit costs less. Only a saving: answers are the same without."""

from dataclasses import dataclass, field

from ruvak.core.results.kept_results import KeptResults
from ruvak.core.solve.block_cache import BlockCache
from ruvak.core.trace.kept_drawings import KeptDrawings


@dataclass(frozen=True)
class AnalysisCache:
    """Solutions of blocks of the network, results and drawings of runs."""

    blocks: BlockCache = field(default_factory=BlockCache)
    results: KeptResults = field(default_factory=KeptResults)
    drawings: KeptDrawings = field(default_factory=KeptDrawings)
