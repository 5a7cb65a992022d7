"""What a computing process keeps of the machine's memory."""

import ctypes
import gc
import resource
from pathlib import Path

from ruvak.service.computer import Computer

MOST_RESIDENT_BYTES = 700 * 1024 * 1024
"""A compute process that holds more after a task forgets what it keeps."""


def forget_where_full(computer: Computer) -> None:
    """Gives back what is kept of rigs and solutions, to the machine too: after one very large rig it is seldom used."""
    if _resident_bytes() > MOST_RESIDENT_BYTES:
        computer.forget()
        gc.collect()
        ctypes.CDLL(None).malloc_trim(0)


def search_seldom_for_cycles() -> None:
    """Records hold no cycles, and an analysis makes a hundred thousand of them: looking for cycles after every 700
    would take a tenth of its time."""
    gc.freeze()
    gc.set_threshold(100_000, 50, 100)


def _resident_bytes() -> int:
    """What this process holds of the machine's memory: Linux's own count."""
    pages = int(Path("/proc/self/statm").read_text(encoding="ascii").split()[1])
    return pages * resource.getpagesize()
