"""Filing and polishing in the lathe: how fast it turns, and what is left for file and cloth."""

import math
from dataclasses import dataclass
from typing import Final

from kelbrast.core.process.speed import spindle_speed
from kelbrast.core.reference.loader import constant
from kelbrast.core.validity import require_above_zero

FERROUS: Final = ("steel", "stainless")
"""The families of iron and steel."""
_FOOT, _INCH = 0.3048, 0.0254


@dataclass(frozen=True, slots=True)
class LatheSpeeds:
    """Spindle speeds, rev/s.

    Attributes:
        rough: for rough turning, by the shop's rule of 4, and `rough_exact`, by 12 / pi.
        file: from and to, for filing.  polish: for cloth.  capped: whether the machine's highest is below what cloth asks for.
    """

    rough: float
    rough_exact: float
    file: tuple[float, float]
    polish: float
    capped: bool


def lathe_speeds(*, diameter: float, cutting: float, ferrous: bool, most: float = math.inf) -> LatheSpeeds:
    """The speeds of rough turning, filing and polishing.

    Equation: `n = 4 v / D` (v in ft/min, D in inches, n in rev/min), exactly `v / (pi D)`; filing 4 to 5 of it on iron and
        steel, 2 to 3 on other metals; polishing at 5,000 ft/min (rev/s)
    Valid: every value above 0.

    Args:
        diameter: D, m.
        cutting: v, cutting speed of rough turning, m/s.
        ferrous: whether it is iron or steel.
        most: the highest speed of the machine, rev/s.

    Raises:
        OutsideValidity: outside that.

    Source: trade-lathe, geometry.

    >>> found = lathe_speeds(diameter=25.4e-3, cutting=80 * 0.3048 / 60, ferrous=True)
    >>> round(found.rough * 60), round(found.rough_exact * 60), [round(one * 60) for one in found.file]
    (320, 306, [1280, 1600])
    """
    require_above_zero(diameter=diameter, cutting=cutting)
    if most != math.inf:
        require_above_zero(most=most)
    rough = constant("precision.shop_four").value * (cutting * 60 / _FOOT) / (diameter / _INCH) / 60
    kind = "ferrous" if ferrous else "other"
    low, high = (constant(f"precision.file_{kind}_{end}").value * rough for end in ("low", "high"))
    polish = spindle_speed(surface=constant("precision.polish").si, diameter=diameter)
    return LatheSpeeds(
        rough=min(rough, most),
        rough_exact=min(spindle_speed(surface=cutting, diameter=diameter), most),
        file=(min(low, most), min(high, most)),
        polish=min(polish, most),
        capped=polish > most,
    )
