"""Arrows in a typed line, and the words that people say for them: "on 4 and 5", "gets aux 2", "goes to"."""

import re

ARROW = re.compile(r"\s*(?:=>|->|>|\N{RIGHTWARDS ARROW})\s*")
BACK = re.compile(r"\s*(?:<=|<-|<|\N{LEFTWARDS ARROW})\s*")
_PLACE_NEXT = r"(?=(?:the\s+)?(?:(?:desk|mixer|console|board)\b|(?:ch|chan|channels?|inputs?|mic|line)?\s*\.?\s*#?\d))"
_CHANNEL_NEXT = r"(?=(?:ch|chan|channels?|inputs?)\b\s*\.?\s*#?\d)"
_GOING = r"(?:(?:is|are|goes|going|go|runs?|running|sent|fed|plugged|patched|connected|routed|wired)\s+)*"
_WORDS_FOR_BACK = re.compile(
    r"\s+(?:(?:is|are|fed|driven|coming|comes?|runs?|taken)\s+)*(?:from|by|off(?:\s+of)?)\s+"
    r"|\s+on\s+(?=(?:the\s+)?(?:aux|mix|bus|matrix|mtx|send|group|main)\b)"
    r"|\s+(?:gets?|takes?|receives?|hears?)\s+(?:(?:a|its|the)\s+(?:feed|sound|audio|signal|mix)\s+(?:from|off)\s+)?",
    re.IGNORECASE,
)
WORDS_FOR_ARROW = re.compile(
    rf"\s+(?:(?:and\s+)?then\s+)?{_GOING}(?:to|into|in to|onto)\s+"
    rf"|\s+(?:feeds?|feeding|drives?)\s+|\s+{_GOING}on\s+{_PLACE_NEXT}"
    rf"|\s+{_GOING}in\s+(?=(?:ch|chan|channels?|inputs?)\b|\d+\s*[-,/&+ ]\s*\d)",
    re.IGNORECASE,
)
TO = re.compile(r"\S\s+(?:to|into|in to|onto|on)\s+\S", re.IGNORECASE)
_CHANNEL_BEHIND = re.compile(rf"(?:\s*,\s*|\s+){_CHANNEL_NEXT}", re.IGNORECASE)
"""Where no word leads there: "choir mic, channel 5"."""
_COUNTED_UP = re.compile(r"(\b[a-z]+s\s+\d+)\sto(\s\d+)(?=\s+(?:to|into|through|via|on|in)\b)", re.IGNORECASE)
_LIST_AND_PLACES = re.compile(
    r"(?:[^<>]+,[^<>]*[^\d\s,-](?P<arrow>,?\s+)\d+\s*-\s*\d+|[^<>]+[^\d\s,-](?P<stroke>,?\s+)\d+\s*/\s*\d+)\s*(?:,|$)"
)
"""Names and the places for them without a word between: "kick, snare, hat 1-3", "horn mics 15/16"."""
_SAID_OTHERWISE = (
    (re.compile(r"\bDI['\N{RIGHT SINGLE QUOTATION MARK}]?e?d\b", re.IGNORECASE), "DI"),
    (re.compile(r"\bDI['\N{RIGHT SINGLE QUOTATION MARK}]s\b", re.IGNORECASE), "DIs"),
    (re.compile(r"\bmi[ck]['\N{RIGHT SINGLE QUOTATION MARK}]?e?d(?:\s+up)?\b", re.IGNORECASE), "mic"),
)
"""What is done to a source as what stands behind it: "piano DI'd" is a "piano DI"."""


def say_otherwise(text: str) -> str:
    """The text with what is done to a source as what stands behind it, and counted ranges with a stroke; as long as
    before, so that places in it stay."""
    for said, word in _SAID_OTHERWISE:
        for match in said.finditer(text):
            text = f"{text[: match.start()]}{word.ljust(len(match[0]))}{text[match.end() :]}"
    return _COUNTED_UP.sub(lambda match: f"{match[1]} - {match[2]}", text)


def find_arrow(text: str) -> tuple[str, re.Pattern[str], bool]:
    """What parts this line's pieces, and whether the destination stands first: an arrow where one is typed, else a word
    for one, else the place before channels. The text comes back with an arrow where nothing stood for it."""
    if ARROW.search(text):
        return text, ARROW, False
    if BACK.search(text):
        return text, BACK, True
    if WORDS_FOR_ARROW.search(text):
        return text, WORDS_FOR_ARROW, False
    if _WORDS_FOR_BACK.search(text):
        return text, _WORDS_FOR_BACK, True
    if _CHANNEL_BEHIND.search(text):
        return text, _CHANNEL_BEHIND, False
    if (listed := _LIST_AND_PLACES.match(text)) is not None:
        at = max(listed.start("arrow"), listed.start("stroke"))
        return f"{text[:at]}>{text[at + 1 :]}", ARROW, False
    return text, WORDS_FOR_ARROW, False
