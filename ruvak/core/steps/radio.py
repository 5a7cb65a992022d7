"""Whether frequencies of radio microphones are free of each other and of the place."""

from collections.abc import Iterable, Iterator, Mapping
from itertools import combinations, permutations

from ruvak.core.rig.rig import Rig, TakenBand
from ruvak.core.rig.values import Record

LEAST_APART_MHZ = 0.35
"""Between two carriers: common practice is 0.3 to 0.4 MHz, no source."""
ELSEWHERE = "another rig of the house at the same time"
CLEAR_MHZ = 0.1
"""Between a carrier and a product of others: common practice, no source."""


class Clash(Record):
    """A carrier that is not free."""

    name: str
    """Whose it is."""
    mhz: float
    """The carrier."""
    words: str
    """What falls on it."""


def clashes(carriers: Mapping[str, float], taken: Iterable[TakenBand] = ()) -> tuple[Clash, ...]:
    """Carriers that lie too near to each other, to what is taken at the place, or to a third-order product of two or
    three others: transmitters that stand beside each other make 2 A - B and A + B - C. `carriers`: by name, in
    megahertz."""
    return tuple(_near(carriers)) + tuple(_taken(carriers, taken)) + tuple(_products(carriers))


def carriers_of(rig: Rig) -> dict[str, float]:
    """What transmits by radio in a rig, microphones and in-ear systems, by name, in megahertz."""
    return {
        f"{gear.name} {number}" if len(gear.radio_mhz) > 1 else gear.name: mhz
        for gear in rig.gear
        for number, mhz in enumerate(gear.radio_mhz, 1)
    }


def taken_elsewhere(carriers_mhz: Iterable[float]) -> tuple[TakenBand, ...]:
    """Carriers of the house's other rigs that are on at the same hours; whose they are is not said to those who see
    one rig alone."""
    return tuple(TakenBand(low_mhz=mhz, high_mhz=mhz, by=ELSEWHERE) for mhz in carriers_mhz)


def say_band(band: TakenBand) -> str:
    """In words: "470 to 478 MHz (television)"."""
    span = f"{band.low_mhz:g}" if band.low_mhz == band.high_mhz else f"{band.low_mhz:g} to {band.high_mhz:g}"
    return f"{span} MHz" + (f" ({band.by})" if band.by else "")


def _near(carriers: Mapping[str, float]) -> Iterator[Clash]:
    for (first, a), (second, b) in combinations(carriers.items(), 2):
        if abs(a - b) < LEAST_APART_MHZ - 1e-9:
            yield Clash(name=second, mhz=b, words=f"lies only {abs(a - b):.3f} MHz from {first}")


def _taken(carriers: Mapping[str, float], taken: Iterable[TakenBand]) -> Iterator[Clash]:
    """A single carrier of the place keeps off as one of ours does; a band is wide already, so its edges count."""
    for band in taken:
        low, high = sorted((band.low_mhz, band.high_mhz))
        margin = LEAST_APART_MHZ if low == high else CLEAR_MHZ
        for name, mhz in carriers.items():
            if low - margin + 1e-9 < mhz < high + margin - 1e-9:
                yield Clash(name=name, mhz=mhz, words=f"meets {say_band(band)}, which is taken")


def _products(carriers: Mapping[str, float]) -> Iterator[Clash]:
    for victim, mhz in carriers.items():
        others = {name: value for name, value in carriers.items() if name != victim}
        products = [(f"2 {TIMES} {a} {MINUS} {b}", 2 * others[a] - others[b]) for a, b in permutations(others, 2)]
        products += [
            (f"{a} + {b} {MINUS} {c}", others[a] + others[b] - others[c])
            for a, b in combinations(others, 2)
            for c in others
            if c not in (a, b)
        ]
        for words, product_mhz in products:
            if abs(product_mhz - mhz) < CLEAR_MHZ - 1e-9:
                yield Clash(name=victim, mhz=mhz, words=f"is met by {words}")


TIMES, MINUS = "\N{MULTIPLICATION SIGN}", "\N{MINUS SIGN}"
