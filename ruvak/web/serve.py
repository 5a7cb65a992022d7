"""Serves the application for a house: settings from the environment, checked before anything starts."""

import os
import sys
from dataclasses import dataclass
from ipaddress import ip_address
from pathlib import Path

from ruvak.core.errors import RuvakError
from ruvak.store.database import engine_for, is_current
from ruvak.web.settings import MissingSetting, Settings, from_environment

DEFAULT_BIND = "127.0.0.1:8140"


class BadSetting(RuvakError):
    """Settings with which serving would fail, or would not be safe; the message says which and why."""

    code = "bad_setting"


@dataclass(frozen=True)
class Serving:
    """How to serve. `certificate` and `key`: files in PEM, for HTTPS of the server's own."""

    bind: str
    certificate: Path | None
    key: Path | None
    workers: int

    def arguments(self) -> list[str]:
        """Of gunicorn."""
        result = ["gunicorn", "--config=python:ruvak.web.serving", "--bind", self.bind, "--workers", str(self.workers)]
        if self.certificate is not None and self.key is not None:
            result += ["--certfile", str(self.certificate), "--keyfile", str(self.key)]
        return [*result, "ruvak.web.wsgi:app"]


def serving_from_environment(settings: Settings) -> Serving:
    """RUVAK_BIND, RUVAK_CERTIFICATE and RUVAK_CERTIFICATE_KEY, RUVAK_WORKERS. Raises BadSetting."""
    bind = os.environ.get("RUVAK_BIND") or DEFAULT_BIND
    certificate, key = (_file(name) for name in ("RUVAK_CERTIFICATE", "RUVAK_CERTIFICATE_KEY"))
    if (certificate is None) != (key is None):
        raise BadSetting("RUVAK_CERTIFICATE and RUVAK_CERTIFICATE_KEY belong together; set both or neither.")
    workers = os.environ.get("RUVAK_WORKERS") or "1"
    if not workers.isdigit() or not 1 <= int(workers) <= 32:
        raise BadSetting("RUVAK_WORKERS is a number from 1 to 32; computation has processes of its own.")
    if settings.demo:
        raise BadSetting("RUVAK_DEMO signs visitors in without a passphrase; it is for script/demo alone.")
    if not _is_loopback(bind) and certificate is None and not settings.proxies:
        raise BadSetting(
            f"{bind} can be reached by others and passphrases would travel unprotected: set RUVAK_CERTIFICATE, or put "
            "a reverse proxy with HTTPS in front and set RUVAK_PROXIES=1."
        )
    if (certificate is not None or settings.proxies) and not settings.secure_cookies:
        raise BadSetting("Behind HTTPS set RUVAK_SECURE_COOKIES=1, so that cookies never travel unprotected.")
    return Serving(bind, certificate, key, int(workers))


def main() -> None:
    """Replaces this process by the server; ends with 2 and a sentence where the settings do not allow that."""
    try:
        settings = from_environment()
        serving = serving_from_environment(settings)
        if not is_current(engine_for(settings.database_url)):
            raise BadSetting("The database has the schema of another version; bring it up to date: ruvak migrate")
    except (MissingSetting, BadSetting) as problem:
        print(f"ruvak: {problem}", file=sys.stderr)
        sys.exit(2)
    os.execv(Path(sys.executable).with_name("gunicorn"), serving.arguments())  # noqa: S606


def _file(name: str) -> Path | None:
    value = os.environ.get(name)
    if not value:
        return None
    if not Path(value).is_file():
        raise BadSetting(f"{name}: there is no file {value}.")
    return Path(value)


def _is_loopback(bind: str) -> bool:
    host = bind.rpartition(":")[0].strip("[]")
    if host == "localhost" or bind.startswith("unix:"):
        return True
    try:
        return ip_address(host).is_loopback
    except ValueError:
        return False


if __name__ == "__main__":
    main()
