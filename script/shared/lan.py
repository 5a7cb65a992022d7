"""Serving to the house's own network: this machine's address there, a certificate for it, what a phone will ask."""

import ipaddress
import socket
from dataclasses import dataclass
from pathlib import Path

import segno

from ruvak.service.certificates import HouseCertificate, house_certificate

_ELSEWHERE = (("192.0.2.1", socket.AF_INET), ("2001:db8::1", socket.AF_INET6))
"""Addresses of documentation (RFC 5737, RFC 3849): nothing is sent there, only the way out is asked for."""


@dataclass(frozen=True)
class Lan:
    """How this machine is reached from its network."""

    address: str
    port: int
    names: tuple[str, ...]
    certificate: HouseCertificate

    @property
    def url(self) -> str:
        """What phones open."""
        return f"https://{self.address}:{self.port}/"

    def environment(self) -> dict[str, str]:
        """Settings of the web server."""
        return {
            "RUVAK_HOSTS": ",".join(self.names),
            "RUVAK_SECURE_COOKIES": "1",
            "RUVAK_ADDRESS": self.url,
            "RUVAK_AUTHORITY": str(self.certificate.authority),
        }

    def arguments(self) -> tuple[str, ...]:
        """Of gunicorn."""
        files = ("--certfile", str(self.certificate.chain), "--keyfile", str(self.certificate.key))
        return ("--bind", f"0.0.0.0:{self.port}", *files)

    def words(self) -> str:
        """The address with its QR code, and what to expect."""
        code = segno.make(self.url, error="l", micro=False)
        lines = [
            "",
            f"Phones and tablets of this network open {self.url}",
            _drawn(code),
            "They ask whether to go on, since this machine made its certificate itself: expected here, nowhere else.",
            f"For good, install the house's own authority on them; {self.url}#/phones tells how.",
            "They sign in, or open a link that a technician gives them.",
            "If a phone cannot reach it: is it in the same network? Guest networks keep devices apart from each other.",
        ]
        return "\n".join(lines)


def lan_of(folder: Path, port: int) -> Lan:
    """This machine in its network, with a certificate for all its names. Raises OSError where there is no network."""
    address = address_here()
    names = ("127.0.0.1", "localhost", address, socket.gethostname())
    return Lan(address, port, names, house_certificate(folder, names))


def address_here() -> str:
    """This machine's address in the network by which it would reach others; loopback where it has none."""
    for elsewhere, family in _ELSEWHERE:
        with socket.socket(family, socket.SOCK_DGRAM) as probe:
            try:
                probe.connect((elsewhere, 9))
            except OSError:
                continue
            found = str(probe.getsockname()[0])
            if ipaddress.ip_address(found).version == 4:
                return found
    return "127.0.0.1"


def _drawn(code: segno.QRCode) -> str:
    """In half blocks, for a terminal."""
    rows = [list(row) for row in code.matrix_iter(border=2)]
    rows += [[0] * len(rows[0])] * (len(rows) % 2)
    marks = {(0, 0): "█", (0, 1): "▀", (1, 0): "▄", (1, 1): " "}
    pairs = zip(rows[::2], rows[1::2], strict=True)
    return "\n".join("".join(marks[(int(up), int(low))] for up, low in zip(*pair, strict=True)) for pair in pairs)
