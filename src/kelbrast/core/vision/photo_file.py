"""A photo as it is in its file, and what of the file matters before the face on it is looked at."""

from dataclasses import dataclass
from typing import Final

import numpy as np

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.validity import Bytes, Reals

_BLOCK: Final = 8
_LOOKED_AT: Final = 2048  # pixels of a side, in the middle


@dataclass(frozen=True, slots=True)
class Photo:
    """A photo: grey of 0 to 255 as it is in the file, and the mean step of its JPEG table; None where the file has none."""

    grey: Bytes
    coarse: float | None = None


@dataclass(frozen=True, slots=True)
class FileFigures:
    """What is measured of a photo's file.

    Attributes:
        blocks: how much more grey changes across the borders of 8-pixel blocks than elsewhere.
        median: grey, 0 to 1.
    """

    blocks: float
    median: float


def measured_file(grey: Bytes) -> FileFigures:
    """Measure a photo's file.

    Equation: `B = mean|dg| across block borders / mean|dg| elsewhere`, the worse axis (dimensionless)
    Valid: at least 64 pixels each way.

    Args:
        grey: rows and columns as they are in the file, 0 to 255, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: eye-judges.

    >>> chance = np.random.default_rng(1)
    >>> blocky = np.kron(chance.integers(50, 200, (16, 16)), np.ones((8, 8), dtype=int)) + chance.integers(0, 2, (128, 128))
    >>> measured_file(blocky.astype(np.uint8)).blocks > 3
    True
    """
    if min(grey.shape) < 8 * _BLOCK:
        raise OutsideValidity("a photo needs 64 pixels each way at least")
    middle = _middle(grey, _LOOKED_AT)
    part = middle.astype(float)
    return FileFigures(max(_blocks(part), _blocks(part.T)), float(np.median(middle)) / 255)


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
