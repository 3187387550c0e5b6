"""Detects marks across the lay on a photo lit along it, where the new marks hide and old ones flare."""

import math
from dataclasses import dataclass
from functools import cache
from typing import Final, Literal

import numpy as np
import scipy

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import eye
from kelbrast.core.simulation.light import Lamp, Look, lit
from kelbrast.core.simulation.patch import Patch
from kelbrast.core.validity import Flags, Reals, Waves
from kelbrast.core.vision.fields import clipped, contrast, robust_deviation
from kelbrast.core.vision.lay import apart, lines_of, turned

DIRECTIONS: Final = 60
_NONE: Final = 1e-4  # share of a field: what flares is compared with this at least
_MARGIN: Final = 0.08  # of a side: tapered off
_MOST_LINES: Final = 40


@dataclass(frozen=True, slots=True)
class Line:
    """Where a mark lies: from and to, as column and row of the photo."""

    x0: float
    y0: float
    x1: float
    y1: float


@dataclass(frozen=True, slots=True)
class OldMarks:
    """How much marks of another direction stand out (`score`), their direction (rad), and where they lie."""

    score: float
    angle: float
    lines: tuple[Line, ...]

    @property
    def told(self) -> Literal["seen", "perhaps", "none"]:
        """What one field alone says."""
        if self.score > eye("marks.seen"):
            return "seen"
        return "perhaps" if self.score > eye("marks.look_again") else "none"


def old_marks_in(field: Reals, lay: float) -> OldMarks:
    """Marks across the lay in a field.

    Equation: `S = max ln q(t) - mean ln q(t)` over directions t more than 30 degrees from the lay; q the share of the
    field where `|r| > 4 * 1.4826 median|r|`, r the field without its lay through a line filter along t (dimensionless)
    Valid: at least 64 pixels each way, all of them numbers.

    Args:
        field: its contrast, dimensionless.
        lay: direction of the new marks, rad.

    Raises:
        OutsideValidity: outside that.

    Source: eye-simulated.

    >>> noise = np.random.default_rng(1).standard_normal((256, 256))
    >>> noise[40:220, 120:122] += 2.0  # a mark that stands upright
    >>> found = old_marks_in(noise, lay=0.0)
    >>> found.score > eye("marks.seen"), round(math.degrees(found.angle))
    (True, 90)
    """
    if min(field.shape) < 64 or not np.isfinite(field).all():
        raise OutsideValidity("old marks need a field of 64 pixels each way at least, of numbers")
    tapered = clipped(field, eye("marks.sigmas"))
    tapered = (tapered - tapered.mean()) * _taper(field.shape)
    spectrum = scipy.fft.rfft2(tapered) * _without(field.shape, lay)
    angles = [at * math.pi / DIRECTIONS for at in range(DIRECTIONS)]
    far = [at for at in range(DIRECTIONS) if apart(angles[at], lay) > eye("marks.away")]
    flares = [_flaring(spectrum, field.shape, at) for at in far]
    shares = np.log([float(flare.mean()) + _NONE for flare in flares])
    best = int(np.argmax(shares))
    angle = angles[far[best]]
    return OldMarks(float(shares[best] - shares.mean()), angle, _lines(flares[best], angle, _margins(field.shape)))


def seen_on(patch: Patch, look: Look, lay: float) -> OldMarks:
    """What the eye sees on a simulated patch, with a low lamp along its lay.

    Equation: `old_marks_in` the contrast of `lit` (dimensionless)
    Valid: a patch of at least 64 points each way.

    Args:
        patch: heights, m.
        look: of the material, shares of light, dimensionless.
        lay: of its new marks, anticlockwise as lamps are, rad.

    Raises:
        OutsideValidity: outside that.

    Source: eye-simulated.

    >>> from kelbrast.core.simulation.marks import Marks, draw
    >>> clean = draw(Marks(1e-6, 25e-6), (256, 256), 8e-6, np.random.default_rng(0))
    >>> seen_on(Patch(clean.z, 8e-6), Look((0.9, 0.8, 0.5), 0.1), 0.0).score < eye("marks.seen")
    True
    """
    picture = lit(patch, look, Lamp(eye("lamp.height"), lay))
    return old_marks_in(contrast(picture.mean(axis=2) / 255), lay)


def _flaring(spectrum: Waves, shape: tuple[int, int], at: int) -> Flags:
    """Where lines along a direction stand out, within the margins."""
    rows, columns = _margins(shape)
    seen = np.abs(scipy.fft.irfft2(spectrum * _line_filter(shape, at), shape))[rows:-rows, columns:-columns]
    return np.asarray(seen > eye("marks.flares") * robust_deviation(seen) + 1e-12)


def _lines(flares: Flags, angle: float, margins: tuple[int, int]) -> tuple[Line, ...]:
    """What flares as lines, the longest first."""
    labels, _ = scipy.ndimage.label(flares, structure=np.ones((3, 3)))
    found: list[tuple[float, Line]] = []
    cos, sin = math.cos(angle), -math.sin(angle)  # rows run down
    for at, box in enumerate(scipy.ndimage.find_objects(labels), start=1):
        rows, columns = np.nonzero(labels[box] == at)
        rows, columns = rows + box[0].start + margins[0], columns + box[1].start + margins[1]
        along = columns * cos + rows * sin
        length = float(np.ptp(along))
        if length < eye("marks.shortest"):
            continue
        x, y, middle = float(columns.mean()), float(rows.mean()), float(along.mean())
        near, far = float(along.min()) - middle, float(along.max()) - middle
        found.append((length, Line(x + near * cos, y + near * sin, x + far * cos, y + far * sin)))
    found.sort(key=lambda one: -one[0])
    return tuple(line for _, line in found[:_MOST_LINES])


@cache
def _grid(shape: tuple[int, int]) -> tuple[Reals, Reals]:
    fy, fx = np.meshgrid(np.fft.fftfreq(shape[0]), np.fft.rfftfreq(shape[1]), indexing="ij")
    return -fy, fx  # rows run down


@cache
def _taper(shape: tuple[int, int]) -> Reals:
    def ends(length: int) -> Reals:
        edge = np.minimum(np.arange(length), np.arange(length)[::-1]) / (_MARGIN * length)
        return np.asarray(0.5 - 0.5 * np.cos(math.pi * np.clip(edge, 0, 1)))

    return np.outer(ends(shape[0]), ends(shape[1]))


def _margins(shape: tuple[int, int]) -> tuple[int, int]:
    return round(_MARGIN * shape[0]), round(_MARGIN * shape[1])


def _without(shape: tuple[int, int], lay: float) -> Reals:
    """Everything but what belongs to lines along the lay."""
    fy, fx = _grid(shape)
    off = np.abs(turned(lines_of(-fy, fx), lay))
    return np.asarray(1 - np.exp(-((off / eye("marks.removed")) ** 4)))


@cache
def _line_filter(shape: tuple[int, int], at: int) -> Reals:
    """Passes lines along a direction: narrow across, long along."""
    fy, fx = _grid(shape)
    angle = at * math.pi / DIRECTIONS
    u = fx * math.cos(angle) + fy * math.sin(angle)
    v = -fx * math.sin(angle) + fy * math.cos(angle)
    return np.asarray(v**2 * np.exp(-2 * math.pi**2 * (eye("marks.across") ** 2 * v**2 + eye("marks.along") ** 2 * u**2)))
