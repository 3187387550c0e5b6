"""Short pieces of line that continue each other in a field of a photo: how much they cover by direction, and where."""

import math
from dataclasses import dataclass
from functools import cache
from typing import Final

import numpy as np
import scipy

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import eye
from kelbrast.core.validity import Flags, Reals, Waves
from kelbrast.core.vision.fields import Line, clipped, robust_deviation
from kelbrast.core.vision.spectra import apart, lines_of, turned

DIRECTIONS: Final = 36
ANGLES: Final = tuple(at * math.pi / DIRECTIONS for at in range(DIRECTIONS))
_MARGIN: Final = 0.08  # of a side: tapered off
_MOST_LINES: Final = 40
_TOUCHING: Final = np.ones((3, 3))  # corners too
_SMALLEST: Final = 128  # pixels each way: the margins and a piece of line on either side leave half of that


@dataclass(frozen=True, slots=True)
class LineShares:
    """How much of a field lines cover, by direction; not a number where the lay hides what there is.

    Attributes:
        covered: (36,) the share for each direction from 0 on, anticlockwise.
        pieces: (36,) the same where no piece counts for more than a short one: a hair is one long piece, old marks are many.
    """

    covered: Reals
    pieces: Reals


def line_shares(field: Reals, lay: float) -> LineShares:
    """How much of a field lines cover, by their direction, when the lay is taken out.

    A speck or a glint answers a line filter in every direction; a line answers in its own, and goes on: so a place counts
    where the filter stands out there and one step before and after it along the line, all to one side, brighter or darker.

    Equation: `q(t)` is the share of places x where `r` at `x - d`, x and `x + d` are all above `2.2 s` or all below `-2.2 s`;
    r the field without its lay through a line filter along t, d a step of 24 px along t, `s = 1.4826 median|r|`; of the pieces,
    the share of `min(area, 30 px)` over all connected ones (dimensionless)
    Valid: at least 128 pixels each way, all of them numbers.

    Args:
        field: its contrast, dimensionless.
        lay: direction of the new marks, rad.

    Raises:
        OutsideValidity: outside that.

    Source: eye-judges.

    >>> noise = np.random.default_rng(1).standard_normal((256, 256))
    >>> noise[40:220, 120:122] += 2.0  # a mark that stands upright
    >>> found = line_shares(noise, lay=0.0).covered
    >>> round(math.degrees(ANGLES[int(np.nanargmax(found))])), round(100 * float(np.nanmax(found)))
    (90, 2)
    """
    spectrum = _without_lay(field, lay)
    covered, pieces = np.full(DIRECTIONS, np.nan), np.full(DIRECTIONS, np.nan)
    for at, angle in enumerate(ANGLES):
        if apart(angle, lay) > eye("marks.hidden"):
            areas = np.concatenate([_areas(flags) for flags in _continued(spectrum, field.shape, at)])
            whole = math.prod(_inner(field.shape))
            covered[at] = float(areas.sum()) / whole
            pieces[at] = float(np.minimum(areas, eye("marks.piece")).sum()) / whole
    return LineShares(covered, pieces)


