"""A photo prepared for analysis: linear light, local contrast, square fields."""

import math
from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from typing import Final

import numpy as np
from numpy.typing import NDArray

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import eye
from kelbrast.core.validity import Bytes, Reals, require_above_zero, require_within

FIELD: Final = 448  # pixels of a side
MOST_FIELDS: Final = 12  # of one photo: a few tenths of a second each


@dataclass(frozen=True, slots=True)
class Field:
    """A square of a photo. `contrast`: dimensionless; `row`, `column`: of its first pixel; `lost`: share in black or white."""

    contrast: Reals
    row: int
    column: int
    lost: float = 0.0


@dataclass(frozen=True, slots=True)
class Line:
    """Where a mark lies: from and to, as column and row."""

    x0: float
    y0: float
    x1: float
    y1: float

    def within(self, field: Field) -> "Line":
        """A line of a field, as it lies in the photo."""
        return Line(self.x0 + field.column, self.y0 + field.row, self.x1 + field.column, self.y1 + field.row)


def contrast(grey: Reals) -> Reals:
    """How much lighter each place is than its surroundings, in linear light.

    Equation: `c = g / gauss(g, 32 px) - 1`, g = grey^2.2 (dimensionless)
    Valid: grey from 0 to 1, at least one pixel; meant for parts of a photo, as the work grows with the cube of the side.

    Args:
        grey: rows and columns of a photo, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: eye-judges.

    >>> bool(np.allclose(contrast(np.full((64, 64), 0.5)), 0.0, atol=1e-5))
    True
    """
    if grey.size == 0:
        raise OutsideValidity("a photo has at least one pixel")
    require_within(0, 1, darkest=float(grey.min()), brightest=float(grey.max()))
    linear = grey ** eye("field.gamma")
    rows, columns = grey.shape
    around = _surroundings(rows) @ linear.astype(np.float32) @ _surroundings(columns).T
    return np.asarray(linear / np.maximum(around, 1e-4) - 1)


@lru_cache(maxsize=8)
def _surroundings(length: int) -> NDArray[np.float32]:
    """(length, length) how much every place of a row counts for the surroundings of every other; beyond its ends it goes on
    as it ends. Products of matrices are ten times quicker than a filter that is so wide, on parts as small as these."""
    sigma, reach = eye("field.surroundings"), _reach()
    steps = np.arange(-reach, reach + 1)
    weights = np.exp(-0.5 * (steps / sigma) ** 2)
    found = np.zeros((length, length))
    places = np.arange(length)
    for step, weight in zip(steps, weights / weights.sum(), strict=True):
        found[places, np.clip(places + step, 0, length - 1)] += weight
    return found.astype(np.float32)


def _reach() -> int:
    """Pixels to which the surroundings of a place go; what lies beyond three deviations is hardly seen."""
    return round(3 * eye("field.surroundings"))


def fields_of(grey: Bytes, most: int = MOST_FIELDS) -> Iterator[Field]:
    """Fields spread evenly over a photo, row by row. Only they are looked at: a photo of twelve megapixels is large.

    Equation: a grid of squares of 448 px, at most so many (dimensionless)
    Valid: a photo that holds one field at least.

    Args:
        grey: rows and columns of a photo, 0 to 255, dimensionless.
        most: fields, dimensionless.

    Raises:
        OutsideValidity: it is smaller than a field, or none are wanted.

    Source: eye-judges.

    >>> [(one.row, one.column) for one in fields_of(np.full((448, 900), 128, dtype=np.uint8))]
    [(0, 0), (0, 452)]
    """
    rows, columns = grey.shape
    if min(rows, columns) < FIELD or most < 1:
        raise OutsideValidity(f"a photo needs {FIELD} pixels each way at least")
    return _fields(grey, *_grid(rows // FIELD, columns // FIELD, most))


def _fields(grey: Bytes, down: int, across: int) -> Iterator[Field]:
    rows, columns = grey.shape
    around = _reach()
    for row in _starts(rows, down):
        for column in _starts(columns, across):
            top, left = max(0, row - around), max(0, column - around)
            part = grey[top : row + FIELD + around, left : column + FIELD + around] / 255.0
            own = grey[row : row + FIELD, column : column + FIELD]
            seen = contrast(part)[row - top : row - top + FIELD, column - left : column - left + FIELD]
            yield Field(seen, row, column, float(np.mean((own <= eye("file.black")) | (own >= eye("file.white")))))


def clipped(values: Reals, sigmas: float) -> Reals:
    """The values, none further from their median than so many robust standard deviations.

    Equation: `min(max(x, m - k s), m + k s)`, s = 1.4826 median|x - m| (dimensionless)
    Valid: at least one value; above 0.

    Args:
        values: x, dimensionless.
        sigmas: k, dimensionless.

    Raises:
        OutsideValidity: there is none.

    Source: huber.

    >>> clipped(np.array([0.0, 1.0, 2.0, 100.0]), 2.0).max() < 5
    np.True_
    """
    require_above_zero(sigmas=sigmas)
    if values.size == 0:
        raise OutsideValidity("there is nothing to clip")
    middle = float(np.median(values))
    reach = sigmas * robust_deviation(values - middle)
    return np.clip(values, middle - reach, middle + reach)


def robust_deviation(values: Reals) -> float:
    """The standard deviation of what lies around 0, whatever stands out of it.

    Equation: `s = 1.4826 median|x|`: of Gaussian noise the standard deviation (dimensionless)
    Valid: at least one value.

    Args:
        values: x, dimensionless.

    Raises:
        OutsideValidity: there is none.

    Source: huber.

    >>> round(robust_deviation(np.array([-1.0, 1.0, 1000.0])), 4)
    1.4826
    """
    if values.size == 0:
        raise OutsideValidity("nothing has no deviation")
    return 1.4826 * float(np.median(np.abs(values)))


def _grid(rows: int, columns: int, most: int) -> tuple[int, int]:
    """So many fields down and across, as the photo has room and as are wanted."""
    if rows * columns <= most:
        return rows, columns
    down = max(1, min(rows, round(math.sqrt(most * rows / columns))))
    return down, max(1, min(columns, most // down))


def _starts(length: int, count: int) -> list[int]:
    room = length - FIELD
    return [0] if count == 1 else [round(at * room / (count - 1)) for at in range(count)] if room else [0]
