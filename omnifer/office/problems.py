"""What is said of each kind of trouble: what is wrong, where, and what to do (RFC 9457)."""

import errno
import logging

import psycopg
from pydantic import BaseModel, Field, ValidationError

from omnifer.formats.problem import InputProblem, what_of, where_of
from omnifer.office.signing import SlowedDown
from omnifer.outside.asking import Trouble
from omnifer.store.database import AWAY, NotThereError, StaleError
from omnifer.store.members import Right
from omnifer.store.tours import UnreadableError

log = logging.getLogger(__name__)


class Problem(BaseModel):
    """An RFC 9457 problem: what is wrong, where, and what to do."""

    type: str = "about:blank"
    title: str
    status: int
    detail: str
    where: str = ""
    mend: str = ""
    current_revision: int | None = None
    wait_s: int | None = Field(None, description="For how long the same is not taken again [s]")
    again: bool = Field(False, description="The same may be asked again by itself in a moment")


class TooMany(Exception):
    """As much of something is under way as there may be at a time. `most` says how many, `what` of what."""

    def __init__(self, most: int, what: str = "searches of yours") -> None:
        super().__init__(f"at most {most}")
        self.most, self.what = most, what


class SignInFirst(Exception):
    """Nobody is signed in who may ask this."""


class NotYours(Exception):
    """A member of a tour may not do this with it; `right` says what it may."""

    def __init__(self, right: Right) -> None:
        super().__init__(right)
        self.right = right


class BrokenOff(Exception):
    """An errand ended without an answer."""


def problem_of(error: Exception) -> Problem:
    """A trouble as its reader is told of it; what nobody foresaw is noted with its trace."""
    match error:
        case InputProblem():
            return Problem(status=422, title="This cannot be taken", detail=error.what, where=error.where, mend=error.mend)
        case ValidationError():
            first = error.errors()[0]
            more = f" ({error.error_count() - 1} more)" if error.error_count() > 1 else ""
            mend = "Change it and try again; nothing was kept."
            words = f"{what_of(first)}{more}"
            return Problem(status=422, title="This cannot be taken", detail=words, where=where_of(first), mend=mend)
        case UnreadableError():
            return Problem(
                status=422,
                title="Kept, but not readable",
                detail=f"The tour is kept, but this Omnifer cannot read it as it stands after \u201c{error.what}\u201d: {error}.",
                mend="Nothing is lost: save it as a file, go back to the state before, or open it with a newer Omnifer.",
                current_revision=error.revision,
            )
        case NotThereError():
            detail, mend = f"There is no such {error.kind}.", f"Reload the page and choose a {error.kind} that is there."
            return Problem(status=404, title="Not there", detail=detail, where=str(error)[:80], mend=mend)
        case StaleError():
            return Problem(
                status=409,
                title="Changed elsewhere",
                detail="Another window has changed the same part of this tour since this one read it. Nothing of it is lost.",
                mend="Show the newer state, then make your change again.",
                current_revision=error.current,
            )
        case NotYours(right="reads"):
            words, mend = "You read along on this tour; riders of it change it.", "Ask its owner to let you ride along."
            return Problem(status=403, title="Not yours to do", detail=words, mend=mend)
        case NotYours():
            words, mend = "Only the owner of this tour may do that.", "Ask its owner, or work on a tour of your own."
            return Problem(status=403, title="Not yours to do", detail=words, mend=mend)
        case Trouble():
            mend = "Ask again later; what it told so far is kept and not asked again."
            return Problem(status=502, title="Nothing was told", detail=str(error), mend=mend)
        case TooMany():
            detail = f"{error.most} {error.what} are under way or waiting already; no more are taken at a time."
            return Problem(status=429, title="Enough at a time", detail=detail, mend="Wait for one of them, or stop one.")
        case SignInFirst():
            return Problem(status=401, title="Sign in first", detail="Nobody is signed in on this device.", mend="Sign in.")
        case SlowedDown():
            detail = f"Too many attempts in a short while: no more are taken for {error.wait_s} s."
            return Problem(status=429, title="Too often", detail=detail, mend="Wait, then try again.", wait_s=error.wait_s)
        case BrokenOff():
            detail, mend = "The worker that did this ended before it said that it was done.", "Reload the page, then ask again."
            return Problem(status=503, title="Broken off", detail=detail, mend=mend)
        case _ if _disk_full(error):
            detail = "The disk of the server is full: nothing of this was kept. What was kept before is safe and can be read."
            return Problem(status=507, title="The disk is full", detail=detail, mend="Free some space, then send it again.")
        case BlockingIOError() | TimeoutError():
            detail, mend = "The rest of the request did not come in time.", "Send it again, over a better connection."
            return Problem(status=408, title="Too slow", detail=detail, mend=mend)
        case _ if isinstance(error, AWAY):
            detail = "The database does not answer just now. What was kept before is safe."
            mend = "It is started again by itself; try again in a few seconds."
            return Problem(status=503, title="Back in a moment", detail=detail, mend=mend, again=True)
        case _:
            log.error("unforeseen trouble", exc_info=error)
            detail, mend = "Something unforeseen went wrong. What was kept before is safe.", "Reload to see what is kept."
            return Problem(status=500, title="Omnifer stumbled", detail=detail, mend=mend)


def _disk_full(error: BaseException | None) -> bool:
    """Whether a trouble is, or comes of, a disk without space."""
    while error is not None:
        if isinstance(error, psycopg.errors.DiskFull) or getattr(error, "errno", None) in (errno.ENOSPC, errno.EDQUOT):
            return True
        error = error.__cause__
    return False
