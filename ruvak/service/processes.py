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


def forget_signals() -> None:
    """A copy of a server ends by the signals that end any process, and does not tell the server of its own."""
    signal.set_wakeup_fd(-1)
    for each in (signal.SIGTERM, signal.SIGQUIT, signal.SIGABRT, signal.SIGUSR1, signal.SIGUSR2, signal.SIGCHLD):
        signal.signal(each, signal.SIG_DFL)
