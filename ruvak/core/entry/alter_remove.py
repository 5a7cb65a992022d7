"""Lines that take something away: "delete keys", "bass without DI", "remove the DI from bass"."""

import re

from ruvak.core.entry.alter_again import without_piece
from ruvak.core.entry.alter_named import Change, Read, find_named, find_or_none
from ruvak.core.entry.alter_settings import set_phantom
from ruvak.core.entry.cannot_change import CannotChange
from ruvak.core.entry.words import is_phantom
from ruvak.core.rig.edits import RemoveThing
from ruvak.core.rig.rig import Rig, Run


def take_out(rig: Rig, match: re.Match[str], read: Read) -> Change | None:
    """ "bass without DI". None where nothing that is there is called so."""
    named, piece = find_or_none(rig, match["what"]), match["piece"]
    if named is None or not named.runs:
        return None
    if is_phantom(piece):
        return set_phantom(rig, named, match["what"], on=False)
    return without_piece(rig, named, match["what"], piece, read)


def unplug(rig: Rig, match: re.Match[str], read: Read) -> Change | None:
    """ "remove the DI from bass", and "remove keys from desk", where it is a run that goes."""
    named = find_or_none(rig, match["piece"])
    if named is None:
        return take_out(rig, match, read)
    other = find_named(rig, match["what"])
    at = {run.id for run in other.all_runs(rig)}
    return _delete_runs(tuple(run for run in named.runs if run.id in at), f"{match['piece']} at {match['what']}")


def delete(rig: Rig, match: re.Match[str], _: Read) -> Change:
    """ "delete keys", "delete desk 7"."""
    return _delete_runs(find_named(rig, match["what"]).all_runs(rig), match["what"])


def _delete_runs(runs: tuple[Run, ...], where: str) -> Change:
    if not runs:
        raise CannotChange(f"No run is at “{where}”.")
    names = " and ".join(run.name for run in runs)
    return f"{names} {'is' if len(runs) == 1 else 'are'} deleted.", tuple(
        RemoveThing(kind="runs", id=run.id) for run in runs
    )
