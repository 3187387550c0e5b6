"""The diameter to read after each grade: every later one has what clears the marks before it, and the last is on size."""

import math
from collections.abc import Sequence
from dataclasses import dataclass

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.validity import require_above_zero, require_not_below_zero


@dataclass(frozen=True, slots=True)
class SizingGrade:
    """A grade of the way: the depth of the marks that it leaves, m, and how many depths of the marks before it takes off."""

    name: str
    marks: float
    clears: float


@dataclass(frozen=True, slots=True)
class StopAt:
    """Read this after a grade, m."""

    grade: str
    diameter: float


def stops_of_layers(steps: Sequence[tuple[str, float]], *, start: float, target: float, sign: float) -> tuple[StopAt, ...]:
    """What to read after each step of a route: each later one has the layer that it needs, and the last is on size.

    Equation: `D_k = E - sign 2 sum_(j > k) h_j`, E the target, or where all of them end that lies further on (m)
    Valid: start and target above 0, the sign 1 (a bore grows) or -1, no layer below 0.

    Args:
        steps: in order: a name, and the layer that it takes off, h, m.
        start: the size before the first, m.
        target: the size at the end, m.
        sign: of the change, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: geometry, size-policy.

    >>> route = [("coarse lap", 4e-6), ("finishing lap", 2e-6)]
    >>> [(one.grade, round(1e3 * one.diameter, 3)) for one in stops_of_layers(route, start=20e-3, target=20.012e-3, sign=1)]
    [('coarse lap', 20.008), ('finishing lap', 20.012)]
    """
    require_above_zero(start=start, target=target)
    require_not_below_zero(**{f"layer {at}": layer for at, (_, layer) in enumerate(steps, start=1)})
    if abs(sign) != 1:
        raise OutsideValidity("the sign must be 1 for a bore or -1 for a shaft")
    later = [2 * sum(layer for _, layer in steps[at + 1 :]) for at in range(len(steps))]
    end = sign * max(sign * target, sign * start + (later[0] if later else 0.0))
    return tuple(StopAt(name, end - sign * ahead) for (name, _), ahead in zip(steps, later, strict=True))


def stop_sheet(
    grades: Sequence[SizingGrade], *, target: float, sign: float, least: float = 0.0, most: float = math.inf
) -> tuple[StopAt, ...]:
    """What to read after each grade.

    Equation: `D_k = D - sign sum_(j > k) min(max(2 m_j d_(j - 1), least), most)` (m)
    Valid: target above 0, the sign 1 (a bore grows) or -1, no mark or multiple below 0.

    Args:
        grades: in order.
        target: D, the size at the end, m.
        sign: of the change, dimensionless.
        least: what a grade takes at least off the diameter, m: less the gauge does not see.
        most: and at most, m.

    Raises:
        OutsideValidity: outside that.

    Source: samuels, size-policy.

    >>> way = [SizingGrade("P240", 2e-6, 2.0), SizingGrade("P400", 1e-6, 2.0), SizingGrade("P600", 0.5e-6, 2.0)]
    >>> [(one.grade, round(one.diameter * 1e3, 3)) for one in stop_sheet(way, target=14e-3, sign=-1)]
    [('P240', 14.012), ('P400', 14.004), ('P600', 14.0)]
    """
    require_above_zero(target=target)
    require_not_below_zero(least=least, **{grade.name: grade.marks * grade.clears for grade in grades})
    if abs(sign) != 1:
        raise OutsideValidity("the sign must be 1 for a bore or -1 for a shaft")
    stop_ats, ahead = [], 0.0
    for at in range(len(grades) - 1, -1, -1):
        stop_ats.append(StopAt(grades[at].name, target - sign * ahead))
        if at:
            ahead += min(max(2 * grades[at].clears * grades[at - 1].marks, least), most)
    return tuple(reversed(stop_ats))
