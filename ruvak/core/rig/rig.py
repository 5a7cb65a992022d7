"""The plan for one occasion: venue, gear, kit, runs, and the parts they are made of."""

from functools import cached_property
from typing import Annotated, Any, Literal

from networkx import DiGraph, dag_longest_path_length, is_directed_acyclic_graph
from pydantic import BeforeValidator, Field

from ruvak.core.rig.connectors import Family, Sleeve
from ruvak.core.rig.earth import Beside, Bond, Disturbances, EarthPoint, MainsRun, Position
from ruvak.core.rig.house_rules import HouseRules
from ruvak.core.rig.part import Earthing, Part, SettingValue
from ruvak.core.rig.points import CONTACT_PATTERN, End, Endpoint
from ruvak.core.rig.values import (
    AboveZero,
    Deviation,
    Id,
    Identified,
    Label,
    NotNegative,
    Number,
    Quantity,
    Record,
    Words,
    on_form,
)
from ruvak.core.rig.wiring_fault import WiringFaults, as_tested

MIN_LENGTH_M, MAX_LENGTH_M = 0.001, 1000.0


class Loudness(Record):
    """How loud it is, where somebody said."""

    programme_db_spl: Annotated[
        Annotated[Number, Field(ge=0, le=140)] | None, on_form("Programme at the listener", "dB SPL")
    ] = None
    """How loud average programme is at the listener; hum is then told as sound level too."""
    noise_dba: Annotated[Annotated[Number, Field(ge=-10, le=120)] | None, on_form("The empty room", "dBA")] = None
    """The room's own noise, A-weighted."""


MHZ = Field(ge=20, le=8000)
"""From the lowest to the highest carrier of anything a stage uses by radio."""


class TakenBand(Record):
    """Frequencies that something else at the venue uses already."""

    low_mhz: Annotated[Number, MHZ]
    """Its lower end in megahertz."""
    high_mhz: Annotated[Number, MHZ]
    """Its upper end; the same as the lower where it is a single carrier."""
    by: Annotated[str, Field(max_length=120)] = ""
    """Who uses it: television, the hall's own; may be empty."""


class Venue(Loudness):
    """Where it happens."""

    name: Annotated[Label, on_form("Venue")]
    """What it is called."""
    mains_hz: Annotated[Literal[50, 60], on_form("Mains", words={"50": "50 Hz", "60": "60 Hz"})] = 50
    """Mains frequency in Hz."""
    mains_v: AboveZero | None = None
    """Phase to neutral; left out, the assumption for the frequency."""
    earth: tuple[EarthPoint, ...] = Field(default=(), max_length=2000)
    """The protective earth as a tree: boards, circuits, strips, outlets. Devices name the outlet they are at."""
    bar_at: Position | None = None
    """The main earth bar on the plan; left out, its origin."""
    mains: tuple[MainsRun, ...] = Field(default=(), max_length=200)
    """Mains cables on the plan."""
    house: HouseRules = HouseRules()
    """What this house does where the trade disagrees."""
    weather: Annotated[
        Literal["under-roof", "open-air"],
        on_form("Where it plays", words={"under-roof": "under a roof", "open-air": "in the open air"}),
    ] = "under-roof"
    """In the open air covers are packed, and connecting begins with what rain would do."""
    taken_mhz: tuple[TakenBand, ...] = Field(default=(), max_length=64)
    """Frequencies that radio microphones have to keep clear of here."""
    revision: Annotated[int, Field(strict=True, ge=1)] = 1
    """Counts what was changed about the venue since it was first described."""
    induced_phase_deg: Quantity | None = None
    """By how many degrees, at the mains frequency, voltages induced by a stated field or mains current lead the
    measured earth voltages; h times that at harmonic h. Left out: not known, then they have no phase to each other."""


class Send(Record):
    """One of a device's inputs as it is fed to one of its outputs. Kept with the rig; nothing follows from it yet."""

    input: Id
    """The input of its part."""
    output: Id
    """The output of its part."""
    level_db: Annotated[Number, Field(ge=-130, le=40)] = 0.0
    """Level in dB, 0 where the control is at its mark."""
    after_fader: Annotated[bool, Field(strict=True)] = True
    """Whether the input's fader changes it too."""


class ContactResistance(Record):
    """A single contact that somebody measured, or knows to be bad."""

    at: Annotated[str, Field(pattern=CONTACT_PATTERN)]
    """The contact, as connector.contact: out.S."""
    ohm: AboveZero
    """Its resistance where it is mated, in ohms."""


