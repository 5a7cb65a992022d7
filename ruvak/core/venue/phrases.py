"""Other ways of saying the same: each is turned into the one that the lines are read in."""

import re

_VALUE = r"(?P<value>\d+(?:[.,]\d+)?\s*m?V)"
_RATING = (
    r"(?P<rating>(?:(?:breaker|fuse|mcb|rcd|gfci|rcbo)\s*)?\d+(?:[.,]\d+)?\s*(?:A|amps?|mA|ohms?)"
    r"(?:\s*(?:breaker|fuse|mcb|rcd|gfci|rcbo))?)"
)
_MEASURED = r"\g<a>: \g<value> against \g<b>"
_PHRASES: tuple[tuple[str, str], ...] = (
    (
        rf"^(?:measured\s+)?between (?P<a>.+?) and (?P<b>.+?)\s*(?::|,|is|reads)?\s*{_VALUE}$",
        _MEASURED,
    ),
    (rf"^(?:measured\s+)?{_VALUE} between (?P<a>.+?) and (?P<b>.+)$", _MEASURED),
    (rf"^(?:measured\s+)?{_VALUE} from (?P<a>.+?) to (?P<b>.+)$", _MEASURED),
    (rf"^(?P<a>.+?) (?:to|against) (?P<b>.+?)\s*(?::|,|is|reads)?\s*{_VALUE}$", _MEASURED),
    (rf"^(?P<a>.+?) (?:voltage|reading)\s*(?::|is)?\s*{_VALUE}$", r"\g<a>: \g<value>"),
    (rf"^(?:an?\s+)?{_RATING} (?:on|at|for|of|in) (?P<a>.+)$", r"\g<a>, \g<rating>"),
    (rf"^(?P<a>.+?) (?:has|have|with) (?:an?\s+)?{_RATING}$", r"\g<a>, \g<rating>"),
    (r"^move (?P<a>.+?) to (?P<b>.+)$", r"\g<a> on \g<b>"),
    (r"^(?P<a>.+?) (?:is|are) (?:now )?(?:called|named) (?P<b>.+)$", r"rename \g<a> to \g<b>"),
    (r"^(?P<a>.+?) (?:(?:is|are|was|were) )?(?:now )?(?:removed|deleted|gone)$", r"remove \g<a>"),
    (r"^(?P<a>.+?) (?:is|are) (?:now )?(?:on|in|at|plugged into) (?P<b>.+)$", r"\g<a> on \g<b>"),
)
_COMPILED = tuple((re.compile(pattern, re.IGNORECASE), said) for pattern, said in _PHRASES)
_VERBS = re.compile(
    r"\b(?:move|rename|remove|delete|removed|is|are|was|were|has|have|called|named|between|measured|reads|now|against|"
    r"plus|no|not|lift)\b",
    re.IGNORECASE,
)


def rephrase(line: str) -> str:
    """The line as it is read; one that is said otherwise already stays."""
    line = line.strip().rstrip(".")
    for pattern, said in _COMPILED:
        if pattern.match(line):
            return pattern.sub(said, line)
    return line


def is_name(words: str) -> bool:
    """Whether words can be what somebody calls a place, and are not a sentence that was not understood."""
    return _VERBS.search(words) is None
