"""Riders of a hosted Omnifer: how they come in, that they are kept apart, and that they can leave with all that is theirs."""

import base64
import hashlib
import io
import json
import re
import zipfile
from concurrent.futures import ThreadPoolExecutor

import psycopg
import pytest
from cryptography.hazmat.primitives import hashes
from cryptography.hazmat.primitives.asymmetric import ec
from webauthn.helpers import encode_cbor

from omnifer.api.app import OPEN, create_app
from omnifer.hosting import Hosting, HostingProblem, hosting_of
from omnifer.outside.mail import Mail
from omnifer.store.cluster import MASTER, Cluster
from tests.api.hosted import FIRST, GOOD, NOBODYS, SECOND, SITE, device, link_of, new_tour, operations, rider


def test_a_link_makes_an_account_once_and_chooses_another_password(hosted, mailbox):
    first = rider(hosted, mailbox, FIRST)
    link = link_of(mailbox)
    used = device(hosted).post("/api/session/by-link", json={"link": link, "password": "another long one"})
    assert (used.status_code, used.json["detail"]) == (422, "This link is not good any more")
    assert device(hosted).post("/api/session", json={"address": FIRST.upper(), "password": GOOD}).json["rider"] == FIRST
    # Another link, for somebody who forgot: whoever was signed in before is not any more.
    again = device(hosted)
    again.post("/api/session/link", json={"address": FIRST})
    refused = again.post("/api/session/by-link", json={"link": link_of(mailbox), "password": "password12"})
    assert "tried first" in refused.json["detail"]
    assert again.post("/api/session/by-link", json={"link": link_of(mailbox), "password": "two other words"}).status_code == 200
    assert first.get("/api/account").status_code == 401
    assert len(again.get("/api/account").json["devices"]) == 1


@pytest.mark.parametrize("password", ["short", "password123", "aaaaaaaaaaaa", FIRST, "x" * 201])
def test_passwords_that_are_tried_first_are_refused(hosted, mailbox, password):
    client = device(hosted)
    client.post("/api/session/link", json={"address": FIRST})
    said = client.post("/api/session/by-link", json={"link": link_of(mailbox), "password": password})
    assert said.status_code == 422
    assert client.get("/api/session").json["rider"] is None


def test_who_has_no_account_is_told_the_same(hosted, mailbox):
    rider(hosted, mailbox, FIRST)
    told = [device(hosted).post("/api/session", json={"address": who, "password": "not this one"}) for who in (FIRST, SECOND)]
    assert told[0].json == told[1].json
    assert {answer.status_code for answer in told} == {422}
    assert [device(hosted).post("/api/session/link", json={"address": who}).status_code for who in (FIRST, SECOND)] == [204, 204]


def test_attempts_are_slowed_from_any_number_of_processes(hosted, mailbox, database):
    """Ten a minute of one account, however many processes are asked and from wherever; another account is not slowed."""
    rider(hosted, mailbox, FIRST)
    other = create_app(database, "test", hosting=hosted.extensions["hosting"])
    other.config["WTF_CSRF_ENABLED"] = False

    def attempt(n: int) -> int:
        client = device((hosted, other)[n % 2], f"192.0.2.{n}")
        return client.post("/api/session", json={"address": FIRST, "password": "not this one"}).status_code

    with ThreadPoolExecutor(8) as many:
        told = list(many.map(attempt, range(24)))
    assert sorted(told) == [422] * 10 + [429] * 14
    slowed = device(hosted).post("/api/session", json={"address": FIRST, "password": GOOD})
    assert slowed.status_code == 429
    assert 0 < int(slowed.headers["Retry-After"]) <= 60
    assert device(hosted).post("/api/session", json={"address": SECOND, "password": GOOD}).status_code == 422
    other.extensions["omnifer"].pool.close()


def b64(content: bytes) -> str:
    return base64.urlsafe_b64encode(content).decode().rstrip("=")


