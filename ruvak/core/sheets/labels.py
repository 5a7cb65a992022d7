"""Labels for both ends of every lead: a short code, what the run is called, what this end plugs into, where it goes."""

from collections.abc import Iterator
from string import ascii_lowercase

from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.ports import family_of
from ruvak.core.rig.rig import KitItem, Rig, Run, name_of
from ruvak.core.rig.values import Id, Record
from ruvak.core.trace.run_ends import ends_of
from ruvak.core.trace.trace import connector_at

KIND_WORDS: dict[str, str] = {
    "sound": "AUDIO",
    "loudspeaker": "SPEAKER",
    "digital-audio": "DIGITAL AUDIO",
    "eight-channel-digital": "DIGITAL AUDIO",
    "lighting-data": "LIGHTING DATA",
    "computer-data": "DATA",
    "video": "PICTURE",
}
"""By family of signal, as it is written on a label: leads with the same plugs are not to be mistaken."""


class EndLabel(Record):
    """What goes around a lead at one of its ends."""

    code: str
    """The run's number and a letter for the end, counted from the source: 7a, 7b."""
    name: str
    """What the run is called."""
    tag: str
    """What is written on the lead."""
    plugs_into: str
    """What this end goes into, with its socket."""
    destination: str
    """Where the run ends."""
    kind: str
    """What it carries, in capitals."""
    is_audio: bool
    """Whether that is sound at low level."""
    run: Id
    """The run."""


def end_labels(rig: Rig) -> tuple[EndLabel, ...]:
    """Of every lead of every run, from the source on; wall plates, adapters and boxes get none."""
    return tuple(label for run in sorted(rig.runs, key=lambda each: each.number) for label in _labels_of(rig, run))


def _labels_of(rig: Rig, run: Run) -> Iterator[EndLabel]:
    goal = "; ".join(_socket(rig, end) for end in ends_of(rig, run, "in"))
    family = _family(rig, run)
    letters = iter(_letters())
    for piece in run.pieces:
        item = rig.owners_by_id[piece]
        if not isinstance(item, KitItem) or item.installed or rig.part_of(piece).kind != "lead":
            continue
        for other in _neighbours(run, piece):
            yield EndLabel(
                code=f"{run.number}{next(letters)}",
                name=run.name,
                tag=item.tag if item.owned else "",
                plugs_into=_socket(rig, other),
                destination=goal,
                kind=KIND_WORDS.get(family, family.upper()),
                is_audio=family == "sound",
                run=run.id,
            )


def _neighbours(run: Run, piece: str) -> Iterator[Endpoint]:
    """What each plug of a piece goes into, the source's side first."""
    for join in run.joins:
        if join.b.owner == piece:
            yield join.a
    for join in run.joins:
        if join.a.owner == piece:
            yield join.b


def _socket(rig: Rig, end: Endpoint) -> str:
    return f"{name_of(rig, end.owner)}: {connector_at(rig, end).label}"


def _family(rig: Rig, run: Run) -> str:
    for end in ends_of(rig, run, "out"):
        for output in rig.part_of(end.owner).outputs:
            if end.connector in output.connectors:
                return family_of(output.signal)
    leads = (rig.part_of(piece).signal for piece in run.pieces)
    return next((family_of(signal) for signal in leads if signal is not None), "sound")


def _letters() -> Iterator[str]:
    yield from ascii_lowercase
    yield from (f"{first}{second}" for first in ascii_lowercase for second in ascii_lowercase)
