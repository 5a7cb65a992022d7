"""What somebody hears when something is wrong with a run, told from how its solution differs from the right one."""

from typing import Literal, Protocol

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Finding
from ruvak.core.judge.rule import active, alive
from ruvak.core.results.records import InputResult, RunResult

Heard = Literal["silent", "one_side", "thin", "hum", "crackle", "weak", "distorted"]
HEARD_IN_WORDS: dict[Heard, str] = {
    "silent": "silent",
    "one_side": "one side only",
    "thin": "thin and hollow",
    "hum": "hum or buzz",
    "crackle": "crackle",
    "weak": "weak",
    "distorted": "distorted",
}

SILENT_DB, SIDE_DB = 40.0, 20.0
"""A loss after which nothing is followed in a hall, and one after which a side counts as gone."""
WEAK_DB = 3.0
"""The least loss of level that is noticed at a desk: half the power."""
CANCELS_DB = 9.0
"""A loss of what both sides share, beyond that of the sides."""
HUM_DB, HUM_BELOW_DB = 10.0, 45.0
"""Hum that has risen so far and lies less than this under the programme is heard in a pause."""
_THIN = frozenset({FindingCode.THIN, FindingCode.DULL})

_HEARD_OF: dict[FindingCode, Heard] = {
    FindingCode.SILENT: "silent",
    FindingCode.NOT_CONNECTED: "silent",
    FindingCode.PHANTOM_MISSING: "silent",
    FindingCode.SOURCE_LOST: "silent",
    FindingCode.SIDE_MISSING: "one_side",
    FindingCode.ONE_SIDED: "one_side",
    FindingCode.CENTRE_CANCELS: "thin",
    FindingCode.CENTRE_WEAKENED: "thin",
    FindingCode.MONO_CANCELS: "thin",
    FindingCode.SOURCES_OPPOSED: "thin",
    FindingCode.INVERTED: "thin",
    FindingCode.THIN: "thin",
    FindingCode.DULL: "thin",
    FindingCode.HUM: "hum",
    FindingCode.HUM_ALONE: "hum",
    FindingCode.BODY_FLOATS: "hum",
    FindingCode.EARTH_LOST: "hum",
    FindingCode.SUSPECT: "crackle",
    FindingCode.UNUSABLE: "crackle",
    FindingCode.CONTACT_UNCERTAIN: "crackle",
    FindingCode.PHANTOM_LOW: "distorted",
    FindingCode.LEVEL_LOW: "weak",
    FindingCode.LINE_LOSS: "weak",
    FindingCode.LOAD_LOW: "weak",
    FindingCode.LEVEL_CLIPS: "distorted",
    FindingCode.LEVEL_CLOSE: "distorted",
    FindingCode.SATURATES: "distorted",
    FindingCode.OVERPOWERED: "distorted",
    FindingCode.AMPLIFIED_INTO_INPUT: "distorted",
}


class Judged(Protocol):
    """A run's figures and findings."""

    @property
    def result(self) -> RunResult:
        """Its figures."""
        ...

    @property
    def findings(self) -> tuple[Finding, ...]:
        """What there is to say about it."""
        ...


def symptoms(before: Judged, after: Judged) -> tuple[Heard, ...]:
    """What is heard of a fault, the plainest first; empty where nobody hears it."""
    result: list[Heard] = []
    pairs = list(zip(before.result.inputs, after.result.inputs, strict=False))
    lost = [_loss_db(b, a) >= SILENT_DB for b, a in pairs]
    if (
        not any(alive(receiver.channels) for receiver in after.result.inputs)
        or all(lost)
        or _phantom_lost(before, after)
    ):
        result.append("silent")
    else:
        if any(lost) or any(_side_lost(b, a) for b, a in pairs):
            result.append("one_side")
        if any(_cancels(b, a) for b, a in pairs) or (_codes(after) - _codes(before)) & _THIN:
            result.append("thin")
        elif any(_loss_db(b, a) >= WEAK_DB for b, a in pairs) and "one_side" not in result:
            result.append("weak")
    if any(_hums(b, a) for b, a in pairs):
        result.append("hum")
    if FindingCode.LEVEL_CLIPS in _codes(after) - _codes(before):
        result.append("distorted")
    return tuple(result)


def heard_of(finding: Finding) -> Heard | None:
    """As what a finding is noticed at the desk; None where it is not heard, or as nothing of these."""
    return _HEARD_OF.get(finding.code)


def heard_words(before: Judged, after: Judged) -> str:
    """What is heard of a fault, in a sentence with its figures."""
    heard = symptoms(before, after)
    if not heard:
        return "By ear it may go unnoticed here."
    if heard == ("silent",) and _phantom_lost(before, after):
        return "Phantom does not arrive, so nothing will be heard."
    pairs = list(zip(before.result.inputs, after.result.inputs, strict=False))
    loss_db = max((_loss_db(b, a) for b, a in pairs), default=0.0)
    is_faint = heard[0] == "silent" and any(alive(receiver.channels) for receiver in after.result.inputs)
    said = [_HEARD_AS[each] for each in heard]
    if is_faint:
        said[0] = f"nearly silent, {loss_db:.0f} dB weaker"
    if heard[0] != "silent" and loss_db >= WEAK_DB:
        said = [f"{loss_db:.0f} dB weaker", *(words for words in said if words != _HEARD_AS["weak"])]
    *first, last = said
    return f"It will be {', '.join(first)}{' and ' if first else ''}{last}."


_HEARD_AS: dict[Heard, str] = {
    "silent": "silent",
    "one_side": "heard on one side only",
    "thin": "thin and hollow",
    "hum": "full of hum",
    "crackle": "crackling",
    "weak": "weaker",
    "distorted": "distorted",
}


def _codes(verdict: Judged) -> frozenset[FindingCode]:
    return frozenset(finding.code for finding in verdict.findings)


def _phantom_lost(before: Judged, after: Judged) -> bool:
    """What needs phantom gives nothing without it."""
    return FindingCode.PHANTOM_MISSING in _codes(after) - _codes(before)


def _gains_db(receiver: InputResult) -> dict[tuple[int, str], float]:
    return {
        (channel.source, channel.channel): channel.gain_db
        for channel in receiver.channels
        if channel.in_phase is not None
    }


def _loss_db(before: InputResult, after: InputResult) -> float:
    """By how much the loudest channel is weaker."""
    loud, quiet = _gains_db(before), _gains_db(after)
    if not loud:
        return 0.0
    return max(loud.values()) - max(quiet.values(), default=max(loud.values()) - SILENT_DB)


def _side_lost(before: InputResult, after: InputResult) -> bool:
    """One of several channels is gone, and another is not."""
    loud, quiet = _gains_db(before), _gains_db(after)
    losses = [gain - quiet.get(channel, gain - SILENT_DB) for channel, gain in loud.items()]
    return len(losses) > 1 and max(losses) >= SIDE_DB > min(losses)


def _cancels(before: InputResult, after: InputResult) -> bool:
    if before.sum is None or after.sum is None:
        return False
    lost = before.sum.centre_db - after.sum.centre_db
    return lost >= CANCELS_DB and lost > before.sum.sides_db - after.sum.sides_db + CANCELS_DB


def _hums(before: InputResult, after: InputResult) -> bool:
    """Louder than before and near enough to the programme. A silent input that hums has no programme to compare."""
    if before.hum is None or after.hum is None:
        return False
    risen = after.hum.weighted_dbu - before.hum.weighted_dbu >= HUM_DB
    programme = active(before)
    return risen and programme is not None and programme.arriving_dbu - after.hum.weighted_dbu < HUM_BELOW_DB
