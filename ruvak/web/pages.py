"""The single page and its files."""

from pathlib import Path

from flask import Flask, Response, send_from_directory
from werkzeug.exceptions import NotFound

STATIC = Path(__file__).parent / "static"


def init_app(app: Flask) -> None:
    """Files under /assets are named after their contents and kept for a year; every other address is the page."""
    app.add_url_rule("/assets/<path:name>", "asset", _asset)
    app.add_url_rule("/", "page", _page, defaults={"path": ""})
    app.add_url_rule("/<path:path>", "page", _page)


def _asset(name: str) -> Response:
    return send_from_directory(STATIC / "assets", name, max_age=31_536_000)


def _page(path: str) -> Response:
    if path.startswith("api/"):
        raise NotFound
    if path and (STATIC / path).is_file():
        return send_from_directory(STATIC, path, max_age=3600)
    if not (STATIC / "index.html").exists():
        return Response("The interface is not built yet: run script/demo.", status=503, mimetype="text/plain")
    return send_from_directory(STATIC, "index.html", max_age=0)
