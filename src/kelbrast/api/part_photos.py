"""Photos of a job's part: kept, drawn on, shown."""

from typing import Annotated

from fastapi import APIRouter, Path, Request, Response
from pydantic import BaseModel, ConfigDict
from starlette.concurrency import run_in_threadpool

from kelbrast.api.body import PICTURE_IN_BODY
from kelbrast.api.jobs import JobId
from kelbrast.api.kept import AllJobs, PartPictures, Pictures
from kelbrast.api.problems import NOT_FOUND, RESPONSES
from kelbrast.app.photos import PartPhoto, PartShows
from kelbrast.core.errors import BadInput
from kelbrast.documents.job.part_photo import PartPhotoFile

router = APIRouter(prefix="/api", responses=RESPONSES)

PartPhotoId = Annotated[int, Path(ge=1, le=2**53, description="id of the photo")]


class PartPhotoOut(BaseModel):
    """A photo of a part; the picture is at /api/part-photos/{id}.jpg. `areas`: of the outlines, cm2, null without a scale."""

    model_config = ConfigDict(from_attributes=True)

    id: int
    job_id: int
    shows: PartShows
    width: int
    height: int
    drawn: PartPhotoFile
    areas: list[float | None]


@router.post("/jobs/{job_id}/photos", status_code=201, openapi_extra=PICTURE_IN_BODY, responses=NOT_FOUND)
async def add_part_photo(job_id: JobId, request: Request, photos: PartPictures, shows: PartShows = "before") -> PartPhotoOut:
    """Keep a photo of the part, encoded anew without position or camera."""
    data = await request.body()
    return _out(await run_in_threadpool(photos.add, job_id, data, shows=shows))


@router.get("/jobs/{job_id}/photos", responses=NOT_FOUND)
def list_part_photos(job_id: JobId, photos: PartPictures) -> list[PartPhotoOut]:
    """The photos of the part, with what is drawn on them."""
    return [_out(one) for one in photos.of_job(job_id)]


@router.get("/jobs/{job_id}/thumbnail", responses={**NOT_FOUND, 200: {"content": {"image/jpeg": {}, "image/webp": {}}}})
def job_thumbnail(job_id: JobId, jobs: AllJobs, photos: PartPictures, pictures: Pictures) -> Response:
    """A small picture of a job: its photo, or how its first face will look; nothing where it cannot be planned."""
    kept = jobs.get(job_id)
    headers = {"cache-control": "private, max-age=60"}
    if (photo := photos.thumbnail(job_id)) is not None:
        return Response(photo, media_type="image/jpeg", headers=headers)
    try:
        tile = pictures.thumbnail(kept.job, jobs.rack.shelf())
    except BadInput:
        tile = None
    return Response(status_code=204) if tile is None else Response(tile, media_type="image/webp", headers=headers)


@router.put("/part-photos/{photo_id}", responses=NOT_FOUND)
def draw_on_part_photo(photo_id: PartPhotoId, drawn: PartPhotoFile, photos: PartPictures) -> PartPhotoOut:
    """Keep what is drawn on a photo; the areas of the outlines follow."""
    return _out(photos.draw(photo_id, drawn))


@router.delete("/part-photos/{photo_id}", status_code=204, responses=NOT_FOUND)
def remove_part_photo(photo_id: PartPhotoId, photos: PartPictures) -> None:
    """Forget a photo."""
    photos.remove(photo_id)


@router.get("/part-photos/{photo_id}.jpg", responses={**NOT_FOUND, 200: {"content": {"image/jpeg": {}}}})
def part_picture(photo_id: PartPhotoId, photos: PartPictures) -> Response:
    """The picture of a photo."""
    return Response(photos.picture(photo_id), media_type="image/jpeg")


def _out(one: PartPhoto) -> PartPhotoOut:
    return PartPhotoOut.model_validate(one)
