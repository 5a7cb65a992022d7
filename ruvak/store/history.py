"""Edits as rows: what was done, by whom, what it touched, and which of one's own can be undone or redone next."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass

from sqlalchemy import Select, func, or_, select
from sqlalchemy.dialects.postgresql import array
from sqlalchemy.orm import Session, aliased

from ruvak.core.rig.collections import HolderKind, holder_of
from ruvak.core.rig.edits import Edit, Touched
from ruvak.store.rigs import Holders
from ruvak.store.tables import EditOfHolderRow, EditRow
from ruvak.store.touches import meeting, texts


@dataclass(frozen=True)
class Author:
    """Who makes an edit."""

    id: str
    name: str


def record(
    session: Session,
    holders: Holders,
    author: Author,
    kind: str,
    forward: Edit,
    inverse: Edit,
    touched: Iterable[Touched],
    of_edit: int | None = None,
    uid: str | None = None,
) -> EditRow:
    """Adds an edit; `holders`: as it left them."""
    row = EditRow(
        uid=uid,
        rig_id=holders.ids["rig"],
        person=author.id,
        person_name=author.name,
        kind=kind,
        label=forward.label,
        of_edit=of_edit,
        forward=forward.model_dump(mode="json"),
        inverse=inverse.model_dump(mode="json"),
    )
    session.add(row)
    session.flush()
    by_holder: dict[HolderKind, list[Touched]] = {}
    for touch in touched:
        by_holder.setdefault(holder_of(touch.kind), []).append(touch)
    session.add_all(
        EditOfHolderRow(
            edit_id=row.id, holder_id=holders.ids[kind_], version=holders.versions[kind_], touches=texts(some)
        )
        for kind_, some in by_holder.items()
    )
    session.flush()
    return row


def by_uid(session: Session, uid: str) -> EditRow | None:
    """What a client has sent before."""
    return session.scalars(select(EditRow).where(EditRow.uid == uid)).one_or_none()


def since(session: Session, holders: Holders, then: Holders) -> list[Edit]:
    """Edits that lead from one state of the holders to a later one, oldest first."""
    return [Edit.model_validate(row.forward) for row in _rows_since(session, holders, then.versions)]


def meeting_since(
    session: Session, holders: Holders, versions: Mapping[HolderKind, int], touched: Touched, person: str
) -> EditRow | None:
    """The latest edit since those versions by which somebody else touched the same: nobody meets their own."""
    kind = holder_of(touched.kind)
    others = EditRow.person != person
    query = _rows_of(holders.ids[kind], versions[kind]).where(
        others, EditOfHolderRow.touches.overlap(array(meeting(touched)))
    )
    return session.scalars(query.order_by(EditRow.id.desc()).limit(1)).first()


def standing_on(session: Session, holders: Holders, done: EditRow, touched: Iterable[Touched]) -> EditRow | None:
    """A later change to what this edit touched that still stands, so that it cannot be taken back or redone.

    That is a later edit which is not undone, or an earlier one that has been undone, or redone, since.
    """
    later = EditRow.id > done.id
    turned = (
        select(EditRow.of_edit)
        .where(later, EditRow.kind != "edit", EditRow.of_edit < done.id)
        .group_by(EditRow.of_edit)
        .having(func.count() % 2 == 1)
    )
    standing = or_((EditRow.kind == "edit") & EditRow.undone.is_(False), EditRow.of_edit.in_(turned))
    for touch in touched:
        query = _rows_of(holders.ids[holder_of(touch.kind)], 0)
        query = query.where(later, standing, EditOfHolderRow.touches.overlap(array(meeting(touch))))
        if (match := session.scalars(query.order_by(EditRow.id.desc()).limit(1)).first()) is not None:
            return match
    return None


def undoable(session: Session, rig_id: str, person: str) -> EditRow | None:
    """A person's latest edit that is not undone."""
    query = select(EditRow).where(EditRow.rig_id == rig_id, EditRow.person == person, EditRow.kind == "edit")
    return session.scalars(query.where(EditRow.undone.is_(False)).order_by(EditRow.id.desc()).limit(1)).first()


def redoable(session: Session, rig_id: str, person: str) -> EditRow | None:
    """The edit undone last, as long as the person has made no new one since, and unless it is one recorded as built
    that a technician took back."""
    query = select(EditRow).where(EditRow.rig_id == rig_id, EditRow.person == person, EditRow.kind == "edit")
    latest = undoable(session, rig_id, person)
    if latest is not None:
        query = query.where(EditRow.id > latest.id)
    query = query.where(EditRow.undone.is_(True), EditRow.as_built.is_distinct_from("restored"))
    return session.scalars(query.order_by(EditRow.id).limit(1)).first()


def last_of_each() -> type[EditRow]:
    """The newest edit of each rig, to be joined by its rig_id."""
    newest = select(EditRow).distinct(EditRow.rig_id).order_by(EditRow.rig_id, EditRow.id.desc()).subquery()
    return aliased(EditRow, newest)


def runs_touched(row: EditRow) -> tuple[str, ...]:
    """Ids of the runs that an edit added, changed or deleted."""
    ops = row.forward.get("ops", [])
    ids = (op.get("id") or (op.get("thing") or {}).get("id") for op in ops if op.get("kind") == "runs")
    return tuple(dict.fromkeys(name for name in ids if name))


def latest(session: Session, rig_id: str, most: int) -> list[EditRow]:
    """Everyone's edits, undos and redos, newest first."""
    query = select(EditRow).where(EditRow.rig_id == rig_id).order_by(EditRow.id.desc()).limit(most)
    return list(session.scalars(query))


def back_to(session: Session, rig_id: str, edit_id: int, most: int) -> tuple[Edit, list[Edit]] | None:
    """An edit, and what takes it and all that was done to the rig after it back, latest first.

    None where the rig has no such edit among its last `most`.
    """
    query = select(EditRow).where(EditRow.rig_id == rig_id, EditRow.id >= edit_id).order_by(EditRow.id).limit(most + 1)
    rows = list(session.scalars(query))
    if not rows or rows[0].id != edit_id or len(rows) > most:
        return None
    return Edit.model_validate(rows[0].forward), [Edit.model_validate(row.inverse) for row in reversed(rows)]


def _rows_of(holder_id: str, version: int) -> Select[EditRow]:
    query = select(EditRow).join(EditOfHolderRow, EditOfHolderRow.edit_id == EditRow.id)
    return query.where(EditOfHolderRow.holder_id == holder_id, EditOfHolderRow.version > version)


def _rows_since(session: Session, holders: Holders, versions: Mapping[HolderKind, int]) -> Sequence[EditRow]:
    touched, ids = EditOfHolderRow, holders.ids
    later = or_(*((touched.holder_id == ids[kind]) & (touched.version > versions[kind]) for kind in ids))
    result = select(touched.edit_id).where(later)
    return session.scalars(select(EditRow).where(EditRow.id.in_(result)).order_by(EditRow.id)).all()
