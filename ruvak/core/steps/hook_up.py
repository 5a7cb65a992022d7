"""Connecting a rig in a safe order, and taking it down again: each step with its reason and what has to be done before.

Common practice throughout, no source: everything is connected with the power off; sources, then the mixer, then the
speakers; off in reverse.
"""

from collections.abc import Iterable, Iterator, Sequence
from typing import Literal

from networkx import DiGraph, condensation, topological_sort

from ruvak.core.entry.phantom import wants_phantom
from ruvak.core.rig.part import is_computer, is_mixer, sounds
from ruvak.core.rig.ports import NOT_SOUND
from ruvak.core.rig.rig import Gear, Rig, Run, earthing_of, name_of
from ruvak.core.rig.values import Id, Record
from ruvak.core.trace.run_ends import ends_of, sockets_of

Phase = Literal["place", "quiet", "connect", "power", "phantom", "choose", "level", "call", "mute", "off", "unplug"]
LOUDSPEAKER_SIGNALS = frozenset({"loudspeaker"})


class HookUpStep(Record):
    """Something to do."""

    id: str
    """Its id, which stays while the rig's devices and runs do."""
    phase: Phase
    """Which part of the work it belongs to."""
    words: str
    """What to do."""
    why: str
    """Why, and why now."""
    things: tuple[Id, ...]
    """Devices and pieces that it is about."""
    run: Id | None = None
    """The run."""
    after: tuple[str, ...]
    """Steps that have to be done before."""


class HookUp(Record):
    """Up and down again."""

    up: tuple[HookUpStep, ...]
    """Connecting and switching on, in an order that keeps every `after`."""
    down: tuple[HookUpStep, ...]
    """Switching off and unplugging."""


def hook_up(rig: Rig) -> HookUp:
    """The steps of a rig. The rig is prepared."""
    plan = _Plan(rig)
    return HookUp(up=tuple(plan.up()), down=tuple(plan.down()))


