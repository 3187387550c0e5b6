"""Work to size: parts with the next move, kept or not; and laps: which of the rack can do a work, and a drawing to make one."""

from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Any, Final

from fastapi import APIRouter, Depends, Path, Query, Request, Response
from pydantic import BaseModel, ConfigDict, Field

from kelbrast.api.problems import CHANGED_ELSEWHERE, NOT_FOUND, RESPONSES
from kelbrast.api.requests import AllSizings, OwnRack, Revision, file_answer, text_in_body
from kelbrast.app.sizing import lap_wanted, laps_of_rack, pair_answer, size_answer
from kelbrast.core.surface.sized import RoundKind
from kelbrast.core.wording import System
from kelbrast.documents.common.fields import LONGEST_GRADE, LONGEST_ID, LONGEST_NAME, OneLine
from kelbrast.documents.size.answer import LapAtHandFile, PlaceFile, SizeAnswer
from kelbrast.documents.size.format import SizeFile, read_size_file
from kelbrast.documents.size.lap_drawing import DrawnPart, drawing_of, lap_pdf, lap_svg
from kelbrast.documents.size.pair import PairAnswer, PairFile
from kelbrast.documents.size.wanted import SizeWanted, drawn_size

router = APIRouter(prefix="/api", responses=RESPONSES)

SizingId = Annotated[int, Path(ge=1, le=2**53, description="id of the part")]
SIZE_IN_BODY: Final[dict[str, Any]] = {
    "requestBody": {
        "required": True,
        "content": {"application/json": {"schema": {"$ref": "#/components/schemas/SizeFile"}}},
    }
}


async def _size_in_body(request: Request) -> SizeFile:
    return read_size_file(await text_in_body(request, "size"))


SizeBody = Annotated[SizeFile, Depends(_size_in_body)]


class KeptSizingOut(BaseModel):
    """A part that is worked to size, with the answer; null before it was measured at all."""

    model_config = ConfigDict(from_attributes=True)

    id: int
    revision: int
    updated_at: datetime
    size: SizeFile
    limits_mm: tuple[float, float]
    answer: SizeAnswer | None
    places: list[PlaceFile]


class UnreadableOut(BaseModel):
    """A stored document that this version cannot read; it can be saved as a file."""

    model_config = ConfigDict(from_attributes=True)

    id: int
    title: str
    reason: str


class SizingPageOut(BaseModel):
    """How many parts there are, some of them, and those among them that cannot be read."""

    model_config = ConfigDict(from_attributes=True)

    count: int
    sizes: list[KeptSizingOut]
    unreadable: list[UnreadableOut]


class DrawnIn(BaseModel):
    """A size as a drawing says it, in mm or in inches."""

    model_config = ConfigDict(extra="forbid")

    text: Annotated[str, Field(max_length=60), OneLine]
    system: System = "metric"


@router.post("/size", openapi_extra=SIZE_IN_BODY)
def answer_size(size: SizeBody) -> SizeAnswer:
    """Where the work stands, and the next move."""
    return size_answer(size)


@router.post("/size/drawn")
def read_drawn_size(drawn: DrawnIn) -> SizeWanted:
    """The size that words of a drawing want, as `25 h6` or `25 -0.005`."""
    return drawn_size(drawn.text, system=drawn.system)


@router.post("/pair")
def fit_pair(pair: PairFile) -> PairAnswer:
    """A bore and its shaft beside each other: the clearance, which of them to take how far, and the trial at the end."""
    return pair_answer(pair)


@router.get("/sizes")
def list_sizings(
    sizings: AllSizings,
    offset: Annotated[int, Query(ge=0, le=2**53)] = 0,
    limit: Annotated[int, Query(ge=1, le=500)] = 50,
    words: Annotated[str, Query(max_length=200, description="each of them is found in the title")] = "",
) -> SizingPageOut:
    """A page of the parts that are worked to size, the last changed first."""
    return SizingPageOut.model_validate(sizings.page(words, offset=offset, limit=limit))


@router.get("/sizes/{sizing_id}/file", responses=NOT_FOUND)
def sizing_as_file(sizing_id: SizingId, sizings: AllSizings) -> Response:
    """The size file as it is stored, also where this version cannot read it."""
    document = sizings.document(sizing_id)
    return file_answer(document, str(document.get("title", "")), "size.json")


@router.post("/sizes", status_code=201, openapi_extra=SIZE_IN_BODY)
def create_sizing(size: SizeBody, sizings: AllSizings) -> KeptSizingOut:
    """Keep a size file."""
    return KeptSizingOut.model_validate(sizings.add(size))


@router.get("/sizes/{sizing_id}", responses=NOT_FOUND)
def read_sizing(sizing_id: SizingId, sizings: AllSizings) -> KeptSizingOut:
    """One part."""
    return KeptSizingOut.model_validate(sizings.get(sizing_id))


@router.put("/sizes/{sizing_id}", openapi_extra=SIZE_IN_BODY, responses={**NOT_FOUND, **CHANGED_ELSEWHERE})
def change_sizing(sizing_id: SizingId, revision: Revision, size: SizeBody, sizings: AllSizings) -> KeptSizingOut:
    """Replace a part that nobody else changed in the meantime."""
    return KeptSizingOut.model_validate(sizings.change(sizing_id, size, revision=revision))


@router.delete("/sizes/{sizing_id}", status_code=204, responses=NOT_FOUND)
def delete_sizing(sizing_id: SizingId, sizings: AllSizings) -> None:
    """Forget a part."""
    sizings.remove(sizing_id)


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
