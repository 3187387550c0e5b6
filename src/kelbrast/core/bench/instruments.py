"""The interface of instruments read at the bench, and simulated ones.

A real one is any object with `id`, `label`, `quantity`, `simulated` and `read`; a package offers it under the entry point group
`kelbrast.instruments` (see `kelbrast.app.instruments`).
"""

import math
import random
from dataclasses import dataclass
from functools import cache
from typing import Final, Literal, Protocol

from kelbrast.core.errors import BadInput
from kelbrast.core.metrology.optics import reflected_share
from kelbrast.core.reference.loader import constant, record
from kelbrast.core.wording import Quantity as Shown

GaugedQuantity = Literal["size", "coat", "ra", "gloss", "temperature", "spindle", "weight"]


@dataclass(frozen=True, slots=True)
class InstrumentKind:
    """A quantity that is measured at the bench: its name, how it is shown, the unit that it is typed in, sensible ends (SI)."""

    label: str
    shown: Shown
    unit: str
    low: float
    high: float


QUANTITIES: Final[dict[str, InstrumentKind]] = {
    "size": InstrumentKind("Size", "length", "mm", 0.0, 100.0),
    "coat": InstrumentKind("Coat thickness", "depth", "um", 0.0, 0.01),
    "ra": InstrumentKind("Roughness Ra", "roughness", "um", 0.0, 1e-3),
    "gloss": InstrumentKind("Gloss", "gloss", "1", 0.0, 2000.0),
    "temperature": InstrumentKind("Temperature", "temperature", "C", 173.0, 1500.0),
    "spindle": InstrumentKind("Spindle speed", "turns", "rev/min", 0.0, 2000.0),
    "weight": InstrumentKind("Weight", "mass", "g", 0.0, 10_000.0),
}


class Instrument(Protocol):
    """Something that gives a reading of one quantity, in SI."""

    @property
    def id(self) -> str: ...
    @property
    def label(self) -> str: ...
    @property
    def quantity(self) -> str: ...
    @property
    def simulated(self) -> bool: ...

    def read(self, expected: float | None) -> float:
        """A reading. `expected` is what the plan expects there, for stand-ins; a real instrument does not look at it.

        Raises:
            BadInput: there is nothing to read.
        """
        ...


@dataclass(frozen=True, slots=True)
class StandIn:
    """A simulated instrument: it reads what the plan expects, with the usual error and steps. Its readings prove nothing."""

    id: str
    label: str
    quantity: str
    resolution: float
    error: float
    chance: random.Random
    simulated: bool = True

    def read(self, expected: float | None) -> float:
        if expected is None:
            raise BadInput.one("instrument", f"the {self.label.lower()} has nothing to stand in for here: type the reading")
        value = self.chance.gauss(expected, self.error)
        return max(0.0, round(value / self.resolution) * self.resolution)


@cache
def stand_ins(seed: int | None = None) -> dict[str, StandIn]:
    """The stand-ins that ship with the program, by id. With a seed their readings repeat."""
    chance = random.Random(seed)
    return {
        key: StandIn(key, row["label"], row["quantity"], row["resolution"].si, row["error"].si, chance)
        for key, row in record("instruments").items()
    }


def gloss_of(ra: float) -> float:
    """Gloss at 60 degrees that a surface of this Ra (m) keeps of a perfect one's 100.

    The specular share `exp(-(4 pi Rq cos 60 / wavelength)^2)` (Bennett and Porteus 1961), with Rq from Ra for Gaussian heights.

    >>> round(gloss_of(0.01e-6)), round(gloss_of(0.1e-6))
    (98, 13)
    """
    rq, wavelength = constant("gloss.rq_per_ra").value * ra, constant("gloss.wavelength").si
    return 100 * reflected_share(rq=rq, wavelength=wavelength, angle=math.pi / 3)
