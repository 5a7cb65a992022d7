"""Which passphrases are refused, and how they are kept."""

import unittest

from argon2 import PasswordHasher

from ruvak.service import passphrases
from ruvak.service.passphrases import LONGEST, WeakPassphrase
from tests.support.people import PASSPHRASE


class Passphrases(unittest.TestCase):
    def test_what_is_short_common_or_easily_guessed_is_refused_with_the_reason(self) -> None:
        for weak, reason in (
            ("short", "12 letters or more"),
            ("x" * (LONGEST + 1), "at most"),
            ("leavemealone", "most common"),
            ("Contortionist", "most common"),
            ("aaaaaaaaaaaaaaaaaaaa", "easily guessed"),
            ("qwertyuiopasdf", "easily guessed"),
            ("SundaySunday1234", "easily guessed"),
            ("Rosalind Archer", "easily guessed"),
        ):
            with self.subTest(weak), self.assertRaisesRegex(WeakPassphrase, reason):
                passphrases.hash_of(weak, "Rosalind Archer")

    def test_several_words_spaces_and_any_script_are_taken(self) -> None:
        for good in (PASSPHRASE, "θάλασσα και βουνό στο χωριό", "四つの静かな提灯と古い舞台の幕"):
            kept = passphrases.hash_of(good)
            self.assertTrue(passphrases.is_right(kept, good))
            self.assertFalse(passphrases.is_right(kept, good + "x"))
            self.assertFalse(passphrases.is_right(kept, good.upper() + "."))

    def test_it_is_kept_as_argon2id_with_a_salt_of_its_own(self) -> None:
        """RFC 9106, section 4, second recommended option: t = 3, p = 4, 64 MiB."""
        kept = passphrases.hash_of(PASSPHRASE)
        self.assertTrue(kept.startswith("$argon2id$v=19$m=65536,t=3,p=4$"), kept)
        self.assertNotEqual(kept, passphrases.hash_of(PASSPHRASE))

    def test_nobody_has_a_passphrase_that_was_never_chosen(self) -> None:
        self.assertFalse(passphrases.is_right(None, ""))
        self.assertFalse(passphrases.is_right(None, "the passphrase of nobody at all"))
        self.assertFalse(passphrases.is_right("not a hash", PASSPHRASE))

    def test_who_has_no_account_waits_as_long(self) -> None:
        self.assertFalse(PasswordHasher().check_needs_rehash(passphrases._NOBODYS))
