"""Records as JSON responses, and the use cases of the current app."""

import gzip
from dataclasses import dataclass
from typing import cast

from flask import Response, current_app, make_response, request
from pydantic import BaseModel

from ruvak.service.analyses import Analyses
from ruvak.service.cupboard import Cupboard
from ruvak.service.edits import Edits
from ruvak.service.find import Finder
from ruvak.service.house import House
from ruvak.service.house_import import HouseImport
from ruvak.service.lead_tests import LeadTests
from ruvak.service.links import Links
from ruvak.service.log_book import LogBook
from ruvak.service.log_lines import LogLines
from ruvak.service.long_work import LongWork
from ruvak.service.occasions import Occasions
from ruvak.service.own_data import OwnDataReader
from ruvak.service.people import People
from ruvak.service.photos import Photos
from ruvak.service.pool import Compute
from ruvak.service.problems import NotFound
from ruvak.service.pulling import Pulling
from ruvak.service.rigs import Rigs
from ruvak.service.sign_ins import SignIns
from ruvak.service.task import as_json
from ruvak.service.tester import Tester
from ruvak.service.venues import Venues
from ruvak.store.solved import StoredPart

EXTENSION = "ruvak"
JSON = {"Content-Type": "application/json"}


@dataclass(frozen=True)
class UseCases:
    """Everything this app can do, on one database."""

    rigs: Rigs
    edits: Edits
    analyses: Analyses
    compute: Compute
    long_work: LongWork | None
    """None where everything is computed in place."""
    people: People
    sign_ins: SignIns
    links: Links
    venues: Venues
    cupboard: Cupboard
    occasions: Occasions
    finder: Finder
    log_book: LogBook
    log_lines: LogLines
    lead_tests: LeadTests
    pulling: Pulling
    tester: Tester
    house: House
    house_import: HouseImport
    photos: Photos
    own_data: OwnDataReader


def use_cases() -> UseCases:
    """Those of the current app."""
    return cast(UseCases, current_app.extensions[EXTENSION])


def queue() -> LongWork:
    """The queue of this app. Raises NotFound where it has none."""
    queued = use_cases().long_work
    if queued is None:
        raise NotFound("This server computes everything at once; there is no work to ask about.")
    return queued


def answer(model: BaseModel, status: int = 200) -> Response:
    """A record as the body of a response."""
    return make_response(model.model_dump_json(), status, JSON)


def download(content: str | bytes, content_type: str, name: str) -> Response:
    """A file that a browser saves under a name."""
    response = make_response(content, 200, {"Content-Type": content_type})
    response.headers["Content-Disposition"] = f'attachment; filename="{name}"'
    return response


def answer_computed(rig_id: str, use_case: str, *arguments: object) -> Response:
    """What a compute process answers, as the JSON that it sends."""
    return make_response(use_cases().compute.run(rig_id, as_json(use_case, rig_id, *arguments)), 200, JSON)


def part(result: StoredPart) -> Response:
    """A kept part of an analysis as it is kept; 304 where the client has it already."""
    packed = request.accept_encodings.quality("gzip") > 0
    response = make_response(result.body if packed else gzip.decompress(result.body), 200, JSON)
    response.vary.add("Accept-Encoding")
    if packed:
        response.headers["Content-Encoding"] = "gzip"
    return add_etag(response, result.etag)


def add_etag(response: Response, etag: str) -> Response:
    """The response with a tag of its contents; 304 without a body where the client named that tag."""
    response.set_etag(etag)
    response.cache_control.no_cache = True
    return cast(Response, response.make_conditional(request))
