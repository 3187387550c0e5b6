"""A light check from two photos: what is seen of old marks, or why nothing can be said and what to do.

The photo with the lamp across the new marks comes first: it shows their direction. Then one with the lamp along them, on which
they hide and old ones flare. It never says that the marks are gone: the lamp and the eye decide that.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Final, Literal

import numpy as np

from kelbrast.core.reference.loader import constant, eye
from kelbrast.core.validity import require_above_zero
from kelbrast.core.vision.fields import FIELD, Field, Line, fields_of
from kelbrast.core.vision.lay import LayFound, lay_of, lay_power, one_lay, softness
from kelbrast.core.vision.line_segments import line_shares, lines_along
from kelbrast.core.vision.old_marks import EyeVerdict, OldMarks, old_marks
from kelbrast.core.vision.photo_file import Photo, measured_file
from kelbrast.core.vision.same_place import same_place
from kelbrast.core.vision.spectra import apart, mean_power

EyeRefusal = Literal[
    "without-lay", "curved", "crossing", "under-a-pixel", "small", "messenger", "dark", "clipped", "blurred", "lamp-along",
    "no-lay-seen", "lay-off",
]  # fmt: skip
EyeDoubt = Literal["soft", "clipped", "few", "lamp", "place", "one-place"]
ACROSS: Final = 1  # the photo with the lamp across the new marks
ALONG: Final = 2  # and the one with the lamp along them


@dataclass(frozen=True, slots=True)
class CheckAsked:
    """What is known before a photo is looked at (SI).

    Attributes:
        pixel: side of a pixel on the face.
        lay: direction of the new marks as the person confirmed it, anticlockwise from the right; None where nobody did.
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
class LayShown:
    """What the photo with the lamp across shows: the lay, and how good the photo is.

    Attributes:
        lay: of the new marks.  softness: Q; `soft`: too much of it, or too little lay, to say "none seen".
        lost: share in black or white of the field that lost most; `short_of_tone`: enough to be told.
        power: of the lay.
    """

    lay: LayFound
    softness: float
    lost: float
    power: float

    @property
    def soft(self) -> bool:
        return self.softness > eye("soft.doubted") or self.lay.strength < eye("lay.weak")

    @property
    def short_of_tone(self) -> bool:
        return self.lost > eye("file.clipped")


@dataclass(frozen=True, slots=True)
class EyeSaw:
    """What was seen (SI).

    Attributes:
        fields: that were looked at.  looked_at: the share of the photo that they are.
        score: how far old marks stand out of all fields together.
        angle: of the old marks; None where none are seen.  crossing: between them and the lay.
        lines: where they lie on the photo with the lamp along.
        lay: as the other photo shows it, and how soft it is.  smallest: width of the finest marks that could be seen.
        doubts: what makes the answer less sure.
    """

    verdict: EyeVerdict
    fields: int
    looked_at: float
    score: float
    angle: float | None
    crossing: float | None
    lines: tuple[Line, ...]
    lay: LayFound
    softness: float
    smallest: float
    doubts: tuple[EyeDoubt, ...] = ()

    @property
    def sampled(self) -> bool:
        """Places of the photo were looked at, not nearly all of it."""
        return self.looked_at < eye("camera.nearly_all")


def lay_shown(across: Photo, pixel: float) -> LayShown | CanNotSay:
    """What the photo with the lamp across shows of the new marks.

    Equation: `one_lay` of the fields, and `softness` along it (rad)
    Valid: above 0.

    Args:
        across: the photo.
        pixel: side of one on the face, m.

    Raises:
        OutsideValidity: outside that. What a photo does not allow is no error: it is the answer.

    Source: eye-judges.

    >>> lay_shown(Photo(np.full((448, 448), 128, dtype=np.uint8)), 10e-6).why
    'no-lay-seen'
    """
    require_above_zero(pixel=pixel)
    if (refused := _of_file(across, ACROSS)) is not None:
        return refused
    fields = list(fields_of(across.grey))
    if _lost(fields) > eye("file.lost"):
        return CanNotSay("clipped", ACROSS)
    powers = [mean_power(field.contrast) for field in fields]
    lay = one_lay([lay_of(power, pixel=pixel) for power in powers])
    power = np.mean(powers, axis=0)
    soft = softness(power, lay.angle)
    if not lay.claimed:
        return CanNotSay("blurred" if soft > eye("soft.blurred") else "no-lay-seen", ACROSS)
    return LayShown(lay, soft, _lost(fields), lay_power(power, lay.angle))


def light_check(
    across: Photo, along: Photo, asked: CheckAsked, told: Callable[[float], object] = lambda _: None
) -> EyeSaw | CanNotSay:
    """Judge two photos: the lamp across the lay, and along it.

    Equation: `old_marks` of the fields of the second, the lay as the first shows it (dimensionless)
    Valid: the pixel and the width of the marks above 0.

    Args:
        across: photo 1.
        along: photo 2.
        asked: what is known, m and rad.
        told: is called with the share that is done, dimensionless.

    Raises:
        OutsideValidity: outside that. What a photo does not allow is no error: it is the answer.

    Source: eye-judges.

    >>> grey = Photo(np.full((448, 448), 128, dtype=np.uint8))
    >>> light_check(grey, grey, CheckAsked(10e-6, None, 1.2, 2e-6)).why
    'under-a-pixel'
    """
    require_above_zero(pixel=asked.pixel, width=asked.width)
    if (refused := _beforehand(asked) or _of_file(along, ALONG)) is not None:
        return refused
    shown = lay_shown(across, asked.pixel)
    if isinstance(shown, CanNotSay):
        return shown
    fields = list(fields_of(along.grey))
    showing = _showing(shown, fields)
    if (wrong := _of_lamps(shown, fields, asked, showing)) is not None:
        return wrong
    shares = []
    for field in fields:
        shares.append(line_shares(field.contrast, shown.lay.angle))
        told(len(shares) / len(fields))
    found = old_marks(shares, shown.lay.angle)
    doubts = _doubts(found, shown, fields, showing)
    # Whatever face the second photo shows is judged by itself, if its new marks run the same way: so no verdict is lowered.
    if same_place(across.grey, along.grey) < eye("place.told"):
        doubts.append("place")
    return _said(found, shown, fields, doubts, asked.pixel, along.grey.size)


