"""Passkeys (W3C Web Authentication Level 3), by the package webauthn."""

import base64
import json
from typing import Any
from urllib.parse import urlsplit

from webauthn import (
    generate_authentication_options,
    generate_registration_options,
    options_to_json,
    verify_authentication_response,
    verify_registration_response,
)
from webauthn.helpers import base64url_to_bytes, bytes_to_base64url
from webauthn.helpers.exceptions import WebAuthnException
from webauthn.helpers.structs import (
    AuthenticatorSelectionCriteria,
    PublicKeyCredentialDescriptor,
    ResidentKeyRequirement,
    UserVerificationRequirement,
)

from omnifer.formats.problem import InputProblem
from omnifer.store.accounts import Account, Accounts, Passkey

NAME = "Omnifer"


class Passkeys:
    """Asks for passkeys and holds against them what devices sign.

    Parameters
    ----------
    site : str
        The public address: its host is what a passkey belongs to.
    """

    def __init__(self, accounts: Accounts, site: str) -> None:
        self.accounts = accounts
        self.origin = site.rstrip("/")
        self.host = urlsplit(site).hostname or ""

    def options_to_make(self, account: Account) -> dict[str, Any]:
        """What a device is to make a passkey from."""
        there = [PublicKeyCredentialDescriptor(id=base64url_to_bytes(k["id"])) for k in self.accounts.passkeys(account.owner_id)]
        options = generate_registration_options(
            rp_id=self.host, rp_name=NAME, user_name=account.address, user_id=str(account.owner_id).encode(),
            challenge=self._challenge(), exclude_credentials=there,
            authenticator_selection=AuthenticatorSelectionCriteria(
                resident_key=ResidentKeyRequirement.REQUIRED, user_verification=UserVerificationRequirement.REQUIRED
            ),
        )  # fmt: skip
        return dict(json.loads(options_to_json(options)))

    def make(self, account: Account, told: dict[str, Any], name: str) -> None:
        """Keep the passkey that a device made. Raises InputProblem."""
        try:
            found = verify_registration_response(
                credential=told, expected_challenge=self._met(told), expected_rp_id=self.host, expected_origin=self.origin,
                require_user_verification=True,
            )  # fmt: skip
        except (WebAuthnException, ValueError, KeyError, TypeError) as error:
            raise _refused() from error
        key = Passkey(
            bytes_to_base64url(found.credential_id), account.owner_id, found.credential_public_key, found.sign_count
        )  # fmt: skip
        if self.accounts.passkey(key.id) is not None:
            raise InputProblem("This passkey is kept already", "passkey", "Sign in with it.")
        self.accounts.add_passkey(key, name)

    def options_to_sign_in(self) -> dict[str, Any]:
        """What a device is to sign; it knows itself which passkeys it has."""
        options = generate_authentication_options(
            rp_id=self.host, challenge=self._challenge(), user_verification=UserVerificationRequirement.REQUIRED
        )  # fmt: skip
        return dict(json.loads(options_to_json(options)))

    def owner_of(self, told: dict[str, Any]) -> int:
        """Whose passkey signed. Raises InputProblem, alike for one that is unknown and one that does not fit."""
        try:
            key = self.accounts.passkey(str(told["id"]))
            challenge = self._met(told)
            if key is None:
                raise _refused()
            found = verify_authentication_response(
                credential=told, expected_challenge=challenge, expected_rp_id=self.host, expected_origin=self.origin,
                credential_public_key=key.public_key, credential_current_sign_count=key.sign_count,
                require_user_verification=True,
            )  # fmt: skip
        except (WebAuthnException, ValueError, KeyError, TypeError) as error:
            raise _refused() from error
        self.accounts.used_passkey(key, found.new_sign_count)
        return key.owner_id

    def _challenge(self) -> bytes:
        return self.accounts.good_once("challenge").encode()

    def _met(self, told: dict[str, Any]) -> bytes:
        """The challenge that was signed, where it is one of ours and was not met before."""
        said = json.loads(base64url_to_bytes(told["response"]["clientDataJSON"]))
        challenge = base64.urlsafe_b64decode(said["challenge"] + "=" * (-len(said["challenge"]) % 4))
        if self.accounts.used_up("challenge", challenge.decode()) is None:
            raise ValueError("no challenge of ours")
        return challenge


def _refused() -> InputProblem:
    return InputProblem("This passkey does not sign in here", "passkey", "Try again, or ask for a link by mail.")
