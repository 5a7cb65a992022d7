"""Lines that change what is there: "desk 7 is now desk 9", "swap desk 7 and 8", "lectern is now a gooseneck", "rename
keys to Organ", "copy Choir 4", "delete keys", "vocal 20 m", "phantom on choir 1", "laptop on battery", "add DI to
bass".

A device or run is named as it is on screen. A run that moves keeps its pieces where they fit the new sockets.
"""

import re
from collections.abc import Callable

from ruvak.core.entry.alter_again import with_lengths, with_piece
from ruvak.core.entry.alter_copy import MOST_COPIES, copy_run, copy_several
from ruvak.core.entry.alter_moves import Sockets, moved, number_of, sockets_of
from ruvak.core.entry.alter_named import Change, Named, Read, find_named, find_or_none, place_words
from ruvak.core.entry.alter_parts import with_other_part
from ruvak.core.entry.alter_remove import delete, take_out, unplug
from ruvak.core.entry.alter_settings import set_number, set_phantom, set_supply
from ruvak.core.entry.cannot_change import CannotChange
from ruvak.core.entry.described import supply_of
from ruvak.core.entry.lists import COUNTS
from ruvak.core.entry.names import Directory
from ruvak.core.entry.reading import Reading, ReadProblem
from ruvak.core.entry.run_reading import read_changed
from ruvak.core.entry.words import PHANTOM, find_length, is_phantom, plain
from ruvak.core.rig.edits import Edit, Op, SetField, apply
from ruvak.core.rig.part import Part
from ruvak.core.rig.rig import Gear, Rig, name_of
from ruvak.core.trace.run_ends import ends_of
from ruvak.core.trace.trace import connector_at

_ARROW = re.compile(r"[<>\N{RIGHTWARDS ARROW}\N{LEFTWARDS ARROW}]")
_FROM_TO = re.compile(
    r"(?:move\s+)?(?P<what>[^<>]+?)\s*(?:->|>|\N{RIGHTWARDS ARROW}|\bto\b)\s*(?P<to>[^<>]+)", re.IGNORECASE
)
_CHANNEL = re.compile(r"(?:ch|chan|channels?|inputs?)\.?\s*(?P<numbers>\d[\d\s/&+-]*)", re.IGNORECASE)
_OUTPUT = re.compile(r"(?:aux|matrix|main|group|mix|bus)(?: (?:\d+|left|right|l|r))?")
_INSTEAD = re.compile(r"\s+(?:instead|please|from now on)$", re.IGNORECASE)
_UNFINISHED = re.compile(r"(?P<what>.+?)\s+(?:is now|moves? to|becomes?)(?:\s+an?)?", re.IGNORECASE)
_SAID_OF_LENGTH = re.compile(
    r"^(?:make|set|shorten|lengthen|extend)\s+(?:the\s+)?"
    r"|(?:[\s,]+(?:is|are|now|gets?|needs?|takes?|leads?|cables?|length|run|to|of|=))*[\s,]*$",
    re.IGNORECASE,
)


def read_change(rig: Rig, line: str, read: Read) -> Reading | None:
    """The reading of a line that changes something; None for every other line. `read`: how a line that makes runs is
    read."""
    text = re.sub(r"(?<=\w)\s+now$", "", " ".join(line.split()).rstrip("."), flags=re.IGNORECASE)
    try:
        if (between := _between_channels(rig, text)) is not None:
            return _reading(rig, line, *_now(rig, *between))
        if _ARROW.search(text):
            return None
        if (match := _UNFINISHED.fullmatch(text)) is not None:
            raise CannotChange(_ask_where(rig, match["what"]))
        for pattern, act in _VERBS:
            if (match := pattern.fullmatch(text)) is not None and (made := act(rig, match, read)) is not None:
                return (
                    made.model_copy(update={"line": line}) if isinstance(made, Reading) else _reading(rig, line, *made)
                )
        if (change := _length(rig, text, read)) is not None:
            return _reading(rig, line, *change)
    except CannotChange as reason:
        problem = ReadProblem(
            code="unknown_change", start=0, end=len(line), sentence=str(reason), suggestions=reason.suggestions
        )
        return Reading(line=line, sentence=str(reason), taken_for=(), runs=(), problems=(problem,), edit=None)
    return None


