"""Photos of a run's stages and of a job's part: kept, listed beside the references, drawn on, shown."""

from typing import Annotated

from fastapi import APIRouter, Path, Query, Request, Response
from pydantic import BaseModel, ConfigDict
from starlette.concurrency import run_in_threadpool

from kelbrast.api.bench import RunId
from kelbrast.api.jobs import JobId
from kelbrast.api.problems import NOT_FOUND, RESPONSES
from kelbrast.api.requests import PICTURE_IN_BODY, AllJobs, AllRuns, PartPictures, Pictures, ShopPhotos
from kelbrast.app.photos import PartPhoto, PartShows, Shows
from kelbrast.core.errors import BadInput
from kelbrast.documents.job.part_photo import PartPhotoFile
from kelbrast.storage.shop import StoredPhoto

router = APIRouter(prefix="/api", responses=RESPONSES)

PhotoId = Annotated[int, Path(ge=1, le=2**53, description="id of the photo")]
Across = Annotated[float | None, Query(gt=0, le=1e5, allow_inf_nan=False, description="width of what it shows, mm")]


class PhotoOut(BaseModel):
    """A photo; the picture itself is at /api/photos/{id}.jpg."""

    id: int
    run_id: int
    shows: Shows
    width: int
    height: int
    across_mm: float | None


class PhotosOut(BaseModel):
    """The photos of a run, and the references of the whole shop to hold beside them."""

    photos: list[PhotoOut]
    references: list[PhotoOut]


@router.post("/runs/{run_id}/photos", status_code=201, openapi_extra=PICTURE_IN_BODY, responses=NOT_FOUND)
async def add_photo(
    run_id: RunId, request: Request, photos: ShopPhotos, shows: Shows = "stage", across_mm: Across = None
) -> PhotoOut:
    """Keep a photo, encoded anew without position or camera. It stands in the log when it is tapped."""
    data = await request.body()
    kept = await run_in_threadpool(photos.add, run_id, data, shows=shows, across_mm=across_mm)
    return _photo(kept)


@router.get("/runs/{run_id}/photos", responses=NOT_FOUND)
def list_photos(run_id: RunId, photos: ShopPhotos, runs: AllRuns) -> PhotosOut:
    """The photos of a run, and every reference to hold beside them."""
    runs.seen(run_id)
    return PhotosOut(
        photos=[_photo(stored_photo) for stored_photo in photos.of_run(run_id)],
        references=[_photo(reference) for reference in photos.references()],
    )


@router.put("/photos/{photo_id}/scale", status_code=204, responses=NOT_FOUND)
def scale_photo(photo_id: PhotoId, photos: ShopPhotos, across_mm: Across = None) -> None:
    """Say how many millimetres a photo is wide."""
    photos.scale(photo_id, across_mm)


@router.get("/photos/{photo_id}.jpg", responses={**NOT_FOUND, 200: {"content": {"image/jpeg": {}}}})
def picture(photo_id: PhotoId, photos: ShopPhotos) -> Response:
    """The picture of a photo."""
    return Response(photos.picture(photo_id), media_type="image/jpeg")


def _photo(stored_photo: StoredPhoto) -> PhotoOut:
    return PhotoOut.model_validate(stored_photo, from_attributes=True)


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
    return [_out(part_photo) for part_photo in photos.of_job(job_id)]


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


def _out(part_photo: PartPhoto) -> PartPhotoOut:
    return PartPhotoOut.model_validate(part_photo)
