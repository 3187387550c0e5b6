"""The direction in which a surface is marked, from the power spectra of a photo of it, and how sharp they show it."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

import numpy as np

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import eye
from kelbrast.core.validity import Flags, Reals, require_above_zero
from kelbrast.core.vision.fields import robust_deviation
from kelbrast.core.vision.spectra import TILE, turned, waves_of

_BINS: Final = 180
_FAINTEST: Final = 1e-5  # of the strongest power: a drawing has no noise to stand out from
_FINE, _COARSE = (0.27, 0.33), (0.08, 0.12)  # cycles a pixel: what softness is told by
_NOTHING: Final = 1e-9  # of the coarse power
_LOBE: Final = 2.5  # bins: as wide is a single wave in the spectrum of a Hann tile


@dataclass(frozen=True, slots=True)
class LayFound:
    """A lay: its direction (rad, anticlockwise from the right, 0 to pi), and how strong."""

    angle: float
    strength: float

    @property
    def claimed(self) -> bool:
        return self.strength >= eye("lay.claimed")


def lay_of(power: Reals, *, pixel: float) -> LayFound:
    """The lay of a field.

    Equation: the direction across which its spectrum stands out, ring by ring: mean of `min(P / median P - 1, 30)`; strength
    `(max - median) / (1.4826 MAD + 0.01)` (dimensionless)
    Valid: a spectrum as `mean_power` gives it; above 0.

    Args:
        power: P, its mean power, dimensionless.
        pixel: side of one, m.

    Raises:
        OutsideValidity: outside that.

    Source: eye-judges.

    >>> rows, columns = np.mgrid[0:256, 0:256]
    >>> from kelbrast.core.vision.spectra import mean_power
    >>> lines = np.sin(0.9 * (columns * np.sin(0.5) + rows * np.cos(0.5)))
    >>> found = lay_of(mean_power(lines), pixel=10e-6)
    >>> round(found.angle, 2), found.claimed  # lines at 0.5 rad
    (0.5, True)
    """
    require_above_zero(pixel=pixel)
    whole = _standing_out(_spectrum(power), min(max(pixel / eye("lay.longest"), 3 / TILE), 0.15))
    return LayFound(whole.angle, whole.strength)


def lay_power(power: Reals, lay: float) -> float:
    """How strongly a field shows lines along a direction.

    Equation: mean power of the waves whose lines lie within 12 degrees of it (dimensionless)
    Valid: a spectrum as `mean_power` gives it.

    Args:
        power: of the field, dimensionless.
        lay: direction, rad.

    Raises:
        OutsideValidity: outside that.

    Source: eye-judges.

    >>> rows, columns = np.mgrid[0:128, 0:128]
    >>> from kelbrast.core.vision.spectra import mean_power
    >>> lines = mean_power(np.sin(0.9 * columns))  # they stand upright
    >>> lay_power(lines, math.pi / 2) > 10 * lay_power(lines, 0.0)
    True
    """
    waves = waves_of(3 / TILE)
    used = _spectrum(power)[waves.used]
    return float(used[np.abs(turned(waves.along, lay)) < eye("lay.wedge")].mean())


def softness(power: Reals, lay: float) -> float:
    """How much of the fine waves of a lay a photo lost. Noise has no direction: what lies far from the lay is taken off.

    Equation: `Q = ln(p(0.1) / p(0.3))`, p(f) the mean power of waves of f cycles a pixel whose lines lie near the lay less the
    median power of those far from it (dimensionless)
    Valid: a spectrum as `mean_power` gives it. Where no coarse waves of the lay show, there is nothing to judge by: 0.

    Args:
        power: of the photo, the mean of its fields, dimensionless.
        lay: direction of the new marks, rad.

    Raises:
        OutsideValidity: outside that.

    Source: eye-judges.

    >>> columns = np.mgrid[0:256, 0:256][1]
    >>> from kelbrast.core.vision.spectra import mean_power
    >>> sharp = [np.sin(2 * np.pi * f * columns) for f in (0.1, 0.3)]  # they stand upright
    >>> soft, clear = (softness(mean_power(sharp[0] + much * sharp[1]), math.pi / 2) for much in (0.1, 1.0))
    >>> soft - clear > 4  # ln 100
    True
    """
    waves = waves_of(_COARSE[0])
    used = _spectrum(power)[waves.used]
    off = np.abs(turned(waves.along, lay))
    near, far = off < eye("soft.near"), off > eye("soft.far")

    def along(ring: Flags) -> float:
        return float(used[ring & near].mean() - np.median(used[ring & far]))

    fine, coarse = (along((waves.size > low) & (waves.size < high)) for low, high in (_FINE, _COARSE))
    if coarse <= 0:
        return 0.0
    return math.log(coarse / max(fine, _NOTHING * coarse))


def one_lay(lays: Sequence[LayFound]) -> LayFound:
    """One lay of the lays of all fields: their direction weighted by strength.

    Equation: `t = arg(sum w exp(2 i t)) / 2`, the strength the median w (rad)
    Valid: one field at least.

    Args:
        lays: of the fields, rad.

    Raises:
        OutsideValidity: there is none.

    Source: geometry.

    >>> found = one_lay([LayFound(0.1, 20.0), LayFound(math.pi - 0.1, 20.0)])  # on either side of the right
    >>> round(min(found.angle, math.pi - found.angle), 3)
    0.0
    """
    if not lays:
        raise OutsideValidity("a lay needs one field at least")
    weights = np.array([lay.strength for lay in lays])
    mean = (weights * np.exp(2j * np.array([lay.angle for lay in lays]))).sum()
    return LayFound(float(np.angle(mean) / 2 % math.pi), float(np.median(weights)))


def _spectrum(power: Reals) -> Reals:
    if power.shape != (TILE, TILE):
        raise OutsideValidity(f"a spectrum of tiles has {TILE} waves each way")
    return power


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
