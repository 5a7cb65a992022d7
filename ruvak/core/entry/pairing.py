"""From the two ends of a line to its runs: which socket of the one goes to which of the other."""

from dataclasses import replace

from ruvak.core.entry.context import LineContext
from ruvak.core.entry.device_ends import DeviceEnds
from ruvak.core.entry.grammar import Piece
from ruvak.core.entry.line_ends import (
    End,
    Side,
    all_by_one_socket,
    end_of,
    has_one_place,
    has_one_socket,
    is_stereo,
    links_of,
    main_output,
    main_sockets,
    meet_by_kind,
    needs_both,
    one_each,
    speaks,
    split_up,
    takes_stereo,
    two_outputs,
)
from ruvak.core.entry.other_kinds import (
    at_its_microphone_input,
    meeting_the_input,
    of_kind,
    taking_the_signal,
    with_usb_sockets,
)
from ruvak.core.entry.pairs import is_insert, is_one_place, sends_and_returns, with_both_inputs, without_sides
from ruvak.core.entry.passing import Passing
from ruvak.core.entry.sockets import Role, tokens, usable
from ruvak.core.entry.unfit_ends import from_as_many, refuse_half_each, refuse_without_sound_input
from ruvak.core.entry.wanted import Wanted, problem
from ruvak.core.entry.words import plain
from ruvak.core.parts.library import words_for
from ruvak.core.rig.part import Part
from ruvak.core.rig.points import Endpoint
from ruvak.core.rig.ports import Output, family_of
from ruvak.core.rig.rig import Gear, KitItem, connectors_in_use

PAIRS = frozenset(("pa", "p.a.", "stack", "rig", "mains"))
"""Words for a left and a right loudspeaker together."""
MOST_SPLIT = 3
"""Into so many ways one run is split: there are splitters for three."""
FEW = 4
"""So many sockets are named one by one."""


