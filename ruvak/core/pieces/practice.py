"""What a working technician would not do although it plugs together: it ranks wirings that compute alike."""

from collections.abc import Iterator

from ruvak.core.pieces.alike import contacts_joined
from ruvak.core.pieces.cures import is_pad
from ruvak.core.pieces.pool import Pool
from ruvak.core.pieces.route import Route
from ruvak.core.pieces.screens import opens_screen
from ruvak.core.rig.connectors import SHAPES, Form, fits, half_in_use, touching
from ruvak.core.rig.element import Element
from ruvak.core.rig.part import Part
from ruvak.core.rig.points import Contact, Endpoint
from ruvak.core.rig.ports import LINE, SignalClass, UnbalancedOutput
from ruvak.core.rig.rig import is_two_way

DEVIATION, PREFERENCE = 3.0, 0.5
"""Of a wiring against common practice: as much as so many pieces that would have to be got; and of one that is done,
though another is usual."""
PIEZO_OHM = 5e6
"""What a passive piezo wants at least: common practice."""
_SOURCES: frozenset[SignalClass] = frozenset(("instrument", "consumer-line", "headphone"))
STEPS_DOWN = 3.0
"""More turns on the primary than so many to one lower line to microphone level; DI boxes have ten or twelve, isolators
one: common practice."""
PANEL_FAMILIES = frozenset(("xlr3", "combo"))
"""Sockets of devices that take an XLR."""
_UNBALANCED_SOCKETS = frozenset((Form.TS635_SOCKET, Form.TRS35_SOCKET, Form.RCA_SOCKET))


def practice_cost(
    pool: Pool, route: Route, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...], chosen: bool = False
) -> float:
    """What counts against a wiring, all of it common practice: an adapter that swaps two contacts; a pad; an
    extension behind anything but a device's own lead; a microphone into a line input; a three-contact plug in a headset
    socket that is to listen; and of an unbalanced source what follows.

    Deviations, each for every line of it: it reaches a microphone input without a DI or isolator; leads that carry
    it unbalanced are longer than the venue's limit; an instrument goes into another box than a DI; a passive pickup
    goes into a line input. Preferences: a DI with a stage of its own for a passive pickup, one with a transformer for
    all else, of 10 megohm for a piezo; a DI before an isolator on the way to a microphone input; an instrument lead,
    not a balanced one, from a two-contact socket; a box for piezos not behind a coil; an instrument amplifier at a
    DI's link and not at its microphone output. Where the pieces were `chosen` by
    somebody only the preferences count, how far it goes unbalanced, and which of a channel's two inputs it goes to.
    A box stands with its XLR in a device's or another box's, without a lead between: a deviation, chosen or not. A
    screen lift is put in where one is wanted and not as a barrel between two boxes: a preference.
    From a balanced output a lead with a two-contact plug is unusual, and a microphone input where a line input is free.
    """
    parts = [pool.parts[item.part] for item in route.items]
    crossed = sum(
        part.kind == "adapter" and part.id not in pool.asked and pool.holds(_is_crossed, part.id) for part in parts
    )
    extra = DEVIATION * (crossed if chosen else crossed + _pads_and_extensions(pool, route, sources))
    extra += DEVIATION * sum(_is_shorted(pool, route, goal) for goal in goals)
    extra += DEVIATION * _panels_face_to_face(pool, route, sources, goals)
    extra += PREFERENCE * sum(part.kind == "box" and pool.holds(opens_screen, part.id) for part in parts)
    outputs = [output for source in sources for output in _unbalanced_outputs(pool, source)]
    goal_signals = _input_signals(pool, route, goals)
    if not outputs:
        from_microphones = all(_is_microphone(pool, source) for source in sources)
        astray = from_microphones and bool(goal_signals) and "microphone" not in goal_signals
        padded = any(pool.holds(is_pad, part.id) for part in parts)
        at_line_level = any(_gives_line_level(pool, source) for source in sources)
        too_strong = goal_signals == {"microphone"} and at_line_level and not padded
        return extra + DEVIATION * astray + PREFERENCE * (too_strong + _unbalancing_leads(pool, route, sources))
    boxes = [place for place, part in enumerate(parts) if pool.holds(carries_over, part.id)]
    carried_m = max(_unbalanced_m(pool, route, source) for source in sources)
    instrument = any(output.signal == "instrument" for output in outputs)
    passive = any(channel.inner is not None for output in outputs for channel in output.channels)
    dis = [part for part in parts if pool.holds(is_di, part.id)]
    bare = not boxes and goal_signals == {"microphone"}
    too_far = carried_m > pool.rig.venue.house.unbalanced_limit_m.value
    deviations = (
        instrument and bool(boxes) and not dis,
        passive and not boxes and goal_signals <= LINE and bool(goal_signals),
    )
    line = any(output.signal != "headphone" for output in outputs)
    coils = any(element.type == "inductor" for source in sources for element in _own(pool, source))
    unusual = _balanced_leads_from_two_contacts(pool, route, sources)
    unusual += line and bool(boxes) and not dis and goal_signals == {"microphone"}
    unusual += goal_signals == {"instrument"} and _leaves_di_by_xlr(pool, route)
    for_piezos = any(pool.holds(_is_for_piezos, part.id) for part in parts)
    unusual += passive and (2 * for_piezos if coils else not for_piezos)
    unusual += sum(any(element.type == "buffer" for element in part.elements) is not passive for part in dis)
    counted = [too_far, bare] if chosen else [too_far, *deviations, bare]
    return extra + DEVIATION * sum(counted) * len(sources) + PREFERENCE * unusual


