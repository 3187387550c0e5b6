"""Grooves on a simulated patch, with depths, widths and lay by the laws of the planner."""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

import numpy as np

from kelbrast.core.process.scratch import grain_of_marks
from kelbrast.core.reference.loader import constant
from kelbrast.core.validity import Places, Reals, require_above_zero, require_not_below_zero

Lay = Literal["one-way", "none"]
_CHUNK = 30_000  # points of grooves that are drawn at once: so many stay in the cache of a core


@dataclass(frozen=True, slots=True)
class Marks:
    """Marks to draw (SI): Rz of the marked surface, the grain that leaves them, their lay and its direction (rad)."""

    depth: float
    grain: float
    lay: Lay = "one-way"
    angle: float = 0.0


def marks_as_deep(depth: float, *, hardness: float) -> float:
    """The grain that marks of this depth are drawn with: the one that leaves such marks, within what a picture can show.

    Equation: `g = min(g_coarsest, max(g_finest, g(d)))`, g(d) the scratch law turned round (m)
    Valid: both above 0.

    Args:
        depth: d, m.
        hardness: of the work, Pa.

    Raises:
        OutsideValidity: outside that.

    Source: scratch-fit, our-choice.

    >>> round(marks_as_deep(1e-9, hardness=130.0) * 1e6)
    5
    """
    finest, coarsest = constant("simulation.finest_grain").si, constant("simulation.coarsest_grain").si
    return min(max(grain_of_marks(depth=depth, hardness=hardness), finest), coarsest)


@dataclass(frozen=True, slots=True)
class Drawn:
    """Marks as they lie on a patch: heights (m, at most 0), and the depth of the floor of each (m)."""

    z: Reals
    floors: Reals


def floors_of(depth: float, count: int, chance: np.random.Generator) -> Reals:
    """The depths of so many marks of a surface of this Rz: Gaussian, as `process.clearance.marks_left` has them.

    Equation: `x = max(0, d (3 + N(0, 1)) / 6.5)` (m)
    Valid: depth above 0, count not below 0.

    Args:
        depth: d, Rz of the surface, m.
        count: of the marks, dimensionless.
        chance: where the draws come from.

    Raises:
        OutsideValidity: outside that.

    Source: gaussian-extremes.

    >>> floors_of(6.5e-6, 3, np.random.default_rng(1)).shape
    (3,)
    """
    require_above_zero(depth=depth)
    require_not_below_zero(count=count)
    scale, offset = constant("clearance.largest_scale").value, constant("clearance.largest_offset").value
    return np.maximum(0.0, depth * (offset + chance.standard_normal(count)) / scale)


def draw(marks: Marks, size: tuple[int, int], spacing: float, chance: np.random.Generator) -> Drawn:
    """Draw marks on an empty patch until nearly all of it is covered.

    Equation: `z = -x (1 - |u / (w / 2)|^p)` across each mark, w = 0.3 grains (m)
    Valid: depth, grain and spacing above 0, at least one point each way.

    Args:
        marks: their depth and grain, m, lay, and angle, rad.
        size: rows and columns, dimensionless.
        spacing: of the points, m.
        chance: where the draws come from.

    Raises:
        OutsideValidity: outside that.

    Source: simulation-fit.

    >>> drawn = draw(Marks(6e-6, 80e-6), (40, 40), 8e-6, np.random.default_rng(1))
    >>> bool(drawn.z.max() <= 0), drawn.z.shape
    (True, (40, 40))
    """
    require_above_zero(depth=marks.depth, grain=marks.grain, spacing=spacing, size=min(size))
    width = max(constant("simulation.mark_width_per_grain").value * marks.grain, 1.5 * spacing)
    longest = math.hypot(*size) * spacing
    length = min(constant("clearance.mark_length_per_grain").value * marks.grain, longest)
    area = size[0] * size[1] * spacing**2
    reach = (1 + length / (size[0] * spacing)) * (1 + length / (size[1] * spacing))  # marks also begin outside
    count = max(1, round(constant("simulation.coverage").value * reach * area / (width * length)))
    floors = floors_of(marks.depth, count, chance)
    return Drawn(_drawn(marks, floors, width, length, size, spacing, chance), floors)


def _drawn(
    marks: Marks, floors: Reals, width: float, length: float, size: tuple[int, int], spacing: float, chance: np.random.Generator
) -> Reals:
    rows, columns = size
    count = len(floors)
    turn = marks.angle + chance.normal(0.0, 0.02, count) if marks.lay == "one-way" else chance.uniform(0, math.pi, count)
    half = length / 2 / spacing
    centre_y = chance.uniform(-half, rows + half, count)
    centre_x = chance.uniform(-half, columns + half, count)
    cos, sin = np.cos(turn), np.sin(turn)
    along = np.arange(-half, half, 0.7)
    across = np.arange(-width / 2 / spacing, width / 2 / spacing + 0.1, 0.7)
    section = 1 - np.abs(across * spacing / (width / 2)).clip(0, 1) ** constant("simulation.groove_power").value
    # Grooves run out at their ends.
    run_out = np.clip(4 * (1 - np.abs(along) / max(half, 1.0)), 0, 1)
    # Only what may touch the patch is drawn, on a patch with a rim for what misses it by the width of a groove.
    beside = width / 2 / spacing + 1
    rim = math.ceil(2 * beside)
    z = np.zeros((rows + 2 * rim, columns + 2 * rim))
    line, points = z.shape[1], z.reshape(-1)
    over_x, over_y = _within(along, centre_x, cos, columns, beside), _within(along, centre_y, sin, rows, beside)
    first = np.maximum(over_x[0], over_y[0])
    for groove, at in _points(first, np.maximum(np.minimum(over_x[1], over_y[1]) - first, 0)):
        c, s = cos[groove], sin[groove]
        x, y = centre_x[groove] + along[at] * c, centre_y[groove] + along[at] * s
        deep = -floors[groove]
        for v, height in zip(across[section > 0], section[section > 0], strict=True):
            place = (np.rint(y + v * c) + rim) * line + (np.rint(x - v * s) + rim)
            np.minimum.at(points, place.astype(np.intp), deep * (height * run_out)[at])
    return z[rim : rim + rows, rim : rim + columns].copy()


def _within(along: Reals, centre: Reals, slope: Reals, side: int, beside: float) -> tuple[Places, Places]:
    """From and up to which point along each groove it lies within a side of the patch, or this far beside it."""
    slope = np.where(np.abs(slope) < 1e-12, 1e-12, slope)
    ends = np.sort([(-beside - centre) / slope, (side + beside - centre) / slope], axis=0)
    return np.searchsorted(along, ends[0]), np.searchsorted(along, ends[1], side="right")


def _points(first: Places, many: Places) -> Iterator[tuple[Places, Places]]:
    """The points of all grooves, in parts: which groove, and which point along it; of each so many from the first."""
    for grooves in np.split(np.arange(len(many)), np.flatnonzero(np.diff(np.cumsum(many) // _CHUNK)) + 1):
        each = many[grooves]
        groove = np.repeat(grooves, each)
        yield groove, np.arange(len(groove)) + np.repeat(first[grooves] - np.cumsum(each) + each, each)
