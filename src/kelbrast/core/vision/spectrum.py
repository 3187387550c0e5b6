"""The waves of a field: power spectra of its tiles, and the directions of the lines that waves belong to."""

import math
from typing import Final

import numpy as np
import scipy

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.validity import Reals

TILE: Final = 128  # pixels of a side


def spectra(contrast: Reals) -> Reals:
    """Power spectra of the tiles of a field, which overlap by half.

    Equation: `P = |F((c - mean c) w)|^2` of each tile, w Hann's window (dimensionless)
    Valid: at least 128 pixels each way.

    Args:
        contrast: c, of a field, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: eye-simulated.

    >>> spectra(np.zeros((128, 256))).shape
    (3, 128, 128)
    """
    rows, columns = contrast.shape
    if min(rows, columns) < TILE:
        raise OutsideValidity(f"a field needs {TILE} pixels each way at least")
    tiles = np.array(
        [
            contrast[row : row + TILE, column : column + TILE]
            for row in range(0, rows - TILE + 1, TILE // 2)
            for column in range(0, columns - TILE + 1, TILE // 2)
        ]
    )
    window = np.outer(np.hanning(TILE), np.hanning(TILE))
    return np.asarray(np.abs(scipy.fft.fft2((tiles - tiles.mean(axis=(1, 2), keepdims=True)) * window)) ** 2)


def lines_of(fy: Reals, fx: Reals) -> Reals:
    """The direction of the lines that waves belong to: they run across their lines.

    Equation: `t = (atan2(-fy, fx) + pi / 2) mod pi` (rad)
    Valid: every number; rows run down.

    Args:
        fy: frequencies along the columns, cycles a pixel, dimensionless.
        fx: frequencies along the rows, cycles a pixel, dimensionless.

    Raises:
        OutsideValidity: never.

    Source: geometry.

    >>> round(float(lines_of(np.array(0.0), np.array(0.2))), 4)  # a wave to the right, of lines that stand upright
    1.5708
    """
    return np.asarray((np.arctan2(-fy, fx) + math.pi / 2) % math.pi)


def turned(lines: Reals, lay: float) -> Reals:
    """By how much lines are turned from a direction; a line has no head.

    Equation: `((t - lay + pi/2) mod pi) - pi/2` (rad)
    Valid: a lay that is a number.

    Args:
        lines: t, their directions, rad.
        lay: the direction, rad.

    Raises:
        OutsideValidity: outside that.

    Source: geometry.

    >>> np.degrees(turned(np.radians([175.0, 20.0]), math.radians(5))).round().tolist()
    [-10.0, 15.0]
    """
    if not math.isfinite(lay):
        raise OutsideValidity("a direction must be a number")
    return np.asarray((lines - lay + math.pi / 2) % math.pi - math.pi / 2)
