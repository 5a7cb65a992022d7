"""Finds rigs, runs, devices, leads, things of the cupboard, notes and findings of the whole house by words."""

import gzip
import json
from collections.abc import Iterator
from datetime import datetime
from typing import Any, Literal

from sqlalchemy import func, select
from sqlalchemy.orm import Session, sessionmaker

from ruvak.core.rig.values import Record
from ruvak.service.analysis_parts import key_of
from ruvak.service.kept import KeptRigs
from ruvak.store.house import CupboardRow, NoteRow
from ruvak.store.solved import SolvedParts
from ruvak.store.tables import GearRow, HolderRow, KitRow, OccasionRow, RigRow, RunRow
from ruvak.store.words import has_words

MOST = 40
MOST_OF_A_KIND = 12
RIGS_WITH_FINDINGS = 12
"""Of so many rigs, those saved last, findings are looked through where their analyses are kept."""
Kind = Literal["rig", "run", "device", "lead", "cupboard", "occasion", "note", "finding"]


class Match(Record):
    """Something found, and where it is."""

    kind: Kind
    """What kind of thing."""
    words: str
    """Its name, or the sentence."""
    rig: str | None
    """The rig it is in; null for what belongs to the house."""
    rig_name: str | None
    """What that is called."""
    starts_at: datetime | None
    """When the occasion of the rig, or the date itself, begins: rigs of several weeks often have one name."""
    thing: str | None
    """Its id: a run's, a device's, a piece's, a thing's of the cupboard, an occasion's."""


class Finder:
    """The use case over one database and the rigs kept in this process."""

    def __init__(self, sessions: sessionmaker[Session], kept: KeptRigs) -> None:
        self._sessions, self._kept, self._parts = sessions, kept, SolvedParts(sessions)

    def find(self, text: str) -> list[Match]:
        """What has all of the words, names that begin with them first."""
        words = text.lower().split()
        if not words:
            return []
        with self._sessions() as session:
            found = [*_in_rigs(session, words), *_in_house(session, words)]
        found += self._findings(words)
        begins = text.strip().lower()
        return sorted(found, key=lambda match: not match.words.lower().startswith(begins))[:MOST]

    def _findings(self, words: list[str]) -> Iterator[Match]:
        query = select(RigRow.id, RigRow.name, OccasionRow.starts_at).join(HolderRow, HolderRow.id == RigRow.id)
        query = query.outerjoin(OccasionRow, OccasionRow.id == RigRow.occasion_id)
        query = query.where(RigRow.shelf != "archive").order_by(HolderRow.saved_at.desc()).limit(RIGS_WITH_FINDINGS)
        with self._sessions() as session:
            rigs = {row.id: (row.name, row.starts_at) for row in session.execute(query)}
            keys = {key_of(self._kept.current(session, rig_id).rig, "overview"): rig_id for rig_id in rigs}
        for key, part in self._parts.find_all(list(keys)).items():
            rig_id = keys[key]
            overview: dict[str, Any] = json.loads(gzip.decompress(part.body))
            for run in overview["runs"]:
                sentence = run["sentence"]
                if run["grade"] != "clear" and all(word in sentence.lower() for word in words):
                    name, starts_at = rigs[rig_id]
                    yield Match(
                        kind="finding",
                        words=sentence,
                        rig=rig_id,
                        rig_name=name,
                        starts_at=starts_at,
                        thing=run["run"],
                    )


def _in_rigs(session: Session, words: list[str]) -> Iterator[Match]:
    rigs = select(RigRow.id, RigRow.name, OccasionRow.starts_at)
    rigs = rigs.outerjoin(OccasionRow, OccasionRow.id == RigRow.occasion_id)
    rigs = rigs.where(has_words(RigRow.name + " " + RigRow.occasion, words)).order_by(
        RigRow.name, OccasionRow.starts_at.desc()
    )
    for rig_id, name, starts_at in session.execute(rigs.limit(MOST_OF_A_KIND)):
        yield Match(kind="rig", words=name, rig=rig_id, rig_name=name, starts_at=starts_at, thing=None)
    kinds: tuple[tuple[Kind, Any, Any, Any], ...] = (
        ("run", RunRow, RunRow.name, func.concat(RunRow.number, " ", RunRow.name, " ", RunRow.note)),
        ("device", GearRow, GearRow.name, GearRow.name),
        ("lead", KitRow, KitRow.tag, func.concat(KitRow.tag, " ", KitRow.remark)),
    )
    for kind, table, name, searched in kinds:
        query = (
            select(table.id, name, RigRow.id, RigRow.name, OccasionRow.starts_at)
            .join(RigRow, RigRow.id == table.holder_id)
            .outerjoin(OccasionRow, OccasionRow.id == RigRow.occasion_id)
            .join(HolderRow, HolderRow.id == RigRow.id)
            .where(has_words(searched, words), RigRow.shelf != "archive")
            .order_by(HolderRow.saved_at.desc(), table.position)
            .limit(MOST_OF_A_KIND)
        )
        for thing, called, rig_id, rig_name, starts_at in session.execute(query):
            yield Match(kind=kind, words=called, rig=rig_id, rig_name=rig_name, starts_at=starts_at, thing=thing)


def _in_house(session: Session, words: list[str]) -> Iterator[Match]:
    searched = func.concat(
        CupboardRow.name, " ", CupboardRow.store, " ", CupboardRow.condition, " ", CupboardRow.body["remark"].astext
    )
    things = select(CupboardRow.id, CupboardRow.name, CupboardRow.store).where(has_words(searched, words))
    for thing, name, store in session.execute(things.order_by(CupboardRow.position).limit(MOST_OF_A_KIND)):
        yield Match(kind="cupboard", words=f"{name}, {store}", rig=None, rig_name=None, starts_at=None, thing=thing)
    occasions = select(OccasionRow.id, OccasionRow.name, OccasionRow.starts_at).where(
        has_words(OccasionRow.name, words)
    )
    for thing, name, starts_at in session.execute(
        occasions.order_by(OccasionRow.starts_at.desc()).limit(MOST_OF_A_KIND)
    ):
        yield Match(kind="occasion", words=name, rig=None, rig_name=None, starts_at=starts_at, thing=thing)
    notes = select(NoteRow.occasion_id, NoteRow.words).where(has_words(NoteRow.words, words))
    for thing, said in session.execute(notes.order_by(NoteRow.made_at.desc()).limit(MOST_OF_A_KIND)):
        yield Match(kind="note", words=said, rig=None, rig_name=None, starts_at=None, thing=thing)
