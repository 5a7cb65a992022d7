"""In what order candidates are tried and remedies shown."""

from collections import Counter
from collections.abc import Iterable

from ruvak.core.judge.finding import SEVERITY, Finding, Grade
from ruvak.core.remedies.candidates import Candidate
from ruvak.core.remedies.remedy import Effect, Remedy
from ruvak.core.rig.edits import Edit, SetField, apply, is_setting
from ruvak.core.rig.rig import Rig, Run


def severity(findings: tuple[Finding, ...]) -> tuple[int, int]:
    """Better is larger: the worst grade, then how few findings."""
    return SEVERITY[findings[0].grade], -len(findings)


def promise(candidate: Candidate) -> tuple[float, ...]:
    """Smaller is tried sooner: by the quick findings, then by what it takes."""
    missing = sum(not item.owned for item in candidate.items)
    worst = candidate.findings[0].grade
    return (
        -SEVERITY[worst],
        float(len(candidate.findings)),
        float(missing),
        float(candidate.changes),
        *candidate.simplicity,
    )


def left_to_cure(candidate: Candidate, flips: Iterable[Candidate], before: tuple[Finding, ...]) -> tuple[float, ...]:
    """As promise(), without the findings that some switch or control by itself would take away."""
    codes = {finding.code for finding in before}
    cured = {code for flip in flips for code in codes - {finding.code for finding in flip.findings}}
    if any(code.goes_with_less_level for code in cured):
        # Turned down for one of them it is turned down for all.
        cured |= {code for code in codes if code.goes_with_less_level}
    left = [finding for finding in candidate.findings if finding.code not in cured]
    worst = SEVERITY[left[0].grade] if left else SEVERITY[Grade.CLEAR]
    return (-float(worst), float(len(left)), *promise(candidate)[2:])


def order_of(remedy: Remedy) -> tuple[float, ...]:
    """Smaller is shown first."""
    after = remedy.effects[0].after
    missing = sum(not piece.in_kit for piece in remedy.pieces)
    # What it leaves wrong elsewhere counts before what it takes.
    elsewhere = sum(effect.after.grade is not Grade.CLEAR for effect in remedy.effects[1:])
    mended = sum(mends(effect) for effect in remedy.effects[1:])
    trouble = (float(elsewhere), -float(mended), float(missing), float(remedy.changes))
    return (-SEVERITY[after.grade], float(len(after.codes)), *trouble)


def kind_of(rig: Rig, run: Run, edit: Edit) -> Counter[str]:
    """What there is to do: parts put in, parts taken out, switches flipped."""
    moved_by = [op for op in edit.ops if isinstance(op, SetField) and is_setting(op)]
    # How far several are moved together is one thing to do: the smallest change that cures is told.
    together = len(moved_by) > 1
    flips = tuple(f"{op.id}.{op.key}" + ("" if together else f"={op.value}") for op in moved_by)
    after = apply(rig, edit)
    owners = {item.id: item.part for item in (*rig.kit, *after.kit)}
    used = next(changed for changed in after.runs if changed.id == run.id)
    now, then = (Counter(owners[piece] for piece in pieces) for pieces in (used.pieces, run.pieces))
    put_in, taken_out = (now - then).elements(), (then - now).elements()
    moved = ("moved",) if not (now - then or then - now) and used.joins != run.joins else ()
    return Counter((*(f"+{part}" for part in put_in), *(f"-{part}" for part in taken_out), *flips, *moved))


def is_worse(effect: Effect) -> bool:
    """A graver grade, or as grave as before and something new besides."""
    before, after = effect.before, effect.after
    if after.grade is before.grade:
        return bool(set(after.codes) - set(before.codes)) and after.grade is not Grade.CLEAR
    return SEVERITY[after.grade] < SEVERITY[before.grade]


def mends(effect: Effect) -> bool:
    """Whether it clears a run that was not."""
    return effect.before.grade is not Grade.CLEAR and effect.after.grade is Grade.CLEAR
