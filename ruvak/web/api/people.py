"""For owners: people, their roles and passphrases, and trusted computers."""

from flask import Response

from ruvak.service.people import PassphraseLink
from ruvak.web.answers import answer, use_cases
from ruvak.web.api.blueprint import blueprint
from ruvak.web.people_schemas import (
    ChangedPersonBody,
    ComputerList,
    ComputerPath,
    MadeLink,
    NameBody,
    NewPersonBody,
    PersonList,
    PersonPath,
    SignInList,
    SignInOfPath,
)
from ruvak.web.qr import link_address, picture_of
from ruvak.web.who import person, trust

api = blueprint("people", "People and trusted computers")


def _link(made: PassphraseLink) -> MadeLink:
    address = link_address(made.token)
    return MadeLink(name=made.name, address=address, qr=picture_of(address), ends_at=made.ends_at)


@api.get("/people", responses={"200": PersonList})
def list_people() -> Response:
    """Everybody with an account."""
    return answer(PersonList(tuple(use_cases().people.list_all())))


@api.post("/people", responses={"201": MadeLink})
def add_person(body: NewPersonBody) -> Response:
    """Adds somebody; the answer is the link by which they choose a passphrase, once."""
    return answer(_link(use_cases().people.add(body.name, body.role, person().name)), 201)


@api.put("/people/<person_id>", responses={"204": None})
def change_person(path: PersonPath, body: ChangedPersonBody) -> Response:
    """Another name or role. 409 where the name is taken, or the house would have no owner."""
    use_cases().people.change(path.person_id, body.name, body.role)
    return Response(status=204)


@api.delete("/people/<person_id>", responses={"204": None})
def remove_person(path: PersonPath) -> Response:
    """Removes the account and signs it out everywhere; what the person did keeps their name."""
    use_cases().people.remove(path.person_id)
    return Response(status=204)


@api.post("/people/<person_id>/passphrase-link", responses={"201": MadeLink})
def renew_passphrase(path: PersonPath) -> Response:
    """A link by which somebody who has forgotten their passphrase chooses a new one, once."""
    return answer(_link(use_cases().people.renew_passphrase(path.person_id, person().name)), 201)


@api.get("/people/<person_id>/sign-ins", responses={"200": SignInList})
def list_sign_ins_of(path: PersonPath) -> Response:
    """Where somebody is signed in."""
    return answer(SignInList(tuple(use_cases().sign_ins.list_of(path.person_id, None))))


@api.delete("/people/<person_id>/sign-ins/<sign_in_id>", responses={"204": None})
def end_sign_in_of(path: SignInOfPath) -> Response:
    """Signs one of somebody's browsers out."""
    use_cases().sign_ins.end(path.sign_in_id, path.person_id)
    return Response(status=204)


@api.get("/computers", responses={"200": ComputerList})
def list_computers() -> Response:
    """Computers at which whoever is on duty picks their name."""
    return answer(ComputerList(tuple(use_cases().sign_ins.list_computers())))


@api.post("/computers", responses={"204": None})
def trust_computer(body: NameBody) -> Response:
    """Trusts the computer that asks: from now on people pick their names there."""
    return trust(Response(status=204), use_cases().sign_ins.trust_computer(body.name, person().name))


@api.delete("/computers/<computer_id>", responses={"204": None})
def stop_trusting(path: ComputerPath) -> Response:
    """Trusts a computer no longer; whoever picked their name there is signed out."""
    use_cases().sign_ins.stop_trusting(path.computer_id)
    return Response(status=204)
