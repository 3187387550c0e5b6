"""Compares a reading with its limits: metal removed, coat left, temperature, speed."""

import math
from dataclasses import dataclass
from typing import Literal

from kelbrast.core.bench.events import Measured
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.shapes import layer_between
from kelbrast.core.wording import Measure, Sentence, sentence

Level = Literal["fine", "near", "over"]


@dataclass(frozen=True, slots=True)
class Facts:
    """What a reading is held against (SI); None where there is no such limit.

    Attributes:
        keep: thickness of the coat that must stay.
        may_go: the most that may come off anywhere.  shape: its kind, for how a size follows from that.
        hottest: the temperature to stay below.  by_hand: a hand holds the part, in finger guards where it gets hot.
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
    said: Sentence


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
    left, keep = value - facts.keep, _depth(facts.keep)
    if left < 0:
        return Verdict("over", sentence("verdict.coat_over", value=_depth(value), keep=keep))
    if left < constant("bench.coat_near").si:
        return Verdict("near", sentence("verdict.coat_near", left=_depth(left), keep=keep))
    return Verdict("fine", sentence("verdict.coat_fine", left=_depth(left)))


def _size(value: float, facts: Facts, first: float | None) -> Verdict | None:
    if first is None or facts.may_go is None:
        return None
    gone = layer_between(first, value, facts.shape)
    level: Level = "fine"
    if gone > facts.may_go:
        level = "over"
    elif gone > constant("bench.metal_near").value * facts.may_go:
        level = "near"
    return Verdict(level, sentence(f"verdict.size_{level}", gone=_depth(gone), may=_depth(facts.may_go)))


def _heat(value: float, facts: Facts) -> Verdict | None:
    guarded = constant("heat.guarded").si
    limit = min(facts.hottest or math.inf, guarded if facts.by_hand else math.inf)
    if math.isinf(limit):
        return None
    said, why = Measure(limit, "temperature"), "a hand in finger guards bears" if limit == guarded else "it may get"
    if value >= limit:
        return Verdict("over", sentence("verdict.heat_over", value=Measure(value, "temperature"), limit=said, why=why))
    level: Level = "near" if value > limit - constant("bench.heat_near").si else "fine"
    return Verdict(level, sentence(f"verdict.heat_{level}", limit=said, why=why))


def _speed(value: float, facts: Facts) -> Verdict | None:
    if facts.diameter is None or facts.marked is None:
        return None
    surface = math.pi * facts.diameter * value
    said, marked = Measure(surface, "speed", 4), Measure(facts.marked, "speed", 4)
    if surface > facts.marked:
        return Verdict("over", sentence("verdict.speed_over", surface=said, marked=marked))
    if facts.spindle is not None and abs(value - facts.spindle) > constant("bench.speed_near").value * facts.spindle:
        return Verdict("near", sentence("verdict.speed_near", surface=said, planned=Measure(facts.spindle, "turns")))
    return Verdict("fine", sentence("verdict.speed_fine", surface=said, marked=marked))


def _roughness(value: float, facts: Facts) -> Verdict | None:
    if facts.ra_low is None and facts.ra_high is None:
        return None
    low, high = facts.ra_low or 0.0, facts.ra_high or math.inf
    ra = Measure(value, "roughness", 3)
    if value > high:
        return Verdict("near", sentence("verdict.ra_coarse", ra=ra, wanted=Measure(high, "roughness", 3)))
    if value < low:
        return Verdict("near", sentence("verdict.ra_fine", ra=ra, wanted=Measure(low, "roughness", 3)))
    return Verdict("fine", sentence("verdict.ra_as_wanted", ra=ra))


def _depth(value: float) -> Measure:
    return Measure(value, "depth", 3)
