"""What a process asks of the system about its own life."""

import ctypes
import signal

_DEATH_SIGNAL = 1
"""PR_SET_PDEATHSIG of Linux's prctl."""


def end_with_parent(by: signal.Signals) -> None:
    """The calling process gets this signal when its parent ends, however that ends."""
    ctypes.CDLL(None).prctl(_DEATH_SIGNAL, by)
