"""The demo rig: our own made-up hall and occasion."""

from importlib.resources import files

from ruvak.core.parts.library import embed
from ruvak.core.rig.files import rig_from_json
from ruvak.core.rig.rig import Rig
from ruvak.service.rigs import Rigs
from ruvak.service.states import Person

SETUP = Person(id="setup", name="Set-up")


def demo_rig() -> Rig:
    """The rig as shipped, with its parts."""
    return embed(rig_from_json(files("ruvak.service").joinpath("demo", "lantern-evening.json").read_bytes()))


def add_demo(rigs: Rigs) -> bool:
    """Adds the demo rig where there is no rig at all; tells whether it did."""
    if rigs.listed():
        return False
    rigs.imported(demo_rig(), SETUP)
    return True
