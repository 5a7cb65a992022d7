"""Lines that change what is there: "desk 7 is now desk 9", "swap desk 7 and 8", "lectern is now a gooseneck", "rename
keys to Organ", "copy Choir 4", "delete keys".

A device or run is named as it is on screen. A run that moves keeps its pieces where they fit the new sockets.
"""

import re
from collections.abc import Callable
from dataclasses import dataclass

from ruvak.core.entry.alter_copy import Read, copy_run
from ruvak.core.entry.alter_moves import Sockets, moved, number_of, sockets_of
from ruvak.core.entry.alter_parts import with_other_part
from ruvak.core.entry.cannot_change import CannotChange
from ruvak.core.entry.names import Directory
from ruvak.core.entry.reading import Reading, ReadProblem
from ruvak.core.entry.run_reading import read_changed
from ruvak.core.entry.words import expand_ranges, plain
from ruvak.core.rig.edits import Edit, Op, RemoveThing, SetField, apply
from ruvak.core.rig.part import Part
from ruvak.core.rig.rig import Gear, Rig, Run, name_of

_ARROW = re.compile(r"[<>\N{RIGHTWARDS ARROW}\N{LEFTWARDS ARROW}]")
_NOW = re.compile(r"(?P<what>.+?)\s+(?:is now|are now|moves? to|goes to|becomes?|change[sd]? to)\s+(?P<to>.+)", re.I)
_MOVE = re.compile(r"(?:move|change|put)\s+(?P<what>.+?)\s+(?:to|into|in)\s+(?P<to>.+)", re.I)
_SWAP = re.compile(r"swap\s+(?P<what>.+?)\s+(?:and|with|for|&)\s+(?P<to>.+)", re.I)
_RENAME = re.compile(r"rename\s+(?P<what>.+?)\s+(?:to|as)\s+(?P<to>.+)", re.I)
_UNFINISHED = re.compile(r"(?P<what>.+?)\s+(?:is now|moves? to|becomes?)(?:\s+an?)?", re.I)
_COPY = re.compile(
    r"(?:copy|duplicate)\s+(?P<what>.+?)(?:\s+as\s+(?P<name>.+?))?(?:\s+(?:to|into)\s+(?P<to>.+))?", re.I
)
_DELETE = re.compile(r"(?:delete|remove)\s+(?P<what>.+)", re.I)
Change = tuple[str, tuple[Op, ...]]
"""What is changed, in a sentence, and the operations."""


@dataclass(frozen=True)
class _Named:
    """What the words before the verb mean: sockets of a device, a run, or a device."""

    sockets: Sockets | None
    runs: tuple[Run, ...]
    gear: Gear | None


def read_change(rig: Rig, line: str, read: Read) -> Reading | None:
    """The reading of a line that changes something; None for every other line. `read`: how a line that makes runs is
    read."""
    text = line.strip().rstrip(".")
    if _ARROW.search(text):
        return None
    verbs: tuple[tuple[re.Pattern[str], Callable[[Rig, str, str], Change]], ...] = (
        (_SWAP, _swap),
        (_RENAME, _rename),
        (_NOW, _now),
        (_MOVE, _now),
    )
    try:
        if (match := _UNFINISHED.fullmatch(text)) is not None:
            raise CannotChange(_ask_where(rig, match["what"]))
        for pattern, act in verbs:
            if (match := pattern.fullmatch(text)) is not None:
                return _reading(rig, line, *act(rig, match["what"], match["to"]))
        if (match := _COPY.fullmatch(text)) is not None:
            return _copy(rig, line, match, read)
        if (match := _DELETE.fullmatch(text)) is not None:
            return _reading(rig, line, *_delete(rig, match["what"]))
    except CannotChange as reason:
        found = ReadProblem(
            code="unknown_change", start=0, end=len(line), sentence=str(reason), suggestions=reason.suggestions
        )
        return Reading(line=line, sentence=str(reason), taken_for=(), runs=(), problems=(found,), edit=None)
    return None


