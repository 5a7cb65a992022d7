"""Venues: typed as lines, kept by the house with revisions, taken into rigs."""

from flask import Response, request
from flask_openapi3 import RawModel

from ruvak.core.venue.document import venue_from_json
from ruvak.core.venue.lines import VenueReading
from ruvak.service.access import RIGHTS, Right
from ruvak.service.states import VenueComparison
from ruvak.service.venues import VenueStanding, VenueSummary
from ruvak.web.answers import answer, answer_computed, download, use_cases
from ruvak.web.api.blueprint import blueprint, file_of, or_later
from ruvak.web.schemas import BelongBody, LinesBody, RevisionBody, RigPath, VenueList, VenuePath
from ruvak.web.who import person, signed_in

api = blueprint("venues", "Venues of the house")


class VenueFile(RawModel):
    """A venue's file; read by the core's own reader, so its faults are told field by field."""

    mimetypes = ["application/json"]  # noqa: RUF012


@api.get("/venues", responses={"200": VenueList})
def list_venues() -> Response:
    """Venues of the house, by name."""
    return answer(VenueList(tuple(use_cases().venues.list_all())))


@api.post("/venues", responses={"201": VenueSummary})
def import_venue(raw: VenueFile) -> Response:
    """A venue's file as a new venue of the house. 409 where there is one of that name."""
    return answer(use_cases().venues.import_document(venue_from_json(request.get_data()), person()), 201)


@api.get("/venues/<venue_id>/file", responses={"200": file_of("application/json")})
def export_venue(path: VenuePath) -> Response:
    """The newest revision as a file: venue, installed lines and their parts, as in a rig file."""
    return download(
        use_cases().venues.read(path.venue_id).model_dump_json(),
        "application/json",
        f"{path.venue_id}.ruvak-venue.json",
    )


@api.post("/rigs/<rig_id>/venue-lines", responses={"200": VenueReading})
def read_venue_lines(path: RigPath, body: LinesBody) -> Response:
    """What typed lines add to the rig's venue; nothing is saved, the edit is for the client to make."""
    return answer_computed(path.rig_id, "read_venue", body.text)


@api.get("/rigs/<rig_id>/venue", responses={"200": VenueStanding})
def read_standing(path: RigPath) -> Response:
    """Which revision of which venue the rig was judged on, and what differs."""
    # Whoever holds a link to one rig is not told what other venues there are.
    plans = Right.PLAN in RIGHTS[signed_in().role]
    return answer(use_cases().venues.standing(path.rig_id, others=plans))


@api.put("/rigs/<rig_id>/venue", responses={"204": None})
def belong_to_venue(path: RigPath, body: BelongBody) -> Response:
    """The rig belongs to a venue of the house from now on; taking what that has is an edit of its own."""
    use_cases().venues.belong(path.rig_id, body.venue_id)
    return Response(status=204)


@api.post("/rigs/<rig_id>/venue", responses={"204": None})
def save_venue(path: RigPath, body: RevisionBody) -> Response:
    """Saves the rig's venue as the house's next revision, or as a new venue. 409 where the rig has not taken the newest
    one."""
    use_cases().venues.save(path.rig_id, body.words, person())
    return Response(status=204)


@api.get("/rigs/<rig_id>/venue/newer", responses=or_later(VenueComparison))
def read_newer_venue(path: RigPath) -> Response:
    """What the newest revision would change in this rig, run by run, and the edit that takes it."""
    return answer_computed(path.rig_id, "newer_venue")
