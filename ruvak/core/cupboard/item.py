"""Records of the house's cupboard, and each as the lead, box or device that it becomes in a rig."""

from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from ruvak.core.rig.part import Part, SettingValue
from ruvak.core.rig.rig import (
    MAX_LENGTH_M,
    MIN_LENGTH_M,
    Condition,
    ContactResistance,
    Drawn,
    Gear,
    KitItem,
    written_on,
)
from ruvak.core.rig.values import Deviation, Id, Identified, Label, NotNegative, Record, Words
from ruvak.core.rig.wiring_fault import WiringFaults, unknown_points

MOST_ALIKE = 200
"""So many alike are counted as one entry of the list."""
STORE = "cupboard"
"""Where things are while nobody has said."""
FIGURES = ("condition", "remark", "contacts")
"""What is known of a thing, wherever it stands."""
DEVICE_FIGURES = ("touch_a", "earth_open", "supply_fault_v", "mains_f", "earth_f")
"""What is known of a device besides."""
Store = Annotated[Label, Field(max_length=60)]


class CupboardItem(Identified):
    """A lead, adapter, box or device of the house, or several alike that bear no tags."""

    name: Label
    """Its tag, or what it is called; of several alike, what they are."""
    part: Part
    """What it is, whole: a later library changes nothing of it."""
    count: Annotated[int, Field(strict=True, ge=1, le=MOST_ALIKE)] = 1
    """How many there are."""
    store: Store = STORE
    """Where it is kept: cupboard, van, gallery rack."""
    condition: Condition = "good"
    """Whether it can be relied on; of several alike, all of them."""
    remark: Words = ""
    """What is the matter with it, or what else somebody noted."""
    length_m: Annotated[float, Field(strict=True, allow_inf_nan=False, ge=MIN_LENGTH_M, le=MAX_LENGTH_M)] | None = None
    """Metres; leads only."""
    contacts: tuple[ContactResistance, ...] = Field(default=(), max_length=256)
    """Single contacts that are worse than others."""
    faults: WiringFaults = ()
    """Of a lead, adapter or box: what a test showed to be otherwise inside it than its part says."""
    settings: dict[str, SettingValue] = Field(default_factory=dict, max_length=64)
    """Of a device: how its switches and controls stand, where they differ from the part's."""
    touch_a: Deviation | None = None
    """Of a device: its measured touch current."""
    earth_open: Annotated[bool, Field(strict=True)] = False
    """Of a device: its protective earth is interrupted, which is a fault."""
    supply_fault_v: NotNegative | None = None
    """Of a device: ripple of a failing supply."""
    mains_f: NotNegative | None = None
    """Of a device: capacitance from live mains to its case, in farads."""
    earth_f: NotNegative | None = None
    """Of a device: capacitance from its case to the building's earth, in farads."""

    @model_validator(mode="after")
    def _fits_its_part(self) -> "CupboardItem":
        if bool(self.part.cables) != (self.length_m is not None):
            raise ValueError(
                f"{self.part.name} needs a length in metres"
                if self.part.cables
                else f"{self.part.name} has no cable of its own and so no length"
            )
        if unknown := unknown_points(self.part, self.faults):
            raise ValueError(f"{self.part.name} has no contact {unknown[0]}")
        return self

    @property
    def is_device(self) -> bool:
        """Whether it is a device, and not a lead, adapter or box."""
        return self.part.kind == "gear"

    @property
    def is_usable(self) -> bool:
        """Whether it is here and works, as far as anybody knows."""
        return self.condition in ("good", "suspect")

    def in_rig(self, number: int = 1) -> KitItem | Gear:
        """The record that a rig has of it; `number`: which of several alike."""
        several = self.count > 1
        shared: dict[str, Any] = {
            "id": thing_id(self.id, number if several else 1),
            "part": self.part.id,
            "drawn": Drawn(item=self.id, number=number),
            **{field: getattr(self, field) for field in FIGURES},
        }
        name = f"{self.name[:114]} {number}" if several else self.name
        if not self.is_device:
            return KitItem(**shared, tag=name, length_m=self.length_m, faults=self.faults)
        return Gear(**shared, name=name, settings=self.settings, **_device_figures(self))


def _device_figures(of: "CupboardItem | Gear") -> dict[str, Any]:
    return {field: getattr(of, field) for field in DEVICE_FIGURES}


class CupboardDocument(Record):
    """The cupboard as a file."""

    format: Literal["ruvak-cupboard"] = "ruvak-cupboard"
    """What kind of file this is."""
    version: Literal[1] = 1
    """Version of the format."""
    items: tuple[CupboardItem, ...] = ()
    """Everything in it."""


def thing_id(item_id: Id, number: int) -> str:
    """The id in rigs of a thing drawn from the cupboard."""
    stem = f"own-{item_id}"[:58]
    return stem if number == 1 else f"{stem}-{number}"


def item_of(thing: KitItem | Gear, part: Part, id_: str, store: str = STORE) -> CupboardItem:
    """The cupboard's record of a thing that a rig has: without where it stands in that rig."""
    shared: dict[str, Any] = {
        "id": id_,
        "name": written_on(thing),
        "part": part,
        "store": store,
        **{field: getattr(thing, field) for field in FIGURES},
    }
    if isinstance(thing, KitItem):
        return CupboardItem(**shared, length_m=thing.length_m, faults=thing.faults)
    return CupboardItem(**shared, settings=thing.settings, **_device_figures(thing))
