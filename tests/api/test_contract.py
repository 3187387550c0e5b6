"""Every operation of the API keeps to its own description, also for requests that nobody would write."""

import json

import pytest
import schemathesis
from fastapi import FastAPI
from hypothesis import HealthCheck, settings

from attacking import SOAK, many
from conftest import ROOT
from kelbrast.api.application import create_app
from kelbrast.app.jobs import Jobs

# Another test holds this description to be the program's own. The demo is filled anew each time that it is looked at, which takes seconds; it has tests of its own.
schema = schemathesis.openapi.from_dict(json.loads((ROOT / "docs" / "openapi.json").read_text())).exclude(path="/api/demo")
# Every bound of every key by turns is hundreds of requests for an operation that takes a job: for the soak.
schema.config.phases.coverage.enabled = SOAK > 0


@pytest.fixture(scope="module")
def program(tmp_path_factory: pytest.TempPathFactory) -> FastAPI:
    return create_app(Jobs.open(tmp_path_factory.mktemp("contract") / "kept.sqlite"), web=None, hosts=["*"])


@schema.parametrize()
@settings(max_examples=many(1), suppress_health_check=list(HealthCheck))
def test_no_request_breaks_the_server(case, program: FastAPI) -> None:
    checks = [schemathesis.checks.not_a_server_error, schemathesis.checks.response_schema_conformance]
    case.call_and_validate(checks=checks, app=program)
