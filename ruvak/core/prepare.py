"""A rig made ready to be computed: with everything it names, and checked."""

from ruvak.core.parts.library import embed
from ruvak.core.rig.check import check
from ruvak.core.rig.rig import Rig


def prepare(rig: Rig) -> Rig:
    """The rig with its own parts and assumptions, checked. Raises RigFault."""
    return check(embed(rig))
