"""What requests and answers about companions look like."""

import datetime as dt
from typing import Annotated, Literal

from pydantic import Field

from omnifer.core.model.quantities import Id, Noun
from omnifer.office.signing import Address, Secret
from omnifer.store.members import Right


class Invite(Noun):
    """Whom to invite; without an address the link is handed on by its owner."""

    rides: bool
    address: Address | None = None


class Invited(Noun):
    """The link of an invitation; it is told once."""

    link: str


class BySecret(Noun):
    """The secret of an invitation's link."""

    invitation: Secret


class Joined(Noun):
    """The tour that is shared now."""

    tour_id: str


class Companion(Noun):
    """Who rides along or reads along."""

    id: str
    known_as: str
    right: Literal["rides", "reads"]
    joined_at: dt.datetime


class Invitation(Noun):
    """An invitation that stands."""

    id: str
    right: Literal["rides", "reads"]
    told_to: str = Field(description="Empty where its owner hands the link on")
    until: dt.datetime


class Companions(Noun):
    """Who is on a tour, as far as the rider who asks is told."""

    right: Right = Field(description="What the rider who asks may do")
    owner: str = Field(description="Address of the tour's owner")
    is_rider: str | None = Field(description="Which rider of the tour the one who asks is")
    companions: list[Companion] = Field(description="All of them for the owner; a companion is told of itself alone")
    invitations: list[Invitation]


class Self(Noun):
    """Which rider of the tour one is; None, none of them."""

    is_rider: Id | None


class View(Noun):
    """Which view of a tour one looks at."""

    view: Annotated[str, Field(max_length=20, pattern=r"^[a-z]*$")]


class OtherHere(Noun):
    """Somebody else who looks at the tour just now."""

    known_as: str
    is_rider: str | None
    view: str


class Here(Noun):
    """How far the tour is, and who else is there."""

    revision: int
    others: list[OtherHere]
