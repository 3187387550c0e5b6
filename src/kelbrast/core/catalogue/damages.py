"""Named kinds of damage, depths that can be judged without a gauge, and faults that appear at the bench."""

from dataclasses import dataclass
from functools import cache

from kelbrast.core.reference.loader import Constant, find, record


@dataclass(frozen=True, slots=True)
class Damage:
    """A word for what is wrong, as the model knows it.

    Attributes:
        kind: of what was found, a key of `FOUND_KINDS`.
        likely, worst: a first guess of its depth.
        length, width: of one place, of what lies in places and not all over; None for all else.
        says: what a polisher knows before beginning.
        off_first: operations that take it off before anything is ground, the first that the part bears; empty for none.
        passivate: stainless steel is passivated after it.
    """

    id: str
    label: str
    kind: str
    likely: Constant
    worst: Constant
    length: Constant | None
    width: Constant | None
    says: str
    off_first: tuple[str, ...] = ()
    passivate: bool = False


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
        key: Damage(
            **{name: row[name] for name in ("label", "kind", "likely", "worst", "says")},
            id=key,
            length=row.get("length"),
            width=row.get("width"),
            off_first=tuple(row.get("off_first", ())),
            passivate=row.get("passivate", False),
        )
        for key, row in record("damages").items()
    }


def damage(key: str) -> Damage:
    """The damage with this id.

    >>> damage("rust").kind
    'pits'
    """
    return find("damage", damages(), key)


def called(key: str) -> str:
    """The label of a damage by its id; empty for none.

    >>> called("heat-tint"), called("")
    ('Heat tint', '')
    """
    return damage(key).label if key else ""


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
