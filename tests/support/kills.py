"""Four clients that edit one rig over HTTP while the database, the web server and its processes are killed.

What was acknowledged must be there afterwards, once; versions must have no gaps; and the whole must be back by itself.
"""

import contextlib
import http.client
import os
import shutil
import signal
import subprocess
import sys
import tempfile
import threading
import time
import urllib.error
from collections.abc import Callable
from dataclasses import dataclass, field
from functools import partial
from pathlib import Path
from random import Random
from typing import Any

from script.shared import demo, postgres
from script.shared.visitor import Visitor

CHECKOUT = Path(__file__).resolve().parents[2]
CLIENTS = 4
BACK_WITHIN_S = 60.0
"""Longest wait for everything to be back, so that a fault ends the run; how long it takes is told, not tested."""
ANSWERED_WITHIN_S = 20.0
"""Longest wait for an answer before an edit is sent again."""
PAUSE_S = 1.0
"""Between two kills, from everything being back."""
WHAT = ("database", "web server", "web worker", "compute process", "database and web server")


@dataclass
class Killed:
    """What a run of kills came to."""

    kills: int = 0
    acknowledged: int = 0
    back_s: list[float] = field(default_factory=list)
    """From each kill until health and an edit of every client were answered again."""
    faults: list[str] = field(default_factory=list)


class Client(threading.Thread):
    """Sets the length of one lead again and again; an edit without an answer is sent again by the same id."""

    def __init__(self, address: str, rig: str, lead: str, stop: threading.Event) -> None:
        super().__init__(daemon=True)
        self._rig, self._lead, self._stopping = rig, lead, stop
        self.acknowledged: list[tuple[str, float, bool]] = []
        """Version and length, in order, and whether it was answered the first time: sent again, it is answered with
        where the rig stands by then."""
        self.faults: list[str] = []
        self._visitor = Visitor(address, ANSWERED_WITHIN_S)

    def run(self) -> None:
        number = 0
        while not self._stopping.is_set():
            number += 1
            length_m = 1.0 + number % 90 + number / 1e4
            op = {"op": "set", "kind": "kit", "id": self._lead, "field": "length_m", "value": round(length_m, 4)}
            body = {"id": f"{self._lead}-{number:08d}", "edit": {"label": "length", "ops": [op]}}
            is_first = True
            while not self._stopping.is_set():
                answered = self._send(body)
                if answered is not None:
                    self.acknowledged.append((answered["version"], round(length_m, 4), is_first))
                    break
                is_first = False
                time.sleep(0.05)

    def _send(self, body: dict[str, Any]) -> Any:
        """The answer; None where there was none, or one that says to try again."""
        try:
            body["base_version"] = self._visitor.get(f"rigs/{self._rig}/version")["version"]
            return self._visitor.post(f"rigs/{self._rig}/edits", body)
        except urllib.error.HTTPError as refused:
            if refused.code not in (500, 502, 503):
                self.faults.append(f"{self._lead}: {refused.code} {refused.read()[:200]!r}")
            return None
        except (OSError, http.client.HTTPException, ValueError):
            return None


def kill_again_and_again(kills: int, seed: int, after_each: Callable[[Killed], None] = lambda so_far: None) -> Killed:
    """script/demo in a copy of the checkout, killed in parts so often, then looked at; `after_each` hears of every
    kill once everything is back."""
    with tempfile.TemporaryDirectory(dir=CHECKOUT / ".ruvak") as name:
        folder = Path(name)
        # The database's user has to get in.
        folder.chmod(0o755)
        return _kill_in(folder, kills, seed, after_each)