def _panels_face_to_face(pool: Pool, route: Route, sources: tuple[Endpoint, ...], goals: tuple[Endpoint, ...]) -> int:
    """How many XLRs of two boxes, or of a box and a device, would have to meet without a lead: both are mounted in a
    panel."""
    boxes = {item.id for item in route.items if pool.holds(has_panel_xlr, item.part)}
    if not boxes:
        return 0
    ends = {end for end in (*sources, *goals) if SHAPES[pool.form_at(end)].family in PANEL_FAMILIES}
    of_boxes = {
        Endpoint(item.id, connector.id)
        for item in route.items
        if item.id in boxes
        for connector in pool.parts[item.part].connectors
        if SHAPES[connector.form].family == "xlr3"
    }
    return sum(
        (join.a in of_boxes and (join.b in of_boxes or join.b in ends)) or (join.a in ends and join.b in of_boxes)
        for join in route.joins
    )


def has_panel_xlr(part: Part) -> bool:
    """Whether it is a box with an XLR in its wall; pads and screen lifts from XLR to XLR are barrels that plug in."""
    forms = [SHAPES[connector.form].family for connector in part.connectors]
    is_barrel = forms == ["xlr3", "xlr3"] and not carries_over(part)
    return part.kind == "box" and "xlr3" in forms and not is_barrel


def _unbalanced_m(pool: Pool, route: Route, source: Endpoint) -> float:
    """How far leads carry it from a source to the first box that carries it over, or to the end."""
    items = {item.id: item for item in route.items}
    total_m, here, passed = 0.0, source, set[str]()
    while (join := next((join for join in route.joins if join.a == here), None)) is not None:
        item = items.get(join.b.owner)
        if item is None or item.id in passed or pool.holds(carries_over, item.part):
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
    parts = [item.part for item in route.items]
    shapes = [SHAPES[pool.form_at(source)] for source in sources]
    own_leads = sum(shape.plug and shape.family != "xlr3" for shape in shapes)
    extensions = sum(pool.holds(_is_extension, part) for part in parts)
    return sum(pool.holds(is_pad, part) for part in parts) + max(0, extensions - own_leads)


def _gives_line_level(pool: Pool, source: Endpoint) -> bool:
    return any(output.signal == "professional-line" for output in pool.outputs_at(source))


def _is_crossed(part: Part) -> bool:
    """Whether it leads a contact to another one of the same kind of connector; a headset splitter parts two signals."""
    if is_two_way(part):
        return False
    families = {SHAPES[connector.form].family for connector in part.connectors}
    return len(families) == 1 and bool(contacts_joined(part)) and not part.elements


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
    return sum(
        pool.form_at(source) is Form.TS635_SOCKET and _plug_in(pool, route, source) is Form.TRS635_PLUG
        for source in sources
    )


def _unbalancing_leads(pool: Pool, route: Route, sources: tuple[Endpoint, ...]) -> int:
    """Leads that ground the cold leg of a balanced output by a two-contact plug, though their other end has three."""
    return sum(
        pool.form_at(source) is Form.TRS635_SOCKET
        and _plug_in(pool, route, source) is Form.TS635_PLUG
        and any(len(SHAPES[connector.form].contacts) > 2 for connector in pool.parts[item.part].connectors)
        for source in sources
        for item in route.items
        if any(join.a == source and join.b.owner == item.id for join in route.joins)
    )


def misuses_di(pool: Pool, route: Route, goals: tuple[Endpoint, ...]) -> bool:
    """Whether a DI feeds a line input, or is fed from an XLR."""
    return feeds_line_by_di(pool, route, goals) or _feeds_di_by_xlr(pool, route)


