"""People, their passphrases and one-time codes, on a real database."""

from unittest.mock import patch

import pyotp
from sqlalchemy import text

from ruvak.service.access import Access
from ruvak.service.passphrases import WeakPassphrase
from ruvak.service.people import LastOwner, NameTaken, People, WrongPassphrase
from ruvak.service.problems import NotFound
from ruvak.service.sign_ins import CodeNeeded, SignIns
from ruvak.service.states import Person
from tests.support.database import DatabaseTest
from tests.support.people import BROWSER, PASSPHRASE, signed_in, with_passphrase

NOON_S = 1_800_000_000
ANOTHER = "copper kettle beneath nine bridges"


class PeopleTest(DatabaseTest):
    def setUp(self) -> None:
        with self.sessions.begin() as session:
            session.execute(text("TRUNCATE person, sign_in_attempt CASCADE"))
        self.people, self.sign_ins = People(self.sessions), SignIns(self.sessions)

    def names(self) -> list[tuple[str, str]]:
        return [(person.name, person.role) for person in self.people.list_all()]

    def access(self, name: str) -> Access:
        """Of somebody who has just signed in."""
        token = self.sign_ins.with_passphrase(name, PASSPHRASE, None, BROWSER)
        found = self.sign_ins.access(token)
        assert found is not None
        return found


class Accounts(PeopleTest):
    def test_people_are_listed_by_role_and_name(self) -> None:
        for name, role in (("Vera", "viewer"), ("Tom", "technician"), ("Ada", "technician"), ("Olu", "owner")):
            self.people.add(name, role, "x")  # type: ignore[arg-type]
        expected = [("Olu", "owner"), ("Ada", "technician"), ("Tom", "technician"), ("Vera", "viewer")]
        self.assertEqual(self.names(), expected)

    def test_a_name_is_somebodys_in_any_capitals(self) -> None:
        self.people.add("Olu", "owner", "x")
        with self.assertRaises(NameTaken):
            self.people.add("OLU", "viewer", "x")
        self.people.add("Ada", "viewer", "x")
        with self.assertRaises(NameTaken):
            self.people.change(self.people.named("Ada"), "olu", None)
        self.assertEqual(self.names(), [("Olu", "owner"), ("Ada", "viewer")])

    def test_the_last_owner_stays_one(self) -> None:
        self.people.add("Olu", "owner", "x")
        only = self.people.named("Olu")
        with self.assertRaises(LastOwner):
            self.people.change(only, None, "technician")
        with self.assertRaises(LastOwner):
            self.people.remove(only)
        self.people.add("Ada", "owner", "x")
        self.people.remove(only)
        self.assertEqual(self.names(), [("Ada", "owner")])

    def test_a_removed_or_demoted_person_feels_it_at_once(self) -> None:
        token = signed_in(self.sessions, "Tom", "technician")
        tom = self.people.named("Tom")
        self.people.change(tom, None, "viewer")
        found = self.sign_ins.access(token)
        self.assertEqual(found and found.role, "viewer")
        self.people.remove(tom)
        self.assertIsNone(self.sign_ins.access(token))
        with self.assertRaises(NotFound):
            self.people.change(tom, "Tim", None)


class PassphraseLinks(PeopleTest):
    def test_a_link_is_used_once_and_not_used_up_by_a_weak_passphrase(self) -> None:
        link = self.people.add("Tom", "technician", "x")
        with self.assertRaises(WeakPassphrase):
            self.people.choose_passphrase(link.token, "password1234")
        self.people.choose_passphrase(link.token, PASSPHRASE)
        with self.assertRaises(NotFound):
            self.people.choose_passphrase(link.token, ANOTHER)
        self.sign_ins.with_passphrase("tom", PASSPHRASE, None, BROWSER)

    def test_a_newer_link_ends_the_earlier(self) -> None:
        first = self.people.add("Tom", "technician", "x")
        second = self.people.renew_passphrase(self.people.named("Tom"), "x")
        with self.assertRaises(NotFound):
            self.people.choose_passphrase(first.token, PASSPHRASE)
        self.people.choose_passphrase(second.token, PASSPHRASE)

    def test_one_that_has_ended_is_refused(self) -> None:
        link = self.people.add("Tom", "technician", "x")
        with self.sessions.begin() as session:
            session.execute(text("UPDATE link SET ends_at = now() - interval '1 second'"))
        with self.assertRaises(NotFound):
            self.people.choose_passphrase(link.token, PASSPHRASE)

    def test_a_forgotten_passphrase_counts_until_a_new_one_is_chosen_which_signs_out_everywhere(self) -> None:
        tom = with_passphrase(self.sessions, "Tom", "technician")
        token = self.sign_ins.with_passphrase("Tom", PASSPHRASE, None, BROWSER)
        link = self.people.renew_passphrase(tom, "x")
        self.assertIsNotNone(self.sign_ins.access(token))
        self.people.choose_passphrase(link.token, ANOTHER)
        self.assertIsNone(self.sign_ins.access(token))
        with self.assertRaises(WrongPassphrase):
            self.sign_ins.with_passphrase("Tom", PASSPHRASE, None, BROWSER)

    def test_nothing_that_opens_anything_is_kept_as_it_is(self) -> None:
        link = self.people.add("Tom", "technician", "x")
        kept = with_passphrase(self.sessions, "Ada", "owner") and self.sign_ins.with_passphrase(
            "Ada", PASSPHRASE, None, BROWSER
        )
        computer = self.sign_ins.trust_computer("Booth", "Ada")
        with self.sessions() as session:
            rows = [
                str(row)
                for table in ("person", "link", "sign_in", "trusted_computer")
                for row in session.execute(text(f"SELECT * FROM {table}"))
            ]
        for secret in (link.token, kept, computer, PASSPHRASE):
            self.assertFalse(any(str(secret) in row for row in rows))


