"""Reading lines: many at once, notes, refusals with words, what is in use, and where the line cannot be wired."""

import unittest

from ruvak.core.analyse import analyse
from ruvak.core.entry.complete import completions
from ruvak.core.entry.grammar import parse
from ruvak.core.entry.reader import read, read_all, read_rows
from ruvak.core.entry.rows import InputRow, destination
from ruvak.core.entry.words import expand_ranges, find_length
from ruvak.core.rig.edits import apply
from ruvak.core.rig.rig import Rig
from tests.support.entry import entry_rig
from tests.support.rigs import wired


def made(line: str, rig: Rig | None = None) -> Rig:
    rig = rig or entry_rig()
    edit = read(rig, line).edit
    assert edit is not None, read(rig, line).sentence
    return apply(rig, edit)


class OwnNames(unittest.TestCase):
    def test_what_looks_like_a_count_in_a_devices_own_name_is_none(self) -> None:
        rig = entry_rig()
        for name in ("Desk X", "Two Horns", "Mixer x4"):
            gear = tuple(each.model_copy(update={"name": name}) if each.id == "mixer" else each for each in rig.gear)
            run = made(f"lectern > {name} 3, 10 m", rig.with_fields(gear=gear)).runs[-1]
            self.assertEqual(str(run.ends[-1]).split(".")[0], "mixer", name)


class Words(unittest.TestCase):
    def test_ranges(self) -> None:
        self.assertEqual(expand_ranges("7/8"), "7 8")
        self.assertEqual(expand_ranges("1-4"), "1 2 3 4")
        self.assertEqual(expand_ranges("A7/A8"), "a 7 a 8")
        self.assertEqual(expand_ranges("4-1"), "4 1")
        self.assertEqual(expand_ranges("1-9999"), "1 9999")

    def test_lengths(self) -> None:
        for text, metres in (("18 m", 18), ("60 ft", 18.288), ("~7,5m", 7.5), ("desk 4,15 m", 15), ("5 km", 5000)):
            found = find_length(text)
            assert found is not None
            self.assertAlmostEqual(found.metres, metres)
        for text in ("desk 4", "mix 3", "18 mono", "m 18"):
            self.assertIsNone(find_length(text), text)

    def test_digits_of_any_script_are_read_and_control_characters_are_spaces(self) -> None:
        plain = read(entry_rig(), "lead vocal > desk 3, 18 m")
        self.assertIsNotNone(plain.edit)
        for line in (
            "lead vocal > desk \N{SUPERSCRIPT THREE}, 18 m",
            "lead vocal > desk \N{FULLWIDTH DIGIT THREE}, 1\N{ARABIC-INDIC DIGIT EIGHT} m",
            "lead vocal > desk \N{CIRCLED DIGIT THREE}, 18 m",
            "lead\x00vocal > desk 3,\x7f18 m\x1b",
            "lead\tvocal >\N{ZERO WIDTH SPACE}desk 3, 18 m",
            "\N{RIGHT-TO-LEFT MARK}lead vocal > desk 3, 18 m",
        ):
            self.assertEqual(read(entry_rig(), line).edit, plain.edit, line)
            self.assertEqual([each.edit for each in read_all(entry_rig(), line)], [plain.edit], line)
            self.assertTrue(completions(entry_rig(), line.partition(",")[0]), line)
        self.assertEqual(read_all(entry_rig(), "\x00\n\t\n"), ())

    def test_pieces_keep_their_places_in_the_line(self) -> None:
        line = "12: lead vocal > box 3 > desk 3, 18 m, phantom"
        sentence = parse(line)
        self.assertEqual(sentence.number, 12)
        for piece in (*sentence.pieces, *sentence.extras):
            self.assertEqual(line[piece.start : piece.start + len(piece.text)], piece.text)


