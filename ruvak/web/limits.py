"""How large a body may be, where that is more than for all others."""

from flask import Flask, request

LARGE = {"house.import_house": 64 * 1024 * 1024, "photos.add_photo": 16 * 1024 * 1024}
"""In bytes, by endpoint; how much an archive unpacks to and how many pixels a photo has is limited by its reader."""


def init_app(app: Flask) -> None:
    """To be called before anything that looks into bodies."""
    app.before_request(_allow)


def _allow() -> None:
    if request.endpoint in LARGE:
        request.max_content_length = LARGE[request.endpoint]
