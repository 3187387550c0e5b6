"""A trial piece as it was worked, `trial/1`: a marked square, what was seen after every round, and what was measured."""

from datetime import date
from typing import Annotated, Literal

from pydantic import BaseModel, Field

from kelbrast.core.learning.trial import LampLook, Seen, Tried
from kelbrast.core.tooling.trial_square import OnTrial
from kelbrast.core.units import from_si, to_si
from kelbrast.documents.common.fields import ID, GradeText, Millimetres, NameText, Strict, shop, shop_or_none

Grams = Annotated[float, Field(gt=0, le=100_000, allow_inf_nan=False)]
WorkSeconds = Annotated[float, Field(gt=0, le=7200, allow_inf_nan=False)]
Thickness = Annotated[list[Millimetres], Field(min_length=1, max_length=50)]
RoughnessRead = Literal["meter", "compared"]


class TrialAsked(Strict):
    """What a trial is made with. Without `grade` and `side_mm` those that suit the tool are taken."""

    tool: ID
    material: ID
    grade: GradeText | None = None
    side_mm: Annotated[float, Field(ge=10, le=1000, allow_inf_nan=False)] | None = None


class TrialReadingIn(TrialAsked):
    """What is read: before the work, or after `seconds` of it; `before` is what stood there before, in g or mm."""

    seconds: Annotated[float, Field(ge=0, le=7200, allow_inf_nan=False)] = 0
    before: Annotated[float, Field(gt=0, le=100_000, allow_inf_nan=False)] | None = None


class TrialLook(Strict):
    """What was seen of the old marks after so many seconds of work, counted from the beginning."""

    seconds: WorkSeconds
    seen: Seen


class TrialWeighed(Strict):
    """The piece, weighed before the work and after all of it."""

    before_g: Grams
    after_g: Grams


class TrialMeasured(Strict):
    """Its thickness at the same places before the work and after all of it."""

    before_mm: Thickness
    after_mm: Thickness


class TrialRoughness(Strict):
    """Ra of the square after the work: read with a meter, or found by comparing with known grades."""

    ra_um: Annotated[float, Field(ge=0.001, le=100, allow_inf_nan=False)]
    by: RoughnessRead = "meter"


class TrialFile(TrialAsked):
    """A trial. `seconds`: of all work, which may have gone on after the last look. `simulated`: a stand-in read something."""

    kelbrast: Literal["trial/1"] = "trial/1"
    grade: GradeText
    side_mm: Annotated[float, Field(ge=10, le=1000, allow_inf_nan=False)]
    seconds: WorkSeconds
    looks: Annotated[list[TrialLook], Field(max_length=60)] = []
    weighed: TrialWeighed | None = None
    measured: TrialMeasured | None = None
    roughness: TrialRoughness | None = None
    by: NameText = ""
    on: Annotated[date | None, Field(strict=False)] = None
    simulated: bool = False


class TrialSet(BaseModel):
    """How to make a trial, and what the tables expect of it."""

    tool: str
    label: str
    material: str
    material_label: str
    machine_label: str
    rpm: float | None
    grade: str
    side_mm: float
    round_s: float
    expected_s: float | None
    rate_um_min: float
    ra_um: float
    cautions: list[str]


class TrialFigure(BaseModel):
    """A figure as the trial has it, beside the tables'; it lies between `low` and `high` nine times in ten."""

    tables: float
    likely: float
    low: float
    high: float
    factor: float


class TrialAnswer(BaseModel):
    """What a trial says: the rate in um/min, and Ra in um where it was read. It may be accepted where it is `usable`."""

    removal_um_min: TrialFigure | None
    ra_um: TrialFigure | None
    usable: bool
    why_not: str


def to_set(trial: OnTrial, material: str, label: str, cautions: tuple[str, ...]) -> TrialSet:
    """How to make it, in the units of the shop."""
    seconds, on_face = trial.square.seconds, trial.on_face
    return TrialSet(
        tool=on_face.tool.id,
        label=on_face.tool.label,
        material=material,
        material_label=label,
        machine_label=on_face.machine.label,
        rpm=shop_or_none(on_face.setting.spindle, "rev/min"),
        grade=trial.grade.name,
        side_mm=shop(trial.side, "mm"),
        round_s=trial.round,
        expected_s=seconds if seconds < float("inf") else None,
        rate_um_min=rate_um_min(trial),
        ra_um=shop(trial.square.ra, "um"),
        cautions=list(cautions),
    )


def rate_um_min(trial: OnTrial) -> float:
    """What the tables expect a fresh tool to take off, in um a minute."""
    return from_si(trial.square.rate * to_si(1, "min"), "um")


def to_figure(tables: float, tried: Tried | None) -> TrialFigure | None:
    """A figure of the tables and what the trial makes of it; None where it says nothing of it."""
    if tried is None:
        return None
    low, high = tried.nine_in_ten
    return TrialFigure(tables=tables, likely=tables * tried.factor, low=tables * low, high=tables * high, factor=tried.factor)


def looks_of(file: TrialFile) -> list[LampLook]:
    """What was seen, for the core."""
    return [LampLook(look.seconds, look.seen) for look in file.looks]
