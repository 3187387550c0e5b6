"""Which grades may have left the lay of a photo: a range, or "finer than". The regression was trained on simulated photos."""

import math
from dataclasses import dataclass
from functools import cache
from typing import Final

import numpy as np

from kelbrast.core.arrays import Reals
from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import constant, eye, record
from kelbrast.core.validity import require_above_zero
from kelbrast.core.vision.fields import clipped
from kelbrast.core.vision.spectrum import TILE, lines_of, spectra, turned

FEATURES: Final = (
    "centroid", "low-quarter", "half", "high-quarter", "tenth-left", "fine-share", "contrast", "skew", "kurtosis", "pixel",
)  # fmt: skip
_LOWEST, _HIGHEST = 1.5 / TILE, 0.45  # cycles a pixel


@dataclass(frozen=True, slots=True)
class GrainRange:
    """Grains that may have left the marks, m: from `finest` to `coarsest`; None for an end that a photo can not say."""

    finest: float | None
    coarsest: float


def features(contrast: Reals, lay: float, *, pixel: float) -> Reals:
    """What the regression looks at: where the power across the lay lies, and how the light is spread.

    Equation: logs of frequencies (cycles/mm) below which shares of the power across the lay lie, of contrast, its moments
    Valid: at least 128 pixels each way; above 0.

    Args:
        contrast: of a field, dimensionless.
        lay: direction, rad.
        pixel: side of one, m.

    Raises:
        OutsideValidity: outside that.

    Source: eye-simulated.

    >>> features(np.random.default_rng(1).standard_normal((128, 128)), 0.0, pixel=10e-6).shape
    (10,)
    """
    require_above_zero(pixel=pixel)
    frequencies, power = _across(clipped(contrast, eye("grade.sigmas")), lay)
    share = np.cumsum(power) / max(float(power.sum()), 1e-30)
    per_mm = 1e-3 / pixel

    def below(part: float) -> float:
        return math.log(float(np.interp(part, share, frequencies)) * per_mm)

    spread = contrast - contrast.mean()
    sigma = float(spread.std()) + 1e-9
    return np.array(
        [
            math.log(float((power * frequencies).sum() / max(float(power.sum()), 1e-30)) * per_mm),
            below(0.25),
            below(0.5),
            below(0.75),
            below(0.9),
            math.log(float(power[frequencies > 0.2].sum()) / max(float(power.sum()), 1e-30) + 1e-4),
            math.log(sigma),
            float((spread**3).mean()) / sigma**3,
            math.log(float((spread**4).mean()) / sigma**4),
            math.log(pixel / 1e-6),
        ]
    )


def grain_range(seen: Reals, *, pixel: float) -> GrainRange:
    """The grains that may have left the marks, from the features of the fields of a photo.

    Equation: `ln g = w (x - m) / s + b`, the median of the fields; the range is this and so far below and above (m)
    Valid: features of one field at least; above 0.

    Args:
        seen: features of each field, dimensionless.
        pixel: side of one, m.

    Raises:
        OutsideValidity: outside that.

    Source: eye-simulated.

    >>> field = np.random.default_rng(1).standard_normal((128, 128))
    >>> grain_range(features(field, 0.0, pixel=10e-6)[None, :], pixel=10e-6).coarsest > 0
    True
    """
    require_above_zero(pixel=pixel)
    if seen.ndim != 2 or seen.shape[1] != len(FEATURES) or len(seen) == 0:
        raise OutsideValidity("a range of grades needs the features of one field at least")
    weights, means, scales, bias, reach = _trained()
    likely = float(np.median((seen - means) / scales @ weights + bias))
    finest, coarsest = math.exp(likely - reach), math.exp(likely + reach)
    least = eye("grade.pixels") * pixel / constant("simulation.mark_width_per_grain").value
    return GrainRange(finest if finest >= least else None, max(coarsest, least))


def _across(contrast: Reals, lay: float) -> tuple[Reals, Reals]:
    """The power spectrum along the direction across the lay: frequencies (cycles a pixel) and the power at them."""
    power = spectra(contrast).mean(axis=0)
    fy, fx = np.meshgrid(np.fft.fftfreq(TILE), np.fft.fftfreq(TILE), indexing="ij")
    size = np.hypot(fx, fy)
    used = (np.abs(turned(lines_of(fy, fx), lay)) < eye("lay.wedge")) & (size >= _LOWEST) & (size <= _HIGHEST)
    ring = np.rint(size[used] * TILE).astype(np.intp)
    mean = np.bincount(ring, power[used]) / np.maximum(np.bincount(ring), 1)
    first = int(ring.min())
    return np.arange(first, len(mean)) / TILE, np.asarray(mean[first:])


@cache
def _trained() -> tuple[Reals, Reals, Reals, float, float]:
    """Weights, means and scales of the features, the bias, and half of the range (ln)."""
    told = record("eye_grade")
    columns = np.array([[told[name][part].value for part in ("weight", "mean", "scale")] for name in FEATURES]).T
    of_all = told["grade"]
    return columns[0], columns[1], columns[2], of_all["bias"].value, of_all["reach"].value
