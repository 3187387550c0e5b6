"""A light check from two photos: what is seen of old marks, or why nothing can be said and what to do.

It never says that the marks are gone: the lamp and the eye decide that.
"""

import math
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import constant, eye
from kelbrast.core.validity import Bytes, Reals, require_above_zero
from kelbrast.core.vision.fields import FIELD, Field, fields_of
from kelbrast.core.vision.lay import LayFound, apart, lay_of, lay_power
from kelbrast.core.vision.old_marks import Line, old_marks_in

EyeVerdict = Literal["seen", "look-again", "none-seen"]
EyeRefusal = Literal[
    "no-lay", "without-lay", "curved", "crossing", "under-a-pixel", "small", "messenger", "dark", "clipped", "blurred", "alike",
    "lamp-along",
    "no-lay-seen", "lay-off",
]  # fmt: skip


@dataclass(frozen=True, slots=True)
class Photo:
    """A photo: grey of 0 to 255 as it is in the file, and the mean step of its JPEG table; None where the file has none."""

    grey: Bytes
    coarse: float | None = None


@dataclass(frozen=True, slots=True)
class CheckAsked:
    """What is known before a photo is looked at (SI).

    Attributes:
        pixel: side of a pixel on the face.
        lay: direction of the new marks on the picture, anticlockwise from the right; None where there is none.
        crossing: angle at which what was there before crosses it.
        width: of the marks that are looked for.
        curved: the face is.
    """

    pixel: float
    lay: float | None
    crossing: float
    width: float
    curved: bool = False


@dataclass(frozen=True, slots=True)
class CanNotSay:
    """Nothing can be said: why, and of which photo (1, 2; 0 of both or of what is known)."""

    why: EyeRefusal
    photo: int = 0

    @classmethod
    def before_any_photo(cls, *, curved: bool, directed: bool) -> "CanNotSay | None":
        """Why no photo of such a face can be judged; None where one can.

        Args:
            curved: the face is.  directed: the step leaves its marks in one direction.

        >>> any_photo = CanNotSay.before_any_photo
        >>> any_photo(curved=False, directed=False).why, any_photo(curved=False, directed=True)
        ('without-lay', None)
        """
        if curved:
            return cls("curved")
        return None if directed else cls("without-lay")


@dataclass(frozen=True, slots=True)
class EyeSaw:
    """What was seen (SI).

    Attributes:
        fields, agreeing: fields that were looked at, and those in which marks of one direction stand out.
        score: of the field in which they do most.  angle: of the old marks; None where none are seen.
        crossing: between them and the lay.  lines: where they lie on photo 1.
        lay: as photo 2 shows it.  smallest: width of the finest marks that could be seen.
    """

    verdict: EyeVerdict
    fields: int
    agreeing: int
    score: float
    angle: float | None
    crossing: float | None
    lines: tuple[Line, ...]
    lay: LayFound
    smallest: float


def light_check(
    along: Photo, across: Photo, asked: CheckAsked, told: Callable[[float], object] = lambda _: None
) -> EyeSaw | CanNotSay:
    """Judge two photos: the lamp along the lay, and across it.

    Equation: seen where `S` of `old_marks_in` is large in enough fields that agree on a direction (dimensionless)
    Valid: the pixel and the width of the marks above 0.

    Args:
        along: photo 1.
        across: photo 2.
        asked: what is known, m and rad.
        told: is called with the share that is done, dimensionless.

    Raises:
        OutsideValidity: outside that. What a photo does not allow is no error: it is the answer.

    Source: eye-simulated.

    >>> grey = Photo(np.full((448, 448), 128, dtype=np.uint8))
    >>> light_check(grey, grey, CheckAsked(10e-6, None, 1.2, 20e-6)).why
    'no-lay'
    """
    require_above_zero(pixel=asked.pixel, width=asked.width)
    refused = _beforehand(asked) or _of_file(along, 1) or _of_file(across, 2)
    if refused is not None:
        return refused
    assert asked.lay is not None, "refused before"
    first, second = list(fields_of(along.grey)), list(fields_of(across.grey))
    lay = _together([lay_of(field.contrast, pixel=asked.pixel) for field in second])
    if (wrong := _of_lamps(first, second, lay, asked.lay)) is not None:
        return wrong
    per_field = []
    for field in first:
        per_field.append(old_marks_in(field.contrast, lay.angle))
        told(len(per_field) / len(first))
    scores = np.array([old_marks.score for old_marks in per_field])
    best = int(np.argmax(scores))
    angle = per_field[best].angle
    near = [apart(old_marks.angle, angle) <= eye("marks.agree") for old_marks in per_field]
    agreeing = sum(same and score > eye("marks.seen") for same, score in zip(near, scores, strict=True))
    enough = min(int(eye("marks.fields")), len(per_field))
    verdict = _verdict(agreeing, enough, float(scores[best]))
    seen = verdict != "none-seen"
    shown = [at for at in range(len(per_field)) if seen and near[at] and scores[at] > eye("marks.look_again")]
    return EyeSaw(
        verdict=verdict,
        fields=len(per_field),
        agreeing=agreeing,
        score=float(scores[best]),
        angle=angle if seen else None,
        crossing=apart(angle, lay.angle) if seen else None,
        lines=tuple(_moved(line, first[at]) for at in shown for line in per_field[at].lines),
        lay=lay,
        smallest=eye("marks.pixels") * asked.pixel,
    )


