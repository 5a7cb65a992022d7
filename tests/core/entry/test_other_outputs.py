"""A source whose usual output is in use: its next free outputs are offered, each in a whole line."""

import unittest

from ruvak.core.entry.reader import read
from tests.support.typed import typed_rig


class OtherOutputs(unittest.TestCase):
    def test_the_next_free_outputs_of_each_kind_are_offered(self) -> None:
        rig = typed_rig("desk main > speakers, 15 m", "desk aux 1 > wedge, 20 m")
        for line, offered in (
            ("desk > recorder", ("desk Aux 3/4 > recorder", "desk Matrix 1/2 > recorder")),
            ("desk main > recorder", ("desk Aux 3/4 > recorder", "desk Matrix 1/2 > recorder")),
            ("desk > second wedge, 10 m", ("desk Aux 2 > second wedge, 10 m", "desk Matrix 1 > second wedge, 10 m")),
            (
                "desk > recording laptop",
                ("desk USB > recording laptop", "desk Aux 2 > recording laptop", "desk Matrix 1 > recording laptop"),
            ),
        ):
            with self.subTest(line):
                (problem,) = read(rig, line).problems
                self.assertEqual((problem.code, problem.suggestions), ("socket_taken", offered))
                for each in offered:
                    self.assertEqual(read(rig, each).problems, (), each)

    def test_an_output_with_a_name_has_no_number_and_usb_in_use_is_not_offered(self) -> None:
        rig = typed_rig("small mixer main > speakers", "desk usb > stream pc, 3 m", "desk main > wedges 1-2, 10 m")
        offered = read(rig, "small mixer > recorder").problems[0].suggestions
        self.assertEqual(offered, ("small mixer Record out > recorder", "small mixer Aux 1/2 > recorder"))
        self.assertNotIn("USB", " ".join(read(rig, "desk > recording laptop").problems[0].suggestions))

    def test_a_named_output_in_use_and_a_source_with_one_output_are_left_as_they_are(self) -> None:
        rig = typed_rig("desk matrix 1 > hearing loop", "keys > desk 7/8")
        self.assertEqual(read(rig, "desk matrix 1 > recorder").problems[0].suggestions, ("desk matrix 2 > recorder",))
        self.assertEqual(read(rig, "keys > desk 9/10").problems[0].suggestions, ("move Keys to desk 9/10",))

    def test_as_many_outputs_as_there_are_destinations_are_offered(self) -> None:
        for line, offered in (
            ("desk > 4 wedges", ("desk Aux 1-4 > 4 wedges",)),
            ("desk > 3 in-ear transmitters", ("desk Aux 1-6 > 3 in-ear transmitters",)),
            ("laptop > recorder 1, recorder 2", ()),
        ):
            with self.subTest(line):
                (problem,) = read(typed_rig(), line).problems
                self.assertEqual((problem.code, problem.suggestions), ("counts_differ", offered))
                for each in offered:
                    self.assertEqual(read(typed_rig(), each).problems, (), each)

    def test_a_recorder_and_a_computer_do_not_get_a_side_each(self) -> None:
        (problem,) = read(typed_rig(), "desk main > stream pc and recorder").problems
        self.assertIn("a left and a right", problem.sentence)
        self.assertEqual(problem.suggestions[0], "desk main > stream pc; desk Aux 1/2 > recorder")
        for each in problem.suggestions:
            self.assertEqual(read(typed_rig(), each).problems, (), each)
        self.assertEqual(read(typed_rig(), "desk aux 1/2 > stream pc and recorder").problems, ())
        self.assertEqual(read(typed_rig(), "desk main > amp 1, amp 2").problems, ())

    def test_a_computer_without_a_sound_input_is_reached_by_usb_or_through_an_interface(self) -> None:
        rig = typed_rig("laptop > desk 15/16")
        (problem,) = read(rig, "desk main > laptop").problems
        self.assertIn("no socket that takes sound in", problem.sentence)
        self.assertEqual(problem.suggestions, ("desk USB > laptop", "desk main > interface > laptop"))
        for each in problem.suggestions:
            self.assertEqual(read(rig, each).problems, (), each)
        with_usb = typed_rig("laptop > desk 15/16", "desk usb > laptop, 3 m")
        offered = read(with_usb, "desk main > laptop").problems[0].suggestions
        self.assertEqual(offered, ("desk main > interface > laptop",))


if __name__ == "__main__":
    unittest.main()
