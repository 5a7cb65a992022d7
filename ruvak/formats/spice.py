"""A rig as SPICE netlists, one for each disturbance or programme channel: the same elements, another solver.

Written in plain SPICE 3 with a control block that ngspice runs: one AC point a frequency, amplitudes altered between.
"""

import cmath
import io
import math
import re
import zipfile
from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from ruvak.core.circuit.build import build
from ruvak.core.circuit.circuit import Cause, Circuit
from ruvak.core.prepare import prepare
from ruvak.core.rig.prune import prune
from ruvak.core.rig.rig import Rig
from ruvak.core.solve.network import EARTH, Bundle, Network
from ruvak.core.trace.trace import trace

Emfs = tuple[tuple[int, complex], ...]


@dataclass(frozen=True)
class Excitation:
    """What a netlist is driven by: words for its heading, and emfs in volts rms by branch at each frequency."""

    name: str
    words: str
    lines: tuple[tuple[float, Emfs], ...]


def netlists(rig: Rig) -> dict[str, str]:
    """Every netlist of a rig by file name. Raises RigFault as an analysis would."""
    used = prune(prepare(rig))
    circuit = build(used, trace(used))
    return {
        f"{entry.name}.cir": netlist(used, circuit, entry, entry.name + "-") for entry in excitations(used, circuit)
    }


def zip_files(files: dict[str, str]) -> bytes:
    """As one archive; the same files always give the same bytes."""
    buffer = io.BytesIO()
    with zipfile.ZipFile(buffer, "w", zipfile.ZIP_DEFLATED) as archive:
        for name, text in files.items():
            archive.writestr(zipfile.ZipInfo(name), text)
    return buffer.getvalue()


def excitations(rig: Rig, circuit: Circuit, programme_hz: tuple[float, ...] = (1000.0,)) -> list[Excitation]:
    """Every cause at its likely size, and every programme channel with 1 V of emf."""
    result = [
        Excitation(f"{number:03d}-{cause.code}", _words(rig, cause), _likely(cause))
        for number, cause in enumerate(circuit.causes)
    ]
    for number, drive in enumerate(circuit.drives):
        emfs = tuple((branch, complex(gain)) for branch, gain in drive.branch_gains)
        words = f"programme from {_name_owner(rig, drive.gear)}, channel {drive.channel}, 1 V of emf"
        result.append(Excitation(f"p{number:03d}-programme", words, tuple((hz, emfs) for hz in programme_hz)))
    return result


def netlist(rig: Rig, circuit: Circuit, excitation: Excitation, raw_name: str = "result") -> str:
    """The rig under one excitation. Nodes are called after the contact they stand for; earth is node 0."""
    names = node_names(circuit.network)
    writer = _Writer(circuit.network, names, {branch for _, emfs in excitation.lines for branch, _ in emfs})
    lines = [
        f"* {_plain(rig.name)}: {_plain(excitation.words)}",
        "* Volts and amperes rms. Node names: device or lead, connector, contact; node 0 is the main earth bar.",
        *(f"* {entry}" for entry in _listening(circuit, names)),
        *writer.elements(),
        # Without some pivoting a screen's millivolts drown in the digits of what is common to both its ends.
        ".options noopac pivrel=0.1",
        ".control",
        "set filetype=binary",
        *_control(excitation, raw_name),
        "quit",
        ".endc",
        ".end",
    ]
    return "\n".join(lines) + "\n"


def node_names(network: Network) -> list[str]:
    """A SPICE name for each node: letters, digits, dots and underscores, told apart whatever their case."""
    taken: set[str] = {"0"}
    names = []
    for name in network.node_names:
        stem = re.sub(r"[^A-Za-z0-9._]", "_", name).lower()
        unique, number = stem, 2
        while unique in taken:
            unique, number = f"{stem}_{number}", number + 1
        taken.add(unique)
        names.append(unique)
    return names


