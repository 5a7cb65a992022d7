"""What really is balanced, from the metal and the impedances, never from the plugs."""

from ruvak.core.circuit.circuit import Drive, Receiver
from ruvak.core.results.records import Balance
from ruvak.core.solve.network import Floats
from ruvak.core.trace.trace import Trace

OPEN_SHARE = 0.5
"""Impedance between the legs above this share of the input's own means that nothing drives them."""
BALANCED_WITHIN_PERCENT = 10.0
"""Leg impedances closer than this are called balanced; a better figure stands beside in any case."""


def balance(traced: Trace, drives: tuple[Drive, ...], receiver: Receiver, leg_ohm: Floats) -> Balance:
    """`leg_ohm`: hot to reference, cold to reference, between the legs, ohm."""
    at = {
        role: traced.conductor_of[f"{receiver.gear}.{getattr(receiver.input, role)}"]
        for role in ("hot", "cold", "screen")
    }
    channels = {
        traced.conductor_of[f"{drive.gear}.{channel.hot}"]: channel.id
        for drive in drives
        for channel in drive.output.channels
    }
    returns = {traced.conductor_of[f"{drive.gear}.{drive.output.common}"] for drive in drives}
    mode = receiver.mode
    z_common_ohm, z_between_ohm = mode.z_common_ohm.value, mode.z_differential_ohm.value
    own_ohm = 1.0 / (1.0 / z_between_ohm + 0.5 / z_common_ohm)
    hot_ohm, cold_ohm, between_ohm = (float(ohm) for ohm in leg_ohm)
    mismatch_percent = 100.0 * abs(hot_ohm - cold_ohm) / max(0.5 * (hot_ohm + cold_ohm), 1e-9)
    found = Balance(
        hot_ohm=hot_ohm,
        cold_ohm=cold_ohm,
        mismatch_percent=mismatch_percent,
        cold_on_screen=at["cold"] == at["screen"],
        hot_on_cold=at["hot"] == at["cold"],
        screen_arrives=at["screen"] in returns,
        verdict="balanced",
    )
    if found.hot_on_cold:
        return found.model_copy(update={"verdict": "shorted"})
    if found.cold_on_screen:
        return found.model_copy(update={"verdict": "unbalanced"})
    if at["hot"] in channels and at["cold"] in channels:
        return found.model_copy(update={"verdict": "two_signals"})
    if between_ohm > OPEN_SHARE * own_ohm:
        return found.model_copy(update={"verdict": "open"})
    if mismatch_percent > BALANCED_WITHIN_PERCENT:
        return found.model_copy(update={"verdict": "unbalanced"})
    return found
