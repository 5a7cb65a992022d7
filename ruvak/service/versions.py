"""Which state of a rig and its venue something was made on: one text for clients, "12.3" for rig 12 and venue 3."""

from typing import Annotated

from pydantic import StringConstraints

from ruvak.core.errors import BadEdit
from ruvak.core.rig.collections import HolderKind
from ruvak.store.rigs import Holders

Version = Annotated[str, StringConstraints(pattern=r"^[0-9]{1,9}\.[0-9]{1,9}$")]


def version_of(holders: Holders) -> Version:
    """The version of a saved rig."""
    return f"{holders.versions['rig']}.{holders.versions['venue']}"


def versions_from(text: Version) -> dict[HolderKind, int]:
    """By holder. Raises BadEdit for what is no version."""
    rig, _, venue = text.partition(".")
    if not (rig.isdigit() and venue.isdigit()):
        raise BadEdit("base_version", f"'{text}' is no version; send the one that came with the rig.")
    return {"rig": int(rig), "venue": int(venue)}
