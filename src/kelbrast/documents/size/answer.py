"""What is said of a part that is worked to size, in the units of the files; and laps of the rack for it."""

from collections.abc import Sequence
from typing import Annotated

from pydantic import BaseModel, Field

from kelbrast.core.precision.advice import SizingAdvice
from kelbrast.core.precision.form import FormEstimate
from kelbrast.core.precision.lap import LapAtHand, LapToMake
from kelbrast.core.precision.move import SizeAction
from kelbrast.core.wording import Sentence, sentence, tell
from kelbrast.documents.common.fields import shop, shop_or_none
from kelbrast.documents.common.sentences import SentenceFile, to_sentence_file


class FormFile(BaseModel):
    """The form as it was found; a part is null where the readings cannot tell it, and `cannot_tell` says why.

    `_pm_um`: half-width of the 95 % interval. `widest_deg`: where the oval is widest. `oval_at_least_um`: of two directions.
    """

    size_mm: float
    size_pm_um: float
    taper_um: float | None
    taper_pm_um: float | None
    barrel_um: float | None
    barrel_pm_um: float | None
    oval_um: float | None
    oval_pm_um: float | None
    widest_deg: float | None
    oval_at_least_um: float | None
    cannot_tell: list[str]


class LeftFile(BaseModel):
    """On the diameter, to the limit that work comes to first and to the one that it must not pass."""

    near: float
    far: float


class CanBeHad(BaseModel):
    """Whether all of it can be clean within the limits, the share that is clean at the end, and the oval that is left."""

    all_round: bool
    cleaned_share: float
    oval_left_um: float


class RateFile(BaseModel):
    """On the diameter, um a minute; low and high: nine of ten times between them. `yours`: begun from the shop's own parts."""

    likely: float
    low: float
    high: float
    yours: bool


class MoveFile(BaseModel):
    """What to do next: so many seconds, so many readings after it, and the chance that it passes the limit."""

    move: SizeAction
    seconds: float
    readings: int
    expect_mm: float | None
    chance_past_limit: float
    reason: str
    reason_said: SentenceFile


class StopFile(BaseModel):
    """Read this after a grade."""

    grade: str
    read_mm: float


class PlaceFile(BaseModel):
    """Where to read next."""

    z_mm: Annotated[float, Field(ge=-100_000, le=100_000, allow_inf_nan=False)]
    phi_deg: Annotated[float, Field(ge=-720, le=720, allow_inf_nan=False)]


class LapFile(BaseModel):
    """The lap to make: a sliding fit on the tightest place, as long as the work, floating, softer than the work."""

    material: str
    note: str
    split: str
    diameter_mm: float
    length_mm: float
    slack_mm: tuple[float, float]
    overhang_mm: float
    stroke_mm: float
    spindle_rpm: tuple[float, float]


class SizeAnswer(BaseModel):
    """All of it. `now_mm`: the diameter that the tool has cut to, with `now_pm_um`; `share`: cleaned now.
    `places`: where to read next. `doubtful`: which reading of the last round cannot be right. `lap`: to make for it."""

    title: str
    kind: str
    limits_mm: tuple[float, float]
    target_mm: float
    now_mm: float
    now_pm_um: float
    share: float
    form: FormFile
    left_um: LeftFile
    can_be_had: CanBeHad
    rate_um_min: RateFile
    next: MoveFile
    stop_sheet: list[StopFile]
    places: list[PlaceFile]
    doubtful: int | None
    lap: LapFile | None


def to_size_answer(title: str, found: SizingAdvice, *, learnt: bool = False) -> SizeAnswer:
    """The advice in the units of the file."""
    state, part = found.state, found.state.part
    likely, low, high = (60 * shop(one, "um") for one in found.rate)
    return SizeAnswer(
        title=title,
        kind=part.kind,
        limits_mm=(shop(part.wanted.low, "mm"), shop(part.wanted.high, "mm")),
        target_mm=shop(found.target, "mm"),
        now_mm=shop(part.sign * state.belief.size, "mm"),
        now_pm_um=shop(1.96 * state.belief.sd_size, "um"),
        share=state.share,
        form=_form(found),
        left_um=LeftFile(near=shop(found.left[0], "um"), far=shop(found.left[1], "um")),
        can_be_had=CanBeHad(
            all_round=found.all_round, cleaned_share=found.share, oval_left_um=shop(max(0.0, found.oval_left), "um")
        ),
        rate_um_min=RateFile(likely=likely, low=low, high=high, yours=learnt),
        next=MoveFile(
            move=found.move.action,
            seconds=found.move.seconds,
            readings=found.move.readings,
            expect_mm=None if found.move.until is None else shop(found.move.until, "mm"),
            chance_past_limit=found.move.past,
            reason=tell(found.move.reason),
            reason_said=to_sentence_file(found.move.reason),
        ),
        stop_sheet=[StopFile(grade=stop_at.grade, read_mm=shop(stop_at.diameter, "mm")) for stop_at in found.way],
        places=to_places(found.places),
        doubtful=found.doubtful,
        lap=None if found.lap is None else _lap(found.lap),
    )


