"""The open file of a part that is worked to size, `size/1`: what is wanted, and what was read after every round."""

import json
import math
from collections.abc import Mapping
from typing import Annotated, Any, Literal, Self

from pydantic import Field, ValidationError, model_validator
from pydantic_core import PydanticCustomError

from kelbrast.core.catalogue.grades import parse_grade
from kelbrast.core.catalogue.materials import Material, material
from kelbrast.core.errors import BadInput, NotFound, ReadError
from kelbrast.core.precision.advice import TurnedBy, lap_tool, lathe_tool, way_in_lathe, way_of_laps
from kelbrast.core.precision.lap import Split
from kelbrast.core.precision.state import SizingTool, WorkRound
from kelbrast.core.precision.stop_sheet import SizingGrade
from kelbrast.core.process.speed import surface_speed
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.sized import Gauge, RoundKind, RoundPart
from kelbrast.core.units import to_si
from kelbrast.documents.common.faults import faults_of
from kelbrast.documents.common.fields import Millimetres, Strict, Text
from kelbrast.documents.common.versions import up_to_date
from kelbrast.documents.size.wanted import Celsius, SizeGauge, SizeReading, SizeWanted, gauge_in_si, readings_in_si, round_part


class SizeLap(Strict):
    """A lap: its grade, and of what and how it is made."""

    grade: Text
    material: Text | None = None
    length_mm: Millimetres | None = None
    split: Split | None = None


class SizeLathe(Strict):
    """Work in the lathe, with a file or with cloth."""

    cutting_speed_m_min: Annotated[float, Field(ge=0.1, le=2000, allow_inf_nan=False)] | None = None
    turned_by: TurnedBy = "file"


class SizeRound(Strict):
    """What was done since the round before, with the file's lap or its own, and the readings after it."""

    worked_s: Annotated[float, Field(ge=0, le=360_000, allow_inf_nan=False)] = 0.0
    lap: SizeLap | None = None
    turned_by: TurnedBy | None = None
    readings: Annotated[list[SizeReading], Field(max_length=500)]


class SizeFile(Strict):
    """A bore or shaft that is worked to size."""

    kelbrast: Literal["size/1"]
    title: Text
    material: Text
    kind: RoundKind
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
        return SizeFile.model_validate_json(json.dumps(up_to_date(data, data.get("kelbrast"))))
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
    return round_part(file.want, file.kind, length=to_si(file.length_mm, "mm"), marks=to_si(file.marks_um, "um"))


def gauge_of(file: SizeFile) -> Gauge:
    """The gauge in SI."""
    return gauge_in_si(file.gauge)


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
    work_rounds = []
    for number, each in enumerate(file.rounds):
        tool = _tool(file, each, number, part, made_of, known)
        field = f"rounds[{number}].readings"
        read = readings_in_si(each.readings, part, made_of, gauge_c=file.gauge_c, field=field)
        work_rounds.append(WorkRound(each.worked_s, tool, read))
    if file.rounds[0].worked_s or not file.rounds[0].readings:
        raise BadInput.one("rounds[0]", "must be readings before any work: worked_s 0, and at least one reading")
    return work_rounds


def warmer_of(file: SizeFile) -> float:
    """How much warmer than the gauge the part was at the newest readings, K: the furthest of them; 0 where nothing is said."""
    newest = next((each.readings for each in reversed(file.rounds) if each.readings), [])
    if file.gauge_c is None:
        return 0.0
    apart = [size_reading.at_c - file.gauge_c for size_reading in newest if size_reading.at_c is not None]
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
    file: SizeFile, size_round: SizeRound, number: int, part: RoundPart, made_of: Material, learnt: Mapping[str, float]
) -> SizingTool:
    if file.lap is None:
        assert file.lathe is not None, "checked with the file"
        by = size_round.turned_by or file.lathe.turned_by
        return lathe_tool(by, learnt=learnt.get(by))
    lap, field = (size_round.lap, f"rounds[{number}].lap.grade") if size_round.lap is not None else (file.lap, "lap.grade")
    usual = (constant("precision.lap_slowest").si + constant("precision.lap_fastest").si) / 2
    speed = usual
    if file.spindle_rpm is not None:
        speed = surface_speed(diameter=part.wanted.high, spindle=to_si(file.spindle_rpm, "rev/min"))
    return lap_tool(parse_grade(lap.grade, field=field), made_of, speed=speed, learnt=learnt.get("lap"))
