"""Signing in, and one's own account, where Omnifer is hosted. On a laptop the local rider is always there."""

from typing import TYPE_CHECKING, Any

from flask import Blueprint, Response, abort, current_app, g, request, session
from flask_wtf.csrf import generate_csrf

from omnifer.api.desk import answer, body, desk, rider_here
from omnifer.api.exports import attachment
from omnifer.api.openapi import operation
from omnifer.formats.problem import InputProblem
from omnifer.hosting import Hosting
from omnifer.office import passwords, signing
from omnifer.office.archive import archive_of
from omnifer.store.accounts import Account, Accounts
from omnifer.store.database import LOCAL_RIDER

if TYPE_CHECKING:
    from omnifer.office.passkeys import Passkeys

blueprint = Blueprint("accounts", __name__)
_WAYS_IN = ("session_now", "ask_link", "sign_in", "sign_in_by_link", "passkey_wanted", "sign_in_by_passkey")
OPEN = frozenset(f"accounts.{name}" for name in _WAYS_IN)
"""What may be asked by who is not signed in."""
FRESH_S = 600
"""So long after signing in an account without a password may be let go [s]."""
WRONG = InputProblem("Address and password do not belong together", "password", "Try again, or ask for a link by mail.")


def hosting() -> Hosting:
    """How it is hosted; refused where it serves this machine alone."""
    found: Hosting | None = current_app.extensions["hosting"]
    if found is None:
        abort(404, "Nobody signs in on this machine: its local rider is always there.")
    return found


def accounts() -> Accounts:
    """All accounts; refused where there are none."""
    hosting()
    return Accounts(current_app.extensions["omnifer"].pool)


def mine() -> Account:
    """The account of who asks. Raises NotThereError."""
    return accounts().of(rider_here().owner_id)


def cookie_name(secure: bool) -> str:
    """What the cookie of a signed-in device is called: under TLS browsers see that only this host set it (RFC 6265bis, 4.1.3)."""
    return "__Host-omnifer-rider" if secure else "omnifer-rider"


@blueprint.get("/api/session")
@operation(gives=signing.Session)
def session_now() -> Response:
    """Who is here, and the token that changes must carry."""
    hosted = current_app.extensions["hosting"] is not None
    rider: str | None = LOCAL_RIDER
    if hosted:
        rider = accounts().of(g.rider.owner_id).address if g.get("rider") else None
    return answer(signing.Session(rider=rider, hosted=hosted, csrf_token=generate_csrf()))


@blueprint.post("/api/session/link")
@operation(takes=signing.AskLink, status=204, problems=(404, 422, 502))
def ask_link() -> Response:
    """Send a link by mail: to make an account, or where there is one to choose another password. Alike for both."""
    wanted = signing.AskLink.model_validate_json(body())
    slowed(signing.LINKS, "link", wanted.address)
    link = f"{hosting().site}/sign-in#link={accounts().good_once('link', wanted.address)}"
    hosting().mail.send(
        wanted.address,
        "Omnifer: your link",
        f"Somebody, you we hope, asked for a link to sign in at {hosting().site}.\n\n{link}\n\n"
        "It is good once, for an hour. There you choose a password; an account is made where there is none yet.\n"
        "If it was not you, do nothing: without the link nothing changes.\n",
    )
    return Response(status=204)


@blueprint.post("/api/session/by-link")
@operation(gives=signing.Session, takes=signing.ByLink, problems=(404, 422))
def sign_in_by_link() -> Response:
    """Choose a password by the link that came by mail: the account is made or changed, and this device signed in alone."""
    wanted = signing.ByLink.model_validate_json(body())
    slowed(signing.SIGN_IN, "by link", "")
    address = accounts().looked_at("link", wanted.link)
    password = None if address is None else passwords.checked(wanted.password, address)
    # The link is spent with the password that it was good for, and not with one that is refused.
    if address is None or password is None or accounts().used_up("link", wanted.link) is None:
        raise InputProblem("This link is not good any more", "link", "Ask for another one.")
    owner_id = accounts().made(address, passwords.kept(password))
    accounts().end_others(owner_id)
    return _signed_in(owner_id)


@blueprint.post("/api/session")
@operation(gives=signing.Session, takes=signing.SignIn, problems=(404, 422))
def sign_in() -> Response:
    """Sign in with a password."""
    wanted = signing.SignIn.model_validate_json(body())
    slowed(signing.SIGN_IN, "sign in", wanted.address)
    there = accounts().known_as(wanted.address)
    if not passwords.fits(wanted.password, there.password if there else None) or there is None:
        raise WRONG
    if there.password and passwords.outdated(there.password):
        accounts().set_password(there.owner_id, passwords.kept(wanted.password))
    return _signed_in(there.owner_id)


@blueprint.post("/api/session/passkey/options")
@operation(gives=signing.Options, problems=(404,))
def passkey_wanted() -> Response:
    """What a device is to sign with a passkey of this place."""
    slowed(signing.SIGN_IN, "passkey options", "")
    return answer(signing.Options(options=_passkeys().options_to_sign_in()))


@blueprint.post("/api/session/passkey")
@operation(gives=signing.Session, takes=signing.ByPasskey, problems=(404, 422))
def sign_in_by_passkey() -> Response:
    """Sign in with a passkey."""
    wanted = signing.ByPasskey.model_validate_json(body())
    slowed(signing.SIGN_IN, "passkey", "")
    return _signed_in(_passkeys().owner_of(wanted.credential))


