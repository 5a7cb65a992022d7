"""Testing leads: what readings say, and what was noted of a thing of the cupboard or of a rig's own."""

from typing import Annotated, Literal

from pydantic import Field
from sqlalchemy.orm import Session, sessionmaker

from ruvak.core.cupboard.item import CupboardItem
from ruvak.core.errors import BadEdit
from ruvak.core.log.entry import MOST_UNUSUAL, Entry, EntryId, NewEntry, Tested
from ruvak.core.rig.edits import Edit, SetField
from ruvak.core.rig.part import Part, contacts_in
from ruvak.core.rig.rig import Condition, KitItem, name_of
from ruvak.core.rig.values import Id, Moment, Record, Words
from ruvak.core.rig.wiring_fault import WiringFault
from ruvak.core.tester.diagnosis import Diagnosis, diagnose, plug_names
from ruvak.core.tester.lines import read_lines
from ruvak.core.tester.metal import groups_of
from ruvak.core.tester.reading import LeadTest, Place, Readings
from ruvak.service.cupboard import Cupboard
from ruvak.service.edits import Edits
from ruvak.service.kept import KeptRigs, read_current
from ruvak.service.problems import NotFound
from ruvak.service.states import Person
from ruvak.service.tester import Tester
from ruvak.store import log
from ruvak.store.house import CupboardRow


class Plug(Record):
    """A plug or socket of a tested piece."""

    id: Id
    """Its name within the part."""
    label: Words
    """What is printed beside it."""
    side: Literal["in", "out", "both"]
    """Which way signal passes."""
    contacts: tuple[str, ...]
    """Its contacts, in drawing order."""


class LeadOnBench(Record):
    """A piece, what is known of it, and what its readings say so far."""

    name: Words
    """Its tag."""
    part: Words
    """What it is."""
    plugs: tuple[Plug, ...]
    """Its ends."""
    joined: tuple[tuple[str, ...], ...]
    """Contacts that should be joined, by group, each written plug.contact."""
    condition: Condition
    """As it is noted."""
    faults: tuple[WiringFault, ...]
    """What a test showed before."""
    test: LeadTest
    """What was read."""
    diagnosis: Diagnosis
    """What that says."""


class ReadingsBody(Record):
    """What was read of a piece: typed, or contact by contact."""

    text: Words = ""
    """Typed readings: 1-1 ok, 2-2 ok, 3 dead."""
    readings: Readings = ()
    """Contact by contact; a typed reading of the same pair replaces it."""
    moved_at: Place | None = None
    """Where the lead was moved when something came and went."""


class NewLeadTest(ReadingsBody):
    """A test that is to be noted."""

    id: EntryId
    """Its own id, made by the device, so that a test that is sent twice is noted once."""
    at: Moment
    """When, by that device's clock."""
    chosen: Annotated[int, Field(strict=True, ge=0)] | None = None
    """Which of the explanations it turned out to be; left out where there is one, or nobody has looked."""
    number: Annotated[int, Field(strict=True, ge=1)] | None = None
    """Which of several alike."""
    words: Words = ""
    """What else somebody noted."""


