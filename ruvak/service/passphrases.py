"""Passphrases: which are too easy, and their hashes. Argon2id with the parameters that RFC 9106 recommends second."""

from threading import BoundedSemaphore

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError
from zxcvbn import zxcvbn
from zxcvbn.frequency_lists import FREQUENCY_LISTS

from ruvak.core.errors import RuvakError

SHORTEST, LONGEST = 12, 128
HARD_ENOUGH = 3
"""Of zxcvbn's 0 to 4: more than 10^8 guesses."""
_MOST_LOOKED_AT = 72
"""zxcvbn's time grows with the square of the length; what is longer is hard enough by its beginning or not at all."""
_HASHER = PasswordHasher()
_NOBODYS = "$argon2id$v=19$m=65536,t=3,p=4$yxgz5ZcMKDwE/2lNBKT4Gw$BwCFXK+RDNg7koS6AM94f2l6eMgH/zSJ3ays8/LcWQc"
"""A hash of a passphrase that nobody has, with the same parameters."""
_together = BoundedSemaphore(2)
"""Each hash takes 64 MB while it is computed: many sign-ins at once must not take the machine's memory."""


class WeakPassphrase(RuvakError):
    """A passphrase that is too short, too common, or easily guessed; the message says which."""

    code = "weak_passphrase"


def hash_of(passphrase: str, *about: str) -> str:
    """What is kept of a new passphrase. `about`: names that must not be most of it. Raises WeakPassphrase."""
    if len(passphrase) < SHORTEST:
        raise WeakPassphrase(f"A passphrase has {SHORTEST} letters or more: take four or five words.")
    if len(passphrase) > LONGEST:
        raise WeakPassphrase(f"A passphrase has {LONGEST} letters at most.")
    if passphrase.lower() in FREQUENCY_LISTS["passwords"]:
        raise WeakPassphrase("This passphrase is among the most common ones; take four or five words of your own.")
    score = zxcvbn(passphrase[:_MOST_LOOKED_AT], user_inputs=["ruvak", *about])["score"]
    if score < HARD_ENOUGH:
        raise WeakPassphrase("This passphrase is easily guessed; take four or five words that do not belong together.")
    with _together:
        return _HASHER.hash(passphrase)


def is_right(kept: str | None, passphrase: str) -> bool:
    """Whether it is the passphrase of this hash. It takes as long where there is no hash, so that nobody learns from
    the time whose name has an account."""
    with _together:
        try:
            return bool(_HASHER.verify(kept or _NOBODYS, passphrase[:LONGEST])) and kept is not None
        except (VerificationError, InvalidHashError):
            return False
