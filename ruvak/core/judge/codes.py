"""Every finding by its code, and what follows from it elsewhere: nothing outside this folder compares codes."""

from enum import StrEnum

from ruvak.core.pieces.cures import Cure


class FindingCode(StrEnum):
    """Stable for programs and saved files; the words are the catalogue's (sentences.py)."""

    CENTRE_CANCELS = "centre_cancels"
    CENTRE_WEAKENED = "centre_weakened"
    SILENT = "silent"
    HUM_ALONE = "hum_alone"
    MONO_CANCELS = "mono_cancels"
    SIDE_MISSING = "side_missing"
    ONE_SIDED = "one_sided"
    SIDES_SWAPPED = "sides_swapped"
    INVERTED = "inverted"
    SOURCES_OPPOSED = "sources_opposed"
    LEVEL_LOW = "level_low"
    LEVEL_CLIPS = "level_clips"
    LEVEL_CLOSE = "level_close"
    LINE_LOSS = "line_loss"
    OVERPOWERED = "overpowered"
    LINE_OVERLOADED = "line_overloaded"
    LINE_FULL = "line_full"
    DULL = "dull"
    THIN = "thin"
    SATURATES = "saturates"
    HUM = "hum"
    CROSSTALK = "crosstalk"
    AMPLIFIED_INTO_INPUT = "amplified_into_input"
    SLEEVE_EARTHED = "sleeve_earthed"
    EARTH_LOST = "earth_lost"
    LEAK_TRIPS = "leak_trips"
    LEAK_HIGH = "leak_high"
    CLASS_MIXED = "class_mixed"
    DATA_LOADS = "data_loads"
    DATA_LONG = "data_long"
    DATA_OPEN = "data_open"
    DATA_OVERENDED = "data_overended"
    DATA_CLEAR = "data_clear"
    LEAD_CLASS = "lead_class"
    PHANTOM_MISSING = "phantom_missing"
    PHANTOM_LOW = "phantom_low"
    PHANTOM_HARMS = "phantom_harms"
    CASE_LIVE = "case_live"
    BODY_FLOATS = "body_floats"
    SOURCE_LOST = "source_lost"
    LOAD_LOW = "load_low"
    HOST_UNKNOWN = "host_unknown"
    UNUSABLE = "unusable"
    SUSPECT = "suspect"
    LEAD_FAULT = "lead_fault"
    CONTACT_UNCERTAIN = "contact_uncertain"
    NOT_CONNECTED = "not_connected"
    CLEAR = "clear"

    @property
    def cure(self) -> Cure | None:
        """The kind of piece that is made against it."""
        return _CURES.get(self)

    @property
    def side_is_lost(self) -> bool:
        """Whether one of two sides, or what both have in common, does not arrive as it should."""
        return self in _SIDE_IS_LOST

    @property
    def is_silence(self) -> bool:
        """Whether nothing is heard at all."""
        return self is FindingCode.SILENT

    @property
    def is_hum(self) -> bool:
        """Whether a disturbance is heard: what is around a run counts for it."""
        return self is FindingCode.HUM

    @property
    def harms_a_device(self) -> bool:
        """Whether something may be damaged."""
        return self is FindingCode.PHANTOM_HARMS

    @property
    def is_too_loud(self) -> bool:
        """Whether a lower level is asked for; its `headroom_db` says by how much."""
        return self in (FindingCode.LEVEL_CLIPS, FindingCode.LEVEL_CLOSE)

    @property
    def asks_to_turn_down(self) -> bool:
        """Whether it only says that little headroom is left."""
        return self is FindingCode.LEVEL_CLOSE

    @property
    def says_nothing_of_wiring(self) -> bool:
        """Whether another wiring of the same kinds of pieces would be no better: too little headroom, a worn lead."""
        return self.asks_to_turn_down or self in (FindingCode.SUSPECT, FindingCode.UNUSABLE, FindingCode.LEAD_FAULT)

    @property
    def goes_with_less_level(self) -> bool:
        """Whether turning the source down takes it away."""
        return self.is_too_loud or self is FindingCode.SATURATES

    @property
    def is_too_quiet(self) -> bool:
        """Whether a higher level is asked for; its `short_db` says by how much."""
        return self is FindingCode.LEVEL_LOW


_CURES: dict[FindingCode, Cure] = {
    FindingCode.HUM: Cure.ISOLATOR,
    FindingCode.SLEEVE_EARTHED: Cure.ISOLATOR,
    FindingCode.DULL: Cure.LIGHT_LOAD,
    FindingCode.LEVEL_CLIPS: Cure.PAD,
    FindingCode.THIN: Cure.LIGHT_LOAD,
    FindingCode.LOAD_LOW: Cure.RESISTIVE_SUM,
    FindingCode.SIDE_MISSING: Cure.RESISTIVE_SUM,
    FindingCode.CENTRE_CANCELS: Cure.RESISTIVE_SUM,
    FindingCode.SOURCES_OPPOSED: Cure.RESISTIVE_SUM,
    FindingCode.CENTRE_WEAKENED: Cure.RESISTIVE_SUM,
}
_SIDE_IS_LOST = frozenset(
    {
        FindingCode.CENTRE_CANCELS,
        FindingCode.CENTRE_WEAKENED,
        FindingCode.MONO_CANCELS,
        FindingCode.SIDE_MISSING,
        FindingCode.ONE_SIDED,
        FindingCode.SILENT,
        FindingCode.HUM_ALONE,
    }
)
