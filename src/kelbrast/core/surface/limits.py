"""Stock allowances of a face: of all that limit it, the strictest binds."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Final, Literal

LayerKind = Literal["hardened", "plated"]
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


@dataclass(frozen=True, slots=True)
class Bounds:
    """All that may limit what comes off a face (m); None where it does not.

    Attributes:
        metal: as set by the person.
        coat, keep_coat: thickness of a coat and how much must stay; wall, keep_wall: of the wall behind the face.
        size: what is left of the size tolerance, measured over both sides of what is `round`.
        layer: a plating or hardened layer by kind, with its thickness and how much must stay.
    """

    metal: float | None = None
    coat: float | None = None
    keep_coat: float | None = None
    wall: float | None = None
    keep_wall: float | None = None
    size: float | None = None
    round: bool = False
    layer: tuple[str, float, float] | None = None

    @property
    def limit(self) -> Limit | None:
        """The strictest of them.

        >>> Bounds(size=16e-6, round=True, coat=120e-6, keep_coat=80e-6).limit
        Limit(amount=8e-06, kind='size')
        """
        limits = {
            "metal": self.metal,
            "coat": None if self.coat is None else self.coat - (self.keep_coat or 0.0),
            "wall": None if self.keep_wall is None else (self.wall or 0.0) - self.keep_wall,
            "size": None if self.size is None else self.size / 2 if self.round else self.size,
        }
        if self.layer is not None:
            kind, thickness, keep = self.layer
            limits[kind] = thickness - keep
        return strictest(limits)


def strictest(limits: Mapping[str, float | None]) -> Limit | None:
    """The smallest of the limits given, by kind and in metres; None when nothing limits.

    >>> strictest({"metal": 100e-6, "size": 8e-6, "wall": None})
    Limit(amount=8e-06, kind='size')
    """
    given = [Limit(amount, kind) for kind, amount in limits.items() if amount is not None]
    return min(given, key=lambda limit: limit.amount, default=None)
