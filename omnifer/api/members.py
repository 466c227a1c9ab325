"""Companions of a tour, where Omnifer is hosted: invited by its owner, one by one."""

from typing import Literal

from flask import Blueprint, Response, current_app, g

from omnifer.api.accounts import hosting, mine, slowed
from omnifer.api.desk import answer, body, desk, rider_here
from omnifer.api.openapi import operation
from omnifer.formats.problem import InputProblem
from omnifer.office import companions, signing
from omnifer.outside.asking import Trouble
from omnifer.store.database import NotThereError
from omnifer.store.members import INVITED_DAYS, Members

blueprint = Blueprint("members", __name__)
MOST_COMPANIONS = 20
"""Members of a tour and invitations to it [-]; practice."""
STALE = InputProblem("This invitation is not good any more", "invitation", "Ask for another one; each is good once.")


def members() -> Members:
    """What the rider who asks may see of members; refused where nobody signs in."""
    hosting()
    return Members(current_app.extensions["omnifer"].pool, rider_here().owner_id)


def _right(rides: bool) -> Literal["rides", "reads"]:
    return "rides" if rides else "reads"


@blueprint.get("/api/tours/<tour_id>/companions")
@operation(gives=companions.Companions, problems=(404,))
def list_companions(tour_id: str) -> Response:
    """Who rides along and reads along, and who is invited."""
    there = members()
    desk().tours.revision(tour_id)
    on = there.on(tour_id)
    told = companions.Companions(
        right=g.access.right,
        owner=mine().address if g.access.right == "owns" else on[0]["invited_by"],
        is_rider=there.self_on(tour_id),
        companions=[
            companions.Companion(id=str(m["id"]), known_as=m["known_as"], right=_right(m["rides"]), joined_at=m["joined_at"])
            for m in on
        ],
        invitations=[
            companions.Invitation(id=str(i["id"]), right=_right(i["rides"]), told_to=i["told_to"], until=i["until"])
            for i in there.invitations(tour_id)
        ],
    )
    return answer(told)


@blueprint.post("/api/tours/<tour_id>/invitations")
@operation(gives=companions.Invited, takes=companions.Invite, status=201, problems=(404, 422, 502))
def invite(tour_id: str) -> Response:
    """Invite somebody to ride along or to read along: by mail, or by a link to hand on."""
    there = members()
    name = desk().tours.read(tour_id).sheet.name
    wanted = companions.Invite.model_validate_json(body())
    if len(there.on(tour_id)) + len(there.invitations(tour_id)) >= MOST_COMPANIONS:
        words = f"A tour has at most {MOST_COMPANIONS} companions and invitations"
        raise InputProblem(words, "", "Take one back, or end one.")
    me, does = mine().address, "ride" if wanted.rides else "read"
    if wanted.address:
        slowed(signing.INVITATIONS, "invite", me)
    secret = there.invite(tour_id, wanted.rides, wanted.address or "", me)
    link = f"{hosting().site}/join#invitation={secret}"
    if wanted.address:
        try:
            hosting().mail.send(
                wanted.address,
                f"Omnifer: {does} along on {name}",
                f"{me} invites you to {does} along on the tour \u201c{name}\u201d.\n\n{link}\n\n"
                f"The link is good once, for {INVITED_DAYS} days. Where you have no account there yet, it is made first.\n",
            )
        except Trouble:
            there.forget_invitation(secret)
            raise
    return answer(companions.Invited(link=link), 201)


@blueprint.delete("/api/tours/<tour_id>/invitations/<invitation_id>")
@operation(status=204, problems=(404,))
def revoke_invitation(tour_id: str, invitation_id: str) -> Response:
    """Take an invitation back."""
    members().revoke(tour_id, invitation_id)
    return Response(status=204)


@blueprint.post("/api/invitations")
@operation(gives=companions.Joined, takes=companions.BySecret, problems=(404, 422))
def join() -> Response:
    """Take an invitation: the tour is among one's own from now on."""
    wanted = companions.BySecret.model_validate_json(body())
    try:
        return answer(companions.Joined(tour_id=str(members().join(wanted.invitation, mine().address))))
    except NotThereError:
        raise STALE from None


@blueprint.delete("/api/tours/<tour_id>/companions/<companion_id>")
@operation(status=204, problems=(404,))
def remove_companion(tour_id: str, companion_id: str) -> Response:
    """A companion is one no more."""
    members().remove(tour_id, companion_id)
    return Response(status=204)


@blueprint.delete("/api/tours/<tour_id>/self")
@operation(status=204, problems=(404,))
def leave_tour(tour_id: str) -> Response:
    """Ride or read along no more."""
    members().leave(tour_id)
    return Response(status=204)


@blueprint.put("/api/tours/<tour_id>/self")
@operation(takes=companions.Self, status=204, problems=(404, 422))
def this_is_me(tour_id: str) -> Response:
    """Say which rider of the tour one is."""
    there = members()
    riders = {rider.id: rider.name for rider in desk().tours.read(tour_id).sheet.riders}
    wanted = companions.Self.model_validate_json(body()).is_rider
    if wanted is not None and wanted not in riders:
        raise InputProblem("No such rider is on this tour", "is_rider", f"Choose one of {', '.join(riders.values())}.")
    there.set_self(tour_id, g.access.owner_id, wanted)
    return Response(status=204)


@blueprint.post("/api/tours/<tour_id>/here")
@operation(gives=companions.Here, takes=companions.View, problems=(404, 422))
def here(tour_id: str) -> Response:
    """Say which view of a tour one looks at: how far the tour is, and who else is there."""
    there = members()
    revision = desk().tours.revision(tour_id)
    view = companions.View.model_validate_json(body()).view
    others = [companions.OtherHere(**other) for other in there.here(tour_id, g.access.owner_id, view)]
    return answer(companions.Here(revision=revision, others=others))
