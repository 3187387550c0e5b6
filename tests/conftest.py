"""Shared ways to make jobs and faces. The parts are those of the Skerry Light workshop, or plain numbers."""

import json
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest

EXAMPLES = Path(__file__).parents[1] / "examples"


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
