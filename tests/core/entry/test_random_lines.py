"""Lines of random words are read or refused, a seeded sample; many more with script/fuzz lines."""

import unittest

from ruvak.core.entry.reader import read
from tests.support.random_lines import fault_of_line
from tests.support.typed import empty_rig

LINES = 150


class RandomLines(unittest.TestCase):
    def test_each_is_read_or_refused(self) -> None:
        self.assertEqual([fault for seed in range(LINES) if (fault := fault_of_line(seed)) is not None], [])

    def test_those_that_once_raised(self) -> None:
        # A part's name with a range in it was written out to more letters than a name may have.
        self.assertTrue(read(empty_rig(), "+ vox > bottom to + wedges, limiter").sentence)
