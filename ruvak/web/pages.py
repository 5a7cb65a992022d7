"""The single page and its files."""

from pathlib import Path

from flask import Flask, Response, send_file, send_from_directory
from werkzeug.exceptions import NotFound

from ruvak.web.who import server_settings

STATIC = Path(__file__).parent / "static"


def init_app(app: Flask) -> None:
    """Files under /assets are named after their contents and kept for a year; other files are asked for again each
    time. The page has one address, since what is on it stands behind the # of the address."""
    app.add_url_rule("/", "page", _page)
    app.add_url_rule("/house-authority.crt", "authority", _authority)
    app.add_url_rule("/assets/<path:name>", "asset", _asset)
    app.add_url_rule("/<path:name>", "file", _file)


def _page() -> Response:
    if not (STATIC / "index.html").exists():
        return Response("The interface is not built yet: run script/demo.", status=503, mimetype="text/plain")
    return _file("index.html")


def _authority() -> Response:
    """The house's own authority, which phones install. 404 where the server has none."""
    file = server_settings().authority
    if file is None or not file.is_file():
        raise NotFound
    return send_file(file, mimetype="application/x-x509-ca-cert", download_name="house-authority.crt")


def _asset(name: str) -> Response:
    return send_from_directory(STATIC / "assets", name, max_age=31_536_000)


def _file(name: str) -> Response:
    """404 for what is not there."""
    response = send_from_directory(STATIC, name)
    response.cache_control.no_cache = True
    return response
