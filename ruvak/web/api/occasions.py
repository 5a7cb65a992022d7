"""Occasions of the house by date, and what is found across its rigs."""

from datetime import UTC, datetime

from flask import Response

from ruvak.formats.calendar import CalendarEntry, to_icalendar
from ruvak.service.access import Right
from ruvak.service.occasions import MadeAgain, Occasion, OccasionNote
from ruvak.web.answers import answer, download, use_cases
from ruvak.web.api.blueprint import blueprint, file_of
from ruvak.web.house_schemas import (
    ChangeOccasionBody,
    DoneBody,
    DoorsBody,
    FindQuery,
    MatchList,
    NewOccasionBody,
    NoteBody,
    NotePath,
    OccasionBody,
    OccasionList,
    OccasionPath,
    OccasionRigPath,
    ReplaceBody,
)
from ruvak.web.who import person

api = blueprint("occasions", "Occasions of the house", reads_need=Right.READ)


@api.get("/occasions", responses={"200": OccasionList})
def list_occasions() -> Response:
    """All of them by date, the latest first."""
    return answer(OccasionList(tuple(use_cases().occasions.list_all())))


@api.get("/occasions/calendar", responses={"200": file_of("text/calendar")})
def export_calendar() -> Response:
    """All of them as iCalendar, with their venues, rigs and open notes."""
    entries = (
        CalendarEntry(
            id=each.id,
            name=each.name,
            starts_at=each.starts_at,
            ends_at=each.ends_at,
            place=", ".join(dict.fromkeys(rig.venue for rig in each.rigs)),
            words=(
                *(f"Rig: {rig.name}, {rig.runs} runs" for rig in each.rigs),
                *(f"Open: {note.words}" for note in each.notes if note.done_by is None),
            ),
        )
        for each in use_cases().occasions.list_all()
    )
    return download(to_icalendar(entries, datetime.now(UTC)), "text/calendar; charset=utf-8", "occasions.ics")


@api.post("/occasions", responses={"200": Occasion})
def add_occasion(body: NewOccasionBody) -> Response:
    """A new one, with rigs. 409 where they have things that others have then."""
    return answer(use_cases().occasions.add(body.name, body.starts_at, body.ends_at, body.rigs))


@api.put("/occasions/<occasion_id>", responses={"200": MadeAgain})
def change_occasion(path: OccasionPath, body: ChangeOccasionBody) -> Response:
    """Another name or other hours. 409 where its rigs have things that others have then."""
    changed = use_cases().occasions.change(
        path.occasion_id, body.name, body.starts_at, body.ends_at, body.replace, person()
    )
    return answer(changed)


@api.put("/occasions/<occasion_id>/doors", responses={"200": Occasion})
def open_doors(path: OccasionPath, body: DoorsBody) -> Response:
    """When people are let in: everything has to be checked by then."""
    return answer(use_cases().occasions.open_doors(path.occasion_id, body.doors_at))


@api.delete("/occasions/<occasion_id>", responses={"204": None})
def remove_occasion(path: OccasionPath) -> Response:
    """Deletes the date and its notes; its rigs stay."""
    use_cases().occasions.remove(path.occasion_id)
    return Response(status=204)


@api.post("/occasions/<occasion_id>/again", responses={"200": MadeAgain})
def make_again(path: OccasionPath, body: OccasionBody) -> Response:
    """Another one like it: rigs, things and open notes."""
    made = use_cases().occasions.make_again(path.occasion_id, body.name, body.starts_at, body.ends_at, person())
    return answer(made)


@api.put("/occasions/<occasion_id>/rigs/<rig_id>", responses={"200": MadeAgain})
def put_rig(path: OccasionRigPath, body: ReplaceBody) -> Response:
    """A rig is for this occasion. 409 where it has things that others have then."""
    return answer(use_cases().occasions.put_rig(path.occasion_id, path.rig_id, body.replace, person()))


@api.delete("/occasions/<occasion_id>/rigs/<rig_id>", responses={"204": None})
def take_rig_out(path: OccasionRigPath) -> Response:
    """A rig has no date any longer."""
    use_cases().occasions.take_rig_out(path.occasion_id, path.rig_id)
    return Response(status=204)


@api.post("/occasions/<occasion_id>/notes", responses={"200": OccasionNote})
def add_note(path: OccasionPath, body: NoteBody) -> Response:
    """Notes something; it goes along to the next occasion made like this one until it is seen to."""
    return answer(use_cases().occasions.note(path.occasion_id, body.words, person()))


@api.put("/notes/<note_id>", responses={"204": None})
def settle_note(path: NotePath, body: DoneBody) -> Response:
    """A note is seen to, or open again."""
    use_cases().occasions.settle(path.note_id, body.done, person())
    return Response(status=204)


@api.get("/find", responses={"200": MatchList})
def find(query: FindQuery) -> Response:
    """Rigs, runs, devices, leads, things of the cupboard and findings by words."""
    return answer(MatchList(tuple(use_cases().finder.find(query.q))))
