"""Secrets that are handed out once and kept as hashes: of sign-ins, links and trusted computers."""

import hashlib
import secrets
import uuid


def new_id() -> str:
    """A name in addresses; it opens nothing."""
    return uuid.uuid4().hex


def new_token() -> str:
    """256 bits, in letters that go into an address as they are."""
    return secrets.token_urlsafe(32)


def hash_of(token: str) -> bytes:
    """What is kept of it. Plain SHA-256 serves: nobody guesses 256 random bits."""
    return hashlib.sha256(token.encode()).digest()
