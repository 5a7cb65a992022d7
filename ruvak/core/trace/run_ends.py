"""The gear sockets at a run's two ends."""

from typing import Literal

from ruvak.core.rig.part import Connector
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.rig import Rig, Run, name_of
from ruvak.core.trace.trace import connector_at


def ends_of(rig: Rig, run: Run, side: Literal["in", "out"]) -> dict[Endpoint, Connector]:
    """End to connector of the gear sockets a run leaves from ("out") or arrives at ("in"), in order of joins.

    A socket with both directions counts by where it stands in its join: `a` is nearer the source.
    """
    result: dict[Endpoint, Connector] = {}
    for join in run.joins:
        for end, as_side in ((join.a, "out"), (join.b, "in")):
            if rig.part_of(end.owner).kind != "gear":
                continue
            connector = connector_at(rig, end)
            if connector.side == side or (connector.side == "both" and as_side == side):
                result[end] = connector
    return result


def sockets_of(rig: Rig, run: Run, side: Literal["in", "out"]) -> dict[str, list[str]]:
    """The same in words: what is printed by the sockets, by the name of their device."""
    by_device: dict[str, list[str]] = {}
    for end, connector in ends_of(rig, run, side).items():
        by_device.setdefault(name_of(rig, end.owner), []).append(connector.label)
    return by_device


def say_ends(rig: Rig, run: Run, side: Literal["in", "out"]) -> str:
    """As a line: "mixer: 7, 8; recorder: L"."""
    return "; ".join(f"{device}: {', '.join(labels)}" for device, labels in sockets_of(rig, run, side).items())
