"""Leads and adapters that join the same contacts are alike; a box and a switched contact are like nothing else."""

import unittest

from ruvak.core.parts.library import library
from ruvak.core.pieces.alike import contacts_joined


class Alike(unittest.TestCase):
    def test_a_lead_and_an_adapter_wired_alike_are_equal(self) -> None:
        parts = library()
        self.assertEqual(contacts_joined(parts["lead-xlrf-rca"]), contacts_joined(parts["adapter-xlrf-rca"]))

    def test_a_lead_from_like_to_like_changes_nothing(self) -> None:
        for part in ("mic-lead", "lead-ts-ts", "lead-rca-rca"):
            with self.subTest(part):
                self.assertFalse(contacts_joined(library()[part]))

    def test_other_contacts_and_boxes_are_told_apart(self) -> None:
        names = ("lead-xlrf-ts", "lead-xlrf-trs", "adapter-xlr-turn", "mic-lead-crossed", "isolator-xlr", "pad-20")
        kinds = [contacts_joined(library()[name]) for name in names]
        # The adapter and the lead that swap pins 2 and 3 are the same thing to the signal.
        self.assertEqual(len(set(kinds)), len(names) - 1)
        self.assertEqual(kinds[2], kinds[3])
