"""Leads and adapters named by what is on their two ends: "6.35 to 3.5 adapter", "XLR to 2x RCA cable"."""

import re
from functools import lru_cache

from ruvak.core.entry.words import plain_piece
from ruvak.core.parts.library import library
from ruvak.core.rig.connectors import SHAPES, Family
from ruvak.core.rig.part import Part

_FAMILIES: dict[str, Family] = {
    "xlr": "xlr3", "3.5": "3.5 mm", "3.5 mm": "3.5 mm", "mini jack": "3.5 mm", "headphone": "3.5 mm", "aux": "3.5 mm",
    "6.35": "6.35 mm", "6.35 mm": "6.35 mm", "6.3 mm": "6.35 mm", "6.3": "6.35 mm", "jack": "6.35 mm",
    "big jack": "6.35 mm", "trs": "6.35 mm", "ts": "6.35 mm", "rca": "rca", "phono": "rca", "hdmi": "hdmi",
    "midi": "din5", "optical": "optical", "d-type": "dsub25",
}  # fmt: skip
_CONTACTS = {"trs": 3, "ts": 2}
_END = (
    r"(?P<{0}_count>two|2)?\s*(?:(?:stereo|mono|balanced|unbalanced|male|female)\s+)*"
    rf"(?P<{{0}}>{'|'.join(sorted(map(re.escape, _FAMILIES), key=len, reverse=True))})"
    r"(?:\s+(?:stereo|mono|male|female|plug|plugs|socket|sockets|jack|s))*"
)
_BY_ENDS = re.compile(
    rf"{_END.format('near')}\s+to\s+{_END.format('far')}(?:\s+(?P<kind>lead|adapter|converter|y|breakout))*"
)


def is_plug(text: str) -> bool:
    """Whether words name a plug or socket and nothing else: "RCA", "mini jack"."""
    return plain_piece(text) in _FAMILIES


@lru_cache(maxsize=2048)
def find_by_ends(text: str) -> tuple[Part, ...]:
    """The library's leads and adapters with such plugs or sockets, either way round; empty where words say none."""
    match = _BY_ENDS.fullmatch(plain_piece(text))
    if match is None:
        return ()
    ends = tuple((match[name], 2 if match[f"{name}_count"] else 1) for name in ("near", "far"))
    kinds = {"lead": ("lead",), "adapter": ("adapter",)}.get(match["kind"] or "", ("lead", "adapter"))
    return tuple(
        part
        for part in library().values()
        if part.kind in kinds and part.signal is None and (_has(part, ends) or _has(part, ends[::-1]))
    )


def _has(part: Part, ends: tuple[tuple[str, int], ...]) -> bool:
    """Whether a part's two sides have these plugs in these numbers."""
    sides = [[c for c in part.connectors if c.side == side] for side in ("in", "out")]
    return all(
        len(side) == count
        and all(
            SHAPES[connector.form].family == _FAMILIES[word]
            and _CONTACTS.get(word) in (None, len(SHAPES[connector.form].contacts))
            for connector in side
        )
        for side, (word, count) in zip(sides, ends, strict=True)
    )


@lru_cache(maxsize=512)
def with_same_ends(parts: tuple[str, ...]) -> tuple[str, ...]:
    """These parts, and the library's leads and adapters with as many connectors of the same families at their two ends,
    either way round: a "TRS to XLR" that is an adapter, a Y lead that joins in place of one that splits."""
    known = [library()[part] for part in parts if part in library() and library()[part].kind != "box"]
    alike = {(part.signal, ends) for part in known for ends in (_ends(part), _ends(part)[::-1])}
    others = (
        part.id
        for part in library().values()
        if part.kind in ("lead", "adapter") and (part.signal, _ends(part)) in alike
    )
    return tuple(dict.fromkeys((*parts, *others)))


def _ends(part: Part) -> tuple[tuple[str, ...], ...]:
    """The families of its connectors, at the end that signal enters by and at the other."""
    sides = (("in", "both"), ("out", "both"))
    return tuple(tuple(sorted(SHAPES[c.form].family for c in part.connectors if c.side in side)) for side in sides)
