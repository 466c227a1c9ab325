"""What requests and answers of signing in look like, and how attempts are slowed."""

import datetime as dt
import hashlib
import math
import time
from typing import Annotated

from limits import RateLimitItem, parse
from limits.strategies import MovingWindowRateLimiter
from pydantic import Field, JsonValue

from omnifer.core.model.quantities import Name, Noun
from omnifer.store.attempts import CountedAttempts
from omnifer.store.database import Pool

Address = Annotated[
    str, Field(min_length=3, max_length=254, pattern=r"^[^@\s\x00-\x1f<>,;:\"()\[\]\\]+@[^@\s\x00-\x1f<>,;:\"()\[\]\\]+$",
               description="A mail address")
]  # fmt: skip
Password = Annotated[str, Field(max_length=1000)]
Secret = Annotated[str, Field(min_length=1, max_length=200, pattern=r"^[A-Za-z0-9_-]+$")]
SIGN_IN: dict[str, RateLimitItem] = {"address": parse("10/minute"), "place": parse("60/minute")}
LINKS: dict[str, RateLimitItem] = {"address": parse("3/hour"), "place": parse("20/hour")}
INVITATIONS: dict[str, RateLimitItem] = {"address": parse("20/hour"), "place": parse("60/hour")}
"""So many attempts of one account, and from one address of the network; practice."""


class Session(Noun):
    """Who is here, and the token that changes must carry."""

    rider: str | None = Field(description="The address of who is signed in; None: nobody yet")
    hosted: bool = Field(description="Whether riders sign in here; on a laptop the local rider always is")
    csrf_token: str


class AskLink(Noun):
    """Whom to send a link to."""

    address: Address


class SignIn(Noun):
    """An address and its password."""

    address: Address
    password: Password


class ByLink(Noun):
    """The secret of a link that came by mail, and the password that is wanted from now on."""

    link: Secret
    password: Password


class ByPasskey(Noun):
    """What a device signed, as the browser tells it."""

    credential: dict[str, JsonValue]


class NewPasskey(ByPasskey):
    """A passkey that a device made."""

    name: Name


class Options(Noun):
    """What a device is asked to make or to sign, as the browser takes it."""

    options: dict[str, JsonValue]


class OtherPassword(Noun):
    """The password of now, where there is one, and the next."""

    now: Password = ""
    password: Password


class Leaving(Noun):
    """Said by who wants the account and all that is in it to go."""

    address: Address
    password: Password = ""


class KeptPasskey(Noun):
    """A passkey of the account."""

    id: str
    name: str
    made_at: dt.datetime
    used_at: dt.datetime | None


class Device(Noun):
    """Where the rider is signed in."""

    id: str
    name: str
    made_at: dt.datetime
    seen_at: dt.datetime
    here: bool = Field(description="Whether it is the one that asks")


class AccountTold(Noun):
    """An account, as its rider is told of it."""

    address: str
    has_password: bool
    made_at: dt.datetime
    passkeys: list[KeptPasskey]
    devices: list[Device]


class SlowedDown(Exception):
    """Too many attempts; `wait_s` says for how long no more are taken."""

    def __init__(self, wait_s: int) -> None:
        super().__init__(f"wait {wait_s} s")
        self.wait_s = wait_s


class Attempts:
    """Attempts counted for all processes together, by account and by where they come from."""

    def __init__(self, pool: Pool) -> None:
        self._limiter = MovingWindowRateLimiter(CountedAttempts(pool))

    def one_more(self, limits: dict[str, RateLimitItem], kind: str, address: str, place: str) -> None:
        """Count one. Raises SlowedDown where there were too many."""
        whose = {"address": address.lower(), "place": place}
        for by, limit in limits.items():
            # Nobody who reads the table learns who tried.
            key = hashlib.sha256(f"{kind} {by} {whose[by]}".encode()).hexdigest()
            if whose[by] and not self._limiter.hit(limit, key):
                first = self._limiter.get_window_stats(limit, key).reset_time
                raise SlowedDown(max(math.ceil(first - time.time()), 1))
