"""The demonstration's house: our own made-up halls, rigs and occasions, with a cupboard."""

from datetime import datetime, timedelta
from importlib.resources import files
from typing import Any

from ruvak.core.entry.reader import read
from ruvak.core.log.entry import NewEntry
from ruvak.core.parts.library import embed
from ruvak.core.parts.reading import rig_from_json
from ruvak.core.rig.edits import Edit
from ruvak.core.rig.rig import Rig
from ruvak.service.cupboard import Cupboard
from ruvak.service.edits import Edits
from ruvak.service.kept import KeptRigs
from ruvak.service.log_book import LogBook
from ruvak.service.occasions import Occasions
from ruvak.service.rigs import Rigs
from ruvak.service.states import Person
from ruvak.service.venues import Venues
from ruvak.store import database

SETUP = Person(id="setup", name="Set-up")
LAST_WEEK = Person(id="last-week", name="Odalys Reed")
"""Who checked last week."""
DEMOS = ("sunday-talk", "video-call", "lantern-evening", "midwinter-concert")
"""In the order they are added; the last is the one that opens first."""
_SATURDAY, _SUNDAY = 5, 6


def demo_rig(name: str = "lantern-evening") -> Rig:
    """One of DEMOS as shipped, with its parts."""
    return embed(rig_from_json(files("ruvak.service").joinpath("demo", f"{name}.json").read_bytes()))


def add_demo(url: str) -> bool:
    """Adds the demo rigs, the last one's venue and kit for the house, and dates round today, where there is no rig;
    tells whether it did."""
    sessions, kept = database.sessions_for(database.engine_for(url)), KeptRigs()
    rigs, edits = Rigs(sessions, kept), Edits(sessions, kept)
    if rigs.list_all():
        return False
    for name in DEMOS:
        made = rigs.import_rig(demo_rig(name), SETUP)
    Venues(sessions, kept, edits).save(made.rig.id, "as found on the first visit", SETUP)
    _plan_weeks(Occasions(sessions, kept, edits), rigs, edits)
    _log_last_week(LogBook(sessions, kept))
    # Last, since the rig that was changed last opens first.
    _fill(Cupboard(sessions, kept, edits), Occasions(sessions, kept, edits), made.rig.id)
    return True


def _fill(cupboard: Cupboard, occasions: Occasions, rig_id: str) -> None:
    """The concert's kit, some of it in the van, and what the concert does without."""
    text = "Van:\nV1-V6: 10 m mic leads\nabout six 5 m jack leads\nGallery rack:\nG1: 20 m mic lead\nG2: 30 m mic lead"
    cupboard.add(text, SETUP)
    cupboard.note_condition("v4", "suspect", "good", "crackles when it is moved", SETUP)
    cupboard.note_condition("g2", "faulty", "good", "cold is open at the male plug", SETUP)
    cupboard.note_condition("v6", "away", "good", "lent to the school until Friday", SETUP)
    lantern = next(occasion for occasion in occasions.list_all() if occasion.name == "Lantern Evening")
    occasions.note(lantern.id, "crackle on V4 while the choir walked in", SETUP)
    cupboard.adopt(rig_id, SETUP)


def _plan_weeks(occasions: Occasions, rigs: Rigs, edits: Edits) -> None:
    def date(name: str, weekday: int, weeks: int, hours: tuple[int, int], rig: str) -> str:
        day = _day(weekday, weeks)
        start, end = (day.replace(hour=hour) for hour in hours)
        return occasions.add(name, start, end, [rig]).id

    lantern = date("Lantern Evening", _SATURDAY, -1, (16, 22), "lantern-evening")
    towels = occasions.note(lantern, "towels for the band", SETUP)
    occasions.settle(towels.id, True, SETUP)
    concert = date("Midwinter Concert", _SATURDAY, 0, (14, 23), "midwinter-concert")
    occasions.note(concert, "the choir comes in from the left, keep the aisle free", SETUP)
    talk = date("Sunday Talk", _SUNDAY, -1, (9, 13), "sunday-talk")
    occasions.note(talk, "hearing loop: the last two rows were weak", SETUP)
    day = _day(_SUNDAY, 0)
    made = occasions.make_again(talk, "Sunday Talk", day.replace(hour=9), day.replace(hour=13), SETUP)
    again = made.occasion.rigs[0].id
    for line in ("second reader > desk 9, 15 m", "keys moves to desk 11/12"):
        rig = rigs.export(again)
        if (edit := read(rig, line).edit) is not None:
            edits.make(again, rigs.version(again).version, Edit(label=edit.label, ops=edit.ops), SETUP)


def _log_last_week(book: LogBook) -> None:
    """The checks of last week's rigs: what was wrong is said beside this week's runs."""
    talk = _day(_SUNDAY, -1).replace(hour=8, minute=10)
    sunday: tuple[tuple[int, dict[str, Any]], ...] = (
        (0, {"run": "lectern", "answer": "good"}),
        (2, {"run": "reader", "answer": "wrong", "heard": "crackle", "things": ("m2",), "words": "when it is moved"}),
        (6, {"run": "reader", "answer": "good", "words": "taped to the stand"}),
        (8, {"run": "keys", "answer": "good"}),
        (11, {"run": "main-left", "answer": "good"}),
        (13, {"run": "main-right", "answer": "good"}),
        (15, {"run": "aux-1", "answer": "wrong", "heard": "hum"}),
        (22, {"run": "aux-1", "answer": "good", "words": "its supply on the same strip as the desk"}),
        (25, {"run": "aux-1", "kind": "reading", "measured": {"quantity": "hum_dbu", "value": -71.5}}),
    )
    lantern = _day(_SATURDAY, -1).replace(hour=15, minute=20)
    evening: tuple[tuple[int, dict[str, Any]], ...] = (
        (0, {"run": "slides", "answer": "wrong", "heard": "thin", "words": "no voices in the films, only the band"}),
        (9, {"kind": "note", "words": "one side of the laptop alone for tonight; get the right adapter"}),
    )
    for rig, began, entries in (("sunday-talk", talk, sunday), ("lantern-evening", lantern, evening)):
        made = tuple(
            NewEntry.model_validate(
                {"id": f"demo-{rig}-{number}", "at": began + timedelta(minutes=minutes), "kind": "check", **entry}
            )
            for number, (minutes, entry) in enumerate(entries)
        )
        book.add(rig, made, LAST_WEEK)


def _day(weekday: int, weeks: int) -> datetime:
    """A day of this week or another at midnight, by the clock of this machine."""
    now = datetime.now().astimezone()
    day = now + timedelta(days=weekday - now.weekday() + 7 * weeks)
    return day.replace(hour=0, minute=0, second=0, microsecond=0)
