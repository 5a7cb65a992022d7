"""What is likely when a run is not as it should be: what was computed of it as planned; every broken conductor, every
other position of a switch and what may be otherwise around it, solved in the run's own network; and what stands beside
the wiring."""

from collections.abc import Iterator
from dataclasses import replace

from ruvak.core.analyse import Analysis, RunAnalysis, quick_verdicts, rest_of_rig
from ruvak.core.analysis_cache import AnalysisCache
from ruvak.core.judge.finding import Grade
from ruvak.core.judge.symptoms import Heard, heard_of, symptoms
from ruvak.core.prepare import prepare
from ruvak.core.remedies.settings import settings_edits
from ruvak.core.rig.edits import apply
from ruvak.core.rig.prune import prune
from ruvak.core.rig.rig import KitItem, Rig, Run
from ruvak.core.rig.values import Record
from ruvak.core.steps.beside import Suspicion, beside, carries_data
from ruvak.core.steps.broken import broken_leads
from ruvak.core.steps.departures import departures

SOLVED_WEIGHTS = {"switch": 3.0, "lead": 2.0, "elsewhere": 1.0}
PLANNED_WEIGHTS = {Grade.STOP: 30.0, Grade.FIX: 15.0, Grade.WATCH: 5.0}
"""What was computed to be so is looked at first. How often each turns out to be the cause, against what stands in
`beside`: common practice, no source."""
SUSPECT_TIMES = 6.0
"""A lead that somebody has marked as suspect or faulty, against one in order: common practice, no source."""
SYMPTOMS_OF_DATA: tuple[Heard, ...] = ("silent", "crackle")
"""What can be noticed of a line of lighting data: lamps that do nothing, and lamps that flicker or jump."""
MOST_EACH = 5
PLAIN_LEAD = 3
"""A lead or a Y lead has so many plugs; what has more has several lines."""


class LikelyCause(Record):
    """Something that would be heard so."""

    heard: Heard
    """As what."""
    words: str
    """What it is, and what to do to find out."""
    share: float
    """Its share among the causes of this symptom, 0 to 1, by how often each turns out to be it."""
    things: tuple[str, ...]
    """Devices and pieces that it concerns."""


def likely_causes(
    rig: Rig, run_id: str, analysis: Analysis | None = None, cache: AnalysisCache | None = None
) -> tuple[LikelyCause, ...]:
    """By symptom, the likeliest first. KeyError for an unknown run."""
    rig = prepare(rig)
    run = next((run for run in rig.runs if run.id == run_id), None)
    if run is None:
        raise KeyError(run_id)
    own = next((each for each in analysis.runs if each.run == run.id), None) if analysis is not None else None
    by_symptom: dict[Heard, dict[str, Suspicion]] = {}
    wiring = _broken_data(rig, run) if carries_data(rig, run) else _solved(rig, run, own, cache)
    for suspicion in (*_planned(own), *wiring, *beside(rig, run)):
        causes = by_symptom.setdefault(suspicion.heard, {})
        known = causes.get(suspicion.words)
        weight = suspicion.weight + (known.weight if known is not None else 0.0)
        causes[suspicion.words] = replace(suspicion, weight=weight)
    return tuple(cause for heard, causes in by_symptom.items() for cause in _ranked(heard, tuple(causes.values())))


def _ranked(heard: Heard, causes: tuple[Suspicion, ...]) -> Iterator[LikelyCause]:
    total = sum(cause.weight for cause in causes)
    for cause in sorted(causes, key=lambda each: -each.weight)[:MOST_EACH]:
        share = round(cause.weight / total, 3)
        yield LikelyCause(heard=heard, words=cause.words, share=share, things=cause.things)


def _planned(own: RunAnalysis | None) -> Iterator[Suspicion]:
    """What was computed of the run as it is planned."""
    for finding in own.findings if own is not None else ():
        heard = heard_of(finding)
        if heard is not None and finding.grade in PLANNED_WEIGHTS:
            yield Suspicion(heard, f"as computed: {finding.sentence}", PLANNED_WEIGHTS[finding.grade], finding.items)


def _solved(rig: Rig, run: Run, own: RunAnalysis | None, cache: AnalysisCache | None) -> Iterator[Suspicion]:
    """Each broken conductor, each other position of a switch and what is otherwise around the run, with the rest of the
    rig around it."""
    alone = rig.with_fields(runs=(run,))
    norton = rest_of_rig(rig, run.id, cache)
    (right,) = quick_verdicts(prune(alone), norton=norton)

    def heard_with(other: Rig) -> tuple[Heard, ...]:
        (wrong,) = quick_verdicts(prune(other), norton=norton)
        return symptoms(right, wrong)

    contacts: dict[tuple[Heard, str], list[str]] = {}
    for broken in broken_leads(alone, run):
        heard_of_it = heard_with(broken.rig)
        for heard in heard_of_it:
            contacts.setdefault((heard, broken.item.id), []).append(broken.contact)
        if heard_of_it:
            contacts.setdefault(("crackle", broken.item.id), [])
    kit = {item.id: item for item in rig.kit}
    for (heard, item_id), where in contacts.items():
        weight = SOLVED_WEIGHTS["lead"] * _times(kit[item_id])
        yield Suspicion(heard, _broken_words(rig, kit[item_id], where), weight, (item_id,))
    for edit in settings_edits(rig, own) if own is not None else ():
        things = tuple(op.id for op in edit.ops if op.op == "set" and op.id is not None)
        for heard in heard_with(apply(alone, edit)):
            words = f"a switch stands otherwise ({edit.label})"
            yield Suspicion(heard, words, SOLVED_WEIGHTS["switch"], things)
    for departure in departures(alone, run):
        for heard in heard_with(apply(alone, departure.edit)):
            yield Suspicion(heard, departure.words, SOLVED_WEIGHTS["elsewhere"], (departure.thing,))


def _broken_data(rig: Rig, run: Run) -> Iterator[Suspicion]:
    """A line of data with one broken conductor may still work at times, so each is named for both."""
    contacts: dict[KitItem, list[str]] = {}
    for broken in broken_leads(rig.with_fields(runs=(run,)), run):
        contacts.setdefault(broken.item, []).append(broken.contact)
    for item, where in contacts.items():
        for heard in SYMPTOMS_OF_DATA:
            words = _broken_words(rig, item, where)
            yield Suspicion(heard, words, SOLVED_WEIGHTS["lead"] * _times(item), (item.id,))


def _broken_words(rig: Rig, item: KitItem, contacts: list[str]) -> str:
    """What to do with it: a lead is swapped; of a multicore or a box another line is used. Without contacts: a plug."""
    several = len(rig.part_of(item.id).connectors) > PLAIN_LEAD
    cure = f"try another line of {item.tag}" if several else f"swap {item.tag}"
    if not contacts:
        return f"a plug of {item.tag} is loose or its solder breaks: wiggle each end, then {cure}"
    return f"{' or '.join(dict.fromkeys(contacts))} of {item.tag} is broken: {cure}"


def _times(item: KitItem) -> float:
    return 1.0 if item.condition == "good" else SUSPECT_TIMES
