"""The demo rigs: our own made-up halls and occasions."""

from importlib.resources import files

from ruvak.core.parts.library import embed
from ruvak.core.parts.reading import rig_from_json
from ruvak.core.rig.rig import Rig
from ruvak.service.rigs import Rigs
from ruvak.service.states import Person
from ruvak.service.venues import Venues

SETUP = Person(id="setup", name="Set-up")
DEMOS = ("sunday-talk", "video-call", "lantern-evening", "midwinter-concert")
"""In the order they are added; the last is the one that opens first."""


def demo_rig(name: str = "lantern-evening") -> Rig:
    """One of DEMOS as shipped, with its parts."""
    return embed(rig_from_json(files("ruvak.service").joinpath("demo", f"{name}.json").read_bytes()))


def add_demo(rigs: Rigs, venues: Venues) -> bool:
    """Adds the demo rigs, and the last one's venue for the house, where there is no rig; tells whether it did."""
    if rigs.list_all():
        return False
    for name in DEMOS:
        made = rigs.import_rig(demo_rig(name), SETUP)
    venues.save(made.rig.id, "as found on the first visit", SETUP)
    return True
