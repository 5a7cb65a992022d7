"""What a working technician would not do although it plugs together: it ranks wirings that compute alike."""

from collections.abc import Iterator

from ruvak.core.pieces.pool import Pool
from ruvak.core.pieces.routes import Route
from ruvak.core.rig.connectors import Form
from ruvak.core.rig.part import Part
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.ports import SignalClass, UnbalancedOutput

DEVIATION, PREFERENCE = 3.0, 0.5
"""Of a wiring against common practice: as much as so many pieces that would have to be got; and of one that is done,
though another is usual."""
_SOURCES: frozenset[SignalClass] = frozenset(("instrument", "consumer-line", "headphone"))
_LINE: frozenset[SignalClass] = frozenset(("consumer-line", "professional-line"))


def practice_cost(pool: Pool, route: Route, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...]) -> float:
    """What counts against a wiring of an unbalanced source, all of it common practice.

    Deviations, each for every line of it: it reaches a microphone input without a DI or isolator; a lead that carries
    it unbalanced is longer than the venue's limit; an instrument goes into another box than a DI; a passive pickup
    goes into a line input. Preferences: a DI with a stage of its own for a passive pickup, one with a transformer for
    all else.
    """
    outputs = [output for source in sources for output in _unbalanced_outputs(pool, source)]
    if not outputs:
        return 0.0
    parts = [pool.parts[item.part] for item in route.items]
    goal_signals = _input_signals(pool, goals)
    boxes = [place for place, part in enumerate(parts) if carries_over(part)]
    unbalanced = route.items[: boxes[0]] if boxes else route.items
    longest_m = max((item.length_m or 0.0 for item in unbalanced), default=0.0)
    instrument = any(output.signal == "instrument" for output in outputs)
    passive = any(channel.inner is not None for output in outputs for channel in output.channels)
    dis = [part for part in parts if is_di(part)]
    deviations = (
        longest_m > pool.rig.venue.house.unbalanced_limit_m.value,
        not boxes and goal_signals == {"microphone"},
        instrument and bool(boxes) and not dis,
        passive and not boxes and goal_signals <= _LINE and bool(goal_signals),
    )
    unusual = sum(any(element.type == "buffer" for element in part.elements) is not passive for part in dis)
    return DEVIATION * sum(deviations) * len(sources) + PREFERENCE * unusual


def misuses_di(pool: Pool, route: Route, goals: tuple[Endpoint, ...]) -> bool:
    """Whether a DI, whose output is at microphone level, feeds a line input, or is fed from an XLR."""
    dis = {item.id for item in route.items if is_di(pool.parts[item.part])}
    if not dis:
        return False
    signals = _input_signals(pool, goals)
    into_line = bool(signals) and "microphone" not in signals
    xlr = {item.id for item in route.items if _takes_xlr(pool.parts[item.part])}
    return into_line or any(join.a.owner in xlr and join.b.owner in dis for join in route.joins)


def _takes_xlr(part: Part) -> bool:
    return any(connector.form is Form.XLR3_FEMALE for connector in part.connectors if connector.side == "in")


def is_di(part: Part) -> bool:
    """Whether it takes an instrument's plug and gives a balanced output at microphone level."""
    ways_in = [connector.form for connector in part.connectors if connector.side == "in"]
    ways_out = [connector.form for connector in part.connectors if connector.side == "out"]
    return carries_over(part) and set(ways_in) == {Form.TS635_SOCKET} and set(ways_out) == {Form.XLR3_MALE}


def carries_over(part: Part) -> bool:
    """Whether it is a box that carries the signal over by a transformer or a stage of its own."""
    return part.kind == "box" and any(element.type in ("transformer", "buffer") for element in part.elements)


def _unbalanced_outputs(pool: Pool, source: Endpoint) -> Iterator[UnbalancedOutput]:
    for output in pool.rig.part_of(source.owner).outputs:
        if source.connector in output.connectors and output.type == "unbalanced" and output.signal in _SOURCES:
            yield output


def _input_signals(pool: Pool, goals: tuple[Endpoint, ...]) -> set[SignalClass]:
    return {
        entry.signal
        for goal in goals
        for entry in pool.rig.part_of(goal.owner).inputs
        if goal.connector in entry.connectors and entry.signal is not None
    }
