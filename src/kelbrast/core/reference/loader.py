"""Reads the reference files: every number comes with its unit, its source and how well founded it is.

In `records/*.toml` a number stands as `[value, "unit", "source"]` or `[value, "unit", "source", "locator"]`;
in `tables/*.csv` the unit is in the column's name and `source` is a column. What kind of figure it is
(published, memory, practice, fitted, assumed) belongs to the source, in `sources.toml`.
"""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from difflib import get_close_matches
from functools import cache
from typing import Any, TypeVar

from kelbrast.core.errors import Fault, NotFound, ReadError
from kelbrast.core.reference.own_rows import OWN, remembered
from kelbrast.core.reference.raw import record_written, sources_written, table_written
from kelbrast.core.reference.schemas import SOURCES, misfits, table_misfits
from kelbrast.core.units import to_si


@dataclass(frozen=True, slots=True)
class Source:
    """Where figures come from, and of what kind they are (a key of `schemas.KINDS`)."""

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
    _refuse(SOURCES.faults("sources.toml:", sources_written()))
    return {key: Source(key, row["title"], row["kind"]) for key, row in sources_written().items()}


@remembered(256)
def record(name: str) -> dict[str, Any]:
    """A whole file of `records/`, its `[value, unit, source]` triples turned into `Constant`s.

    Raises:
        ReadError: an entry does not fit its schema; every fault with file, entry, key and what is expected.
    """
    _refuse(misfits(name, record_written(name)))
    return {key: _with_constants(value) for key, value in record_written(name).items()}


@cache
def table(name: str) -> tuple[dict[str, str], ...]:
    """The rows of a file of `tables/`, as text by column.

    Raises:
        ReadError: as for `record`.
    """
    heading, *rows = table_written(name)
    _refuse(table_misfits(name, (heading, *rows)))
    return tuple(dict(zip(heading, row, strict=True)) for row in rows)


@cache
def constant(path: str) -> Constant:
    """A constant of `records/process.toml` by its dotted path.

    >>> constant("scratch.exponent").value
    1.21
    """
    return _figure("process", path)


def eye(path: str) -> float:
    """A figure of `records/eye.toml` by its dotted path, in SI.

    >>> eye("verdict.fields")
    3.0
    """
    return _figure("eye", path).si


def _figure(name: str, path: str) -> Constant:
    node: Any = record(name)
    for part in path.split("."):
        node = node[part]
    if not isinstance(node, Constant):
        raise ReadError.one(f"{name}.toml:{path}", "is not a single number")
    return node


def _refuse(faults: Iterable[Fault]) -> None:
    if found := list(faults):
        raise ReadError(found)


def _with_constants(node: Any) -> Any:
    if isinstance(node, dict):
        return {key: _with_constants(value) for key, value in node.items()}
    if isinstance(node, list) and isinstance(node[0], int | float):
        return Constant(float(node[0]), node[1], sources()[node[2]], node[3] if len(node) == 4 else "")
    if isinstance(node, list):
        return [_with_constants(item) for item in node]
    return node


Thing = TypeVar("Thing")


def find(kind: str, things: Mapping[str, Thing], key: str) -> Thing:
    """The thing with this id.

    Raises:
        NotFound: with the ids that look most like it.
    """
    try:
        return things[key]
    except KeyError:
        if key.startswith(OWN):
            raise NotFound(kind, key, hint="it is another shop's own: take in its file of own things first") from None
        raise NotFound(kind, key, get_close_matches(key, list(things), n=2)) from None
