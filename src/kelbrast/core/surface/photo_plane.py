"""A flat part on a photo: from pixels to its plane, and the areas of outlines that were drawn on it."""

from collections.abc import Sequence
from dataclasses import dataclass
from itertools import combinations
from typing import Final

import numpy as np
import numpy.typing as npt

from kelbrast.core.errors import OutsideValidity

Pixel = tuple[float, float]
MOST_CURVED: Final = 10.0  # beyond that a face is hardly seen from there at all
_LEAST_TURN: Final = 1e-4  # of the size of the rectangle, squared: a corner that turns less is on a line with its neighbours
_LEAST_PIXELS: Final = 1.0  # two points that are no farther apart are one


@dataclass(frozen=True, slots=True)
class PhotoPlane:
    """How pixels lie on the plane of the part.

    A point x of the picture lies at X with (X, Y, 1) w = H (x, y, 1); `matrix` is H, which takes pixels to metres.
    """

    matrix: npt.NDArray[np.float64]

    def on_part(self, points: Sequence[Pixel]) -> npt.NDArray[np.float64]:
        """Where points of the picture lie on the plane.

        Args:
            points: x, y of each, pixels.

        Returns:
            (n, 2), m.

        Raises:
            OutsideValidity: a point lies at or beyond the horizon of the plane.

        >>> plane = plane_by_length((0.0, 0.0), (100.0, 0.0), length=0.05)
        >>> [round(float(one), 4) for one in plane.on_part([(10.0, 20.0)])[0]]
        [0.005, 0.01]
        """
        spread = np.column_stack([np.asarray(points, dtype=float), np.ones(len(points))]) @ self.matrix.T
        if np.any(spread[:, 2] <= 0):
            raise OutsideValidity("a point lies beyond the horizon of the part's plane: mark the four corners again")
        return np.asarray(spread[:, :2] / spread[:, 2:])


def plane_by_length(a: Pixel, b: Pixel, *, length: float) -> PhotoPlane:
    """The plane of a photo taken square on, from one known length on it.

    Args:
        a, b: the ends, pixels.  length: between them, m.

    Raises:
        OutsideValidity: the ends are one point, or the length is not above 0.
    """
    if length <= 0:
        raise OutsideValidity("the known length must be above 0")
    apart = float(np.hypot(b[0] - a[0], b[1] - a[1]))
    if apart <= _LEAST_PIXELS:
        raise OutsideValidity("the two ends of the known length are one point")
    scale = length / apart
    return PhotoPlane(np.diag([scale, scale, 1.0]))


def plane_by_rectangle(corners: Sequence[Pixel], *, width: float, height: float) -> PhotoPlane:
    """The plane of a photo taken at a slant, from the four corners of a rectangle of known sides on it.

    The homography H with H c_i ~ r_i for the corners c_i and the rectangle's own r_i: eight linear equations (H33 = 1 after
    moving the picture's corners to their middle and to a size of one).

    Args:
        corners: in turn around the rectangle, the first side its width, pixels.  width, height: m.

    Raises:
        OutsideValidity: not four corners, three of them in a line, not in turn, or a side not above 0.

    >>> flat = plane_by_rectangle([(0, 0), (200, 0), (200, 100), (0, 100)], width=0.2, height=0.1)
    >>> round(area_on(flat, [(0, 0), (100, 0), (100, 100), (0, 100)]), 6)
    0.01
    """
    if len(corners) != 4:
        raise OutsideValidity("the rectangle needs four corners")
    if width <= 0 or height <= 0:
        raise OutsideValidity("both sides of the rectangle must be above 0")
    given = np.asarray(corners, dtype=float)
    middle, size = given.mean(axis=0), float(np.ptp(given, axis=0).max())
    if size <= _LEAST_PIXELS:
        raise OutsideValidity("the four corners are one point")
    turns = [_turn(given[at], given[(at + 1) % 4], given[(at + 2) % 4]) / size**2 for at in range(4)]
    if min(abs(turn) for turn in turns) < _LEAST_TURN or len({turn > 0 for turn in turns}) > 1:
        raise OutsideValidity("the four corners must be tapped in turn around the rectangle, no three of them in a line")
    normal = np.array([[1 / size, 0, -middle[0] / size], [0, 1 / size, -middle[1] / size], [0, 0, 1]])
    moved = (given - middle) / size
    target = np.array([[0, 0], [width, 0], [width, height], [0, height]])
    rows, right = [], []
    for (x, y), (at_x, at_y) in zip(moved, target, strict=True):
        rows += [[x, y, 1, 0, 0, 0, -at_x * x, -at_x * y], [0, 0, 0, x, y, 1, -at_y * x, -at_y * y]]
        right += [at_x, at_y]
    solved = np.linalg.solve(np.array(rows), np.array(right))
    return PhotoPlane(np.append(solved, 1.0).reshape(3, 3) @ normal)


