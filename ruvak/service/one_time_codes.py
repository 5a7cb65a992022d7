"""One-time codes by RFC 6238, from an authenticator on the person's phone: six digits, thirty seconds each."""

import time

import pyotp

ISSUER = "Ruvak"
_STEP_S = 30
_STEPS_LATE = 1
"""Phones' clocks are off, and typing takes time: the code before and the one after are taken too."""


def new_secret() -> str:
    """160 bits, in the letters that authenticators take."""
    return pyotp.random_base32()


def address_of(secret: str, name: str) -> str:
    """What an authenticator reads from a QR code."""
    return pyotp.TOTP(secret).provisioning_uri(name=name, issuer_name=ISSUER)


def step_of(secret: str, code: str, after: int | None = None) -> int | None:
    """The time step whose code this is, later than `after`; None where it is none of the present ones."""
    digits = "".join(code.split())
    totp, now = pyotp.TOTP(secret), int(_now_s()) // _STEP_S
    for step in range(now - _STEPS_LATE, now + _STEPS_LATE + 1):
        is_later = after is None or step > after
        if is_later and pyotp.utils.strings_equal(totp.generate_otp(step), digits):
            return step
    return None


def _now_s() -> float:
    """Seconds since 1970, UTC; tests set it to the times of published codes."""
    return time.time()
