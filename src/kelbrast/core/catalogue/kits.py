"""What shops of a kind have to begin with, to fill a rack from."""

from dataclasses import dataclass
from functools import cache

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
