"""The Gaussian filter of ISO 16610-21 (lines) and -61 (areas)."""

import math
from typing import Final

import numpy as np

from kelbrast.core.arrays import Reals
from kelbrast.core.validity import require_above_zero, require_heights

ALPHA: Final = math.sqrt(math.log(2) / math.pi)  # half of a wave at the cut-off passes
REACH: Final = 1.0  # cut-offs on each side to which the weights are taken; 0.75 would do


def low_pass(z: Reals, spacing: float, cut_off: float, axis: int = 0) -> Reals:
    """What is coarser than the cut-off, along one axis. At the ends the weights that are left are made to sum up to 1.

    Equation: `s(x) = exp(-pi (x / (alpha lambda_c))^2) / (alpha lambda_c)`, alpha = sqrt(ln 2 / pi) (1/m)
    Valid: spacing and cut-off above 0, heights that are numbers.

    Args:
        z: heights, m.
        spacing: of the points, m.
        cut_off: lambda_c, m.
        axis: along which it filters, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: iso-16610.

    >>> wave = np.cos(2 * np.pi * np.arange(8000) / 800)  # as long as the cut-off: half of it passes
    >>> round(float(low_pass(wave, 1e-6, 0.8e-3)[4000]), 3)
    0.5
    """
    require_above_zero(spacing=spacing, cut_off=cut_off)
    require_heights(z, least=1, what="a surface")
    along = np.moveaxis(z, axis, -1)
    weights = _weights(spacing, cut_off, along.shape[-1])
    share = _convolved(np.ones(along.shape[-1]), weights)
    return np.asarray(np.moveaxis(_convolved(along, weights) / share, -1, axis))


def _convolved(z: Reals, weights: Reals) -> Reals:
    """The sum of the weights times the neighbours, along the last axis; beyond the ends there is nothing."""
    count, half = z.shape[-1], len(weights) // 2
    room = _round_size(count + 2 * half)
    spectrum = np.fft.rfft(z, room) * np.fft.rfft(weights, room)
    return np.asarray(np.fft.irfft(spectrum, room)[..., half : half + count])


def _round_size(least: int) -> int:
    """The next size of 2, 3 and 5 only, for which the transform is quick."""
    twos = 1 << (least - 1).bit_length()
    return min((size for factor in (1, 3, 5, 9, 15) if (size := _scaled(least, factor)) >= least), default=twos)


def _scaled(least: int, factor: int) -> int:
    size = factor
    while size < least:
        size *= 2
    return size


def _weights(spacing: float, cut_off: float, count: int) -> Reals:
    half = max(1, math.ceil(min(REACH * cut_off / spacing, count)))  # beyond the ends there is nothing to weigh
    at = np.arange(-half, half + 1) * spacing / (ALPHA * cut_off)
    weights = np.exp(-math.pi * at**2)
    return np.asarray(weights / weights.sum())
