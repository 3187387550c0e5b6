"""A simulated bore or shaft that can be worked and read: to test policies and to practise."""

import math
import random
from collections.abc import Sequence
from dataclasses import dataclass

from kelbrast.core.precision.form import along
from kelbrast.core.surface.sized import Gauge, Reading, RoundPart
from kelbrast.core.validity import require_not_below_zero


@dataclass(frozen=True, slots=True)
class Hidden:
    """What nobody at the bench knows.

    Attributes:
        size, taper, barrel, oval: as in `form.Form`, m.  widest: rad.  rate: on the diameter, m/s.
        drift: of the logarithm of the rate from round to round.  faster: whether a lap grows an oval faster while it touches
            little of it.  off: what the gauge is off, m.
    """

    size: float
    oval: float
    rate: float
    taper: float = 0.0
    barrel: float = 0.0
    widest: float = 0.0
    drift: float = 0.2
    faster: bool = False
    off: float = 0.0


class Specimen:
    """An invented part at the bench."""

    def __init__(self, part: RoundPart, hidden: Hidden, gauge: Gauge, seed: int) -> None:
        self.part, self.hidden, self.gauge = part, hidden, gauge
        self._chance = random.Random(seed)
        self.cut = min(self._found(u, phi) for u in (-0.5, 0.0, 0.5) for phi in (hidden.widest, hidden.widest + math.pi / 2))
        """Where the tool stands, in the direction of the work, m."""

    def work(self, seconds: float) -> None:
        """Work for so long; the rate is never quite that of the round before.

        Raises:
            OutsideValidity: seconds below 0.
        """
        require_not_below_zero(seconds=seconds)
        rate, left = self.hidden.rate * math.exp(self._chance.gauss(0, self.hidden.drift)), seconds
        if not self.hidden.faster or not self.hidden.oval:
            self.cut += rate * left
            return
        slice_ = max(seconds / 200, 0.05)
        while left > 0:
            now = min(left, slice_)
            self.cut, left = self.cut + rate * now / max(self._share(), 0.05), left - now

    def read(self, places: Sequence[tuple[float, float]]) -> tuple[Reading, ...]:
        """Readings at places (z in m from the middle, phi in rad), each with the errors of the gauge."""
        return tuple(
            Reading(self.true(z, phi) + self.hidden.off + self._chance.gauss(0, self.gauge.repeatability), z, phi)
            for z, phi in places
        )

    def true(self, z: float, phi: float) -> float:
        """The diameter that it really has there, m."""
        place = max(-0.5, min(0.5, z / self.part.length))  # past an end the gauge is at that end
        return self.part.sign * max(self.cut, self._found(place, phi))

    def _found(self, u: float, phi: float) -> float:
        hidden = self.hidden
        lifted = along(u, taper=hidden.taper, barrel=hidden.barrel) + hidden.oval / 2 * math.cos(2 * (phi - hidden.widest))
        return self.part.sign * (hidden.size + lifted)

    def _share(self) -> float:
        grown = self.cut - self.part.sign * self.hidden.size
        return 1 - math.acos(max(-1.0, min(1.0, 2 * grown / self.hidden.oval))) / math.pi
