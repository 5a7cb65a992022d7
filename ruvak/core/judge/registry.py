"""Every rule, once, and the order in which findings are told."""

from collections.abc import Mapping, Sequence

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import SEVERITY, Finding, Grade, RigFinding, Verdict
from ruvak.core.judge.rig_rules.leakage import leakage
from ruvak.core.judge.rig_rules.lost_earth import lost_earth
from ruvak.core.judge.rule import RigRule, Rule, active, finding, input_words
from ruvak.core.judge.rules.body import body
from ruvak.core.judge.rules.centre import centre
from ruvak.core.judge.rules.classes import WORDS, classes
from ruvak.core.judge.rules.condition import condition
from ruvak.core.judge.rules.crosstalk import crosstalk
from ruvak.core.judge.rules.data import data
from ruvak.core.judge.rules.hosts import hosts
from ruvak.core.judge.rules.hum import hum
from ruvak.core.judge.rules.level import level
from ruvak.core.judge.rules.load import load
from ruvak.core.judge.rules.loudspeaker import loudspeaker
from ruvak.core.judge.rules.phantom import phantom
from ruvak.core.judge.rules.saturation import saturation
from ruvak.core.judge.rules.sides import sides
from ruvak.core.judge.rules.silence import silence
from ruvak.core.judge.rules.sleeve import sleeve
from ruvak.core.judge.rules.tone import tone
from ruvak.core.judge.rules.touch import touch
from ruvak.core.judge.rules.uncertain import uncertain
from ruvak.core.judge.sentences import number, written
from ruvak.core.results.line_records import DataLine
from ruvak.core.results.records import InputResult, Levels, RunResult
from ruvak.core.results.variants import MatingResult
from ruvak.core.rig.rig import Rig

RULES: tuple[Rule, ...] = (
    classes,
    data,
    sleeve,
    silence,
    phantom,
    centre,
    sides,
    load,
    level,
    loudspeaker,
    tone,
    saturation,
    hum,
    crosstalk,
    condition,
    hosts,
    touch,
    body,
)
OF_SOUND: frozenset[Rule] = frozenset({load, level, tone, saturation, hum, crosstalk, body})
"""What nobody asks of a run that carries data."""
RIG_RULES: tuple[RigRule, ...] = (lost_earth, leakage)


def judge(
    rig: Rig, results: tuple[RunResult, ...], matings: Mapping[int, Sequence[MatingResult]] | None = None
) -> tuple[tuple[Finding, ...], ...]:
    """Findings of each run, worst first; a run about which nothing is to be said gets its Clear.

    `matings`: what each possibility of an uncertain contact comes to, by the run's place in the rig.
    """
    return tuple(_of_run(rig, result, (matings or {}).get(index, ())) for index, result in enumerate(results))


def judge_rig(rig: Rig) -> tuple[RigFinding, ...]:
    """What is said of the whole rig at once, worst first; devices that no run touches count here."""
    result = [entry for rule in RIG_RULES for entry in rule(rig)]
    return tuple(sorted(result, key=lambda finding: SEVERITY[finding.grade]))


def verdict(findings: tuple[tuple[Finding, ...], ...], of_rig: tuple[RigFinding, ...]) -> Verdict:
    """The whole rig in four counts."""
    worst = [finding[0].grade for finding in findings] + [finding.grade for finding in of_rig]
    return Verdict(**{grade.value: worst.count(grade) for grade in Grade})


def _of_run(rig: Rig, result: RunResult, matings: Sequence[MatingResult]) -> tuple[Finding, ...]:
    rules = [rule for rule in RULES if result.data is None or rule not in OF_SOUND]
    answer = _together([entry for rule in rules for entry in rule(rig, result)])
    answer += uncertain(rig, result, matings)
    if answer:
        return tuple(sorted(answer, key=lambda finding: SEVERITY[finding.grade]))
    return (_clear(rig, result),)


def _together(result: list[Finding]) -> list[Finding]:
    """What is said of several inputs of one device in the same words and figures is said once."""
    groups: dict[tuple[object, ...], list[Finding]] = {}
    for entry in result:
        said = tuple(
            (name, number(x) if isinstance(x, float) else x) for name, x in entry.params.items() if name != "place"
        )
        at = str(entry.params.get("place", "")).split(", ")[0]
        groups.setdefault((entry.code, entry.grade, entry.items, at, said, "" if at else entry.subject), []).append(
            entry
        )
    return [_as_one(group) for group in groups.values()]


def _as_one(group: list[Finding]) -> Finding:
    first = group[0]
    if len(group) == 1 or "place" not in first.params:
        return first
    gear, _, label = str(first.params["place"]).partition(", ")
    labels = [label, *(str(member.params["place"]).partition(", ")[2] for member in group[1:])]
    params = {**first.params, "place": f"{gear}, {', '.join(labels[:-1])} and {labels[-1]}"}
    words = written(first.code, params)
    return first.model_copy(
        update={"params": params, "sentence": words.sentence, "advice": words.advice, "caution": words.caution}
    )


def _room(input_result: InputResult, level: Levels) -> str:
    """How much more would be borne there: of a loudspeaker told in watts."""
    if input_result.loudspeaker is None:
        return f"with {number(level.headroom_db)} dB of headroom"
    return (
        f"(at most {number(input_result.loudspeaker.peak_w)} W, it bears {number(input_result.loudspeaker.rated_w)} W)"
    )


def _clear(rig: Rig, result: RunResult) -> Finding:
    if result.data is not None:
        return _clear_data(rig, result, result.data)
    levels = [(receiver, level) for receiver in result.inputs if (level := active(receiver)) is not None]
    heard, tightest = min(levels, key=lambda pair: pair[1].headroom_db)
    params: dict[str, float | str] = {
        "place": input_words(rig, heard),
        "arriving_dbu": tightest.arriving_dbu,
        "headroom_db": tightest.headroom_db,
        "room": _room(heard, tightest),
    }
    return finding(FindingCode.CLEAR, Grade.CLEAR, result, heard.gear, heard.input, params)


def _clear_data(rig: Rig, result: RunResult, line: DataLine) -> Finding:
    last = result.inputs[-1]
    params: dict[str, float | str] = {
        "place": input_words(rig, last),
        "carries": WORDS[line.carries].capitalize(),
        "length_m": line.length_m,
        "limit_m": line.limit_m,
    }
    return finding(FindingCode.DATA_CLEAR, Grade.CLEAR, result, last.gear, last.input, params)
