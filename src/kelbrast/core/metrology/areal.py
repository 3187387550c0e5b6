"""Parameters of a height map (ISO 25178-2)."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.metrology.profile import low_pass
from kelbrast.core.validity import Reals, require_above_zero, require_heights

_ROWS: Final = 256
_LEAST: Final = 8


@dataclass(frozen=True, slots=True)
class HeightMap:
    """Heights z (m) on a grid; `spacing` of rows and of columns, m."""

    z: Reals
    spacing: tuple[float, float]


@dataclass(frozen=True, slots=True)
class Areal:
    """Sa, Sq, Sz (m), skewness, kurtosis, and Sdr: how much larger the surface is than its plane (0.01 is one per cent)."""

    sa: float
    sq: float
    sz: float
    ssk: float
    sku: float
    sdr: float


def areal(z: Reals, spacing: tuple[float, float]) -> Areal:
    """The parameters of a map; the mean is taken off.

    Equation: `Sa = mean |z|, Sq = sqrt(mean z^2), Sz = max z - min z, Ssk = mean z^3 / Sq^3, Sku = mean z^4 / Sq^4` (m, 1)
    Valid: at least 8 by 8 heights that differ, all numbers; spacings above 0.

    Args:
        z: heights, m.
        spacing: of rows and of columns, m.

    Raises:
        OutsideValidity: outside that.

    Source: iso-25178.

    >>> rows, columns = np.mgrid[0:200, 0:200] / 200
    >>> wave = areal(np.sin(2 * np.pi * columns), (1 / 200, 1 / 200))
    >>> round(wave.sa, 3), round(wave.sq, 3), round(wave.sz, 3)
    (0.637, 0.707, 2.0)
    """
    _require_map(z)
    require_above_zero(spacing=min(spacing))
    z = z - z.mean()
    sq = float(np.sqrt((z**2).mean()))
    if sq == 0:
        raise OutsideValidity("the map has no height at all")
    squared = z * z
    return Areal(
        sa=mean_height(z),
        sq=sq,
        sz=float(z.max() - z.min()),
        ssk=float((squared * z).mean() / sq**3),
        sku=float((squared * squared).mean() / sq**4),
        sdr=_developed(z, spacing),
    )


def mean_height(z: Reals) -> float:
    """Sa alone, the arithmetical mean height; the mean is taken off.

    Equation: `Sa = mean |z - mean z|` (m)
    Valid: at least 8 by 8 heights, all numbers.

    Args:
        z: heights, m.

    Raises:
        OutsideValidity: outside that.

    Source: iso-25178.

    >>> mean_height(np.tile([0.5, 1.5], (8, 4)))
    0.5
    """
    _require_map(z)
    return float(np.abs(z - z.mean()).mean())


def without_form(z: Reals, degree: int = 1) -> Reals:
    """The map less the surface that fits it best.

    Equation: `z - sum f_ab y^a x^b`, a + b <= degree, by least squares (m)
    Valid: degree 0 (a level), 1 (a plane) or 2 (a bowl); at least 8 by 8 heights, all numbers.

    Args:
        z: heights, m.
        degree: of the surface, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: iso-25178.

    >>> rows, columns = np.mgrid[0:20, 0:20] * 1e-6
    >>> bool(np.abs(without_form(rows + 2 * columns)).max() < 1e-12)
    True
    """
    _require_map(z)
    if degree not in (0, 1, 2):
        raise OutsideValidity("the form of a map is a level (0), a plane (1) or a bowl (2)")
    # The grid is even, so the terms of the surface are products of one polynomial each way, and nothing of the map's size is
    # made but the answer.
    down = np.vander(np.linspace(-1, 1, z.shape[0]), degree + 1, increasing=True)
    along = np.vander(np.linspace(-1, 1, z.shape[1]), degree + 1, increasing=True)
    terms = [(a, b) for a in range(degree + 1) for b in range(degree + 1 - a)]
    by_row, by_column, moments = down.T @ down, along.T @ along, down.T @ (z @ along)
    normal = np.array([[by_row[a, c] * by_column[b, d] for c, d in terms] for a, b in terms])
    fitted = np.zeros((degree + 1, degree + 1))
    for (a, b), factor in zip(terms, np.linalg.solve(normal, [moments[a, b] for a, b in terms]), strict=True):
        fitted[a, b] = factor
    return np.asarray(z - down @ fitted @ along.T)


def finer_than(z: Reals, spacing: tuple[float, float], cut_off: float) -> Reals:
    """What is finer than the cut-off both ways (the L-filter).

    Equation: `z - G_y G_x z`, G the Gaussian low pass (m)
    Valid: spacings and cut-off above 0, at least 8 by 8 heights, all numbers.

    Args:
        z: heights, m.
        spacing: of rows and of columns, m.
        cut_off: m.

    Raises:
        OutsideValidity: outside that.

    Source: iso-16610.

    >>> bool(np.abs(finer_than(np.full((20, 20), 3e-6), (1e-6, 1e-6), 5e-6)).max() < 1e-12)
    True
    """
    _require_map(z)
    coarse = low_pass(low_pass(z, spacing[0], cut_off, axis=0), spacing[1], cut_off, axis=1)
    return np.asarray(z - coarse)


def _require_map(z: Reals) -> None:
    if z.ndim != 2 or min(z.shape) < _LEAST:
        raise OutsideValidity(f"a map needs at least {_LEAST} by {_LEAST} heights")
    require_heights(z, least=_LEAST**2, what="a map")


def _developed(z: Reals, spacing: tuple[float, float]) -> float:
    """Sdr by the mean of both ways to cut each square of four heights into two triangles; so many rows at a time."""
    squares = (z.shape[0] - 1) * (z.shape[1] - 1)
    stretches = (z[start : start + _ROWS + 1] for start in range(0, z.shape[0] - 1, _ROWS))
    whole = sum(_areas(stretch, spacing) for stretch in stretches)
    return float(whole / squares / (spacing[0] * spacing[1])) - 1


def _areas(z: Reals, spacing: tuple[float, float]) -> float:
    """The surface over these squares, m2."""
    dy, dx = spacing
    a, b, c, d = z[:-1, :-1], z[:-1, 1:], z[1:, :-1], z[1:, 1:]

    def triangle(along: Reals, across: Reals) -> Reals:
        return np.asarray(np.sqrt((along * dy) ** 2 + (across * dx) ** 2 + (dx * dy) ** 2) / 2)

    one = triangle(b - a, c - a) + triangle(d - c, d - b)
    other = triangle(b - a, d - b) + triangle(d - c, c - a)
    return float((one + other).sum() / 2)
