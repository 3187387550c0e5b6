"""Laps: which of the rack can do a work, and a drawing of the one to make."""

from dataclasses import dataclass
from typing import Annotated, Final

from fastapi import APIRouter, Depends, Query, Response

from kelbrast.api.kept import OwnRack
from kelbrast.api.problems import RESPONSES
from kelbrast.app.sizing import lap_wanted, laps_of_rack
from kelbrast.core.surface.sized import RoundKind
from kelbrast.documents.common.fields import LONGEST_GRADE, LONGEST_ID, LONGEST_NAME
from kelbrast.documents.size.answer import LapAtHandFile
from kelbrast.documents.size.lap_drawing import DrawnPart, drawing_of, lap_pdf, lap_svg

router = APIRouter(prefix="/api", responses=RESPONSES)

LapDiameter = Annotated[float, Query(gt=0, le=100_000, allow_inf_nan=False)]
_NAMED: Final = 'attachment; filename="lap.{}"'


@dataclass(frozen=True, slots=True)
class LapWork:
    """The work that a lap is asked for: its tightest diameter and its length."""

    kind: Annotated[RoundKind, Query()]
    tightest_mm: LapDiameter
    length_mm: LapDiameter


@router.get("/laps")
def laps_at_hand(
    rack: OwnRack,
    work: Annotated[LapWork, Depends()],
    target_mm: LapDiameter,
    grade: Annotated[str, Query(max_length=LONGEST_GRADE)],
) -> list[LapAtHandFile]:
    """The laps of the rack on this work, the able ones first."""
    return laps_of_rack(
        rack, kind=work.kind, tightest_mm=work.tightest_mm, length_mm=work.length_mm, target_mm=target_mm, grade=grade
    )


def _drawn(
    work: Annotated[LapWork, Depends()],
    material: Annotated[str, Query(max_length=LONGEST_ID)],
    title: Annotated[str, Query(max_length=LONGEST_NAME)] = "this work",
    inch: bool = False,
) -> tuple[DrawnPart, ...]:
    lap = lap_wanted(kind=work.kind, tightest_mm=work.tightest_mm, length_mm=work.length_mm, made_of=material)
    return drawing_of(lap, title[:60], "inch" if inch else "metric")


LapDrawing = Annotated[tuple[DrawnPart, ...], Depends(_drawn)]


@router.get("/lap.svg", responses={200: {"content": {"image/svg+xml": {}}}})
def lap_as_svg(drawn: LapDrawing) -> Response:
    """The lap to make for this work, as a drawing."""
    return Response(lap_svg(drawn), media_type="image/svg+xml", headers={"content-disposition": _NAMED.format("svg")})


@router.get("/lap.pdf", responses={200: {"content": {"application/pdf": {}}}})
def lap_as_pdf(drawn: LapDrawing) -> Response:
    """The same as a page."""
    return Response(lap_pdf(drawn), media_type="application/pdf", headers={"content-disposition": _NAMED.format("pdf")})