def _between_channels(rig: Rig, text: str) -> tuple[str, str] | None:
    """ "channel 3 to channel 9" and "desk 3 > desk 9": what is plugged into one input goes into another of the same
    device."""
    match = _FROM_TO.fullmatch(text)
    if match is None or not rig.gear:
        return None
    ends = [_channel_words(rig, match[side]) for side in ("what", "to")]
    directory = Directory(rig)
    first = sockets_of(rig, directory, ends[0])
    second = sockets_of(rig, directory, ends[1]) if first is not None else None
    if first is None or second is None or first.gear != second.gear:
        return None
    return (ends[0], ends[1]) if number_of(first.words) and number_of(second.words) else None


def _channel_words(rig: Rig, text: str) -> str:
    """ "channel 3" as the desk's, which has the most inputs."""
    match = _CHANNEL.fullmatch(text.strip())
    most = max(rig.gear, key=lambda gear: len(rig.part_of(gear.id).inputs), default=None)
    return f"{most.name} {match['numbers']}" if match is not None and most is not None else text.strip()


def _length(rig: Rig, text: str, read: Read) -> Change | None:
    """ "vocal 20 m", "make the keys 15 m": None where the words before the length are no run's."""
    text = re.sub(r"\s+each$", "", text, flags=re.IGNORECASE)
    length = find_length(text)
    if length is None or length.end != len(text):
        return None
    what = _SAID_OF_LENGTH.sub("", text[: length.start])
    named = find_or_none(rig, what)
    if named is None or not named.runs:
        return None
    return with_lengths(rig, named, what, length.metres, read)


def _switch(rig: Rig, match: re.Match[str], _: Read) -> Change | None:
    how, what = match["how"].strip().lower(), match["what"]
    named = find_named(rig, what) if how else find_or_none(rig, what)
    return set_phantom(rig, named, what, how != "off") if named is not None else None


def _renumber(rig: Rig, match: re.Match[str], _: Read) -> Change:
    return set_number(find_named(rig, match["what"]), match["what"], int(match["to"]))


def _supply(rig: Rig, match: re.Match[str], _: Read) -> Change | None:
    named = find_or_none(rig, match["what"])
    return set_supply(rig, named.gear, plain(match["to"])) if named is not None and named.gear is not None else None


def _use(rig: Rig, match: re.Match[str], read: Read) -> Change | None:
    """ "use an active DI on bass": in place of another DI."""
    named = find_or_none(rig, match["what"])
    if named is None or not named.runs or not Directory(rig).kit.find_parts(match["piece"]):
        return None
    return with_piece(rig, named, match["what"], match["piece"], read, in_place=True)


def _put_in(rig: Rig, match: re.Match[str], read: Read) -> Change | None:
    """None where nothing that is there is called so: then it is another kind of line."""
    named, piece = find_or_none(rig, match["what"]), match["piece"]
    if named is None or not (named.runs or named.sockets):
        return None
    if is_phantom(piece):
        return set_phantom(rig, named, match["what"], on=True)
    directory = Directory(rig)
    if named.gear is not None and not directory.kit.find_parts(piece):
        kinds = directory.kinds_called(piece)
        if kinds and not any(part.inputs for part in kinds):
            # "Choir 1 with a condenser": no signal passes that.
            return _now(rig, match["what"], piece)
    return with_piece(rig, named, match["what"], piece, read) if named.runs else None


def _call(rig: Rig, match: re.Match[str], _: Read) -> Change | None:
    """ "call vocal lead vocal": the longest name that is there, and what comes behind it."""
    words = match["all"].split()
    for count in range(len(words) - 1, 0, -1):
        if find_or_none(rig, " ".join(words[:count])) is not None:
            return _rename(rig, " ".join(words[:count]), " ".join(words[count:]))
    return None


