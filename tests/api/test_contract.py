"""Every operation of the API keeps to its own description, also for requests that nobody would write."""

from pathlib import Path

import schemathesis
from hypothesis import HealthCheck, settings

from attacking import SOAK, many
from kelbrast.api.application import create_app
from kelbrast.app.jobs import Jobs

_FOLDER = Path(__file__).parent


def _app(folder: Path):
    return create_app(Jobs.open(folder / "kept.sqlite"), web=None, hosts=["*"])


import tempfile  # noqa: E402  (the schema is read at import, before any fixture)

# The demo is filled anew each time that it is looked at, which takes seconds; it has tests of its own.
schema = schemathesis.openapi.from_asgi("/api/openapi.json", _app(Path(tempfile.mkdtemp()))).exclude(path="/api/demo")
# Every bound of every key by turns is hundreds of requests for an operation that takes a job: for the soak.
schema.config.phases.coverage.enabled = SOAK > 0


@schema.parametrize()
@settings(max_examples=many(3), deadline=None, suppress_health_check=list(HealthCheck))
def test_no_request_breaks_the_server(case) -> None:
    case.call_and_validate(checks=[schemathesis.checks.not_a_server_error, schemathesis.checks.response_schema_conformance])
