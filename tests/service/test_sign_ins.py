"""Signing in by passphrase, at a trusted computer and by a link, and the limits on guessing."""

from concurrent.futures import ThreadPoolExecutor

from sqlalchemy import text

from ruvak.core.errors import RuvakError
from ruvak.service.access import NotAllowed, Right
from ruvak.service.links import Links
from ruvak.service.people import WrongPassphrase
from ruvak.service.problems import NotFound
from ruvak.service.sign_ins import Browser
from ruvak.service.states import Person
from ruvak.service.throttle import MOST_AN_ACCOUNT, MOST_AN_ADDRESS, TooManyAttempts
from tests.service.test_people import ANOTHER, PeopleTest
from tests.support.people import BROWSER, PASSPHRASE, signed_in, with_passphrase
from tests.support.rigs import demo_rig

ELSEWHERE = Browser(address="192.0.2.7", words="another browser")
SOMEBODY = Person(id="somebody", name="Somebody")


class Guessing(PeopleTest):
    def setUp(self) -> None:
        super().setUp()
        with_passphrase(self.sessions, "Tom", "technician")
        with_passphrase(self.sessions, "Ada", "owner")

    def guess(self, name: str, browser: Browser = BROWSER) -> None:
        with self.assertRaises(WrongPassphrase):
            self.sign_ins.with_passphrase(name, ANOTHER, None, browser)

    def test_an_account_is_closed_for_a_while_from_everywhere_and_no_other(self) -> None:
        for _ in range(MOST_AN_ACCOUNT):
            self.guess("Tom")
        for browser in (BROWSER, ELSEWHERE):
            with self.assertRaises(TooManyAttempts) as refused:
                self.sign_ins.with_passphrase("TOM", PASSPHRASE, None, browser)
            self.assertTrue(0 < refused.exception.retry_after_s <= 15 * 60)
        self.sign_ins.with_passphrase("Ada", PASSPHRASE, None, BROWSER)
        with self.sessions.begin() as session:
            session.execute(text("UPDATE sign_in_attempt SET at = at - interval '15 minutes'"))
        self.sign_ins.with_passphrase("Tom", PASSPHRASE, None, BROWSER)

    def test_an_address_is_closed_for_any_name_and_for_links(self) -> None:
        with self.sessions.begin() as session:
            session.execute(
                text("INSERT INTO sign_in_attempt (id, subject) SELECT -n, :s FROM generate_series(1, :n) n"),
                {"n": MOST_AN_ADDRESS, "s": f"address {ELSEWHERE.address}"},
            )
        with self.assertRaises(TooManyAttempts):
            self.sign_ins.with_passphrase("Ada", PASSPHRASE, None, ELSEWHERE)
        with self.assertRaises(TooManyAttempts):
            self.sign_ins.with_link("no-such-link", ELSEWHERE, False)
        self.sign_ins.with_passphrase("Ada", PASSPHRASE, None, BROWSER)

    def test_success_counts_against_nobody(self) -> None:
        for _ in range(MOST_AN_ACCOUNT + 1):
            self.sign_ins.with_passphrase("Tom", PASSPHRASE, None, BROWSER)

    def test_guesses_at_once_are_all_counted(self) -> None:
        def guess(_: int) -> type[RuvakError]:
            try:
                self.sign_ins.with_passphrase("Tom", ANOTHER, None, BROWSER)
            except RuvakError as refused:
                return type(refused)
            return RuvakError

        with ThreadPoolExecutor(8) as pool:
            answers = list(pool.map(guess, range(MOST_AN_ACCOUNT + 6)))
        self.assertEqual((answers.count(WrongPassphrase), answers.count(TooManyAttempts)), (MOST_AN_ACCOUNT, 6))

    def test_a_name_that_nobody_has_is_answered_as_a_wrong_passphrase(self) -> None:
        self.guess("Nobody at all")
        for odd in ("%", "_om", "Tom' OR 1=1 --"):
            self.guess(odd)


class Browsers(PeopleTest):
    def test_each_is_listed_and_can_be_signed_out_by_its_person_alone(self) -> None:
        tom = with_passphrase(self.sessions, "Tom", "technician")
        ada = with_passphrase(self.sessions, "Ada", "technician")
        here = self.sign_ins.with_passphrase("Tom", PASSPHRASE, None, BROWSER)
        there = self.sign_ins.with_passphrase("Tom", PASSPHRASE, None, ELSEWHERE)
        mine = self.sign_ins.access(here)
        assert mine is not None
        listed = self.sign_ins.list_of(tom, mine.sign_in)
        self.assertEqual({(one.address, one.here) for one in listed}, {("127.0.0.1", True), ("192.0.2.7", False)})
        other = next(one for one in listed if not one.here)
        with self.assertRaises(NotFound):
            self.sign_ins.end(other.id, ada)
        self.sign_ins.end(other.id, tom)
        self.assertIsNone(self.sign_ins.access(there))
        self.assertIsNotNone(self.sign_ins.access(here))

    def test_a_sign_in_ends_and_use_prolongs_it_up_to_a_limit(self) -> None:
        token = signed_in(self.sessions, "Tom", "technician")

        def set_times(made: str, seen: str, ends: str) -> None:
            with self.sessions.begin() as session:
                session.execute(
                    text(
                        f"UPDATE sign_in SET made_at = now() - interval '{made}', seen_at = now() - interval '{seen}',"
                        f" ends_at = now() + interval '{ends}'"
                    )
                )

        def days_left() -> float:
            with self.sessions() as session:
                left = text("SELECT extract(epoch FROM ends_at - now()) / 86400 FROM sign_in")
                return float(session.execute(left).scalar_one())

        set_times("10 days", "2 minutes", "1 day")
        self.assertIsNotNone(self.sign_ins.access(token))
        self.assertAlmostEqual(days_left(), 30, 1)
        set_times("175 days", "2 minutes", "1 day")
        self.sign_ins.access(token)
        self.assertAlmostEqual(days_left(), 5, 1)
        set_times("1 day", "1 day", "-1 seconds")
        self.assertIsNone(self.sign_ins.access(token))


