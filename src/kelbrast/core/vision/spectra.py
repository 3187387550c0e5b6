"""Waves in a photo: power spectra of its tiles, and the directions of the lines that they belong to."""

import math
from dataclasses import dataclass
from functools import cache
from typing import Final

import numpy as np
import scipy

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import eye
from kelbrast.core.validity import Flags, Places, Reals, require_within
from kelbrast.core.vision.fields import clipped

TILE: Final = 128  # pixels of a side


def spectra(contrast: Reals) -> Reals:
    """Power spectra of the tiles of a field, which overlap by half.

    Equation: `P = |F((c - mean c) w)|^2` of each tile, w Hann's window (dimensionless)
    Valid: at least 128 pixels each way.

    Args:
        contrast: c, of a field, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: eye-judges.

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


def mean_power(contrast: Reals) -> Reals:
    """The mean spectrum of a field's tiles, single bright places cut off.

    Equation: the mean of `spectra` (dimensionless)
    Valid: at least 128 pixels each way.

    Args:
        contrast: of a field, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: eye-judges.

    >>> mean_power(np.zeros((128, 256))).shape
    (128, 128)
    """
    return np.asarray(spectra(clipped(contrast, eye("lay.sigmas"))).mean(axis=0))


def apart(one: float, other: float) -> float:
    """The angle between two directions of lines.

    Equation: `|((a - b + pi/2) mod pi) - pi/2|` (rad)
    Valid: every number.

    Args:
        one: a, rad.
        other: b, rad.

    Raises:
        OutsideValidity: not a number.

    Source: geometry.

    >>> round(math.degrees(apart(math.radians(175), math.radians(5))))
    10
    """
    if not math.isfinite(one):
        raise OutsideValidity("a direction must be a number")
    return abs(float(turned(np.array(one), other)))


@dataclass(frozen=True, slots=True)
class TileWaves:
    """The waves of a tile's spectrum that are looked at: which they are, the direction of their lines, and their rings.

    Attributes:
        used: which of the spectrum.  size: of each in cycles a pixel.  along: direction of its lines, rad.
        lengths: the same in whole cycles a tile.  ring, place: the ring of one length that it lies on, and which of it it is.
        count: of every ring, how many it has.
    """

    used: Flags
    size: Reals
    along: Reals
    lengths: Reals
    ring: Places
    place: Places
    count: Places

    def medians(self, values: Reals) -> Reals:
        """The median of every ring, all at once."""
        table = np.full((len(self.count), self.count.max()), np.inf)
        table[self.ring, self.place] = values
        table.sort(axis=1)
        rings = np.arange(len(self.count))
        return np.asarray((table[rings, (self.count - 1) // 2] + table[rings, self.count // 2]) / 2)


@cache
def waves_of(lowest: float) -> TileWaves:
    """The waves of a tile from a size on, without the sensor's and those that the blocks of a JPEG make.

    Equation: `lowest <= |f| <= 0.42` cycles a pixel, without f on the axes at multiples of 1/8 (dimensionless)
    Valid: above 0, below 0.42.

    Args:
        lowest: cycles a pixel, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: eye-judges.

    >>> int(waves_of(0.1).used.sum()) < int(waves_of(0.05).used.sum())
    True
    """
    require_within(1e-9, eye("lay.highest"), lowest=lowest)
    f = np.fft.fftfreq(TILE)
    fy, fx = np.meshgrid(f, f, indexing="ij")
    size = np.hypot(fx, fy)
    eighth = np.isclose(np.round(f * 8), f * 8)
    axes = (fy == 0) & eighth[None, :] | (fx == 0) & eighth[:, None]
    used = (size >= lowest) & (size <= eye("lay.highest")) & ~axes
    lengths = np.rint(size[used] * TILE)
    _, ring, count = np.unique(lengths, return_inverse=True, return_counts=True)
    place = np.empty_like(ring)
    place[np.argsort(ring, kind="stable")] = np.concatenate([np.arange(many) for many in count])
    along = lines_of(fy, fx)[used]
    return TileWaves(used, size[used], along, lengths, ring, place, count)
