"""The direction in which a surface is marked, from the power spectra of a photo of it."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import eye
from kelbrast.core.validity import Reals, require_above_zero
from kelbrast.core.vision.fields import clipped, robust_deviation
from kelbrast.core.vision.spectra import TILE, mean_power, spectra, turned, waves_of

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

    Source: eye-judges.

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

    Source: eye-judges.

    >>> rows, columns = np.mgrid[0:128, 0:128]
    >>> lines = np.sin(0.9 * columns)  # they stand upright
    >>> lay_power(lines, math.pi / 2) > 10 * lay_power(lines, 0.0)
    True
    """
    waves = waves_of(3 / TILE)
    power = mean_power(contrast)[waves.used]
    return float(power[np.abs(turned(waves.along, lay)) < eye("lay.wedge")].mean())


def one_lay(lays: Sequence[LayFound]) -> LayFound:
    """One lay of the lays of all fields: their direction weighted by strength, and how far they agree.

    Equation: `t = arg(sum w exp(2 i t)) / 2`, the strength the median w, the evenness `|sum w exp(2 i t)| / sum w` (rad)
    Valid: one field at least.

    Args:
        lays: of the fields, rad.

    Raises:
        OutsideValidity: there is none.

    Source: geometry.

    >>> found = one_lay([LayFound(0.1, 20.0, 1.0), LayFound(math.pi - 0.1, 20.0, 1.0)])  # on either side of the right
    >>> round(min(found.angle, math.pi - found.angle), 3), round(found.evenness, 2)
    (0.0, 0.98)
    """
    if not lays:
        raise OutsideValidity("a lay needs one field at least")
    weights = np.array([lay.strength for lay in lays])
    mean = (weights * np.exp(2j * np.array([lay.angle for lay in lays]))).sum() / max(float(weights.sum()), 1e-12)
    return LayFound(float(np.angle(mean) / 2 % math.pi), float(np.median(weights)), float(abs(mean)))


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
    waves = waves_of(lowest)
    bins = (waves.along / math.pi * _BINS).astype(np.intp) % _BINS
    reach = np.maximum(eye("lay.refined"), _LOBE / np.maximum(waves.lengths, 1))
    values = power[waves.used]
    floor = _FAINTEST * float(values.max()) + 1e-30
    stands_out = values / np.maximum(waves.medians(values), floor)[waves.ring] - 1
    above = np.minimum(stands_out, eye("lay.most"))
    count = np.bincount(bins, minlength=_BINS)
    mean = np.bincount(bins, above, minlength=_BINS) / np.maximum(count, 1)
    kernel = np.exp(-0.5 * (np.arange(-6, 7) / 2.0) ** 2)
    padded = np.concatenate([mean[-6:], mean, mean[:6]])
    weight = np.concatenate([count[-6:] > 0, count > 0, count[:6] > 0]).astype(float)
    smooth = np.convolve(padded * weight, kernel, "valid") / np.maximum(np.convolve(weight, kernel, "valid"), 1e-9)
    peak = (int(np.argmax(smooth)) + 0.5) * math.pi / _BINS
    for _ in range(2):
        offset = turned(waves.along, peak)
        near = np.abs(offset) < reach
        pull = np.maximum(stands_out[near], 0)
        if pull.sum() > 0:
            peak += float((pull * offset[near]).sum() / pull.sum())
    return _StandingOut(peak % math.pi, smooth)