class FromNothing(unittest.TestCase):
    """A rig in which there is no gear yet: names are made up, kinds come from the library."""

    def setUp(self) -> None:
        self.rig = wired(entry_rig(), gear=[], kit=[], runs=[], bonds=[])

    def joins(self, text: str) -> list[tuple[str, ...]]:
        found = read_all(self.rig, text)
        self.assertEqual([one.sentence for one in found if one.edit is None], [])
        return [(*map(str, run.sources), ">", *map(str, run.goals)) for one in found for run in one.runs]

    def test_a_kind_and_its_sockets_in_one_name(self) -> None:
        self.assertEqual(
            self.joins(
                "lead vocal > small desk 1, 10 m\nlaptop phones > small desk 11/12\nsmall desk aux 1 > wedge\n"
                "keyboard right > small desk line 10\ndigital player xlr > digital converter xlr"
            ),
            [
                ("lead-vocal.out", ">", "small-desk.mic1"),
                ("laptop.phones", ">", "small-desk.line11", "small-desk.line12"),
                ("small-desk.aux1", ">", "wedge.in1"),
                ("keyboard.right", ">", "small-desk.line10"),
                ("digital-player.xlr", ">", "digital-converter.xlr"),
            ],
        )

    def test_numbers_tell_devices_apart_where_one_has_few_sockets(self) -> None:
        self.assertEqual(
            self.joins("choir mics 1-2 > digital stage box 3-4\nFOH desk main L/R > speakers 1-2, 20 m"),
            [
                ("choir-mic-1.out", ">", "digital-stage-box.in3"),
                ("choir-mic-2.out", ">", "digital-stage-box.in4"),
                ("foh-desk.main-left", ">", "speaker-1.in1"),
                ("foh-desk.main-right", ">", "speaker-2.in1"),
            ],
        )

    def test_names_are_spelled_as_they_were_typed_or_as_the_trade_does(self) -> None:
        after = apply(self.rig, read(self.rig, "foh desk aux 1 > McAllister wedge").edit or self.fail("not read"))
        self.assertEqual([one.name for one in after.gear], ["FOH desk", "McAllister wedge"])

    def test_what_is_to_be_got_is_called_what_it_is(self) -> None:
        after = apply(self.rig, read(self.rig, "lead vocal > small desk 1").edit or self.fail("not read"))
        self.assertEqual([(one.tag, one.owned) for one in after.kit], [("XLR lead 1", False)])

    def test_a_desk_into_a_powered_speaker_needs_nothing_but_a_lead(self) -> None:
        found = read(self.rig, "desk main left > speaker, 20 m").runs[0]
        self.assertEqual((found.grade, len(found.pieces)), ("clear", 1))

    def test_what_is_made_against_what_would_be_wrong_is_taken(self) -> None:
        """As a technician would wire it: a DI near the guitar, sides summed by resistors, an isolator at a laptop."""
        for line, parts in (
            ("guitar > small desk 1, 8 m", ["lead-ts-ts", "di-active", "mic-lead"]),
            ("violin > desk 1, 8 m", ["lead-ts-ts", "di-active-piezo", "mic-lead"]),
            ("keyboard L/R > desk 1, 8 m", ["lead-ts-ts", "lead-ts-ts", "mono-sum-ts", "lead-xlrf-trs"]),
            ("small desk main L/R > speaker, 8 m", ["lead-xlrf-trs", "lead-xlrf-trs", "mono-sum-ts", "mic-lead"]),
            ("laptop > speaker, 8 m", ["adapter-trs35-xlr-sum", "isolator-xlr", "mic-lead"]),
            ("laptop > desk 15/16, 8 m", ["lead-trs35-trs35", "isolator-stereo-trs35-xlr", "mic-lead", "mic-lead"]),
            ("cd player > desk 1, 8 m", ["lead-rca-ts-twin", "mono-sum-ts", "lead-xlrf-trs"]),
        ):
            with self.subTest(line):
                found = read(self.rig, line)
                self.assertEqual(found.runs[0].grade, "clear")
                after = apply(self.rig, found.edit or self.fail("not read"))
                self.assertEqual([after.owners_by_id[piece].part for piece in after.runs[0].pieces], parts)

    def test_too_far_is_said_to_be_too_far(self) -> None:
        found = read(self.rig, "cd player > switcher, 400 m")
        self.assertIsNone(found.edit)
        self.assertIn("No leads reach 400 m", found.sentence)
        self.assertIsNotNone(read(self.rig, "cd player > switcher, 4 m").edit)

    def test_a_socket_that_such_a_desk_has_not(self) -> None:
        for line in ("kick > small desk 40", "small desk 14 > recorder", "guitar thing > small desk 1"):
            self.assertIsNone(read(self.rig, line).edit)
        self.assertIn("Small desk has no “40” here", read(self.rig, "kick > small desk 40").sentence)


class ManyLines(unittest.TestCase):
    TEXT = "# the band\nlead vocal > desk 1\n\nlectern > desk 1\nnonsense\nchoir 1-2 > desk 3-4"

    def test_each_builds_on_those_before_and_errors_stay_with_their_line(self) -> None:
        first, second, third, fourth = read_all(entry_rig(), self.TEXT)
        self.assertEqual((first.problems, fourth.problems), ((), ()))
        self.assertEqual(second.problems[0].code, "socket_taken")
        self.assertIn("Lead vocal", second.sentence)
        self.assertEqual(third.problems[0].code, "no_arrow")
        used = [piece.item for reading in (first, fourth) for run in reading.runs for piece in run.pieces]
        self.assertEqual(len(used), len(set(used)), "no lead twice")

    def test_together_they_make_a_sound_rig(self) -> None:
        rig = entry_rig()
        for reading in read_all(rig, self.TEXT):
            if reading.edit is not None:
                rig = apply(rig, reading.edit)
        self.assertEqual([run.name for run in rig.runs], ["Lead vocal", "Choir 1", "Choir 2"])
        self.assertEqual([run.number for run in rig.runs], [1, 2, 3])
        self.assertEqual(analyse(rig).verdict.clear, 3)

    def test_a_number_in_front_is_the_runs_number(self) -> None:
        self.assertEqual(made("12: lectern > desk 12").runs[0].number, 12)


