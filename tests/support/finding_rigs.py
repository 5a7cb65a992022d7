"""Rigs with one trouble each, and their neighbours without it."""

from typing import Any

from ruvak.core.analyse import Analysis, analyse
from ruvak.core.parts.reading import rig_from_document
from ruvak.core.prepare import prepare
from ruvak.core.rig.edits import Edit, apply, set_setting
from ruvak.core.rig.rig import Rig
from ruvak.core.rig.values import Value
from tests.support.earths import class_1, earthed, outlets, quiet, ts_cable, ts_input, ts_source
from tests.support.rigs import demo_rig, source_part
from tests.support.wirings import balanced_input, situation, unbalanced_input, unbalanced_source

RETURN = [("in.S", "out1.3"), ("in.S", "out1.1")]
LEFT = [("in.T", "out1.2"), *RETURN]
BOTH_TO_TWO = [("in.T", "out1.2"), ("in.R", "out2.2"), ("in.S", "out1.3"), ("in.S", "out2.3"), ("in.S", "out1.1")]
CROSSED = [("in.R", "out1.2"), ("in.T", "out2.2"), *BOTH_TO_TWO[2:]]
OPPOSED = [("in.T", "out1.2"), ("in.R", "out2.3"), ("in.S", "out1.3"), ("in.S", "out2.2"), ("in.S", "out1.1")]
MONO = source_part(channels=[{"id": "1", "hot": "out.T"}])


def resistor(a: str, b: str, ohm: float) -> dict[str, Any]:
    return {"type": "resistor", "a": a, "b": b, "ohm": ohm}


def coil(saturates_dbu: float) -> dict[str, Any]:
    """A one to one transformer between the adapter's two ends."""
    ends = {"primary_a": "in.T", "primary_b": "in.S", "secondary_a": "out1.2", "secondary_b": "out1.3"}
    return {
        "type": "transformer",
        "turns_ratio": 1,
        "primary_ohm": 1,
        "secondary_ohm": 1,
        "magnetising_h": 100,
        "leakage_h": 0,
        "winding_f": 0,
        "saturates_dbu": saturates_dbu,
        **ends,
    }


def codes(rig: Rig) -> list[str]:
    return codes_in(analyse(rig))


def codes_in(found: Analysis) -> list[str]:
    return [str(one.code) for one in found.findings] + [str(one.code) for one in found.runs[0].findings]


def flipped(gear: str, setting: str, value: bool | str | float) -> Rig:
    return apply(demo_rig(), Edit(label="x", ops=(set_setting(gear, setting, value),)))


def headset(device: str, socket: str) -> tuple[list[dict[str, Any] | str], list[tuple[str, str]]]:
    """A four-contact lapel microphone straight into a device."""
    return ["mic-lapel-trrs35", device], [("mic-lapel-trrs35.plug", f"{device}.{socket}")]


def _y_of_resistors(plug: str, screen: str, tips_on: tuple[tuple[str, str], ...]) -> dict[str, Any]:
    """Two plugs into one `plug`: sleeves on its contact `screen`, these tips each through a resistor on a contact."""
    return {
        "id": "y",
        "name": "Y",
        "kind": "box",
        "connectors": [
            *({"id": x, "label": x, "form": "ts635-plug", "side": "in"} for x in "ab"),
            {"id": "out", "label": "out", "form": plug, "side": "out"},
        ],
        "wires": [{"a": f"{x}.S", "b": f"out.{screen}"} for x in "ab"],
        "elements": [resistor(f"{x}.T", f"out.{contact}", 1000.0) for x, contact in tips_on],
    }


def two_sources(both: bool) -> Rig:
    """Two sources into a box; the second one's core may go nowhere."""
    box = _y_of_resistors("ts635-plug", "S", (("a", "T"), ("b", "T")) if both else (("a", "T"),))
    sources = [unbalanced_source(100, name) for name in ("one", "two")]
    receiver = unbalanced_input("ts635-socket", {"in": "T"}, "S", 10_000)
    joins = [("one.out", "y.a"), ("two.out", "y.b"), ("y.out", "receiver.in")]
    return situation([*sources, box, receiver], joins)


