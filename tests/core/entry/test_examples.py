"""Every line that the interface shows as an example is read, one after another, in one rig."""

import json
import unittest
from pathlib import Path

from ruvak.core.entry.reader import read
from ruvak.core.rig.edits import apply
from tests.support.typed import empty_rig

EXAMPLES = Path(__file__).parents[3] / "frontend/src/lib/domain/line-examples.json"


class Examples(unittest.TestCase):
    def test_each_is_understood_behind_those_before_it(self) -> None:
        rig = empty_rig()
        for lines in json.loads(EXAMPLES.read_text(encoding="utf-8")).values():
            for line in lines:
                reading = read(rig, line)
                rig = apply(rig, reading.edit or self.fail(f"{line}: {reading.sentence}"))
        self.assertGreater(len(rig.runs), 8)
