"""A house as a ZIP archive of JSON files, with tables as CSV beside them for people who want to read along."""

import io
import json
import re
import zipfile
from collections.abc import Iterator
from typing import TypeVar

from pydantic import BaseModel, ValidationError

from ruvak.core.cupboard.item import CupboardDocument
from ruvak.core.errors import Fault, FaultyDocument
from ruvak.core.house import HouseDocument, HouseIndex, HouseLog, HouseVenue
from ruvak.core.log.line import LogLine, line_of
from ruvak.core.parts.reading import rig_from_json
from ruvak.core.rig.files import faults_of, rig_to_json
from ruvak.core.rig.rig import Rig, name_of
from ruvak.formats.cells import table_of
from ruvak.formats.kit_list import cupboard_to_csv
from ruvak.formats.log_list import log_to_csv

INDEX, CUPBOARD, LOG = "house.json", "cupboard.json", "log.json"
MOST_BYTES, MOST_FILES = 128 * 1024 * 1024, 20_000
"""Unpacked; a file that claims more is no house."""
_RIG, _VENUE = re.compile(r"rigs/[a-z0-9-]{1,64}\.json"), re.compile(r"venues/[a-z0-9-]{1,64}\.json")


Model = TypeVar("Model", bound=BaseModel)


class BadHouse(FaultyDocument):
    """A file that is no exported house, or a damaged one; nothing was changed."""

    code = "bad_house"


def house_to_zip(house: HouseDocument) -> bytes:
    """The archive: house.json, cupboard.json, log.json, venues/ID.json, rigs/ID.json, and CSV tables."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr(INDEX, _text(house.index))
        archive.writestr(CUPBOARD, _text(CupboardDocument(items=house.cupboard)))
        archive.writestr(LOG, _text(HouseLog(entries=house.log)))
        for venue in house.venues:
            archive.writestr(f"venues/{venue.id}.json", _text(venue))
        for rig in house.rigs:
            archive.writestr(f"rigs/{rig.id}.json", rig_to_json(rig))
        for name, text in _tables(house):
            archive.writestr(name, text)
    return out.getvalue()


def house_from_zip(data: bytes) -> HouseDocument:
    """What an archive holds; its tables are not read. Raises BadHouse with the file and field at fault."""
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            files = _unpacked(archive)
    except (zipfile.BadZipFile, NotImplementedError, RuntimeError, EOFError, OSError, ValueError) as problem:
        raise _bad("file", "This is no ZIP archive, or a damaged one; export the house anew.") from problem
    if INDEX not in files:
        raise _bad("file", f"This archive has no {INDEX}; it is no exported house.")
    return HouseDocument(
        index=_read(HouseIndex, INDEX, files[INDEX]),
        venues=tuple(_read(HouseVenue, name, text) for name, text in files.items() if _VENUE.fullmatch(name)),
        cupboard=_read(CupboardDocument, CUPBOARD, files[CUPBOARD]).items if CUPBOARD in files else (),
        rigs=tuple(_rig(name, text) for name, text in files.items() if _RIG.fullmatch(name)),
        log=_read(HouseLog, LOG, files[LOG]).entries if LOG in files else (),
    )


def _unpacked(archive: zipfile.ZipFile) -> dict[str, bytes]:
    entries = [entry for entry in archive.infolist() if not entry.is_dir()]
    if len(entries) > MOST_FILES or sum(entry.file_size for entry in entries) > MOST_BYTES:
        raise _bad("file", "This is larger than any house; is it the right file?")
    wanted = [
        e
        for e in entries
        if e.filename in (INDEX, CUPBOARD, LOG) or _RIG.fullmatch(e.filename) or _VENUE.fullmatch(e.filename)
    ]
    files: dict[str, bytes] = {}
    for entry in wanted:
        # What an entry says of its own size may be wrong, so no more than that is read.
        with archive.open(entry) as opened:
            files[entry.filename] = opened.read(entry.file_size)
    return files


def _rig(name: str, text: bytes) -> Rig:
    try:
        return rig_from_json(text)
    except FaultyDocument as problem:
        raise BadHouse(tuple(Fault(f.code, f"{name}: {f.where}", f.sentence) for f in problem.faults)) from problem


def _read(model: type[Model], name: str, text: bytes) -> Model:
    try:
        return model.model_validate_json(text)
    except ValidationError as problem:
        faults = tuple(Fault(f.code, f"{name}: {f.where}", f.sentence) for f in faults_of(problem))
        raise BadHouse(faults) from problem


def _bad(where: str, sentence: str) -> BadHouse:
    return BadHouse((Fault("bad_house", where, sentence),))


def _text(model: BaseModel) -> str:
    return json.dumps(model.model_dump(mode="json"), indent=1, ensure_ascii=False) + "\n"


def _log_lines(house: HouseDocument) -> Iterator[LogLine]:
    venues = {rig.id: rig.venue.name for rig in house.rigs}
    corrected = {entry.corrects for entry in house.log if entry.corrects is not None}
    return (line_of(entry, venues.get(entry.rig or "", ""), entry.id in corrected) for entry in house.log)


def _tables(house: HouseDocument) -> Iterator[tuple[str, str]]:
    yield "cupboard.csv", cupboard_to_csv(house.cupboard)
    yield "people.csv", table_of(("name", "role"), ((p.name, p.role) for p in house.index.people))
    names = {rig.id: rig.name for rig in house.rigs}
    of_occasion: dict[str | None, list[str]] = {}
    for rig in house.index.rigs:
        of_occasion.setdefault(rig.occasion, []).append(names.get(rig.id, rig.id))
    yield (
        "occasions.csv",
        table_of(
            ("name", "starts_at", "ends_at", "rigs", "notes"),
            (
                (
                    entry.name,
                    entry.starts_at.isoformat(),
                    entry.ends_at.isoformat(),
                    "; ".join(of_occasion.get(entry.id, ())),
                    "; ".join(note.words for note in entry.notes),
                )
                for entry in house.index.occasions
            ),
        ),
    )
    yield "log.csv", log_to_csv(_log_lines(house))
    yield (
        "runs.csv",
        table_of(
            ("rig", "number", "run", "pieces", "note"),
            (
                (rig.name, str(run.number), run.name, " + ".join(name_of(rig, piece) for piece in run.pieces), run.note)
                for rig in house.rigs
                for run in rig.runs
            ),
        ),
    )
