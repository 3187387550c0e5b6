"""The direction in which a surface is marked, from the power spectra of a photo of it."""

import math
from dataclasses import dataclass
from functools import cache
from typing import Final

import numpy as np
import scipy

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import eye
from kelbrast.core.validity import Flags, Places, Reals, require_above_zero
from kelbrast.core.vision.fields import clipped, robust_deviation

_BINS: Final = 180
_FAINTEST: Final = 1e-5  # of the strongest power: a drawing has no noise to stand out from
_LOBE: Final = 2.5  # bins: as wide is a single wave in the spectrum of a Hann tile


@dataclass(frozen=True, slots=True)
class LayFound:
    """A lay: its direction (rad, anticlockwise from the right, 0 to pi), how strong, and how far the tiles agree (0 to 1)."""

    angle: float
    strength: float
    evenness: float

    @property
    def claimed(self) -> bool:
        return self.strength >= eye("lay.claimed")


def lay_of(contrast: Reals, *, pixel: float) -> LayFound:
    """The lay of a field.

    Equation: the direction across which the mean power spectrum of Hann tiles stands out, ring by ring: mean of
    `min(P / median P - 1, 30)`; strength `(max - median) / (1.4826 MAD + 0.01)` (dimensionless)
    Valid: at least 128 pixels each way; above 0.

    Args:
        contrast: of a field, dimensionless.
        pixel: side of one, m.

    Raises:
        OutsideValidity: outside that.

    Source: eye-simulated.

    >>> rows, columns = np.mgrid[0:256, 0:256]
    >>> found = lay_of(np.sin(0.9 * (columns * np.sin(0.5) + rows * np.cos(0.5))), pixel=10e-6)
    >>> round(found.angle, 2), found.claimed  # lines at 0.5 rad
    (0.5, True)
    """
    require_above_zero(pixel=pixel)
    found = spectra(clipped(contrast, eye("lay.sigmas")))
    lowest = min(max(pixel / eye("lay.longest"), 3 / TILE), 0.15)
    whole = _standing_out(np.mean(found, axis=0), lowest)
    each = np.array([_standing_out(one, lowest).angle for one in found])
    evenness = abs(np.exp(2j * (each - whole.angle)).mean())
    return LayFound(whole.angle, whole.strength, float(evenness))


def lay_power(contrast: Reals, lay: float) -> float:
    """How strongly a field shows lines along a direction.

    Equation: mean power of the waves whose lines lie within 12 degrees of it (dimensionless)
    Valid: at least 128 pixels each way.

    Args:
        contrast: of a field, dimensionless.
        lay: direction, rad.

    Raises:
        OutsideValidity: outside that.

    Source: eye-simulated.

    >>> rows, columns = np.mgrid[0:128, 0:128]
    >>> lines = np.sin(0.9 * columns)  # they stand upright
    >>> lay_power(lines, math.pi / 2) > 10 * lay_power(lines, 0.0)
    True
    """
    waves = _waves(3 / TILE)
    power = np.mean(spectra(clipped(contrast, eye("lay.sigmas"))), axis=0)[waves.used]
    return float(power[np.abs(turned(waves.along, lay)) < eye("lay.wedge")].mean())


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
class _Waves:
    """The waves that are looked at: which of a spectrum, the direction of their lines, and their rings, each of one length.

    Of every wave the length, the ring it lies on, and which of that ring it is; of every ring how many it has. `bins`: which
    bin of directions a wave belongs to; `reach`: how far from a direction it may lie to count for it.
    """

    used: Flags
    along: Reals
    lengths: Reals
    ring: Places
    place: Places
    count: Places
    bins: Places
    reach: Reals

    def medians(self, values: Reals) -> Reals:
        """The median of every ring, all at once."""
        table = np.full((len(self.count), self.count.max()), np.inf)
        table[self.ring, self.place] = values
        table.sort(axis=1)
        rings = np.arange(len(self.count))
        return (table[rings, (self.count - 1) // 2] + table[rings, self.count // 2]) / 2


@cache
def _waves(lowest: float) -> _Waves:
    f = np.fft.fftfreq(TILE)
    fy, fx = np.meshgrid(f, f, indexing="ij")
    size = np.hypot(fx, fy)
    eighth = np.isclose(np.round(f * 8), f * 8)
    axes = (fy == 0) & eighth[None, :] | (fx == 0) & eighth[:, None]  # what the blocks of a JPEG make
    used = (size >= lowest) & (size <= eye("lay.highest")) & ~axes
    lengths = np.rint(size[used] * TILE)
    _, ring, count = np.unique(lengths, return_inverse=True, return_counts=True)
    place = np.empty_like(ring)
    place[np.argsort(ring, kind="stable")] = np.concatenate([np.arange(many) for many in count])
    along = lines_of(fy, fx)[used]
    bins = (along / math.pi * _BINS).astype(np.intp) % _BINS
    reach = np.maximum(eye("lay.refined"), _LOBE / np.maximum(lengths, 1))
    return _Waves(used, along, lengths, ring, place, count, bins, reach)


@dataclass(frozen=True, slots=True)
class _StandingOut:
    """The direction that stands out of a spectrum (rad), and how much each direction does, smoothed."""

    angle: float
    smooth: Reals

    @property
    def strength(self) -> float:
        middle = float(np.median(self.smooth))
        return (float(self.smooth.max()) - middle) / (robust_deviation(self.smooth - middle) + 0.01)


def _standing_out(power: Reals, lowest: float) -> _StandingOut:
    waves = _waves(lowest)
    values = power[waves.used]
    floor = _FAINTEST * float(values.max()) + 1e-30
    stands_out = values / np.maximum(waves.medians(values), floor)[waves.ring] - 1
    above = np.minimum(stands_out, eye("lay.most"))
    count = np.bincount(waves.bins, minlength=_BINS)
    mean = np.bincount(waves.bins, above, minlength=_BINS) / np.maximum(count, 1)
    kernel = np.exp(-0.5 * (np.arange(-6, 7) / 2.0) ** 2)
    padded = np.concatenate([mean[-6:], mean, mean[:6]])
    weight = np.concatenate([count[-6:] > 0, count > 0, count[:6] > 0]).astype(float)
    smooth = np.convolve(padded * weight, kernel, "valid") / np.maximum(np.convolve(weight, kernel, "valid"), 1e-9)
    peak = (int(np.argmax(smooth)) + 0.5) * math.pi / _BINS
    for _ in range(2):
        offset = turned(waves.along, peak)
        near = np.abs(offset) < waves.reach
        pull = np.maximum(stands_out[near], 0)
        if pull.sum() > 0:
            peak += float((pull * offset[near]).sum() / pull.sum())
    return _StandingOut(peak % math.pi, smooth)


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
