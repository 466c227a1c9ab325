"""Who rides along or reads along on a tour that is another's, and who is invited to."""

import datetime as dt
import secrets
import uuid
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any, Literal

from omnifer.store.accounts import digest_of
from omnifer.store.database import QUERIES, NotThereError, Pool, acting, one_of, uuid_of

INVITED_DAYS = 7
"""How long an invitation stands [d]; practice."""
NEWS_S, GONE_S = 3.0, 8.0
"""After how long who is here is noted again, and counts as gone [s]."""
Right = Literal["reads", "rides", "owns"]
"""What a rider may do with a tour, each what the one before may and more."""


@dataclass(frozen=True)
class Access:
    """Whose a tour is, as far as the rider who asks may know, and what the rider may do with it."""

    owner_id: int
    right: Right


@dataclass(frozen=True)
class SharedTour:
    """A tour of somebody else's, in a list."""

    id: str
    revision: int
    changed_at: dt.datetime
    name: str
    start_date: dt.date
    shared_by: str


class Members:
    """What one rider may see of members, for the length of a request."""

    def __init__(self, pool: Pool, rider_id: int) -> None:
        self.pool = pool
        self.rider_id = rider_id

    def access(self, tour_id: str) -> Access:
        """What the rider may do with a tour: of one that is nobody's or a stranger's, as of one of the rider's own."""
        try:
            key = uuid_of(tour_id)
        except NotThereError:
            return Access(self.rider_id, "owns")
        with acting(self.pool, self.rider_id) as connection:
            row = QUERIES.right_on(connection, tour_id=key, rider_id=self.rider_id)
        if row is None:
            return Access(self.rider_id, "owns")
        return Access(row["owner_id"], "rides" if row["rides"] else "reads")

    def tours(self) -> list[SharedTour]:
        """Tours of others on which the rider is a member, the last changed first."""
        with acting(self.pool, self.rider_id) as connection:
            rows = list(QUERIES.tours_along(connection, rider_id=self.rider_id))
        return [
            SharedTour(**(row | {"id": str(row["id"]), "start_date": dt.date.fromisoformat(row["start_date"])})) for row in rows
        ]

    def on(self, tour_id: str) -> Sequence[dict[str, Any]]:
        """The members of a tour, all of them for its owner, for a member itself alone."""
        with acting(self.pool, self.rider_id) as connection:
            return list(QUERIES.members(connection, tour_id=uuid_of(tour_id)))

    def invitations(self, tour_id: str) -> Sequence[dict[str, Any]]:
        """The invitations that stand; only the owner sees them."""
        with acting(self.pool, self.rider_id) as connection:
            return list(QUERIES.invitations(connection, tour_id=uuid_of(tour_id)))

    def invite(self, tour_id: str, rides: bool, told_to: str, invited_by: str) -> str:
        """Invite somebody to a tour of the rider's own: the secret of the link."""
        secret, key = secrets.token_urlsafe(32), uuid_of(tour_id)
        with acting(self.pool, self.rider_id) as connection:
            QUERIES.forget_invitations(connection, tour_id=key)
            QUERIES.invite(
                connection, digest=digest_of(secret), owner_id=self.rider_id, tour_id=key, rides=rides, told_to=told_to,
                invited_by=invited_by, days=INVITED_DAYS,
            )  # fmt: skip
        return secret

    def revoke(self, tour_id: str, invitation_id: str) -> None:
        """Take an invitation back. Raises NotThereError."""
        with acting(self.pool, self.rider_id) as connection:
            key = uuid_of(invitation_id, "invitation")
            if QUERIES.revoke_invitation(connection, tour_id=uuid_of(tour_id), invitation_id=key) == 0:
                raise NotThereError(invitation_id, "invitation")

    def forget_invitation(self, secret: str) -> None:
        """Take back an invitation that nobody could be told of."""
        with acting(self.pool, self.rider_id) as connection:
            QUERIES.use_invitation(connection, digest=digest_of(secret))

    def join(self, secret: str, known_as: str) -> uuid.UUID:
        """Take an invitation, which is used up: the tour. Who is a member already is one as this invitation says.

        Raises NotThereError where it does not stand, or is to a tour of the rider's own.
        """
        digest = digest_of(secret)
        with acting(self.pool, self.rider_id) as connection:
            QUERIES.know(connection, known=digest)
            found = QUERIES.invitation_known(connection, digest=digest)
            if found is None or found["owner_id"] == self.rider_id:
                raise NotThereError("", "invitation")
            QUERIES.leave_tour(connection, tour_id=found["tour_id"], rider_id=self.rider_id)
            QUERIES.join(connection, **found, rider_id=self.rider_id, known_as=known_as)
            QUERIES.use_invitation(connection, digest=digest)
        tour: uuid.UUID = found["tour_id"]
        return tour

    def leave(self, tour_id: str) -> None:
        """The rider is no member any more."""
        with acting(self.pool, self.rider_id) as connection:
            key = {"tour_id": uuid_of(tour_id), "rider_id": self.rider_id}
            QUERIES.forget_self(connection, **key)
            if QUERIES.leave_tour(connection, **key) == 0:
                raise NotThereError(tour_id)

    def remove(self, tour_id: str, member_id: str) -> None:
        """A member of a tour of the rider's own is one no more. Raises NotThereError."""
        with acting(self.pool, self.rider_id) as connection:
            if QUERIES.remove_member(connection, tour_id=uuid_of(tour_id), member_id=uuid_of(member_id, "companion")) == 0:
                raise NotThereError(member_id, "companion")

    def self_on(self, tour_id: str) -> str | None:
        """Which rider of the tour this one is."""
        with acting(self.pool, self.rider_id) as connection:
            row = QUERIES.self_on(connection, tour_id=uuid_of(tour_id), rider_id=self.rider_id)
        return None if row is None else str(one_of(row))

    def set_self(self, tour_id: str, owner_id: int, is_rider: str | None) -> None:
        """Say which rider of the tour this one is."""
        key = {"tour_id": uuid_of(tour_id), "rider_id": self.rider_id}
        with acting(self.pool, self.rider_id) as connection:
            if is_rider is not None:
                QUERIES.set_self(connection, **key, owner_id=owner_id, is_rider=is_rider)
            else:
                QUERIES.forget_self(connection, **key)

    def here(self, tour_id: str, owner_id: int, view: str) -> Sequence[dict[str, Any]]:
        """Say that the rider looks at a view of a tour: who else is there, and at which view."""
        key = {"tour_id": uuid_of(tour_id), "rider_id": self.rider_id}
        with acting(self.pool, self.rider_id) as connection:
            QUERIES.be_here(connection, **key, owner_id=owner_id, view=view, news_s=NEWS_S)
            return list(QUERIES.others_here(connection, **key, gone_s=GONE_S))
