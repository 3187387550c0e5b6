"""The kit of the eye: a folder of pairs of photos with known truth, judged as at the bench and scored."""

import math
from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Final

from kelbrast.app.eye import opened
from kelbrast.core.errors import BadInput, Fault
from kelbrast.core.units import from_si, to_si
from kelbrast.core.vision.light_check import CanNotSay, CheckAsked, EyeSaw, light_check, width_of_marks
from kelbrast.core.vision.score import EyeScore, ScoredPair, eye_score
from kelbrast.documents.run.eye_pairs import LAMPS, TABLE, EyePair, SaidOfPair, read_pairs

_ENDINGS: Final = (".jpg", ".jpeg", ".JPG", ".JPEG", ".png", ".PNG")
_LARGEST_TABLE: Final = 10_000_000


@dataclass(frozen=True, slots=True)
class JudgedPair:
    """A pair with the eye's answer."""

    pair: EyePair
    answer: EyeSaw | CanNotSay
    pixel: float

    @property
    def said(self) -> SaidOfPair:
        """The answer in figures that tell nothing of the shop."""
        pixel_um = round(from_si(self.pixel, "um"), 2)
        if isinstance(self.answer, CanNotSay):
            return SaidOfPair(self.pair, "refused", None, None, pixel_um, None, "", self.answer.why)
        saw = self.answer
        doubts = " ".join(saw.doubts)
        return SaidOfPair(self.pair, saw.verdict, round(saw.score, 3), round(saw.softness, 2), pixel_um, saw.fields, doubts, "")


def pairs_in(folder: Path) -> list[tuple[EyePair, tuple[Path, Path]]]:
    """The pairs of a folder with their photos, the lamp across and along.

    Raises:
        BadInput: the table or a photo is not there, or the table cannot be used; every fault of it.
    """
    table = folder / TABLE
    try:
        if table.stat().st_size > _LARGEST_TABLE:
            raise BadInput.one(str(table), "is too large for a table of pairs")
        text = table.read_text(encoding="utf-8-sig")
    except UnicodeDecodeError:
        raise BadInput.one(str(table), "is not UTF-8 text") from None
    except OSError as problem:
        raise BadInput.one(str(table), f"cannot be read: {problem.strerror}") from None
    found: list[tuple[EyePair, tuple[Path, Path]]] = []
    missing: list[Fault] = []
    for pair in read_pairs(text):
        across, along = (_photo(folder, pair.photo(lamp)) for lamp in LAMPS)
        if across and along:
            found.append((pair, (across, along)))
        missing += [
            Fault(pair.pair, f"the photo {pair.photo(lamp)}.jpg is not in the folder")
            for lamp, path in zip(LAMPS, (across, along), strict=True)
            if path is None
        ]
    if missing:
        raise BadInput(missing)
    return found


def judged_pairs(
    pairs: list[tuple[EyePair, tuple[Path, Path]]], told: Callable[[JudgedPair], object] = lambda _: None
) -> list[JudgedPair]:
    """Every pair judged, one after the other.

    Args:
        told: is called with each as it is done.

    Raises:
        BadInput: a photo cannot be read.
    """
    found = []
    for pair, (across, along) in pairs:
        found.append(_judged(pair, across, along))
        told(found[-1])
    return found


def score_of(judged: list[JudgedPair]) -> EyeScore:
    """How often the eye is right on them."""
    return eye_score(
        [ScoredPair(one.pair.old_marks, one.answer.verdict if isinstance(one.answer, EyeSaw) else "refused") for one in judged]
    )


def _judged(pair: EyePair, across: Path, along: Path) -> JudgedPair:
    try:
        first, second = opened(across.read_bytes()), opened(along.read_bytes())
    except BadInput as bad:
        raise BadInput([Fault(pair.pair, fault.message) for fault in bad.faults]) from None
    except OSError as problem:
        raise BadInput.one(pair.pair, f"a photo cannot be read: {problem.strerror}") from None
    pixel = to_si(pair.across_mm, "mm") / first.grey.shape[1]
    lay = math.radians(pair.lay_deg) if pair.lay_deg is not None else None
    asked = CheckAsked(pixel, lay, math.radians(pair.crossing_deg), width_of_marks(pair.before.grain))
    return JudgedPair(pair, light_check(first, second, asked), pixel)


def _photo(folder: Path, name: str) -> Path | None:
    return next((path for ending in _ENDINGS if (path := folder / f"{name}{ending}").is_file()), None)
