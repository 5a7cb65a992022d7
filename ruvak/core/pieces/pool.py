"""What may be used for a run: kit that is free, and library parts that would have to be borrowed or bought."""

from collections import deque
from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property
from operator import is_

from ruvak.core.parts.library import library
from ruvak.core.rig.connectors import SHAPES, Family, Form, carries_many_channels
from ruvak.core.rig.part import Part
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.ports import Input, Output, SignalClass
from ruvak.core.rig.rig import KitItem, Rig
from ruvak.core.trace.run_ends import ends_of
from ruvak.core.trace.trace import connector_at

Groups = tuple[frozenset[str], ...]
"""Of each of these groups of parts a wiring must have one."""
MOST_CONNECTORS = 6
"""See is_multicore."""


@dataclass(frozen=True)
class Socket:
    """What counts of a connector when pieces are searched."""

    id: str
    form: Form


@dataclass(frozen=True)
class Way:
    """One way through a part: the connectors signal enters by and those it leaves by."""

    part: str
    entries: tuple[Socket, ...]
    exits: tuple[Socket, ...]
    cabled: bool
    boxed: bool = False
    """A box: the lead behind it may be of the same kind as the one in front."""


@dataclass(frozen=True)
class Ways:
    """Every way through these parts; `single` are those with one entry and one exit."""

    parts: tuple[Part, ...]
    all: tuple[Way, ...]
    single: frozenset[Way]
    plain: frozenset[Way]
    """Of `single` those that are no twins."""
    twins: frozenset[str]
    """Parts wired like an earlier one (a star quad lead like a microphone lead), and those nobody proposes: not to be
    got."""