def _is_at(rig: Rig, match: re.Match[str], _: Read) -> Change | None:
    """ "vocal is on desk 9": None where the words are no socket."""
    is_place = sockets_of(rig, Directory(rig), match["to"]) is not None
    return _now(rig, match["what"], match["to"]) if is_place and find_or_none(rig, match["what"]) else None


def _is_kind(rig: Rig, match: re.Match[str], _: Read) -> Change | None:
    """ "vocal mic is ribbon": None where no device is called so."""
    what = re.sub(r"\s+(?:mics?|microphones?)$", "", match["what"], flags=re.IGNORECASE)
    known = find_or_none(rig, what)
    kinds = Directory(rig).kinds_called(match["to"])
    return _now(rig, what, match["to"]) if known is not None and known.gear is not None and kinds else None


def _of_two(act: Callable[[Rig, str, str], Change]) -> "Act":
    return lambda rig, match, _: act(rig, match["what"], match["to"])


def _reading(rig: Rig, line: str, sentence: str, ops: tuple[Op, ...]) -> Reading:
    edit = Edit(label=sentence.rstrip(".")[:120], ops=ops)
    after = apply(rig, edit)
    before = {run.id: run for run in rig.runs}
    gear = {each.id: each for each in rig.gear}
    other = {each.id for each in after.gear if gear.get(each.id) != each and _plays_otherwise(gear.get(each.id), each)}
    kit = {item.id: item for item in rig.kit}
    other |= {item.id for item in after.kit if kit.get(item.id) != item}
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


def _swap(rig: Rig, what: str, to: str) -> Change:
    first = find_named(rig, what)
    if first.sockets is not None and number_of(to):
        # "swap desk 7 and 8"
        to = f"{name_of(rig, first.sockets.gear)} {to}"
    second = find_named(rig, to)
    if first.sockets is not None and second.sockets is not None:
        ops = _moves(rig, first.sockets, second.sockets, swap=True)
        return f"{place_words(rig, first.sockets)} and {place_words(rig, second.sockets)} are swapped.", ops
    if len(first.runs) == 1 and len(second.runs) == 1:
        here, there = (Sockets.of_goals(rig, runs[0]) for runs in (first.runs, second.runs))
        ops = _moves(rig, here, there, swap=True)
        return f"{first.runs[0].name} and {second.runs[0].name} are swapped at their destinations.", ops
    raise CannotChange(f"Name two sockets or two runs to swap: “{what}” and “{to}” are not two of a kind.")


def _now(rig: Rig, what: str, to: str) -> Change:
    named = find_named(rig, what)
    if supply_of(plain(to).removeprefix("on ")) is None:
        to = re.sub(r"^(?:on|in|at|into|to)\s+(?=\S)", "", to, flags=re.IGNORECASE)
    if named.gear is not None and (supplied := set_supply(rig, named.gear, plain(to))) is not None:
        return supplied
    if named.gear is not None and (moved_source := _at_another_output(rig, named, what, to)) is not None:
        return _now(rig, *moved_source)
    to = _INSTEAD.sub("", to)
    target = sockets_of(rig, Directory(rig), to)
    channel = _CHANNEL.fullmatch(to.strip())
    numbers = channel["numbers"] if channel is not None else to
    if target is None and number_of(numbers):
        # "Move snare to 20": where it is plugged in already.
        device = named.sockets.gear if named.sockets is not None else _goal_of(rig, named, what)
        target = sockets_of(rig, Directory(rig), f"{name_of(rig, device)} {numbers}")
    if target is not None:
        if named.sockets is not None:
            start, name = named.sockets, place_words(rig, named.sockets)
        else:
            run = named.one_run(what, " that moves")
            start, name = Sockets.of_goals(rig, run), run.name
        _refuse_taken(rig, start, target)
        return f"{name} moves to {place_words(rig, target)}.", _moves(rig, start, target)
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


def _goal_of(rig: Rig, named: Named, what: str) -> str:
    """The device at which a run ends."""
    return Sockets.of_goals(rig, named.one_run(what, " that moves")).gear


