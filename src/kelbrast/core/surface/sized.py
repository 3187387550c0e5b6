"""A bore or shaft whose size is wanted: its limits, the gauge, and what was read before any work."""

import math
from dataclasses import dataclass
from typing import Final, Literal

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.validity import require_above_zero, require_not_below_zero

RoundKind = Literal["bore", "shaft"]
ROUND_KINDS: Final[dict[str, RoundKind]] = {"cylinder": "shaft", "bore": "bore"}  # shapes that a gauge can judge


@dataclass(frozen=True, slots=True)
class Reading:
    """A diameter between two points.

    Attributes:
        diameter: m, as at the temperature of the gauge.
        height: z, m from the middle of the length.
        direction: phi, rad around the axis.
    """

    diameter: float
    height: float = 0.0
    direction: float = 0.0


@dataclass(frozen=True, slots=True)
class SizeLimits:
    """The limits of a diameter, m."""

    low: float
    high: float

    def __post_init__(self) -> None:
        require_above_zero(low=self.low)
        if not self.low < self.high < math.inf:
            raise OutsideValidity("the upper limit must be a number above the lower one")

    @property
    def width(self) -> float:
        """The tolerance, m."""
        return self.high - self.low


@dataclass(frozen=True, slots=True)
class Gauge:
    """Standard deviation of one reading, and what all of them together may be off (its bias), m."""

    repeatability: float
    bias: float

    def __post_init__(self) -> None:
        require_above_zero(repeatability=self.repeatability)
        require_not_below_zero(bias=self.bias)


@dataclass(frozen=True, slots=True)
class RoundPart:
    """A bore or a shaft: length m, depth of the marks on it m, and what becomes of it."""

    kind: RoundKind
    length: float
    wanted: SizeLimits
    marks: float = 0.0

    @property
    def sign(self) -> float:
        """Work goes up in a bore and down on a shaft."""
        return 1.0 if self.kind == "bore" else -1.0

    @property
    def near(self) -> float:
        """The limit that work comes to first, in its own direction, m."""
        return self.wanted.low if self.kind == "bore" else -self.wanted.high

    @property
    def far(self) -> float:
        """The limit that must not be passed, in its own direction, m."""
        return self.wanted.high if self.kind == "bore" else -self.wanted.low


@dataclass(frozen=True, slots=True)
class Sized:
    """A size that is wanted of a face, with the gauge that decides and what it read before any work; none yet: empty."""

    part: RoundPart
    gauge: Gauge
    readings: tuple[Reading, ...] = ()