class TrustedComputers(PeopleTest):
    def test_whoever_is_on_duty_picks_their_name_but_no_owner(self) -> None:
        tom, ada = (with_passphrase(self.sessions, *who) for who in (("Tom", "helper"), ("Ada", "owner")))
        computer = self.sign_ins.trust_computer("Booth", "Ada")
        on_duty = self.sign_ins.on_duty(computer)
        assert on_duty is not None
        self.assertEqual((on_duty[0], [one.name for one in on_duty[1]]), ("Booth", ["Tom"]))
        found = self.sign_ins.access(self.sign_ins.at_trusted_computer(computer, tom, BROWSER))
        self.assertEqual(found and found.role, "helper")
        for token, person in ((computer, ada), (computer, "nobody"), ("another computer", tom)):
            with self.assertRaises(NotFound):
                self.sign_ins.at_trusted_computer(token, person, BROWSER)

    def test_trusted_no_longer_everybody_there_is_signed_out(self) -> None:
        tom = with_passphrase(self.sessions, "Tom", "helper")
        computer = self.sign_ins.trust_computer("Booth", "Ada")
        there = self.sign_ins.at_trusted_computer(computer, tom, BROWSER)
        elsewhere = self.sign_ins.with_passphrase("Tom", PASSPHRASE, None, ELSEWHERE)
        (listed,) = [one for one in self.sign_ins.list_computers() if one.name == "Booth"]
        self.sign_ins.stop_trusting(listed.id)
        self.assertIsNone(self.sign_ins.access(there))
        self.assertIsNotNone(self.sign_ins.access(elsewhere))
        self.assertIsNone(self.sign_ins.on_duty(computer))


class LinksToARig(PeopleTest):
    def setUp(self) -> None:
        super().setUp()
        self.links = Links(self.sessions)
        self.rig = self.rigs.import_rig(demo_rig(), SOMEBODY).rig.id
        self.other = self.rigs.import_rig(demo_rig(), SOMEBODY).rig.id

    def test_a_link_opens_one_rig_with_one_right(self) -> None:
        for gives, may, may_not in (("read", Right.READ, Right.RECORD), ("record", Right.RECORD, Right.PLAN)):
            made = self.links.add(self.rig, "Stage tablet", gives, 4, "Tom")  # type: ignore[arg-type]
            opened = self.sign_ins.with_link(made.token, BROWSER, has_account=False)
            found = self.sign_ins.access(opened.sign_in or "")
            assert found is not None
            self.assertEqual((found.person.name, found.rig, found.account), ("Stage tablet", self.rig, False))
            found.require(may, self.rig)
            for right, rig in ((may_not, self.rig), (may, self.other), (Right.PEOPLE, None)):
                with self.assertRaises(NotAllowed):
                    found.require(right, rig)

    def test_it_dies_at_once_when_revoked_and_with_its_rig_and_at_its_end(self) -> None:
        def opened() -> tuple[str, str]:
            made = self.links.add(self.rig, "Stage tablet", "read", 4, "Tom")
            return made.link.id, self.sign_ins.with_link(made.token, BROWSER, has_account=False).sign_in or ""

        link, token = opened()
        with self.assertRaises(NotFound):
            self.links.revoke(self.other, link)
        self.links.revoke(self.rig, link)
        self.assertIsNone(self.sign_ins.access(token))
        _, token = opened()
        with self.sessions.begin() as session:
            session.execute(text("UPDATE sign_in SET ends_at = now() - interval '1 second'"))
        self.assertIsNone(self.sign_ins.access(token))
        _, token = opened()
        self.rigs.delete(self.rig)
        self.assertIsNone(self.sign_ins.access(token))
        self.assertEqual(self.links.list_of(self.rig), [])

    def test_whoever_has_an_account_keeps_it(self) -> None:
        made = self.links.add(self.rig, "Stage tablet", "read", 4, "Tom")
        opened = self.sign_ins.with_link(made.token, BROWSER, has_account=True)
        self.assertEqual((opened.sign_in, opened.rig), (None, self.rig))

    def test_a_link_to_choose_a_passphrase_signs_nobody_in(self) -> None:
        made = self.people.add("Tom", "technician", "x")
        opened = self.sign_ins.with_link(made.token, BROWSER, has_account=False)
        self.assertEqual((opened.sign_in, opened.gives, opened.name, opened.rig), (None, "passphrase", "Tom", None))
