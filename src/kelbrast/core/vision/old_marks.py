"""One verdict on old marks from all fields of a photo lit along the lay, where the new marks hide and old ones flare."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

import numpy as np

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import eye
from kelbrast.core.simulation.light import Lamp, Look, lit
from kelbrast.core.simulation.patch import Patch
from kelbrast.core.validity import Bytes, Reals
from kelbrast.core.vision.fields import fields_of
from kelbrast.core.vision.line_segments import ANGLES, DIRECTIONS, LineShares, line_shares
from kelbrast.core.vision.spectra import apart

EyeVerdict = Literal["seen", "look-again", "none-seen"]


@dataclass(frozen=True, slots=True)
class OldMarks:
    """How much lines of another direction stand out on a whole photo.

    Attributes:
        score: S of all fields together.  angle: their direction, rad.
        single: the most that lines stand out in one field alone.  field: which it is.
        single_angle: their direction there, rad.  fields: how many were looked at.
    """

    score: float
    angle: float
    single: float
    field: int
    single_angle: float
    fields: int

    @property
    def one_place(self) -> bool:
        """One place answers alone: a fibre, or a single old mark."""
        return self.score <= eye("verdict.look_again") and self.single > eye("verdict.one_place")

    @property
    def few(self) -> bool:
        """Too few fields to tell a fibre from old marks."""
        return self.fields < fields_needed()

    @property
    def verdict(self) -> EyeVerdict:
        if self.few:
            return "look-again"
        if self.score > eye("verdict.seen"):
            return "seen"
        return "look-again" if self.score > eye("verdict.look_again") or self.one_place else "none-seen"


def old_marks(shares: Sequence[LineShares], lay: float) -> OldMarks:
    """Old marks on a whole photo, from what lines cover in each of its fields.

    A hair is one long piece in one field or two: so no piece counts for more than a short one, and in every direction the
    field with most is left out. What leaks from the lay falls off with the angle to it: so a direction stands out only as far
    as it rises above what lies between it and the lay.

    Equation: `S = max over t of V(t) - max(0, min V between t and the lay)`, `V(t) = ln(m(t) + 4e-4)` less its median, m(t)
    the sum of the fields' pieces along t without the largest; t 30 degrees or more from the lay and a local maximum
    (dimensionless)
    Valid: one field at least; the largest is left out from three on.

    Args:
        shares: of each field, as `line_shares` gives them, dimensionless.
        lay: direction of the new marks, rad.

    Raises:
        OutsideValidity: there is no field.

    Source: eye-judges.

    >>> noise = np.random.default_rng(1).standard_normal((3, 256, 256))
    >>> clean = old_marks([line_shares(field, 0.0) for field in noise], 0.0)
    >>> noise[:, 40:220, 120:122] += 2.0  # a mark that stands upright, in every field
    >>> found = old_marks([line_shares(field, 0.0) for field in noise], 0.0)
    >>> clean.verdict, found.verdict, round(math.degrees(found.angle))
    ('none-seen', 'seen', 90)
    """
    if not len(shares):
        raise OutsideValidity("old marks need one field at least")
    each = np.array([one.pieces for one in shares])
    kept = np.sort(each, axis=0)[:-1] if len(each) >= fields_needed() else each
    score, angle = _stands_out(kept.sum(axis=0), eye("verdict.chance"), lay)
    singles = [_stands_out(one.covered, eye("verdict.chance_single"), lay) for one in shares]
    most = int(np.argmax([single for single, _ in singles]))
    return OldMarks(score, angle, singles[most][0], most, singles[most][1], len(each))


def fields_needed() -> int:
    """How many fields a photo needs before old marks are called seen, or not seen.

    Equation: a constant (dimensionless)
    Valid: always.

    Raises:
        OutsideValidity: never.

    Source: eye-judges.

    >>> fields_needed()
    3
    """
    return int(eye("verdict.fields"))


def seen_on(patch: Patch, look: Look, lay: float) -> OldMarks:
    """What the eye sees on a simulated patch, with a low lamp along its lay.

    Equation: `old_marks` of the fields of `lit` (dimensionless)
    Valid: a patch of at least one field each way.

    Args:
        patch: heights, m.
        look: of the material, shares of light, dimensionless.
        lay: of its new marks, anticlockwise as lamps are, rad.

    Raises:
        OutsideValidity: outside that.

    Source: eye-judges.

    >>> from kelbrast.core.simulation.marks import Marks, draw
    >>> clean = draw(Marks(1e-6, 25e-6), (448, 1344), 8e-6, np.random.default_rng(0))
    >>> seen_on(Patch(clean.z, 8e-6), Look((0.9, 0.8, 0.5), 0.1), 0.0).verdict
    'none-seen'
    """
    if not math.isfinite(lay):
        raise OutsideValidity("a direction must be a number")
    grey: Bytes = lit(patch, look, Lamp(eye("lamp.height"), lay)).mean(axis=2).astype(np.uint8)
    return old_marks([line_shares(field.contrast, lay) for field in fields_of(grey)], lay)


def _stands_out(shares: Reals, least: float, lay: float) -> tuple[float, float]:
    """How far the direction that does most stands out, and which it is."""
    above = np.log(shares + least)
    above = above - np.nanmedian(above)
    found = [(_rise(above, at, lay), angle) for at, angle in enumerate(ANGLES) if _may_be(above, at, lay)]
    return max(found, default=(0.0, (lay + math.pi / 2) % math.pi))


def _may_be(above: Reals, at: int, lay: float) -> bool:
    """A direction in which old marks may be seen: far enough from the lay, and no less than its neighbours."""
    if np.isnan(above[at]) or apart(ANGLES[at], lay) < eye("marks.away"):
        return False
    beside = (above[(at + turn) % DIRECTIONS] for turn in (-1, 1))
    return not any(other > above[at] for other in beside)


def _rise(above: Reals, at: int, lay: float) -> float:
    """From the lowest that lies between a direction and the lay, or from the median where that is lower."""
    turn = -1 if apart(ANGLES[at - 1], lay) < apart(ANGLES[at], lay) else 1
    lowest, here = above[at], (at + turn) % DIRECTIONS
    while not np.isnan(above[here]) and here != at:
        lowest, here = min(lowest, above[here]), (here + turn) % DIRECTIONS
    return float(above[at] - max(0.0, lowest))
