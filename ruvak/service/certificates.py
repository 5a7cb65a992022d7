"""Certificates of the house's own network: an authority made on this machine, and what it vouches for.

A phone on which the authority is installed trusts the server as it trusts any other; the authority's key never leaves
this machine, and can vouch for nothing but what is asked of it here.
"""

import json
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from ipaddress import ip_address
from pathlib import Path

from cryptography import x509
from cryptography.hazmat.primitives import hashes
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.hazmat.primitives.serialization import Encoding, NoEncryption, PrivateFormat, load_pem_private_key
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

AUTHORITY_GOOD_FOR = timedelta(days=3650)
GOOD_FOR = timedelta(days=396)
"""Phones refuse certificates that are good for much longer than a year (common practice of their makers)."""
RENEWED_BEFORE = timedelta(days=30)
_AUTHORITY, _AUTHORITY_KEY, _CHAIN, _KEY, _NOTE = (
    "authority.crt",
    "authority.key",
    "server.pem",
    "server.key",
    "server.json",
)


@dataclass(frozen=True)
class HouseCertificate:
    """Files of a certificate, its key, and the authority to be installed on phones."""

    chain: Path
    key: Path
    authority: Path
    until: datetime


@dataclass(frozen=True)
class _Authority:
    certificate: x509.Certificate
    key: ec.EllipticCurvePrivateKey


def house_certificate(folder: Path, names: Sequence[str]) -> HouseCertificate:
    """A certificate for these names and addresses; the one there is, where it serves for another month. The authority
    stays the same, so that phones go on trusting it."""
    folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    wanted = sorted(set(names))
    until = _known_until(folder, wanted)
    if until is None:
        key = ec.generate_private_key(ec.SECP256R1())
        issued = _issued(_authority(folder), wanted, key)
        until = issued.not_valid_after_utc
        _write(folder / _KEY, _pem_of(key))
        _write(folder / _CHAIN, issued.public_bytes(Encoding.PEM))
        _write(folder / _NOTE, json.dumps({"names": wanted, "until": until.isoformat()}).encode())
    return HouseCertificate(folder / _CHAIN, folder / _KEY, folder / _AUTHORITY, until)


def _known_until(folder: Path, wanted: list[str]) -> datetime | None:
    """Until when the present one is good; None where there is none that serves."""
    try:
        note = json.loads((folder / _NOTE).read_text(encoding="utf-8"))
        until = datetime.fromisoformat(note["until"])
    except (OSError, ValueError, KeyError):
        return None
    there = all((folder / file).exists() for file in (_CHAIN, _KEY, _AUTHORITY))
    return until if there and note.get("names") == wanted and until - datetime.now(UTC) > RENEWED_BEFORE else None


def _authority(folder: Path) -> _Authority:
    """The house's own; made where there is none yet."""
    certificate, key = folder / _AUTHORITY, folder / _AUTHORITY_KEY
    if not (certificate.exists() and key.exists()):
        made = ec.generate_private_key(ec.SECP256R1())
        name = _named("Ruvak, this house's own authority")
        usage = x509.KeyUsage(False, False, False, False, False, True, True, False, False)
        signed = (
            _begun(name, name, made.public_key(), AUTHORITY_GOOD_FOR)
            .add_extension(x509.BasicConstraints(ca=True, path_length=0), critical=True)
            .add_extension(usage, critical=True)
            .sign(made, hashes.SHA256())
        )
        _write(key, _pem_of(made))
        _write(certificate, signed.public_bytes(Encoding.PEM))
    loaded = load_pem_private_key(key.read_bytes(), None)
    if not isinstance(loaded, ec.EllipticCurvePrivateKey):
        raise ValueError(f"{key} is no key of this program's.")
    return _Authority(x509.load_pem_x509_certificate(certificate.read_bytes()), loaded)


def _issued(authority: _Authority, names: Sequence[str], key: ec.EllipticCurvePrivateKey) -> x509.Certificate:
    """A server's certificate for these names and addresses (RFC 5280; serverAuth alone)."""
    usage = x509.KeyUsage(True, False, False, False, False, False, False, False, False)
    of_authority = x509.AuthorityKeyIdentifier.from_issuer_public_key(authority.key.public_key())
    return (
        _begun(_named(names[0]), authority.certificate.subject, key.public_key(), GOOD_FOR)
        .add_extension(x509.SubjectAlternativeName([_alternative(name) for name in names]), critical=False)
        .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
        .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
        .add_extension(usage, critical=True)
        .add_extension(of_authority, critical=False)
        .sign(authority.key, hashes.SHA256())
    )


def _begun(
    subject: x509.Name, issuer: x509.Name, key: ec.EllipticCurvePublicKey, good_for: timedelta
) -> x509.CertificateBuilder:
    now = datetime.now(UTC)
    return (
        x509.CertificateBuilder()
        .subject_name(subject)
        .issuer_name(issuer)
        .public_key(key)
        .serial_number(x509.random_serial_number())
        # Phones' clocks are off.
        .not_valid_before(now - timedelta(days=1))
        .not_valid_after(now + good_for)
        .add_extension(x509.SubjectKeyIdentifier.from_public_key(key), critical=False)
    )


def _named(name: str) -> x509.Name:
    return x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, name[:64])])


def _alternative(name: str) -> x509.GeneralName:
    try:
        return x509.IPAddress(ip_address(name))
    except ValueError:
        return x509.DNSName(name)


def _pem_of(key: ec.EllipticCurvePrivateKey) -> bytes:
    return key.private_bytes(Encoding.PEM, PrivateFormat.PKCS8, NoEncryption())


def _write(file: Path, contents: bytes) -> None:
    """Readable by this user alone."""
    file.touch(mode=0o600)
    file.chmod(0o600)
    file.write_bytes(contents)
