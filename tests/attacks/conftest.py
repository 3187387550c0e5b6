"""The API over a database of its own, asked from many threads at once."""

from collections.abc import Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path
from typing import Any

import pytest
from starlette.testclient import TestClient

from kelbrast.api.application import create_app
from kelbrast.app.jobs import Jobs


@pytest.fixture
def kept(tmp_path: Path) -> Iterator[Jobs]:
    jobs = Jobs.open(tmp_path / "kept.sqlite")
    yield jobs
    jobs.close()


@pytest.fixture
def client(kept: Jobs) -> Iterator[TestClient]:
    with TestClient(create_app(kept, web=None), base_url="http://127.0.0.1", raise_server_exceptions=False) as client:
        yield client


@pytest.fixture
def at_once() -> Callable[[int, Callable[[int], Any]], list[Any]]:
    """Do something so many times at once; the answers in order."""

    def all_of_them(count: int, act: Callable[[int], Any]) -> list[Any]:
        with ThreadPoolExecutor(count) as pool:
            return list(pool.map(act, range(count)))

    return all_of_them
