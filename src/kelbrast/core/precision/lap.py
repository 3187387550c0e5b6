"""Laps for bores and shafts: how fast they cut, which to make, and how far to set them out."""

from dataclasses import dataclass
from typing import Literal

from kelbrast.core.catalogue.materials import Material
from kelbrast.core.catalogue.tolerance_classes import LapMaterial, lap_for
from kelbrast.core.catalogue.tools import lap_wear
from kelbrast.core.process.removal import removal_rate
from kelbrast.core.process.speed import spindle_speed
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.sized import RoundKind
from kelbrast.core.validity import require_above_zero, require_not_below_zero, require_within

Split = Literal["single", "double", "helical"]


def lap_rate(*, grain: float, speed: float, hardness: float) -> float:
    """What a lap takes off the diameter in a second, where it touches all round.

    Equation: `dD/dt = 2 eta K p v / H`, K of the grain under a lap, p = precision.lap_pressure (m/s)
    Valid: every value above 0.

    Args:
        grain: median grain size, m.
        speed: v, surface speed, m/s.
        hardness: H of the work, Pa.

    Raises:
        OutsideValidity: outside that.

    Source: archard, removal-fit, bench-practice.

    >>> round(lap_rate(grain=17.3e-6, speed=0.45, hardness=2.0e9) * 600e6)  # F400 on cast iron: um in ten minutes
    24
    """
    require_above_zero(grain=grain, speed=speed, hardness=hardness)
    contact, pressure = constant("precision.lap_contact").value, constant("precision.lap_pressure").si
    wear = lap_wear(grain)
    return 2 * removal_rate(wear=wear, contact=contact, force=pressure, speed=speed, hardness=hardness)


@dataclass(frozen=True, slots=True)
class LapToMake:
    """A lap as it is to be made (m, rev/s).

    Attributes:
        diameter: where it begins: a sliding fit on the tightest place.  length: as long as the work.
        slack: least and most, on the mandrel or in its holder, so that it follows the work.
        overhang: how far the work runs out over each end.  stroke: from end to end.
        spindle: slowest and fastest.
    """

    kind: RoundKind
    material: LapMaterial
    split: Split
    diameter: float
    length: float
    slack: tuple[float, float]
    overhang: float
    stroke: float
    spindle: tuple[float, float]


def lap_to_make(*, kind: RoundKind, tightest: float, length: float, material: Material) -> LapToMake:
    """The lap that this work asks for.

    A double or helical split sets out evenly; a single one is quick to saw and tends to leave an egg.

    Equation: `D = tightest -+ slide`, overhang = L / 3, stroke as in `stroke`, spindle `v / (pi D)` for
        0.3 to 0.6 m/s (m, rev/s)
    Valid: tightest and length above 0, the tightest larger than the slide.

    Args:
        kind: bore or shaft.
        tightest: the smallest diameter of a bore, the largest of a shaft, m.
        length: L of the work, m.
        material: of the work.

    Raises:
        OutsideValidity: outside that.

    Source: bench-practice.

    >>> from kelbrast.core.catalogue.materials import material
    >>> found = lap_to_make(kind="bore", tightest=19.98e-3, length=40e-3, material=material("bronze"))
    >>> round(found.diameter * 1e3, 3), found.material.label, round(found.stroke * 1e3, 1)
    (19.97, 'Copper', 26.6)
    """
    slide = constant("precision.slide").si
    require_above_zero(tightest=tightest - slide, length=length)
    diameter = tightest - slide if kind == "bore" else tightest + slide
    slowest, fastest = (constant(f"precision.lap_{end}").si for end in ("slowest", "fastest"))
    over = constant("precision.overhang").value * length
    return LapToMake(
        kind=kind,
        material=lap_for(material.hardness),
        split="helical",
        diameter=diameter,
        length=length,
        slack=(constant("precision.slack_least").si, constant("precision.slack_most").si),
        overhang=over,
        stroke=stroke(lap=length, work=length, overhang=over),
        spindle=(
            spindle_speed(surface=slowest, diameter=diameter),
            spindle_speed(surface=fastest, diameter=diameter),
        ),
    )


def stroke(*, lap: float, work: float, overhang: float) -> float:
    """From where the work runs out over one end of the lap to where it runs out over the other.

    Equation: `s = |lap - work| + 2 overhang` (m)
    Valid: both lengths above 0, the overhang from 0 to half of the work.

    Args:
        lap: its length, m.
        work: its length, m.
        overhang: over each end, m.

    Raises:
        OutsideValidity: outside that.

    Source: geometry.

    >>> round(stroke(lap=45e-3, work=40e-3, overhang=13e-3) * 1e3)
    31
    """
    require_above_zero(lap=lap, work=work)
    require_within(0, work / 2, overhang=overhang)
    return abs(lap - work) + 2 * overhang


def set_out(*, growth: float, per_turn: float) -> float:
    """How far to turn the screw, or push the arbor, to set a lap out by so much on the diameter.

    Equation: `a = dD / k`; an arbor of 1:50 gives 20 um on the diameter for a millimetre of travel (rad or m)
    Valid: growth not below 0, the calibration above 0.

    Args:
        growth: dD, m.
        per_turn: k, growth on the diameter for one radian of the screw or one metre of travel, m (dimensionless for an arbor).

    Raises:
        OutsideValidity: outside that.

    Source: geometry.

    >>> round(set_out(growth=2e-6, per_turn=1 / 50) * 1e3, 3)  # mm of a 1:50 arbor
    0.1
    """
    require_not_below_zero(growth=growth)
    require_above_zero(per_turn=per_turn)
    return growth / per_turn