class Drawn(Record):
    """Which thing of the house's cupboard this is."""

    item: Id
    """Its id in the cupboard."""
    number: Annotated[int, Field(strict=True, ge=1, le=999)] = 1
    """Which of several alike that are only counted."""


Condition = Literal["good", "suspect", "faulty", "away"]
"""Of a thing that is owned: suspect is used last, faulty and away (lent, at the repairer's) not at all."""


class Owned(Identified):
    """What a device and a piece of kit have in common: they belong to somebody and may be broken."""

    condition: Condition = "good"
    """Whether it can be relied on."""
    remark: Words = ""
    """What is the matter with it, or what else somebody noted: crackles, lent to the school."""
    drawn: Drawn | None = None
    """The thing of the house's cupboard that it is; left out, it is this rig's own."""

    @property
    def is_usable(self) -> bool:
        """Whether it is here and works, as far as anybody knows."""
        return self.condition in ("good", "suspect")

    @property
    def is_suspect(self) -> bool:
        """Whether it is only to be used where there is nothing better."""
        return self.condition == "suspect"


class Gear(Owned):
    """A device standing in the rig. `settings` holds only what differs from the part's defaults."""

    name: Label
    """What it is called."""
    part: Id
    """The part it is, by id."""
    settings: dict[str, SettingValue] = Field(default_factory=dict, max_length=64)
    """Positions of its switches and controls, where they differ from the part's."""
    outlet: Id | None = None
    """The earth point its mains plug is at; None while nobody said."""
    touch_a: Deviation | None = None
    """Measured touch current of class 2 gear, or what class 1 gear leaks by its earth; replaces the part's."""
    earth_open: Annotated[bool, Field(strict=True)] = False
    """The protective earth of a class 1 device is interrupted (a broken pin, an adapter): a fault that was found."""
    supply_fault_v: NotNegative | None = None
    """A failing supply: ripple on its outputs, at the mains frequency and twice it."""
    at: Position | None = None
    """On the plan; left out while nobody has put it there."""
    faders_db: dict[Id, Annotated[Number, Field(ge=-130, le=40)]] = Field(default_factory=dict, max_length=256)
    """By input: how far from the mark its programme is mixed; left out, at the mark like everything else."""
    host: Id | None = None
    """The computer that a box belongs to (a USB sound adapter, an interface). Kept with the rig; what joins the two as
    metal is said as a bond."""
    contacts: tuple[ContactResistance, ...] = Field(default=(), max_length=256)
    """Single contacts of its sockets that are worse than others."""
    mains_f: NotNegative | None = None
    """Capacitance from live mains to its case, in farads, besides its touch current."""
    earth_f: NotNegative | None = None
    """Capacitance from its case to the building's earth, in farads; left out, the assumption where it floats."""
    sends: tuple[Send, ...] = Field(default=(), max_length=4096)
    """Which of its inputs feed which of its outputs."""
    radio_mhz: tuple[Annotated[Number, MHZ], ...] = Field(default=(), max_length=16)
    """Carrier of each of its transmitters in megahertz, where they are tuned already."""


class KitItem(Owned):
    """A lead, adapter or box that is owned; leads have a length."""

    tag: Label
    """What is written on it."""
    part: Id
    """The part it is, by id."""
    length_m: Annotated[float, Field(strict=True, allow_inf_nan=False, ge=MIN_LENGTH_M, le=MAX_LENGTH_M)] | None = None
    """Metres; leads only."""
    owned: Annotated[bool, Field(strict=True)] = True
    """False while it still has to be borrowed or bought."""
    installed: Annotated[bool, Field(strict=True)] = False
    """Part of the venue (a wall plate, a tie line, a house multicore): runs pass through it, nobody takes it away."""
    beside: Beside | None = None
    """Lies along a mains cable."""
    loop_width_m: NotNegative | None = None
    """How far it lies from the earth path beside it; left out, the rig's assumption."""
    contacts: tuple[ContactResistance, ...] = Field(default=(), max_length=256)
    """Single contacts of its plugs that are worse than others: a bad sleeve alone."""
    faults: WiringFaults = ()
    """What a test showed to be otherwise inside it than its part says; every run through it is computed so."""


class Join(Record):
    """Two connectors pushed into each other; `a` is the one nearer the source."""

    a: End
    """The connector nearer the source, written owner.connector."""
    b: End
    """The connector it goes into."""
    sleeve: Sleeve | None = None
    """A four-contact plug in a shorter socket: what the sleeve spring was seen to meet; None while nobody looked."""

    @property
    def ends(self) -> tuple[Endpoint, Endpoint]:
        """Both connectors, the one nearer the source first."""
        return self.a, self.b


