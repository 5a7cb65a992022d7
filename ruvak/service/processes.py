"""What a process asks of the system about its own life."""

import ctypes
import os
import signal

_DEATH_SIGNAL = 1
"""PR_SET_PDEATHSIG of Linux's prctl."""


def end_with_parent(by: signal.Signals, parent: int) -> None:
    """The calling process gets this signal when its parent ends, however that ends; at once where it has already."""
    ctypes.CDLL(None).prctl(_DEATH_SIGNAL, by)
    if os.getppid() != parent:
        os.kill(os.getpid(), by)
