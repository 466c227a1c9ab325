"""Riders of a hosted Omnifer: devices on which they are signed in, and what they are to find there."""

import io
import re

from flask import Flask

from omnifer.core.model.tour import VERSION
from omnifer.devices.mailbox import SimulatedMailbox
from tests.conftest import small_tour, thing

SITE = "https://tours.example"
FIRST, SECOND = "ada@example.org", "bob@example.org"
GOOD = "four mild lentils"
NOBODYS = "00000000-0000-0000-0000-000000000000"


def device(app: Flask, place: str = "192.0.2.7"):
    """A browser behind the proxy in front."""
    client = app.test_client()
    client.environ_base |= {
        "HTTP_X_FORWARDED_FOR": place,
        "HTTP_X_FORWARDED_PROTO": "https",
        "HTTP_X_FORWARDED_HOST": "tours.example",
    }
    return client


def link_of(mailbox: SimulatedMailbox) -> str:
    return re.search(r"#link=(\S+)", mailbox.mails()[-1].get_payload(decode=True).decode())[1]


def rider(app: Flask, mailbox: SimulatedMailbox, address: str, password: str = GOOD):
    """A device on which a new rider is signed in."""
    client = device(app)
    assert client.post("/api/session/link", json={"address": address}).status_code == 204
    said = client.post("/api/session/by-link", json={"link": link_of(mailbox), "password": password})
    assert said.json.get("rider") == address, said.json
    return client


def new_tour(client) -> str:
    body = small_tour(thing("tent"), name="Secret way").model_dump_json(exclude={"track"})
    bundle = f'{{"format": "omnifer-tour", "version": {VERSION}, "tour": {body}}}'
    made = client.post("/api/tours/bundle", data={"file": (io.BytesIO(bundle.encode()), "tour.json")})
    return made.json["tour"]["id"]


def operations(app: Flask):
    for path, methods in app.test_client().get("/api/openapi.json", headers=device(app).environ_base and {
        "X-Forwarded-For": "192.0.2.1", "X-Forwarded-Proto": "https", "X-Forwarded-Host": "tours.example"}).json["paths"].items():  # fmt: skip
        for method, told in methods.items():
            yield method, path, told["operationId"]
