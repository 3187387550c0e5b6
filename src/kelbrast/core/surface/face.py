"""A face of a part: what state it was found in, how it can be reached, and what it should become."""

from dataclasses import dataclass
from typing import Final

from kelbrast.core.catalogue.finishes import Finish
from kelbrast.core.catalogue.grades import Grade

FOUND_KINDS: Final = {
    "scratches": "Scratches",
    "lay": "Machining marks, one way",
    "waviness": "Ripple, orange peel",
    "pits": "Pits",
    "nick": "One or a few nicks",
    "raised": "Raised metal: bead, burr, solder",
}
REACHES: Final = {"open": "Open", "inside": "Inside a bore or tube", "tight": "Tight corners and recesses"}
MUST_BE_LEVELLED: Final = ("waviness", "raised")


@dataclass(frozen=True, slots=True)
class Found:
    """The surface as found. Depths in metres from the plane of the peaks down.

    Either a depth (likely and worst), or `after`: the grade of paper whose marks cover the face. For nicks, `blend` says
    whether they are blended or the face lowered; None leaves it to the plan. For raised metal, `share` is how much of the
    face it covers.
    """

    kind: str
    likely: float | None = None
    worst: float | None = None
    after: Grade | None = None
    count: int = 1
    blend: bool | None = None
    share: float | None = None


@dataclass(frozen=True, slots=True)
class Face:
    """One face, in SI units.

    Attributes:
        area: m2.
        limit: the most that may come off anywhere, metres; None for no limit.
        thickness: of the wall behind the face, metres; None when it is not known.
        inside_radius: for `reach` "inside", metres.
        curved: flat, firm tools would leave facets on it.
        keep_off: nothing may touch this face.
    """

    name: str
    area: float
    found: Found
    want: Finish
    reach: str = "open"
    inside_radius: float | None = None
    thickness: float | None = None
    limit: float | None = None
    curved: bool = False
    keep_off: bool = False
    no_finer_than: Grade | None = None
