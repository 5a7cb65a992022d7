"""What is likely when a run is not as it should be: every broken conductor and every other position of a switch, solved
in the run's own network, and what stands beside the wiring."""

from collections.abc import Iterator

from ruvak.core.analyse import Analysis, quick_verdicts, rest_of_rig
from ruvak.core.analysis_cache import AnalysisCache
from ruvak.core.judge.symptoms import Heard, symptoms
from ruvak.core.prepare import prepare
from ruvak.core.remedies.settings import settings_edits
from ruvak.core.rig.edits import apply
from ruvak.core.rig.prune import prune
from ruvak.core.rig.rig import KitItem, Rig, Run, runs_on_battery
from ruvak.core.rig.values import Record
from ruvak.core.steps.broken import broken_leads

WEIGHTS = {"channel": 6.0, "socket": 4.0, "switch": 3.0, "supply": 3.0, "lead": 2.0, "gain": 4.0}
"""How often each turns out to be the cause, against each other: common practice, no source."""
SUSPECT_TIMES = 6.0
"""A lead that somebody has marked as suspect or faulty, against one in order: common practice, no source."""
MOST_EACH = 5
PLAIN_LEAD = 3
"""A lead or a Y lead has so many plugs; what has more has several lines."""


Weighed = tuple[Heard, str, float, tuple[str, ...]]
"""A symptom, what causes it in words, its weight, and the things it concerns."""


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
    weighed: dict[Heard, dict[str, tuple[float, tuple[str, ...]]]] = {}
    for heard, words, weight, things in (*_solved(rig, run, analysis, cache), *_beside(rig, run)):
        known, _ = weighed.setdefault(heard, {}).get(words, (0.0, ()))
        weighed[heard][words] = (known + weight, things)
    return tuple(cause for heard, causes in weighed.items() for cause in _ranked(heard, causes))


def _ranked(heard: Heard, causes: dict[str, tuple[float, tuple[str, ...]]]) -> Iterator[LikelyCause]:
    total = sum(weight for weight, _ in causes.values())
    by_weight = sorted(causes.items(), key=lambda entry: -entry[1][0])
    for words, (weight, things) in by_weight[:MOST_EACH]:
        yield LikelyCause(heard=heard, words=words, share=round(weight / total, 3), things=things)


def _solved(rig: Rig, run: Run, analysis: Analysis | None, cache: AnalysisCache | None) -> Iterator[Weighed]:
    """Each broken conductor and each other position of a switch, with the rest of the rig around the run."""
    alone = rig.with_fields(runs=(run,))
    norton = rest_of_rig(rig, run.id, cache)
    (right,) = quick_verdicts(prune(alone), norton=norton)
    contacts: dict[tuple[Heard, str], list[str]] = {}
    for broken in broken_leads(alone, run):
        (wrong,) = quick_verdicts(prune(broken.rig), norton=norton)
        heard_of_it = symptoms(right, wrong)
        for heard in heard_of_it:
            contacts.setdefault((heard, broken.item.id), []).append(broken.contact)
        if heard_of_it:
            contacts.setdefault(("crackle", broken.item.id), [])
    kit = {item.id: item for item in rig.kit}
    for (heard, item_id), where in contacts.items():
        yield heard, _broken_words(rig, kit[item_id], where), WEIGHTS["lead"] * _times(kit[item_id]), (item_id,)
    own = next((each for each in analysis.runs if each.run == run.id), None) if analysis is not None else None
    for edit in settings_edits(rig, own) if own is not None else ():
        (wrong,) = quick_verdicts(prune(apply(alone, edit)), norton=norton)
        for heard in symptoms(right, wrong):
            things = tuple(op.id for op in edit.ops if op.op == "set" and op.id is not None)
            yield heard, f"a switch stands otherwise ({edit.label})", WEIGHTS["switch"], things


def _broken_words(rig: Rig, item: KitItem, contacts: list[str]) -> str:
    """What to do with it: a lead is swapped; of a multicore or a box another line is used. Without contacts: a plug."""
    several = len(rig.part_of(item.id).connectors) > PLAIN_LEAD
    cure = f"try another line of {item.tag}" if several else f"swap {item.tag}"
    if not contacts:
        return f"a plug of {item.tag} is loose or its solder breaks: wiggle each end, then {cure}"
    return f"{' or '.join(dict.fromkeys(contacts))} of {item.tag} is broken: {cure}"


def _times(item: KitItem) -> float:
    return 1.0 if item.condition == "good" else SUSPECT_TIMES


def _beside(rig: Rig, run: Run) -> Iterator[Weighed]:
    """What no wiring shows: a channel that is muted, a neighbour's socket, an empty battery."""
    gear = {each.id: each for each in rig.gear}
    ends = [end for end in run.ends if end.owner in gear]
    if not ends:
        return
    source, into = gear[ends[0].owner], gear[ends[-1].owner]
    at_desk, at_source = (into.id,), (source.id,)
    channel, gain = WEIGHTS["channel"], WEIGHTS["gain"]
    yield "silent", f"the channel at {into.name} is muted, its fader down or its source another", channel, at_desk
    yield "silent", f"{source.name} is muted, off or turned down", channel, at_source
    yield "silent", "the plug is in the neighbour's socket: follow the lead with a hand", WEIGHTS["socket"], ()
    yield "weak", f"the gain at {into.name} is too low", gain, at_desk
    yield "distorted", f"the gain at {into.name} is too high: back until the clip light stays off", gain, at_desk
    yield "distorted", f"{source.name} itself is too loud", gain / 2, at_source
    if runs_on_battery(source, rig.part_of(source.id)):
        yield "silent", f"the battery of {source.name} is empty", WEIGHTS["supply"], at_source
        yield "crackle", f"the battery of {source.name} is nearly empty", WEIGHTS["supply"], at_source