def width_of_marks(grain: float) -> float:
    """How wide marks of a grain are, as the simulator draws them.

    Equation: `w = 0.3 g` (m)
    Valid: above 0.

    Args:
        grain: g, m.

    Raises:
        OutsideValidity: outside that.

    Source: simulation-fit.

    >>> round(width_of_marks(58e-6) * 1e6, 1)
    17.4
    """
    require_above_zero(grain=grain)
    return constant("simulation.mark_width_per_grain").value * grain


def _verdict(agreeing: int, enough: int, best: float) -> EyeVerdict:
    if agreeing >= enough:
        return "seen"
    return "look-again" if agreeing or best > eye("marks.look_again") else "none-seen"


def _beforehand(asked: CheckAsked) -> CanNotSay | None:
    if (refused := CanNotSay.before_any_photo(curved=asked.curved, directed=True)) is not None:
        return refused
    if asked.lay is None:
        return CanNotSay("no-lay")
    if asked.crossing < eye("marks.crossing"):
        return CanNotSay("crossing")
    if asked.width < eye("marks.pixels") * asked.pixel:
        return CanNotSay("under-a-pixel")
    return None


def _of_file(photo: Photo, which: int) -> CanNotSay | None:
    if min(photo.grey.shape) < FIELD:
        return CanNotSay("small", which)
    found: Gate = gate(photo.grey)
    if found.blocks > eye("file.blocks") or (photo.coarse or 0.0) > eye("file.coarse"):
        return CanNotSay("messenger", which)
    if found.median < eye("file.darkest"):
        return CanNotSay("dark", which)
    if found.clipped > eye("file.clipped"):
        return CanNotSay("clipped", which)
    if found.sharpness < eye("file.sharpness"):
        return CanNotSay("blurred", which)
    return None


def _of_lamps(first: Sequence[Field], second: Sequence[Field], lay: LayFound, stated: float) -> CanNotSay | None:
    """Whether the lamps stood as they should: the lay strong on photo 2 where it was stated, and hidden on photo 1."""
    if not lay.claimed:
        return CanNotSay("no-lay-seen", 2)
    if apart(lay.angle, stated) > eye("lamp.lay_off"):
        return CanNotSay("lay-off", 2)
    if len(first) == len(second) and _alike(first, second) > eye("lamp.alike"):
        return CanNotSay("alike")
    hidden = [float(np.mean([lay_power(field.contrast, lay.angle) for field in each])) for each in (first, second)]
    if hidden[0] > eye("lamp.hidden") * hidden[1]:
        return CanNotSay("lamp-along", 1)
    return None


def _alike(first: Sequence[Field], second: Sequence[Field]) -> float:
    """How much one photo looks like the other, or like its negative."""
    each = [
        abs(float(np.corrcoef(field.contrast.ravel(), other.contrast.ravel())[0, 1]))
        for field, other in zip(first, second, strict=True)
        if field.contrast.std() > 0 and other.contrast.std() > 0
    ]
    return float(np.median(each)) if each else 1.0


def _together(lays: Sequence[LayFound]) -> LayFound:
    """One lay of the lays of all fields: their direction weighted by strength, and how far they agree."""
    if not lays:
        raise OutsideValidity("a lay needs one field at least")
    weights = np.array([lay.strength for lay in lays])
    turned = np.exp(2j * np.array([lay.angle for lay in lays]))
    mean = (weights * turned).sum() / max(float(weights.sum()), 1e-12)
    return LayFound(float(np.angle(mean) / 2 % math.pi), float(np.median(weights)), float(abs(mean)))


def _moved(line: Line, field: Field) -> Line:
    return Line(line.x0 + field.column, line.y0 + field.row, line.x1 + field.column, line.y1 + field.row)


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