def two_into_balanced(second_on: str) -> Rig:
    """Two unbalanced sources into one balanced input, the first on its hot contact, the second on this one."""
    box = _y_of_resistors("xlr3-male", "1", (("a", "2"), ("b", second_on)))
    sources = [unbalanced_source(100, name) for name in ("one", "two")]
    joins = [("one.out", "y.a"), ("two.out", "y.b"), ("y.out", "input-xlr.in")]
    return situation([*sources, box, balanced_input(10_000)], joins)


def two_earths(volts: float) -> Rig:
    """An unbalanced lead between two outlets that differ by so much."""
    parts = [ts_source("keys", 1000, class_1(1e-3)), ts_input("desk", 1e6, class_1(1e-3)), ts_cable()]
    joins = [[("keys.out1", "lead.in"), ("lead.out", "desk.in1")]]
    at = {"keys": "here", "desk": "there"}
    leads = {"lead": {"part": "lead", "length_m": 10.0}}
    return earthed(parts, joins, leads, at, outlets(here=0.0, there=volts))


def unearthed(is_open: bool) -> Rig:
    """Two earthed devices, the protective earth of one open."""
    rig = two_earths(0.001)
    first = rig.gear[0].model_copy(update={"earth_open": is_open})
    return rig.with_fields(gear=(first, *rig.gear[1:]))


def leaking(many: int, ampere: float) -> Rig:
    """So many two-pin keyboards behind a 30 mA device."""
    rig = two_earths(0.001)
    here = rig.venue.earth[0].model_copy(update={"residual_a": Value(value=0.03)})
    extra = prepare(rig_from_document({
        "format": "ruvak-rig", "version": 2, "id": "x", "name": "x", "venue": {"name": "Hall"},
        "gear": [
            {"id": f"k{n}", "name": f"Keys {n}", "part": "keyboard-stereo", "touch_a": ampere} for n in range(many)
        ],
    }))  # fmt: skip
    plugged = tuple(gear.model_copy(update={"outlet": here.id}) for gear in extra.gear)
    own = tuple(gear.model_copy(update={"touch_a": Value(value=0.0005)}) for gear in rig.gear)
    venue = rig.venue.model_copy(update={"earth": (here, *rig.venue.earth[1:])})
    return rig.with_fields(gear=(*own, *plugged), parts=(*rig.parts, *extra.parts), venue=venue)


def two_pin(touch_a: float) -> Rig:
    """A two-pin keyboard into a recorder on batteries: nothing earths its case."""
    keys = ts_source("keys", 1000, {"earthing": {"type": "class-2", "touch_a": touch_a}})
    parts = [keys, ts_input("desk", 1e6, {"earthing": {"type": "floating"}}), ts_cable()]
    joins = [[("keys.out1", "lead.in"), ("lead.out", "desk.in1")]]
    return earthed(parts, joins, {"lead": {"part": "lead", "length_m": 1.0}}, disturbances=quiet(touch_a=touch_a))


def powered(microphone: str = "mic-condenser", switch: bool = True, lead: dict[str, Any] | None = None) -> Rig:
    """A microphone, or something else with three pins, at a desk whose phantom can be switched."""
    leg = lead or {"id": "m", "tag": "M", "part": "mic-lead", "length_m": 10}
    document = {
        "format": "ruvak-rig", "version": 2, "id": "x", "name": "x", "venue": {"name": "Hall"},
        "gear": [
            {"id": "source", "name": "Source", "part": microphone},
            {"id": "desk", "name": "Desk", "part": "desk-digital-16", "settings": {"phantom1": switch}},
        ],
        "kit": [leg],
        "runs": [{
            "id": "r", "number": 1, "name": "R", "pieces": [leg["id"]],
            "joins": [{"a": f"source.{'xlr' if microphone == 'wireless-receiver' else 'out'}", "b": "m.in"},
                      {"a": "m.out", "b": "desk.mic1"}],
        }],
    }  # fmt: skip
    return prepare(rig_from_document(document))


def starved(ampere: float) -> Rig:
    """A microphone that draws so much, through 6.81 kohm a leg."""
    rig = powered()
    parts = []
    for part in rig.parts:
        if part.id == "mic-condenser":
            output = part.outputs[0]
            assert output.type == "balanced" and output.phantom is not None
            need = output.phantom.model_copy(update={"ampere": Value(value=ampere, source="stated")})
            part = part.model_copy(update={"outputs": (output.model_copy(update={"phantom": need}),)})
        parts.append(part)
    return rig.with_fields(parts=tuple(parts))


