"""How far a long computation has got, told while it runs."""

from collections.abc import Callable

Progress = Callable[[float], None]
"""Is called with the share that is done, 0 to 1. What it raises ends the computation, so that it can be cancelled."""


def report_nothing(share: float) -> None:
    """Where nobody waits for long."""


def portion(progress: Progress, first: float, last: float) -> Progress:
    """For a part of the work, which takes the whole from one share to another."""
    return lambda share: progress(first + share * (last - first))
