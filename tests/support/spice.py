"""Runs netlists through ngspice and reads what it solved."""

import subprocess
import tempfile
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

NGSPICE = "/usr/bin/ngspice"


def solved_by_spice(text: str, raw_name: str = "result") -> list[dict[str, complex]]:
    """Each AC point of the netlist's control block: vector names ("v(node)", "i(source)") to phasors."""
    with tempfile.TemporaryDirectory() as folder:
        place = Path(folder)
        (place / "rig.cir").write_text(text, encoding="ascii")
        done = subprocess.run(
            [NGSPICE, "-b", "rig.cir"], cwd=place, capture_output=True, text=True, timeout=300, check=False
        )
        files = sorted(place.glob(f"{raw_name}*.raw"), key=lambda path: int(path.stem.removeprefix(raw_name)))
        if not files:
            raise AssertionError(f"ngspice solved nothing:\n{done.stdout[-2000:]}\n{done.stderr[-2000:]}")
        return [_read(path.read_bytes()) for path in files]


def by_hand(elements: str, frequency_hz: float) -> dict[str, complex]:
    """Elements written by hand, sources with their AC value, solved at one frequency."""
    control = (
        f".control\nset filetype=binary\nac lin 1 {frequency_hz!r} {frequency_hz!r}\nwrite result0.raw all\nquit\n"
    )
    return solved_by_spice(f"* by hand\n{elements}\n.options noopac pivrel=0.1\n{control}.endc\n.end\n")[0]


def _read(raw: bytes) -> dict[str, complex]:
    head, _, body = raw.partition(b"Binary:\n")
    lines = head.decode().splitlines()
    start = lines.index("Variables:") + 1
    names = [line.split()[1] for line in lines[start:]]
    values: NDArray[np.complex128] = np.frombuffer(body, dtype=np.complex128, count=len(names))
    return {name: complex(value) for name, value in zip(names, values, strict=True)}