def lines_along(field: Reals, lay: float, angle: float) -> tuple[Line, ...]:
    """Where the lines of about a direction lie in a field, the longest first.

    Equation: connected places of `line_shares`, each a line through its middle (dimensionless)
    Valid: as there; a direction that is a number.

    Args:
        field: its contrast, dimensionless.
        lay: direction of the new marks, rad.
        angle: of the lines, rad.

    Raises:
        OutsideValidity: as there.

    Source: eye-judges.

    >>> noise = np.random.default_rng(1).standard_normal((256, 256))
    >>> noise[40:220, 120:122] += 2.0
    >>> longest = lines_along(noise, 0.0, math.pi / 2)[0]
    >>> round(longest.x0), abs(longest.y1 - longest.y0) > 80
    (120, True)
    """
    if not math.isfinite(angle):
        raise OutsideValidity("a direction must be a number")
    at = round(angle / math.pi * DIRECTIONS) % DIRECTIONS
    lighter, darker = _continued(_without_lay(field, lay), field.shape, at)
    margin = (field.shape[0] - lighter.shape[0]) // 2, (field.shape[1] - lighter.shape[1]) // 2
    labels, _ = scipy.ndimage.label(lighter | darker, structure=_TOUCHING)
    found: list[tuple[float, Line]] = []
    cos, sin = math.cos(ANGLES[at]), -math.sin(ANGLES[at])  # rows run down
    reach = eye("marks.step")
    for number, box in enumerate(scipy.ndimage.find_objects(labels), start=1):
        rows, columns = np.nonzero(labels[box] == number)
        rows, columns = rows + box[0].start + margin[0], columns + box[1].start + margin[1]
        along = columns * cos + rows * sin
        x, y, middle = float(columns.mean()), float(rows.mean()), float(along.mean())
        # It goes on for a step beyond the places that have a neighbour on either side.
        near, far = float(along.min()) - middle - reach, float(along.max()) - middle + reach
        found.append((far - near, Line(x + near * cos, y + near * sin, x + far * cos, y + far * sin)))
    found.sort(key=lambda one: -one[0])
    return tuple(line for _, line in found[:_MOST_LINES])


def _areas(flags: Flags) -> Reals:
    """Of every connected piece, how many pixels it has."""
    labels, _ = scipy.ndimage.label(flags, structure=_TOUCHING)
    return np.bincount(labels.ravel())[1:].astype(float)


def _without_lay(field: Reals, lay: float) -> Waves:
    if min(field.shape) < _SMALLEST or not np.isfinite(field).all():
        raise OutsideValidity(f"lines need a field of {_SMALLEST} pixels each way at least, of numbers")
    cut = clipped(field, eye("marks.sigmas"))
    spectrum = scipy.fft.rfft2(((cut - cut.mean()) * _taper(field.shape)).astype(np.float32))
    return np.asarray(spectrum * _away_from(field.shape, lay))


def _continued(spectrum: Waves, shape: tuple[int, int], at: int) -> tuple[Flags, Flags]:
    """Where lines along a direction go on, as lighter and as darker ones; without a margin."""
    answer = scipy.fft.irfft2(spectrum * _line_filter(shape, at), shape)
    step = round(eye("marks.step"))
    rows, columns = ((length - inside) // 2 for length, inside in zip(shape, _inner(shape), strict=True))
    inner = answer[rows:-rows, columns:-columns]
    limit = eye("marks.stands_out") * robust_deviation(inner) + 1e-12
    right, down = round(step * math.cos(ANGLES[at])), -round(step * math.sin(ANGLES[at]))
    each = [
        answer[rows + sign * down : shape[0] - rows + sign * down, columns + sign * right : shape[1] - columns + sign * right]
        for sign in (-1, 0, 1)
    ]
    return np.minimum.reduce(each) > limit, np.maximum.reduce(each) < -limit


def _inner(shape: tuple[int, int]) -> tuple[int, int]:
    """Rows and columns of a field without the margins in which it is tapered off and lines cannot go on."""
    rows, columns = (length - 2 * max(round(_MARGIN * length), round(eye("marks.step"))) for length in shape)
    return rows, columns


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


def _away_from(shape: tuple[int, int], lay: float) -> Reals:
    """Everything but what belongs to lines along the lay."""
    fy, fx = _grid(shape)
    off = np.abs(turned(lines_of(-fy, fx), lay))
    return np.asarray(1 - np.exp(-((off / eye("marks.removed")) ** 4)), dtype=np.float32)


@cache
def _line_filter(shape: tuple[int, int], at: int) -> Reals:
    """Passes lines along a direction: narrow across, long along."""
    fy, fx = _grid(shape)
    along = fx * math.cos(ANGLES[at]) + fy * math.sin(ANGLES[at])
    across = -fx * math.sin(ANGLES[at]) + fy * math.cos(ANGLES[at])
    wide, long = eye("marks.across"), eye("marks.along")
    return np.asarray(across**2 * np.exp(-2 * math.pi**2 * (wide**2 * across**2 + long**2 * along**2)), dtype=np.float32)