@dataclass(frozen=True)
class Pool:
    """`free`: items nobody uses, own pieces included; `first`: ids to prefer, today's pieces of the run.

    `known`: the ways found for a pool before this one, used again where the parts are the same. `twice`: whether the
    lead behind a box may be of the same kind as the one in front, which makes for many more wirings. `signal`: what
    the run carries, where that wants leads of its own; without it there are none of those. `spoken_for`: ids that other
    stretches of the run take. `wide`: how many lines behind a fork, or before a join, are looked at. `asked`:
    parts that somebody names, which are proposed whatever they are. `must`: of each of these groups of parts a line
    that is no fork has one, put in besides where need be; what has none is not put together at all. `named`: groups of
    which somebody names a part; what has none is not put together either, and none is put in.
    """

    rig: Rig
    free: tuple[KitItem, ...]
    first: frozenset[str] = field(default_factory=frozenset)
    known: Ways | None = None
    twice: bool = False
    signal: SignalClass | None = None
    spoken_for: frozenset[str] = frozenset()
    wide: int = 2
    asked: frozenset[str] = frozenset()
    must: Groups = ()
    named: Groups = ()
    _made_up: dict[str, tuple[KitItem, ...]] = field(default_factory=dict, compare=False)
    _free_ids: dict[str, list[str]] = field(init=False, default_factory=dict, compare=False)
    _forms: dict[Endpoint, Form] = field(init=False, default_factory=dict, compare=False)
    _inputs: dict[Endpoint, tuple[Input, ...]] = field(init=False, default_factory=dict, compare=False)
    _outputs: dict[Endpoint, tuple[Output, ...]] = field(init=False, default_factory=dict, compare=False)
    _known_of_part: dict[tuple[str, str], bool] = field(init=False, default_factory=dict, compare=False)

    @cached_property
    def parts(self) -> dict[str, Part]:
        """The rig's own parts before the library's."""
        return {**library(), **self.rig.parts_by_id}

    @cached_property
    def through(self) -> Ways:
        """Through every lead, adapter and box that is taken along, not through what is built in."""
        installed = {item.part for item in self.rig.kit if item.installed}
        parts = tuple(
            part
            for part in self.parts.values()
            if part.kind != "gear" and carries(part, self.signal) and part.id not in installed
            if not is_multicore(part)
        )
        known = (self.known, *_RECENT) if self.known is not None else tuple(_RECENT)
        for ways in known:
            if len(parts) == len(ways.parts) and all(map(is_, parts, ways.parts)):
                return ways
        _RECENT.append(_ways_through(parts))
        return _RECENT[-1]

    @cached_property
    def ways(self) -> tuple[Way, ...]:
        """All ways, owned kinds first; of what would have to be got, nothing twice."""
        left_out = self.through.twins - self.asked
        # A DI with a link is proposed where the link is used.
        wanted = (
            way
            for way in self.through.all
            if self.owns(way.part) or way.part not in left_out or (way.boxed and len(way.exits) > len(way.entries))
        )
        return tuple(sorted(wanted, key=lambda way: not self.owns(way.part)))

    def leaves_out_named(self, way: Way) -> bool:
        """Whether a wiring that forks or merges by this way cannot have all that is named: a part with as many entries
        as exits may stand before or behind it, another fork may not."""
        return any(way.part not in parts for parts in self._named_forks)

    def lacking(self, part: str, items: Iterable[KitItem]) -> Groups:
        """What a wiring with this part and these items must have besides."""
        groups = (*self.must, *self.named)
        if not groups:
            return groups
        parts = {part, *(item.part for item in items)}
        return tuple(group for group in groups if group.isdisjoint(parts))

    @cached_property
    def _named_forks(self) -> tuple[frozenset[str], ...]:
        """Of the named groups those of which no part has as many entries as exits."""
        in_line = {way.part for way in self.ways if len(way.entries) == len(way.exits)}
        return tuple(parts for parts in self.named if in_line.isdisjoint(parts))

    @cached_property
    def single(self) -> frozenset[Way]:
        """The same with one entry and one exit."""
        owned = {twin for twin in self.through.twins if self.owns(twin) or twin in self.asked}
        if not owned:
            return self.through.plain
        return self.through.plain | {way for way in self.through.single if way.part in owned}

    @cached_property
    def missing(self) -> frozenset[str]:
        """Of these the parts that would have to be got."""
        return frozenset(way.part for way in self.single if not self.owns(way.part))

    def form_at(self, end: Endpoint) -> Form:
        """The form of a connector of the rig."""
        form = self._forms.get(end)
        if form is None:
            form = self._forms[end] = connector_at(self.rig, end).form
        return form

    def inputs_at(self, end: Endpoint) -> tuple[Input, ...]:
        """The inputs at a device's socket."""
        inputs = self._inputs.get(end)
        if inputs is None:
            every = self.rig.part_of(end.owner).inputs
            inputs = self._inputs[end] = tuple(entry for entry in every if end.connector in entry.connectors)
        return inputs

    def outputs_at(self, end: Endpoint) -> tuple[Output, ...]:
        """The outputs at a device's socket."""
        outputs = self._outputs.get(end)
        if outputs is None:
            every = self.rig.part_of(end.owner).outputs
            outputs = self._outputs[end] = tuple(entry for entry in every if end.connector in entry.connectors)
        return outputs

    def holds(self, question: Callable[[Part], bool], part: str) -> bool:
        """What a question about one of the parts is answered with; asked once."""
        key = (question.__name__, part)
        answer = self._known_of_part.get(key)
        if answer is None:
            answer = self._known_of_part[key] = question(self.parts[part])
        return answer

    def without(self, ids: frozenset[str]) -> "Pool":
        """For a stretch behind these items: nobody is asked for anything there, and they are taken."""
        free = tuple(item for item in self.free if item.id not in ids)
        other = Pool(self.rig, free, self.first, self.through, spoken_for=self.spoken_for | ids)
        # Found out once for all of the thousand pools of one search: what is taken is mostly still to be got.
        self._unasked._share(other, is_whole=len(free) == len(self.free))
        return other

    def naming(self, named: Groups) -> "Pool":
        """The same for a stretch of which somebody names a part of each of these groups."""
        other = replace(self, known=self.through, named=named)
        self._share(other, is_whole=True)
        return other

    def _share(self, other: "Pool", is_whole: bool) -> None:
        """Gives another pool of the same rig what was found out here; `is_whole`: it has the same free items."""
        for name in ("parts", "through", *(("ways", "single", "missing") if is_whole else ())):
            other.__dict__[name] = getattr(self, name)
        for name in ("_made_up", "_forms", "_inputs", "_outputs", "_known_of_part"):
            other.__dict__[name] = self.__dict__[name]

    @cached_property
    def _unasked(self) -> "Pool":
        return Pool(self.rig, self.free, self.first, self.through)

    def owns(self, part: str) -> bool:
        """Whether the kit has a free one, this run's own pieces included."""
        return part in self._free_of

    @cached_property
    def owned(self) -> frozenset[str]:
        """The parts of which the kit has a free one."""
        return frozenset(self._free_of)

    def items(self, part: str, used: frozenset[str]) -> tuple[KitItem, ...]:
        """Free items of a part, in the order of order_of(); else made up ones, to be got."""
        own = [item for item in self._free_of.get(part, ()) if item.id not in used]
        return tuple(own) or self._to_get(part, used)

    @cached_property
    def _free_of(self) -> dict[str, list[KitItem]]:
        groups: dict[str, list[KitItem]] = {}
        for item in sorted(self.free, key=self.order_of):
            groups.setdefault(item.part, []).append(item)
        return groups

    def order_of(self, item: KitItem) -> tuple[bool, bool, bool, float, str]:
        """Pieces that can be relied on first; of those the run's own, then what is owned, then the shortest."""
        return (item.is_suspect, item.id not in self.first, not item.owned, item.length_m or 0.0, item.id)

    def _to_get(self, part: str, used: frozenset[str]) -> tuple[KitItem, ...]:
        ids = self._free_ids.setdefault(part, [])
        for id_ in ids:
            if id_ not in used:
                return self._made(part, id_)
        have = self.rig.owners_by_id
        names = (f"get-{part}-{n}"[:64] for n in range(1, 10_000))
        for id_ in names:
            if id_ not in have and id_ not in self.spoken_for and id_ not in ids:
                ids.append(id_)
                if id_ not in used:
                    return self._made(part, id_)
        raise AssertionError(f"ten thousand pieces called get-{part}")

    def _made(self, part: str, id_: str) -> tuple[KitItem, ...]:
        if id_ not in self._made_up:
            lengths = self.parts[part].stock_lengths_m if self.parts[part].cables else (None,)
            # No label is on it yet, so it is called what it is.
            called = next(iter(self.parts[part].called), self.parts[part].kind)
            tag = f"{called[:100]} {id_.rsplit('-', 1)[1]}"
            made = (KitItem(id=id_, tag=tag, part=part, length_m=length, owned=False) for length in lengths)
            self._made_up[id_] = tuple(made)
        return self._made_up[id_]


