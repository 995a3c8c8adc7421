"""Secrets of links: an address contains the code, a row only its hash.

A code is derived from the server's secret key and the row's random nonce (HMAC with SHA-256, RFC 2104), so that its
owner can see the link again. A reader of the database without the key can neither compute a code nor find the code of a
hash.
"""

import hashlib
import hmac
import secrets

from django.conf import settings

TYPED = "abcdefghjkmnpqrstuvwxyz23456789"
"""Signs of a code that is typed from a screen: none is easily taken for another."""
TYPED_LENGTH = 12
"""Twelve of 31 signs are 59 bits, for an address that lives at most a day."""


def new_nonce() -> str:
    """A random value for a row, 128 bits."""
    return secrets.token_hex(16)


def _keyed(purpose: str, words: str) -> bytes:
    return hmac.digest(settings.SECRET_KEY.encode(), f"ritornel {purpose}\0{words}".encode(), hashlib.sha256)


def code_of(purpose: str, nonce: str) -> str:
    """The code for links, 192 bits as 48 hexadecimal digits."""
    return _keyed(f"code of {purpose}", nonce)[:24].hex()


def typed_code_of(purpose: str, nonce: str) -> str:
    """The code for addresses that may be typed."""
    number = int.from_bytes(_keyed(f"code of {purpose}", nonce), "big")
    signs = []
    for _ in range(TYPED_LENGTH):
        number, sign = divmod(number, len(TYPED))
        signs.append(TYPED[sign])
    return "".join(signs)


def hash_code(code: str) -> str:
    """The hash of a code: rows keep it, and codes are looked up by it."""
    return _keyed("hash of a code", code).hex()
