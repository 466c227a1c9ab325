"""One rider asks for all that another has, and knows what it is called."""

import uuid

import schemathesis
from flask import Flask
from hypothesis import HealthCheck, given, settings

from omnifer.office.passwords import kept
from omnifer.store.accounts import Accounts
from tests.api.hosted import FIRST, GOOD, SECOND, device, new_tour

MARK = "Quibblefern"
"""Stands in all that the first rider has, and nowhere else."""


def snooped(app: Flask, cases: int) -> int:
    """schemathesis as the second rider, with the identifiers of the first one's tour, entries, things, devices: no answer holds a
    word of the first one's, and nothing of it is otherwise afterwards. How many cases were sent."""
    accounts = Accounts(app.extensions["omnifer"].pool)
    owners = {who: accounts.made(who, kept(GOOD)) for who in (FIRST, SECOND)}
    first = device(app)
    first.set_cookie("__Host-omnifer-rider", accounts.begin(owners[FIRST], MARK))
    known = all_kinds_of_things(first)
    before = everything(first, known)
    assert before.count(MARK) >= 6
    cookie, sent = [""], 0
    there = {"HTTP_X_FORWARDED_FOR": "192.0.2.9", "HTTP_X_FORWARDED_PROTO": "https", "HTTP_X_FORWARDED_HOST": "tours.example",
             "HTTP_ACCEPT_ENCODING": "identity"}  # fmt: skip
    serve = app.wsgi_app
    app.wsgi_app = lambda environ, start: serve(environ | there | {"HTTP_COOKIE": cookie[0]}, start)
    schema = schemathesis.openapi.from_wsgi("/api/openapi.json", app)
    for result in schema.get_all_operations():
        operation = result.ok()

        @settings(max_examples=cases, suppress_health_check=list(HealthCheck), deadline=None, database=None, derandomize=True)
        @given(case=operation.as_strategy())
        def snoop(case):
            nonlocal sent
            if sent % 50 == 0 or "session" in case.path or "devices" in case.path:  # what was sent may have signed it out
                cookie[0] = f"__Host-omnifer-rider={accounts.begin(owners[SECOND], 'a computer')}"
            for name, value in known.items():
                if name in (case.path_parameters or {}):
                    case.path_parameters[name] = value
            response = case.call()
            assert MARK.encode() not in response.content, case.path
            sent += 1

        snoop()
    app.wsgi_app = serve
    assert everything(first, known) == before
    return sent


def all_kinds_of_things(client) -> dict[str, str]:
    """What the first rider has, each with the mark: the parameters of paths by which it is found."""
    tour = new_tour(client)
    path, entry = f"/api/tours/{tour}", str(uuid.uuid4())
    note = {"id": entry, "verb": "note", "note": MARK, "at": "2027-05-01T10:00:00+00:00", "phone": "p1", "number": 1}
    assert client.patch(path, json={"revision": 1, "what": MARK, "name": MARK}).status_code == 200
    assert client.post(f"{path}/diary", json={"entries": [note]}).status_code in (200, 201)
    owned = {"id": "own", "name": MARK, "mass_kg": 1, "volume_l": 1}
    made = client.post("/api/library", json={"things": [owned]})
    assert made.status_code == 201, made.json
    listed = client.get("/api/library").json["things"][0]["id"]
    invited = client.post(f"{path}/invitations", json={"rides": True})
    assert invited.status_code == 201
    told = client.get(f"{path}/companions").json["invitations"][0]["id"]
    own_device = client.get("/api/account").json["devices"][0]["id"]
    return {
        "tour_id": tour,
        "entry_id": entry,
        "owned_id": listed,
        "invitation_id": told,
        "device_id": own_device,
        "thing_id": "tent",
    }


def everything(client, known: dict[str, str]) -> str:
    """All that is told of it, but for what changes by being asked."""
    path = f"/api/tours/{known['tour_id']}"
    parts = ["/api/tours", path, f"{path}/diary", "/api/library", f"{path}/companions", f"{path}/packed"]
    devices = client.get("/api/account").json["devices"]
    return "".join(client.get(part).text for part in parts) + str([(d["id"], d["name"]) for d in devices])
