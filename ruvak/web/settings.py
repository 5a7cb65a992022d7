"""Typed settings from the environment; no secret has a default."""

import os
from dataclasses import dataclass
from pathlib import Path

MAX_BODY_BYTES = 4 * 1024 * 1024
RUNS_AT_ONCE = 256
"""Solved from nothing in about two seconds of one core (bench scale)."""
LOOPBACK = ("127.0.0.1", "localhost")
METRICS_PORT, SHARED_FIGURES = "RUVAK_METRICS_PORT", "PROMETHEUS_MULTIPROC_DIR"
"""Environment: where figures are served, and the folder through which workers share them."""


@dataclass(frozen=True)
class Settings:
    """What the web application needs to know."""

    database_url: str
    secret_key: str
    secure_cookies: bool = False
    """True behind HTTPS; the loopback demo has none."""
    compute_processes: int = 0
    """Processes that compute; 0 computes in the thread that asks."""
    runs_at_once: int = RUNS_AT_ONCE
    """Runs of a rig that are solved while the request waits; what is more goes through the queue."""
    proxies: int = 0
    """Reverse proxies in front whose word about the client's address and HTTPS is taken; 0 takes nobody's."""
    address: str | None = None
    """Where phones reach the server, for links; left out, the address by which the link was asked for."""
    authority: Path | None = None
    """The house's own authority, to be installed on phones."""
    tester: str | None = None
    """Where a lead tester answers; readings are typed where there is none."""
    demo: bool = False
    """Whether a visitor from this very computer is the demonstration's technician without signing in."""
    hosts: tuple[str, ...] = LOOPBACK
    """Names and addresses this server answers to; a page elsewhere that gives its own name this address is refused."""


class MissingSetting(Exception):
    """A setting nobody gave; the message names it."""


def from_environment() -> Settings:
    """RUVAK_DATABASE_URL, and RUVAK_SECRET_KEY or RUVAK_SECRET_FILE; RUVAK_SECURE_COOKIES=1 behind HTTPS;
    RUVAK_COMPUTE_PROCESSES, one a core where it is not given; RUVAK_RUNS_AT_ONCE, the runs of a rig that are solved
    without the queue; RUVAK_HOSTS, with commas between, loopback where it is not given; RUVAK_DEMO=1 for the
    demonstration; RUVAK_PROXIES, how many reverse proxies stand in front; RUVAK_AUTHORITY, the file of the house's own
    authority; RUVAK_ADDRESS, where phones reach the server; RUVAK_TESTER, where a lead tester answers."""
    return Settings(
        database_url=_require("RUVAK_DATABASE_URL"),
        secret_key=_secret(),
        secure_cookies=os.environ.get("RUVAK_SECURE_COOKIES") == "1",
        compute_processes=int(os.environ.get("RUVAK_COMPUTE_PROCESSES") or os.cpu_count() or 1),
        runs_at_once=int(os.environ.get("RUVAK_RUNS_AT_ONCE") or RUNS_AT_ONCE),
        proxies=int(os.environ.get("RUVAK_PROXIES") or 0),
        address=os.environ.get("RUVAK_ADDRESS") or None,
        authority=Path(authority) if (authority := os.environ.get("RUVAK_AUTHORITY")) else None,
        tester=(os.environ.get("RUVAK_TESTER") or "").rstrip("/") or None,
        demo=os.environ.get("RUVAK_DEMO") == "1",
        hosts=tuple(name.strip() for name in os.environ.get("RUVAK_HOSTS", "").split(",") if name.strip()) or LOOPBACK,
    )


def _require(name: str) -> str:
    value = os.environ.get(name, "")
    if not value:
        raise MissingSetting(f"{name} is not set; script/demo sets it for you.")
    return value


def _secret() -> str:
    path = os.environ.get("RUVAK_SECRET_FILE")
    return Path(path).read_text(encoding="utf-8").strip() if path else _require("RUVAK_SECRET_KEY")
