"""Whether a photo can be judged at all: its file untouched, sharp, and lit within what the sensor holds."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.validity import Bytes, Reals

_BLOCK: Final = 8
_BLACK, _WHITE = 2, 253
_LOOKED_AT: Final = 2048  # pixels of a side, in the middle
_FINE, _COARSE = (0.2, 0.35), (0.05, 0.1)  # cycles a pixel


@dataclass(frozen=True, slots=True)
class Gate:
    """What is measured of a photo's file.

    Attributes:
        blocks: how much more grey changes across the borders of 8-pixel blocks than elsewhere.
        sharpness: power in fine waves over that in coarse ones: a photo out of focus has lost the fine ones.
        median: grey, 0 to 1.  clipped: share of black or white pixels.
    """

    blocks: float
    sharpness: float
    median: float
    clipped: float


def gate(grey: Bytes) -> Gate:
    """Measure a photo's file.

    Equation: `B = mean|dg| across block borders / mean|dg| elsewhere`, the worse axis (dimensionless)
    Valid: at least 64 pixels each way.

    Args:
        grey: rows and columns as they are in the file, 0 to 255, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: eye-simulated.

    >>> chance = np.random.default_rng(1)
    >>> blocky = np.kron(chance.integers(50, 200, (16, 16)), np.ones((8, 8), dtype=int)) + chance.integers(0, 2, (128, 128))
    >>> gate(blocky.astype(np.uint8)).blocks > 3
    True
    """
    if min(grey.shape) < 8 * _BLOCK:
        raise OutsideValidity("a photo needs 64 pixels each way at least")
    middle = _middle(grey, _LOOKED_AT)
    part = middle.astype(float)
    clipped = float(np.mean((middle <= _BLACK) | (middle >= _WHITE)))
    return Gate(max(_blocks(part), _blocks(part.T)), _sharpness(part), float(np.median(middle)) / 255, clipped)


def _middle(grey: Bytes, most: int) -> Bytes:
    top, left = (max(0, (length - most) // 2 // _BLOCK * _BLOCK) for length in grey.shape)
    return grey[top : top + most, left : left + most]


def _blocks(grey: Reals) -> float:
    """Along the rows, at the worst of the eight places where the blocks may begin: a crop moves them."""
    steps = np.abs(np.diff(grey, axis=1)).mean(axis=0)
    at = np.arange(len(steps)) % _BLOCK
    mean = np.array([steps[at == one].mean() for one in range(_BLOCK)])
    worst = int(np.argmax(mean))
    return float(mean[worst] / max(float(np.delete(mean, worst).mean()), 1e-9))


def _sharpness(grey: Reals) -> float:
    """The fine waves against coarse ones, in the middle."""
    part = grey[max(0, (grey.shape[0] - 512) // 2) :, max(0, (grey.shape[1] - 512) // 2) :][:512, :512]
    rows, columns = part.shape
    power = np.abs(np.fft.rfft2((part - part.mean()) * np.outer(np.hanning(rows), np.hanning(columns)))) ** 2
    fy, fx = np.meshgrid(np.fft.fftfreq(rows), np.fft.rfftfreq(columns), indexing="ij")
    size = np.hypot(fx, fy)
    fine, coarse = (power[(size > low) & (size < high)].mean() for low, high in (_FINE, _COARSE))
    return float(fine / max(coarse, 1e-12))
