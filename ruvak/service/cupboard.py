"""The house's cupboard: what it has, in which store and condition, who has it, and what a rig draws from it."""

from collections.abc import Iterable
from datetime import UTC, datetime
from typing import Any

from sqlalchemy import delete, func, select
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session, sessionmaker

from ruvak.core.cupboard.change import adopted, changed, single_of
from ruvak.core.cupboard.draw import Taken, drawn_by, put_back_unused
from ruvak.core.cupboard.item import CupboardDocument, CupboardItem, thing_id
from ruvak.core.cupboard.lines import CupboardLine, read_cupboard
from ruvak.core.errors import BadEdit
from ruvak.core.rig.edits import Edit, Op, PutThing, SetField
from ruvak.core.rig.ids import free_id
from ruvak.core.rig.rig import Condition, Gear, KitItem, Rig, collection_of, written_on
from ruvak.core.rig.wiring_fault import WiringFault
from ruvak.service.cupboard_records import (
    Changeable,
    CupboardChange,
    CupboardConflict,
    CupboardEntry,
    CupboardLines,
    CupboardList,
    ReadCupboardLine,
)
from ruvak.service.edits import Edits
from ruvak.service.kept import KeptRigs
from ruvak.service.kept_cupboard import CUPBOARD, KeptCupboard, cupboard_version, read_items
from ruvak.service.problems import NotFound
from ruvak.service.states import EditOutcome, Person
from ruvak.service.takings import Holding, holdings, taken_by_others
from ruvak.store.house import CupboardChangeRow, CupboardRow
from ruvak.store.tables import GearRow, HolderRow, KitRow, OccasionRow, RigRow

_WHATEVER = object()
"""In place of what was on screen: a test does not ask what was known before."""
_WORDS: dict[str, str] = {"name": "renamed", "store": "moved to", "count": "counted:", "length_m": "measured:"}


