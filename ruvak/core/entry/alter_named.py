"""What the words of a changing line mean: sockets of a device, a run, or a device."""

import re
from collections.abc import Callable
from dataclasses import dataclass

from ruvak.core.entry.alter_moves import Sockets, sockets_of
from ruvak.core.entry.cannot_change import CannotChange
from ruvak.core.entry.names import Directory
from ruvak.core.entry.reading import Reading
from ruvak.core.entry.words import expand_ranges, plain
from ruvak.core.rig.edits import Op
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import Gear, Rig, Run, name_of
from ruvak.core.trace.run_ends import ends_of

Read = Callable[[Rig, str], Reading]
"""How a line that makes runs is read."""
Change = tuple[str, tuple[Op, ...]]
"""What is changed, in a sentence, and the operations."""


@dataclass(frozen=True)
class Named:
    """One of the three; of a device its runs as well."""

    sockets: Sockets | None
    runs: tuple[Run, ...]
    gear: Gear | None

    def one_run(self, what: str, which: str = "") -> Run:
        """Its only run. `what`: the words typed for it; `which`: what the run does. Raises CannotChange."""
        if len(self.runs) != 1:
            raise CannotChange(f"“{what}” has {len(self.runs)} runs: name the run{which}.")
        return self.runs[0]

    def all_runs(self, rig: Rig) -> tuple[Run, ...]:
        """The runs named, or those at the sockets named."""
        return self.runs if self.sockets is None else self.sockets.runs(rig)

    def goals(self, rig: Rig) -> tuple[Endpoint, ...]:
        """The sockets that are named, or those at which the runs that are named end."""
        if self.sockets is not None:
            return tuple(Endpoint(self.sockets.gear, place[0]) for place in self.sockets.places)
        return tuple(end for run in self.runs for end in ends_of(rig, run, "in"))


def find_named(rig: Rig, text: str) -> Named:
    """Raises CannotChange where the rig has nothing of that name."""
    name = plain(expand_ranges(plain(text)))
    runs = tuple(run for run in rig.runs if plain(expand_ranges(run.name)) == name or str(run.number) == name)
    directory = Directory(rig)
    gear = directory.by_name.get(name)
    if gear is None and not runs:
        sockets = sockets_of(rig, directory, text)
        if sockets is not None:
            return Named(sockets, (), None)
        if (together := _runs_together(rig, directory, text)) is not None:
            return together
        near = directory.near_names(text, [run.name for run in rig.runs])
        raise CannotChange(f"There is no device, run or socket called “{text}” in this rig.", *near)
    if gear is not None and not runs:
        runs = tuple(run for run in rig.runs if gear.id in {end.owner for end in run.ends})
    return Named(None, runs, gear)


def _runs_together(rig: Rig, directory: Directory, text: str) -> Named | None:
    """Several runs at once: "choir 1 and choir 2", "all choir mics" where Choir 1 and Choir 2 are there."""
    names = re.split(r"\s*,\s*(?:and\s+)?|\s+and\s+|\s+&\s+", text.strip())
    if len(names) > 1:
        each = [find_or_none(rig, name) for name in names]
        runs = tuple(run for named in each if named is not None for run in named.all_runs(rig))
        return Named(None, tuple(dict.fromkeys(runs)), None) if all(named and named.runs for named in each) else None
    bare = re.sub(r"^(?:all|both|every|each)\s+(?:of\s+)?", "", plain(text))
    words = [word for word in bare.split() if word not in ("mic", "mics", "microphone", "microphones")]
    for base in (" ".join(words), " ".join(words).removesuffix("s")):
        if base in directory.groups:
            own = {gear.id for gear in directory.groups[base].values()}
            return Named(None, tuple(run for run in rig.runs if own & {end.owner for end in run.ends}), None)
    return None


def find_or_none(rig: Rig, what: str) -> Named | None:
    """None where the rig has nothing of that name."""
    try:
        return find_named(rig, what)
    except CannotChange:
        return None


def place_words(rig: Rig, sockets: Sockets) -> str:
    """ "Desk 7/8"."""
    return f"{name_of(rig, sockets.gear)} {sockets.words}".strip()