class SoftKey:
    """An authenticator with one passkey (ES256), made by the standard and by no code of ours."""

    def __init__(self) -> None:
        self.key, self.id, self.count = ec.generate_private_key(ec.SECP256R1()), hashlib.sha256(b"soft").digest(), 0

    def _client(self, kind: str, challenge: str, origin: str) -> bytes:
        return json.dumps({"type": kind, "challenge": challenge, "origin": origin, "crossOrigin": False}).encode()

    def _data(self, flags: int, more: bytes = b"") -> bytes:
        self.count += 1
        return hashlib.sha256(b"tours.example").digest() + bytes([flags]) + self.count.to_bytes(4, "big") + more

    def made(self, options: dict) -> dict:
        numbers = self.key.public_key().public_numbers()
        public = {1: 2, 3: -7, -1: 1, -2: numbers.x.to_bytes(32, "big"), -3: numbers.y.to_bytes(32, "big")}
        more = bytes(16) + len(self.id).to_bytes(2, "big") + self.id + encode_cbor(public)
        attestation = encode_cbor({"fmt": "none", "attStmt": {}, "authData": self._data(0x45, more)})
        client = self._client("webauthn.create", options["challenge"], SITE)
        response = {"clientDataJSON": b64(client), "attestationObject": b64(attestation)}
        return {"id": b64(self.id), "rawId": b64(self.id), "type": "public-key", "response": response}

    def signed(self, options: dict, origin: str = SITE) -> dict:
        client, data = self._client("webauthn.get", options["challenge"], origin), self._data(0x05)
        signature = self.key.sign(data + hashlib.sha256(client).digest(), ec.ECDSA(hashes.SHA256()))
        response = {"clientDataJSON": b64(client), "authenticatorData": b64(data), "signature": b64(signature)}
        return {"id": b64(self.id), "rawId": b64(self.id), "type": "public-key", "response": response}


def test_a_passkey_signs_in_once_for_each_challenge_and_nowhere_else(hosted, mailbox):
    me, key = rider(hosted, mailbox, FIRST), SoftKey()
    options = me.post("/api/account/passkeys/options").json["options"]
    assert options["rp"]["id"] == "tours.example"
    assert me.post("/api/account/passkeys", json={"credential": key.made(options), "name": "Phone"}).status_code == 204
    assert [k["name"] for k in me.get("/api/account").json["passkeys"]] == ["Phone"]
    new = device(hosted)
    wanted = new.post("/api/session/passkey/options").json["options"]
    told = {"credential": key.signed(wanted)}
    assert new.post("/api/session/passkey", json=told).json["rider"] == FIRST
    # The same once more, of another site, by another key, of a challenge that nobody gave: refused, and alike.
    elsewhere = key.signed(new.post("/api/session/passkey/options").json["options"], "https://tours.example.net")
    other = SoftKey()
    foreign = other.signed(new.post("/api/session/passkey/options").json["options"])
    made_up = key.signed({"challenge": b64(b"made up by somebody else")})
    refused = [
        new.post("/api/session/passkey", json={"credential": c}) for c in (told["credential"], elsewhere, foreign, made_up, {})
    ]
    assert {(r.status_code, r.json["detail"]) for r in refused} == {(422, "This passkey does not sign in here")}


def test_every_operation_wants_somebody_signed_in_but_the_ways_in(hosted):
    open_to_all = {name.rpartition(".")[2] for name in OPEN}
    seen = set()
    for method, path, name in operations(hosted):
        answer = getattr(device(hosted), method)(re.sub(r"\{\w+\}", "1", path))
        if path in ("/healthz", "/metrics"):
            assert answer.status_code == 403, path
        elif name in open_to_all:
            seen.add(name)
            assert answer.status_code != 401, path
        else:
            assert (answer.status_code, answer.json["title"]) == (401, "Sign in first"), path
    assert seen == open_to_all
    names = [name for _, _, name in operations(hosted)]
    assert len(set(names)) == len(names), "two operations of one name"


def test_what_is_anothers_answers_as_what_is_nowhere(hosted, mailbox):
    """Every operation on a tour, as somebody else: byte for byte the answer of an identifier that nobody has."""
    mine, stranger = rider(hosted, mailbox, FIRST), rider(hosted, mailbox, SECOND)
    tour = new_tour(mine)
    asked = 0
    for method, path, _ in operations(hosted):
        if "{tour_id}" not in path:
            continue
        told = []
        for sought in (tour, NOBODYS):
            there = re.sub(r"\{\w+\}", "1", path.replace("{tour_id}", sought))
            answer = getattr(stranger, method)(there, json={} if method != "get" else None)
            told.append((answer.status_code, answer.data.decode().replace(sought, "")))
            assert b"Secret" not in answer.data, path
        assert told[0] == told[1], path
        asked += 1
    assert asked > 40
    assert stranger.get("/api/tours").json["tours"] == []
    assert mine.get(f"/api/tours/{tour}").status_code == 200