class _Plan:
    """A rig's devices by what has to be done with them."""

    def __init__(self, rig: Rig) -> None:
        self.rig = rig
        used = {owner for run in rig.runs for owner in run.owners}
        self.gear = [gear for gear in rig.gear if gear.id in used and not self._is_lighting(gear)]
        self.powered = [gear for gear in self.gear if self._has_supply(gear)]
        self.last = [gear for gear in self.powered if self._ends_here(gear)]
        self.mixers = self._by_signal([gear for gear in self.powered if self._mixes(gear) and gear not in self.last])
        self.rest = self._by_signal([gear for gear in self.powered if gear not in (*self.last, *self.mixers)])
        self.fed = [run for run in rig.runs if wants_phantom(rig, ends_of(rig, run, "out"))]

    def up(self) -> Iterator[HookUpStep]:
        """Connecting and switching on."""
        yield from self._place()
        quiet = list(self._quiet())
        yield from quiet
        connect = [self._connect(run, tuple(step.id for step in quiet)) for run in self.rig.runs]
        yield from connect
        before = tuple(step.id for step in connect) or tuple(step.id for step in quiet)
        is_mixer_first = self.rig.venue.house.power_order == "mixer-first"
        groups = (self.mixers, self.rest) if is_mixer_first else (self.rest, self.mixers)
        why = "Its muted channels take whatever sources do when they come on." if is_mixer_first else _ORDER_WHY
        for group in groups:
            steps = [self._switch(gear, before, why) for gear in group]
            yield from steps
            before = tuple(step.id for step in steps) or before
        phantom = [self._phantom(run, before) for run in self.fed]
        yield from phantom
        choose = [self._choose(gear, before) for gear in self.gear if is_computer(self.rig.part_of(gear.id))]
        yield from choose
        before = tuple(step.id for step in (*phantom, *choose)) or before
        last = [self._switch(gear, before, _SPEAKER_WHY) for gear in self.last]
        yield from last
        before = tuple(step.id for step in last) or before
        yield from self._levels(before)

    def down(self) -> Iterator[HookUpStep]:
        """Off in reverse, then unplugged."""
        words = "Mute every channel and take the levels down."
        mute = _step("mute", "all", words, "What is switched off may thump.", (), ())
        yield mute
        before: tuple[str, ...] = (mute.id,)
        for group, why in (
            (self.last, "First off of all, so that nothing that follows is heard."),
            (list(reversed([*self.rest, *self.mixers])), "In the reverse order."),
        ):
            steps = [_step("off", gear.id, f"Switch {gear.name} off.", why, (gear.id,), before) for gear in group]
            yield from steps
            before = tuple(step.id for step in steps) or before
        for run in reversed(self.rig.runs):
            things = tuple(run.pieces)
            yield _step("unplug", run.id, f"Unplug {run.name}.", "With everything off.", things, before, run.id)

    def _place(self) -> Iterator[HookUpStep]:
        if self.rig.venue.weather == "open-air":
            yield _step("place", "rain", _RAIN_WORDS, _RAIN_WHY, tuple(gear.id for gear in self.powered), ())
        speakers = [gear for gear in self.gear if self._sounds(gear)]
        if speakers:
            names = ", ".join(gear.name for gear in speakers)
            words = f"Stands for {names}: the pin in, legs spread, no more load than the stand bears; two people lift."
            why = "Nobody lifts over 20 kg or above the shoulder alone; what hangs over people is for licensed riggers."
            yield _step("place", "speakers", words, why, tuple(gear.id for gear in speakers), ())

    def _quiet(self) -> Iterator[HookUpStep]:
        for gear in self.mixers:
            words = f"{gear.name}: every channel and output muted, levels down, phantom off."
            yield _step("quiet", gear.id, words, "A lead that goes in makes a bang in an open channel.", (gear.id,), ())
        if self.powered:
            names = ", ".join(gear.name for gear in self.powered)
            words = f"Everything off: {names}. Speakers' volume down."
            why = "Nothing is plugged into gear that is on."
            yield _step("quiet", "power", words, why, tuple(gear.id for gear in self.powered), ())

    def _connect(self, run: Run, before: tuple[str, ...]) -> HookUpStep:
        out, into = (self._words_of_ends(run, side) for side in ("out", "in"))
        way = " → ".join(filter(None, (out, *(name_of(self.rig, piece) for piece in run.pieces), into)))
        words = f"{run.number}  {run.name}: {way}"
        why = "With the power off, so that a loose plug hurts nobody's ears."
        return _step("connect", run.id, words, why, run.pieces, before, run.id)

    def _switch(self, gear: Gear, before: tuple[str, ...], why: str) -> HookUpStep:
        return _step("power", gear.id, f"Switch {gear.name} on.", why, (gear.id,), before)

    def _phantom(self, run: Run, before: tuple[str, ...]) -> HookUpStep:
        words = f"{run.name}: its channel muted, phantom on at {self._words_of_ends(run, 'in')}, wait ten seconds."
        why = "The voltage comes up slowly, and a bang with it; the speakers are still off."
        return _step("phantom", run.id, words, why, (), before, run.id)

    def _choose(self, gear: Gear, before: tuple[str, ...]) -> HookUpStep:
        words = f"{gear.name}: choose its sound output and input in the computer's sound settings and in the program."
        why = "A screen or a headset that was plugged in takes the sound over."
        return _step("choose", gear.id, words, why, (gear.id,), before)

    def _levels(self, before: tuple[str, ...]) -> Iterator[HookUpStep]:
        if not self.gear:
            return
        words = "Unmute a source at a time and raise the levels slowly from nothing, somebody listening in the room."
        level = _step("level", "all", words, "What is wrong is heard while it is quiet.", (), before)
        yield level
        for gear in self.gear:
            if is_computer(self.rig.part_of(gear.id)) and self._goes_both_ways(gear):
                words = f"{gear.name}: join the call, if there is one, last of all."
                why = "Everybody far away hears what happens until then."
                yield _step("call", gear.id, words, why, (gear.id,), (level.id,))

    def _words_of_ends(self, run: Run, side: Literal["out", "in"]) -> str:
        by_device = sockets_of(self.rig, run, side)
        return "; ".join(f"{device} ({', '.join(labels)})" for device, labels in by_device.items())

    def _has_supply(self, gear: Gear) -> bool:
        """Whether it is switched on by itself: what floats lives on phantom, a host, or has nothing to switch."""
        part = self.rig.part_of(gear.id)
        earthing = earthing_of(gear, part)
        return earthing is not None and (earthing.type != "floating" or part.earthing_setting is not None)

    def _ends_here(self, gear: Gear) -> bool:
        """Speakers, amplifiers and whatever else passes nothing on: they come last, and go off first."""
        return all(output.signal in LOUDSPEAKER_SIGNALS for output in self.rig.part_of(gear.id).outputs)

    def _sounds(self, gear: Gear) -> bool:
        part = self.rig.part_of(gear.id)
        return any(sounds(part, receiver) for receiver in part.inputs)

    def _is_lighting(self, gear: Gear) -> bool:
        part = self.rig.part_of(gear.id)
        signals = {port.signal for port in (*part.inputs, *part.outputs)}
        return bool(signals) and signals <= NOT_SOUND

    def _mixes(self, gear: Gear) -> bool:
        """A desk or a box that takes several runs and passes them on: each of its channels can bang."""
        part = self.rig.part_of(gear.id)
        into = sum(any(end.owner == gear.id for end in ends_of(self.rig, run, "in")) for run in self.rig.runs)
        return is_mixer(part) and (into > 1 or bool(part.mixes))

    def _goes_both_ways(self, gear: Gear) -> bool:
        gives = any(end.owner == gear.id for run in self.rig.runs for end in ends_of(self.rig, run, "out"))
        takes = any(end.owner == gear.id for run in self.rig.runs for end in ends_of(self.rig, run, "in"))
        return gives and takes

    def _by_signal(self, gear: Sequence[Gear]) -> list[Gear]:
        """Those that send before those that receive; what feeds each other in its given order."""
        here = {each.id: each for each in gear}
        graph = DiGraph()
        graph.add_nodes_from(here)
        for run in self.rig.runs:
            out = [end.owner for end in ends_of(self.rig, run, "out") if end.owner in here]
            into = [end.owner for end in ends_of(self.rig, run, "in") if end.owner in here]
            graph.add_edges_from((a, b) for a in out for b in into if a != b)
        loops = condensation(graph)
        place = {id_: number for number, id_ in enumerate(here)}
        result: list[Gear] = []
        for node in topological_sort(loops):
            members: Iterable[str] = loops.nodes[node]["members"]
            result += [here[id_] for id_ in sorted(members, key=place.__getitem__)]
        return result


_RAIN_WORDS = (
    "In the open air: covers at hand for everything with mains, mains joints and lead joins off the ground, every "
    "supply through a residual-current device that was tried with its button."
)
_RAIN_WHY = (
    "Water in a mains joint can kill. When rain gets in, switch off at the board before touching anything; when "
    "thunder is near, everybody leaves stage and towers. Supplies outdoors are for a licensed electrician."
)
_ORDER_WHY = "Sources first, then the mixer, then the speakers: whatever thumps is not heard."
_SPEAKER_WHY = "Last of all, so that nothing that came on before is heard."


def _step(
    phase: Phase,
    name: str,
    words: str,
    why: str,
    things: tuple[str, ...],
    after: tuple[str, ...],
    run: str | None = None,
) -> HookUpStep:
    return HookUpStep(id=f"{phase}:{name}", phase=phase, words=words, why=why, things=things, run=run, after=after)
