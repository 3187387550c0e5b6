"""The steps of a route as they work on a patch."""

import math
from collections.abc import Iterable
from dataclasses import dataclass

from kelbrast.core.catalogue.tools import Tool
from kelbrast.core.process.clearance import clearance
from kelbrast.core.reference.loader import constant
from kelbrast.core.simulation.marks import Marks
from kelbrast.core.simulation.patch import START_ANGLE, FoundPatch, Working
from kelbrast.core.validity import require_above_zero, require_not_below_zero, require_within


@dataclass(frozen=True, slots=True)
class RouteStep:
    """A step as planned (SI): the layer that it probably takes, the marks that it leaves, and whether it goes across."""

    tool: Tool
    layer: float
    leaves: float
    grain: float
    lay: str


def workings(steps: Iterable[RouteStep]) -> list[Working]:
    """The steps of a route on a patch; each that works across turns its marks from those before.

    Equation: `angle_k = angle_(k-1) + crossing` for a step across (rad)
    Valid: layers and depths as planned.

    Args:
        steps: their layer, depth and grain, m.

    Raises:
        OutsideValidity: a layer is below 0.

    Source: bench-practice.

    >>> from kelbrast.core.catalogue.tools import tool
    >>> one, two = workings([RouteStep(tool("paper-p240"), 9e-6, 3e-6, 58e-6, lay) for lay in ("along", "across")])
    >>> one.marks.angle, round((two.marks.angle - one.marks.angle) % math.pi, 3)  # 70 degrees
    (0.6, 1.222)
    """
    angle, workings = START_ANGLE, []
    for step in steps:
        require_not_below_zero(layer=step.layer)
        angle = angle + constant("simulation.crossing").si if step.lay == "across" else angle
        marks = Marks(step.leaves, step.grain, "none" if step.lay == "none" else "one-way", math.remainder(angle, math.pi))
        workings.append(Working(step.layer, marks, step.tool.carrier.cutting.levels, step.tool.reaches_depth))
    return workings


def one_grade(found: FoundPatch, own: Marks, *, area: float, levels: bool, share: float) -> Working:
    """A grade on a patch, worked for a share of the time until it would do for a satin finish.

    Equation: `a = max(m d, d')`, m the removal multiple for satin, d the depth found, d' of its own marks (m)
    Valid: depth, grain and area above 0, the share from 0 to 1.

    Args:
        found: the patch as it was found, m.
        own: the marks that the grade leaves, m; they are turned from those that were found.
        area: of the patch, m2.
        levels: firmly backed.
        share: of its time, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: samuels, gaussian-extremes.

    >>> step = one_grade(FoundPatch("lay", 9e-6, 82e-6), Marks(3e-6, 35e-6), area=1e-6, levels=True, share=1.0)
    >>> step.layer > 9e-6
    True
    """
    require_above_zero(own=own.depth)
    require_within(0, 1, share=share)
    multiple = clearance(area=area, grain=found.grain, deformed=constant("deformed.satin").value)
    crossed = Marks(own.depth, own.grain, own.lay, found.angle + constant("simulation.crossing").si)
    return Working(max(multiple * found.depth, own.depth), crossed, levels, share=share)


def not_yet(last: Working, likely: float) -> float:
    """The share of a step after which it is clearly not done.

    Equation: `p = min(p_most, p_clear d / a)` (dimensionless)
    Valid: layer and likely depth above 0.

    Args:
        last: the step, with its layer a, m.
        likely: d, depth of the marks that it meets, m.

    Raises:
        OutsideValidity: outside that.

    Source: our-choice.

    >>> not_yet(Working(20e-6, Marks(3e-6, 35e-6)), 10e-6)
    0.25
    """
    require_above_zero(layer=last.layer, likely=likely)
    return min(constant("simulation.not_yet_most").value, constant("simulation.not_yet").value * likely / last.layer)
