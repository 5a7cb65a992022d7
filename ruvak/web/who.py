"""Who is asking: the cookie of a sign-in, the demonstration's technician, or nobody."""

from ipaddress import ip_address
from typing import cast

from flask import Response, current_app, g, request, session

from ruvak.service.access import Access, SignedOut
from ruvak.service.sign_ins import Browser
from ruvak.service.states import Person
from ruvak.web.answers import use_cases
from ruvak.web.settings import LOOPBACK, Settings

SETTINGS = "ruvak_settings"
SIGN_IN, COMPUTER = "ruvak_sign_in", "ruvak_computer"
"""Cookies: of a sign-in, and of a computer at which people pick their names."""
_A_YEAR_S, _HALF_A_YEAR_S = 365 * 24 * 3600, 180 * 24 * 3600


def access() -> Access | None:
    """Who asks, looked up once a request, so that a sign-in or a link that was ended counts no longer at once."""
    if "access" not in g:
        g.access = _look_up()
    return cast(Access | None, g.access)


def signed_in() -> Access:
    """Who asks. Raises SignedOut."""
    result = access()
    if result is None:
        raise SignedOut("Sign in first: nobody is signed in at this browser, or no longer.")
    return result


def person() -> Person:
    """Under whose name changes are made. Raises SignedOut."""
    return signed_in().person


def in_demonstration() -> bool:
    """Whether this is the demonstration, asked from the computer it runs on: nobody else is ever signed in by it.

    A request that a proxy passes on is not, whatever address it comes from.
    """
    if not server_settings().demo or any(name in request.headers for name in ("Forwarded", "X-Forwarded-For")):
        return False
    try:
        here = ip_address(request.remote_addr or "").is_loopback
    except ValueError:
        return False
    return here and request.host.rsplit(":", 1)[0] in LOOPBACK


def browser() -> Browser:
    """Where the request comes from."""
    return Browser(address=request.remote_addr or "", words=request.user_agent.string)


def sign_in_with(response: Response, token: str) -> Response:
    """The response with a new sign-in for this browser; an earlier one ends, and so does its token for changes."""
    sign_out(response)
    _set_cookie(response, SIGN_IN, token, _HALF_A_YEAR_S)
    return response


def sign_out(response: Response) -> Response:
    """The response by which this browser is signed out."""
    present = access()
    if present is not None and present.sign_in is not None:
        use_cases().sign_ins.end(present.sign_in)
    session.clear()
    response.delete_cookie(
        _name(SIGN_IN), path="/", secure=server_settings().secure_cookies, httponly=True, samesite="Lax"
    )
    return response


def trust(response: Response, token: str) -> Response:
    """The response by which this computer is known as a trusted one."""
    _set_cookie(response, COMPUTER, token, _A_YEAR_S)
    return response


def computer_token() -> str | None:
    """What a trusted computer carries."""
    return request.cookies.get(_name(COMPUTER))


def _look_up() -> Access | None:
    token = request.cookies.get(_name(SIGN_IN))
    result = use_cases().sign_ins.access(token) if token else None
    if result is None and in_demonstration():
        return use_cases().people.demo_technician()
    return result


def server_settings() -> Settings:
    """Of the current app."""
    return cast(Settings, current_app.extensions[SETTINGS])


def _name(cookie: str) -> str:
    """Behind HTTPS browsers take a name with this beginning only from this very host."""
    return f"__Host-{cookie}" if server_settings().secure_cookies else cookie


def _set_cookie(response: Response, cookie: str, value: str, seconds: int) -> None:
    response.set_cookie(
        _name(cookie),
        value,
        max_age=seconds,
        path="/",
        secure=server_settings().secure_cookies,
        httponly=True,
        samesite="Lax",
    )
