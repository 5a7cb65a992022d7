"""What a working technician would not do although it plugs together: it ranks wirings that compute alike."""

from collections.abc import Iterator

from ruvak.core.pieces.cures import is_pad
from ruvak.core.pieces.pool import Pool
from ruvak.core.pieces.routes import Route
from ruvak.core.rig.connectors import SHAPES, Form
from ruvak.core.rig.element import Element
from ruvak.core.rig.part import Part
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.ports import SignalClass, UnbalancedOutput
from ruvak.core.trace.trace import connector_at

DEVIATION, PREFERENCE = 3.0, 0.5
"""Of a wiring against common practice: as much as so many pieces that would have to be got; and of one that is done,
though another is usual."""
PIEZO_OHM = 5e6
"""What a passive piezo wants at least: common practice."""
_SOURCES: frozenset[SignalClass] = frozenset(("instrument", "consumer-line", "headphone"))
_LINE: frozenset[SignalClass] = frozenset(("consumer-line", "professional-line"))


def practice_cost(
    pool: Pool, route: Route, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...], chosen: bool = False
) -> float:
    """What counts against a wiring, all of it common practice: a pad; an extension behind anything but a device's own
    lead; a microphone into a line input; and of an unbalanced source what follows.

    Deviations, each for every line of it: it reaches a microphone input without a DI or isolator; leads that carry
    it unbalanced are longer than the venue's limit; an instrument goes into another box than a DI; a passive pickup
    goes into a line input. Preferences: a DI with a stage of its own for a passive pickup, one with a transformer for
    all else, of 10 megohm for a piezo; a DI before an isolator on the way to a microphone input; an instrument lead,
    not a balanced one, from a two-contact socket. Where the pieces were `chosen` by
    somebody only the preferences count, and which of a channel's two inputs it goes to.
    """
    extra = 0.0 if chosen else DEVIATION * _pads_and_extensions(pool, route, sources)
    outputs = [output for source in sources for output in _unbalanced_outputs(pool, source)]
    goal_signals = _input_signals(pool, goals)
    if not outputs:
        from_microphones = all(_is_microphone(pool, source) for source in sources)
        return extra + DEVIATION * (from_microphones and bool(goal_signals) and goal_signals <= _LINE)
    parts = [pool.parts[item.part] for item in route.items]
    boxes = [place for place, part in enumerate(parts) if carries_over(part)]
    carried_m = max(_unbalanced_m(pool, route, source) for source in sources)
    instrument = any(output.signal == "instrument" for output in outputs)
    passive = any(channel.inner is not None for output in outputs for channel in output.channels)
    dis = [part for part in parts if is_di(part)]
    bare = not boxes and goal_signals == {"microphone"}
    deviations = (
        carried_m > pool.rig.venue.house.unbalanced_limit_m.value,
        instrument and bool(boxes) and not dis,
        passive and not boxes and goal_signals <= _LINE and bool(goal_signals),
    )
    line = any(output.signal != "headphone" for output in outputs)
    coils = any(element.type == "inductor" for source in sources for element in _own(pool, source))
    unusual = _balanced_leads_from_two_contacts(pool, route, sources)
    unusual += line and bool(boxes) and not dis and goal_signals == {"microphone"}
    unusual += passive and not coils and not any(_is_for_piezos(part) for part in parts)
    unusual += sum(any(element.type == "buffer" for element in part.elements) is not passive for part in dis)
    counted = [bare] if chosen else [*deviations, bare]
    return extra + DEVIATION * sum(counted) * len(sources) + PREFERENCE * unusual


def _unbalanced_m(pool: Pool, route: Route, source: Endpoint) -> float:
    """How far leads carry it from a source to the first box that carries it over, or to the end."""
    items = {item.id: item for item in route.items}
    total_m, here, passed = 0.0, source, set[str]()
    while (join := next((join for join in route.joins if join.a == here), None)) is not None:
        item = items.get(join.b.owner)
        if item is None or item.id in passed or carries_over(pool.parts[item.part]):
            break
        passed.add(item.id)
        total_m += item.length_m or 0.0
        # Behind a fork either way is as long.
        here = next((join.a for join in route.joins if join.a.owner == item.id), here)
    return total_m


def _own(pool: Pool, source: Endpoint) -> tuple[Element, ...]:
    return pool.rig.part_of(source.owner).elements


def _is_for_piezos(part: Part) -> bool:
    """A stage that loads a pickup of some hundred picofarads with megohms."""
    return any(element.type == "buffer" and element.input_ohm.value >= PIEZO_OHM for element in part.elements)


def _pads_and_extensions(pool: Pool, route: Route, sources: tuple[Endpoint, ...]) -> int:
    """Pads; and leads with a plug and a socket of one kind, where no device has a plug of its own to be made longer."""
    parts = [pool.parts[item.part] for item in route.items]
    shapes = [SHAPES[connector_at(pool.rig, source).form] for source in sources]
    own_leads = sum(shape.plug and shape.family != "xlr3" for shape in shapes)
    return sum(map(is_pad, parts)) + max(0, sum(map(_is_extension, parts)) - own_leads)


def _is_extension(part: Part) -> bool:
    shapes = [SHAPES[connector.form] for connector in part.connectors]
    return (
        part.kind == "lead"
        and len(shapes) == 2
        and shapes[0].family == shapes[1].family
        and shapes[0].family in ("3.5 mm", "6.35 mm")
        and shapes[0].plug != shapes[1].plug
    )


def _balanced_leads_from_two_contacts(pool: Pool, route: Route, sources: tuple[Endpoint, ...]) -> int:
    """Three-contact plugs in the source's two-contact sockets, where an instrument lead is made for them."""
    forms = {join.a: join.b for join in route.joins}
    return sum(
        connector_at(pool.rig, source).form is Form.TS635_SOCKET
        and any(c.id == forms[source].connector and c.form is Form.TRS635_PLUG for c in pool.parts[part].connectors)
        for source in sources
        if source in forms
        for part in [next((item.part for item in route.items if item.id == forms[source].owner), None)]
        if part is not None
    )


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


def _is_microphone(pool: Pool, source: Endpoint) -> bool:
    return any(
        source.connector in output.connectors and output.signal == "microphone"
        for output in pool.rig.part_of(source.owner).outputs
    )


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