class Run(Identified):
    """One path from source sockets to destination sockets, piece by piece from the source."""

    number: Annotated[int, Field(strict=True, ge=1, le=9999)]
    """Its line in the input list."""
    name: Label
    """What it is called."""
    pieces: tuple[Id, ...] = Field(default=(), max_length=64)
    """Kit from source to destination, by id."""
    joins: tuple[Join, ...] = Field(default=(), max_length=256)
    """Connectors pushed into each other, from source to destination."""
    note: Words = ""
    """What was said about it: who, stand, phantom wanted."""
    way_m: Annotated[float, Field(strict=True, allow_inf_nan=False, ge=0, le=MAX_LENGTH_M)] | None = None
    """How long the way of its leads is in metres, as somebody said; left out, what is planned reaches."""
    route: tuple[Position, ...] = Field(default=(), max_length=100)
    """Where its leads bend on their way from source to destination on the plan."""

    @property
    def ends(self) -> tuple[Endpoint, ...]:
        """The two connectors of every join, in the order of the joins."""
        return tuple(end for join in self.joins for end in join.ends)

    @property
    def owners(self) -> tuple[str, ...]:
        """Devices and pieces that some join touches, each once, in the order of the joins."""
        return tuple(dict.fromkeys(end.owner for end in self.ends))


class Assumptions(Record):
    """What holds where nobody has measured. A rig carries its own copy."""

    contact_ohm: dict[Family, AboveZero]
    """Resistance of one mated contact, by connector family."""
    stray_f: AboveZero
    """Capacitance to earth of anything that floats."""
    temperature_c: Quantity
    """Degrees Celsius, for thermal noise."""
    disturbances: Disturbances
    """What disturbs where nobody has measured."""


class Alignment(Record):
    """How far the average programme lies below digital full scale."""

    full_scale_dbu: Annotated[Number, Field(ge=-60, le=60)] = 24.0
    """Level in dBu of digital full scale."""
    nominal_dbu: Annotated[Number, Field(ge=-60, le=60)] = 4.0
    """Level in dBu of average programme."""
    source: Words = "SMPTE RP 155: +4 dBu = -20 dBFS"
    """Where it is from."""

    @property
    def headroom_db(self) -> float:
        """Full scale over nominal, in dB."""
        return self.full_scale_dbu - self.nominal_dbu


ALIGNMENTS: dict[str, Alignment] = {
    "smpte-rp-155": Alignment(),
    "ebu-r-68": Alignment(full_scale_dbu=18.0, nominal_dbu=0.0, source="EBU R 68: 0 dBu = -18 dBFS"),
}
"""The two schools, which a file may name; it may state any other."""


def _alignment_by_name(given: Any) -> Any:
    return ALIGNMENTS.get(given, given) if isinstance(given, str) else given


class Rig(Record):
    """The whole document, as it stands in a file."""

    format: Literal["ruvak-rig"] = "ruvak-rig"
    """What kind of file this is."""
    version: Literal[2] = 2
    """Version of the format."""
    id: Id
    """Its name in addresses."""
    name: Annotated[Label, on_form("Name")]
    """What it is called."""
    occasion: Annotated[Words, on_form("Occasion")] = ""
    """What it is for."""
    venue: Venue
    """The building or place, with its mains and its earth."""
    length_unit: Annotated[Literal["m", "ft"], on_form("Lengths in", words={"m": "metres", "ft": "feet"})] = "m"
    """Metres or feet on screen; the file is in metres."""
    alignment: Annotated[Alignment, BeforeValidator(_alignment_by_name)] = Alignment()
    """Average programme against digital full scale: smpte-rp-155, ebu-r-68, or levels of its own."""
    assumptions: Assumptions | None = None
    """What holds where nobody has measured; what is left out is taken from the library."""
    gear: tuple[Gear, ...] = Field(default=(), max_length=2000)
    """Devices."""
    kit: tuple[KitItem, ...] = Field(default=(), max_length=10_000)
    """Leads, adapters and boxes."""
    runs: tuple[Run, ...] = Field(default=(), max_length=2000)
    """Paths from sources to destinations."""
    bonds: tuple[Bond, ...] = Field(default=(), max_length=2000)
    """Metal between devices beside the runs: video, USB, network, aerials, rack rails."""
    parts: tuple[Part, ...] = Field(default=(), max_length=2000)
    """The parts gear and kit are made of; those of the library need not be repeated."""

    def with_fields(self, **changes: Any) -> "Rig":
        """A copy with some fields exchanged (values already validated) and nothing remembered of the old look-ups."""
        fields = {name: getattr(self, name) for name in type(self).model_fields}
        return type(self).model_construct(**{**fields, **changes})

    def part_of(self, owner_id: str) -> Part:
        """The part behind a gear's or kit item's id, with what a test showed to be otherwise inside it. KeyError where
        there is none (check() runs first)."""
        owner = self.owners_by_id[owner_id]
        if isinstance(owner, KitItem) and owner.faults:
            return self._faulty_parts[owner_id]
        return self.parts_by_id[owner.part]

    @cached_property
    def _faulty_parts(self) -> dict[str, Part]:
        faulty = (item for item in self.kit if item.faults)
        return {item.id: as_tested(self.parts_by_id[item.part], item.faults) for item in faulty}

    @cached_property
    def parts_by_id(self) -> dict[str, Part]:
        """Parts by id."""
        return {part.id: part for part in self.parts}

    @cached_property
    def owners_by_id(self) -> dict[str, Gear | KitItem]:
        """Gear and kit by id; the two share one set of ids."""
        return {**{gear.id: gear for gear in self.gear}, **{item.id: item for item in self.kit}}


