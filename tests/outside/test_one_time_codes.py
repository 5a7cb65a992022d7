"""One-time codes against the published test values, and the bits of the secrets that are handed out."""

import base64
import math
import unittest
from unittest.mock import patch

from ruvak.service import one_time_codes, tokens

RFC_6238_SECRET = base64.b32encode(b"12345678901234567890").decode()
RFC_6238_B = {59: "94287082", 1111111109: "07081804", 1111111111: "14050471", 1234567890: "89005924"}
"""RFC 6238, appendix B, SHA-1: seconds and eight digits, of which ours are the last six."""
STEP_S = 30
SP_800_63B_SECRET_BITS = 112
"""NIST SP 800-63B, 5.1.4.1: the least strength of an authenticator's key (from memory)."""


class Rfc6238(unittest.TestCase):
    def test_the_published_codes_are_taken_at_their_times(self) -> None:
        for seconds, code in RFC_6238_B.items():
            with patch("ruvak.service.one_time_codes._now_s", return_value=seconds):
                self.assertEqual(one_time_codes.step_of(RFC_6238_SECRET, code[-6:]), seconds // STEP_S)

    def test_the_code_before_and_the_one_after_are_taken_and_no_others(self) -> None:
        """RFC 6238, 5.2 recommends one step for the delay of typing; the one after is common practice for clocks."""
        for steps, taken in ((-2, False), (-1, True), (0, True), (1, True), (2, False)):
            with patch("ruvak.service.one_time_codes._now_s", return_value=1234567890 + steps * STEP_S):
                found = one_time_codes.step_of(RFC_6238_SECRET, RFC_6238_B[1234567890][-6:])
                self.assertEqual(found is not None, taken, steps)

    def test_a_code_is_taken_once(self) -> None:
        """RFC 6238, 5.2: the verifier must not accept the second attempt of the same code."""
        with patch("ruvak.service.one_time_codes._now_s", return_value=1234567890):
            code = RFC_6238_B[1234567890][-6:]
            step = one_time_codes.step_of(RFC_6238_SECRET, code)
            self.assertIsNone(one_time_codes.step_of(RFC_6238_SECRET, code, after=step))

    def test_secrets_are_long_enough(self) -> None:
        self.assertGreaterEqual(8 * len(base64.b32decode(one_time_codes.new_secret())), SP_800_63B_SECRET_BITS)


class Tokens(unittest.TestCase):
    def test_a_token_has_256_bits_and_none_comes_twice(self) -> None:
        many = {tokens.new_token() for _ in range(1000)}
        self.assertEqual(len(many), 1000)
        self.assertTrue(all(math.floor(len(token) * math.log2(64)) >= 256 for token in many))
