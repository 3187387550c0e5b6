"""A reading against the limits, at once: too much metal gone, a coat near its minimum, too hot, too fast."""

import math
from dataclasses import dataclass
from typing import Literal

from kelbrast.core.bench.events import Measured
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.shapes import layer_between
from kelbrast.core.units import from_si

Level = Literal["fine", "near", "over"]


@dataclass(frozen=True, slots=True)
class Facts:
    """What a reading is held against (SI); None where there is no such limit.

    Attributes:
        keep: thickness of the coat that must stay.
        may_go: the most that may come off anywhere.  shape: its kind, for how a size follows from that.
        hottest: the temperature to stay below.  by_hand: a bare hand holds the part.
        diameter, marked, spindle: of the wheel as it is, its marked limit now in m/s, and the planned rev/s.
        ra_low, ra_high: what the finish allows; only after the last step.
    """

    keep: float | None = None
    may_go: float | None = None
    shape: str | None = None
    hottest: float | None = None
    by_hand: bool = False
    diameter: float | None = None
    marked: float | None = None
    spindle: float | None = None
    ra_low: float | None = None
    ra_high: float | None = None


@dataclass(frozen=True, slots=True)
class Verdict:
    """What a reading means: `fine`, `near` a limit or `over` it, in a sentence."""

    level: Level
    text: str


def judge(reading: Measured, facts: Facts, first: float | None = None) -> Verdict | None:
    """Hold a reading against the limits. None where there is nothing to hold it against.

    Args:
        first: the first reading of the same thing at the same place, for what has come off since.

    >>> judge(Measured("coat", 41e-6), Facts(keep=40e-6)).level
    'near'
    >>> judge(Measured("size", 24.95e-3), Facts(may_go=30e-6, shape="cylinder"), first=25.0e-3).level
    'near'
    """
    match reading.quantity:
        case "coat":
            return _coat(reading.value, facts)
        case "size":
            return _size(reading.value, facts, first)
        case "temperature":
            return _heat(reading.value, facts)
        case "spindle":
            return _speed(reading.value, facts)
        case "ra":
            return _roughness(reading.value, facts)
        case _:
            return None


def _coat(value: float, facts: Facts) -> Verdict | None:
    if facts.keep is None:
        return None
    left, keep = value - facts.keep, _um(facts.keep)
    if left < 0:
        return Verdict("over", f"Stop: {_um(value)} µm of coat are left and {keep} µm must stay.")
    if left < constant("bench.coat_near").si:
        return Verdict("near", f"Only {_um(left)} µm above the {keep} µm that must stay: finest step only, measure often.")
    return Verdict("fine", f"{_um(left)} µm of coat may still go.")


def _size(value: float, facts: Facts, first: float | None) -> Verdict | None:
    if first is None or facts.may_go is None:
        return None
    gone = layer_between(first, value, facts.shape)
    limit = _um(facts.may_go)
    if gone > facts.may_go:
        return Verdict("over", f"Stop: {_um(gone)} µm have come off here and {limit} µm may.")
    if gone > constant("bench.metal_near").value * facts.may_go:
        return Verdict("near", f"{_um(gone)} µm of the {limit} µm that may come off are gone here.")
    return Verdict("fine", f"{_um(gone)} µm have come off here, of {limit} µm that may.")


def _heat(value: float, facts: Facts) -> Verdict | None:
    hand = constant("heat.hand").si
    limit = min(facts.hottest or math.inf, hand if facts.by_hand else math.inf)
    if math.isinf(limit):
        return None
    said = f"{from_si(limit, 'C'):.0f} °C"
    why = "a bare hand bears" if limit == hand else "it may get"
    if value >= limit:
        return Verdict("over", f"Stop and let it cool: {from_si(value, 'C'):.0f} °C, and {said} is what {why}.")
    if value > limit - constant("bench.heat_near").si:
        return Verdict("near", f"Nearly too hot: {said} is what {why}. Lighter, slower, or rest it.")
    return Verdict("fine", f"Cool enough: {said} is what {why}.")


def _speed(value: float, facts: Facts) -> Verdict | None:
    if facts.diameter is None or facts.marked is None:
        return None
    surface = math.pi * facts.diameter * value
    if surface > facts.marked:
        return Verdict("over", f"Switch off: {surface:.1f} m/s, and the wheel is marked for {facts.marked:.1f} m/s.")
    if facts.spindle is not None and abs(value - facts.spindle) > constant("bench.speed_near").value * facts.spindle:
        planned = from_si(facts.spindle, "rev/min")
        return Verdict("near", f"{surface:.1f} m/s: planned was {planned:.0f} rev/min. Below the mark all the same.")
    return Verdict("fine", f"{surface:.1f} m/s, below the mark of {facts.marked:.1f} m/s.")


def _roughness(value: float, facts: Facts) -> Verdict | None:
    if facts.ra_low is None and facts.ra_high is None:
        return None
    low, high = facts.ra_low or 0.0, facts.ra_high or math.inf
    said = f"Ra {_um(value)} µm"
    if value > high:
        return Verdict("near", f"{said} is coarser than the {_um(high)} µm that is wanted: not yet.")
    if value < low:
        return Verdict("near", f"{said} is finer than the {_um(low)} µm that is wanted.")
    return Verdict("fine", f"{said} is as wanted.")


def _um(value: float) -> str:
    return f"{from_si(value, 'um'):.3g}"