def setting_of(gear: Gear, part: Part, setting_id: str) -> SettingValue:
    """A gear's setting, or its part's default. KeyError where the part has no such setting."""
    if setting_id in gear.settings:
        return gear.settings[setting_id]
    for setting in part.settings:
        if setting.id == setting_id:
            return setting.default_db if setting.type == "level" else setting.default
    raise KeyError(setting_id)


def earthing_of(gear: Gear, part: Part) -> Earthing | None:
    """How a device is earthed with its switches as they stand."""
    if part.earthing_setting is None:
        return part.earthing
    return part.earthings.get(str(setting_of(gear, part, part.earthing_setting)))


def runs_on_battery(gear: Gear, part: Part) -> bool:
    """Whether its switch for that says that it does."""
    return part.earthing_setting is not None and "battery" in str(setting_of(gear, part, part.earthing_setting)).lower()


def earthing_at(rig: Rig, owner: str) -> Earthing | None:
    """The same by a device's id; None for leads and boxes."""
    gear = rig.owners_by_id[owner]
    return earthing_of(gear, rig.part_of(owner)) if isinstance(gear, Gear) else None


def name_of(rig: Rig, owner: str) -> str:
    """How people call a thing: a device by its name, kit by its tag."""
    return written_on(rig.owners_by_id[owner])


def written_on(thing: Gear | KitItem) -> str:
    """A device's name, or a piece's tag."""
    return thing.name if isinstance(thing, Gear) else thing.tag


def collection_of(thing: Gear | KitItem) -> Literal["gear", "kit"]:
    """The collection that it is listed in, as edits name it."""
    return "gear" if isinstance(thing, Gear) else "kit"


def is_two_way(part: Part) -> bool:
    """Whether a piece takes signal to a socket and from it by one plug, so that two runs may share both: a headset
    splitter."""
    sides = [connector.side for connector in part.connectors]
    return sides.count("both") == 1 and "in" in sides and "out" in sides


def connectors_in_use(rig: Rig) -> set[Endpoint]:
    """Every connector that something is plugged into."""
    return {end for run in rig.runs for end in run.ends}


def length_m(rig: Rig, run: Run) -> float:
    """Metres of all its leads one after the other."""
    kit = {item.id: item for item in rig.kit}
    return sum(kit[piece].length_m or 0.0 for piece in run.pieces)


def longest_way_m(rig: Rig, run: Run) -> float:
    """Metres of lead from a source to the destination farthest from it: the two sides of a stereo run lie beside each
    other, and so do the branches of a fork."""
    metres = {item.id: item.length_m or 0.0 for item in rig.kit}
    graph = DiGraph()
    for join in run.joins:
        graph.add_edge(join.a.owner, join.b.owner, metres=metres.get(join.b.owner, 0.0))
    # An insert lead leads back to where it came from.
    return dag_longest_path_length(graph, "metres") if is_directed_acyclic_graph(graph) else length_m(rig, run)


def leak_of(rig: Rig, gear: Gear, disturbances: Disturbances) -> Deviation | None:
    """What a device's interference filter lets through to earth: by its own earth, or where it has none by others'.

    None for what is not at the mains.
    """
    earthing = earthing_of(gear, rig.part_of(gear.id))
    if earthing is None or earthing.type == "floating":
        return None
    if earthing.type == "class-1":
        return gear.touch_a or disturbances.open_earth_a
    return gear.touch_a or earthing.touch_a or disturbances.touch_a
