"""A server on a database of the test's own, with the demo wells in it."""

import pytest
from hypothesis import settings

settings.register_profile("steady", derandomize=True, deadline=None)
settings.load_profile("steady")


@pytest.fixture
def app(tmp_path):
    # only where it is asked for: tests of the core do not wait for the server's packages
    from knollstack.server.app import create_app
    from knollstack.server.demo import load_demo

    web = tmp_path / "dist"
    web.mkdir()
    (web / "index.html").write_text("<!doctype html><title>Knollstack</title>")
    application = create_app(tmp_path / "k.sqlite", web=web)
    load_demo(tmp_path / "k.sqlite")
    return application


@pytest.fixture
def client(app):
    return app.test_client()
