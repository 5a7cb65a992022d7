"""Certificates of the house's own network, looked at with another library's eyes."""

import json
import ssl
import stat
import tempfile
import unittest
from datetime import UTC, datetime, timedelta
from pathlib import Path
from typing import Any

from cryptography import x509
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID
from cryptography.x509.verification import PolicyBuilder, Store

from ruvak.service.certificates import house_certificate

NAMES = ("127.0.0.1", "localhost", "192.168.7.20")


class Certificates(unittest.TestCase):
    def setUp(self) -> None:
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name) / "certificates"
        self.made = house_certificate(self.folder, NAMES)

    def chain(self) -> list[x509.Certificate]:
        return x509.load_pem_x509_certificates(self.made.chain.read_bytes())

    def test_the_authority_vouches_for_its_names_and_for_no_other(self) -> None:
        """RFC 5280, by the verifier of a library that made neither."""
        authority = x509.load_pem_x509_certificate(self.made.authority.read_bytes())
        leaf, *between = self.chain()
        names = leaf.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
        self.assertEqual(names.get_values_for_type(x509.DNSName), ["localhost"])
        self.assertEqual({str(ip) for ip in names.get_values_for_type(x509.IPAddress)}, {"127.0.0.1", "192.168.7.20"})
        verifier = PolicyBuilder().store(Store([authority])).build_server_verifier(x509.DNSName("localhost"))
        verifier.verify(leaf, between)
        with self.assertRaises(x509.verification.VerificationError):
            other = PolicyBuilder().store(Store([authority])).build_server_verifier(x509.DNSName("elsewhere.example"))
            other.verify(leaf, between)

    def test_phones_take_it(self) -> None:
        """Common practice of their makers: a year at most and some days, an alternative name, for servers, 256 bits."""
        leaf, *_ = self.chain()
        self.assertLess(leaf.not_valid_after_utc - datetime.now(UTC), timedelta(days=398))
        usage = leaf.extensions.get_extension_for_class(x509.ExtendedKeyUsage).value
        self.assertIn(ExtendedKeyUsageOID.SERVER_AUTH, usage)
        key = leaf.public_key()
        self.assertTrue(isinstance(key, ec.EllipticCurvePublicKey) and key.key_size >= 256)

    def test_keys_are_for_this_user_alone(self) -> None:
        for file in self.folder.iterdir():
            self.assertEqual(stat.S_IMODE(file.stat().st_mode), 0o600, file.name)
        self.assertEqual(stat.S_IMODE(self.folder.stat().st_mode), 0o700)

    def test_it_stays_until_a_month_before_its_end_and_the_authority_for_good(self) -> None:
        before, authority = self.made.chain.read_bytes(), self.made.authority.read_bytes()
        self.assertEqual(house_certificate(self.folder, NAMES).chain.read_bytes(), before)
        note = self.folder / "server.json"
        said: dict[str, Any] = json.loads(note.read_text())
        note.write_text(json.dumps({**said, "until": (datetime.now(UTC) + timedelta(days=29)).isoformat()}))
        self.assertNotEqual(house_certificate(self.folder, NAMES).chain.read_bytes(), before)
        moved = house_certificate(self.folder, (*NAMES[:2], "10.0.0.9"))
        self.assertEqual(moved.authority.read_bytes(), authority)
        note.write_text("not json")
        self.assertEqual(house_certificate(self.folder, NAMES).authority.read_bytes(), authority)

    def test_a_server_can_use_it(self) -> None:
        context = ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER)
        context.load_cert_chain(self.made.chain, self.made.key)
