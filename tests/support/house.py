"""A house with a cupboard, occasions and rigs, on a test database."""

from datetime import UTC, datetime, timedelta

from sqlalchemy import text

from ruvak.core.prepare import prepare
from ruvak.core.rig.ids import id_of
from ruvak.core.rig.rig import Rig, Venue
from ruvak.service.computer import Computer
from ruvak.service.cupboard import Cupboard
from ruvak.service.edits import Edits
from ruvak.service.kept import KeptRigs
from ruvak.service.occasions import Occasions
from ruvak.service.rigs import Rigs
from ruvak.service.states import Person
from tests.support.database import DatabaseTest

ADA = Person(id="ada", name="Ada")
TOMORROW = datetime.now(UTC).replace(hour=18, minute=0, second=0, microsecond=0) + timedelta(days=1)
WEEK = timedelta(days=7)


class HouseTest(DatabaseTest):
    """Use cases with nothing kept, in a house without rigs, things or occasions."""

    def setUp(self) -> None:
        with self.sessions.begin() as session:
            session.execute(text("TRUNCATE holder, cupboard_item, cupboard_change, occasion, log_entry CASCADE"))
        self.go_on()

    def go_on(self) -> None:
        """As another process has it."""
        kept = KeptRigs()
        self.rigs, self.edits = Rigs(self.sessions, kept), Edits(self.sessions, kept)
        self.cupboard = Cupboard(self.sessions, kept, self.edits)
        self.occasions = Occasions(self.sessions, kept, self.edits)
        self.computer = Computer(self.sessions, kept)

    def new_rig(self, name: str) -> str:
        rig = prepare(Rig(id=id_of(name, "rig"), name=name, venue=Venue(name="Hall")))
        return self.rigs.import_rig(rig, ADA).rig.id

    def type(self, rig_id: str, *lines: str) -> Rig:
        """Plans a line after the other, as somebody does who presses Enter after each."""
        for line in lines:
            reading = self.computer.read_lines(rig_id, line)
            assert reading.edit is not None, reading.readings[0].sentence
            self.edits.make(rig_id, reading.version, reading.edit, ADA)
        return self.rigs.export(rig_id)

    def date(self, *rigs: str, after: timedelta = timedelta(0), hours: int = 4, name: str = "Evening") -> str:
        """A new occasion of these rigs, tomorrow at six or later."""
        start = TOMORROW + after
        return self.occasions.add(name, start, start + timedelta(hours=hours), rigs).id

    def tags(self, rig_id: str) -> list[str]:
        return [item.tag for item in self.rigs.export(rig_id).kit]
