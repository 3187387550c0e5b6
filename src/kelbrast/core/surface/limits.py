"""The most that may come off a face: of all that limits it, the strictest binds."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final

# What a limit protects, and how a sentence names it.
LIMITS: Final = {
    "metal": "as set for this face",
    "wall": "the wall behind it must stay",
    "size": "no more of the size tolerance is left",
    "coat": "the rest of the coat must stay",
    "plated": "the rest of the plating must stay",
    "hardened": "the rest of the hardened layer must stay",
}


@dataclass(frozen=True, slots=True)
class Limit:
    """So much (m) may come off, because of `kind` (a key of `LIMITS`)."""

    amount: float
    kind: str


def strictest(limits: Mapping[str, float | None]) -> Limit | None:
    """The smallest of the limits given, by kind and in metres; None when nothing limits.

    >>> strictest({"metal": 100e-6, "size": 8e-6, "wall": None})
    Limit(amount=8e-06, kind='size')
    """
    given = [Limit(amount, kind) for kind, amount in limits.items() if amount is not None]
    return min(given, key=lambda limit: limit.amount, default=None)
