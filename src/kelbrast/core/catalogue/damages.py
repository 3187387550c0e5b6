"""Named kinds of damage, depths that can be judged without a gauge, and faults that appear at the bench."""

from dataclasses import dataclass
from functools import cache

from kelbrast.core.reference.loader import Constant, find, record


@dataclass(frozen=True, slots=True)
class Damage:
    """A word for what is wrong, as the model knows it.

    Attributes:
        kind: of what was found, a key of `FOUND_KINDS`.
        likely, worst: a first guess of its depth.  share: how much of the face raised metal covers; None for all else.
        says: what a polisher knows before beginning.
    """

    id: str
    label: str
    kind: str
    likely: Constant
    worst: Constant
    share: Constant | None
    says: str


@dataclass(frozen=True, slots=True)
class Feel:
    """What one can tell of a mark, and how deep such marks are."""

    id: str
    label: str
    likely: Constant
    worst: Constant


@cache
def damages() -> dict[str, Damage]:
    """Every word by its id."""
    return {
        key: Damage(key, row["label"], row["kind"], row["likely"], row["worst"], row.get("share"), row["says"])
        for key, row in record("damages").items()
    }


@cache
def feels() -> dict[str, Feel]:
    """What one can tell, from the finest to the deepest.

    >>> [one.label for one in feels().values()][1]
    'A nail catches'
    """
    return {key: Feel(key, row["label"], row["likely"], row["worst"]) for key, row in record("feels").items()}


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
