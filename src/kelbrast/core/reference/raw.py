"""The reference files as they are written, before anything is made of them."""

import csv
import tomllib
from functools import cache
from importlib.resources import files
from typing import Any


@cache
def sources_written() -> dict[str, Any]:
    """`sources.toml`."""
    return tomllib.loads(_text("sources.toml"))


@cache
def record_written(name: str) -> dict[str, Any]:
    """A file of `records/`."""
    return tomllib.loads(_text("records", f"{name}.toml"))


@cache
def table_written(name: str) -> tuple[list[str], ...]:
    """The lines of a file of `tables/`, its heading first."""
    return tuple(csv.reader(_text("tables", f"{name}.csv").splitlines(), strict=True))


def _text(*path: str) -> str:
    return files(__package__).joinpath(*path).read_text(encoding="utf-8")
