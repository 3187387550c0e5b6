"""The state that a face was found in: what covers all of it, and deeper damage in some places."""

from dataclasses import dataclass
from typing import Final, Literal, get_args

from kelbrast.core.catalogue.grades import Grade

FoundKind = Literal["scratches", "lay", "waviness", "pits", "nick", "raised"]
FOUND_KINDS: Final[dict[FoundKind, str]] = {
    "scratches": "Scratches",
    "lay": "Machining marks, one way",
    "waviness": "Ripple, orange peel",
    "pits": "Pits",
    "nick": "Dents, dings, nicks",
    "raised": "Raised metal: bead, burr, solder",
}
AllOverKind = Literal["scratches", "lay", "waviness", "pits"]  # what may cover all of a face
ALL_OVER_KINDS: Final[tuple[AllOverKind, ...]] = get_args(AllOverKind)
SpotKind = Literal["scratches", "pits", "nick", "raised"]  # what may be in some places only
SPOT_KINDS: Final[tuple[SpotKind, ...]] = get_args(SpotKind)
MUST_BE_LEVELLED: Final = ("waviness", "raised")


@dataclass(frozen=True, slots=True)
class Found:
    """A surface as found. Depths in metres from the plane of the peaks down.

    Either a depth (likely and worst), or `after`: the grade of paper whose marks are there, or `as_wanted`: nothing is to be
    done there. `called`: the word that the person chose for it, a key of `damages.toml`; empty for none.
    """

    kind: FoundKind
    likely: float | None = None
    worst: float | None = None
    after: Grade | None = None
    called: str = ""
    as_wanted: bool = False

    @property
    def has_depth(self) -> bool:
        """Whether it is damage of a depth, and not the marks of a grade or nothing at all."""
        return self.after is None and not self.as_wanted

    @property
    def must_be_levelled(self) -> bool:
        """Ripple or raised metal: only a firm backing takes that down."""
        return self.has_depth and self.kind in MUST_BE_LEVELLED

    @property
    def stands_proud(self) -> bool:
        """Metal above the face: bead, burr, solder."""
        return self.has_depth and self.kind == "raised"

    @property
    def above(self) -> float:
        """How high it stands above the face at worst, m; 0 for what does not. Taking that off costs the face nothing."""
        return (self.worst or 0.0) if self.stands_proud else 0.0


@dataclass(frozen=True, slots=True)
class Spots:
    """Damage of one kind in some places of a face, deeper than what covers all of it (SI).

    Attributes:
        count: how many.  length, width: of each, m.
        name: what they are called, to be read.  id: see `key`.
        gone: what came off there already beyond what came off the rest, m.
    """

    found: Found
    length: float
    width: float
    count: int = 1
    name: str = ""
    id: str = ""
    gone: float = 0.0

    @property
    def key(self) -> str:
        """What they are known by, whatever they are called: the id; where they were given none, the name."""
        return self.id or self.name

    @property
    def spare(self) -> float:
        """How much more may come off there than off the rest, m: what stands above the face, less what is gone already."""
        return self.found.above - self.gone

    @property
    def area(self) -> float:
        """Of all of them as they are, m2."""
        return self.count * self.length * self.width
