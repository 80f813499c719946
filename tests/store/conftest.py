"""A store of the test's own."""

import pytest

from knollstack.store.database import connect, migrate


@pytest.fixture
def connection(tmp_path):
    connection = connect(tmp_path / "k.sqlite")
    migrate(connection)
    yield connection
    connection.close()