class Cupboard:
    """The use cases over one database."""

    def __init__(self, sessions: sessionmaker[Session], kept: KeptRigs, edits: Edits) -> None:
        self._sessions, self._kept, self._edits = sessions, kept, edits
        self._items = KeptCupboard()

    def list_all(self) -> CupboardList:
        """Everything in it, with who has it from now on."""
        with self._sessions() as session:
            _, version = cupboard_version(session) or (None, 0)
            items = self._items.items(session)
            by_item: dict[str, list[Holding]] = {}
            for holding in holdings(session, datetime.now(UTC)):
                by_item.setdefault(holding.item, []).append(holding)
        entries = tuple(_entry(item, by_item.get(item.id, ())) for item in items)
        return CupboardList(entries=entries, version=version)

    def read(self, text: str) -> CupboardLines:
        """What typed lines would add."""
        with self._sessions() as session:
            return _as_lines(read_cupboard(self._items.items(session), text))

    def add(self, text: str, person: Person) -> CupboardLines:
        """Adds what the typed lines say; those that are not understood add nothing."""
        with self._sessions.begin() as session:
            _count(session)
            lines = read_cupboard(read_items(session), text)
            _put(session, (item for line in lines for item in line.items), person, "added")
        return _as_lines(lines)

    def adopt(self, rig_id: str, person: Person) -> EditOutcome | None:
        """A rig's own kit and devices become the house's, and the rig has drawn them; None where it has none of its
        own. What is built in or is to be got stays. Raises NotFound, AlreadyTaken."""
        with self._sessions.begin() as session:
            rig = self._kept.current(session, rig_id, lock=True).rig
            _count(session)
            items, ops = adopted(rig, read_items(session))
            if not ops:
                return None
            _put(session, items, person, f"taken over from {rig.name}")
            edit = Edit(label=f"{len(ops)} things put into the cupboard", ops=tuple(ops))
            return self._edits.make_within(session, rig_id, edit, person)

    def change(self, item_id: str, field: Changeable, value: Any, was: Any, person: Person) -> None:
        """One field of a thing; each rig that has it and is not over gets it too. `was`: what was on screen.

        Raises NotFound, CupboardConflict where somebody has changed the same to something else, BadEdit.
        """
        self._change(item_id, {field: value}, field, was, person)

    def note_condition(
        self,
        item_id: str,
        condition: Condition,
        was: Condition,
        remark: str,
        person: Person,
        number: int | None = None,
    ) -> None:
        """How a thing was found to be, and what is the matter with it; with a number, that of several alike alone.
        Raises as change()."""
        if number is not None and self._counts_several(item_id):
            self.set_apart(item_id, number, condition, remark, person)
            return
        values: dict[str, Any] = {"condition": condition, "remark": remark}
        # What is good again has no fault any longer.
        self._change(item_id, values | ({"faults": ()} if condition == "good" else {}), "condition", was, person)

    def note_test(
        self,
        item_id: str,
        number: int | None,
        condition: Condition,
        remark: str,
        faults: tuple[WiringFault, ...],
        person: Person,
    ) -> str:
        """What a test of a thing showed; of several alike of the piece with that number, which becomes a thing of its
        own. Its id from then on. Raises as change()."""
        if self._counts_several(item_id):
            item_id = self.set_apart(item_id, number, condition, remark, person)
        values = {"condition": condition, "remark": "" if condition == "good" else remark, "faults": faults}
        self._change(item_id, values, "condition", _WHATEVER, person)
        return item_id

    def set_apart(self, item_id: str, number: int | None, condition: Condition, remark: str, person: Person) -> str:
        """Of several alike, a single piece becomes a thing of its own, with its own condition; its id. A rig that has
        it keeps it, and the last of the others takes its number, so that those are counted without a gap.

        `number`: which; None for the last. Raises NotFound, CupboardConflict, BadEdit.
        """
        with self._sessions.begin() as session:
            rigs = self._lock_rigs_with(session, item_id)
            row = session.get(CupboardRow, item_id, with_for_update=True)
            if row is None:
                raise NotFound("This is not in the cupboard any longer.")
            several = CupboardItem.model_validate(row.body)
            number = several.count if number is None else number
            if several.count == 1 or not 1 <= number <= several.count:
                raise BadEdit(
                    "number", f"There are {several.count} of {several.name}; number {number} is none of them."
                )
            _count(session)
            single = single_of(several, number, condition, remark, read_items(session))
            _put(
                session,
                [single],
                person,
                f"set apart from {several.count} {several.name}: {_said('condition', single)}",
            )
            fewer = several.model_copy(update={"count": several.count - 1})
            # A piece is given its new number only once nobody has that any longer.
            moves = [(number, single, 1)] + ([(several.count, fewer, number)] if number != several.count else [])
            for old, now, new in moves:
                for rig_id in rigs:
                    self._renumber(session, rig_id, (several.id, old), now.in_rig(new), person)
            row.count, row.body = fewer.count, fewer.model_dump(mode="json")
        return single.id

    def _change(self, item_id: str, values: dict[str, Any], field: Changeable, was: Any, person: Person) -> None:
        with self._sessions.begin() as session:
            rigs = self._lock_rigs_with(session, item_id)
            row = session.get(CupboardRow, item_id, with_for_update=True)
            if row is None:
                raise NotFound("This is not in the cupboard any longer.")
            before = CupboardItem.model_validate(row.body)
            after = changed(before, values)
            if after == before:
                return
            if was is not _WHATEVER and (now := getattr(before, field)) not in (was, getattr(after, field)):
                raise CupboardConflict(
                    f"Somebody has changed this to “{now}” meanwhile; look again before you change it."
                )
            self._refuse_if_not_free(session, before, after)
            _count(session)
            row.name, row.count, row.store = after.name, after.count, after.store
            row.condition, row.body = after.condition, after.model_dump(mode="json")
            session.add(_change(after, _said(field, after), person))
            for rig_id in rigs:
                self._follow(session, rig_id, before, after, person)

    def remove(self, item_id: str, person: Person) -> None:
        """Out of the cupboard for good. Raises NotFound, and CupboardConflict while a rig has it from now on."""
        with self._sessions.begin() as session:
            row = session.get(CupboardRow, item_id, with_for_update=True)
            if row is None:
                raise NotFound("This is not in the cupboard any longer.")
            holder = next(iter(holdings(session, datetime.now(UTC), [item_id])), None)
            if holder is not None:
                sentence = f"{row.name} is taken by {holder.rig_name} ({holder.occasion}); put it back there first."
                raise CupboardConflict(sentence)
            _count(session)
            session.add(_change(CupboardItem.model_validate(row.body), "removed", person))
            session.execute(delete(CupboardRow).where(CupboardRow.id == item_id))

    def draw(self, rig_id: str, item_id: str, person: Person) -> EditOutcome:
        """The first free one of a thing into a rig. Raises NotFound, CupboardConflict, AlreadyTaken."""
        with self._sessions.begin() as session:
            rig = self._kept.current(session, rig_id, lock=True).rig
            item = next((item for item in self._items.items(session) if item.id == item_id), None)
            if item is None:
                raise NotFound("This is not in the cupboard any longer.")
            taken = taken_by_others(session, rig_id) | drawn_by(rig).keys()
            number = next((n for n in range(1, item.count + 1) if (item.id, n) not in taken), None)
            if number is None:
                raise CupboardConflict(f"{item.name}: none is free for this rig's hours.")
            edit = Edit(label=f"{item.name} from the cupboard"[:120], ops=tuple(_puts(rig, item, number)))
            return self._edits.make_within(session, rig_id, edit, person)

    def put_back(self, rig_id: str, person: Person) -> EditOutcome | None:
        """What of the cupboard no run of the rig uses is free again; None where all is in use. Raises NotFound."""
        with self._sessions.begin() as session:
            rig = self._kept.current(session, rig_id, lock=True).rig
            edit = put_back_unused(rig)
            return self._edits.make_within(session, rig_id, edit, person) if edit is not None else None

    def list_changes(self, most: int = 100) -> list[CupboardChange]:
        """What was done, the newest first."""
        query = select(CupboardChangeRow).order_by(CupboardChangeRow.id.desc()).limit(most)
        with self._sessions() as session:
            return [
                CupboardChange(
                    item=row.item_id, name=row.name, words=row.words, person=row.person_name, made_at=row.made_at
                )
                for row in session.scalars(query)
            ]

    def export(self) -> CupboardDocument:
        """Everything in it."""
        with self._sessions() as session:
            return CupboardDocument(items=self._items.items(session))

    def import_document(self, document: CupboardDocument, person: Person) -> int:
        """Adds what the cupboard does not have by id or tag; tells how many things that were."""
        with self._sessions.begin() as session:
            _count(session)
            items = read_items(session)
            ids, names = {item.id for item in items}, {item.name.lower() for item in items if item.count == 1}
            new = []
            for item in document.items:
                if item.id not in ids and not (item.count == 1 and item.name.lower() in names):
                    ids.add(item.id)
                    names.add(item.name.lower())
                    new.append(item)
            _put(session, new, person, "imported")
        return len(new)

    def _counts_several(self, item_id: str) -> bool:
        with self._sessions() as session:
            return (session.scalar(select(CupboardRow.count).where(CupboardRow.id == item_id)) or 0) > 1

    def _lock_rigs_with(self, session: Session, item_id: str) -> list[str]:
        """The rigs that have a thing and are not over, locked in the order of their ids, and the thing after them.
        Raises CupboardConflict where another rig has come by it at this very moment."""
        rigs = _rigs_with(session, item_id)
        for rig_id in rigs:
            self._kept.current(session, rig_id, lock=True)
        session.execute(select(CupboardRow.id).where(CupboardRow.id == item_id).with_for_update())
        if not set(_rigs_with(session, item_id)) <= set(rigs):
            raise CupboardConflict("A rig has drawn it at this very moment; do it once more.")
        return rigs

    def _refuse_if_not_free(self, session: Session, before: CupboardItem, after: CupboardItem) -> None:
        if after.count == 1 and before.name.lower() != after.name.lower() and _has_name(session, after):
            raise CupboardConflict(f"The cupboard has another “{after.name}”; give this one another name.")
        if after.count < before.count:
            held = holdings(session, datetime.now(UTC), [after.id])
            beyond = next((entry for entry in held if entry.number > after.count), None)
            if beyond is not None:
                raise CupboardConflict(f"{beyond.rig_name} has taken number {beyond.number}; put it back there first.")

    def _renumber(self, session: Session, rig_id: str, taken: Taken, now: KitItem | Gear, person: Person) -> None:
        """A rig's record of a thing that is another of the cupboard's entries from now on."""
        thing = drawn_by(self._kept.current(session, rig_id).rig).get(taken)
        if thing is None:
            return
        name = "tag" if isinstance(thing, KitItem) else "name"
        values = now.model_dump(mode="json", include={"drawn", name, "condition", "remark"})
        ops = [
            SetField(kind=collection_of(thing), id=thing.id, field=field, value=value)
            for field, value in values.items()
            if value != thing.model_dump(mode="json")[field]
        ]
        edit = Edit(label=f"Cupboard: {written_on(thing)[:50]} is {written_on(now)[:40]}"[:120], ops=tuple(ops))
        self._edits.make_within(session, rig_id, edit, person)

    def _follow(self, session: Session, rig_id: str, before: CupboardItem, after: CupboardItem, person: Person) -> None:
        """A rig's records of a thing as the cupboard has it now."""
        rig = self._kept.current(session, rig_id).rig
        ops: list[Op] = []
        for (item, number), thing in drawn_by(rig).items():
            if item == after.id:
                was, now = (each.in_rig(number).model_dump(mode="json") for each in (before, after))
                ops += [
                    SetField(kind=collection_of(thing), id=thing.id, field=name, value=now[name])
                    for name in ("tag", "name", "condition", "remark", "length_m", "faults")
                    if name in now and was[name] != now[name]
                ]
        if ops:
            edit = Edit(label=f"Cupboard: {after.name[:60]} {_said_of(before, after)}"[:120], ops=tuple(ops))
            self._edits.make_within(session, rig_id, edit, person)


