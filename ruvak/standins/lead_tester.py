"""A simulated lead tester: leads with faults of their own, read from contact to contact over HTTP on loopback.

GET /tester says what it is and which leads lie beside it; GET /readings?lead=V4&moved=far says which contacts of a
lead are joined, with their resistance, and which come and go while it is moved. The protocol is described in
docs/formats/lead-tester.md.

    python -m ruvak.standins.lead_tester --port 8151
"""

import argparse
import json
from collections.abc import Iterator
from functools import cache
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from importlib.resources import files
from typing import Any
from urllib.parse import parse_qs, urlsplit

PROTOCOL, VERSION = "lead-tester", 1
CONTACT_OHM = 0.03
PLACES = ("near", "middle", "far")
NAME = "Simulated lead tester"


@cache
def leads() -> dict[str, dict[str, Any]]:
    """The leads that lie beside it, by tag."""
    text = files("ruvak.standins").joinpath("lead_tester.json").read_text(encoding="utf-8")
    return {lead["tag"]: lead for lead in json.loads(text)["leads"]}


def readings(lead: dict[str, Any], moved: str | None) -> dict[str, Any]:
    """Every two contacts that are joined, whichever way round the metal runs, and those that come and go."""
    groups = [set(pair) for pair in lead["joined"]]
    merged: list[set[str]] = []
    for group in groups:
        apart = [each for each in merged if not each & group]
        merged = [*apart, group.union(*(each for each in merged if each & group))]
    ohm = round(lead["length_m"] * lead["ohm_per_m"] + 2 * CONTACT_OHM, 3)
    return {
        "lead": lead["tag"],
        "plugs": [{"name": name, "kind": kind} for name, kind in lead["plugs"]],
        "joined": [[a, b, ohm if a[0] != b[0] else CONTACT_OHM] for group in merged for a, b in _pairs(group)],
        "comes_and_goes": lead.get("comes_and_goes", {}).get(moved, []),
    }


def _pairs(group: set[str]) -> Iterator[tuple[str, str]]:
    contacts = sorted(group)
    for place, contact in enumerate(contacts):
        for other in contacts[place + 1 :]:
            yield contact, other


class Handler(BaseHTTPRequestHandler):
    """One request."""

    def do_GET(self) -> None:
        """What the protocol has; everything else is 404."""
        address = urlsplit(self.path)
        query = {name: values[0] for name, values in parse_qs(address.query).items()}
        if address.path == "/tester":
            self._answer(200, {"protocol": PROTOCOL, "version": VERSION, "name": NAME, "leads": list(leads())})
        elif address.path == "/readings":
            lead, moved = leads().get(query.get("lead", "")), query.get("moved")
            if lead is None:
                self._answer(404, {"message": f"No lead {query.get('lead', '')} lies beside this tester."})
            elif moved is not None and moved not in PLACES:
                self._answer(400, {"message": f"A lead is moved at one of {', '.join(PLACES)}."})
            else:
                self._answer(200, readings(lead, moved))
        else:
            self._answer(404, {"message": "A tester has /tester and /readings."})

    def log_message(self, format: str, *arguments: Any) -> None:  # noqa: A002
        """Says nothing."""

    def _answer(self, status: int, body: dict[str, Any]) -> None:
        data = json.dumps(body).encode()
        self.send_response(status)
        self.send_header("Content-Type", "application/json")
        self.send_header("Content-Length", str(len(data)))
        self.end_headers()
        self.wfile.write(data)


def listen(port: int = 0) -> ThreadingHTTPServer:
    """Takes a port of loopback, a free one where none is given; serve_forever() serves."""
    return ThreadingHTTPServer(("127.0.0.1", port), Handler)


def main() -> None:
    """Until it is stopped."""
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--port", type=int, default=8151)
    with listen(parser.parse_args().port) as server:
        print(f"{NAME} at http://127.0.0.1:{server.server_port}", flush=True)
        server.serve_forever()


if __name__ == "__main__":
    main()
