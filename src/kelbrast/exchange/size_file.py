"""The open file of a part that is worked to size, `size/1`: what is wanted, and what was read after every round."""

import json
import math
from collections.abc import Mapping
from typing import Annotated, Any, Literal, Self

from pydantic import Field, ValidationError, model_validator
from pydantic_core import PydanticCustomError

from kelbrast.core.catalogue.grades import parse_grade
from kelbrast.core.catalogue.materials import Material, material
from kelbrast.core.catalogue.tolerance_classes import tolerance_class
from kelbrast.core.errors import BadInput, NotFound, OutsideValidity, ReadError
from kelbrast.core.precision.advice import lap_tool, lathe_tool, way_in_lathe, way_of_laps
from kelbrast.core.precision.readings import Reading, at_gauge_temperature
from kelbrast.core.precision.state import Gauge, RoundPart, SizeLimits, SizingTool, WorkRound
from kelbrast.core.precision.stop_sheet import SizingGrade
from kelbrast.core.precision.tolerances import deviations
from kelbrast.core.process.speed import surface_speed
from kelbrast.core.reference.loader import constant
from kelbrast.core.units import to_si
from kelbrast.exchange.job_file import Micrometres, Millimetres, Strict, Text
from kelbrast.exchange.read import faults_of

Deviation = Annotated[float, Field(ge=-20_000, le=20_000, allow_inf_nan=False)]
Celsius = Annotated[float, Field(ge=-40, le=400, allow_inf_nan=False)]


class SizeWanted(Strict):
    """One of: two limits; a nominal size with deviations or a class; a mate's size with the clearance wanted."""

    limits_mm: tuple[Millimetres, Millimetres] | None = None
    nominal_mm: Millimetres | None = None
    deviation_um: tuple[Deviation, Deviation] | None = None
    class_: Annotated[Text | None, Field(alias="class")] = None
    mate_mm: Millimetres | None = None
    clearance_um: tuple[Deviation, Deviation] | None = None

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


class SizeLap(Strict):
    """A lap: its grade, and of what and how it is made."""

    grade: Text
    material: Text | None = None
    length_mm: Millimetres | None = None
    split: Literal["single", "double", "helical"] | None = None


class SizeLathe(Strict):
    """Work in the lathe, with a file or with cloth."""

    cutting_speed_m_min: Annotated[float, Field(ge=0.1, le=2000, allow_inf_nan=False)] | None = None
    turned_by: Literal["file", "cloth"] = "file"


class SizeReading(Strict):
    """A diameter: where along the length from its middle, in which direction, and how warm the part was."""

    z_mm: Annotated[float, Field(ge=-100_000, le=100_000, allow_inf_nan=False)] = 0.0
    phi_deg: Annotated[float, Field(ge=-720, le=720, allow_inf_nan=False)] = 0.0
    mm: Millimetres
    at_c: Celsius | None = None


class SizeRound(Strict):
    """What was done since the round before, with the file's lap or its own, and the readings after it."""

    worked_s: Annotated[float, Field(ge=0, le=360_000, allow_inf_nan=False)] = 0.0
    lap: SizeLap | None = None
    turned_by: Literal["file", "cloth"] | None = None
    readings: Annotated[list[SizeReading], Field(max_length=500)]


class SizeFile(Strict):
    """A bore or shaft that is worked to size."""

    kelbrast: Literal["size/1"]
    title: Text
    material: Text
    kind: Literal["bore", "shaft"]
    length_mm: Millimetres
    want: SizeWanted
    marks_um: Annotated[float, Field(ge=0, le=1000, allow_inf_nan=False)] = 0.0
    gauge: SizeGauge
    gauge_c: Celsius | None = None
    pass_risk: Annotated[float, Field(ge=0.0001, le=0.5)] | None = None
    lap: SizeLap | None = None
    lathe: SizeLathe | None = None
    spindle_rpm: Annotated[float, Field(ge=1, le=100_000, allow_inf_nan=False)] | None = None
    rounds: Annotated[list[SizeRound], Field(min_length=1, max_length=200)]

    @model_validator(mode="after")
    def _worked_by_something(self) -> Self:
        if (self.lap is None) == (self.lathe is None):
            raise PydanticCustomError("size_tool", "must have a lap, or lathe for work with file and cloth, and not both")
        return self


def read_size_file(text: str | bytes) -> SizeFile:
    """Read and check a size file.

    Raises:
        ReadError: not JSON at all, or not an object.
        BadInput: every key that is wrong, missing or not known, and why.
    """
    try:
        data = json.loads(text)
    except (ValueError, RecursionError) as problem:
        raise ReadError.one("", f"this is not JSON: {problem}") from None
    if not isinstance(data, dict) or "kelbrast" not in data:
        raise BadInput.one("kelbrast", 'is missing; a size file says "kelbrast": "size/1"')
    return check_size_file(data)


def check_size_file(data: dict[str, Any]) -> SizeFile:
    """The same for JSON that is read already."""
    try:
        return SizeFile.model_validate_json(json.dumps(data))
    except ValidationError as problem:
        raise BadInput(faults_of(problem)) from None


def material_of(file: SizeFile) -> Material:
    """What it is made of."""
    try:
        return material(file.material)
    except NotFound as problem:
        raise BadInput.one("material", str(problem)) from None