def _rigs_with(session: Session, item_id: str) -> list[str]:
    """Rigs that have drawn a thing, whose occasion is not over and which are in use, by id."""
    having = [select(table.holder_id).where(table.drawn["item"].astext == item_id) for table in (KitRow, GearRow)]
    query = (
        select(RigRow.id)
        .outerjoin(OccasionRow, OccasionRow.id == RigRow.occasion_id)
        .where(RigRow.id.in_(having[0].union(having[1])), RigRow.shelf != "archive")
        .where((OccasionRow.id.is_(None)) | (OccasionRow.ends_at > func.now()))
        .order_by(RigRow.id)
    )
    return list(session.scalars(query))


def _puts(rig: Rig, item: CupboardItem, number: int) -> Iterable[Op]:
    """What puts a thing into a rig."""
    own = rig.parts_by_id.get(item.part.id)
    if own is None:
        yield PutThing(kind="parts", thing=item.part)
    elif own != item.part:
        raise CupboardConflict(f"This rig has another part by the id of {item.part.name}; it cannot draw this one.")
    thing = item.in_rig(number)
    if thing.id in rig.owners_by_id:
        thing = thing.model_copy(update={"id": free_id(thing_id(item.id, number), rig.owners_by_id)})
    yield PutThing(kind=collection_of(thing), thing=thing)


