from collections.abc import Iterator
from pathlib import Path

import pytest
from starlette.testclient import TestClient

from kelbrast.api.application import create_app
from kelbrast.app.jobs import Jobs


@pytest.fixture
def client(tmp_path: Path) -> Iterator[TestClient]:
    app = create_app(Jobs.open(tmp_path / "kept.sqlite"), web=None)
    with TestClient(app, base_url="http://127.0.0.1", raise_server_exceptions=False) as client:
        yield client
