"""The reference files as they are written, before anything is made of them."""

import csv
import tomllib
from functools import cache
from importlib.resources import files
from typing import Any

from kelbrast.core.reference.own_rows import in_use, remembered


@cache
def sources_written() -> dict[str, Any]:
    """`sources.toml`."""
    return tomllib.loads(_text("sources.toml"))


@remembered(256)
def record_written(name: str) -> dict[str, Any]:
    """A file of `records/`, with what the shop adds to it."""
    return in_use().with_own(name, reference_written(name))


@cache
def reference_written(name: str) -> dict[str, Any]:
    """A file of `records/` as it comes with the program."""
    return tomllib.loads(_text("records", f"{name}.toml"))


@cache
def table_written(name: str) -> tuple[list[str], ...]:
    """The lines of a file of `tables/`, its heading first."""
    return tuple(csv.reader(_text("tables", f"{name}.csv").splitlines(), strict=True))


def _text(*path: str) -> str:
    return files(__package__).joinpath(*path).read_text(encoding="utf-8")
