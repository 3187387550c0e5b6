"""Which lap of the rack can do the work, how far it is to be set out, and why another cannot."""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from kelbrast.core.catalogue.grades import Grade
from kelbrast.core.precision.lap import set_out
from kelbrast.core.rack.item import Item, bound_by, carrier_of
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.sized import RoundKind
from kelbrast.core.validity import require_above_zero
from kelbrast.core.wording import Measure, Sentence, sentence

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
    of_kind = [one for one in items if (held := carrier_of(one.what)) is not None and held.id == _CARRIER[kind]]
    found = [_on(one, kind, tightest, target, length, grade) for one in of_kind if not one.retired and one.have > 0]
    return tuple(sorted(found, key=lambda one: (not one.able, one.slides if one.slides is not None else tightest)))


def _on(item: Item, kind: RoundKind, tightest: float, target: float, length: float, grade: Grade) -> LapAtHand:
    bound = bound_by(item.history)
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
