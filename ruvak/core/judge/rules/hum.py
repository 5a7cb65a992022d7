"""Hum and buzz against the programme, as they sound."""

from collections.abc import Iterator

from ruvak.core.judge.codes import FindingCode
from ruvak.core.judge.finding import Finding, Grade
from ruvak.core.judge.hearing import threshold_db_spl
from ruvak.core.judge.rule import active, finding, input_words, usable
from ruvak.core.judge.sentences import number
from ruvak.core.results.hum_records import CauseShare, Hum
from ruvak.core.results.records import InputResult, RunResult
from ruvak.core.rig.rig import Rig

CLEAR_DB, FIX_DB = 70.0, 55.0
"""A-weighted hum so far under average programme is not heard, and nearer than that an audience notices, where the
room's own noise is not known: common practice."""
RECORDED_CLEAR_DB, RECORDED_FIX_DB = 80.0, 65.0
"""What is recorded or broadcast is heard again in quieter rooms, by headphones: common practice."""
UNDER_ROOM_CLEAR_DB, UNDER_ROOM_FIX_DB = 15.0, 5.0
"""So far under the room's own noise it is not heard; nearer than the second an audience notices: common practice."""

WHY: dict[str, str] = {
    "earth_measured": "the two ends stand on different earths",
    "earth": "the two ends stand on different earths",
    "field": "the lead and the earth path beside it make a loop in the mains' field",
    "mains_pair": "a mains cable lies beside the lead",
    "touch": "the supply with two pins lets current through that returns by the screen",
    "electric": "the mains' electric field reaches an open or unscreened stretch",
    "computer": "the computer's own noise finds a way back through another earth",
    "supply_fault": "a supply is failing",
}
WHAT: dict[str, str] = {
    "earth_measured": "Put both on one strip, or isolate this line.",
    "earth": "Put both on one strip, or isolate this line.",
    "field": "Keep the lead close along its mains cord, or isolate it.",
    "mains_pair": "Move the lead away from the mains cable, or cross it at a right angle.",
    "touch": "Isolate this line, or give the device an earthed supply if its maker has one.",
    "electric": "Use a screened lead whose screen is joined at one end at least.",
    "computer": "Try it on battery to prove it; isolate this line to cure it.",
    "supply_fault": "Take that device out of service and have its supply mended.",
}
_EARTHS = (
    "Never open a mains earth to stop hum, by an adapter, a cut pin or anything else. Before plugs move to one strip, "
    "add up what it carries; strips are not chained."
)
CAUTION: dict[str, str] = {
    "earth_measured": _EARTHS,
    "earth": _EARTHS,
    "touch": "If its metal tingles, switch it off at the wall and have it looked at before anybody plays it.",
    "supply_fault": "Its supply is opened only by people licensed for it: parts stay live after the plug is out.",
}


def hum(rig: Rig, result: RunResult) -> Iterator[Finding]:
    """Per input that something usable reaches."""
    for receiver in result.inputs:
        if (
            receiver.hum is None
            or receiver.hum.below_programme_db is None
            or not usable(result, receiver)
            or not receiver.hum.causes
        ):
            continue
        grade = _grade(rig, receiver, receiver.hum, receiver.hum.below_programme_db)
        if grade is None:
            continue
        main = _main(receiver.hum)
        params: dict[str, float | str] = {
            "place": input_words(rig, receiver),
            "below_db": receiver.hum.below_programme_db,
            "worst_db": receiver.hum.below_programme_worst_db or 0.0,
            "why": WHY[main.code],
            "what": WHAT[main.code],
            "caution": CAUTION.get(main.code, ""),
            "where": _where(rig, receiver, receiver.hum.below_programme_db),
        }
        yield finding(FindingCode.HUM, grade, result, receiver.gear, receiver.input, params)


def _grade(rig: Rig, input_result: InputResult, heard: Hum, below_db: float) -> Grade | None:
    """None where it is not heard; Stop where it is louder than the programme."""
    if rig.part_of(input_result.gear).records:
        clear, fix = below_db >= RECORDED_CLEAR_DB, below_db < RECORDED_FIX_DB
    elif (room := _room(rig)) is not None:
        loud_db, room_dba = room
        margin_db = room_dba - (loud_db - below_db)
        clear = margin_db >= UNDER_ROOM_CLEAR_DB or not _any_tone_heard(input_result, heard, loud_db)
        fix = margin_db < UNDER_ROOM_FIX_DB
    else:
        clear, fix = below_db >= CLEAR_DB, below_db < FIX_DB
    if clear:
        return None
    if below_db < 0.0:
        return Grade.STOP
    return Grade.FIX if fix else Grade.WATCH


def _room(rig: Rig) -> tuple[float, float] | None:
    """How loud programme is at the listener, and the room by itself, where both are known."""
    venue = rig.venue
    if venue.programme_db_spl is None or venue.noise_dba is None:
        return None
    return venue.programme_db_spl, venue.noise_dba


def _any_tone_heard(input_result: InputResult, heard: Hum, loud_db: float) -> bool:
    """Whether any tone is above the threshold of hearing by itself; a glance has no tones, so it is taken to be."""
    level = active(input_result)
    if level is None or not heard.tones.frequencies_hz:
        return True
    tones = zip(heard.tones.frequencies_hz, heard.tones.likely_dbu, strict=True)
    spl = [(frequency_hz, loud_db + likely_dbu - level.arriving_dbu) for frequency_hz, likely_dbu in tones]
    return any(db_spl >= threshold_db_spl(hz) for hz, db_spl in spl)


def _where(rig: Rig, input_result: InputResult, below_db: float) -> str:
    """What that means for whoever listens."""
    if rig.part_of(input_result.gear).records:
        return " What is recorded or broadcast should have 80 dB."
    room = _room(rig)
    if room is None:
        return ""
    return f" At the listener that is {number(room[0] - below_db)} dBA in a room of {number(room[1])} dBA."


def _main(heard: Hum) -> CauseShare:
    """Causes come largest first."""
    return heard.causes[0]