class Choosing(unittest.TestCase):
    def test_the_solved_result_decides(self) -> None:
        # A passive pickup straight into a line input goes dull and quiet; a box of high impedance does not.
        rig = made("guitar > desk 5")
        self.assertIn("di-active", {rig.owners_by_id[piece].part for piece in rig.runs[0].pieces})
        self.assertEqual(analyse(rig).runs[0].findings[0].code, "clear")

    def test_a_stereo_headphone_output_is_summed_for_one_balanced_input(self) -> None:
        # An isolator with it, since the two are earthed at outlets nobody has named.
        rig = made("laptop > left speaker")
        parts = {rig.owners_by_id[piece].part for piece in rig.runs[0].pieces}
        self.assertLessEqual({"adapter-trs35-xlr-sum", "isolator-xlr"}, parts)
        self.assertEqual([one.code for one in analyse(rig).runs[0].findings], ["clear"])

    def test_between_two_earths_an_isolator_from_the_kit_is_taken(self) -> None:
        rig = made("laptop > mixer 9/10")
        self.assertEqual([one.code for one in analyse(rig).runs[0].findings], ["clear"])
        self.assertIn("isolator-stereo-trs35-xlr", [rig.part_of(piece).id for piece in rig.runs[0].pieces])

    def test_a_microphone_goes_to_the_microphone_socket_of_its_channel(self) -> None:
        self.assertEqual(str(made("lectern > desk 4").runs[0].joins[-1].b), "desk.mic4")

    def test_the_length_is_reached(self) -> None:
        rig = made("lectern > desk 4, 35 m")
        lengths = {item.id: item.length_m or 0.0 for item in rig.kit}
        self.assertGreaterEqual(sum(lengths[piece] for piece in rig.runs[0].pieces), 35)

    def test_feet_where_the_rig_has_feet(self) -> None:
        reading = read(wired(entry_rig(), length_unit="ft"), "lectern > desk 4, 60")
        self.assertAlmostEqual(reading.runs[0].length_m or 0, 18.288)

    def test_what_is_built_in_stays_and_is_shared(self) -> None:
        rig = made("choir 1-2 > box 1-2 > desk 1-2")
        self.assertEqual([run.pieces[-1] for run in rig.runs], ["box", "box"])
        self.assertEqual(str(rig.runs[1].joins[-1].a), "box.t2")

    def test_a_tagged_lead_is_taken_when_named(self) -> None:
        self.assertIn("m15", made("lectern > M15 > desk 4").runs[0].pieces)

    def test_phantom_is_noted_with_the_run(self) -> None:
        self.assertEqual(made("choir 1 > desk 1, phantom").runs[0].note, "phantom")

    def test_renaming_every_part_changes_no_choice(self) -> None:
        rig = entry_rig()
        renamed = rig.with_fields(
            parts=tuple(part.model_copy(update={"name": f"P{n}"}) for n, part in enumerate(rig.parts))
        )
        for line in ("guitar > desk 5", "keys > desk 7/8", "laptop > left speaker"):
            mine, theirs = read(rig, line).runs[0], read(renamed, line).runs[0]
            self.assertEqual([piece.item for piece in mine.pieces], [piece.item for piece in theirs.pieces])


class Refusing(unittest.TestCase):
    def test_every_sentence_says_what_to_do(self) -> None:
        for line in ("keys", "> desk 3", "keys >", "zxqwv > desk 3", "keys > desk 99", "lectern > desk 4, 0 m",
                     "lectern > desk 4, tall stand", "choir 1-4 > desk 1-3", "lectern > speaker",
                     "lectern > flux capacitor > desk 4"):  # fmt: skip
            reading = read(entry_rig(), line)
            self.assertIsNone(reading.edit, line)
            self.assertRegex(reading.sentence, r"^[A-Z“\d].*[.…]$")

    def test_a_line_that_nobody_types_is_refused_at_once(self) -> None:
        for line in ("a" * 20_000, "a > " + " " * 19_000 + "b", "keys > " + "1 " * 9_000 + ", b"):
            reading = read(entry_rig(), line)
            self.assertEqual([problem.code for problem in reading.problems], ["too_long"])
            self.assertIn("may have 600", reading.sentence)
            self.assertEqual(completions(entry_rig(), line), ())
            self.assertEqual(
                [entry.problems[0].code for entry in read_all(entry_rig(), f"{line}\n{line}")], ["too_long"] * 2
            )

    def test_corrections_are_told(self) -> None:
        self.assertEqual(read(entry_rig(), "lecturn > desk 4").taken_for, ("“lecturn” was taken for Lectern.",))
        self.assertEqual(read(entry_rig(), "lectern > desk 4").taken_for, ())

    def test_nothing_long_enough(self) -> None:
        self.assertEqual(read(entry_rig(), "lectern > desk 4, 900 m").problems[0].code, "no_route")

    def test_a_channel_in_use_is_in_use_on_both_its_sockets(self) -> None:
        rig = made("lectern > desk mic 4")
        self.assertEqual(read(rig, "bass > desk 4").problems[0].code, "socket_taken")


