"""What a request brings: the use cases behind it, files in its body, and the revision that a screen changed."""

import json
import re
from collections.abc import Mapping
from typing import Annotated, Any, Final
from urllib.parse import quote

from fastapi import Depends, Header, Request, Response
from starlette.exceptions import HTTPException

from kelbrast.app.board import Boards
from kelbrast.app.house import HouseWays
from kelbrast.app.jobs import Jobs
from kelbrast.app.learnt import Learning
from kelbrast.app.light import Light
from kelbrast.app.log import Log
from kelbrast.app.own import OwnThings
from kelbrast.app.photos import PartPhotos, Photos
from kelbrast.app.practice import Lessons
from kelbrast.app.quotes import Quotes
from kelbrast.app.rack import Rack
from kelbrast.app.runs import Runs
from kelbrast.app.sizing import Sizings
from kelbrast.app.templates import Templates
from kelbrast.app.upkeep import Upkeep
from kelbrast.documents.common.fields import file_name
from kelbrast.documents.job.format import JobFile
from kelbrast.documents.job.read import LARGEST_FILE, read_as_written, read_job_file


def jobs_of(request: Request) -> Jobs:
    """The jobs that the application was built over."""
    jobs: Jobs = request.app.state.jobs
    return jobs


# Coroutines, as a plain function would be taken to another thread, which takes longer than any of these.
async def _jobs(request: Request) -> Jobs:
    return jobs_of(request)


async def _rack(request: Request) -> Rack:
    return jobs_of(request).rack


async def _own(request: Request) -> OwnThings:
    return jobs_of(request).own


async def _runs(request: Request) -> Runs:
    return Runs(jobs_of(request))


async def _log(request: Request) -> Log:
    return Log(Runs(jobs_of(request)))


async def _photos(request: Request) -> Photos:
    return Photos(jobs_of(request).engine)


async def _part_photos(request: Request) -> PartPhotos:
    return PartPhotos(jobs_of(request).engine)


async def _learning(request: Request) -> Learning:
    return jobs_of(request).rack.learning


async def _house(request: Request) -> HouseWays:
    return HouseWays(jobs_of(request).engine)


async def _upkeep(request: Request) -> Upkeep:
    return Upkeep(jobs_of(request))


async def _practice(request: Request) -> Lessons:
    return Lessons(jobs_of(request).engine)


async def _sizings(request: Request) -> Sizings:
    return jobs_of(request).sizings


async def _boards(request: Request) -> Boards:
    boards: Boards = request.app.state.boards
    return boards


async def _quotes(request: Request) -> Quotes:
    return Quotes(jobs_of(request))


async def _templates(request: Request) -> Templates:
    return Templates(jobs_of(request).engine)


async def _light(request: Request) -> Light:
    light: Light = request.app.state.light
    return light


AllJobs = Annotated[Jobs, Depends(_jobs)]
OwnRack = Annotated[Rack, Depends(_rack)]
ShopsOwn = Annotated[OwnThings, Depends(_own)]
AllRuns = Annotated[Runs, Depends(_runs)]
ShopLog = Annotated[Log, Depends(_log)]
ShopPhotos = Annotated[Photos, Depends(_photos)]
PartPictures = Annotated[PartPhotos, Depends(_part_photos)]
WhatWasLearnt = Annotated[Learning, Depends(_learning)]
ShopWays = Annotated[HouseWays, Depends(_house)]
ShopUpkeep = Annotated[Upkeep, Depends(_upkeep)]
ShopPractice = Annotated[Lessons, Depends(_practice)]
AllSizings = Annotated[Sizings, Depends(_sizings)]
OwnTemplates = Annotated[Templates, Depends(_templates)]
ShopBoards = Annotated[Boards, Depends(_boards)]
ShopQuotes = Annotated[Quotes, Depends(_quotes)]
Pictures = Annotated[Light, Depends(_light)]


JOB_IN_BODY: Final[dict[str, Any]] = {
    "requestBody": {
        "required": True,
        "content": {"application/json": {"schema": {"$ref": "#/components/schemas/JobFile"}}},
    }
}

PICTURE_IN_BODY: Final[dict[str, Any]] = {
    "requestBody": {
        "required": True,
        "content": {
            kind: {"schema": {"type": "string", "format": "binary"}} for kind in ("image/jpeg", "image/png", "image/webp")
        },
    }
}


async def text_in_body(request: Request, what: str) -> bytes:
    """The JSON of a request, no larger than a file may be."""
    # Another site's page can send text without asking, but not JSON.
    if not request.headers.get("content-type", "").startswith("application/json"):
        raise HTTPException(415, f"Send the {what} as application/json")
    body = bytearray()
    async for chunk in request.stream():
        body += chunk
        if len(body) > LARGEST_FILE:
            raise HTTPException(413, f"A {what} file may hold at most {LARGEST_FILE // 1024 // 1024} MB; split it")
    return bytes(body)


async def _job_in_body(request: Request) -> JobFile:
    return read_job_file(await text_in_body(request, "job"))


async def _job_as_written(request: Request) -> JobFile:
    return read_as_written(await text_in_body(request, "job"))


JobBody = Annotated[JobFile, Depends(_job_in_body)]
JobAsWritten = Annotated[JobFile, Depends(_job_as_written)]  # its faces may still be without ids


def file_answer(document: Mapping[str, Any], title: str, ending: str) -> Response:
    """The document as it is stored."""
    text = json.dumps(document, indent=2, ensure_ascii=False) + "\n"
    return Response(text, media_type="application/json", headers=named(title, ending))


def named(title: str, ending: str, *, shown: bool = False) -> dict[str, str]:
    """The header that names a file after what is in it. `shown`: the browser opens it instead of saving it."""
    return {
        "content-disposition": f"{'inline' if shown else 'attachment'}; filename*=UTF-8''{quote(file_name(title))}.{ending}"
    }


def _revision(if_match: Annotated[str | None, Header()] = None) -> int:
    found = re.fullmatch(r'\s*(?:W/)?"?(\d{1,15})"?\s*', if_match or "")
    if not found:
        raise HTTPException(428, "Send the revision that you changed as If-Match, so that no other change is lost")
    return int(found[1])


Revision = Annotated[int, Depends(_revision)]
