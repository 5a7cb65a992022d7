"""Expands every traced part into elements: one network for the whole rig."""

from collections.abc import Iterable

from ruvak.core.circuit.circuit import Cause, CauseLine, Circuit, Core, Drive, Mates, OpenableConnection, Tolerance
from ruvak.core.circuit.earthing import Earthings
from ruvak.core.circuit.elements import EARTH_POINT, CircuitPoint, Collector, EarthNode
from ruvak.core.circuit.exposure import LIVE, CableBranches, Exposure
from ruvak.core.circuit.inputs import Inputs
from ruvak.core.circuit.known_phase import join_known_phase
from ruvak.core.circuit.outputs import Outputs
from ruvak.core.circuit.passive import add_components, add_piece
from ruvak.core.circuit.phantom import feeds, sinks
from ruvak.core.circuit.tree import EarthTree
from ruvak.core.parts.library import default_assumptions, disturbances_of
from ruvak.core.rig.connectors import SHAPES
from ruvak.core.rig.part import Part
from ruvak.core.rig.points import CHASSIS, SIGNAL_REFERENCE, Contact, ContactRef, InnerNode, NodeRef
from ruvak.core.rig.rig import Assumptions, Gear, Rig
from ruvak.core.solve.islands import islands
from ruvak.core.solve.network import EARTH
from ruvak.core.stage.plan import Plan
from ruvak.core.trace.trace import Trace, connector_at


def build(rig: Rig, traced: Trace) -> Circuit:
    """The circuit of a checked, embedded, traced rig."""
    assert rig.assumptions is not None, "embed() gives every rig its assumptions"
    return _Builder(rig, traced, rig.assumptions).circuit()