def _doubts(found: OldMarks, shown: LayShown, fields: Sequence[Field], showing: float) -> list[EyeDoubt]:
    doubts: list[EyeDoubt] = []
    if shown.soft:
        doubts.append("soft")
    if showing > eye("lamp.hidden"):
        doubts.append("lamp")
    if shown.short_of_tone or _lost(fields) > eye("file.clipped"):
        doubts.append("clipped")
    if found.few:
        doubts.append("few")
    elif found.one_place:
        doubts.append("one-place")
    return doubts


def _said(
    found: OldMarks, shown: LayShown, fields: Sequence[Field], doubts: Sequence[EyeDoubt], pixel: float, size: int
) -> EyeSaw:
    verdict = found.verdict
    if verdict == "none-seen" and {"soft", "lamp"} & set(doubts):
        verdict = "look-again"
    lay = shown.lay.angle
    angle: float | None = None
    lines: tuple[Line, ...] = ()
    if found.score > eye("verdict.look_again"):
        angle = found.angle
        lines = tuple(line.within(field) for field in fields for line in lines_along(field.contrast, lay, angle))
    elif found.one_place:
        field, angle = fields[found.field], found.single_angle
        lines = tuple(line.within(field) for line in lines_along(field.contrast, lay, angle))
    return EyeSaw(
        verdict=verdict,
        fields=len(fields),
        looked_at=min(1.0, len(fields) * FIELD**2 / size),
        score=found.score,
        angle=angle,
        crossing=apart(angle, lay) if angle is not None else None,
        lines=lines,
        lay=shown.lay,
        softness=shown.softness,
        smallest=eye("marks.pixels") * pixel,
        doubts=tuple(doubts),
    )


@dataclass(frozen=True, slots=True)
class CameraShows:
    """What a camera shows at a distance: the finest grain whose marks show, and how large a pixel may be for a grain (m)."""

    finest: float
    pixel: float
    most: float

    @property
    def enough(self) -> bool:
        return self.pixel <= self.most


def camera_shows(*, pixel: float, grain: float) -> CameraShows:
    """What a camera shows before any photo is taken: marks that are one pixel wide or more.

    Equation: the finest grain `p / 0.3`, the largest pixel `0.3 g` (m)
    Valid: above 0.

    Args:
        pixel: p, side of one on the face, m.
        grain: g, of the marks that are looked for, m.

    Raises:
        OutsideValidity: outside that.

    Source: simulation-fit.

    >>> shows = camera_shows(pixel=12e-6, grain=58.5e-6)  # P240
    >>> round(shows.finest * 1e6), round(shows.most * 1e6, 1), shows.enough  # P360 has 40.5
    (40, 17.6, True)
    """
    require_above_zero(pixel=pixel)
    finest = eye("marks.pixels") * pixel / constant("simulation.mark_width_per_grain").value
    return CameraShows(finest, pixel, width_of_marks(grain) / eye("marks.pixels"))


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


def _beforehand(asked: CheckAsked) -> CanNotSay | None:
    if (refused := CanNotSay.before_any_photo(curved=asked.curved, directed=True)) is not None:
        return refused
    if asked.crossing < eye("marks.away"):
        return CanNotSay("crossing")
    if asked.width < eye("marks.pixels") * asked.pixel:
        return CanNotSay("under-a-pixel")
    return None


def _of_file(photo: Photo, which: int) -> CanNotSay | None:
    if min(photo.grey.shape) < FIELD:
        return CanNotSay("small", which)
    found = measured_file(photo.grey)
    if found.blocks > eye("file.blocks") or (photo.coarse or 0.0) > eye("file.coarse"):
        return CanNotSay("messenger", which)
    if found.median < eye("file.darkest"):
        return CanNotSay("dark", which)
    return None


def _lost(fields: Sequence[Field]) -> float:
    """The share in black or white of the field that lost most."""
    return max(field.lost for field in fields)


def _of_lamps(shown: LayShown, along: Sequence[Field], asked: CheckAsked, showing: float) -> CanNotSay | None:
    """Whether the lamps stood as they should: the lay where it was confirmed, and hidden on the photo with the lamp along."""
    if asked.lay is not None and apart(shown.lay.angle, asked.lay) > eye("lamp.lay_off"):
        return CanNotSay("lay-off", ACROSS)
    if _lost(along) > eye("file.lost"):
        return CanNotSay("clipped", ALONG)
    if showing > eye("lamp.shows"):
        return CanNotSay("lamp-along", ALONG)
    return None


def _showing(shown: LayShown, along: Sequence[Field]) -> float:
    """The power of the lay on the photo with the lamp along over that on the other: 1 where both are lit alike."""
    power = np.mean([mean_power(field.contrast) for field in along], axis=0)
    return lay_power(power, shown.lay.angle) / max(shown.power, 1e-30)
