"""The fault table: what goes wrong at the bench, why, what cures it, and what avoids it."""

from dataclasses import dataclass
from functools import cache

from kelbrast.core.catalogue.lookup import find
from kelbrast.core.reference.loader import record


@dataclass(frozen=True, slots=True)
class FaultOfWork:
    """Something that goes wrong, as it is seen at the bench."""

    id: str
    seen: str
    why: tuple[str, ...]
    cure: tuple[str, ...]
    avoid: str


@cache
def faults_of_work() -> dict[str, FaultOfWork]:
    """The whole table by id."""
    return {
        key: FaultOfWork(key, row["seen"], tuple(row["why"]), tuple(row["cure"]), row["avoid"])
        for key, row in record("faults").items()
    }


def fault_of_work(key: str) -> FaultOfWork:
    """The fault with this id.

    >>> fault_of_work("ripple").seen
    'Ripple still shows in the reflection'
    """
    return find("fault", faults_of_work(), key)
