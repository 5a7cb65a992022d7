"""The rig file: lossless, and clear about what is wrong with one."""

import json
import unittest
from pathlib import Path
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from ruvak.core.errors import RigFault
from ruvak.core.parts.reading import file_schema, rig_from_document, rig_from_json
from ruvak.core.rig.connectors import Form
from ruvak.core.rig.element import Buffer, Capacitor, Inductor, Resistor, Transformer
from ruvak.core.rig.files import rig_to_json
from ruvak.core.rig.part import Cable, Conductor, Connector, Part, Switch, Wire
from ruvak.core.rig.points import Endpoint, parse_point
from ruvak.core.rig.rig import Gear, Join, KitItem, Rig, Run, Venue
from ruvak.core.rig.values import Spread, Value
from tests.support.rigs import demo_rig, document

ids = st.from_regex(r"[a-z0-9][a-z0-9-]{0,11}", fullmatch=True)
labels = st.text(st.characters(min_codepoint=32, exclude_categories=("Cs", "Cc")), min_size=1, max_size=40)
numbers = st.floats(-1e15, 1e15, allow_nan=False, allow_infinity=False)
positive = st.floats(1e-15, 1e15, allow_nan=False)
values = st.builds(Value, value=positive, low=st.none() | positive, high=st.none() | positive, source=labels)
levels = st.builds(Value, value=st.floats(-400, 400), source=labels)
points = st.from_regex(r"[a-z][a-z0-9]{0,5}(\.[A-Za-z0-9]{1,5})?", fullmatch=True).map(parse_point)
conductors = st.builds(Conductor, a=st.none() | points, b=st.none() | points, kind=st.sampled_from(["core", "screen"]))
cables = st.builds(
    Cable, conductors=st.lists(conductors, min_size=1, max_size=3).map(tuple),
    screen_coverage=st.builds(Value, value=st.floats(0.0, 1.0)),
    **{name: values for name in Cable.model_fields if name not in ("conductors", "screen_coverage", "optical")},
)  # fmt: skip
elements = st.one_of(
    st.builds(Resistor, a=points, b=points, ohm=values),
    st.builds(Capacitor, a=points, b=points, farad=values),
    st.builds(Inductor, a=points, b=points, henry=values, ohm=values),
    st.builds(Buffer, a=points, b=points, c=points, d=points, input_ohm=values, output_ohm=values, gain_db=levels),
    st.builds(
        Transformer,
        **{
            n: points if n.endswith(("_a", "_b")) else levels if n.endswith("_dbu") else values
            for n in Transformer.model_fields if n != "type"
        },
    ),
)  # fmt: skip
connectors = st.builds(
    Connector, id=ids, label=labels, form=st.sampled_from(Form), side=st.sampled_from(["in", "out", "both"]),
    contact_ohm=st.none() | values, ring=st.sampled_from(["open", "sleeve"]),
)  # fmt: skip
parts = st.builds(
    Part, id=ids, revision=st.integers(1, 9), name=labels, words=labels, kind=st.sampled_from(["lead", "box"]),
    connectors=st.lists(connectors, min_size=1, max_size=3).map(tuple),
    wires=st.lists(st.builds(Wire, a=points, b=points), max_size=3).map(tuple),
    switches=st.lists(
        st.builds(Switch, connector=ids, a=points, b=points, closed=st.sampled_from(["empty", "plugged"])), max_size=2
    ).map(tuple),
    called=st.lists(labels, max_size=2).map(tuple),
    cables=st.lists(cables, max_size=2).map(tuple), elements=st.lists(elements, max_size=3).map(tuple),
    outputs=st.just(()), inputs=st.just(()), mixes=st.just(()), settings=st.just(()), earthing=st.none(),
    stock_lengths_m=st.lists(positive, max_size=2).map(tuple),
)  # fmt: skip
ends = st.builds(Endpoint, ids, ids)
rigs = st.builds(
    Rig, id=ids, name=labels, occasion=labels,
    venue=st.builds(Venue, name=labels, mains_hz=st.sampled_from([50, 60])),
    length_unit=st.sampled_from(["m", "ft"]),
    assumptions=st.none(),
    gear=st.lists(
        st.builds(Gear, id=ids, name=labels, part=ids,
                  settings=st.dictionaries(ids, st.booleans() | numbers | labels, max_size=3)), max_size=3).map(tuple),
    kit=st.lists(
        st.builds(KitItem, id=ids, tag=labels, part=ids, length_m=st.none() | st.floats(0.01, 1000),
                  owned=st.booleans(), installed=st.booleans()),
        max_size=3).map(tuple),
    runs=st.lists(
        st.builds(Run, id=ids, number=st.integers(1, 99), name=labels, pieces=st.lists(ids, max_size=3).map(tuple),
                  note=labels,
                  joins=st.lists(st.builds(Join, a=ends, b=ends, sleeve=st.sampled_from([None, "R2", "S", "both"])),
                                 max_size=3).map(tuple)), max_size=3).map(tuple),
    parts=st.lists(parts, max_size=2).map(tuple),
)  # fmt: skip


