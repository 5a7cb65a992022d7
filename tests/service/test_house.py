"""A whole house out and in again, into an empty one and into one that has some of it."""

import contextlib
import io
import json
import unittest
import zipfile
from datetime import UTC, datetime

from sqlalchemy import text

from ruvak.core.house import HouseDocument
from ruvak.core.log.entry import NewEntry
from ruvak.formats.house import BadHouse, house_from_zip, house_to_zip
from ruvak.service.house import House
from ruvak.service.house_import import HouseImport
from ruvak.service.kept import KeptRigs
from ruvak.service.log_book import LogBook
from ruvak.service.people import People
from ruvak.service.venues import Venues
from tests.support.house import ADA, WEEK, HouseTest
from tests.support.rigs import demo_rig


class Whole(HouseTest):
    def setUp(self) -> None:
        super().setUp()
        with self.sessions.begin() as session:
            session.execute(text("TRUNCATE person, house_venue CASCADE"))

    def go_on(self) -> None:
        super().go_on()
        kept = KeptRigs()
        self.people, self.venues = People(self.sessions), Venues(self.sessions, kept, self.edits)
        self.book = LogBook(self.sessions, kept)
        self.house = House(self.sessions, kept, self.cupboard)
        self.house_import = HouseImport(self.sessions, kept)

    def fill(self) -> HouseDocument:
        self.people.add("Olu", "owner", "the tests")
        self.people.add("=Ada", "helper", "the tests")
        self.cupboard.add("M1: 10 m mic lead, suspect: crackles\n4 passive DIs, van", ADA)
        hall = self.rigs.import_rig(demo_rig(), ADA).rig.id
        self.venues.save(hall, "first", ADA)
        evening = self.date(hall, name="Evening")
        self.cupboard.draw(hall, "m1", ADA)
        self.occasions.note(evening, "crackle on M1", ADA)
        again = self.date(after=WEEK, name="Next")
        self.occasions.settle(self.occasions.note(again, "towels", ADA).id, True, ADA)
        old = self.new_rig("Old")
        self.rigs.shelve(old, "archive")
        checked = self.check("crackle")
        self.book.add(hall, (checked, self.check("", corrects=checked.id)), ADA)
        return self.house.export()

    @staticmethod
    def check(words: str, corrects: str | None = None) -> NewEntry:
        run = demo_rig().runs[0]
        answer = "wrong" if words else "good"
        at = datetime(2026, 1, 4, 9, 30, tzinfo=UTC)
        return NewEntry(
            id=f"entry-{answer}", at=at, kind="check", run=run.id, words=words, answer=answer, corrects=corrects
        )

    def test_it_comes_back_into_an_empty_house_as_it_was(self) -> None:
        before = self.fill()
        archive = house_to_zip(before)
        self.setUp()
        made = self.house_import.add(house_from_zip(archive), ADA)
        counts = (made.people, made.venues, made.things, made.occasions, made.rigs, made.said)
        self.assertEqual(counts, (2, 1, 2, 2, 2, ()))
        after = self.house.export()
        self.assertEqual(after.rigs, before.rigs)
        self.assertEqual(after.cupboard, before.cupboard)
        self.assertEqual(after.venues, before.venues)
        self.assertEqual(after.index.occasions, before.index.occasions)
        self.assertEqual(after.index.rigs, before.index.rigs)
        self.assertEqual(after.index.people, before.index.people)
        logged = [entry.model_dump(exclude={"number", "received_at"}) for entry in before.log]
        self.assertEqual([entry.model_dump(exclude={"number", "received_at"}) for entry in after.log], logged)
        self.assertEqual([entry["run_name"] for entry in logged], [demo_rig().runs[0].name] * 2)
        (m1, _) = self.cupboard.list_all().entries
        self.assertEqual([held.rig for held in m1.holdings], ["lantern-evening"])

    def test_what_is_there_already_is_left_alone(self) -> None:
        archive = house_to_zip(self.fill())
        made = self.house_import.add(house_from_zip(archive), ADA)
        self.assertEqual((made.people, made.venues, made.things, made.occasions, made.rigs), (0, 0, 0, 0, 0))

    def test_ended_half_way_it_is_gone_on_with_by_importing_the_same_again(self) -> None:
        before = self.fill()
        self.setUp()

        def end_after_the_first(share: float) -> None:
            if share > 0:
                raise InterruptedError

        with self.assertRaises(InterruptedError):
            self.house_import.add(before, ADA, end_after_the_first)
        self.assertEqual(len(self.house.export().rigs), 1)
        made = self.house_import.add(before, ADA)
        self.assertEqual((made.people, made.things, made.occasions, made.rigs), (0, 0, 0, 1))
        after = self.house.export()
        self.assertEqual(after.index.rigs, before.index.rigs)
        self.assertEqual(len(after.log), len(before.log))

    def test_a_rig_whose_things_others_have_by_now_loses_its_date_and_says_so(self) -> None:
        archive = house_to_zip(self.fill())
        self.rigs.delete("lantern-evening")
        chapel = self.new_rig("Chapel")
        self.date(chapel, name="Clash")
        self.cupboard.draw(chapel, "m1", ADA)
        made = self.house_import.add(house_from_zip(archive), ADA)
        self.assertEqual(made.rigs, 1)
        self.assertIn("M1 is taken by Chapel", made.said[0])

    def test_its_tables_are_for_people_and_carry_no_formulas(self) -> None:
        with zipfile.ZipFile(io.BytesIO(house_to_zip(self.fill()))) as archive:
            tables = {name: archive.read(name).decode() for name in archive.namelist() if name.endswith(".csv")}
        self.assertEqual(set(tables), {"cupboard.csv", "people.csv", "occasions.csv", "log.csv", "runs.csv"})
        self.assertIn("'=Ada,helper", tables["people.csv"])
        self.assertIn("crackle on M1", tables["occasions.csv"])
        self.assertIn("Lantern Evening", tables["runs.csv"])

    def test_no_secret_is_in_it(self) -> None:
        people = People(self.sessions)
        people.choose_passphrase(people.add("Vera", "viewer", "x").token, "velvet tractor under seven lanterns")
        with zipfile.ZipFile(io.BytesIO(house_to_zip(self.fill()))) as archive:
            everything = b"".join(archive.read(name) for name in archive.namelist())
        for secret in (b"argon2", b"velvet", b"token"):
            self.assertNotIn(secret, everything)


