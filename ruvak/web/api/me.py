"""One's own account: name, passphrase, one-time codes, and the browsers one is signed in at."""

from flask import Response

from ruvak.service.access import NotAllowed
from ruvak.web.answers import answer, download, use_cases
from ruvak.web.api.blueprint import blueprint, file_of
from ruvak.web.people_schemas import (
    NameBody,
    NewPassphraseBody,
    OfferedCodes,
    PresentBody,
    SignInList,
    SignInPath,
    UseCodesBody,
)
from ruvak.web.qr import picture_of
from ruvak.web.who import person, signed_in

api = blueprint("me", "One's own account")


@api.put("/me/name", responses={"204": None})
def rename(body: NameBody) -> Response:
    """Another name; it stands beside one's changes from now on. 409 where somebody has it."""
    if not signed_in().account:
        raise NotAllowed("A link has the name it was given.")
    use_cases().people.change(person().id, body.name, None)
    return Response(status=204)


@api.put("/me/passphrase", responses={"204": None})
def change_passphrase(body: NewPassphraseBody) -> Response:
    """Another passphrase; one's other browsers are signed out."""
    use_cases().people.change_passphrase(signed_in(), body.present, body.new)
    return Response(status=204)


@api.get("/me/one-time-codes", responses={"200": OfferedCodes})
def offer_codes() -> Response:
    """A secret for an authenticator. Nothing changes until a code of it has been sent."""
    offered = use_cases().people.offer_codes(signed_in())
    return answer(OfferedCodes(secret=offered.secret, qr=picture_of(offered.address)))


@api.put("/me/one-time-codes", responses={"204": None})
def use_codes(body: UseCodesBody) -> Response:
    """From now on signing in takes a one-time code as well."""
    use_cases().people.use_codes(signed_in(), body.present, body.secret, body.code)
    return Response(status=204)


@api.post("/me/one-time-codes/stop", responses={"204": None})
def stop_codes(body: PresentBody) -> Response:
    """Signing in takes the passphrase alone again."""
    use_cases().people.stop_codes(signed_in(), body.present)
    return Response(status=204)


@api.get("/me/sign-ins", responses={"200": SignInList})
def list_sign_ins() -> Response:
    """Where one is signed in."""
    return answer(SignInList(tuple(use_cases().sign_ins.list_of(person().id, signed_in().sign_in))))


@api.get("/me/file", responses={"200": file_of("application/json")})
def export_own() -> Response:
    """Everything that is kept about oneself, but no secret."""
    if not signed_in().account:
        raise NotAllowed("A link has no account.")
    return download(use_cases().own_data.read(person().id).model_dump_json(), "application/json", "own-data.json")


@api.delete("/me/sign-ins/<sign_in_id>", responses={"204": None})
def end_sign_in(path: SignInPath) -> Response:
    """Signs one of one's own browsers out."""
    use_cases().sign_ins.end(path.sign_in_id, person().id)
    return Response(status=204)