def sharing(screen_ohm_per_m: float) -> Rig:
    """Two outputs of one player by one lead with one screen into an unbalanced pair."""
    lead = {
        "id": "both", "name": "both", "kind": "lead",
        "connectors": [
            {"id": f"{side}{n}", "label": f"{side}{n}", "form": "ts635-plug", "side": side}
            for side in ("in", "out") for n in (1, 2)
        ],
        "wires": [{"a": f"{side}1.S", "b": f"{side}2.S"} for side in ("in", "out")],
        "cables": [{
            **ts_cable(screen_ohm_per_m=screen_ohm_per_m)["cables"][0],
            "conductors": [
                *({"a": f"in{n}.T", "b": f"out{n}.T", "kind": "core"} for n in (1, 2)),
                {"a": "in1.S", "b": "out1.S", "kind": "screen"},
            ],
        }],
    }  # fmt: skip
    floating = {"earthing": {"type": "floating"}}
    return earthed(
        [ts_source("player", 10, floating, 2), ts_input("desk", 1000, class_1(0.1), 2), lead],
        [[(f"player.out{n}", f"both.in{n}"), (f"both.out{n}", f"desk.in{n}")] for n in (1, 2)],
        {"both": {"part": "both", "length_m": 20.0}},
        gear={"player": {"name": "Player"}},
    )


def amplified(passive: bool) -> Rig:
    """A power amplifier into a loudspeaker, or into a powered one's line input."""
    goal = "loudspeaker-passive" if passive else "amplified-input"
    receiver = {**ts_input("amplified-input", 20_000, class_1(0.1)), "name": "Desk"}
    receiver["connectors"][0]["form"] = "loudspeaker-socket"
    receiver["inputs"][0] |= {"hot": "in1.plus", "common": "in1.minus", "signal": "professional-line"}
    receiver["wires"] = [{"a": "in1.minus", "b": "g"}]
    document = {
        "format": "ruvak-rig", "version": 2, "id": "x", "name": "x", "venue": {"name": "Hall"},
        "parts": [] if passive else [receiver],
        "gear": [
            {"id": "amp", "name": "Amplifier", "part": "amplifier-two-channel"},
            {"id": "goal", "name": "Goal", "part": goal},
        ],
        "kit": [{"id": "m", "tag": "M", "part": "loudspeaker-lead", "length_m": 10}],
        "runs": [{
            "id": "r", "number": 1, "name": "R", "pieces": ["m"],
            "joins": [{"a": "amp.out1", "b": "m.in"}, {"a": "m.out", "b": f"goal.{'in' if passive else 'in1'}"}],
        }],
    }  # fmt: skip
    return prepare(rig_from_document(document))


LINE = ("amplifier-100-v", "loudspeaker-100-v", "loudspeaker-line-0-75", 20.0)
LOW = ("amplifier-two-channel", "loudspeaker-passive")


def pocket(isolated: bool) -> Rig:
    """A pocket player into an earthed desk, straight or through transformers."""
    box = ["isolator-stereo-trs35-xlr"] if isolated else []
    document = {
        "format": "ruvak-rig", "version": 2, "id": "x", "name": "x", "venue": {"name": "Hall"},
        "gear": [
            {"id": "player", "name": "Player", "part": "player-driven-sleeve"},
            {"id": "desk", "name": "Desk", "part": "desk-digital-16"},
        ],
        "kit": [
            {"id": "p", "tag": "P", "part": "lead-trs35-trs35", "length_m": 1.5},
            {"id": "y", "tag": "Y", "part": "lead-trs35-two-ts", "length_m": 3},
            *({"id": "b", "tag": "B", "part": part} for part in box),
        ],
        "runs": [{
            "id": "r", "number": 1, "name": "R", "pieces": ["p", "b"] if isolated else ["y"],
            "joins": [
                {"a": "player.phones", "b": "p.in"}, {"a": "p.out", "b": "b.in"},
                {"a": "b.left", "b": "desk.mic1"}, {"a": "b.right", "b": "desk.mic2"},
            ] if isolated else [
                {"a": "player.phones", "b": "y.in"},
                {"a": "y.left", "b": "desk.line1"}, {"a": "y.right", "b": "desk.line2"},
            ],
        }],
    }  # fmt: skip
    return prepare(rig_from_document(document))