def _kill_in(folder: Path, kills: int, seed: int, after_each: Callable[[Killed], None]) -> Killed:
    rng, result = Random(seed), Killed()
    shutil.copytree(CHECKOUT / "script", folder / "script")
    shutil.copytree(CHECKOUT / "ruvak", folder / "ruvak")
    (folder / ".ruvak").mkdir()
    port, said = postgres.free_port(), folder / "said.txt"
    address = f"http://127.0.0.1:{port}"
    command = [sys.executable, "-m", "script.shared.demo", "--port", str(port)]
    with said.open("w") as out:
        process = subprocess.Popen(command, cwd=folder, stdout=out, stderr=out)
    stop = threading.Event()
    try:
        if not demo._until(partial(demo._answers, address), 120):
            return Killed(faults=[f"It did not start: {said.read_text()}"])
        rig = "midwinter-concert"
        leads = _leads(address, rig)[:CLIENTS]
        clients = [Client(address, rig, lead, stop) for lead in leads]
        for client in clients:
            client.start()
        for _ in range(kills):
            time.sleep(PAUSE_S * rng.random())
            before = [len(client.acknowledged) for client in clients]
            began = time.monotonic()
            _kill(rng.choice(WHAT), folder)
            result.kills += 1
            back = demo._until(partial(_is_back, clients, before, address), BACK_WITHIN_S)
            if not back:
                result.faults.append(f"Not back within {BACK_WITHIN_S:.0f} s: {said.read_text()[-600:]}")
                break
            result.back_s.append(time.monotonic() - began)
            result.acknowledged = sum(len(client.acknowledged) for client in clients)
            after_each(result)
        stop.set()
        for client in clients:
            client.join(timeout=60)
        result.acknowledged = sum(len(client.acknowledged) for client in clients)
        result.faults += [fault for client in clients for fault in client.faults]
        if process.poll() is None:
            result.faults += _faults_of(address, rig, clients)
        else:
            result.faults.append(f"It stopped for good: {said.read_text()[-600:]}")
    finally:
        stop.set()
        process.terminate()
        with contextlib.suppress(subprocess.TimeoutExpired):
            process.wait(timeout=120)
    if not demo._until(lambda: not _left_over(folder, port), 20):
        result.faults.append(f"Processes outlive the server: {_left_over(folder, port)}")
    return result


def _left_over(folder: Path, port: int) -> list[str]:
    """Processes of the server that still run: by how they were called, or by what they were started with."""
    marks = {"cmdline": f"script.shared.demo\0--port\0{port}\0".encode(), "environ": f"={folder}/".encode()}
    found = []
    for process in Path("/proc").glob("[0-9]*"):
        for name, mark in marks.items():
            with contextlib.suppress(OSError):
                if mark in (process / name).read_bytes():
                    found.append(process.name)
    return found


def _is_back(clients: list[Client], before: list[int], address: str) -> bool:
    """Whether every client goes on and the server says that it is ready."""
    return _all_go_on(clients, before) and demo._answers(address)


def _all_go_on(clients: list[Client], before: list[int]) -> bool:
    return all(len(client.acknowledged) > count for client, count in zip(clients, before, strict=True))


def _faults_of(address: str, rig: str, clients: list[Client]) -> list[str]:
    """Acknowledged edits that are not there, and versions that were given twice or left out."""
    state = _state(address, rig)
    lengths = {item["id"]: item["length_m"] for item in state["rig"]["kit"]}
    faults = []
    for client in clients:
        version, length_m, _ = client.acknowledged[-1]
        # An edit whose answer was lost may have been saved behind the last acknowledged one.
        following = round(1.0 + (len(client.acknowledged) + 1) % 90 + (len(client.acknowledged) + 1) / 1e4, 4)
        if lengths[client._lead] not in (length_m, following):
            faults.append(
                f"{client._lead} is {lengths[client._lead]} m, and {length_m} m was acknowledged as {version}."
            )
    every = [entry for client in clients for entry in client.acknowledged]
    given = [version for version, _, is_first in every if is_first]
    if len(set(given)) != len(given):
        faults.append("A version was given to two edits.")
    last = int(state["version"].split(".")[0])
    if not 0 <= last - len(every) <= CLIENTS:
        faults.append(f"The rig stands at {last} after {len(every)} acknowledged edits of {CLIENTS} clients.")
    return faults


def _leads(address: str, rig: str) -> list[str]:
    return [item["id"] for item in _state(address, rig)["rig"]["kit"] if item["length_m"]]


def _state(address: str, rig: str) -> Any:
    return Visitor(address, ANSWERED_WITHIN_S).get(f"rigs/{rig}")


def _kill(what: str, folder: Path) -> None:
    """Without any warning."""
    web = int((folder / ".ruvak" / "demo.pid").read_text().split()[2])
    processes = {
        "database": _postmaster(folder),
        "web server": [web],
        "web worker": _children(web),
        "compute process": [each for child in _children(web) for each in _children(child)][:1],
        "database and web server": [*_postmaster(folder), web],
    }
    for process in processes[what]:
        with contextlib.suppress(ProcessLookupError):
            os.kill(process, signal.SIGKILL)


def _postmaster(folder: Path) -> list[int]:
    file = postgres.folder_for(folder, "database") / "postmaster.pid"
    with contextlib.suppress(OSError, ValueError, IndexError):
        return [int(file.read_text().split()[0])]
    return []


def _children(process: int) -> list[int]:
    with contextlib.suppress(OSError):
        return [int(each) for each in Path(f"/proc/{process}/task/{process}/children").read_text().split()]
    return []
