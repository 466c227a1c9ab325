"""What every test of the web interface asks for."""

import pytest

from omnifer.store.tours import Tours


@pytest.fixture
def client(app):
    return app.test_client()


@pytest.fixture
def tours(app) -> Tours:
    return app.extensions["omnifer"].tours