def feeds_line_by_di(pool: Pool, route: Route, goals: tuple[Endpoint, ...]) -> bool:
    """Whether a DI, whose output is at microphone level, goes into a line input."""
    if not any(pool.holds(is_di, item.part) for item in route.items):
        return False
    signals = _input_signals(pool, route, goals)
    return bool(signals) and "microphone" not in signals


def _feeds_di_by_xlr(pool: Pool, route: Route) -> bool:
    dis = {item.id for item in route.items if pool.holds(is_di, item.part)}
    if not dis:
        return False
    xlr = {item.id for item in route.items if pool.holds(_takes_xlr, item.part)}
    return any(join.a.owner in xlr and join.b.owner in dis for join in route.joins)


def _leaves_di_by_xlr(pool: Pool, route: Route) -> bool:
    outputs = {
        Endpoint(item.id, connector.id)
        for item in route.items
        if pool.holds(is_di, item.part)
        for connector in pool.parts[item.part].connectors
        if connector.form is Form.XLR3_MALE
    }
    return any(join.a in outputs for join in route.joins)


def _takes_xlr(part: Part) -> bool:
    return any(connector.form is Form.XLR3_FEMALE for connector in part.connectors if connector.side == "in")


def is_di(part: Part) -> bool:
    """Whether it takes an unbalanced plug and gives a balanced output at microphone level."""
    ways_in = {connector.form for connector in part.connectors if connector.side == "in"}
    ways_out = [connector.form for connector in part.connectors if connector.side == "out"]
    if not carries_over(part) or not ways_in <= _UNBALANCED_SOCKETS or not _lowers_level(part):
        return False
    # A link leads on what comes in.
    return Form.XLR3_MALE in ways_out and set(ways_out) <= {Form.XLR3_MALE, Form.TS635_SOCKET}


def _lowers_level(part: Part) -> bool:
    """Whether it has a stage of its own, or a transformer that steps down: an isolator's has as many turns on either
    side."""
    return any(
        element.type == "buffer" or (element.type == "transformer" and element.turns_ratio.value > STEPS_DOWN)
        for element in part.elements
    )


def carries_over(part: Part) -> bool:
    """Whether it is a box that carries the signal over by a transformer or a stage of its own."""
    return part.kind == "box" and any(element.type in ("transformer", "buffer") for element in part.elements)


def _is_microphone(pool: Pool, source: Endpoint) -> bool:
    return any(output.signal == "microphone" for output in pool.outputs_at(source))


def _unbalanced_outputs(pool: Pool, source: Endpoint) -> Iterator[UnbalancedOutput]:
    for output in pool.outputs_at(source):
        if output.type == "unbalanced" and output.signal in _SOURCES:
            yield output


def _input_signals(pool: Pool, route: Route, goals: tuple[Endpoint, ...]) -> set[SignalClass]:
    """What the inputs are made for; of a combo socket the one of its two that the plug meets."""
    return {
        entry.signal
        for goal in goals
        for entry in pool.inputs_at(goal)
        if entry.signal is not None
        and (not isinstance(entry.hot, Contact) or entry.hot.contact in _contacts_met(pool, route, goal))
    }


def _contacts_met(pool: Pool, route: Route, goal: Endpoint) -> tuple[str, ...]:
    """The contacts of an input's socket that the plug put into it meets."""
    return half_in_use(pool.form_at(goal), _plug_in(pool, route, goal))


def _is_shorted(pool: Pool, route: Route, goal: Endpoint) -> bool:
    """Whether the plug's sleeve joins the hot contact of all inputs there to their reference, as a three-contact plug's
    does with a headset's microphone."""
    socket = pool.form_at(goal)
    if socket is not Form.TRRS35_SOCKET:
        return False
    plug, here = _plug_in(pool, route, goal), pool.inputs_at(goal)
    if plug is None or not here or not fits(plug, socket):
        return False
    met = {others: own for own, others in touching(plug, socket)}
    return all(
        entry.type == "unbalanced"
        and isinstance(entry.hot, Contact)
        and isinstance(entry.common, Contact)
        and entry.hot.contact in met
        and met[entry.hot.contact] == met.get(entry.common.contact)
        for entry in here
    )


def _plug_in(pool: Pool, route: Route, socket: Endpoint) -> Form | None:
    """The form of what a wiring plugs into a device's socket."""
    mate = next((join.b if join.a == socket else join.a for join in route.joins if socket in (join.a, join.b)), None)
    if mate is None:
        return None
    piece = next((item for item in route.items if item.id == mate.owner), None)
    part = pool.parts[piece.part] if piece is not None else pool.rig.part_of(mate.owner)
    return next(connector.form for connector in part.connectors if connector.id == mate.connector)
