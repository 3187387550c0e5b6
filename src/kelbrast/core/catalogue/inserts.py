"""What may be stuck in a part and would be hurt by heat, water or solvent."""

from dataclasses import dataclass
from functools import cache

from kelbrast.core.catalogue.lookup import find
from kelbrast.core.reference.loader import Constant, record


@dataclass(frozen=True, slots=True)
class Insert:
    """An insert: the temperature (K) to stay below, and the ways of working that it forbids."""

    id: str
    label: str
    limit: Constant
    forbids: tuple[str, ...]
    word: str


@cache
def inserts() -> dict[str, Insert]:
    """Every kind of insert by its id."""
    return {
        key: Insert(key, row["label"], row["limit"], tuple(row["forbids"]), row["word"])
        for key, row in record("inserts").items()
    }


def insert(key: str) -> Insert:
    """The kind of insert with this id.

    >>> "ultrasonic" in insert("stone").forbids
    True
    """
    return find("insert", inserts(), key)


def forbidden_by(keys: tuple[str, ...]) -> frozenset[str]:
    """All ways of working that these inserts forbid.

    >>> sorted(forbidden_by(("bearing",)))
    ['hot-water', 'soak', 'solvent', 'ultrasonic', 'wet']
    """
    return frozenset(way for key in keys for way in insert(key).forbids)