class OwnPassphrase(PeopleTest):
    def test_changing_it_takes_the_present_one_and_signs_out_other_browsers(self) -> None:
        with_passphrase(self.sessions, "Tom", "technician")
        other = self.sign_ins.with_passphrase("Tom", PASSPHRASE, None, BROWSER)
        access = self.access("Tom")
        with self.assertRaises(WrongPassphrase):
            self.people.change_passphrase(access, ANOTHER, ANOTHER)
        with self.assertRaises(WeakPassphrase):
            self.people.change_passphrase(access, PASSPHRASE, "tom")
        self.people.change_passphrase(access, PASSPHRASE, ANOTHER)
        self.assertIsNone(self.sign_ins.access(other))
        self.assertEqual(len(self.sign_ins.list_of(access.person.id, access.sign_in)), 1)


class OneTimeCodes(PeopleTest):
    def setUp(self) -> None:
        super().setUp()
        clock = patch("ruvak.service.one_time_codes._now_s", return_value=float(NOON_S))
        clock.start()
        self.addCleanup(clock.stop)
        with_passphrase(self.sessions, "Tom", "technician")
        self.tom = self.access("Tom")
        self.secret = self.people.offer_codes(self.tom).secret

    def code(self, steps: int = 0) -> str:
        totp = pyotp.TOTP(self.secret)
        return totp.generate_otp(NOON_S // totp.interval + steps)

    def test_they_count_only_once_a_code_of_theirs_was_sent(self) -> None:
        with self.assertRaises(WrongPassphrase):
            self.people.use_codes(self.tom, PASSPHRASE, self.secret, "000000")
        self.sign_ins.with_passphrase("Tom", PASSPHRASE, None, BROWSER)
        with self.assertRaises(WrongPassphrase):
            self.people.use_codes(self.tom, ANOTHER, self.secret, self.code())
        self.people.use_codes(self.tom, PASSPHRASE, self.secret, self.code(-1))
        with self.assertRaises(CodeNeeded):
            self.sign_ins.with_passphrase("Tom", PASSPHRASE, None, BROWSER)
        self.assertTrue(self.people.list_all()[0].has_codes)

    def test_a_code_is_taken_once_and_never_without_the_passphrase(self) -> None:
        self.people.use_codes(self.tom, PASSPHRASE, self.secret, self.code(-1))
        code = self.code()
        with self.assertRaises(WrongPassphrase):
            self.sign_ins.with_passphrase("Tom", ANOTHER, code, BROWSER)
        self.sign_ins.with_passphrase("Tom", PASSPHRASE, code, BROWSER)
        with self.assertRaises(WrongPassphrase):
            self.sign_ins.with_passphrase("Tom", PASSPHRASE, code, BROWSER)

    def test_they_stop_with_the_passphrase_or_with_an_owners_link(self) -> None:
        self.people.use_codes(self.tom, PASSPHRASE, self.secret, self.code(-1))
        with self.assertRaises(WrongPassphrase):
            self.people.stop_codes(self.tom, ANOTHER)
        self.people.stop_codes(self.tom, PASSPHRASE)
        self.sign_ins.with_passphrase("Tom", PASSPHRASE, None, BROWSER)
        self.people.use_codes(self.tom, PASSPHRASE, self.secret, self.code())
        self.people.choose_passphrase(self.people.renew_passphrase(self.tom.person.id, "x").token, ANOTHER)
        self.sign_ins.with_passphrase("Tom", ANOTHER, None, BROWSER)


class DemoTechnician(PeopleTest):
    def test_it_is_one_person_however_often_it_is_asked_for(self) -> None:
        first, again = self.people.demo_technician(), self.people.demo_technician()
        self.assertEqual(first, again)
        self.assertEqual(self.names(), [("Demo technician", "technician")])
        self.assertEqual(first.person, Person(id="demo-technician", name="Demo technician"))