def _reading(rig: Rig, line: str, sentence: str, ops: tuple[Op, ...]) -> Reading:
    edit = Edit(label=sentence.rstrip(".")[:120], ops=ops)
    after = apply(rig, edit)
    before = {run.id: run for run in rig.runs}
    gear = {each.id: each for each in rig.gear}
    other = {each.id for each in after.gear if gear.get(each.id) != each and _plays_otherwise(gear.get(each.id), each)}
    touched = tuple(
        run.id for run in after.runs if before.get(run.id) != run or other & {end.owner for end in run.ends}
    )
    return Reading(
        line=line,
        sentence=sentence,
        taken_for=(),
        runs=read_changed(after, touched),
        problems=(),
        edit=edit,
        changes=True,
    )


def _plays_otherwise(before: Gear | None, after: Gear) -> bool:
    return before is None or (before.part, before.settings) != (after.part, after.settings)


def _named(rig: Rig, text: str) -> _Named:
    name = plain(expand_ranges(plain(text)))
    runs = tuple(run for run in rig.runs if plain(expand_ranges(run.name)) == name or str(run.number) == name)
    directory = Directory(rig)
    gear = directory.by_name.get(name)
    if gear is None and not runs:
        sockets = sockets_of(rig, directory, text)
        if sockets is not None:
            return _Named(sockets, (), None)
        near = directory.near_names(text, [run.name for run in rig.runs])
        raise CannotChange(f"There is no device, run or socket called “{text}” in this rig.", *near)
    if gear is not None and not runs:
        runs = tuple(run for run in rig.runs if gear.id in {end.owner for end in run.ends})
    return _Named(None, runs, gear)


def _swap(rig: Rig, what: str, to: str) -> Change:
    first = _named(rig, what)
    if first.sockets is not None and number_of(to):
        # "swap desk 7 and 8"
        to = f"{name_of(rig, first.sockets.gear)} {to}"
    second = _named(rig, to)
    if first.sockets is not None and second.sockets is not None:
        ops = _moves(rig, first.sockets, second.sockets, swap=True)
        return f"{_places(rig, first.sockets)} and {_places(rig, second.sockets)} are swapped.", ops
    if len(first.runs) == 1 and len(second.runs) == 1:
        here, there = (Sockets.of_goals(rig, runs[0]) for runs in (first.runs, second.runs))
        ops = _moves(rig, here, there, swap=True)
        return f"{first.runs[0].name} and {second.runs[0].name} are swapped at their destinations.", ops
    raise CannotChange(f"Name two sockets or two runs to swap: “{what}” and “{to}” are not two of a kind.")


def _now(rig: Rig, what: str, to: str) -> Change:
    named = _named(rig, what)
    target = sockets_of(rig, Directory(rig), to)
    if target is None and named.sockets is not None and number_of(to):
        target = sockets_of(rig, Directory(rig), f"{name_of(rig, named.sockets.gear)} {to}")
    if target is not None:
        if named.sockets is not None:
            start, name = named.sockets, _places(rig, named.sockets)
        elif len(named.runs) == 1:
            start, name = Sockets.of_goals(rig, named.runs[0]), named.runs[0].name
        else:
            raise CannotChange(f"“{what}” has {len(named.runs)} runs: name the run that moves.")
        _refuse_taken(rig, start, target)
        return f"{name} moves to {_places(rig, target)}.", _moves(rig, start, target)
    if named.gear is None:
        raise CannotChange(f"“{to}” is neither a socket here nor a kind of device that “{what}” could become.")
    parts = Directory(rig).kinds_called(to)
    if not parts:
        raise CannotChange(f"“{to}” is neither a socket here nor a kind of device.")
    if parts[0].id == named.gear.part:
        raise CannotChange(f"{named.gear.name} is {_a(parts[0])} already.")
    for part in parts:
        ops = with_other_part(rig, named.gear, part)
        if ops is not None:
            return f"{named.gear.name} is now {_a(part)}; its runs stay.", ops
    raise CannotChange(f"As {_a(parts[0])} {named.gear.name} would fit none of the runs it has.")