def area_on(plane: PhotoPlane, outline: Sequence[Pixel], *, curved: float = 1.0) -> float:
    """The area inside an outline, m2: the shoelace formula on the plane, |sum(x_i y_i+1 - x_i+1 y_i)| / 2.

    Args:
        outline: in turn, pixels.  curved: by how much a curved face is larger than it looks from there.

    Raises:
        OutsideValidity: fewer than three points, an outline that crosses itself, or `curved` below 1 or above 10.
    """
    if not 1 <= curved <= MOST_CURVED:
        raise OutsideValidity("a curved face is at least as large as it looks, and at most ten times")
    if len(outline) < 3:
        raise OutsideValidity("an outline needs three points or more")
    if _crosses(outline):
        raise OutsideValidity("the outline crosses itself: draw it again, in turn around the face")
    x, y = plane.on_part(outline).T
    return float(abs(np.dot(x, np.roll(y, -1)) - np.dot(y, np.roll(x, -1))) / 2 * curved)


def length_on(plane: PhotoPlane, stroke: Sequence[Pixel]) -> float:
    """The length of a stroke, m; 0 for a single point.

    >>> plane = plane_by_length((0.0, 0.0), (100.0, 0.0), length=0.05)
    >>> round(length_on(plane, [(0.0, 0.0), (30.0, 40.0)]), 4)
    0.025
    """
    return float(np.hypot(*np.diff(plane.on_part(stroke), axis=0).T).sum())


def lies_in(point: Pixel, outline: Sequence[Pixel]) -> bool:
    """Whether a point lies inside an outline: a ray from it crosses the sides an odd number of times.

    >>> square = [(0.0, 0.0), (10.0, 0.0), (10.0, 10.0), (0.0, 10.0)]
    >>> lies_in((5.0, 5.0), square), lies_in((15.0, 5.0), square)
    (True, False)
    """
    x, y = point
    inside = False
    for (ax, ay), (bx, by) in zip(outline, [*outline[1:], outline[0]], strict=True):
        if (ay > y) != (by > y) and x < (bx - ax) * (y - ay) / (by - ay) + ax:
            inside = not inside
    return inside


def _turn(a: npt.NDArray[np.float64], b: npt.NDArray[np.float64], c: npt.NDArray[np.float64]) -> float:
    return float((b[0] - a[0]) * (c[1] - b[1]) - (b[1] - a[1]) * (c[0] - b[0]))


def _crosses(outline: Sequence[Pixel]) -> bool:
    points = np.asarray(outline, dtype=float)
    sides = [(points[at], points[(at + 1) % len(points)]) for at in range(len(points))]
    for one, other in combinations(range(len(sides)), 2):
        if other - one in (1, len(sides) - 1):
            continue
        (a, b), (c, d) = sides[one], sides[other]
        if _turn(a, b, c) * _turn(a, b, d) < 0 and _turn(c, d, a) * _turn(c, d, b) < 0:
            return True
    return False
