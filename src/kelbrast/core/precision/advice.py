"""The answer for a part worked to size: form, stock left, feasibility, next move."""

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final, Literal

from kelbrast.core.catalogue.grades import Grade, parse_grade
from kelbrast.core.catalogue.materials import Material
from kelbrast.core.catalogue.tools import tools
from kelbrast.core.precision.lap import LapToMake, lap_rate, lap_to_make
from kelbrast.core.precision.move import Move, finishing_stock, next_move, target_of
from kelbrast.core.precision.readings import everywhere, narrowest, outlier, warmth_unsure
from kelbrast.core.precision.state import SizeState, SizingTool, WorkRound, follow
from kelbrast.core.precision.stop_sheet import SizingGrade, StopAt, stop_sheet
from kelbrast.core.process.clearance import clearance
from kelbrast.core.process.scratch import depth_of_marks, roughness_left
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.sized import Gauge, RoundPart
from kelbrast.core.wording import Measure, sentence

TurnedBy = Literal["file", "cloth"]
USUAL_LAP: Final = "F400"
FINISHING_LAP: Final = "F1200"
CLOTHS: Final = ("P240", "P320", "P400", "P600")  # in order after filing
_NINE_OF_TEN: Final = 1.645  # deviations on each side


@dataclass(frozen=True, slots=True)
class SizingAdvice:
    """What is known and what comes next; sizes as diameters, m.

    Attributes:
        left: on the diameter to the near and to the far limit; below 0 the limit is passed.
        all_round: whether all of it can be clean within the limits.  share: cleaned then (0 to 1).  oval_left: then.
        rate: likely, and between which it lies nine times of ten, m/s.
        target: where the work ends.  way: what to read after each grade.
        places: where to read next, m and rad.  doubtful: place of a reading of the last round that cannot be right.
        lap: to make for it, where it is lapped.
    """

    state: SizeState
    move: Move
    left: tuple[float, float]
    all_round: bool
    share: float
    oval_left: float
    rate: tuple[float, float, float]
    target: float
    way: tuple[StopAt, ...]
    places: tuple[tuple[float, float], ...]
    doubtful: int | None
    lap: LapToMake | None


def advise(
    part: RoundPart,
    rounds: Sequence[WorkRound],
    gauge: Gauge,
    *,
    risk: float,
    grades: Sequence[SizingGrade],
    material: Material,
    warmer: float = 0.0,
) -> SizingAdvice:
    """Where the work stands after these rounds and what to do next.

    `grades`: the way to the size, in order. `warmer`: how much warmer than the gauge the part was at the last readings, K.
    """
    state = follow(part, rounds, gauge)
    target, all_round = target_of(state, gauge)
    size = state.belief.size
    tightest = part.sign * state.belief.size
    move = _cooling(tightest, material, gauge, warmer) or next_move(state, gauge, risk=risk)
    return SizingAdvice(
        state=state,
        move=move,
        left=(part.near - size, part.far - size),
        all_round=all_round,
        share=1.0 if all_round else state.share_at(target),
        oval_left=state.oval_at(target),
        rate=(state.belief.rate, *state.belief.rate_between(_NINE_OF_TEN)),
        target=part.sign * target,
        way=stop_sheet(
            grades,
            target=part.sign * target,
            sign=part.sign,
            least=constant("precision.finish_least").si,
            most=constant("precision.finish_most").si if rounds[0].tool.laps else math.inf,
        ),
        places=_places(state, move),
        doubtful=outlier(rounds[-1].readings, repeatability=gauge.repeatability, growth=_may_differ(state)),
        lap=lap_to_make(kind=part.kind, tightest=tightest, length=part.length, material=material)
        if rounds[0].tool.laps
        else None,
    )


def _cooling(diameter: float, material: Material, gauge: Gauge, warmer: float) -> Move | None:
    """A warm part is read again when what its warmth leaves in doubt is more than the gauge's own."""
    unsure = warmth_unsure(diameter=diameter, expansion=material.expansion, warmer=warmer)
    if unsure <= gauge.repeatability:
        return None
    said = sentence("size.cool", apart=f"{abs(warmer):.0f}", unsure=Measure(unsure, "depth"))
    return Move("cool", said, readings=round(constant("precision.cool_readings").value))


