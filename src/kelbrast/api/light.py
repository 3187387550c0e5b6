"""Pictures of simulated surfaces: the strip of a plan, the pair at the bench, and heights for the lamp."""

import math
from typing import Annotated

from fastapi import APIRouter, Path, Query, Response
from pydantic import BaseModel

from kelbrast.api.bench import RunId
from kelbrast.api.planning import FaceName
from kelbrast.api.problems import NOT_FOUND, RESPONSES
from kelbrast.api.requests import JOB_IN_BODY, AllRuns, JobBody, OwnRack, Pictures
from kelbrast.app.light import Tile
from kelbrast.core.catalogue.materials import material
from kelbrast.core.simulation.light import Lamp, look_of
from kelbrast.documents.common.sentences import SentenceFile, to_sentence_file
from kelbrast.documents.surface.picture import Asked, asked_spec

router = APIRouter(prefix="/api", responses=RESPONSES)

PictureKey = Annotated[str, Path(pattern="^[0-9a-f]{32}$", description="name of the picture")]


class PatchOut(BaseModel):
    """A patch for the lamp: its heights are at /api/light/{key}.bin. `colour`, `body`: how the material reflects;
    `reflected`: the share of light that it throws back as a mirror does. How it is lit comes with the catalogue."""

    key: str
    rows: int
    columns: int
    spacing_um: float
    colour: list[float]
    body: float
    words: SentenceFile
    reflected: float


class WordsOut(BaseModel):
    """A picture in words."""

    words: SentenceFile


@router.post("/light/strip", openapi_extra=JOB_IN_BODY)
def light_strip(job: JobBody, rack: OwnRack, face: FaceName, pictures: Pictures) -> list[Tile]:
    """A face as found and after each step; the pictures are worked out in the background."""
    return pictures.strip(job, rack.shelf(), face=face)


@router.get("/runs/{run_id}/light", responses=NOT_FOUND)
def light_at_bench(run_id: RunId, runs: AllRuns, pictures: Pictures) -> list[Tile]:
    """What the step in hand should look like, and what it looks like when it is not done."""
    return pictures.at_bench(runs.get(run_id))


@router.post("/light/patch")
def light_patch(asked: Asked, pictures: Pictures) -> PatchOut:
    """A patch that a person chose to look at, with what a lamp needs to know of it."""
    key = pictures.show(asked)
    spec = asked_spec(asked)
    look = look_of(material(spec.material))
    return PatchOut(
        key=key,
        rows=spec.rows,
        columns=spec.columns,
        spacing_um=spec.spacing_um,
        colour=list(look.colour),
        body=look.body,
        words=to_sentence_file(pictures.words([key])[0]),
        reflected=pictures.reflected(key),
    )


@router.get("/light/{key}.bin", responses={**NOT_FOUND, 200: {"content": {"application/octet-stream": {}}}})
def light_heights(key: PictureKey, pictures: Pictures) -> Response:
    """The heights of a patch in micrometres, 32-bit numbers row by row."""
    return Response(pictures.heights(key)[1], media_type="application/octet-stream")


@router.get("/light/{key}.png", responses={**NOT_FOUND, 200: {"content": {"image/png": {}}}})
def light_picture(
    key: PictureKey,
    pictures: Pictures,
    height_deg: Annotated[
        float | None, Query(ge=2, le=88, allow_inf_nan=False, description="of the lamp above the surface")
    ] = None,
    direction_deg: Annotated[
        float, Query(ge=-360, le=360, allow_inf_nan=False, description="of the lamp, anticlockwise from the right")
    ] = 118,
) -> Response:
    """A picture; it comes when it is worked out."""
    if height_deg is None:
        return Response(pictures.picture(key), media_type="image/png")
    lamp = Lamp(math.radians(height_deg), math.radians(direction_deg))
    return Response(pictures.picture_lit(key, lamp), media_type="image/png")


@router.get("/light/{key}.webp", responses={**NOT_FOUND, 200: {"content": {"image/webp": {}}}})
def light_small_picture(key: PictureKey, pictures: Pictures) -> Response:
    """A picture, made small for the screens; it comes when it is worked out."""
    return Response(pictures.small_picture(key), media_type="image/webp")


@router.get("/light/{key}/words", responses=NOT_FOUND)
def light_in_words(key: PictureKey, pictures: Pictures) -> WordsOut:
    """What a picture shows, in figures."""
    return WordsOut(words=to_sentence_file(pictures.words([key])[0]))
