"""Photos of a run: kept, listed beside the references, shown."""

from typing import Annotated

from fastapi import APIRouter, Path, Query, Request, Response
from pydantic import BaseModel
from starlette.concurrency import run_in_threadpool

from kelbrast.api.bench import RunId
from kelbrast.api.body import PICTURE_IN_BODY
from kelbrast.api.kept import AllRuns, ShopPhotos
from kelbrast.api.problems import NOT_FOUND, RESPONSES
from kelbrast.app.photos import Shows
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
        photos=[_photo(one) for one in photos.of_run(run_id)],
        references=[_photo(one) for one in photos.references()],
    )


@router.put("/photos/{photo_id}/scale", status_code=204, responses=NOT_FOUND)
def scale_photo(photo_id: PhotoId, photos: ShopPhotos, across_mm: Across = None) -> None:
    """Say how many millimetres a photo is wide."""
    photos.scale(photo_id, across_mm)


@router.get("/photos/{photo_id}.jpg", responses={**NOT_FOUND, 200: {"content": {"image/jpeg": {}}}})
def picture(photo_id: PhotoId, photos: ShopPhotos) -> Response:
    """The picture of a photo."""
    return Response(photos.picture(photo_id), media_type="image/jpeg")


def _photo(one: StoredPhoto) -> PhotoOut:
    return PhotoOut.model_validate(one, from_attributes=True)