def _places(state: SizeState, move: Move) -> tuple[tuple[float, float], ...]:
    length = state.part.length
    if move.action == "measure" and not state.rounds:
        return everywhere(length=length)
    return where_tightest(state, move.readings)


def where_tightest(state: SizeState, count: int) -> tuple[tuple[float, float], ...]:
    """Places where the tool comes to first: the narrow direction of a bore, the wide one of a shaft."""
    first = (state.form.widest or 0.0) + (math.pi / 2 if state.part.kind == "bore" else 0.0)
    return narrowest(length=state.part.length, direction=first, count=count)


def _may_differ(state: SizeState) -> float:
    """How far two places of one part may well differ."""
    form = state.form
    return max(form.seen_oval, form.lift - form.fall, constant("precision.finish_most").si)


def lap_tool(grade: Grade, material: Material, *, speed: float, learnt: float | None = None) -> SizingTool:
    """A lap of a grade on a material at a surface speed (m/s); `learnt`: the shop's own factor of its rate, if it has one."""
    finishes = grade.grain <= constant("precision.finishing_grain").si
    return SizingTool(
        grade=grade.name,
        rate=(learnt or 1.0) * material.cut_share * lap_rate(grain=grade.grain, speed=speed, hardness=material.hardness),
        spread=_spread(learnt),
        laps=True,
        leaves=0.0 if finishes else finishing_stock(_marks_of(grade, material, "bore-lap")),
    )


def usual_lap(material: Material) -> SizingTool:
    """A coarse lap at its usual speed, for a question that no tool has been chosen for."""
    usual = (constant("precision.lap_slowest").si + constant("precision.lap_fastest").si) / 2
    return lap_tool(parse_grade(USUAL_LAP), material, speed=usual)


def lathe_tool(by: TurnedBy, *, learnt: float | None = None) -> SizingTool:
    """A file or cloth in the lathe; `learnt`: the shop's own factor of its rate, if it has one."""
    files = by == "file"
    return SizingTool(
        grade=by,
        rate=(learnt or 1.0) * constant(f"precision.{by}_minute").si / 60,
        spread=_spread(learnt),
        most=constant("precision.file_most" if files else "precision.cloth_most").si,
        leaves=constant("precision.cloth_most").si if files else 0.0,
        least=constant("precision.least_strokes").si,
    )


def _spread(learnt: float | None) -> float:
    return constant("precision.prior" if learnt is None else "precision.prior_known").value


def way_of_laps(grade: Grade, material: Material, *, area: float) -> tuple[SizingGrade, ...]:
    """The lap in hand, and the one that finishes after a coarse one."""
    last = parse_grade(FINISHING_LAP)
    used = (grade,) if grade.grain <= constant("precision.finishing_grain").si else (grade, last)
    return tuple(_stage(grade, material, "bore-lap", area) for grade in used)


def way_in_lathe(by: TurnedBy, material: Material, *, area: float) -> tuple[SizingGrade, ...]:
    """The file and the cloths after it, or the cloths alone."""
    cloths = tuple(_stage(parse_grade(one), material, "lathe-cloth", area) for one in CLOTHS)
    file = next(tool for tool in tools().values() if tool.carrier.id == "file")
    filed = depth_of_marks(roughness_left(grain=file.grain, hold=file.carrier.cutting.hold, hardness=material.hardness))
    return (SizingGrade("file", filed, _clears(file.grain, area)), *cloths) if by == "file" else cloths


def _stage(grade: Grade, material: Material, carrier: str, area: float) -> SizingGrade:
    return SizingGrade(grade.name, _marks_of(grade, material, carrier), _clears(grade.grain, area))


def _marks_of(grade: Grade, material: Material, carrier: str) -> float:
    hold = next(tool.carrier.cutting.hold for tool in tools().values() if tool.carrier.id == carrier)
    return depth_of_marks(roughness_left(grain=grade.grain, hold=hold, hardness=material.hardness))


def _clears(grain: float, area: float) -> float:
    return clearance(area=area, grain=grain, deformed=constant("deformed.satin").value)
