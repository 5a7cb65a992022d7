"""Kit and parts: what is owned in plain words and as CSV, and the library to start own parts from."""

from flask import Response

from ruvak.core.kit.lines import KitReading
from ruvak.core.parts.library import library
from ruvak.core.rig.part import Part
from ruvak.formats.kit_list import kit_to_csv, lines_from_csv
from ruvak.service.problems import NotFound
from ruvak.web.answers import answer, answer_computed, download, use_cases
from ruvak.web.api.blueprint import blueprint, file_of
from ruvak.web.schemas import KitListBody, LinesBody, PartPath, PartSummary, PartSummaryList, RigPath

api = blueprint("kit", "Kit and parts")


@api.post("/rigs/<rig_id>/kit-lines", responses={"200": KitReading})
def read_kit_lines(path: RigPath, body: LinesBody) -> Response:
    """What typed lines add to the kit; nothing is saved, the edit is for the client to make."""
    return answer_computed(path.rig_id, "read_kit", body.text)


@api.post("/rigs/<rig_id>/kit-list", responses={"200": KitReading})
def read_kit_list(path: RigPath, body: KitListBody) -> Response:
    """What a kit list adds, row by row."""
    return answer_computed(path.rig_id, "read_kit", lines_from_csv(body.csv))


@api.get("/rigs/<rig_id>/kit.csv", responses={"200": file_of("text/csv")})
def export_kit(path: RigPath) -> Response:
    """The kit as CSV: tag, what, length_m, owned, installed."""
    return download(
        kit_to_csv(use_cases().rigs.export(path.rig_id)), "text/csv; charset=utf-8", f"{path.rig_id}-kit.csv"
    )


@api.get("/parts", responses={"200": PartSummaryList})
def list_parts() -> Response:
    """The parts library by name."""
    parts = library().values()
    return answer(
        PartSummaryList(
            tuple(PartSummary(id=part.id, name=part.name, words=part.words, kind=part.kind) for part in parts)
        )
    )


@api.get("/parts/<part_id>", responses={"200": Part})
def read_part(path: PartPath) -> Response:
    """One part of the library, whole: contacts, wires, values with their sources."""
    part = library().get(path.part_id)
    if part is None:
        raise NotFound(f"There is no part '{path.part_id}' in the library.")
    return answer(part)