def _said(field: Changeable, item: CupboardItem) -> str:
    value = getattr(item, field)
    if field == "condition":
        return f"{value}{f' ({item.remark})' if item.remark else ''}"
    if field == "remark":
        return f"noted: {value}" if value else "note removed"
    return f"{_WORDS[field]} {value}"


def _said_of(before: CupboardItem, after: CupboardItem) -> str:
    for field in ("condition", "remark", "length_m", "name", "store", "count"):
        if getattr(before, field) != getattr(after, field):
            return _said(field, after)
    return ""


def _has_name(session: Session, item: CupboardItem) -> bool:
    query = select(CupboardRow.id).where(
        func.lower(CupboardRow.name) == item.name.lower(), CupboardRow.count == 1, CupboardRow.id != item.id
    )
    return session.scalar(query) is not None


def _count(session: Session) -> None:
    """The cupboard's version goes up; one change at a time, since its row stays locked."""
    made = insert(HolderRow).values(id=CUPBOARD, kind="cupboard", version=1)
    session.execute(made.on_conflict_do_update(index_elements=[HolderRow.id], set_={"version": HolderRow.version + 1}))


def _put(session: Session, items: Iterable[CupboardItem], person: Person, words: str) -> None:
    for item in items:
        session.add(
            CupboardRow(
                id=item.id,
                name=item.name,
                count=item.count,
                store=item.store,
                condition=item.condition,
                body=item.model_dump(mode="json"),
            )
        )
        session.flush()
        session.add(_change(item, words, person))


def _change(item: CupboardItem, words: str, person: Person) -> CupboardChangeRow:
    return CupboardChangeRow(item_id=item.id, name=item.name, words=words, person_name=person.name)


def _entry(item: CupboardItem, held: Iterable[Holding]) -> CupboardEntry:
    return CupboardEntry(
        id=item.id,
        name=item.name,
        part=item.part.name,
        kind=item.part.kind,
        count=item.count,
        store=item.store,
        condition=item.condition,
        remark=item.remark,
        length_m=item.length_m,
        holdings=tuple(held),
    )


def _as_lines(lines: Iterable[CupboardLine]) -> CupboardLines:
    lines = tuple(lines)
    return CupboardLines(
        lines=tuple(ReadCupboardLine(line=line.line, words=line.words, problem=line.problem) for line in lines),
        things=sum(item.count for line in lines for item in line.items),
    )
