"""An edit with its effect, solved before anyone sees it."""

from ruvak.core.analyse import RunAnalysis
from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Grade, Verdict
from ruvak.core.rig.edits import Edit
from ruvak.core.rig.values import Id, Record


class Figures(Record):
    """What a run comes to where it is heard: the numbers a remedy is judged by."""

    grade: Grade
    codes: tuple[FindingCode, ...]
    centre_db: float | None
    arriving_dbu: float | None
    headroom_db: float | None
    hum_below_db: float | None
    """A-weighted, under the programme, at the worst input."""


class Effect(Record):
    """One run before and after."""

    run: Id
    name: str
    before: Figures
    after: Figures


class Needed(Record):
    """Something the remedy uses, and whether it is in the kit."""

    item: Id
    words: str
    in_kit: bool


class Remedy(Record):
    """`helps` is False for what people try that does not cure; `changes` counts things done by hand."""

    id: str
    title: str
    detail: str
    effect: str
    helps: bool
    edit: Edit
    pieces: tuple[Needed, ...]
    changes: int
    caution: str
    """What never to do on the way; empty where nobody is tempted."""
    effects: tuple[Effect, ...]
    """The run itself first, then every other run it touches."""
    verdict: Verdict
    after: RunAnalysis
