"""Headers, the content policy, cross-site request forgery protection, and who sits at the browser."""

import uuid

from flask import Flask, Response, request, session
from flask_wtf.csrf import CSRFProtect
from secure import (
    ContentSecurityPolicy,
    CrossOriginOpenerPolicy,
    CrossOriginResourcePolicy,
    PermissionsPolicy,
    ReferrerPolicy,
    Secure,
    XContentTypeOptions,
    XFrameOptions,
)

from ruvak.service.states import Person

NEW_PERSON = "Somebody at the desk"


def init_app(app: Flask) -> None:
    """Every response gets the headers; every changing request must carry the token."""
    CSRFProtect(app)
    policy = ContentSecurityPolicy().default_src("'self'").script_src("'self'").style_src("'self'")
    policy = policy.img_src("'self'", "data:", "blob:").font_src("'self'").connect_src("'self'").object_src("'none'")
    policy = policy.base_uri("'none'").form_action("'self'").frame_ancestors("'none'")
    headers = Secure(
        csp=policy,
        coop=CrossOriginOpenerPolicy().same_origin(),
        corp=CrossOriginResourcePolicy().same_origin(),
        permissions=PermissionsPolicy().camera("self").microphone("self").geolocation(),
        referrer=ReferrerPolicy().same_origin(),
        xcto=XContentTypeOptions().nosniff(),
        xfo=XFrameOptions().deny(),
    )

    def protect(response: Response) -> Response:
        headers.set_headers(response)
        if request.path.startswith("/api/") and "Cache-Control" not in response.headers:
            response.cache_control.no_store = True
        return response

    app.after_request(protect)


def person() -> Person:
    """The person at this browser; their id lives in the signed cookie."""
    session.permanent = True
    if "person" not in session:
        session["person"] = uuid.uuid4().hex
        session["person_name"] = NEW_PERSON
    return Person(id=session["person"], name=session["person_name"])


def visitor() -> Person:
    """As person(), but only looking: a browser that asks several things at once before it has its cookie must not be
    given a different one with each answer, or the token it gets would belong to another."""
    if "person" not in session:
        return Person(id="nobody-yet", name=NEW_PERSON)
    return person()


def rename(name: str) -> Person:
    """The same person under a new name."""
    person()
    session["person_name"] = name
    return person()