def _ask_where(rig: Rig, what: str) -> str:
    """What is still to be typed after "moves to" or "is now"."""
    _named(rig, what)
    return f"Say which socket, as in “{what} moves to desk 9”, or what it is, as in “{what} is now a gooseneck”."


def _rename(rig: Rig, what: str, to: str) -> Change:
    named = _named(rig, what)
    name = to.strip().strip('"')[:120]
    if named.gear is not None:
        if any(gear.name == name and gear.id != named.gear.id for gear in rig.gear):
            raise CannotChange(f"There is a “{name}” already; choose another name.")
        ops: list[Op] = [SetField(kind="gear", id=named.gear.id, field="name", value=name)]
        ops += [
            SetField(kind="runs", id=run.id, field="name", value=name)
            for run in named.runs
            if plain(run.name) == plain(named.gear.name)
        ]
        return f"{named.gear.name} is now called {name}.", tuple(ops)
    if len(named.runs) != 1:
        raise CannotChange(f"“{what}” is not one device or run.")
    return f"{named.runs[0].name} is now called {name}.", (
        SetField(kind="runs", id=named.runs[0].id, field="name", value=name),
    )


def _copy(rig: Rig, line: str, match: re.Match[str], read: Read) -> Reading:
    named = _named(rig, match["what"])
    if len(named.runs) != 1:
        raise CannotChange(f"“{match['what']}” has {len(named.runs)} runs: name the run to copy.")
    name = match["name"].strip('"') if match["name"] else None
    return copy_run(rig, named.runs[0], name, match["to"], read).model_copy(update={"line": line})


def _delete(rig: Rig, what: str) -> Change:
    named = _named(rig, what)
    if named.sockets is not None:
        runs = tuple(run for run in rig.runs if set(run.ends) & named.sockets.used(rig))
    else:
        runs = named.runs
    if not runs:
        raise CannotChange(f"No run is at “{what}”.")
    names = " and ".join(run.name for run in runs)
    return f"{names} {'is' if len(runs) == 1 else 'are'} deleted.", tuple(
        RemoveThing(kind="runs", id=run.id) for run in runs
    )


def _moves(rig: Rig, start: Sockets, target: Sockets, swap: bool = False) -> tuple[Op, ...]:
    """What moves the plugs; raises CannotChange where there is none, or the new place cannot take it."""
    ops = tuple(moved(rig, start, target, swap))
    if ops:
        return ops
    here, there = _places(rig, start), _places(rig, target)
    if not start.used(rig) and not (swap and target.used(rig)):
        raise CannotChange(f"Nothing is plugged in at {here}, so nothing moves.")
    if start.used(rig) <= target.used(rig):
        raise CannotChange(f"It is at {there} already, so nothing moves.")
    if len(start.places) != len(target.places):
        raise CannotChange(f"{here} and {there} are not as many sockets: name as many places as there are now.")
    raise CannotChange(f"What is plugged in at {here} does not fit at {there}: delete the run and type it anew.")


def _refuse_taken(rig: Rig, start: Sockets, target: Sockets) -> None:
    users = [run for run in rig.runs if set(run.ends) & target.used(rig)]
    moving = {run.id for run in rig.runs if set(run.ends) & start.used(rig)}
    taken = [run for run in users if run.id not in moving]
    if taken:
        here, there = _places(rig, start), _places(rig, target)
        raise CannotChange(f"{there} is in use by “{taken[0].name}”.", f"swap {here} and {there}")


def _places(rig: Rig, sockets: Sockets) -> str:
    return f"{name_of(rig, sockets.gear)} {sockets.words}".strip()


def _a(part: Part) -> str:
    """With its article, in the middle of a sentence."""
    name = part.name[:1].lower() + part.name[1:]
    return f"{'an' if name[:1] in 'aeiou' else 'a'} {name}"
