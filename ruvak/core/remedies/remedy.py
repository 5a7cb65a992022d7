"""An edit with its effect, solved before anyone sees it."""

from ruvak.core.analyse import RunAnalysis
from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Grade, Verdict
from ruvak.core.rig.edits import Edit
from ruvak.core.rig.values import Id, Record


class Figures(Record):
    """What a run comes to where it is heard: the numbers a remedy is judged by."""

    grade: Grade
    """Worst grade."""
    codes: tuple[FindingCode, ...]
    """Its findings."""
    centre_db: float | None
    """What is left of the centre in dB; null where there is none."""
    arriving_dbu: float | None
    """Level that arrives in dBu; null where nothing does."""
    headroom_db: float | None
    """Headroom in dB; null where nothing arrives."""
    hum_below_db: float | None
    """A-weighted, under the programme, at the worst input."""


class Effect(Record):
    """One run before and after."""

    run: Id
    """The run."""
    name: str
    """What it is called."""
    before: Figures
    """How it is."""
    after: Figures
    """How it would be."""


class Needed(Record):
    """Something the remedy uses, and whether it is in the kit."""

    item: Id
    """The kit item."""
    words: str
    """What it is, in words."""
    in_kit: bool
    """Whether it is owned."""


class Remedy(Record):
    """`helps` is False for what people try that does not cure; `changes` counts things done by hand."""

    id: str
    """Its name."""
    title: str
    """What it does."""
    detail: str
    """With what."""
    effect: str
    """What it changes, in a sentence."""
    helps: bool
    """Whether it helps."""
    edit: Edit
    """The change to the rig."""
    pieces: tuple[Needed, ...]
    """What it takes."""
    changes: int
    """How many things have to be changed."""
    caution: str
    """What never to do on the way; empty where nobody is tempted."""
    effects: tuple[Effect, ...]
    """The run itself first, then every other run it touches."""
    verdict: Verdict
    """The whole rig afterwards."""
    after: RunAnalysis
    """The run afterwards."""