class _Writer:
    def __init__(self, network: Network, names: list[str], driven: set[int]) -> None:
        self.network = network
        # A current is sensed by the source it flows through.
        self.driven = driven | {element.sensed for element in network.transresistances}
        self._names = names

    def _node(self, node: int) -> str:
        return "0" if node == EARTH else self._names[node]

    def elements(self) -> Iterator[str]:
        network = self.network
        for index, (a, b, siemens) in enumerate(network.conductances):
            yield f"R{index} {self._node(a)} {self._node(b)} {_figure(1.0 / siemens)}"
        for index, (a, b, farad) in enumerate(network.capacitances):
            yield f"C{index} {self._node(a)} {self._node(b)} {_figure(farad)}"
        first = 0
        for bundle in network.bundles:
            yield from self._bundle(bundle, first)
            first += len(bundle.a)
        for index, coil in enumerate(network.transformers):
            p, q, s, t = (self._node(node) for node in (coil.p, coil.q, coil.s, coil.t))
            yield f"ET{index} {p} t{index}x {s} {t} {_figure(coil.ratio)}"
            yield f"VT{index} t{index}x {q} 0"
            yield f"FT{index} {t} {s} VT{index} {_figure(coil.ratio)}"
        for index, stage in enumerate(network.amplifiers):
            s, t, p, q = (self._node(node) for node in (stage.s, stage.t, stage.p, stage.q))
            yield f"EA{index} {s} {t} {p} {q} {_figure(stage.gain)}"

    def _bundle(self, bundle: Bundle, first: int) -> Iterator[str]:
        """From a: emf, inductance, resistance, to b. Mutual inductances follow as coupling factors."""
        for k, (a, b, ohm) in enumerate(zip(bundle.a, bundle.b, bundle.ohm, strict=True)):
            branch, henry = first + k, bundle.henry[k][k]
            parts = []
            if branch in self.driven or (not ohm and not henry):
                parts.append("V")
            parts += ["L"] if henry else []
            parts += ["R"] if ohm else []
            following = [element for element in self.network.transresistances if element.driven == branch]
            parts += [f"H{number}" for number in range(len(following))]
            nodes = [self._node(a), *(f"b{branch}{kind.lower()}" for kind in parts[:-1]), self._node(b)]
            for kind, node, other in zip(parts, nodes, nodes[1:], strict=False):
                if kind == "V":
                    # The emf drives from a to b, so the source's plus looks towards b.
                    yield f"VB{branch} {other} {node} 0 AC 0 0"
                elif kind == "L":
                    yield f"LB{branch} {node} {other} {_figure(henry)}"
                elif kind.startswith("H"):
                    # Current from a to b enters the sensing source at its minus, hence plus looks towards a here.
                    source = following[int(kind[1:])]
                    yield f"H{kind[1:]}B{branch} {node} {other} VB{source.sensed} {_figure(source.ohm)}"
                else:
                    yield f"RB{branch} {node} {other} {_figure(ohm)}"
        for k in range(len(bundle.a)):
            for m in range(k):
                mutual = bundle.henry[k][m]
                if mutual:
                    factor = mutual / math.sqrt(bundle.henry[k][k] * bundle.henry[m][m])
                    lower, upper = first + m, first + k
                    yield f"KB{lower}_{upper} LB{lower} LB{upper} {_figure(min(1.0, factor))}"


def _control(excitation: Excitation, raw_name: str) -> Iterator[str]:
    driven = {branch for _, emfs in excitation.lines for branch, _ in emfs}
    for number, (frequency_hz, emfs) in enumerate(excitation.lines):
        # What drives at one frequency alone has to be silenced again at the next.
        by_branch: dict[int, complex] = dict.fromkeys(sorted(driven), 0j)
        for branch, volts in emfs:
            by_branch[branch] += volts
        for branch, volts in by_branch.items():
            yield f"alter @vb{branch}[acmag] = {_figure(abs(volts))}"
            yield f"alter @vb{branch}[acphase] = {_figure(math.degrees(cmath.phase(volts)))}"
        yield f"ac lin 1 {_figure(frequency_hz)} {_figure(frequency_hz)}"
        yield f"write {raw_name}{number}.raw all"


def _likely(cause: Cause) -> tuple[tuple[float, Emfs], ...]:
    return tuple(
        (line.frequency_hz, tuple((branch, cause.likely * volts) for branch, volts in line.emfs))
        for line in cause.lines
    )


def _listening(circuit: Circuit, names: list[str]) -> Iterator[str]:
    """Where each input listens."""

    def node(number: int) -> str:
        return "0" if number == EARTH else names[number]

    for receiver in circuit.receivers:
        where = f"hot {node(receiver.hot)}, cold {node(receiver.cold)}, reference {node(receiver.reference)}"
        yield _plain(f"Input {receiver.gear} {receiver.input.id}: {where}")


def _words(rig: Rig, cause: Cause) -> str:
    kinds = {
        "earth_measured": "earth voltages as measured",
        "earth": "voltage along the earth conductor to",
        "field": "magnetic field through the loops beside the leads of",
        "mains_pair": "mains cable beside",
        "touch": "touch current of",
        "electric": "electric field of the mains at",
        "computer": "computer noise of",
        "supply_fault": "failing supply of",
    }
    return f"{kinds[cause.code]} {_name_owner(rig, cause.owner)}"


def _name_owner(rig: Rig, owner: str) -> str:
    """What people call it."""
    id_ = owner.removeprefix("somewhere:")
    thing = rig.owners_by_id.get(id_)
    points: Iterable[str] = (point.name for point in rig.venue.earth if point.id == id_)
    called = getattr(thing, "name", None) or getattr(thing, "tag", None) or next(iter(points), None)
    if called is None:
        return rig.venue.name if owner == "venue" else owner
    return f"the outlet of {called}" if owner.startswith("somewhere:") else str(called)


def _plain(text: str) -> str:
    """One line of ASCII, which every SPICE reads."""
    return re.sub(r"\s+", " ", text).encode("ascii", "replace").decode()


def _figure(value: float) -> str:
    return repr(float(value))
