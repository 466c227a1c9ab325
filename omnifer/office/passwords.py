"""Passwords: kept as argon2id, refused where they are short or everybody's, and as slow where there is no account."""

from functools import cache

from argon2 import PasswordHasher
from argon2.exceptions import InvalidHashError, VerificationError

from omnifer.formats.problem import InputProblem

SHORTEST, LONGEST = 10, 200
"""Characters [-]: length and no rules of composition (NIST SP 800-63B-4, 3.1.1.2; OWASP ASVS 5.0, 6.2)."""
_HASHER = PasswordHasher(time_cost=2, memory_cost=19 * 1024, parallelism=1)
"""Argon2id with 19 MiB, two passes, one lane: OWASP Password Storage Cheat Sheet, first choice."""


@cache
def _everybodys() -> frozenset[str]:
    """The 30,000 passwords found most often where passwords were lost, as the package zxcvbn ships them."""
    from zxcvbn.frequency_lists import FREQUENCY_LISTS  # type: ignore[import-untyped]

    return frozenset(FREQUENCY_LISTS["passwords"])


def checked(password: str, address: str) -> str:
    """A password that will do. Raises InputProblem in words."""
    plain = password.casefold()
    if not SHORTEST <= len(password) <= LONGEST:
        raise InputProblem(f"A password has {SHORTEST} to {LONGEST} characters", "password", "Three or four words do well.")
    if plain in _everybodys() or len(set(plain)) < 4 or plain in (address.casefold(), address.casefold().partition("@")[0]):
        raise InputProblem("This password is one of those that are tried first", "password", "Choose one that nobody else has.")
    return password


def kept(password: str) -> str:
    """What is kept of it."""
    return _HASHER.hash(password)


@cache
def _nobodys() -> str:
    return _HASHER.hash("nobody has this one")


def fits(password: str, kept_as: str | None) -> bool:
    """Whether it is the one; as long in coming where there is none."""
    try:
        _HASHER.verify(kept_as or _nobodys(), password[:LONGEST])
    except (VerificationError, InvalidHashError):
        return False
    return kept_as is not None


def outdated(kept_as: str) -> bool:
    """Whether it is kept by parameters of another time."""
    return _HASHER.check_needs_rehash(kept_as)