def to_places(places: Sequence[tuple[float, float]]) -> list[PlaceFile]:
    """Places in the units of the file."""
    return [PlaceFile(z_mm=shop(z, "mm"), phi_deg=shop(phi, "deg")) for z, phi in places]


def _lap(lap: LapToMake) -> LapFile:
    return LapFile(
        material=lap.material.label,
        note=lap.material.note,
        split=lap.split,
        diameter_mm=shop(lap.diameter, "mm"),
        length_mm=shop(lap.length, "mm"),
        slack_mm=(shop(lap.slack[0], "mm"), shop(lap.slack[1], "mm")),
        overhang_mm=shop(lap.overhang, "mm"),
        stroke_mm=shop(lap.stroke, "mm"),
        spindle_rpm=(shop(lap.spindle[0], "rev/min"), shop(lap.spindle[1], "rev/min")),
    )


def _form(found: SizingAdvice) -> FormFile:
    form = found.state.form
    return FormFile(
        size_mm=shop(form.size.value, "mm"),
        size_pm_um=shop(form.size.within, "um"),
        **_both("taper", form.taper),
        **_both("barrel", form.barrel),
        **_both("oval", form.oval),
        widest_deg=None if form.widest is None or form.seen_oval == 0 else shop(form.widest, "deg"),
        oval_at_least_um=None if form.across is None else shop(form.across, "um"),
        cannot_tell=[tell(_blind(one)) for one in form.blind],
    )


def _blind(code: str) -> Sentence:
    return sentence(f"blind.{code}")


def _both(name: str, form_estimate: FormEstimate | None) -> dict[str, float | None]:
    told = (None, None) if form_estimate is None else (shop(form_estimate.value, "um"), shop(form_estimate.within, "um"))
    return {f"{name}_um": told[0], f"{name}_pm_um": told[1]}


def size_text(answer: SizeAnswer) -> str:
    """To be read at a terminal."""
    form, can, rate, move = answer.form, answer.can_be_had, answer.rate_um_min, answer.next
    low, high = answer.limits_mm
    lines = [
        answer.title,
        f"Wanted {low:.4f} to {high:.4f} mm; the end is at {answer.target_mm:.4f} mm",
        f"As found: {form.size_mm:.4f} mm ± {form.size_pm_um:.1f} µm" + "".join(_said(form, one) for one in _PARTS),
        *(f"  cannot tell: {one}" for one in form.cannot_tell),
        f"Now at {answer.now_mm:.4f} mm ± {answer.now_pm_um:.1f} µm, {100 * answer.share:.0f} % clean;"
        f" {answer.left_um.near:.1f} µm to the near limit, {answer.left_um.far:.1f} to the far one",
        "All of it can be clean within the limits."
        if can.all_round
        else f"Within the limits {100 * can.cleaned_share:.0f} % of it can be clean; {can.oval_left_um:.1f} µm of oval stay.",
        f"Rate {rate.likely:.2g} µm a minute on the diameter ({rate.low:.2g} to {rate.high:.2g})",
        f"NEXT: {move.move}{f', {move.seconds:.0f} s' if move.seconds else ''}. {move.reason}",
    ]
    if move.readings:
        lines.append(f"  then {move.readings} readings; chance to pass the limit {100 * move.chance_past_limit:.2g} %")
    lines += [f"  read {stop.read_mm:.4f} mm after {stop.grade}" for stop in answer.stop_sheet]
    return "\n".join(lines)


_PARTS = ("taper", "barrel", "oval")


def _said(form: FormFile, part: str) -> str:
    value, within = getattr(form, f"{part}_um"), getattr(form, f"{part}_pm_um")
    return "" if value is None else f", {part} {value:.1f} ± {within:.1f} µm"


class LapAtHandFile(BaseModel):
    """A lap of the rack on this work: whether it can, and how or why not. `set_out_um`: on the diameter, until it slides;
    `set_out`: so many turns of its screw, or millimetres of travel of its arbor (`by`); null where it was never calibrated."""

    item: int
    name: str
    able: bool
    said: SentenceFile
    now_mm: float | None
    set_out_um: float | None
    set_out: float | None
    by: str
    worn_um: float | None


def to_laps_file(found: tuple[LapAtHand, ...]) -> list[LapAtHandFile]:
    """In the units of the files."""
    return [_one(lap) for lap in found]


def _one(lap: LapAtHand) -> LapAtHandFile:
    travel = lap.item.by_travel
    return LapAtHandFile(
        item=lap.item.id,
        name=lap.item.name or lap.item.what,
        able=lap.able,
        said=to_sentence_file(lap.said),
        now_mm=shop_or_none(lap.now, "mm"),
        set_out_um=shop_or_none(lap.slides, "um"),
        set_out=None if lap.turns is None else shop(lap.turns, "mm" if travel else "1"),
        by="mm" if travel else "turn",
        worn_um=shop_or_none(lap.worn, "um"),
    )
