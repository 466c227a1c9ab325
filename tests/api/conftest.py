"""What every test of the web interface asks for."""

import pytest

from omnifer.store.tours import Tours
from tests.conftest import tours_of


@pytest.fixture
def client(app):
    return app.test_client()


@pytest.fixture
def tours(app) -> Tours:
    return tours_of(app)