@blueprint.delete("/api/session")
@operation(status=204, problems=(404,))
def sign_out() -> Response:
    """Sign this device out."""
    accounts().end(rider_here().owner_id, str(rider_here().session_id))
    return _signed_out()


@blueprint.get("/api/account")
@operation(gives=signing.AccountTold, problems=(404,))
def account() -> Response:
    """One's own account: passkeys, and where one is signed in."""
    me, here = mine(), rider_here().session_id
    devices = [
        signing.Device(id=str(s["id"]), name=s["device"], made_at=s["made_at"], seen_at=s["seen_at"], here=s["id"] == here)
        for s in accounts().sessions(me.owner_id)
    ]
    told = signing.AccountTold(
        address=me.address, has_password=me.password is not None, made_at=me.made_at, devices=devices,
        passkeys=[signing.KeptPasskey(**key) for key in accounts().passkeys(me.owner_id)],
    )  # fmt: skip
    return answer(told)


@blueprint.put("/api/account/password")
@operation(status=204, takes=signing.OtherPassword, problems=(404, 422))
def change_password() -> Response:
    """Choose another password: every other device is signed out."""
    wanted = signing.OtherPassword.model_validate_json(body())
    me = mine()
    _is_me(me, wanted.now, "now")
    accounts().set_password(me.owner_id, passwords.kept(passwords.checked(wanted.password, me.address)))
    accounts().end_others(me.owner_id, rider_here().session_id)
    return Response(status=204)


@blueprint.delete("/api/account/devices/<device_id>")
@operation(status=204, problems=(404,))
def end_device(device_id: str) -> Response:
    """Sign another device out."""
    accounts().end(rider_here().owner_id, device_id)
    return Response(status=204)


@blueprint.post("/api/account/passkeys/options")
@operation(gives=signing.Options, problems=(404,))
def passkey_to_make() -> Response:
    """What a device is to make a passkey from."""
    return answer(signing.Options(options=_passkeys().options_to_make(mine())))


@blueprint.post("/api/account/passkeys")
@operation(status=204, takes=signing.NewPasskey, problems=(404, 422))
def keep_passkey() -> Response:
    """Keep a passkey that a device made."""
    wanted = signing.NewPasskey.model_validate_json(body())
    _passkeys().make(mine(), wanted.credential, wanted.name)
    return Response(status=204)


@blueprint.delete("/api/account/passkeys/<passkey_id>")
@operation(status=204, problems=(404, 422))
def remove_passkey(passkey_id: str) -> Response:
    """Forget a passkey; not the last way in."""
    me = mine()
    if me.password is None and len(accounts().passkeys(me.owner_id)) < 2:
        raise InputProblem("Without it there is no way in any more", "passkey", "Choose a password first.")
    accounts().remove_passkey(me.owner_id, passkey_id)
    return Response(status=204)


@blueprint.get("/api/account/everything.zip")
@operation(media="application/zip", problems=(404,))
def everything() -> Response:
    """All that one has here, in open formats."""
    return attachment(archive_of(desk(), mine()), "application/zip", "omnifer.zip")


@blueprint.post("/api/account/leave")
@operation(status=204, takes=signing.Leaving, problems=(404, 422))
def leave() -> Response:
    """Let the account go with all that is in it: no row and no picture stays."""
    wanted = signing.Leaving.model_validate_json(body())
    me = mine()
    if wanted.address.lower() != me.address.lower():
        raise InputProblem("That is not the address of this account", "address", "Write it as it stands above.")
    _is_me(me, wanted.password, "password")
    if me.password is None and rider_here().age_s > FRESH_S:
        raise InputProblem("You signed in a while ago", "", "Sign out, sign in with your passkey again, then let it go.")
    accounts().forget(me.owner_id)
    return _signed_out()


def _passkeys() -> "Passkeys":
    there = accounts()
    from omnifer.office.passkeys import Passkeys  # takes most of a second to load, and on a laptop nobody needs it

    return Passkeys(there, hosting().site)


def slowed(limits: dict[str, Any], kind: str, address: str) -> None:
    """Count an attempt. Raises SlowedDown where there were too many."""
    hosting()
    current_app.extensions["attempts"].one_more(limits, kind, address, request.remote_addr or "")


def _is_me(me: Account, password: str, where: str) -> None:
    """Whoever is signed in knows the password of the account too, where it has one. Raises InputProblem, SlowedDown."""
    slowed(signing.SIGN_IN, "sign in", me.address)
    if me.password is not None and not passwords.fits(password, me.password):
        raise InputProblem("That is not your password", where, "Try again, or ask for a link by mail.")


def _signed_out() -> Response:
    """Nothing of the rider stays on this device: the browser is asked to clear what it keeps of the site."""
    session.clear()
    response = Response(status=204, headers={"Clear-Site-Data": '"cache", "storage"'})
    response.delete_cookie(cookie_name(hosting().secure), secure=hosting().secure)
    return response


def _signed_in(owner_id: int) -> Response:
    """Sign this device in: with a new session, so that what was known of the one before is worth nothing."""
    session.clear()
    g.pop("csrf_token", None)
    hand_held = any(word in request.user_agent.string for word in ("Mobi", "Android", "Tablet"))
    secret = accounts().begin(owner_id, "A phone or tablet" if hand_held else "A computer")
    told = signing.Session(rider=accounts().of(owner_id).address, hosted=True, csrf_token=generate_csrf())
    response = answer(told)
    secure = hosting().secure
    response.set_cookie(
        cookie_name(secure), secret, max_age=400 * 86400, secure=secure, httponly=True, samesite="Lax", path="/"
    )  # fmt: skip
    return response