_RECENT: deque[Ways] = deque(maxlen=8)
"""The ways found last: most rigs use the same parts, and those of one rig are read line after line."""


def _ways_through(parts: tuple[Part, ...]) -> Ways:
    result = []
    for part in parts:
        entries = tuple(
            Socket(connector.id, connector.form) for connector in part.connectors if connector.side != "out"
        )
        exits = tuple(Socket(connector.id, connector.form) for connector in part.connectors if connector.side != "in")
        if (0 < len(entries) <= 2 and exits) or (entries and len(exits) == 1):
            result.append(Way(part.id, entries, exits, bool(part.cables), part.kind == "box"))
        if 0 < len(exits) <= 2 and entries and _either_way(part):
            result.append(Way(part.id, exits, entries, bool(part.cables), part.kind == "box"))
    single = frozenset(way for way in result if len(way.entries) == 1 and len(way.exits) == 1)
    twins = frozenset((*_twins(parts), *(part.id for part in parts if not part.proposed)))
    plain = frozenset(way for way in single if way.part not in twins)
    return Ways(parts, tuple(result), single, plain, twins)


_PLUGS: Mapping[SignalClass, set[Family]] = {
    "computer-data": {"modular8"},
    "loudspeaker": {"loudspeaker"},
    "eight-channel-digital": {"optical"},
}
"""What has only such plugs carries this signal, whatever it is made for."""