class RoundTrip(unittest.TestCase):
    @given(rigs)
    @settings(max_examples=150)
    def test_writing_and_reading_loses_nothing(self, rig: Rig) -> None:
        self.assertEqual(rig_from_json(rig_to_json(rig)), rig)

    def test_the_demo_comes_back_whole(self) -> None:
        self.assertEqual(rig_from_json(rig_to_json(demo_rig())), demo_rig())

    def test_a_bare_number_is_a_stated_value(self) -> None:
        self.assertEqual(Value.model_validate({"value": 3.0}).source, "stated")
        self.assertIsInstance(Spread(likely=1, worst=2), Spread)

    def test_the_published_schema_is_current(self) -> None:
        published = json.loads(Path("docs/formats/rig.schema.json").read_text(encoding="utf-8"))
        self.assertEqual(published, file_schema())


class BadFiles(unittest.TestCase):
    def fault(self, given: Any) -> tuple[str, str]:
        with self.assertRaises(RigFault) as caught:
            rig_from_document(given) if isinstance(given, dict) else rig_from_json(given)
        first = caught.exception.faults[0]
        self.assertTrue(first.sentence.endswith("."), first)
        return first.code, first.where

    def test_broken_json(self) -> None:
        self.assertEqual(self.fault('{"format": "ruvak-rig",'), ("broken_json", "file"))

    def test_json_nested_beyond_reason(self) -> None:
        self.assertEqual(self.fault("[" * 100_000), ("broken_json", "file"))

    def test_bytes_that_are_no_text(self) -> None:
        self.assertEqual(self.fault(b"\xff\xfe\x00"), ("broken_json", "file"))

    def test_something_else_altogether(self) -> None:
        for text in ("[]", "3", '"rig"', "null", "{}"):
            self.assertEqual(self.fault(text), ("not_a_rig", "format"))

    def test_a_version_from_the_future(self) -> None:
        self.assertEqual(self.fault(document(version=3)), ("unknown_version", "version"))
        self.assertEqual(self.fault(document(version="1")), ("unknown_version", "version"))

    def test_a_misspelt_field_is_named(self) -> None:
        self.assertEqual(self.fault(document(vennue={})), ("field_extra_forbidden", "vennue"))

    def test_numbers_must_be_numbers(self) -> None:
        for value in ("15", True, [15]):
            kit = [{"id": "a", "tag": "A", "part": "mic-lead", "length_m": value}]
            self.assertEqual(self.fault(document(kit=kit)), ("field_float_type", "kit[0].length_m"))

    def test_absurd_lengths(self) -> None:
        for value, code in ((-1, "greater_than_equal"), (0, "greater_than_equal"), (5000, "less_than_equal")):
            kit = [{"id": "a", "tag": "A", "part": "mic-lead", "length_m": value}]
            self.assertEqual(self.fault(document(kit=kit)), (f"field_{code}", "kit[0].length_m"))

    def test_infinite_numbers(self) -> None:
        text = rig_to_json(demo_rig()).replace('"length_m": 15.0', '"length_m": 1e999')
        self.assertEqual(self.fault(text)[0], "field_finite_number")
