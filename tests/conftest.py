"""Shared ways to make jobs and faces. The parts are those of the Skerry Light workshop, or plain numbers."""

import gc
import json
import shutil
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any

import pytest
from hypothesis import settings

from attacking import SOAK
from kelbrast.storage import database

ROOT = Path(__file__).parents[1]
EXAMPLES = ROOT / "examples"
# How long something takes is measured by `make bench`: here other tests run beside.
settings.register_profile("untimed", deadline=None)
settings.load_profile("untimed")


def pytest_collection_modifyitems(config: pytest.Config, items: list[pytest.Item]) -> None:
    if not SOAK:  # the long ones, of which shorter ones hold the most
        config.hook.pytest_deselected(items=[item for item in items if item.get_closest_marker("soak")])
        items[:] = [item for item in items if not item.get_closest_marker("soak")]
    items.sort(key=lambda item: item.get_closest_marker("long") is None)
    gc.freeze()  # what was imported stays, and is not looked through again and again


@pytest.fixture(scope="session", autouse=True)
def quick_databases(tmp_path_factory: pytest.TempPathFactory) -> Iterator[Callable[..., None]]:
    """A new database is a copy of one that was made once; yields the way that makes it in steps, for the tests of that."""
    made, real = tmp_path_factory.mktemp("tables") / "empty.sqlite", database._bring_up_to_date
    real(made, database.WAIT_S)

    def bring_up_to_date(path: Path, wait_s: float, version: str = "head") -> None:
        if version == "head" and not path.exists():
            shutil.copyfile(made, path)
        else:
            real(path, wait_s, version)

    database._bring_up_to_date = bring_up_to_date
    yield real
    database._bring_up_to_date = real


@pytest.fixture
def collar() -> dict[str, Any]:
    """The rail collar's job file, with one face."""
    document = json.loads((EXAMPLES / "01-gallery-rail-collar.job.json").read_text())
    return {**document, "faces": document["faces"][:1]}


@pytest.fixture
def write_job(tmp_path: Path) -> Callable[[dict[str, Any]], Path]:
    def write(document: dict[str, Any]) -> Path:
        path = tmp_path / "a.job.json"
        path.write_text(json.dumps(document), encoding="utf-8")
        return path

    return write