def carries(part: Part, signal: SignalClass | None) -> bool:
    """Whether a lead is made for such a signal. A network lead is, for data and for a box's four channels of sound; so
    is what has loudspeaker plugs."""
    if part.signal == signal or signal is None:
        return part.signal == signal
    return {SHAPES[connector.form].family for connector in part.connectors} == _PLUGS.get(signal)


def is_multicore(part: Part) -> bool:
    """Whether several runs share it, so that people choose it and not the search. A D-type plug's eight channels are
    one run's."""
    if len(part.connectors) <= MOST_CONNECTORS:
        return False
    return not any(carries_many_channels(connector.form) for connector in part.connectors)


def _either_way(part: Part) -> bool:
    """Whether a lead or adapter does not care which end is nearer the source: no XLR on it and its two ends differ in
    form. An adapter must join contact to contact besides: one that feeds both sides of a plug sums them when turned.

    Nor does one made for data, whose outputs have female sockets as often as male ones.
    """
    if part.signal is not None:
        return True
    forms = [tuple(connector.form for connector in part.connectors if connector.side == side) for side in ("in", "out")]
    wired = bool(part.cables) if part.kind == "lead" else part.kind == "adapter" and _joins_one_to_one(part)
    turned = wired and not part.switches and forms[0] != forms[1]
    return turned and not any(
        connector.form.startswith("xlr") or connector.side == "both" for connector in part.connectors
    )


def _joins_one_to_one(part: Part) -> bool:
    """Whether an adapter has two connectors of as many contacts, wired straight through."""
    counts = {len(SHAPES[connector.form].contacts) for connector in part.connectors}
    return len(part.connectors) == 2 and len(counts) == 1 and not part.elements and len(part.wires) in counts


def _twins(parts: tuple[Part, ...]) -> Iterator[str]:
    known: set[str] = set()
    for part in parts:
        conductors = [cable.conductors for cable in part.cables]
        shape = repr((part.connectors, part.wires, part.elements, conductors)) if part.cables else part.id
        if shape in known:
            yield part.id
        known.add(shape)


def pool_for(
    rig: Rig,
    run_id: str | None = None,
    taken: frozenset[str] = frozenset(),
    known: Ways | None = None,
    twice: bool = False,
    signal: SignalClass | None = None,
) -> Pool:
    """Kit that no other run uses, that is usable and not built in; `taken` is spoken for; for the others see Pool.

    `signal` is for a run that is still to be made: of one in the rig it is found by its sources.
    """
    used = {piece for other in rig.runs if other.id != run_id for piece in other.pieces} | taken
    planned = next((run for run in rig.runs if run.id == run_id), None)
    own = set(planned.pieces) if planned is not None else set[str]()
    if planned is not None:
        signal = data_of(rig, ends_of(rig, planned, "out"))
    free = tuple(
        item
        for item in rig.kit
        if item.id not in used and not item.installed and item.is_usable and not is_multicore(rig.part_of(item.id))
    )
    return Pool(rig, free, frozenset(own), known, twice, signal)


def data_of(rig: Rig, ends: Iterable[Endpoint]) -> SignalClass | None:
    """What leaves by these sockets, where there are leads made for it; None for sound."""
    made_for = {part.signal for part in (*library().values(), *rig.parts) if part.kind == "lead" and part.signal}
    made_for.update(_PLUGS)
    for end in ends:
        part = rig.part_of(end.owner)
        # What leads on from an input (a lantern's second socket) carries what that input takes.
        for port in (*part.outputs, *part.inputs):
            if end.connector in port.connectors and port.signal in made_for:
                return port.signal
    return None