class Completing(unittest.TestCase):
    def test_names_then_sockets_then_lengths(self) -> None:
        self.assertIn("Lectern", completions(entry_rig(), "le"))
        self.assertIn("Lectern > ", completions(entry_rig(), "Lectern"))
        self.assertIn("Lectern > Desk", completions(entry_rig(), "Lectern > de"))
        self.assertIn("Lectern > Desk 1", completions(entry_rig(), "Lectern > Desk"))
        self.assertIn("Lectern > Desk 4, 10 m", completions(entry_rig(), "Lectern > Desk 4"))

    def test_sockets_in_use_are_not_offered(self) -> None:
        rig = made("lectern > desk mic 1")
        self.assertNotIn("Keys > Desk 1", completions(rig, "Keys > Desk"))
        self.assertIn("Keys > Desk 2", completions(rig, "Keys > Desk"))
        self.assertNotIn("Lectern", completions(rig, "le"))

    def test_every_completion_begins_as_the_line_does_and_can_be_read_or_gone_on_with(self) -> None:
        for line in ("", "k", "keys", "Keys > ", "Keys > d", "Desk a", "Desk main", "Lead vocal > St"):
            for one in completions(entry_rig(), line):
                self.assertTrue(one.lower().startswith(line.lower()[:1]), (line, one))


class InputLists(unittest.TestCase):
    ROWS = (
        InputRow(row=2, channel="1", who="Lead vocal", device="dynamic", stand="straight"),
        InputRow(row=3, channel="2", who="Overhead left", device="condenser", stand="tall boom", phantom="yes"),
        InputRow(row=4, channel="3", who="Bass", device="DI"),
        InputRow(row=5, channel="4", who="Pastor", device="wireless"),
        InputRow(row=6, channel="5", who="Zither", device=""),
        InputRow(row=7, channel="x", who="Nobody"),
        InputRow(row=8, channel="6", who=""),
    )

    def test_without_a_desk_the_list_brings_one_that_has_all_its_channels(self) -> None:
        empty = wired(entry_rig(), gear=[], kit=[], runs=[], bonds=[])
        far = (*self.ROWS[:4], InputRow(row=6, channel="30", who="Choir", device="condenser"))
        for rows, goal, part in ((self.ROWS[:4], "desk", "desk-digital-16"), (far, "big desk", "desk-digital-32")):
            self.assertEqual(destination(empty, rows), goal)
            rig = empty
            for reading in read_rows(empty, rows, goal):
                rig = apply(rig, reading.edit or self.fail(reading.sentence))
            self.assertEqual([one.part for one in rig.gear if one.part.startswith("desk")], [part])
            self.assertEqual([run.name for run in rig.runs][:2], ["Lead vocal", "Overhead left"])

    def test_loudspeakers_alone_are_no_desk(self) -> None:
        speakers = [one for one in entry_rig().model_dump()["gear"] if "speaker" in one["part"]]
        rig = wired(entry_rig(), gear=speakers, runs=[], bonds=[])
        self.assertTrue(speakers)
        self.assertEqual(destination(rig, self.ROWS), "desk")

    def test_rows_become_runs_with_their_notes(self) -> None:
        rig = entry_rig()
        goal = destination(rig, self.ROWS)
        self.assertEqual(goal, "Desk")
        readings = read_rows(rig, self.ROWS, goal)
        self.assertEqual([bool(one.problems) for one in readings], [False] * 5 + [True] * 2)
        vocal, overhead, bass, pastor, zither = (one.runs[0] for one in readings[:5])
        self.assertEqual([str(end) for end in vocal.sources], ["vox.out"])
        self.assertEqual((overhead.new_gear, overhead.options), (("mic-condenser",), ("phantom",)))
        self.assertTrue(any("DI" in piece.words for piece in bass.pieces))
        self.assertEqual(pastor.new_gear, ("wireless-receiver",))
        self.assertEqual(zither.new_gear, ("mic-dynamic",))
        for reading in readings[:5]:
            assert reading.edit is not None
            rig = apply(rig, reading.edit)
        self.assertEqual(rig.runs[1].note, "phantom; stand: tall boom; condenser")
