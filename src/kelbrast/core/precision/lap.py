"""Laps for bores and shafts: how fast they cut, which to make, and how far to set them out; which of the rack can do the work,
and what share of an oval they clean."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final, Literal

from kelbrast.core.catalogue.grades import Grade
from kelbrast.core.catalogue.materials import Material
from kelbrast.core.catalogue.tolerance_classes import LapMaterial, lap_for
from kelbrast.core.catalogue.tools import lap_wear
from kelbrast.core.process.removal import removal_rate
from kelbrast.core.process.speed import spindle_speed
from kelbrast.core.rack.item import Item, carrier_of
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.sized import RoundKind
from kelbrast.core.validity import require_above_zero, require_not_below_zero, require_numbers, require_within
from kelbrast.core.wording import Measure, Sentence, sentence

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


def cleaned_share(*, grown: float, oval: float) -> float:
    """The share of the circumference that a round lap has touched.

    Equation: `s = 1 - arccos(c) / pi`, c = 2 g / oval held to -1 .. 1 (dimensionless)
    Valid: oval not below 0.

    Args:
        grown: g, the lap's diameter less the mean of the section as it was, m; of a shaft the mean less the lap's.
        oval: largest less smallest diameter, m; without one all is touched at once.

    Raises:
        OutsideValidity: outside that.

    Source: lapping-geometry.

    >>> round(cleaned_share(grown=25e-6, oval=75e-6), 3), cleaned_share(grown=0.0, oval=75e-6)
    (0.732, 0.5)
    """
    require_numbers(grown=grown)
    require_not_below_zero(oval=oval)
    if oval == 0:
        return 1.0 if grown >= 0 else 0.0
    return 1 - math.acos(min(1.0, max(-1.0, 2 * grown / oval))) / math.pi


def oval_left(*, grown: float, oval: float) -> float:
    """What is left of the oval: the wide side has not been touched until the lap gets there.

    Equation: `o' = max(0, min(oval, oval / 2 - g))` (m)
    Valid: oval not below 0.

    Args:
        grown: g, as in `cleaned_share`, m.
        oval: as it was, m.

    Raises:
        OutsideValidity: outside that.

    Source: lapping-geometry.

    >>> round(1e6 * oval_left(grown=25e-6, oval=75e-6), 1)
    12.5
    """
    require_numbers(grown=grown)
    require_not_below_zero(oval=oval)
    return max(0.0, min(oval, oval / 2 - grown))


def clipped(c: float) -> tuple[float, float]:
    """Mean and second harmonic of a section that a lap has cut round down to c of its half oval.

    Equation: `mean = c s + sqrt(1 - c^2) / pi`, `amplitude = (1 - s) - c sqrt(1 - c^2) / pi`, with
        s = 1 - arccos(c) / pi (half ovals)
    Valid: c between -1 and 1.

    Args:
        c: where the lap stands between the narrow side (-1) and the wide one (1), dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: lapping-geometry.

    >>> [round(one, 3) for one in clipped(0.5)]
    [0.609, 0.196]
    """
    require_not_below_zero(left=1 - abs(c))
    share, root = 1 - math.acos(c) / math.pi, math.sqrt(1 - c * c)
    return c * share + root / math.pi, (1 - share) - c * root / math.pi


_CARRIER: Final[dict[RoundKind, str]] = {"bore": "bore-lap", "shaft": "ring-lap"}


@dataclass(frozen=True, slots=True)
class LapAtHand:
    """A lap of the rack on this work.

    Attributes:
        able: it can do it.  said: how, or why not.
        now: its diameter, m; None where it was never measured.
        slides: until it slides, on the diameter, m; turns: of its screw for that, or metres of travel of its arbor.
        to_end: the same to the size at the end.  worn: what it lost since it was first measured, m.
    """

    item: Item
    able: bool
    said: Sentence
    now: float | None = None
    slides: float | None = None
    turns: float | None = None
    to_end: float | None = None
    worn: float | None = None


def laps_at_hand(
    items: Sequence[Item], *, kind: RoundKind, tightest: float, target: float, length: float, grade: Grade
) -> tuple[LapAtHand, ...]:
    """Every bore lap (or outside lap) of the rack on this work, the able ones first and of those the nearest in size.

    Equation: it is set out by `D_tightest - slide - D_lap` to slide, from 0 to `lap_reach D`; a lap for shafts is closed by
        as much (m)
    Valid: diameters and length above 0.

    Args:
        items: of the rack.
        kind: bore or shaft.
        tightest: the smallest diameter of a bore, the largest of a shaft, m.
        target: the size at the end, m.
        length: of the work, m.
        grade: that is wanted now.

    Raises:
        OutsideValidity: outside that.

    Source: bench-practice.

    >>> from kelbrast.core.catalogue.grades import parse_grade
    >>> laps = [Item(1, "bore-lap", "the copper one", diameter=13.95e-3, length=30e-3, per_turn=60e-6)]
    >>> asked = {"kind": "bore", "tightest": 13.983e-3, "target": 14.009e-3, "length": 30e-3, "grade": parse_grade("F400")}
    >>> (found,) = laps_at_hand(laps, **asked)
    >>> found.able, round(found.turns, 2)
    (True, 0.38)
    """
    require_above_zero(tightest=tightest, target=target, length=length)
    of_kind = [item for item in items if (held := carrier_of(item.what)) is not None and held.id == _CARRIER[kind]]
    laps = [_on(item, kind, tightest, target, length, grade) for item in of_kind if not item.retired and item.have > 0]
    return tuple(
        sorted(
            laps,
            key=lambda lap_at_hand: (not lap_at_hand.able, lap_at_hand.slides if lap_at_hand.slides is not None else tightest),
        )
    )


def _on(item: Item, kind: RoundKind, tightest: float, target: float, length: float, grade: Grade) -> LapAtHand:
    bound = item.bound
    if bound.mixed or (bound.charge is not None and bound.charge.lower() != grade.name.lower()):
        return LapAtHand(item, able=False, said=sentence("lap.bound", what=bound.charge or ""), now=item.size)
    if item.size is None:
        return LapAtHand(item, able=False, said=sentence("lap.unmeasured"))
    sign, reach = (1.0 if kind == "bore" else -1.0), constant("precision.lap_reach").value * tightest
    slides = sign * (tightest - item.size) - constant("precision.slide").si
    to_end = sign * (target - item.size)
    worn = _worn(item, sign)
    if slides < 0:
        over = Measure(-slides, "depth")
        return LapAtHand(
            item, able=False, said=sentence(f"lap.too-{'thick' if sign > 0 else 'narrow'}", off=over), now=item.size
        )
    if to_end > reach:
        return LapAtHand(item, able=False, said=sentence("lap.too-far", off=Measure(to_end, "depth")), now=item.size, worn=worn)
    turns = None if item.per_turn is None else set_out(growth=slides, per_turn=item.per_turn)
    short = item.length is not None and item.length < length
    said = sentence("lap.short" if short else "lap.able", off=Measure(slides, "depth"))
    return LapAtHand(item, able=True, said=said, now=item.size, slides=slides, turns=turns, to_end=to_end, worn=worn)


def _worn(item: Item, sign: float) -> float | None:
    sizes = [event.size for event in item.history if event.kind == "measured" and event.size is not None]
    first = item.diameter if item.diameter is not None else sizes[0] if sizes else None
    return None if first is None or not sizes else max(0.0, sign * (first - sizes[-1]))
