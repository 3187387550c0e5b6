"""Whether two photos show the same place: what lies on a face or is worn into it answers every lamp, marks do not."""

from typing import Final

import numpy as np
import scipy

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import eye
from kelbrast.core.validity import Bytes, Reals, Waves
from kelbrast.core.vision.fields import clipped, robust_deviation

# The shape of the measure, tried on the traced judge; what is concluded from it stands in eye.toml.
_BLOCK: Final = 4  # pixels that are taken together
_SMALLEST: Final = 256  # pixels each way
_SURROUNDINGS, _SPREAD, _WIDE = 16, 2, 24  # blocks
_MOST: Final = 6.0  # robust deviations at which single places are cut off
_LEAST: Final = 0.1  # of a variance


def same_place(first: Bytes, second: Bytes) -> float:
    """Compare how lively two photos are, place by place.

    Equation: the cross-correlation of `ln(g * c^2 + 0.1)`, c the contrast of blocks of 4 px in robust deviations, g a Gaussian
    of 2 blocks; its highest value within 12 % of the width from no shift, in robust deviations of all (dimensionless)
    Valid: at least 256 pixels each way.

    Args:
        first: rows and columns of a photo, 0 to 255, dimensionless.
        second: the same of the other, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: eye-judges.

    >>> chance = np.random.default_rng(1)
    >>> face = 128 + 10 * chance.standard_normal((512, 768)) * np.kron(chance.uniform(0, 1, (32, 48)) > 0.8, np.ones((16, 16)))
    >>> one, other = face[:, :384].astype(np.uint8), face[:, 384:].astype(np.uint8)
    >>> same_place(one, one) > 20, same_place(one, other) > 9
    (True, False)
    """
    rows, columns = (min(one, other) for one, other in zip(first.shape, second.shape, strict=True))
    if min(rows, columns) < _SMALLEST:
        raise OutsideValidity(f"photos need {_SMALLEST} pixels each way at least to be compared")
    each = [_liveliness(photo[:rows, :columns]) for photo in (first, second)]
    shape = each[0].shape
    spectra: list[Waves] = [scipy.fft.rfft2(one) for one in each]
    agree = scipy.fft.irfft2(spectra[0] * np.conj(spectra[1]), shape)
    agree = scipy.ndimage.gaussian_filter(agree, 1, mode="wrap")
    agree -= np.median(agree)
    agree /= robust_deviation(agree) + 1e-30
    down, right = (np.minimum(np.arange(length), length - np.arange(length)) for length in shape)
    reach = eye("place.near") * shape[1]
    near = (down[:, None] < reach) & (right[None, :] < reach)
    return float(agree[near].max())


def _liveliness(grey: Bytes) -> Reals:
    """How much goes on at every place, the ends faded out."""
    rows, columns = (length // _BLOCK for length in grey.shape)
    linear = ((np.arange(256) / 255) ** eye("field.gamma")).astype(np.float32)
    whole = linear[grey[: rows * _BLOCK, : columns * _BLOCK]]
    blocks = whole.reshape(rows, _BLOCK, columns, _BLOCK).mean(axis=(1, 3)).astype(float)
    contrast = blocks / np.maximum(scipy.ndimage.gaussian_filter(blocks, _SURROUNDINGS), 1e-4) - 1
    cut = clipped(contrast, _MOST) / (robust_deviation(contrast) + 1e-12)
    lively = np.log(scipy.ndimage.gaussian_filter(cut**2, _SPREAD) + _LEAST)
    lively -= scipy.ndimage.gaussian_filter(lively, _WIDE)
    return np.asarray((lively - lively.mean()) * np.outer(np.hanning(rows), np.hanning(columns)))
