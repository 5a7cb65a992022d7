"""Parts of analyses as compressed JSON, found by any process of any machine. Only ever a saving: it may be emptied."""

import gzip
import hashlib
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

from sqlalchemy import delete, func, select, update
from sqlalchemy.dialects.postgresql import insert
from sqlalchemy.orm import Session, sessionmaker

from ruvak.store.tables import SolvedPartRow

MOST_BYTES = 256 * 1024 * 1024
TRIM_EVERY = 50
"""Writes between two looks at how much is kept."""
AT_A_TIME = 200


@dataclass(frozen=True)
class StoredPart:
    """Compressed JSON; `etag`: of its contents."""

    etag: str
    body: bytes


def part_of(text: bytes) -> StoredPart:
    """Compressed at the quickest level: most of what there is to save is saved by that."""
    return StoredPart(hashlib.sha256(text).hexdigest()[:32], gzip.compress(text, compresslevel=1, mtime=0))


class SolvedParts:
    """The table, with a limit to its size: what was not asked for longest goes first."""

    def __init__(self, sessions: sessionmaker[Session], most_bytes: int = MOST_BYTES) -> None:
        self._sessions, self._most = sessions, most_bytes
        self._writes = 0

    def find(self, key: str) -> StoredPart | None:
        """What is kept under a key."""
        return self.find_all([key]).get(key)

    def find_all(self, keys: Sequence[str]) -> dict[str, StoredPart]:
        """What of several is kept."""
        row = SolvedPartRow
        with self._sessions.begin() as session:
            result = session.execute(select(row.key, row.etag, row.body, row.used_at).where(row.key.in_(keys))).all()
            if result:
                # Once a minute is exact enough, and most readings then write nothing.
                old = row.used_at < func.now() - func.make_interval(0, 0, 0, 0, 0, 1)
                session.execute(
                    update(row).where(row.key.in_([entry.key for entry in result]), old).values(used_at=func.now())
                )
        return {entry.key: StoredPart(entry.etag, entry.body) for entry in result}

    def missing(self, keys: Sequence[str]) -> set[str]:
        """Those that are not kept."""
        with self._sessions() as session:
            return set(keys) - set(session.scalars(select(SolvedPartRow.key).where(SolvedPartRow.key.in_(keys))))

    def keep(self, parts: Iterable[tuple[str, StoredPart]]) -> None:
        """Adds parts; the same key always has the same contents, so one that is there already stays."""
        rows = [{"key": key, "etag": part.etag, "body": part.body, "size": len(part.body)} for key, part in parts]
        for first in range(0, len(rows), AT_A_TIME):
            with self._sessions.begin() as session:
                session.execute(insert(SolvedPartRow).on_conflict_do_nothing(), rows[first : first + AT_A_TIME])
        self._writes += 1
        if self._writes % TRIM_EVERY == 0:
            self.trim()

    def trim(self) -> None:
        """Down to the limit."""
        row = SolvedPartRow
        newest_first = func.sum(row.size).over(order_by=(row.used_at.desc(), row.key))
        sizes = select(row.key, newest_first.label("total")).subquery()
        with self._sessions.begin() as session:
            too_many = select(sizes.c.key).where(sizes.c.total > self._most)
            session.execute(delete(row).where(row.key.in_(too_many)))
