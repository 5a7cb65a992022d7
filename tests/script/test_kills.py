"""A sample of what script/fuzz kills does at length."""

import unittest
from unittest import mock

from tests.support import kills
from tests.support.kills import kill_again_and_again


class Kills(unittest.TestCase):
    def test_no_acknowledged_edit_is_lost_and_everything_is_back_by_itself(self) -> None:
        with mock.patch.object(kills, "WHAT", ("compute process", "database and web server")):
            result = kill_again_and_again(kills=3, seed=2)
        self.assertEqual((result.faults, result.kills), ([], 3))
        self.assertGreaterEqual(result.acknowledged, 3 * kills.CLIENTS)
