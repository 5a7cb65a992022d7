"""Whose sound a run carries where it only leads on, and what is left out of quick results."""

import unittest

from ruvak.core.analyse import analyse
from ruvak.core.circuit.build import build
from ruvak.core.results.response import COARSE_HZ
from ruvak.core.results.runs import rig_results
from ruvak.core.results.solved_rig import Options
from ruvak.core.rig.element import Resistor
from ruvak.core.rig.points import Contact
from ruvak.core.rig.rig import Rig
from ruvak.core.rig.values import Value
from ruvak.core.trace.trace import trace
from tests.support.earths import class_1, earthed, outlets, quiet, ts_cable, ts_input, ts_source
from tests.support.typed import typed_rig


def with_resistors_before_the_link() -> Rig:
    """A desk into a speaker, the speaker's link into another, and a microphone into the desk; 10 ohm stand between the
    first speaker's input and its link."""
    rig = typed_rig("desk main left > speaker 1\nspeaker 1 > speaker 2\nvocal > desk 1")
    part = rig.part_of("speaker-1")
    pins = ("2", "3")
    links = {(Contact(connector="link", contact=pin), Contact(connector="in1", contact=pin)) for pin in pins}
    resistors = tuple(Resistor(a=a, b=b, ohm=Value(value=10.0, source="stated")) for a, b in sorted(links, key=str))
    wires = tuple(wire for wire in part.wires if (wire.a, wire.b) not in links)
    changed = part.model_copy(update={"wires": wires, "elements": resistors})
    return rig.with_fields(parts=tuple(changed if each.id == part.id else each for each in rig.parts))


class Sources(unittest.TestCase):
    def test_behind_resistors_a_link_carries_what_the_run_before_it_brings(self) -> None:
        runs = {run.run: run.result for run in analyse(with_resistors_before_the_link()).runs}
        for name, expected in (("speaker-1", ("desk", "main")), ("vocal", ("vocal", "out"))):
            self.assertEqual([(source.gear, source.output) for source in runs[name].sources], [expected])


class QuickResults(unittest.TestCase):
    def test_phantom_is_computed_wherever_hum_is(self) -> None:
        rig = typed_rig("condenser > desk 1, 10 m")
        traced = trace(rig)
        circuit = build(rig, traced)
        for hum, count in (("none", 0), ("brief", 1), ("full", 1)):
            options = Options(COARSE_HZ, hum=hum)  # type: ignore[arg-type]
            (run,) = rig_results(rig, traced, circuit, options).runs
            self.assertEqual(len(run.phantom), count, hum)

    def test_causes_40_db_under_the_largest_are_not_listed(self) -> None:
        parts = [ts_source("source", 100, class_1(0.1)), ts_input("desk", 1e4, class_1(0.1)), ts_cable()]
        joins = [[("source.out1", "lead.in"), ("lead.out", "desk.in1")]]
        leads = {"lead": {"part": "lead", "length_m": 20.0}}
        at = {"source": "here", "desk": "there"}
        for field_t, expected in ((1e-6, {"earth_measured", "field"}), (1e-11, {"earth_measured"})):
            rig = earthed(parts, joins, leads, at, outlets(here=0.0, there=0.06), quiet(field_t=field_t))
            hum = analyse(rig).runs[0].result.inputs[0].hum
            assert hum is not None
            self.assertEqual({cause.code for cause in hum.causes}, expected)


if __name__ == "__main__":
    unittest.main()
