"""The run that is to be cured, as it stands in its rig."""

from ruvak.core.analyse import Analysis, RunAnalysis, RunVerdict, assess, quick_findings, rest_of_rig
from ruvak.core.analysis_cache import AnalysisCache
from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.results.norton import NortonEquivalent
from ruvak.core.rig.edits import Edit, apply
from ruvak.core.rig.prune import prune
from ruvak.core.rig.rig import Rig, Run


class Trouble:
    """A run's findings in the whole rig, and its quick findings: by itself, or with the rest of the rig around it."""

    def __init__(self, rig: Rig, run: Run, before: Analysis | None, cache: AnalysisCache) -> None:
        self.rig, self.run, self.cache = rig, run, cache
        self.sub_rig = rig.with_fields(runs=(run,))
        known = before if before is not None else assess(rig, run.id, cache)
        self.before: tuple[RunVerdict | RunAnalysis, ...] = known.runs
        self.target = (
            next(entry for entry in known.runs if entry.run == run.id)
            if isinstance(known, Analysis)
            else known.target_run
        )
        self.norton: NortonEquivalent | None = None
        self.quick = quick_findings(prune(self.sub_rig))[0]

    def include_rest(self) -> None:
        """From now on candidates are looked at in the rest of the rig: what closes their loops may be other runs."""
        self.norton = rest_of_rig(self.rig, self.run.id, self.cache)
        self.quick = quick_findings(prune(self.sub_rig), norton=self.norton)[0]

    def quick_findings_with(self, edit: Edit) -> tuple[Finding, ...]:
        """Of the run after an edit."""
        # The run by itself, so that nothing else of the rig has to be checked.
        return quick_findings(prune(apply(self.sub_rig, edit)), norton=self.norton)[0]

    def has_no_remedy(self) -> bool:
        """It is clear; or a device at its end has lost its mains earth: no wiring makes that right, and an isolator
        would take the last earth its metal has."""
        result = self.target.result
        owners = {source.gear for source in result.sources} | {receiver.gear for receiver in result.inputs}
        lost = any(gear.earth_open for gear in self.rig.gear if gear.id in owners)
        return lost or self.target.findings[0].grade is Grade.CLEAR


def hums(findings: tuple[Finding, ...]) -> bool:
    """Whether any of them is about hum."""
    return any(finding.code.is_hum for finding in findings)
