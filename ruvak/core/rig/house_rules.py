"""Where the trade disagrees, what a house does."""

from typing import Annotated, Literal

from ruvak.core.rig.values import AboveZero, Record, Value, on_form


class HouseRules(Record):
    """Where the trade disagrees, what this house does. Only notes follow from it, never a finding."""

    unbalanced_limit_m: Annotated[AboveZero, on_form("Unbalanced leads, at most", "m")] = Value(
        value=7.5, source="common practice: the cautious school; the relaxed says 15 m"
    )
    """Metres an unbalanced line may be long before a note says so."""
    screens: Annotated[
        Literal["both-ends", "lifted-at-receiver", "through-capacitor"],
        on_form(
            "Screens of balanced leads",
            words={
                "both-ends": "joined at both ends",
                "lifted-at-receiver": "lifted at the receiving end",
                "through-capacitor": "through a capacitor at the receiving end",
            },
        ),
    ] = "both-ends"
    """Both ends joined is what AES48 asks of equipment that takes pin 1 to its chassis."""
    passive_y: Annotated[
        Literal["never", "with-resistors"],
        on_form("Two outputs on one input", words={"with-resistors": "only through resistors", "never": "never"}),
    ] = "with-resistors"
    """Two outputs on one input."""
    power_order: Annotated[
        Literal["sources-first", "mixer-first"],
        on_form(
            "Switched on, once all is connected",
            words={"sources-first": "sources, mixer, speakers", "mixer-first": "mixer, sources, speakers"},
        ),
    ] = "sources-first"
    """Sources before the mixer, so that no channel sees them come on; the mixer first, where it looks for its boxes."""
    gain: Annotated[
        Literal["average-on-mark", "clip-and-back"],
        on_form(
            "Gain of a channel",
            words={
                "average-on-mark": "average on the mark",
                "clip-and-back": "up to the clip light, then back",
            },
        ),
    ] = "average-on-mark"
    """The average on the meter's mark keeps channels alike; the clip light is found without a reference."""
    speaker_volume: Annotated[
        Literal["middle", "full"],
        on_form("Volume of powered speakers", words={"middle": "in the middle", "full": "fully up"}),
    ] = "middle"
    """In the middle leaves room either way; fully up can be left alone by everybody."""
    computer_volume: Annotated[
        Literal["full", "half"],
        on_form("Volume of laptops and phones", words={"full": "fully up", "half": "at half"}),
    ] = "full"
    """Fully up lies farthest above the noise; at half some computers distort less."""