class Damaged(unittest.TestCase):
    """Whatever is given: a house, or a sentence that names file and field."""

    def archive(self, **files: bytes) -> bytes:
        out = io.BytesIO()
        with zipfile.ZipFile(out, "w") as archive:
            for name, text in files.items():
                archive.writestr(name.replace("__", "/").replace("_json", ".json"), text)
        return out.getvalue()

    def refused(self, data: bytes) -> str:
        with self.assertRaises(BadHouse) as refused:
            house_from_zip(data)
        return str(refused.exception)

    def test_each_is_refused_with_the_file_at_fault(self) -> None:
        index = json.dumps({"exported_at": "2026-11-29T18:00:00Z"}).encode()
        self.assertEqual(house_from_zip(self.archive(house_json=index)).rigs, ())
        self.assertIn("no ZIP archive", self.refused(b"PK\x03\x04 nonsense"))
        self.assertIn("no ZIP archive", self.refused(b""))
        self.assertIn("no house.json", self.refused(self.archive(other_json=b"{}")))
        self.assertIn("house.json: ", self.refused(self.archive(house_json=b"{}")))
        self.assertIn("house.json", self.refused(self.archive(house_json=b"not json")))
        self.assertIn("rigs/a.json", self.refused(self.archive(house_json=index, rigs__a_json=b'{"format": 3}')))
        self.assertIn("cupboard.json", self.refused(self.archive(house_json=index, cupboard_json=b'{"items": [3]}')))
        whole = self.archive(house_json=index, cupboard_json=b'{"items": []}')
        for place in range(0, len(whole), 7):
            broken = bytearray(whole)
            broken[place] ^= 0x55
            with contextlib.suppress(BadHouse):
                house_from_zip(bytes(broken))

    def test_names_that_lead_elsewhere_are_not_read(self) -> None:
        index = json.dumps({"exported_at": "2026-11-29T18:00:00Z"}).encode()
        out = io.BytesIO()
        with zipfile.ZipFile(out, "w") as archive:
            archive.writestr("house.json", index)
            for name in ("../rigs/a.json", "rigs/../../a.json", "/rigs/a.json", "rigs/A.json", "rigs/a/b.json"):
                archive.writestr(name, b"nonsense")
        self.assertEqual(house_from_zip(out.getvalue()).rigs, ())


if __name__ == "__main__":
    unittest.main()