def part_of(file: SizeFile) -> RoundPart:
    """The part in SI, with the limits that are wanted."""
    low, high = limits_of(file.want, file.kind)
    if low >= high:
        raise BadInput.one("want", "the upper limit must be above the lower one")
    if low <= 0:
        raise BadInput.one("want", "the limits must be above 0")
    return RoundPart(file.kind, to_si(file.length_mm, "mm"), SizeLimits(low, high), to_si(file.marks_um, "um"))


def limits_of(want: SizeWanted, kind: str) -> tuple[float, float]:
    """Lower and upper limit, m.

    Raises:
        BadInput: the class is none, is of the other kind, or is not known at this size.
    """
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
    written = tolerance_class(want.class_, field="want.class")
    if written.is_hole != (kind == "bore"):
        raise BadInput.one("want.class", "a bore has a capital letter, as in H7, and a shaft a small one, as in g6")
    try:
        found = deviations(nominal=nominal, written=written)
    except OutsideValidity as problem:
        raise BadInput.one("want.nominal_mm", str(problem)) from None
    return nominal + found.low, nominal + found.high


def gauge_of(file: SizeFile) -> Gauge:
    """The gauge in SI."""
    bias = constant("precision.bias").si if file.gauge.bias_um is None else to_si(file.gauge.bias_um, "um")
    return Gauge(to_si(file.gauge.repeatability_um, "um"), bias)


def worked_by(file: SizeFile) -> str:
    """What it is worked with: `lap`, `file` or `cloth`."""
    return "lap" if file.lathe is None else file.lathe.turned_by


def rounds_of(file: SizeFile, learnt: Mapping[str, float] | None = None) -> list[WorkRound]:
    """The rounds in SI, every reading as at the temperature of the gauge; `learnt`: the shop's own factors by `worked_by`.

    Raises:
        BadInput: a grade that is none, a reading off the part, or a first round without readings.
    """
    part, made_of = part_of(file), material_of(file)
    known = learnt or {}
    found = []
    for number, each in enumerate(file.rounds):
        tool = _tool(file, each, number, part, made_of, known)
        found.append(WorkRound(each.worked_s, tool, _readings(file, each, number, part, made_of)))
    if file.rounds[0].worked_s or not file.rounds[0].readings:
        raise BadInput.one("rounds[0]", "must be readings before any work: worked_s 0, and at least one reading")
    return found


def warmer_of(file: SizeFile) -> float:
    """How much warmer than the gauge the part was at the newest readings, K: the furthest of them; 0 where nothing is said."""
    newest = next((each.readings for each in reversed(file.rounds) if each.readings), [])
    if file.gauge_c is None:
        return 0.0
    apart = [one.at_c - file.gauge_c for one in newest if one.at_c is not None]
    return max(apart, key=abs, default=0.0)


def grades_of(file: SizeFile) -> tuple[SizingGrade, ...]:
    """The way to the size, grade by grade."""
    part, made_of = part_of(file), material_of(file)
    area = math.pi * part.wanted.high * part.length
    if file.lap is not None:
        return way_of_laps(parse_grade(file.lap.grade, field="lap.grade"), made_of, area=area)
    assert file.lathe is not None, "checked with the file"
    return way_in_lathe(file.lathe.turned_by, made_of, area=area)


def _tool(
    file: SizeFile, each: SizeRound, number: int, part: RoundPart, made_of: Material, learnt: Mapping[str, float]
) -> SizingTool:
    if file.lap is None:
        assert file.lathe is not None, "checked with the file"
        by = each.turned_by or file.lathe.turned_by
        return lathe_tool(by, learnt=learnt.get(by))
    lap, field = (each.lap, f"rounds[{number}].lap.grade") if each.lap is not None else (file.lap, "lap.grade")
    usual = (constant("precision.lap_slowest").si + constant("precision.lap_fastest").si) / 2
    speed = usual
    if file.spindle_rpm is not None:
        speed = surface_speed(diameter=part.wanted.high, spindle=to_si(file.spindle_rpm, "rev/min"))
    return lap_tool(parse_grade(lap.grade, field=field), made_of, speed=speed, learnt=learnt.get("lap"))


def _readings(file: SizeFile, each: SizeRound, number: int, part: RoundPart, made_of: Material) -> tuple[Reading, ...]:
    found = []
    for at, one in enumerate(each.readings):
        where = f"rounds[{number}].readings[{at}]"
        if abs(to_si(one.z_mm, "mm")) > part.length / 2 * (1 + 1e-9):
            raise BadInput.one(f"{where}.z_mm", f"must lie on the part: at most {file.length_mm / 2:g} mm from its middle")
        if not 0.9 * part.wanted.low < to_si(one.mm, "mm") < 1.1 * part.wanted.high:
            raise BadInput.one(f"{where}.mm", "is more than a tenth away from what is wanted: read it again")
        diameter = to_si(one.mm, "mm")
        if one.at_c is not None and file.gauge_c is not None:
            warmer = one.at_c - file.gauge_c
            diameter = at_gauge_temperature(diameter=diameter, expansion=made_of.expansion, warmer=warmer)
        found.append(Reading(diameter, to_si(one.z_mm, "mm"), math.radians(one.phi_deg)))
    return tuple(found)
