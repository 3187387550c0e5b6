"""The eye: a light check from two photos, and how often it was right."""

import math
from typing import Annotated, Any, Final

from fastapi import APIRouter, Depends, Path, Query, Request
from pydantic import BaseModel
from starlette.concurrency import run_in_threadpool

from kelbrast.api.bench import RunId
from kelbrast.api.problems import NOT_FOUND, RESPONSES
from kelbrast.api.requests import AllRuns
from kelbrast.app.eye import Eye, EyeAtBench, EyeLook, Stated, of_any_face, shows_of_any_face, step_before
from kelbrast.core.errors import BadInput
from kelbrast.core.vision.agreement import Rightness
from kelbrast.documents.common.fields import LONGEST_GRADE
from kelbrast.documents.run.eye import USUAL_CROSSING, EyeAnswer, LayAnswer, ShowsAnswer, to_eye_answer, to_lay_answer

router = APIRouter(prefix="/api", responses=RESPONSES)
_PHOTOS: Final[dict[str, Any]] = {
    "requestBody": {
        "required": True,
        "content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}},
    }
}
FirstBytes = Annotated[int, Query(ge=1, le=10**8, description="length of photo 1; photo 2 follows it")]
LayAngle = Annotated[
    float | None, Query(ge=-360, le=360, allow_inf_nan=False, description="of the new marks as confirmed, anticlockwise")
]
Crossing = Annotated[float, Query(ge=0, le=90, description="at which old marks cross them")]
LookNumber = Annotated[int, Path(ge=1, le=2**53, description="of a look")]
PhotoPixels = Annotated[
    int | None, Query(ge=1, le=10**5, description="of the picture's width; as phones have them if not told")
]
Before = Annotated[str, Query(max_length=LONGEST_GRADE, description="grade that was worked before")]
PhotoAcross = Annotated[float, Query(gt=0, le=1e4, allow_inf_nan=False, description="width of what the photo shows, mm")]


def _eye(request: Request) -> Eye:
    eye: Eye = request.app.state.eye
    return eye


def _at_bench(request: Request, runs: AllRuns) -> EyeAtBench:
    return EyeAtBench(runs, _eye(request))


ShopEye = Annotated[Eye, Depends(_eye)]
EyeBeside = Annotated[EyeAtBench, Depends(_at_bench)]


class LookBegunOut(BaseModel):
    """The number of a look, to ask how far it is."""

    look: int


class LookOut(BaseModel):
    """How far a look is (0 to 1), and the answer when it is done."""

    share: float
    answer: EyeAnswer | None


class AgreementOut(BaseModel):
    """The person and the eye, of light checks of which it is known how they turned out."""

    person: Rightness
    eye: Rightness
    together: Rightness
    person_apart: Rightness
    eye_apart: Rightness


@router.post("/runs/{run_id}/eye", status_code=202, openapi_extra=_PHOTOS, responses=NOT_FOUND)
async def ask_the_eye(
    run_id: RunId,
    request: Request,
    eye: EyeBeside,
    first_bytes: FirstBytes,
    across_mm: PhotoAcross,
    lay_deg: LayAngle = None,
    crossing_deg: Crossing = USUAL_CROSSING,
) -> LookBegunOut:
    """Have the step in hand looked at: two photos, the lamp across the new marks and along them, one after the other."""
    one, two = _two_photos(await request.body(), first_bytes)
    stated = Stated(across_mm, lay_deg, crossing_deg)
    return LookBegunOut(look=await run_in_threadpool(eye.begin, run_id, one, two, stated))


@router.get("/runs/{run_id}/eye/shows", responses=NOT_FOUND)
def what_the_camera_shows(run_id: RunId, eye: EyeBeside, across_mm: PhotoAcross, pixels: PhotoPixels = None) -> ShowsAnswer:
    """Before any photo: the finest marks that a camera shows at a width, and whether those of the step before are coarser."""
    return eye.shows(run_id, across_mm, pixels)


@router.get("/runs/{run_id}/eye/{look}", responses=NOT_FOUND)
def what_the_eye_saw(
    run_id: RunId,
    look: LookNumber,
    runs: AllRuns,
    eye: ShopEye,
    crossing_deg: Crossing = USUAL_CROSSING,
) -> LookOut:
    """How far a look is, and what was seen."""
    kept = runs.get(run_id)
    if kept.run.current is None:
        return _told(eye.look(look), crossing_deg, None)
    return _told(eye.look(look), crossing_deg, step_before(kept))


@router.post("/eye", status_code=202, openapi_extra=_PHOTOS)
async def ask_the_eye_anywhere(
    request: Request,
    eye: ShopEye,
    first_bytes: FirstBytes,
    across_mm: PhotoAcross,
    before: Before,
    lay_deg: LayAngle = None,
    crossing_deg: Crossing = USUAL_CROSSING,
) -> LookBegunOut:
    """The same of any face: the grade that was worked before is told. Nothing is kept."""
    one, two = _two_photos(await request.body(), first_bytes)
    known = of_any_face(Stated(across_mm, lay_deg, crossing_deg), before)
    return LookBegunOut(look=await run_in_threadpool(eye.begin, one, two, known, lambda _: None))


@router.post("/eye/lay", openapi_extra=_PHOTOS)
async def how_the_new_marks_run(request: Request, eye: ShopEye, across_mm: PhotoAcross) -> LayAnswer:
    """How the new marks run on a photo with the lamp across them, to be confirmed. Nothing is kept."""
    photo = await request.body()
    return to_lay_answer(await run_in_threadpool(eye.lay, photo, across_mm))


@router.get("/eye/shows")
def what_the_camera_shows_anywhere(across_mm: PhotoAcross, before: Before, pixels: PhotoPixels = None) -> ShowsAnswer:
    """The same of any face: the grade that was worked before is told."""
    return shows_of_any_face(across_mm, pixels, before)


@router.get("/eye/{look}", responses=NOT_FOUND)
def what_the_eye_saw_anywhere(look: LookNumber, eye: ShopEye, crossing_deg: Crossing = USUAL_CROSSING) -> LookOut:
    """How far a look is, and what was seen."""
    return _told(eye.look(look), crossing_deg, "the grade before")


@router.get("/log/eye")
def who_was_right(eye: EyeBeside) -> AgreementOut:
    """How often the person and the eye were right at light checks in this shop."""
    told = {name.replace("-", "_"): rightness for name, rightness in eye.right().items()}
    return AgreementOut(**told)


def _two_photos(data: bytes, first_bytes: int) -> tuple[bytes, bytes]:
    if not first_bytes < len(data):
        raise BadInput.one("first_bytes", "two photos are needed, one after the other")
    return data[:first_bytes], data[first_bytes:]


def _told(found: EyeLook, crossing_deg: float, before: str | None) -> LookOut:
    if found.answer is None:
        return LookOut(share=found.share, answer=None)
    answer = to_eye_answer(found.answer, width=found.width, crossing=math.radians(crossing_deg), before=before)
    return LookOut(share=1.0, answer=answer)