class _Builder:
    def __init__(self, rig: Rig, traced: Trace, assumptions: Assumptions) -> None:
        self.rig = rig
        self.assumptions = assumptions
        self.traced = traced
        self.elements = Collector()
        self.elements.merge((EARTH_POINT,))
        self.drives: list[Drive] = []
        self.tolerances: list[Tolerance] = []
        self.hum_tolerances: list[Tolerance] = []
        self.causes: list[Cause] = []
        self.mates: Mates = {}
        self.outputs = Outputs(
            self.elements, rig.alignment, self.drives, self.tolerances, self.hum_tolerances, self.mates
        )
        self.inputs = Inputs(self.elements, self.tolerances, self.hum_tolerances, self.mates)
        mated = [point for link in traced.links if link.kind == "mate" for point in (link.a, link.b)]
        self._plugged = {traced.node_of[point] for point in mated}
        groups: dict[str, list[ContactRef | NodeRef]] = {}
        for point, node in traced.node_of.items():
            groups.setdefault(node, []).append(point)
        for points in groups.values():
            self.elements.merge(points)

    def circuit(self) -> Circuit:
        disturbances = disturbances_of(self.rig)
        tree = EarthTree(self.elements, self.rig, disturbances)
        earthings = Earthings(self.elements, self.rig, disturbances, tree, self.causes)
        for gear in self.rig.gear:
            earthings.add(gear)
        openable_connections = [OpenableConnection("bond", bond.id, earthings.bond(bond)) for bond in self.rig.bonds]
        self._mate()
        cables: list[CableBranches] = []
        for owner in self.traced.owners:
            thing, part = self.rig.owners_by_id[owner], self.rig.part_of(owner)
            if isinstance(thing, Gear):
                self._gear(thing, part)
            else:
                cables += add_piece(self.elements, thing, part, self.hum_tolerances)
        # Before the mains reaches in by capacitances: those tie nothing down.
        floating = self._tie_down()
        self.causes += tree.causes()
        earthings.touch()
        plan = Plan(self.rig)
        Exposure(self.elements, self.rig, disturbances, earthings, self.causes, self.hum_tolerances, plan).add(cables)
        phase_deg, mains_hz = self.rig.venue.induced_phase_deg, float(self.rig.venue.mains_hz)
        causes = self.causes if phase_deg is None else join_known_phase(self.causes, mains_hz, phase_deg.value)
        network, node_of, point_of = self.elements.number_nodes()
        receivers = self.inputs.receivers(node_of)
        return Circuit(
            network,
            node_of,
            point_of,
            tuple(self.drives),
            receivers,
            tuple(self.tolerances),
            tuple(self.hum_tolerances),
            tuple(causes),
            (
                *openable_connections,
                *(
                    OpenableConnection("screen", cable.item.id, branch)
                    for cable in cables
                    if cable.is_first
                    for branch in cable.screens
                ),
            ),
            tuple(feeds(self.rig, receivers)),
            tuple(sinks(self.drives, node_of)),
            self._border(tree, node_of),
            floating,
            tuple(Core(owner, node_of[a], node_of[b], dbu, hz) for owner, a, b, dbu, hz in self.elements.cores),
            tuple((cable.item.id, cable.branches) for cable in cables if cable.is_first and not cable.cable.optical),
        )

    def _border(self, tree: EarthTree, node_of: dict[CircuitPoint, int]) -> tuple[int, ...]:
        shared = _shared_gear(self.rig)
        points: list[CircuitPoint] = [point.of(gear) for gear in shared for point in (SIGNAL_REFERENCE, CHASSIS)]
        points += [EarthNode(point) for point in tree.branches]
        result = {node_of[point] for point in (*points, LIVE) if point in node_of}
        return tuple(sorted(result - {EARTH}))

    def _mate(self) -> None:
        known: set[frozenset[ContactRef | NodeRef]] = set()
        for link in self.traced.links:
            # Two runs by one two-way piece have a plug of it in common.
            if link.kind == "mate" and (pair := frozenset((link.a, link.b))) not in known:
                known.add(pair)
                branch = self.elements.branch(link.a, link.b, self._contact_ohm(link.a, link.b))
                self.mates.setdefault(link.a, []).append((branch, -1.0))
                self.mates.setdefault(link.b, []).append((branch, 1.0))

    def _contact_ohm(self, a: ContactRef | NodeRef, b: ContactRef | NodeRef) -> float:
        """Of one mated contact: what somebody stated of this contact alone, the worse of both sides; else the worse of
        what the two connectors state; else the assumption for the plug's family.

        A rig saved before a family was known has no assumption of its own for it; then the library's holds.
        """
        contacts = [point for point in (a, b) if isinstance(point, ContactRef)]
        own = [
            known.ohm.value
            for point in contacts
            for known in self.rig.owners_by_id[point.owner].contacts
            if known.at == str(point.in_part)
        ]
        if own:
            return max(own)
        connectors = [connector_at(self.rig, point.endpoint) for point in contacts]
        stated = [connector.contact_ohm.value for connector in connectors if connector.contact_ohm is not None]
        if stated:
            return max(stated)
        family = next(SHAPES[connector.form].family for connector in connectors if SHAPES[connector.form].plug)
        known = self.assumptions.contact_ohm.get(family)
        return (known or default_assumptions().contact_ohm[family]).value

    def _tie_down(self) -> tuple[str, ...]:
        """Gives floating devices their capacitance to earth, stated or assumed, and islands without a device one all
        the same; a stated one counts where the device is earthed too.

        Returns the devices whose signal reference rests on it.
        """
        network, number_of, point_of = self.elements.number_nodes()
        chassis = {number_of.get(CHASSIS.of(gear.id), EARTH) for gear in self.rig.gear}
        # Nothing is plugged into it, no earth either: still a thing that stands in the room.
        apart = {gear.id for gear in self.rig.gear if CHASSIS.of(gear.id) not in number_of}
        loose: set[int] = set()
        for group in islands(network):
            loose |= set(group)
            if chassis.isdisjoint(group):
                point = min((point_of[node] for node in group), key=str)
                self.elements.capacitor(point, EARTH_POINT, self.assumptions.stray_f.value)
        # Cases that are joined stand in the room as one.
        cases: dict[int | str, list[Gear]] = {}
        for gear in self.rig.gear:
            cases.setdefault(number_of.get(CHASSIS.of(gear.id), gear.id), []).append(gear)
        for case, devices in cases.items():
            stated = [gear.earth_f.value for gear in devices if gear.earth_f is not None]
            floats = isinstance(case, str) or case in loose
            farad = sum(stated) if stated else self.assumptions.stray_f.value * floats
            self.elements.capacitor(CHASSIS.of(devices[0].id), EARTH_POINT, farad)
        return tuple(
            gear.id
            for gear in self.rig.gear
            if gear.id in apart or number_of.get(SIGNAL_REFERENCE.of(gear.id)) in loose
        )

    def _gear(self, gear: Gear, part: Part) -> None:
        add_components(self.elements, gear.id, part)
        ripple = gear.supply_fault_v.value if gear.supply_fault_v is not None else 0.0
        first = len(self.drives)
        for output in part.outputs:
            if self._in_use(gear, (channel.hot for channel in output.channels)):
                self.outputs.add(gear, part, output)
        if ripple:
            self._failing(gear, ripple, self.drives[first:])
        for receiver in part.inputs:
            if self._in_use(gear, (receiver.hot,)):
                self.inputs.add(gear, part, receiver)

    def _failing(self, gear: Gear, ripple_v: float, drives: list[Drive]) -> None:
        """A supply's ripple stands in series with every output's own signal, at f and 2 f alike."""
        emfs = tuple((branch, gain * ripple_v + 0j) for drive in drives for branch, gain in drive.branch_gains)
        mains_hz = float(self.rig.venue.mains_hz)
        if emfs:
            lines = tuple(CauseLine(order * mains_hz, emfs) for order in (1, 2))
            self.causes.append(Cause("supply_fault", gear.id, 1.0, 1.0, lines))

    def _in_use(self, gear: Gear, points: Iterable[Contact | InnerNode]) -> bool:
        """Whether anything is plugged in where these points come out. What nothing is plugged into changes nothing
        else, so a desk's empty channels are not solved."""
        return any(self.traced.node_of[point.of(gear.id)] in self._plugged for point in points)


def _shared_gear(rig: Rig) -> list[str]:
    """Devices that several runs touch, or a bond does: where runs meet. What one run alone touches is part of it."""
    runs: dict[str, set[str]] = {}
    for run in rig.runs:
        for owner in run.owners:
            runs.setdefault(owner, set()).add(run.id)
    bonded = {end.owner for bond in rig.bonds for end in (bond.a, bond.b)}
    return [device.id for device in rig.gear if len(runs.get(device.id, ())) != 1 or device.id in bonded]
