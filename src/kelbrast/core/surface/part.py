"""The whole part, apart from its faces: what covers it, what is stuck in it, how heavy it is, how it is held."""

from dataclasses import dataclass
from typing import Final, Literal

Covering = Literal["bare", "unknown", "anodised", "lacquered", "painted"]
COVERINGS: Final[dict[Covering, str]] = {
    "bare": "Bare",
    "unknown": "Covered by something, not known what",
    "anodised": "Anodised",
    "lacquered": "Lacquered",
    "painted": "Painted or powder coated",
}
Protect = Literal["usual", "none", "lacquer", "wax", "oil"]
PROTECTIONS: Final[dict[Protect, str]] = {
    "usual": "As usual for this metal",
    "none": "Nothing",
    "lacquer": "Lacquer",
    "wax": "Wax",
    "oil": "Oil",
}
Held = Literal["hand", "clamp"]
HELD: Final[dict[Held, str]] = {"hand": "In the hand", "clamp": "In a clamp or fixture"}
Wet = Literal["needed", "always", "never"]
WET: Final[dict[Wet, str]] = {
    "needed": "As the material asks",
    "always": "Wherever it can be",
    "never": "Dry only",
}


@dataclass(frozen=True, slots=True)
class Part:
    """A part (SI). Keys of the tables above.

    Attributes:
        inserts: what is stuck in it, ids of the inserts of the reference data.
        mass: kg; None when it was not weighed.
    """

    covering: Covering = "bare"
    protect: Protect = "usual"
    inserts: tuple[str, ...] = ()
    mass: float | None = None
    held: Held = "hand"
    wet: Wet = "needed"
