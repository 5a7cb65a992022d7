"""Signing in and out, and who is at this browser."""

from flask import Response
from flask_wtf.csrf import generate_csrf

from ruvak import __version__
from ruvak.service.access import RIGHTS
from ruvak.web.answers import answer, use_cases
from ruvak.web.api.blueprint import blueprint
from ruvak.web.people_schemas import Here, PickBody, SessionBody, SignInBody
from ruvak.web.who import access, browser, computer_token, in_demonstration, sign_in_with
from ruvak.web.who import sign_out as end_here

api = blueprint("session", "Signing in and out", "429")


@api.get("/session", responses={"200": SessionBody})
def read_session() -> Response:
    """Who is signed in here, what they may do, and the token for changes."""
    who, token = access(), computer_token()
    trusted = use_cases().sign_ins.on_duty(token) if token else None
    return answer(
        SessionBody(
            person_id=who.person.id if who else None,
            person_name=who.person.name if who else None,
            role=who.role if who else None,
            rights=tuple(sorted(RIGHTS[who.role])) if who else (),
            rig=who.rig if who else None,
            account=who is not None and who.is_signed_in_account,
            demo=in_demonstration() and (who is None or who.sign_in is None),
            nobody_yet=who is None and not use_cases().people.list_all(),
            here=Here(name=trusted[0], on_duty=trusted[1]) if trusted else None,
            csrf_token=generate_csrf(),
            app_version=__version__,
        )
    )


@api.post("/sign-in", responses={"204": None})
def sign_in(body: SignInBody) -> Response:
    """Signs a person in. 401 where name and passphrase do not fit, or where a one-time code is asked for as well; 429
    after many attempts, with the seconds to wait."""
    token = use_cases().sign_ins.with_passphrase(body.name, body.passphrase, body.code, browser())
    return sign_in_with(Response(status=204), token)


@api.post("/sign-in/here", responses={"204": None})
def pick_name(body: PickBody) -> Response:
    """Signs in whoever picks their name at a trusted computer. 404 elsewhere."""
    token = use_cases().sign_ins.at_trusted_computer(computer_token() or "", body.person_id, browser())
    return sign_in_with(Response(status=204), token)


@api.post("/sign-out", responses={"204": None})
def sign_out() -> Response:
    """Signs this browser out."""
    return end_here(Response(status=204))
