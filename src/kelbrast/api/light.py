"""Pictures of simulated surfaces: the strip of a plan, the pair at the bench, and heights for the lamp."""

from typing import Annotated

from fastapi import APIRouter, Path, Response
from pydantic import BaseModel, ConfigDict

from kelbrast.api.bench import RunId
from kelbrast.api.body import JOB_IN_BODY, JobBody
from kelbrast.api.kept import AllRuns, OwnRack, Pictures
from kelbrast.api.planning import FaceName
from kelbrast.api.problems import NOT_FOUND, RESPONSES

router = APIRouter(prefix="/api", responses=RESPONSES)

Key = Annotated[str, Path(pattern="^[0-9a-f]{32}$", description="name of the picture")]


class TileOut(BaseModel):
    """A picture at /api/light/{key}.png: what it shows, and after which step (0: as found)."""

    model_config = ConfigDict(from_attributes=True)

    key: str
    label: str
    step: int


class WordsOut(BaseModel):
    """A picture in words."""

    words: str


@router.post("/light/strip", openapi_extra=JOB_IN_BODY)
def light_strip(job: JobBody, rack: OwnRack, face: FaceName, pictures: Pictures) -> list[TileOut]:
    """A face as found and after each step; the pictures are worked out in the background."""
    return [TileOut.model_validate(one) for one in pictures.strip(job, rack.shelf(), face=face)]


@router.get("/runs/{run_id}/light", responses=NOT_FOUND)
def light_at_bench(run_id: RunId, runs: AllRuns, pictures: Pictures) -> list[TileOut]:
    """What the step in hand should look like, and what it looks like when it is not done."""
    return [TileOut.model_validate(one) for one in pictures.at_bench(runs.get(run_id))]


@router.get("/light/{key}.png", responses={**NOT_FOUND, 200: {"content": {"image/png": {}}}})
def light_picture(key: Key, pictures: Pictures) -> Response:
    """A picture; it comes when it is worked out."""
    return Response(pictures.picture(key), media_type="image/png")


@router.get("/light/{key}/words", responses=NOT_FOUND)
def light_in_words(key: Key, pictures: Pictures) -> WordsOut:
    """What a picture shows, in figures."""
    return WordsOut(words=pictures.words([key])[0])
