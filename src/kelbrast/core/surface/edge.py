"""An edge of a part: kept sharp, broken, or given a radius."""

import math
from dataclasses import dataclass
from typing import Final, Literal

from kelbrast.core.errors import BadInput
from kelbrast.core.reference.loader import Constant, constant

EdgeWanted = Literal["sharp", "break", "radius"]
EDGES_WANTED: Final[dict[EdgeWanted, str]] = {
    "sharp": "Stays sharp",
    "break": "Broken at 45°",
    "radius": "Rounded to a radius",
}


@dataclass(frozen=True, slots=True)
class Edge:
    """A right-angled edge (SI).

    Attributes:
        size: the leg of a break along either face, or the radius, m; 0 for an edge that stays sharp.
    """

    length: float
    wanted: EdgeWanted
    size: float = 0.0

    @property
    def depth(self) -> float:
        """From the corner down to the middle of what is left, m."""
        return self.size / math.sqrt(2) if self.wanted == "break" else self.size * (math.sqrt(2) - 1)

    @property
    def area(self) -> float:
        """Of the new surface, m2."""
        width = self.size * (math.sqrt(2) if self.wanted == "break" else math.pi / 2)
        return width * self.length


def sizes_by_hand(wanted: EdgeWanted) -> tuple[Constant, Constant]:
    """The least and the most that an edge is broken or rounded by hand, with their sources."""
    return constant("edges.break_least"), constant(f"edges.{wanted}_most")


def edge_of(length: float, wanted: EdgeWanted, size: float | None, *, field: str = "edge") -> Edge:
    """An edge as it is wanted (m).

    Raises:
        BadInput: a size where none belongs, none where one does, or one beyond what is done by hand.

    >>> round(edge_of(0.4, "break", 0.3e-3).depth * 1e6)
    212
    """
    if wanted == "sharp":
        if size is not None:
            raise BadInput.one(f"{field}.size_mm", "an edge that stays sharp has no size: leave it out, or break the edge")
        return Edge(length, wanted)
    least, most = sizes_by_hand(wanted)
    if size is None:
        raise BadInput.one(f"{field}.size_mm", "says how much: the leg of the break along the face, or the radius")
    if not least.si <= size <= most.si:
        raise BadInput.one(f"{field}.size_mm", f"must be from {least.value:g} to {most.value:g} mm")
    return Edge(length, wanted, size)
