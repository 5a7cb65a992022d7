"""Headers, the content policy, and protection from cross-site request forgery."""

from flask import Flask, Response, request
from flask_wtf.csrf import CSRFProtect
from secure import (
    ContentSecurityPolicy,
    CrossOriginOpenerPolicy,
    CrossOriginResourcePolicy,
    PermissionsPolicy,
    ReferrerPolicy,
    Secure,
    StrictTransportSecurity,
    XContentTypeOptions,
    XFrameOptions,
)

from ruvak.web.settings import LOOPBACK
from ruvak.web.who import server_settings

YEAR_S = 365 * 24 * 3600


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

    transport = StrictTransportSecurity().max_age(YEAR_S) if app.config["SESSION_COOKIE_SECURE"] else None

    def protect(response: Response) -> Response:
        headers.set_headers(response)
        if transport is not None and _is_known_outside():
            response.headers[transport.header_name] = transport.header_value
        if request.path.startswith("/api/") and "Cache-Control" not in response.headers:
            response.cache_control.no_store = True
        return response

    app.after_request(protect)


def _is_known_outside() -> bool:
    """Whether browsers may be told to come by HTTPS alone from now on: not for loopback names, which other programs
    share, nor with a certificate of the house's own, which could then no longer be looked past."""
    return server_settings().authority is None and request.host.rsplit(":", 1)[0] not in LOOPBACK
