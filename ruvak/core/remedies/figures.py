"""The figures of a run that are compared before and after."""

from ruvak.core.analyse import RunAnalysis, RunVerdict
from ruvak.core.judge.rule import active
from ruvak.core.remedies.remedy import Figures

HUM_TOLD_DB = 90.0
"""Hum further under the programme than this is nobody's concern."""


def figures_of(answer: RunVerdict | RunAnalysis) -> Figures:
    """The sum where the run is heard (its first mix, else its first input), levels at its inputs."""
    result = answer.result
    sums = [mix.sum for mix in result.mixes] or [receiver.sum for receiver in result.inputs[:1]]
    heard = result.inputs if result.data is None else ()
    levels = [level for receiver in heard if (level := active(receiver)) is not None]
    hums = [receiver.hum.below_programme_db for receiver in heard if receiver.hum is not None]
    return Figures(
        grade=answer.findings[0].grade,
        codes=tuple(finding.code for finding in answer.findings),
        centre_db=_thousandths(sums[0].centre_db if sums and sums[0] else None),
        arriving_dbu=_thousandths(max((level.arriving_dbu for level in levels), default=None)),
        headroom_db=_thousandths(min((level.headroom_db for level in levels), default=None)),
        hum_below_db=_told(min((below for below in hums if below is not None), default=None)),
    )


def _told(below_db: float | None) -> float | None:
    """Hum moves a little with everything that is plugged in: a tenth counts, and nothing beyond HUM_TOLD_DB."""
    return None if below_db is None else min(HUM_TOLD_DB, round(below_db, 1))


def _thousandths(level_db: float | None) -> float | None:
    """A run whose figures move by less is not touched: the last bits of a solution differ with every change."""
    return None if level_db is None else round(level_db, 3)
