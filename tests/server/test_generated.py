"""Requests made from our own OpenAPI: never a server error, no status or answer that is not described there."""

import json

import pytest
import schemathesis
from hypothesis import HealthCheck, given, settings
from schemathesis.checks import not_a_server_error
from schemathesis.specs.openapi.checks import (
    content_type_conformance,
    response_schema_conformance,
    status_code_conformance,
)

from knollstack.server.app import create_app
from knollstack.server.demo import load_demo
from knollstack.server.published import published
from tests.helpers import many

CHECKS = [not_a_server_error, status_code_conformance, content_type_conformance, response_schema_conformance]
CASES = 8


OPERATIONS = sorted(
    (method.upper(), path) for path, item in json.loads(published()["openapi.json"])["paths"].items() for method in item
)


@pytest.fixture(scope="module")
def api(tmp_path_factory):
    folder = tmp_path_factory.mktemp("generated")
    (folder / "dist").mkdir()
    (folder / "dist/index.html").write_text("<!doctype html>")
    app = create_app(folder / "k.sqlite", web=folder / "dist")
    load_demo(folder / "k.sqlite")
    return schemathesis.openapi.from_wsgi("/api/openapi.json", app)


@pytest.mark.parametrize(("method", "path"), OPERATIONS)
def test_no_request_breaks_the_server(api, method, path):
    @given(case=api[path][method].as_strategy())
    @settings(max_examples=many(CASES), suppress_health_check=list(HealthCheck))
    def ask(case):
        case.call_and_validate(checks=CHECKS)

    ask()
