"""QR codes of addresses, as pictures that a page shows without asking for another file."""

import segno
from flask import request

from ruvak.web.who import server_settings

_QUIET = 2
"""Modules of white around it: half of what ISO/IEC 18004 asks for, since the page has a margin of its own."""


def picture_of(text: str) -> str:
    """An SVG picture as a data address; dark on light in both themes, as readers expect."""
    code = segno.make(text, error="m", micro=False)
    return str(code.svg_data_uri(border=_QUIET, dark="#000", light="#fff", xmldecl=False))


def link_address(token: str) -> str:
    """Where a link's token is exchanged. Behind the #, so that no server or log sees it."""
    return screen_address(f"link/{token}")


def screen_address(place: str) -> str:
    """Where a place of the interface is, for a phone that reads a code."""
    address = server_settings().address or request.url_root
    return f"{address.rstrip('/')}/#/{place}"
