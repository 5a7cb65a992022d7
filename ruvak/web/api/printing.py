"""Sheets of paper: one PDF of what somebody chose, and the same as tables and pictures."""

from urllib.parse import quote

from flask import Response

from ruvak.core.prepare import prepare
from ruvak.core.sheets.inputs import input_list
from ruvak.core.sheets.labels import end_labels
from ruvak.core.sheets.wiring import is_soldered, wiring_sheet
from ruvak.formats.printed.document import Wanted, printed
from ruvak.formats.printed.labels import labels_to_csv
from ruvak.formats.printed.lists import inputs_to_csv
from ruvak.formats.printed.wiring import wiring_svg
from ruvak.service.access import Right
from ruvak.service.problems import NotFound
from ruvak.service.task import as_it_is
from ruvak.web.answers import answer, download, use_cases
from ruvak.web.api.blueprint import LATER, blueprint, file_of
from ruvak.web.api.pull import require_the_house
from ruvak.web.log_schemas import PartOfRigPath, PrintQuery, SolderedList, SolderedPart
from ruvak.web.qr import screen_address
from ruvak.web.schemas import RigPath

PDF, CSV, SVG = "application/pdf", "text/csv", "image/svg+xml"
UTF_8 = "; charset=utf-8"
api = blueprint("printing", "Printed sheets", reads_need=Right.READ)


@api.get("/rigs/<rig_id>/print", responses={"200": file_of(PDF), "202": LATER})
def print_sheets(path: RigPath, query: PrintQuery) -> Response:
    """The chosen sheets as one PDF. The pull list is of all rigs of the day, and not for whoever comes by a link."""
    if "pull" in query.sheets:
        require_the_house()
    compute = use_cases().compute
    sheets = compute.run(path.rig_id, as_it_is("sheets", path.rig_id))
    day = compute.run(path.rig_id, as_it_is("pull", path.rig_id, query.spare_m)) if "pull" in query.sheets else None
    wanted = Wanted(tuple(query.sheets), query.paper, query.labels, query.skip)
    made = printed(sheets, None if day is None else day.list, wanted, _address(path.rig_id))
    return download(made, PDF, f"{path.rig_id}.pdf")


@api.get("/rigs/<rig_id>/labels", responses={"200": file_of(CSV)})
def export_labels(path: RigPath) -> Response:
    """Labels for both ends of every lead: code, run, lead, what it goes into, destination, what it carries, address."""
    labels = end_labels(use_cases().rigs.export(path.rig_id))
    return download(labels_to_csv(labels, _address(path.rig_id)), CSV + UTF_8, "labels.csv")


@api.get("/rigs/<rig_id>/inputs", responses={"200": file_of(CSV)})
def export_inputs(path: RigPath) -> Response:
    """The input list by stage area: area, number, who, what, phantom, socket, leads, arrives at, note."""
    return download(inputs_to_csv(input_list(prepare(use_cases().rigs.export(path.rig_id)))), CSV + UTF_8, "inputs.csv")


@api.get("/rigs/<rig_id>/wiring", responses={"200": SolderedList})
def list_soldered(path: RigPath) -> Response:
    """Leads and adapters of the rig that are soldered from a drawing."""
    parts = prepare(use_cases().rigs.export(path.rig_id)).parts
    return answer(SolderedList(tuple(SolderedPart(id=part.id, name=part.name) for part in parts if is_soldered(part))))


@api.get("/rigs/<rig_id>/wiring/<part_id>", responses={"200": file_of(SVG)})
def draw_part(path: PartOfRigPath) -> Response:
    """How a lead or adapter of the rig is soldered, contact to contact."""
    part = prepare(use_cases().rigs.export(path.rig_id)).parts_by_id.get(path.part_id)
    if part is None or not is_soldered(part):
        raise NotFound("The rig has no such part, or it is none that is soldered from a drawing.")
    return download(wiring_svg(wiring_sheet(part)), SVG + UTF_8, f"{part.id}.svg")


def _address(rig_id: str) -> str:
    return screen_address(f"rigs/{quote(rig_id)}")
