"""What really is balanced, from the metal and the impedances, never from the plugs."""

from ruvak.core.circuit.circuit import Drive, Receiver
from ruvak.core.results.records import Balance
from ruvak.core.results.run_ports import points_of_channel
from ruvak.core.rig.points import CHASSIS, ContactRef, NodeRef
from ruvak.core.solve.network import Floats
from ruvak.core.trace.trace import Trace

OPEN_SHARE = 0.5
"""Impedance between the legs above this share of the input's own means that nothing drives them."""
BALANCED_WITHIN_PERCENT = 10.0
"""Leg impedances closer than this are called balanced; a better figure stands beside in any case."""


def balance(traced: Trace, drives: tuple[Drive, ...], receiver: Receiver, leg_ohm: Floats) -> Balance:
    """`leg_ohm`: hot to reference, cold to reference, between the legs, ohm."""
    hot, cold, screen = (traced.conductor_of[point] for point in leg_points(receiver))
    returns = {
        traced.conductor_of[drive.output.common.of(drive.gear)] for drive in drives if drive.output.type == "unbalanced"
    }
    bodies = {traced.conductor_of.get(CHASSIS.of(drive.gear)) for drive in drives if drive.output.type == "balanced"}
    hot_ohm, cold_ohm, between_ohm = (float(ohm) for ohm in leg_ohm)
    mismatch_percent = 100.0 * abs(hot_ohm - cold_ohm) / max(0.5 * (hot_ohm + cold_ohm), 1e-9)
    result = Balance(
        hot_ohm=hot_ohm,
        cold_ohm=cold_ohm,
        mismatch_percent=mismatch_percent,
        cold_on_screen=cold == screen,
        hot_on_cold=hot == cold,
        screen_arrives=screen in returns,
        body_arrives=screen in bodies,
        verdict="balanced",
    )
    if result.hot_on_cold:
        return result.model_copy(update={"verdict": "shorted"})
    if result.cold_on_screen:
        loose = receiver.input.type == "unbalanced" and between_ohm > OPEN_SHARE * receiver.own_ohm
        return result.model_copy(update={"verdict": "open" if loose else "unbalanced"})
    if _two_signals(traced, drives, hot, cold):
        return result.model_copy(update={"verdict": "two_signals"})
    if between_ohm > OPEN_SHARE * receiver.own_ohm:
        return result.model_copy(update={"verdict": "open"})
    if mismatch_percent > BALANCED_WITHIN_PERCENT:
        return result.model_copy(update={"verdict": "unbalanced"})
    return result


def leg_points(receiver: Receiver) -> tuple[ContactRef | NodeRef, ContactRef | NodeRef, ContactRef | NodeRef]:
    """Points of hot, cold and screen; an unbalanced input's cold is its screen."""
    listening = receiver.input
    points = (
        (listening.hot, listening.cold, listening.screen)
        if listening.type == "balanced"
        else (listening.hot, listening.common, listening.common)
    )
    hot, cold, screen = (point.of(receiver.gear) for point in points)
    return hot, cold, screen


def _two_signals(traced: Trace, drives: tuple[Drive, ...], hot: str, cold: str) -> bool:
    """Whether hot and cold carry different channels: two sides, or two sources, on one balanced input."""
    carried: dict[str, set[tuple[str, str, str]]] = {}
    for drive in drives:
        for channel in drive.output.channels:
            name = (drive.gear, drive.output.id, channel.id)
            for point in points_of_channel(channel):
                carried.setdefault(traced.conductor_of[point.of(drive.gear)], set()).add(name)
    return bool(carried.get(hot)) and bool(carried.get(cold)) and not carried[hot] & carried[cold]