class Pairing:
    """As many runs as there are pairs of devices or places. Raises Refused."""

    def __init__(self, context: LineContext, ends: DeviceEnds, passing: Passing) -> None:
        self.context, self.ends, self.passing = context, ends, passing

    def runs(
        self,
        sources: list[Side],
        passed: list[tuple[KitItem, Piece]],
        goal: Side | None,
        mono: bool,
        joined: bool = False,
    ) -> list[Wanted]:
        """The runs between the ends. `passed`: what is built in and stands between them; `joined`: whether the line
        names pieces, by which two sources may meet at one input."""
        first = sources[0]
        if goal is not None and {g.id for g, _, _ in first.devices} & {g.id for g, _, _ in goal.devices}:
            raise problem("no_destination", goal.piece, "Source and destination are the same; write where it goes.")
        if goal is not None:
            goal = of_kind(self.context.directory, first, goal)
            first = first if joined else meeting_the_input(self.context.directory, first, goal)
        if len(sources) > 1:
            ends = tuple(end_of(*side.devices[0], 1, "source", bool(side.new)) for side in sources)
            if goal is None:
                raise problem("no_destination", first.piece, "Two sources need one destination to meet at.")
            return [self._one(ends, passed, goal, 0, 1)]
        if joined and goal is not None and (both := self._two_that_meet(first, goal)) is not None:
            return [self._one(both, passed, goal, 0, 1)]
        starts = one_each(first, "source", mono)
        if goal is None:
            return [self._one((end,), passed, None, i, len(starts)) for i, end in enumerate(starts)]
        return self._pair(first, goal, passed, mono)

    def _pair(self, first: Side, goal: Side, passed: list[tuple[KitItem, Piece]], mono: bool) -> list[Wanted]:
        """As many runs as there are pairs of devices; one where both ends are one device."""
        goal = with_both_inputs(first, taking_the_signal(self.context.directory, first, goal))
        first, goal = self._one_for_each_place(first, goal), self._one_for_each_side(first, goal, mono)
        goal = of_kind(self.context.directory, first, goal)
        if (together := all_by_one_socket(first, goal, mono)) is not None:
            starts, end = together
            return [Wanted(starts, self.passing.through(passed, 0, 1, 1), end, (), (), None, ())]
        many_from, many_to = len(first.devices), len(goal.devices)
        refuse_half_each(self.context, first, goal, mono)
        if many_from == 1 and many_to == 1:
            return self._between_two(first, goal, passed, mono)
        places_from = many_from if many_from > 1 else max(1, len(first.devices[0][2].positions))
        if many_from == 1 and many_to > 1 and not first.devices[0][2].positions:
            first = self._an_output_each(first, many_to)
            places_from = max(1, len(first.devices[0][2].positions))
        if many_from == 1 and not first.devices[0][2].positions:
            # "desk main > speakers": the sides of the first output, one to each.
            places_from = min(many_to, len(main_sockets(first.devices[0][1])))
        places_to = many_to if many_to > 1 else len(goal.devices[0][2].positions)
        if many_to == 1 and places_to == 0 and many_from == 2 and has_one_socket(goal.devices[0][1]):
            ends = tuple(split_up(first, "source", many_from))
            return [self._one(ends, passed, goal, 0, 1)]
        if many_to == 1 and places_to == 0 and many_from > 1:
            sentence = f"Say which inputs of {goal.devices[0][0].name} these go to."
            raise problem("unknown_socket", goal.piece, sentence, *self._with_free_places(goal, many_from))
        if many_from == places_from == 1 and places_to == many_to >= 2 and self._lead_on(first, goal, mono):
            return self._one_after_another(first, goal, passed)
        if many_from == places_from == 1 and 2 <= places_to == many_to <= MOST_SPLIT and not goal.meaning.several:
            return [self._to_all(first, goal, passed)]
        if (halves := self._two_each(first, goal, mono)) is not None:
            return [
                Wanted((start,), self.passing.through(passed, i, 2, 2 * len(halves)), end, (), (), None, ())
                for i, (start, end) in enumerate(halves)
            ]
        if many_from == many_to == places_to > 1:
            # "2 mics > desk 1/2 and recorder" are three places for two.
            places_to += sum(
                max(0, len(places.positions) - 1)
                for (_, part, named), (_, _, places) in zip(first.devices, goal.devices, strict=True)
                if not is_stereo(part, named, mono)
            )
        if places_from != places_to:
            for side in (first, goal):
                if side.meaning.several:
                    names = ", ".join(gear.name for gear, _, _ in side.devices)
                    raise problem("ambiguous_name", side.piece, f"“{side.piece.text}” may be {names}: write which.")
            sentence = f"{places_from} on the left and {places_to} on the right: write as many places on both sides."
            raise problem("counts_differ", goal.piece, sentence, *from_as_many(self.context, first, places_to))
        return self._one_each(first, goal, passed, places_from, mono)

    @staticmethod
    def _two_each(first: Side, goal: Side, mono: bool) -> list[tuple[End, End]] | None:
        """Stereo devices at one end and twice as many places of one device at the other: two places for each, as in
        "2 laptops > desk 13-16"."""
        many, single = (goal, first) if len(goal.devices) > 1 else (first, goal)
        places = single.devices[0][2].positions
        if mono or len(single.devices) > 1 or len(places) != 2 * len(many.devices):
            return None
        if any(
            len(named.positions) not in (0, 2)
            or not (named.positions or (is_stereo(part, named, mono) if many is first else takes_stereo(part)))
            for _, part, named in many.devices
        ):
            return None

        def ends(side: Side, role: Role) -> list[End]:
            gear, part, named = side.devices[0]
            devices = (
                list(side.devices)
                if side is many
                else [(gear, part, replace(named, positions=places[at : at + 2])) for at in range(0, len(places), 2)]
            )
            return [end_of(*device, 2, role, device[0].id in side.new) for device in devices]

        return list(zip(ends(first, "source"), ends(goal, "goal"), strict=True))

    def _an_output_each(self, first: Side, count: int) -> Side:
        """A headphone amplifier's outputs, one for each of several headphones, or a video splitter's, one for each of
        several screens: sockets that differ in number alone, and nothing else that could be meant."""
        gear, part, named = first.devices[0]
        stem = main_output(part).connectors[0].rstrip("0123456789") if part.outputs else ""
        main_ways = [
            output for output in part.outputs if family_of(output.signal) == family_of(main_output(part).signal)
        ]
        alike = [output for output in part.outputs if [c.rstrip("0123456789") for c in output.connectors] == [stem]]
        every = stem.startswith("phones") or len(alike) == len(main_ways)
        alike = self._fed(gear, part, alike)
        if not every or len(alike) < count:
            return first
        positions = tuple((output.connectors[0],) for output in alike[:count])
        return replace(first, devices=((gear, part, replace(named, positions=positions)),))

    def _fed(self, gear: Gear, part: Part, outputs: list[Output]) -> list[Output]:
        """Of an amplifier's channels, which each have an input of their own, those whose input is plugged in."""
        inputs = [entry.connectors[0] for entry in part.inputs if family_of(entry.signal) == "sound"]
        used = self._in_use(gear)
        if len(inputs) != len(outputs) or not used & set(inputs):
            return outputs
        return [output for name, output in zip(inputs, outputs, strict=True) if name in used]

    def _in_use(self, gear: Gear) -> set[str]:
        """A device's sockets in which something is plugged."""
        return {end.connector for end in connectors_in_use(self.context.rig) if end.owner == gear.id}

    @staticmethod
    def _lead_on(first: Side, goal: Side, mono: bool) -> bool:
        """Whether one signal goes to devices of which each can lead it on to the next."""
        _, part, named = first.devices[0]
        if goal.meaning.several or is_stereo(part, named, mono):
            return False
        return all(links_of(other) for _, other, _ in goal.devices)

    def _one_after_another(self, first: Side, goal: Side, passed: list[tuple[KitItem, Piece]]) -> list[Wanted]:
        """One socket to several devices that lead on: to the first, and from each to the next."""
        ends = split_up(goal, "goal", len(goal.devices))
        starts = [end_of(*first.devices[0], 1, "source", first.devices[0][0].id in first.new)]
        for end in ends[:-1]:
            link = Endpoint(end.gear.id, links_of(end.part)[0])
            starts.append(replace(end, choices=((link,),)))
        return [
            Wanted((start,), self.passing.through(passed, 0, 1, 1) if at == 0 else (), end, (), (), None, ())
            for at, (start, end) in enumerate(zip(starts, ends, strict=True))
        ]

    def _to_all(self, first: Side, goal: Side, passed: list[tuple[KitItem, Piece]]) -> Wanted:
        """One socket to two or three devices, in one run."""
        gear, part, named = first.devices[0]
        start = end_of(gear, part, named, 1, "source", gear.id in first.new)
        nearest, *others = split_up(goal, "goal", len(goal.devices))
        through = self.passing.through(passed, 0, 1, 1)
        return Wanted((start,), through, nearest, (), (), None, (), goals_beside=tuple(others))

    def _one_for_each_place(self, first: Side, goal: Side) -> Side:
        """Microphones that are not there yet, into several places of one device: one for each. "Room mics" are two
        where two places are named, and so is "audience mic L/R"."""
        (gear, part, named), places = first.devices[0], goal.devices[0][2].positions
        single = len(first.devices) == len(goal.devices) == 1 and gear.id in first.new and not named.positions
        if not single or len(places) < 2 or not part.outputs or len(main_output(part).channels) > 1:
            return first
        words = first.piece.text.split()
        if words[-1].lower().endswith("s") and plain(words[-1]) not in {plain(word) for word in words_for(part)}:
            return self.ends.read_one(Piece(f"{first.piece.text} 1-{len(places)}", first.piece.start), "source")
        if len(places) == 2 and (stem := without_sides(first.piece.text)) is not None:
            return self._left_and_right(first, stem)
        return first

    def _two_that_meet(self, first: Side, goal: Side) -> tuple[End, ...] | None:
        """Two microphones, or a pair of them, on the way to one place: "two mics > Y lead > desk 4"."""
        if len(goal.devices) > 1 or len(goal.devices[0][2].positions) > 1 or not is_one_place(goal):
            return None
        devices = first.devices
        if len(devices) == 1 and (stem := without_sides(first.piece.text)) is not None and not devices[0][2].positions:
            devices = self._left_and_right(first, stem).devices
        signals = {main_output(part).signal for _, part, _ in devices if part.outputs}
        if len(devices) != 2 or signals != {"microphone"}:
            return None
        return tuple(
            end_of(*device, 1, "source", device[0].id in first.new or len(first.devices) == 1) for device in devices
        )

    def _left_and_right(self, first: Side, stem: str) -> Side:
        """Two microphones of one name."""
        sides = [self.ends.read_one(Piece(f"{stem} {side}", first.piece.start), "source") for side in ("left", "right")]
        devices = tuple(device for side in sides for device in side.devices)
        return Side(devices, first.piece, first.meaning, frozenset(gear.id for gear, _, _ in devices))

    def _one_for_each_side(self, first: Side, goal: Side, mono: bool) -> Side:
        """A stereo source into "speakers" that are not there yet: one for each side; "wedges" behind three auxes are
        three."""
        (_, part, named), (gear, target, places) = first.devices[0], goal.devices[0]
        one_each_way = len(first.devices) == len(goal.devices) == 1 and gear.id in goal.new and not places.positions
        if not one_each_way or not has_one_place(target):
            return goal
        last = goal.piece.text.split()[-1]
        is_plural = last.lower().endswith("s") and plain(last) not in map(plain, words_for(target))
        if is_plural and len(named.positions) > 2:
            return self._so_many(goal, len(named.positions))
        # One signal may go on from the first of several to the next.
        for_two = (is_stereo(part, named, mono) and not takes_stereo(target)) or (
            bool(links_of(target)) and not is_stereo(part, named, mono)
        )
        return self._so_many(goal, 2) if for_two and (is_plural or plain(last) in PAIRS) else goal

    def _so_many(self, goal: Side, count: int) -> Side:
        return self.ends.read_one(Piece(f"{goal.piece.text} 1-{count}", goal.piece.start), "goal")

    def _one_each(
        self, first: Side, goal: Side, passed: list[tuple[KitItem, Piece]], count: int, mono: bool
    ) -> list[Wanted]:
        """A run for each of so many places, first to first."""
        if len(first.devices) == len(goal.devices) > 1 and not passed:
            starts, ends = self._device_to_device(first, goal, mono)
        else:
            starts, ends = split_up(first, "source", count), split_up(goal, "goal", count)
        return [
            Wanted((start,), self.passing.through(passed, i, 1, count), end, (), (), None, ())
            for i, (start, end) in enumerate(zip(starts, ends, strict=True))
        ]

    @staticmethod
    def _device_to_device(first: Side, goal: Side, mono: bool) -> tuple[list[End], list[End]]:
        """An end for each of as many devices on both sides: of "keys, vocal > desk 7/8, recorder 1" the keys have both
        sides."""
        starts, ends = list[End](), list[End]()
        for near, far in zip(first.devices, goal.devices, strict=True):
            places = far[2].positions
            both = len(places) == 2 if places else takes_stereo(far[1])
            lines = 2 if both and is_stereo(near[1], near[2], mono) else 1
            starts.append(end_of(*near, lines, "source", near[0].id in first.new))
            ends.append(end_of(*far, lines, "goal", far[0].id in goal.new))
        return starts, ends

    def _between_two(self, first: Side, goal: Side, passed: list[tuple[KitItem, Piece]], mono: bool) -> list[Wanted]:
        first, goal = self._of_kinds_that_meet(first, goal)
        (gear, part, named), (other, target, places) = first.devices[0], goal.devices[0]
        named, places = meet_by_kind(part, named, target, places)
        if len(places.positions) == 2 and not places.implied and not named.positions and not mono:
            outputs = two_outputs(part) if gear.id in first.new else ()
            if outputs:
                # A receiver for two transmitters: one output into each place.
                named = replace(named, positions=outputs)
                return self._one_each(replace(first, devices=((gear, part, named),)), goal, passed, 2, mono)
        if places.implied and not is_stereo(part, named, mono):
            places = replace(places, positions=places.positions[:1])
        first = replace(first, devices=((gear, part, named),))
        goal = replace(goal, devices=((other, target, places),))
        count_from, count_to = len(named.positions), len(places.positions)
        new = gear.id in first.new
        if count_to == 0 and not has_one_place(target):
            refuse_without_sound_input(self.context, first, goal)
            labels = [usable_way.label for usable_way in usable(target, "goal")]
            how = " or ".join(labels) if len(labels) <= FEW else f"write its number, as in “{goal.piece.text} 3”"
            refused = problem("unknown_socket", goal.piece, f"Say which input of {goal.devices[0][0].name}: {how}.")
            offered = self._with_free_places(goal, 2 if is_stereo(part, named, mono) else 1)
            refused.problem = refused.problem.model_copy(update={"suggestions": offered})
            raise refused
        if count_from > 2 or count_to > 2:
            if count_from != count_to:
                sentence = f"{count_from or 1} on the left and {count_to} on the right: write as many on both sides."
                raise problem("counts_differ", goal.piece, sentence)
            return self._one_each(first, goal, passed, count_from, mono)
        lines = count_to or (2 if is_stereo(part, named, mono) and takes_stereo(target) else 1)
        from_lines = 2 if needs_both(part, named) and not passed else lines
        start = end_of(gear, part, named, 1 if mono else from_lines, "source", new)
        insert = self._returning(start, goal)
        end = end_of(*goal.devices[0], 1 if insert else lines, "goal", bool(goal.new))
        wide = max(len(start.choices[0]), len(end.choices[0]))
        through = self.passing.through(passed, 0, wide, wide)
        if insert:
            return [
                Wanted(
                    (start, insert),
                    through,
                    end,
                    (_ids(self.context.directory.kit.find_parts("insert lead")),),
                    (),
                    None,
                    (),
                )
            ]
        return [Wanted((start,), through, end, (), (), None, ())]

    def _of_kinds_that_meet(self, first: Side, goal: Side) -> tuple[Side, Side]:
        """Both ends, new ones of a kind that suits the other; an insert at the goal is where a processor's loop begins:
        "compressor > desk insert 3" is the run that "desk insert 3 > compressor" is."""
        if is_insert(goal) and speaks(first.devices[0][1], "goal"):
            first, goal = goal, first
        return with_usb_sockets(self.context.directory, first, at_its_microphone_input(first, goal))

    def _with_free_places(self, goal: Side, count: int) -> tuple[str, ...]:
        """The line with the first channels that nothing uses, written behind the destination; none where all are."""
        gear, part, _ = goal.devices[0]
        used = self._in_use(gear)
        taken = {word for c in part.connectors if c.id in used for word in tokens(c) if word.isdigit()}
        have = {word for c in usable(part, "goal") for word in tokens(c) if word.isdigit()}
        free = sorted(int(word) for word in have - taken)
        first = next((n for n in free if all(n + more in free for more in range(count)) and (count < 2 or n % 2)), None)
        if first is None:
            return ()
        at = goal.piece.start + len(goal.piece.text)
        places = "/".join(str(first + more) for more in range(count))
        return (f"{self.context.line[:at]} {places}{self.context.line[at:]}",)

    def _returning(self, start: End, goal: Side) -> End | None:
        """From an insert signal comes back: the processor's output is a source of the same run."""
        gear, part, _ = goal.devices[0]
        connectors = {connector.id: connector for connector in start.part.connectors}
        socket = connectors[start.choices[0][0].connector]
        if not sends_and_returns(socket) or not part.outputs:
            return None
        return End(gear, part, ((Endpoint(gear.id, part.outputs[0].connectors[0]),),))

    def _one(
        self, ends: tuple[End, ...], passed: list[tuple[KitItem, Piece]], goal: Side | None, index: int, many: int
    ) -> Wanted:
        end = end_of(*goal.devices[0], 1, "goal", bool(goal.new)) if goal else None
        wide = len(ends[0].choices[0])
        return Wanted(ends, self.passing.through(passed, index, wide, many * wide), end, (), (), None, ())


def _ids(parts: tuple[Part, ...]) -> tuple[str, ...]:
    return tuple(part.id for part in parts)
