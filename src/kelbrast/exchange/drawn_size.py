"""A size as it stands on a drawing: `25 h6`, `25 -0.005`, `25 +0.021/0`, `25 ±0.01`, `24.98 - 25.00`."""

import re
from typing import Final

from kelbrast.core.catalogue.tolerance_classes import tolerance_class
from kelbrast.core.errors import BadInput
from kelbrast.core.units import from_si, to_si
from kelbrast.core.wording import System
from kelbrast.exchange.size_wanted import SizeWanted

_NUMBER: Final = r"\d+(?:[.,]\d+)?|[.,]\d+"
_CLASS: Final = re.compile(rf"({_NUMBER})\s*([A-Za-z]{{1,2}}\d{{1,2}})")
_BOTH: Final = re.compile(rf"({_NUMBER})\s*(?:±|\+/-|\+-)\s*({_NUMBER})")
_LIMITS: Final = re.compile(rf"({_NUMBER})\s*(?:-|–|to|/|\.\.\.?|…)\s*({_NUMBER})")
_DEVIATIONS: Final = re.compile(rf"({_NUMBER})\s*([+\-−]\s*(?:{_NUMBER})|0)(?:[\s/,;]*([+\-−]\s*(?:{_NUMBER})|0))?")


def drawn_size(written: str, *, system: System = "metric") -> SizeWanted:
    """The size that these words of a drawing want; in mm, or in inches.

    One deviation alone has nought as the other. A range of two sizes is two limits where the second is no deviation: it is more
    than half of the first.

    Raises:
        BadInput: it is not a size, or its class is none.

    >>> drawn_size("Ø25 -0.005").deviation_um
    (-5.0, 0.0)
    >>> drawn_size("25 h6").class_
    'h6'
    >>> drawn_size(".5000 +.0005 / -0", system="inch").deviation_um
    (0.0, 12.7)
    """
    text = re.sub(r"^[\sØø⌀]*(?:dia\.?)?\s*|\s*(?:mm|in\.?|\")?\s*$", "", written)
    unit = "in" if system == "inch" else "mm"
    if found := _CLASS.fullmatch(text):
        tolerance_class(found[2], field="text")
        return _wanted({"nominal_mm": _mm(found[1], unit), "class": found[2]})
    if found := _BOTH.fullmatch(text):
        away = _um(found[2], unit)
        return _wanted({"nominal_mm": _mm(found[1], unit), "deviation_um": (-away, away)})
    if (found := _LIMITS.fullmatch(text)) and _number(found[2]) > _number(found[1]) / 2:
        low, high = sorted((_mm(found[1], unit), _mm(found[2], unit)))
        return _wanted({"limits_mm": (low, high)})
    if found := _DEVIATIONS.fullmatch(text):
        ends = sorted((_um(found[2], unit), _um(found[3] or "0", unit)))
        return _wanted({"nominal_mm": _mm(found[1], unit), "deviation_um": (ends[0], ends[1])})
    raise BadInput.one(
        "text", "is not a size as drawings say it: write 25 h6, 25 -0.005, 25 +0.021/0, 25 ±0.01 or 24.98 - 25.00"
    )


def _wanted(given: dict[str, object]) -> SizeWanted:
    try:
        return SizeWanted.model_validate(given)
    except ValueError:
        raise BadInput.one("text", "is no size: it must be above 0, and deviations small against it") from None


def _number(text: str) -> float:
    return float(re.sub(r"\s", "", text).replace(",", ".").replace("−", "-"))


def _mm(text: str, unit: str) -> float:
    return round(from_si(to_si(_number(text), unit), "mm"), 6)


def _um(text: str, unit: str) -> float:
    return round(from_si(to_si(_number(text), unit), "um"), 3) + 0.0
