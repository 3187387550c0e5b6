"""A face of a part: what state it was found in, how it can be reached, and what it should become."""

import math
from collections.abc import Iterable
from dataclasses import dataclass, field
from typing import Final, Literal

from kelbrast.core.catalogue.finishes import Finish
from kelbrast.core.catalogue.grades import Grade
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.edge import Edge
from kelbrast.core.surface.found import Found, Spots
from kelbrast.core.surface.sized import Sized

Reach = Literal["open", "inside", "tight"]
REACHES: Final[dict[Reach, str]] = {"open": "Open", "inside": "Inside a bore or tube", "tight": "Tight corners and recesses"}


def known_as(called: Iterable[tuple[str, str]]) -> dict[str, str]:
    """Return the id of a face by every word that it goes by: its id, and its name where no other face has that for an id.

    Args:
        called: (id, name) of each face of one job.

    >>> known_as([("lid", "cover"), ("lid-2", "lid")])
    {'cover': 'lid', 'lid': 'lid', 'lid-2': 'lid-2'}
    """
    pairs = list(called)
    return {name: key for key, name in pairs} | {key: key for key, _ in pairs}


@dataclass(frozen=True, slots=True)
class Wish:
    """What the person wants of the route, by tool ids. A `route` stands for itself: the others are then not asked.

    Attributes:
        start: the first tool.
        lock: tools that the route must use.
        leave_out: tools that it must not use.
        route: exactly these tools, in this order.
    """

    start: str | None = None
    lock: tuple[str, ...] = ()
    leave_out: tuple[str, ...] = ()
    route: tuple[str, ...] = ()

    @property
    def empty(self) -> bool:
        return not (self.start or self.lock or self.leave_out or self.route)


@dataclass(frozen=True, slots=True)
class Gauged:
    """What a gauge can follow on a face (SI); None where it is not known.

    Attributes:
        shape: a key of `surface.shapes.SHAPES`.  diameter: across what is round.
        coat: thickness of the coat on it; keep: how much of that must stay.
    """

    shape: str | None = None
    diameter: float | None = None
    coat: float | None = None
    keep: float | None = None


@dataclass(frozen=True, slots=True)
class Face:
    """One face, in SI units.

    Attributes:
        name: what it is called, to be read.  id: see `key`.
        area: m2.
        limit: the most that may come off anywhere, metres; None for no limit.  limit_kind: why, a key of `LIMITS`.
        thickness: of the wall behind the face, metres; None when it is not known.
        longest: its longest measure, metres; None where only its area is known.
        inside_radius: for `reach` "inside", metres.
        bore_depth: how far inside the place lies that is farthest from an open end, metres; None where it is not known.
        curved: flat, firm tools would leave facets on it.
        stays_flat: it seals, seats or measures: only what keeps its own form may work it.
        turned: diameter of a round outside, which a lathe can turn, metres; None for any other face.
        keep_off: nothing may touch this face.
        spots: where it is worse than `found`, which covers all of it.
        looked_through: a window: a hollow in it bends the picture.
        lay_runs_out: its lay runs out at both ends, so that a band along it is no patch.
        edge: the edge that it is; None for a face.  sharp_edges: an edge beside it stays sharp.
        sized: a size that is wanted of it; None where none is.  stock: what must come off all of it for that size, m.
        out_of_round: so much oval, taper or waist that only what keeps its own form takes it out.
    """

    name: str
    area: float
    found: Found
    want: Finish
    reach: Reach = "open"
    inside_radius: float | None = None
    bore_depth: float | None = None
    thickness: float | None = None
    longest: float | None = None
    limit: float | None = None
    limit_kind: str = "metal"
    curved: bool = False
    stays_flat: bool = False
    turned: float | None = None
    keep_off: bool = False
    spots: tuple[Spots, ...] = ()
    looked_through: bool = False
    lay_runs_out: bool = False
    no_finer_than: Grade | None = None
    gauged: Gauged = field(default_factory=Gauged)
    wish: Wish = field(default_factory=Wish)
    edge: Edge | None = None
    sharp_edges: bool = False
    sized: Sized | None = None
    stock: float = 0.0
    out_of_round: bool = False
    id: str = ""

    @property
    def key(self) -> str:
        """What the face is known by, whatever it is called: its id; where it was given none, its name."""
        return self.id or self.name

    @property
    def found_anywhere(self) -> tuple[Found, ...]:
        """What covers it, and what is in some places."""
        return (self.found, *(spots.found for spots in self.spots))

    @property
    def left_alone(self) -> bool:
        """Nothing is done to it: kept off, or an edge that stays sharp."""
        return self.keep_off or (self.edge is not None and self.edge.wanted == "sharp")

    @property
    def must_be_levelled(self) -> bool:
        """Found with ripple, raised metal or out of round: only a firm backing takes that down."""
        return self.out_of_round or self.found.must_be_levelled

    @property
    def stands_proud(self) -> bool:
        """Found with metal above the face: bead, burr, solder."""
        return self.found.stands_proud

    @property
    def reflects_flat(self) -> bool:
        """A flat, open face, larger than a hand evens out, that shall reflect: every hollow would show."""
        flat = self.is_flat and self.area > constant("looks.flat_area").si
        return flat and self.want.deformed >= constant("deformed.mirror").value

    @property
    def is_flat(self) -> bool:
        """An open face that is not curved."""
        return self.reach == "open" and not self.curved and self.edge is None

    @property
    def drawn(self) -> bool:
        """Whether its size or its roughness is drawn: by number or a band of one's own, and not as a finish by its look."""
        by_number = not self.want.id or self.want.by_number
        return self.limit_kind == "size" or (by_number and self.edge is None)

    @property
    def above(self) -> float:
        """How high metal stands above the face at worst, m; 0 where none does. Taking that off costs the face nothing."""
        return self.found.above or self.stock

    @property
    def may_come_off(self) -> float:
        """The limit of a route, m: the face's own, and what stands above it; infinite for none."""
        if self.limit is None:
            return math.inf
        return self.limit + self.above
