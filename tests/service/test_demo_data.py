"""The demonstration's house on a real database."""

from ruvak.service.demo_data import DEMOS, add_demo
from ruvak.service.kept import KeptRigs
from ruvak.service.log_book import LogBook
from tests.support.database import DatabaseTest


class DemoData(DatabaseTest):
    def test_it_is_there_once_and_this_sunday_knows_what_last_sunday_had(self) -> None:
        self.assertTrue(add_demo(self.url))
        self.assertFalse(add_demo(self.url))
        rigs = {rig.id for rig in self.rigs.list_all()}
        self.assertEqual(rigs, {*DEMOS, "sunday-talk-2"})
        book = LogBook(self.sessions, KeptRigs())
        had = {each.run: each for each in book.read("sunday-talk-2").last_time}
        self.assertIn("crackle", had["reader"].words)
        self.assertTrue(had["reader"].mended)
        self.assertEqual(book.read("midwinter-concert").entries, ())
