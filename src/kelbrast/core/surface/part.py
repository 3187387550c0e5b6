"""The whole part, apart from its faces: what covers it, what is stuck in it, how heavy it is, how it is held."""

from dataclasses import dataclass
from typing import Final

COVERINGS: Final = {
    "bare": "Bare",
    "unknown": "Covered by something, not known what",
    "anodised": "Anodised",
    "lacquered": "Lacquered",
    "painted": "Painted or powder coated",
}
PROTECTIONS: Final = {
    "usual": "As usual for this metal",
    "none": "Nothing",
    "lacquer": "Lacquer",
    "wax": "Wax",
    "oil": "Oil",
}
HELD: Final = {"hand": "In the hand", "clamp": "In a clamp or fixture"}
WET: Final = {
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

    covering: str = "bare"
    protect: str = "usual"
    inserts: tuple[str, ...] = ()
    mass: float | None = None
    held: str = "hand"
    wet: str = "needed"