def _at_another_output(rig: Rig, named: Named, what: str, to: str) -> tuple[str, str] | None:
    """ "wedge is now on aux 2" as "desk aux 1 is now desk aux 2": where the words are an output of what feeds it."""
    if not _OUTPUT.fullmatch(plain(to)):
        return None
    source = next(iter(ends_of(rig, named.one_run(what, " that moves"), "out")))
    label = connector_at(rig, source).label.split(",")[0]
    device = name_of(rig, source.owner)
    return f"{device} {label}", f"{device} {to}"


def _ask_where(rig: Rig, what: str) -> str:
    """What is still to be typed after "moves to" or "is now"."""
    find_named(rig, what)
    return f"Say which socket, as in “{what} moves to desk 9”, or what it is, as in “{what} is now a gooseneck”."


def _rename(rig: Rig, what: str, to: str) -> Change:
    named = find_named(rig, what)
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


def _copy(rig: Rig, match: re.Match[str], read: Read) -> Reading:
    named = find_named(rig, match["what"])
    run = named.one_run(match["what"], " to copy")
    name = match["name"].strip('"') if match["name"] else None
    said = (match["count"] or match["factor"] or ("2" if match["twice"] else "1")).lower()
    count = COUNTS.get(said) or int(said)
    if not 1 <= count <= MOST_COPIES:
        raise CannotChange(f"Between 1 and {MOST_COPIES} copies can be made at once.")
    if count > 1:
        if name or match["to"]:
            raise CannotChange("Several copies take the next names and sockets: leave the name and the place out.")
        return copy_several(rig, run, count, read)
    return copy_run(rig, run, name, match["to"], read)


def _moves(rig: Rig, start: Sockets, target: Sockets, swap: bool = False) -> tuple[Op, ...]:
    """What moves the plugs; raises CannotChange where there is none, or the new place cannot take it."""
    ops = tuple(moved(rig, start, target, swap))
    if ops:
        return ops
    here, there = place_words(rig, start), place_words(rig, target)
    if not start.used(rig) and not (swap and target.used(rig)):
        raise CannotChange(f"Nothing is plugged in at {here}, so nothing moves.")
    if start.used(rig) <= target.used(rig):
        raise CannotChange(f"It is at {there} already, so nothing moves.")
    if len(start.places) != len(target.places):
        raise CannotChange(f"{here} and {there} are not as many sockets: name as many places as there are now.")
    raise CannotChange(f"What is plugged in at {here} does not fit at {there}: delete the run and type it anew.")


def _refuse_taken(rig: Rig, start: Sockets, target: Sockets) -> None:
    moving = {run.id for run in start.runs(rig)}
    taken = [run for run in target.runs(rig) if run.id not in moving]
    if taken:
        here, there = place_words(rig, start), place_words(rig, target)
        raise CannotChange(f"{there} is in use by “{taken[0].name}”.", f"swap {here} and {there}")


def _a(part: Part) -> str:
    """With its article, in the middle of a sentence."""
    name = part.name[:1].lower() + part.name[1:]
    return f"{'an' if name[:1] in 'aeiou' else 'a'} {name}"