class LeadTests:
    """The use cases over one database."""

    def __init__(
        self, sessions: sessionmaker[Session], kept: KeptRigs, edits: Edits, cupboard: Cupboard, tester: Tester
    ) -> None:
        self._sessions, self._kept, self._edits, self._cupboard = sessions, kept, edits, cupboard
        self._tester = tester

    def read_item(self, item_id: str, body: ReadingsBody) -> LeadOnBench:
        """A thing of the cupboard and what readings say of it. Raises NotFound, BadEdit."""
        item = self._item(item_id)
        return _on_bench(item.name, item.part, item.condition, item.faults, _typed(item.part, body))

    def read_piece(self, rig_id: str, kit_id: str, body: ReadingsBody) -> LeadOnBench:
        """The same of a rig's piece. Raises NotFound, BadEdit."""
        item, part = self._piece(rig_id, kit_id)
        return _on_bench(item.tag, part, item.condition, item.faults, _typed(part, body))

    def ask_about_item(self, item_id: str, moved_at: Place | None, readings: Readings) -> LeadOnBench:
        """A thing of the cupboard with the tester's readings. Raises NotFound, NoTester, BadEdit."""
        item = self._item(item_id)
        test = _added(readings, self._tester.read(item.part, item.name, moved_at))
        return _on_bench(item.name, item.part, item.condition, item.faults, test)

    def ask_about_piece(self, rig_id: str, kit_id: str, moved_at: Place | None, readings: Readings) -> LeadOnBench:
        """The same of a rig's piece."""
        item, part = self._piece(rig_id, kit_id)
        test = _added(readings, self._tester.read(part, item.tag, moved_at))
        return _on_bench(item.tag, part, item.condition, item.faults, test)

    def note_item(self, item_id: str, test: NewLeadTest, person: Person) -> LeadOnBench:
        """Notes a test of a thing of the cupboard: in the log, and how the thing is; rigs that have it follow.
        Raises NotFound, BadEdit, CupboardConflict."""
        if (known := self._noted(test)) is not None:
            return self.read_item(known.things[0], ReadingsBody())
        bench = self.read_item(item_id, test)
        condition, tested = _outcome(bench, test)
        if condition is not None:
            item_id = self._cupboard.note_test(item_id, test.number, condition, tested.words, tested.faults, person)
        entry = _entry(test, tested, (item_id,))
        with self._sessions.begin() as session:
            log.add(session, [log.row_of_thing(bench.name, entry, person.id, person.name)])
        return self.read_item(item_id, ReadingsBody())

    def note_piece(self, rig_id: str, kit_id: str, test: NewLeadTest, person: Person) -> LeadOnBench:
        """Notes a test of a rig's piece; one that is drawn from the cupboard is the house's. Raises as note_item()."""
        item, _ = self._piece(rig_id, kit_id)
        if item.drawn is not None and self._has(item.drawn.item):
            number = {"number": item.drawn.number}
            self.note_item(item.drawn.item, test.model_copy(update=number), person)
            return self.read_piece(rig_id, kit_id, ReadingsBody())
        if self._noted(test) is not None:
            return self.read_piece(rig_id, kit_id, ReadingsBody())
        bench = self.read_piece(rig_id, kit_id, test)
        condition, tested = _outcome(bench, test)
        rig = read_current(self._sessions, self._kept, rig_id)
        with self._sessions.begin() as session:
            entry = _entry(test, tested, (kit_id,))
            log.add(session, [log.row_of(rig, None, entry, person.id, person.name)])
            if condition is not None:
                remark = "" if condition == "good" else tested.words
                faults = [fault.model_dump(mode="json") for fault in tested.faults]
                values = {"condition": condition, "remark": remark, "faults": faults}
                ops = tuple(SetField(kind="kit", id=kit_id, field=f, value=value) for f, value in values.items())
                edit = Edit(label=f"Tested: {name_of(rig, kit_id)[:60]} {condition}", ops=ops)
                self._edits.make_within(session, rig_id, edit, person)
        return self.read_piece(rig_id, kit_id, ReadingsBody())

    def _noted(self, test: NewLeadTest) -> Entry | None:
        """The entry of a test that was sent before: its answer was lost on the way."""
        with self._sessions() as session:
            return log.find(session, test.id)

    def _has(self, item_id: str) -> bool:
        with self._sessions() as session:
            return session.get(CupboardRow, item_id) is not None

    def _item(self, item_id: str) -> CupboardItem:
        with self._sessions() as session:
            row = session.get(CupboardRow, item_id)
        if row is None:
            raise NotFound("This is not in the cupboard any longer.")
        item = CupboardItem.model_validate(row.body)
        if item.is_device:
            raise BadEdit("item", f"{item.name} is a device; leads, adapters and boxes are tested.")
        return item

    def _piece(self, rig_id: str, kit_id: str) -> tuple[KitItem, Part]:
        rig = read_current(self._sessions, self._kept, rig_id)
        item = next((item for item in rig.kit if item.id == kit_id), None)
        if item is None:
            raise NotFound(f"There is no piece '{kit_id}' in this rig.")
        return item, rig.parts_by_id[item.part]


def _typed(part: Part, body: ReadingsBody) -> LeadTest:
    """Typed readings after those of contacts."""
    try:
        typed = read_lines(part, body.text)
    except ValueError as problem:
        raise BadEdit("text", str(problem)) from problem
    moved_at = typed.moved_at or body.moved_at
    return typed.model_copy(update={"readings": (*body.readings, *typed.readings), "moved_at": moved_at})


def _added(before: Readings, test: LeadTest) -> LeadTest:
    """What the tester reads now over what was read before: what came and went once is known to."""
    moving = {frozenset((reading.a, reading.b)) for reading in before if reading.state == "flickers"}
    now = tuple(
        reading.model_copy(update={"state": "flickers"}) if frozenset((reading.a, reading.b)) in moving else reading
        for reading in test.readings
    )
    return test.model_copy(update={"readings": now})


def _on_bench(
    name: str, part: Part, condition: Condition, faults: tuple[WiringFault, ...], test: LeadTest
) -> LeadOnBench:
    try:
        diagnosis = diagnose(part, test)
    except ValueError as problem:
        raise BadEdit("text", str(problem)) from problem
    names = plug_names(part)
    contacts = contacts_in(part)
    by_group: dict[int, list[str]] = {}
    for contact, group in zip(contacts, groups_of(part, contacts), strict=True):
        by_group.setdefault(group, []).append(str(contact))
    return LeadOnBench(
        name=name,
        part=part.name,
        plugs=tuple(
            Plug(
                id=connector.id,
                label=names[connector.id],
                side=connector.side,
                contacts=tuple(each.contact for each in contacts if each.connector == connector.id),
            )
            for connector in part.connectors
        ),
        joined=tuple(tuple(group) for group in by_group.values() if len(group) > 1),
        condition=condition,
        faults=faults,
        test=test,
        diagnosis=diagnosis,
    )


def _outcome(bench: LeadOnBench, test: NewLeadTest) -> tuple[Condition | None, Tested]:
    """How the piece is after it, None where the test does not say, and what goes into the log."""
    diagnosis = bench.diagnosis
    at = test.chosen if test.chosen is not None else 0 if len(diagnosis.explanations) == 1 else None
    if at is not None and at >= len(diagnosis.explanations):
        raise BadEdit("chosen", f"There are {len(diagnosis.explanations)} explanations; {at} is none of them.")
    chosen = diagnosis.explanations[at] if at is not None else None
    return (chosen or diagnosis).condition, Tested(
        verdict=diagnosis.verdict,
        words=f"{chosen.words[0].upper()}{chosen.words[1:]}." if chosen is not None else diagnosis.words,
        faults=chosen.faults if chosen is not None else (),
        unusual=diagnosis.unusual[:MOST_UNUSUAL],
        pairs=len(bench.test.readings),
    )


def _entry(test: NewLeadTest, tested: Tested, things: tuple[str, ...]) -> NewEntry:
    return NewEntry(id=test.id, at=test.at, kind="test", things=things, words=test.words, tested=tested)
