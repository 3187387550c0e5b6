"""Reads the reference files: every number comes with its unit, its source and how well founded it is.

In `records/*.toml` a number stands as `[value, "unit", "source"]` or `[value, "unit", "source", "locator"]`;
in `tables/*.csv` the unit is in the column's name and `source` is a column. What kind of figure it is
(published, memory, practice, fitted, assumed) belongs to the source, in `sources.toml`.
"""

import csv
import tomllib
from dataclasses import dataclass
from functools import cache
from importlib.resources import files
from typing import Any, Final

from kelbrast.core.errors import ReadError
from kelbrast.core.units import to_si

KINDS: Final = {
    "published": "read in the named publication",
    "memory": "a published value, quoted from memory",
    "practice": "common practice, no single source",
    "fitted": "chosen by us to reproduce named check values",
    "assumed": "a round figure to start with; put in your own",
}


@dataclass(frozen=True, slots=True)
class Source:
    """Where figures come from, and of what kind they are (a key of `KINDS`)."""

    id: str
    title: str
    kind: str


@dataclass(frozen=True, slots=True)
class Constant:
    """A number with its unit and source. `si` is what the computation uses."""

    value: float
    unit: str
    source: Source
    locator: str = ""

    @property
    def si(self) -> float:
        return to_si(self.value, self.unit)


@cache
def sources() -> dict[str, Source]:
    """Every source by its key."""
    found = {key: Source(key, str(row["title"]), str(row["kind"])) for key, row in _toml("sources.toml").items()}
    for source in found.values():
        if source.kind not in KINDS:
            raise ReadError.one(f"sources.toml:{source.id}.kind", f'"{source.kind}" is not one of {", ".join(KINDS)}')
    return found


@cache
def record(name: str) -> dict[str, Any]:
    """A whole file of `records/`, its `[value, unit, source]` triples turned into `Constant`s."""
    return {key: _with_constants(f"{name}:{key}", value) for key, value in _toml("records", f"{name}.toml").items()}


@cache
def table(name: str) -> tuple[dict[str, str], ...]:
    """The rows of a file of `tables/`, as text by column."""
    text = files(__package__).joinpath("tables", f"{name}.csv").read_text(encoding="utf-8")
    rows = tuple(csv.DictReader(text.splitlines()))
    for number, row in enumerate(rows, start=2):
        if row.get("source") not in sources():
            raise ReadError.one(f"{name}.csv:{number}.source", f'"{row.get("source")}" is not in sources.toml')
    return rows


@cache
def constant(path: str) -> Constant:
    """A constant of `records/process.toml` by its dotted path.

    >>> constant("scratch.exponent").value
    1.21
    """
    node: Any = record("process")
    for part in path.split("."):
        node = node[part]
    if not isinstance(node, Constant):
        raise ReadError.one(f"process.toml:{path}", "is not a single number")
    return node


def _toml(*path: str) -> dict[str, Any]:
    return tomllib.loads(files(__package__).joinpath(*path).read_text(encoding="utf-8"))


def _with_constants(where: str, node: Any) -> Any:
    if isinstance(node, dict):
        return {key: _with_constants(f"{where}.{key}", value) for key, value in node.items()}
    if isinstance(node, list) and node and isinstance(node[0], int | float):
        if len(node) not in (3, 4) or node[2] not in sources():
            raise ReadError.one(where, "must be [value, unit, source] with a source from sources.toml")
        return Constant(float(node[0]), node[1], sources()[node[2]], node[3] if len(node) == 4 else "")
    if isinstance(node, list):
        return [_with_constants(where, item) for item in node]
    return node
