"""Somebody at a browser, without one: the cookie, the token, JSON both ways."""

import http.cookiejar
import json
import urllib.request
from functools import cached_property
from typing import Any


class Visitor:
    """Asks one served application; what does not answer raises OSError, what refuses urllib's HTTPError."""

    def __init__(self, address: str, timeout_s: float) -> None:
        self._address, self._timeout_s = address, timeout_s
        self._web = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(http.cookiejar.CookieJar()))

    @cached_property
    def _token(self) -> str:
        """Asked for with the first change."""
        return str(self.get("session")["csrf_token"])

    def get(self, path: str) -> Any:
        """What stands at an address of the API."""
        return self._answer(f"{self._address}/api/{path}")

    def post(self, path: str, body: Any) -> Any:
        """What a change, or a question with a body, is answered with."""
        headers = {"Content-Type": "application/json", "X-CSRF-Token": self._token}
        address = f"{self._address}/api/{path}"
        return self._answer(urllib.request.Request(address, json.dumps(body).encode(), headers))

    def _answer(self, request: str | urllib.request.Request) -> Any:
        with self._web.open(request, timeout=self._timeout_s) as got:
            return json.loads(got.read())
