"""What every test of the web interface asks for."""

from collections.abc import Iterator
from pathlib import Path

import pytest
from flask import Flask

from omnifer.api.app import create_app
from omnifer.devices.mailbox import SimulatedMailbox
from omnifer.hosting import Hosting
from omnifer.outside.mail import Mail
from omnifer.store.tours import Tours
from tests.api.hosted import SITE
from tests.conftest import tours_of


@pytest.fixture
def client(app):
    return app.test_client()


@pytest.fixture
def tours(app) -> Tours:
    return tours_of(app)


@pytest.fixture
def mailbox(tmp_path: Path) -> Iterator[SimulatedMailbox]:
    with SimulatedMailbox(tmp_path) as there:
        yield there


@pytest.fixture
def hosted(database: str, mailbox: SimulatedMailbox) -> Iterator[Flask]:
    app = create_app(database, "test", hosting=Hosting(SITE, 1, Mail(mailbox.address, "omnifer@tours.example")))
    app.config["WTF_CSRF_ENABLED"] = False
    yield app
    app.extensions["omnifer"].pool.close()
