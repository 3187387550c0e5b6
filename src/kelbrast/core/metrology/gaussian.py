"""The Gaussian filter of ISO 16610-21 (lines) and -61 (areas)."""

import math
from typing import Final

import numpy as np

from kelbrast.core.arrays import Reals
from kelbrast.core.errors import OutsideValidity

ALPHA: Final = math.sqrt(math.log(2) / math.pi)  # half of a wave at the cut-off passes
REACH: Final = 1.0  # cut-offs on each side to which the weights are taken; 0.75 would do


def transmission(*, wavelength: float, cut_off: float) -> float:
    """Share of a wave's amplitude that the low pass lets through; the high pass keeps the rest.

    `exp(-pi (alpha lambda_c / lambda)^2)`. Source: ISO 16610-21.

    >>> transmission(wavelength=0.8e-3, cut_off=0.8e-3)
    0.5
    """
    if min(wavelength, cut_off) <= 0:
        raise OutsideValidity("wavelength and cut-off must be above 0")
    return round(math.exp(-math.pi * (ALPHA * cut_off / wavelength) ** 2), 12)


def low_pass(z: Reals, spacing: float, cut_off: float, axis: int = 0) -> Reals:
    """What is coarser than the cut-off, along one axis. At the ends the weights that are left are made to sum up to 1.

    Args:
        z: heights, any unit.  spacing, cut_off: in one unit.
    """
    if min(spacing, cut_off) <= 0:
        raise OutsideValidity("spacing and cut-off must be above 0")
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
