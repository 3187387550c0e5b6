"""Validators for the entries of the reference files. A validator collects every fault instead of stopping at the first.

Every fault names its place (`carriers.toml:felt.wet`) and what is expected there.
"""

import math
from collections.abc import Callable, Collection, Iterator, Mapping
from dataclasses import dataclass, field
from difflib import get_close_matches
from typing import Any, Protocol

from kelbrast.core.errors import Fault
from kelbrast.core.units import units_of


class Schema(Protocol):
    """What may stand in one place."""

    def faults(self, where: str, given: Any) -> Iterator[Fault]:
        """What does not fit, each with its place."""
        ...


@dataclass(frozen=True, slots=True)
class Plain:
    """A value of TOML's own: words, yes or no, or a whole number above nought."""

    kind: type[str] | type[bool] | type[int]
    empty: bool = False  # words that may be left out

    def faults(self, where: str, given: Any) -> Iterator[Fault]:
        expected = {str: "words in quotes", bool: "true or false", int: "a whole number above 0"}[self.kind]
        if type(given) is not self.kind or (given == "" and not self.empty) or (self.kind is int and int(given) < 1):
            yield Fault(where, f"is {_shown(given)}; expected {expected}")


@dataclass(frozen=True, slots=True)
class Name:
    """One of some names: `what` says of what, `known` gives them, from another file if need be."""

    what: str
    known: Callable[[], Collection[str]]

    def faults(self, where: str, given: Any) -> Iterator[Fault]:
        if not isinstance(given, str) or given not in self.known():
            yield Fault(where, f"is {_shown(given)}; expected {self.what}{_near(given, self.known())}")


@dataclass(frozen=True, slots=True)
class Number:
    """`[value, "unit", "source"]` or `[value, "unit", "source", "locator"]`, of one of these dimensions.

    Not below 0 unless `signed`.
    """

    dimensions: tuple[str, ...]
    sources: Callable[[], Collection[str]]
    signed: bool = False

    def faults(self, where: str, given: Any) -> Iterator[Fault]:
        if not isinstance(given, list) or len(given) not in (3, 4) or not all(isinstance(part, str) for part in given[1:]):
            yield Fault(where, f'is {_shown(given)}; expected [number, "unit", "source"] with or without a locator')
            return
        value, unit, source = given[:3]
        number = not isinstance(value, bool) and isinstance(value, int | float) and math.isfinite(value)
        if not number or (value < 0 and not self.signed):
            which = "" if self.signed else " that is not below 0"
            yield Fault(where, f"has {_shown(value)} for its number; expected one{which}")
        units = [unit for dimension in self.dimensions for unit in units_of(dimension)]
        if unit not in units:
            yield Fault(where, f"is in {_shown(unit)}; expected a {' or '.join(self.dimensions)}, in {', '.join(units)}")
        if source not in self.sources():
            yield Fault(where, f"cites {_shown(source)}; expected a key of sources.toml{_near(source, self.sources())}")


@dataclass(frozen=True, slots=True)
class Written:
    """A number above 0 as it stands in a table, or with `zero` one that is not below it."""

    zero: bool = False

    def faults(self, where: str, given: Any) -> Iterator[Fault]:
        try:
            fits = math.isfinite(float(given)) and (float(given) > 0 or (self.zero and float(given) == 0))
        except ValueError:
            fits = False
        if not fits:
            yield Fault(where, f"is {_shown(given)}; expected a number {'of 0 or more' if self.zero else 'above 0'}")


@dataclass(frozen=True, slots=True)
class Many:
    """A list of things of one shape, with at least one in it."""

    of: Schema

    def faults(self, where: str, given: Any) -> Iterator[Fault]:
        if not isinstance(given, list) or not given:
            yield Fault(where, f"is {_shown(given)}; expected a list with something in it")
            return
        for number, one in enumerate(given):
            yield from self.of.faults(f"{where}[{number}]", one)


@dataclass(frozen=True, slots=True)
class Each:
    """Entries of one shape under names of their own."""

    of: Schema

    def faults(self, where: str, given: Any) -> Iterator[Fault]:
        if not isinstance(given, dict) or not given:
            yield Fault(where, f"is {_shown(given)}; expected entries under names of their own")
            return
        for name, one in given.items():
            yield from self.of.faults(f"{where}{_joint(where)}{name}", one)


@dataclass(frozen=True, slots=True)
class Entry:
    """Named parts: those that must be there, those that may, and parts that come together or not at all."""

    needed: Mapping[str, Schema]
    optional: Mapping[str, Schema] = field(default_factory=dict)
    together: tuple[tuple[str, ...], ...] = ()

    def faults(self, where: str, given: Any) -> Iterator[Fault]:
        if not isinstance(given, dict):
            yield Fault(where, f"is {_shown(given)}; expected an entry with {', '.join(self.needed)}")
            return
        known = {**self.needed, **self.optional}
        for key, one in given.items():
            at = f"{where}{_joint(where)}{key}"
            if key in known:
                yield from known[key].faults(at, one)
            else:
                yield Fault(at, f"is not a key here; expected one of {', '.join(known)}{_near(key, known)}")
        for key in self.needed.keys() - given.keys():
            yield Fault(f"{where}{_joint(where)}{key}", "is missing")
        for group in self.together:
            if there := [key for key in group if key in given]:
                for key in set(group) - set(there):
                    yield Fault(f"{where}{_joint(where)}{key}", f"is missing; it belongs to {', '.join(there)}")


def _joint(where: str) -> str:
    """Between a file and its entry stands nothing more than the colon."""
    return "" if where.endswith(":") else "."


def _shown(given: Any) -> str:
    said = repr(given).replace("'", '"')
    return said if len(said) <= 60 else f"{said[:57]}..."


def _near(given: Any, known: Collection[str]) -> str:
    near = get_close_matches(str(given), list(known), n=1)
    return f'; did you mean "{near[0]}"?' if near else ""