def test_cookies_are_for_this_host_and_tls_alone(hosted, mailbox):
    client = device(hosted)
    client.post("/api/session/link", json={"address": FIRST})
    said = client.post("/api/session/by-link", json={"link": link_of(mailbox), "password": GOOD})
    kept = [c for c in said.headers.getlist("Set-Cookie") if c.startswith("__Host-omnifer-rider=")]
    assert len(kept) == 1
    assert {"Secure", "HttpOnly", "SameSite=Lax", "Path=/"} <= {part.strip() for part in kept[0].split(";")}
    assert said.headers["Strict-Transport-Security"]
    out = client.delete("/api/session")
    assert (out.status_code, client.get("/api/account").status_code) == (204, 401)
    # A name that is not the site's is nobody's.
    assert hosted.test_client().get("/api/session", headers={"Host": "evil.example"}).status_code == 400


def test_everything_is_given_out_and_nothing_stays(hosted, mailbox, database, cluster: Cluster):
    me, other = rider(hosted, mailbox, FIRST), rider(hosted, mailbox, SECOND)
    tour, theirs = new_tour(me), new_tour(other)
    entry = {"id": "6f6b3a5e-7a52-4b64-9d3b-0e1f6a1c2d3e", "verb": "note", "note": "Rain", "at": "2027-05-01T10:00:00+00:00",
             "phone": "p1", "number": 1}  # fmt: skip
    assert me.post(f"/api/tours/{tour}/diary", json={"entries": [entry]}).status_code in (200, 201)
    with zipfile.ZipFile(io.BytesIO(me.get("/api/account/everything.zip").data)) as archive:
        names = archive.namelist()
        assert f"tours/Secret-way-{tour[:8]}.json" in names
        assert "Rain" in archive.read(f"tours/Secret-way-{tour[:8]}-diary.json").decode()
        assert json.loads(archive.read("account.json"))["address"] == FIRST
    wrong = me.post("/api/account/leave", json={"address": FIRST, "password": "not this one"})
    assert (wrong.status_code, me.get("/api/account").status_code) == (422, 200)
    assert me.post("/api/account/leave", json={"address": FIRST, "password": GOOD}).status_code == 204
    assert me.get("/api/account").status_code == 401
    with psycopg.connect(cluster.address(database.rpartition("/")[2].partition("?")[0], MASTER)) as sees_all:
        tables = [
            row[0] for row in sees_all.execute("SELECT table_name FROM information_schema.columns WHERE column_name = 'owner_id'")
        ]
        owners = {row[0] for row in sees_all.execute("SELECT id FROM owner")}
        assert len(tables) > 12
        for table in tables:
            assert {row[0] for row in sees_all.execute(f"SELECT owner_id FROM {table}")} <= owners, table
        assert sees_all.execute("SELECT count(*) FROM account").fetchone() == (1,)
    assert other.get(f"/api/tours/{theirs}").status_code == 200


def test_a_laptop_knows_no_accounts(client):
    assert client.get("/api/session").json == {"rider": "local rider", "hosted": False} | {
        "csrf_token": client.get("/api/session").json["csrf_token"]
    }
    assert client.get("/api/account").status_code in (401, 404)
    assert client.post("/api/session/link", json={"address": FIRST}).status_code == 404


@pytest.mark.parametrize("site", ["tours.example", "http://tours.example", "https://tours.example/path", "ftp://x"])
def test_a_public_address_that_is_none_is_refused_in_words(site):
    with pytest.raises(HostingProblem, match="OMNIFER_HOSTED"):
        hosting_of({"OMNIFER_HOSTED": site})
    assert hosting_of({}) is None


def test_a_mail_server_that_does_not_answer_is_said(database):
    app = create_app(database, "test", hosting=Hosting(SITE, 1, Mail("smtp://127.0.0.1:1", "omnifer@tours.example")))
    app.config["WTF_CSRF_ENABLED"] = False
    said = device(app).post("/api/session/link", json={"address": FIRST})
    assert (said.status_code, said.json["title"]) == (502, "Nothing was told")
    app.extensions["omnifer"].pool.close()
