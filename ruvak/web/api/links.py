"""Links: one right to one thing, for whoever holds it."""

from flask import Response

from ruvak.web.answers import answer, use_cases
from ruvak.web.api.blueprint import blueprint
from ruvak.web.people_schemas import (
    ChosenPassphraseBody,
    LinkList,
    LinkPath,
    MadeLink,
    NewLinkBody,
    OpenedLink,
    TokenBody,
)
from ruvak.web.qr import link_address, picture_of
from ruvak.web.schemas import RigPath
from ruvak.web.who import access, browser, person, sign_in_with

api = blueprint("links", "Links to a rig", "429")


@api.get("/rigs/<rig_id>/links", responses={"200": LinkList})
def list_links(path: RigPath) -> Response:
    """Links to a rig that have not ended."""
    return answer(LinkList(tuple(use_cases().links.list_of(path.rig_id))))


@api.post("/rigs/<rig_id>/links", responses={"201": MadeLink})
def make_link(path: RigPath, body: NewLinkBody) -> Response:
    """Makes a link. Its address is in this answer and nowhere else."""
    made = use_cases().links.add(path.rig_id, body.name, body.gives, body.hours, person().name)
    address = link_address(made.token)
    return answer(MadeLink(name=body.name, address=address, qr=picture_of(address), ends_at=made.link.ends_at), 201)


@api.delete("/rigs/<rig_id>/links/<link_id>", responses={"204": None})
def revoke_link(path: LinkPath) -> Response:
    """Ends a link; whoever opened it is signed out at once."""
    use_cases().links.revoke(path.rig_id, path.link_id)
    return Response(status=204)


@api.post("/links/open", responses={"200": OpenedLink})
def open_link(body: TokenBody) -> Response:
    """Exchanges what a link carries for a sign-in. A link to choose a passphrase signs nobody in."""
    who = access()
    has_account = who is not None and who.is_signed_in_account
    opened = use_cases().sign_ins.with_link(body.token, browser(), has_account)
    response = answer(OpenedLink(gives=opened.gives, name=opened.name, rig=opened.rig))
    return sign_in_with(response, opened.sign_in) if opened.sign_in else response


@api.post("/links/passphrase", responses={"204": None})
def choose_passphrase(body: ChosenPassphraseBody) -> Response:
    """Chooses a passphrase by a link, and signs the person in at this browser."""
    person_id = use_cases().people.choose_passphrase(body.token, body.passphrase)
    return sign_in_with(Response(status=204), use_cases().sign_ins.of_person(person_id, browser()))
