"""What shops of a kind have to begin with, to fill a rack from."""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cache

from kelbrast.core.catalogue.lookup import find
from kelbrast.core.reference.loader import record


@dataclass(frozen=True, slots=True)
class Kit:
    """A starting kit: ids of what stands on the rack."""

    id: str
    label: str
    about: str
    items: tuple[str, ...]


@cache
def kits() -> dict[str, Kit]:
    """Every kit by its id."""
    return {key: Kit(key, row["label"], row["about"], tuple(row["items"])) for key, row in record("kits").items()}


def things_of(keys: Iterable[str]) -> tuple[str, ...]:
    """What stands on the rack of a shop with these kits: everything once.

    >>> things_of(["buffer", "belt"]).count("sisal")
    1
    """
    return tuple(dict.fromkeys(thing for key in keys for thing in find("kit", kits(), key).items))
