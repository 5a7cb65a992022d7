"""Every error as one JSON shape, with a status that says whose turn it is."""

import logging
from collections.abc import Iterable

from flask import Flask, Response, g, make_response, request, url_for
from flask_wtf.csrf import CSRFError
from pydantic import ValidationError
from sqlalchemy.exc import OperationalError
from werkzeug.exceptions import HTTPException, MethodNotAllowed, RequestEntityTooLarge, SecurityError

from ruvak.core.errors import Fault, RuvakError
from ruvak.core.rig.files import faults_of
from ruvak.service.long_work import StillWorking
from ruvak.service.problems import Busy, Conflict, Meeting, NotCurrent
from ruvak.service.throttle import TooManyAttempts
from ruvak.web.schemas import FaultBody, MeetingBody, Problem
from ruvak.web.settings import MAX_BODY_BYTES

STATUS = {
    "not_found": 404,
    "conflict": 409,
    "not_current": 410,
    "signed_out": 401,
    "code_needed": 401,
    "wrong_passphrase": 401,
    "not_allowed": 403,
    "name_taken": 409,
    "last_owner": 409,
    "not_newest": 409,
    "already_taken": 409,
    "cupboard_conflict": 409,
    "bad_hours": 422,
    "weak_passphrase": 422,
    "too_many_attempts": 429,
    "busy": 503,
    "no_tester": 502,
    "nothing_to_undo": 409,
    "bad_rig": 422,
    "bad_edit": 422,
    "bad_input_list": 422,
    "bad_kit_list": 422,
    "bad_house": 422,
    "bad_venue": 422,
    "bad_photo": 422,
    "too_many_photos": 409,
    "floating_network": 422,
}

_SENTENCES = {
    400: "The request could not be read.",
    404: "There is nothing at this address.",
    405: "This address does not take that method.",
    408: "The request stopped coming half way. Send it again.",
    415: "Send JSON, with Content-Type: application/json.",
}

RETRY_AFTER_S = 2
log = logging.getLogger("ruvak.web")


def init_app(app: Flask) -> None:
    """Registers the handlers."""
    app.register_error_handler(RuvakError, _ruvak)
    app.register_error_handler(RequestEntityTooLarge, _too_large)
    app.register_error_handler(CSRFError, _csrf)
    app.register_error_handler(HTTPException, _http)
    app.register_error_handler(SecurityError, _host)
    app.register_error_handler(OperationalError, _database)
    app.register_error_handler(Exception, _answer_unexpected)


def reply(problem: Problem, status: int) -> Response:
    """The problem as a response, with the request's id in it."""
    body = problem.model_copy(update={"request_id": getattr(g, "request_id", None)})
    return make_response(body.model_dump_json(), status, {"Content-Type": "application/json"})


def invalid(error: ValidationError) -> Response:
    """A body whose fields are wrong; what was sent is not echoed."""
    faults = _bodies(faults_of(error))
    lines = " ".join(f"{fault.where} {fault.sentence}" for fault in faults[:3])
    return reply(Problem(code="bad_request", message=lines, faults=faults), 422)


def _ruvak(error: RuvakError) -> Response:
    if isinstance(error, StillWorking):
        return _accepted(error)
    version = error.current_version if isinstance(error, Conflict | NotCurrent) else None
    meetings = tuple(map(_meeting, error.meetings)) if isinstance(error, Conflict) else ()
    faults = _bodies(error.faults)
    problem = Problem(code=error.code, message=str(error), faults=faults, current_version=version, meetings=meetings)
    response = reply(problem, STATUS.get(error.code, 500))
    if isinstance(error, Busy):
        response.headers["Retry-After"] = str(RETRY_AFTER_S)
    if isinstance(error, TooManyAttempts):
        response.headers["Retry-After"] = str(error.retry_after_s)
    return response


def _accepted(error: StillWorking) -> Response:
    """202 and where to ask how far it is (RFC 9110, section 15.3.3); then the same request again brings the answer."""
    if error.rig_id is None:
        monitor = url_for("house.read_work", work_id=error.work_id)
    else:
        monitor = url_for("work.read_work", rig_id=error.rig_id, work_id=error.work_id)
    return make_response("", 202, {"Location": monitor})


def _bodies(faults: Iterable[Fault]) -> tuple[FaultBody, ...]:
    return tuple(FaultBody(code=fault.code, where=fault.where, sentence=fault.sentence) for fault in faults)


def _meeting(meeting: Meeting) -> MeetingBody:
    return MeetingBody(
        **meeting.touched._asdict(), yours=meeting.yours, theirs=meeting.theirs, by=meeting.by, label=meeting.label
    )


def _too_large(error: RequestEntityTooLarge) -> Response:
    megabytes = (request.max_content_length or MAX_BODY_BYTES) // (1024 * 1024)
    sentence = f"This is larger than {megabytes} MB, more than any such file is. Check that it is the right file."
    return reply(Problem(code="too_large", message=sentence), 413)


def _csrf(error: CSRFError) -> Response:
    sentence = "This page's permission to make changes has run out. Reload it; nothing saved is lost."
    return reply(Problem(code="csrf", message=sentence), 403)


def _http(error: HTTPException) -> Response:
    code = error.code or 500
    if error.response is not None:
        return make_response(error.response)
    name = (error.name or "error").lower().replace(" ", "_")
    response = reply(Problem(code=name, message=_SENTENCES.get(code, error.description or error.name or "")), code)
    if isinstance(error, MethodNotAllowed) and error.valid_methods:
        response.headers["Allow"] = ", ".join(sorted(error.valid_methods))
    return response


def _host(_: SecurityError) -> Response:
    sentence = "This server does not answer to that name. Whoever runs it can add the name to RUVAK_HOSTS."
    return reply(Problem(code="unknown_host", message=sentence), 400)


def _database(error: OperationalError) -> Response:
    log.error("database unreachable", exc_info=error)
    sentence = "The database does not answer just now. What was saved is safe; try again in a moment."
    return reply(Problem(code="database_down", message=sentence), 503)


def _answer_unexpected(error: Exception) -> Response:
    log.error("unexpected error", exc_info=error)
    sentence = "Something went wrong in the program, and it was logged. What was saved is safe; reload the page."
    return reply(Problem(code="internal", message=sentence), 500)
