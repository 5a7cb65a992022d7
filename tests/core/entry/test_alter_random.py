"""Random lines that change a rig, a seeded sample; many more with script/fuzz changes."""

import unittest

from tests.support.changes import fault_of

LINES = 150


class RandomChanges(unittest.TestCase):
    def test_each_is_done_or_refused_with_a_sentence(self) -> None:
        self.assertEqual([fault for seed in range(LINES) if (fault := fault_of(seed)) is not None], [])


if __name__ == "__main__":
    unittest.main()
