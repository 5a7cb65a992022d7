"""Edits as rows: what was done, by whom, and which of one's own can be undone or redone next."""

from sqlalchemy import select
from sqlalchemy.orm import Session

from ruvak.core.rig.edits import Edit
from ruvak.store.tables import EditRow


def record(
    session: Session,
    rig_id: str,
    base_version: int,
    person: tuple[str, str],
    kind: str,
    forward: Edit,
    inverse: Edit,
    of_edit: int | None = None,
) -> EditRow:
    """Adds one row. `person`: (id, name)."""
    row = EditRow(
        rig_id=rig_id,
        base_version=base_version,
        person=person[0],
        person_name=person[1],
        kind=kind,
        label=forward.label,
        of_edit=of_edit,
        forward=forward.model_dump(mode="json"),
        inverse=inverse.model_dump(mode="json"),
    )
    session.add(row)
    session.flush()
    return row


def undoable(session: Session, rig_id: str, person: str) -> EditRow | None:
    """A person's latest edit that is not undone."""
    query = select(EditRow).where(EditRow.rig_id == rig_id, EditRow.person == person, EditRow.kind == "edit")
    return session.scalars(query.where(EditRow.undone.is_(False)).order_by(EditRow.id.desc()).limit(1)).first()


def redoable(session: Session, rig_id: str, person: str) -> EditRow | None:
    """The edit undone last, as long as the person has made no new one since."""
    query = select(EditRow).where(EditRow.rig_id == rig_id, EditRow.person == person, EditRow.kind == "edit")
    latest = undoable(session, rig_id, person)
    if latest is not None:
        query = query.where(EditRow.id > latest.id)
    return session.scalars(query.where(EditRow.undone.is_(True)).order_by(EditRow.id).limit(1)).first()


def listed(session: Session, rig_id: str, most: int) -> list[EditRow]:
    """Everyone's edits, undos and redos, newest first."""
    query = select(EditRow).where(EditRow.rig_id == rig_id).order_by(EditRow.id.desc()).limit(most)
    return list(session.scalars(query))
