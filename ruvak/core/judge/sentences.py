"""The catalogue: for each finding code what is wrong and what to do, in plain words with numbers.

Templates take the finding's parameters; decibels are rounded to a tenth and carry a true minus sign.
"""

import re
from dataclasses import dataclass

from ruvak.core.judge.codes import FindingCode

MINUS = "\N{MINUS SIGN}"
OHM = "\N{GREEK CAPITAL LETTER OMEGA}"


@dataclass(frozen=True)
class Words:
    """`sentence` says what happens and why, `advice` what to do next, `caution` where that can hurt somebody."""

    sentence: str
    advice: str
    caution: str = ""


SWITCHING_PHANTOM = (
    "Mute the channel and wait some seconds: switching phantom, or plugging while it is on, bangs through loudspeakers "
    "and earpieces."
)
AMPLIFIED = (
    "Switch the amplifier off before a loudspeaker plug is moved. A 100 V line can give a shock, and one in the "
    "building's walls is for licensed people."
)

CATALOGUE: dict[FindingCode, Words] = {
    FindingCode.CENTRE_CANCELS: Words(
        "Everything common to left and right cancels at {place}: it arrives {depth_db} dB below one side alone "
        "({depth_worst_db} dB in the worst case), so voices and bass vanish and only what differs between the "
        "sides is heard.",
        "Left is on hot and right on cold, and the input keeps only their difference. Sum the two sides to mono "
        "before this input, bring them in on two inputs, or use one side.",
    ),
    FindingCode.CENTRE_WEAKENED: Words(
        "What is common to left and right arrives {depth_db} dB below one side alone at {place}: voices sound "
        "thin and distant.",
        "The two sides partly cancel on their way; look for one that is inverted, or sum them properly to mono.",
    ),
    FindingCode.SILENT: Words(
        "Nothing usable arrives at {place}: what does is {level_db} dB below the source, only what mismatched parts "
        "let through.",
        "{why}",
    ),
    FindingCode.HUM_ALONE: Words(
        "Only loud hum arrives at {place}, at {hum_dbu} dBu, and nothing usable of the source: the way back is open.",
        "A sleeve or screen has no contact somewhere on the way. Follow the strip to the gap, and swap that lead.",
        "Mute the channel before anything is touched: this hum is loud enough to harm loudspeakers and ears.",
    ),
    FindingCode.MONO_CANCELS: Words(
        "{place} is heard in stereo, but summed to mono its centre falls {depth_db} dB: on a phone or one speaker "
        "the voices are gone.",
        "One side arrives with opposite polarity; turn it round before it reaches this pair.",
    ),
    FindingCode.SIDE_MISSING: Words(
        "Only {present} arrives at {place}; whatever is on {missing} alone is never heard.",
        "Switch the source to mono sound so that both sides are on {present}, or bring in both sides.",
    ),
    FindingCode.UNUSABLE: Words(
        "{thing} is marked as {condition}{remark}: this run cannot rely on it.",
        "Take another one, or mark it as good once it is mended or back.",
    ),
    FindingCode.SUSPECT: Words(
        "{thing} is suspect{remark}.",
        "Test it before the doors open, keep a spare beside it, or take another one.",
    ),
    FindingCode.LEAD_FAULT: Words(
        "{thing} has a fault that a test showed: {fault}.{heard}",
        "Take another one. Once it is mended, test it again and mark it as good.",
    ),
    FindingCode.HOST_UNKNOWN: Words(
        "{device} belongs to a computer that is not in this plan; it is taken to be on battery, and on an earthed "
        "supply it may hum.",
        "Add the computer and say how it is powered: type a line from it, or import the rig with it and its USB lead.",
    ),
    FindingCode.BODY_FLOATS: Words(
        "Pin 1 does not reach {place}: nothing joins the body of {source} to it, so it hums when a hand or a mains "
        "lead is near, and phantom cannot arrive.",
        "Use a lead or boxes that carry the screen from end to end.",
    ),
    FindingCode.ONE_SIDED: Words(
        "Only the {heard} side of {place} gets anything; its {silent} stays silent.",
        "Use a lead that brings the signal to both sides, or tell the device to take the {heard} for both.",
    ),
    FindingCode.SIDES_SWAPPED: Words(
        "Left and right are swapped at {place}.",
        "Change the two plugs over.",
    ),
    FindingCode.INVERTED: Words(
        "Polarity is reversed at {place}: hot and cold are swapped on the way.",
        "Harmless alone, but it cancels against another pick-up of the same sound; use a lead wired straight.",
    ),
    FindingCode.SOURCES_OPPOSED: Words(
        "{reversed} arrives at {place} with reversed polarity, {kept} does not: what both pick up cancels there.",
        "Where it is meant, as with two microphones that face each other across a drum, leave it; else use a wiring "
        "that brings both sources to the same contact.",
    ),
    FindingCode.LEVEL_LOW: Words(
        "The programme arrives at {arriving_dbu} dBu, {gap_db} dB below what {place} wants, and its control adds "
        "only {boost_db} dB: {short_db} dB too quiet.",
        "{how}",
    ),
    FindingCode.LEVEL_CLIPS: Words(
        "Loud passages arrive at {peak_dbu} dBu, {over_db} dB more than {place} can bear: it will distort.",
        "Turn the source down, put the switch to line, or put a pad in the run.",
    ),
    FindingCode.LEVEL_CLOSE: Words(
        "Loud passages arrive only {headroom_db} dB below what {place} can bear: little headroom is left.",
        "Turn the source down a little.",
    ),
    FindingCode.LINE_LOSS: Words(
        "At {place} the lead costs {loss_db} dB: only {left_percent} % of the power is left{others}.",
        "{how}",
        AMPLIFIED,
    ),
    FindingCode.OVERPOWERED: Words(
        "At full level the amplifier puts {peak_w} W into {place}, which bears {rated_w} W.",
        "Limit the amplifier or turn it down, or use one that bears more: a clipped amplifier gives yet more.",
        AMPLIFIED,
    ),
    FindingCode.LINE_OVERLOADED: Words(
        "The loudspeakers on the {line_v} V line of {source} ask for {asks_w} W, and it gives {gives_w} W.",
        "Set some of them to a lower tap, or take some off the line.",
        AMPLIFIED,
    ),
    FindingCode.LINE_FULL: Words(
        "The loudspeakers on the {line_v} V line of {source} ask for {asks_w} W of the {gives_w} W it gives: little is "
        "left for losses, or for one more.",
        "Leave about a fifth in reserve: a lower tap on one or two of them does it.",
        AMPLIFIED,
    ),
    FindingCode.DULL: Words(
        "The way to {place} loses {loss_db} dB at 10 kHz: it sounds dull.",
        "Shorten the lead, or lower the impedance that drives it.",
    ),
    FindingCode.THIN: Words(
        "The bass is 3 dB down at {low_hz} Hz on the way to {place}: it sounds thin.",
        "{how}",
    ),
    FindingCode.SATURATES: Words(
        "Loud bass comes to {bass_dbu} dBu at {at_hz} Hz over the transformer in {box}, which bears "
        "{saturates_dbu} dBu there: it will growl and thin out.",
        "Turn the source down by {over_db} dB and the input up, or use a box whose transformer is made for this level.",
    ),
    FindingCode.HUM: Words(
        "Hum and buzz lie {below_db} dB under the programme at {place} ({worst_db} at worst): {why}.{where}",
        "{what}",
        "{caution}",
    ),
    FindingCode.CROSSTALK: Words(
        "{stranger} is heard at {place}, only {below_db} dB under the programme there.",
        "The two share a conductor on their way; give each its own lead, or its own return.",
    ),
    FindingCode.AMPLIFIED_INTO_INPUT: Words(
        "{source} sends {sends} into {place}, which is made for {wants}: it can destroy that input.",
        "Unplug it. Take the signal from before the amplifier, or from a line output.",
        AMPLIFIED,
    ),
    FindingCode.SLEEVE_EARTHED: Words(
        "The {contact} of {source} is an amplifier's output, and this run joins it to {place}: the amplifier is "
        "shorted.",
        "Take a line output, or put a transformer between (a line isolator, a DI box with its ground lifted).",
        AMPLIFIED,
    ),
    FindingCode.EARTH_LOST: Words(
        "The mains earth of {source} is open: the screens of its leads are all the earth its metal has, and a fault "
        "inside would put the mains on everything they touch.",
        "Switch it off at the wall, touch nothing metal of it meanwhile, and take it out of service until a licensed "
        "person has mended its plug, cord or outlet. No lead or box cures this.",
    ),
    FindingCode.LEAK_TRIPS: Words(
        "Behind {point}, {who} about {likely_ma} mA ({worst_ma} mA at worst): its "
        "{rated_ma} mA protective device may open at {open_ma} mA, and then everything behind it goes dark.",
        "Spread them over outlets behind other protective devices, and try the whole rig before the day. What is "
        "fitted in the board is for a licensed person to judge; never bridge it, never open an earth to leak less.",
    ),
    FindingCode.LEAK_HIGH: Words(
        "Behind {point}, {who} about {likely_ma} mA ({worst_ma} mA at worst): its "
        "{rated_ma} mA protective device should not carry more than {planned_ma} mA all the time.",
        "Spread them over outlets behind other protective devices. What is fitted in the board is for a licensed "
        "person to judge; never bridge it, never open an earth to leak less.",
    ),
    FindingCode.CLASS_MIXED: Words(
        "{source} sends {sends}, and {place} is made for {wants}: the plugs fit and nothing else does.",
        "Trace both leads to their ends and plug each where it belongs; mark data leads so that they stay apart.",
    ),
    FindingCode.DATA_LOADS: Words(
        "One line of {carries} feeds {receivers} devices, and is made for {most}.",
        "Put a splitter made for it where the line leaves: each of its outputs drives as many again.",
    ),
    FindingCode.DATA_LONG: Words(
        "It is {length_m} m to {place}; a line of {carries} is made for {limit_m} m.",
        "Shorten the way, or put a repeater made for it in the middle.",
    ),
    FindingCode.DATA_OPEN: Words(
        "Nothing ends the line at {place}: {carries} meets {end_ohm} {ohm} instead of {wave_ohm} {ohm}, and "
        "{reflected_percent} % of every edge comes back.",
        "Switch the resistor on at the last device, or put a terminating plug into its way on; only at the last.",
    ),
    FindingCode.DATA_OVERENDED: Words(
        "The line to {place} is ended more than once: {carries} meets {end_ohm} {ohm} instead of {wave_ohm} {ohm}, and "
        "{reflected_percent} % of every edge comes back.",
        "Switch the resistor off, or take the terminating plug out, everywhere but at the last device.",
    ),
    FindingCode.DATA_CLEAR: Words(
        "{carries} reaches {place} over {length_m} m of a line made for {limit_m} m.",
        "Nothing to do.",
    ),
    FindingCode.LEAD_CLASS: Words(
        "{lead} is a lead of {lead_ohm} {ohm} and carries {carries}, made for {wave_ohm} {ohm}: "
        "{reflected_percent} % of every edge comes back.",
        "Use a lead made for it, however short, and end the line with its resistor; it fails when you least need it.",
    ),
    FindingCode.PHANTOM_MISSING: Words(
        "{source} wants {power} and gets none: it stays silent.",
        "{how}",
        "{caution}",
    ),
    FindingCode.PHANTOM_LOW: Words(
        "{source} gets {volts} of {power} and wants {wanted_v} V: it may be noisy, distort, or stop.",
        "Too much is drawn from one supply, or a contact on the way is bad; give it an input of its own.",
    ),
    FindingCode.CASE_LIVE: Words(
        "The case of {device} stands at {volt} V and lets {current_ma} mA through whoever touches it and an earth.",
        "Unplug it and have a licensed person test it; a sound two-pin device stays under 0.25 mA.",
        "Nobody touches it until then. An earth elsewhere is no cure, and none is ever opened.",
    ),
    FindingCode.PHANTOM_HARMS: Words(
        "Phantom power drives {current_ma} mA of direct current into {source}, which was not made for it.",
        "Switch phantom off at this input before plugging in, or put a transformer between; do not try it out.",
        SWITCHING_PHANTOM,
    ),
    FindingCode.SOURCE_LOST: Words(
        "Nothing of {source} arrives anywhere on this run, while its other source does.",
        "No wire leads on from it; follow the strip to the gap and close it.",
    ),
    FindingCode.LOAD_LOW: Words(
        "{source} has to drive {load_ohm} {ohm} and is made for {min_load_ohm} {ohm} or more: it gets quieter and may "
        "distort.",
        "{why}",
    ),
    FindingCode.CONTACT_UNCERTAIN: Words(
        "What a four-contact plug joins in a three-contact socket depends on the socket ({joined}). If its sleeve "
        "spring meets {outcomes}.",
        "Try it before the day, say on the strip what it meets, or use an adapter made for four contacts.",
    ),
    FindingCode.NOT_CONNECTED: Words(
        "This run has no {missing_end}, so there is nothing to hear yet.",
        "Plug in the missing end.",
    ),
    FindingCode.CLEAR: Words(
        "Arrives whole at {arriving_dbu} dBu {room} at {place}.",
        "Nothing to do.",
    ),
}


def written(code: FindingCode, params: dict[str, float | str]) -> Words:
    """The sentences of a finding. KeyError for a code or parameter the catalogue does not have."""
    shown = {"ohm": OHM} | {name: value if isinstance(value, str) else number(value) for name, value in params.items()}
    words = CATALOGUE[code]
    return Words(*(_keep_together(entry.format_map(shown)) for entry in (words.sentence, words.advice, words.caution)))


def _keep_together(text: str) -> str:
    """Keeps a figure and its unit on one line."""
    return re.sub(rf"(?<=\d) (?=(dBu?|Hz|m|mA|V|W|%|{OHM})(\b|\s))", "\N{NO-BREAK SPACE}", text)


def number(value: float) -> str:
    """A tenth at most, true minus sign; 100 and more in whole numbers."""
    text = f"{value:.0f}" if abs(value) >= 100 else f"{value:.1f}"
    text = text.removeprefix("-") if float(text) == 0 else text
    return text.replace("-", MINUS)


def write_signed(value: float) -> str:
    """As number(), with a plus sign above zero."""
    text = number(value)
    return f"+{text}" if value > 0 and float(text) != 0 else text
