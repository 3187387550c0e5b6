"""What of a size is the same in every file: the size wanted, also as a drawing says it, the gauge, and what it read."""

import math
import re
from collections.abc import Sequence
from typing import Annotated, Final, Self

from pydantic import ConfigDict, Field, model_validator
from pydantic_core import PydanticCustomError

from kelbrast.core.catalogue.materials import Material
from kelbrast.core.catalogue.tolerance_classes import tolerance_class
from kelbrast.core.errors import BadInput, OutsideValidity
from kelbrast.core.precision.readings import at_gauge_temperature
from kelbrast.core.precision.tolerances import deviations
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.sized import Gauge, Reading, RoundKind, RoundPart, SizeLimits
from kelbrast.core.units import from_si, to_si
from kelbrast.core.wording import System
from kelbrast.documents.common.fields import Micrometres, Millimetres, Strict, Text

Deviation = Annotated[float, Field(ge=-20_000, le=20_000, allow_inf_nan=False)]
Celsius = Annotated[float, Field(ge=-40, le=400, allow_inf_nan=False)]
_FROM_LIST: Final = Field(strict=False)  # JSON has no tuples; the numbers in it stay strict


class SizeWanted(Strict):
    """One of: two limits; a nominal size with deviations or a class; a mate's size with the clearance wanted."""

    model_config = ConfigDict(extra="forbid", frozen=True, strict=True, serialize_by_alias=True)

    limits_mm: Annotated[tuple[Millimetres, Millimetres] | None, _FROM_LIST] = None
    nominal_mm: Millimetres | None = None
    deviation_um: Annotated[tuple[Deviation, Deviation] | None, _FROM_LIST] = None
    class_: Annotated[Text | None, Field(alias="class")] = None
    mate_mm: Millimetres | None = None
    clearance_um: Annotated[tuple[Deviation, Deviation] | None, _FROM_LIST] = None

    @model_validator(mode="after")
    def _one_of_them(self) -> Self:
        given = {name for name, value in self if value is not None}
        if given not in ({"limits_mm"}, {"nominal_mm", "deviation_um"}, {"nominal_mm", "class_"}, {"mate_mm", "clearance_um"}):
            raise PydanticCustomError(
                "size_wanted",
                "must be limits_mm, or nominal_mm with deviation_um or class, or mate_mm with clearance_um",
            )
        return self


class SizeGauge(Strict):
    """The standard deviation of one reading, and what all may be off."""

    repeatability_um: Micrometres
    bias_um: Annotated[float, Field(ge=0, le=1000, allow_inf_nan=False)] | None = None


class SizeReading(Strict):
    """A diameter: where along the length from its middle, in which direction, and how warm the part was."""

    z_mm: Annotated[float, Field(ge=-100_000, le=100_000, allow_inf_nan=False)] = 0.0
    phi_deg: Annotated[float, Field(ge=-720, le=720, allow_inf_nan=False)] = 0.0
    mm: Millimetres
    at_c: Celsius | None = None


def round_part(want: SizeWanted, kind: RoundKind, *, length: float, marks: float, field: str = "") -> RoundPart:
    """The part with the limits that are wanted; length and depth of marks in m. `field`: where `want` stands in the file.

    Raises:
        BadInput: the limits are none, or the class is none, is of the other kind, or is not known at this size.
    """
    at = f"{field}want"
    low, high = _limits(want, kind, at)
    if low >= high:
        raise BadInput.one(at, "the upper limit must be above the lower one")
    if low <= 0:
        raise BadInput.one(at, "the limits must be above 0")
    return RoundPart(kind, length, SizeLimits(low, high), marks)


def _limits(want: SizeWanted, kind: RoundKind, field: str) -> tuple[float, float]:
    """Lower and upper limit, m."""
    if want.limits_mm is not None:
        return to_si(want.limits_mm[0], "mm"), to_si(want.limits_mm[1], "mm")
    if want.mate_mm is not None and want.clearance_um is not None:
        mate, (least, most) = to_si(want.mate_mm, "mm"), (to_si(one, "um") for one in want.clearance_um)
        return (mate + least, mate + most) if kind == "bore" else (mate - most, mate - least)
    assert want.nominal_mm is not None, "checked with the file"
    nominal = to_si(want.nominal_mm, "mm")
    if want.deviation_um is not None:
        return nominal + to_si(want.deviation_um[0], "um"), nominal + to_si(want.deviation_um[1], "um")
    assert want.class_ is not None, "checked with the file"
    written = tolerance_class(want.class_, field=f"{field}.class")
    if written.is_hole != (kind == "bore"):
        raise BadInput.one(f"{field}.class", "a bore has a capital letter, as in H7, and a shaft a small one, as in g6")
    try:
        found = deviations(nominal=nominal, written=written)
    except OutsideValidity as problem:
        raise BadInput.one(f"{field}.nominal_mm", str(problem)) from None
    return nominal + found.low, nominal + found.high


def gauge_in_si(gauge: SizeGauge) -> Gauge:
    """The gauge in SI, with the bias of its kind where none is said."""
    bias = constant("precision.bias").si if gauge.bias_um is None else to_si(gauge.bias_um, "um")
    return Gauge(to_si(gauge.repeatability_um, "um"), bias)


def readings_in_si(
    readings: Sequence[SizeReading], part: RoundPart, made_of: Material, *, gauge_c: float | None, field: str
) -> tuple[Reading, ...]:
    """Readings as at the temperature of the gauge. `field`: where the list stands in the file.

    Raises:
        BadInput: a reading is off the part, or far from what is wanted.
    """
    found, half = [], from_si(part.length / 2, "mm")
    for at, size_reading in enumerate(readings):
        where = f"{field}[{at}]"
        if abs(to_si(size_reading.z_mm, "mm")) > part.length / 2 * (1 + 1e-9):
            raise BadInput.one(f"{where}.z_mm", f"must lie on the part: at most {half:g} mm from its middle")
        if not 0.9 * part.wanted.low < to_si(size_reading.mm, "mm") < 1.1 * part.wanted.high:
            raise BadInput.one(f"{where}.mm", "is more than a tenth away from what is wanted: read it again")
        diameter = to_si(size_reading.mm, "mm")
        if size_reading.at_c is not None and gauge_c is not None:
            diameter = at_gauge_temperature(diameter=diameter, expansion=made_of.expansion, warmer=size_reading.at_c - gauge_c)
        found.append(Reading(diameter, to_si(size_reading.z_mm, "mm"), math.radians(size_reading.phi_deg)))
    return tuple(found)


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