Act = Callable[[Rig, re.Match[str], Read], Change | Reading | None]
_BECOMES = r"(?:(?:now |should )?go(?:es)? (?:in)?to|(?:is|are) now|now|moves? to|becomes?|change[sd]? to)"
_PATTERNS: tuple[tuple[str, Act], ...] = (
    (rf"(?:(?:switch|turn)\s+)?{PHANTOM}\s+(?P<how>on|off|for|to|at)(?:\s+(?:for|on|at|to))?\s+(?P<what>.+)", _switch),
    (rf"(?:switch|turn)\s+(?P<how>on|off)\s+{PHANTOM}\s+(?:for|on|at|to)\s+(?P<what>.+)", _switch),
    (rf"(?P<what>.+?)(?:\s+with)?\s+{PHANTOM}(?P<how>\s+on|\s+off|)", _switch),
    (r"(?:re)?number\s+(?P<what>.+?)\s+(?:to\s+|as\s+|is\s+)?(?P<to>\d+)", _renumber),
    (r"(?P<what>.+?)\s+(?:is|becomes)(?:\s+now)?\s+number\s+(?P<to>\d+)", _renumber),
    (r"(?:swap|exchange|switch)\s+(?P<what>.+?)\s+(?:and|with|for|&)\s+(?P<to>.+)", _of_two(_swap)),
    (r"rename\s+(?P<what>.+?)\s+(?:to|as)\s+(?P<to>.+)", _of_two(_rename)),
    (r"(?P<what>.+?)\s+(?:is|are)(?:\s+now)?\s+(?:called|named)\s+(?P<to>.+)", _of_two(_rename)),
    (r"(?P<what>.+?)(?:'s)?\s+name\s+is\s+(?P<to>.+)", _of_two(_rename)),
    (r"rename\s+(?P<all>.+)", _call),
    (r"call\s+(?P<all>.+)", _call),
    (r"replace\s+(?P<what>.+?)\s+(?:with|by)\s+(?P<to>.+)", _of_two(_now)),
    (
        r"(?:add|put|insert)\s+(?:an?\s+|the\s+)?(?P<piece>.+?)\s+(?:to|on|into|in|for|before|behind|after)\s+(?P<what>.+)",
        _put_in,
    ),
    (r"use\s+(?:an?\s+|the\s+)?(?P<piece>.+?)\s+(?:on|for|at|with)\s+(?P<what>.+)", _use),
    (r"(?P<what>.+?)\s+uses?\s+(?:an?\s+|the\s+)?(?P<piece>.+)", _use),
    (r"(?P<what>.+?)\s+(?:goes\s+)?without\s+(?:an?\s+|the\s+|any\s+)?(?P<piece>.+)", take_out),
    (r"no\s+(?P<piece>.+?)\s+(?:on|for|at|in)\s+(?P<what>.+)", take_out),
    (rf"(?P<what>.+?)\s+{_BECOMES}\s+(?P<to>.+)", _of_two(_now)),
    (r"(?:move|change|put)\s+(?P<what>.+?)\s+(?:to|into|in|on|onto)\s+(?P<to>.+)", _of_two(_now)),
    (r"(?P<what>.+?)\s+(?:is\s+|are\s+)?(?:now\s+)?(?P<to>on\s+.+)", _supply),
    (r"(?P<what>.+?)\s+(?:is|are|goes|go)\s+(?:on|in|at|into)\s+(?P<to>.+)", _is_at),
    (r"(?P<what>.+?)\s+(?:is|are)\s+an?\s+(?P<to>.+)", _of_two(_now)),
    (r"(?P<what>.+?)\s+(?:is|are)\s+(?P<to>.+)", _is_kind),
    (r"(?P<what>.+?)\s+(?:goes\s+)?(?:through|via|with)\s+(?:an?\s+|the\s+)?(?P<piece>.+)", _put_in),
    (
        rf"(?:copy|duplicate)\s+(?P<what>.+?)(?:\s+(?P<count>\d{{1,3}}|{'|'.join(COUNTS)})(?:\s+(?:more\s+)?times|\s*x)"
        r"|\s+x\s*(?P<factor>\d{1,3})|\s+(?P<twice>twice))?(?:\s+as\s+(?P<name>.+?))?(?:\s+(?:to|into)\s+(?P<to>.+))?",
        _copy,
    ),
    (
        r"(?:remove|take|delete|unplug|leave out)\s+(?:the\s+|an?\s+)?(?P<piece>.+?)\s+(?:from|out of|off|away from|on)"
        r"\s+(?P<what>.+)",
        unplug,
    ),
    (r"(?:delete|remove|unplug|cancel)\s+(?P<what>.+)", delete),
)
_VERBS: tuple[tuple[re.Pattern[str], Act], ...] = tuple(
    (re.compile(pattern, re.IGNORECASE), act) for pattern, act in _PATTERNS
)
"""The first that takes a line has it."""
