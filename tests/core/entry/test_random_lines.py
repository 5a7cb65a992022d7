"""Lines of random words are read or refused, a seeded sample; many more with script/fuzz lines."""

import os
import subprocess
import sys
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


SCRIPT = """
from ruvak.core.entry.reader import read
from tests.support.typed import empty_rig
for line in ("guitar amp speaker out > guitar cab", "laptop hdmi > projector", "keyboard midi out > sound module"):
    print(read(empty_rig(), line).model_dump_json())
"""


class AnyProcess(unittest.TestCase):
    def test_a_line_is_read_alike_in_every_process(self) -> None:
        # A lead that is the same either way round has two ways through it, kept in a set.
        readings = {
            subprocess.run(
                (sys.executable, "-c", SCRIPT),
                env={**os.environ, "PYTHONHASHSEED": seed},
                check=True,
                capture_output=True,
                text=True,
            ).stdout
            for seed in ("1", "2", "3")
        }
        self.assertEqual(len(readings), 1)
        self.assertEqual(len(next(iter(readings)).splitlines()), 3)
