"""The schedule of the day, and the shop that it is made for."""

import asyncio
from datetime import date
from functools import partial
from typing import Annotated, Final

from fastapi import APIRouter, Path, Query, Response
from pydantic import BaseModel, Field

from kelbrast.api.jobs import JobId
from kelbrast.api.problems import RESPONSES
from kelbrast.api.requests import ShopBoards
from kelbrast.app.board import Board
from kelbrast.app.board_events import forget, happen, late, try_event
from kelbrast.app.clock import wall_clock
from kelbrast.core.day.follow import Pin
from kelbrast.documents.common.fields import LONGEST_NAME
from kelbrast.documents.day.events import DayEventFile, EffectFile, LateFile
from kelbrast.documents.day.format import DayFigures, DayFile, ShopFile
from kelbrast.documents.day.out import day_calendar, day_csv

router = APIRouter(prefix="/api", responses=RESPONSES)

BlockKey = Annotated[str, Path(min_length=1, max_length=80, description="key of the block")]
_PEOPLE: Final = Query(max_length=LONGEST_NAME, description="only the blocks of this person")


class LeftOutFile(BaseModel):
    """A job that is not on the board, and why."""

    job: str
    reason: str


class HappenedOut(BaseModel):
    """Something that was said to have happened today, with its words."""

    event: DayEventFile
    said: str


class BoardOut(BaseModel):
    """The board as it stands. `ids`: the job of every block by its key; `done`: keys of the blocks that are over.

    `trouble`: why the search for a better board failed.
    """

    day: date
    now_min: int
    board: DayFile
    ids: dict[str, int]
    done: list[str]
    left_out: list[LeftOutFile]
    events: list[HappenedOut] = []
    searching: bool
    trouble: str


class PinIn(BaseModel):
    """Where a block is wanted: minutes since the day begins, by whom, on which spindle; null for whoever and wherever."""

    from_min: Annotated[int, Field(ge=0, le=40_000)]
    person: Annotated[str | None, Field(max_length=LONGEST_NAME)] = None
    spindle: Annotated[int | None, Field(ge=1, le=20)] = None


class WhyFirstOut(BaseModel):
    """The figures of the board, and those if this block went first, and every job that would be done at another time, in words;
    null where it cannot."""

    now: DayFigures | None
    first: DayFigures | None
    changes: list[str] = []


def _out(board: Board) -> BoardOut:
    now = wall_clock()
    hours, minutes = board.file.begins.split(":")
    return BoardOut(
        day=board.day,
        now_min=now.hour * 60 + now.minute - int(hours) * 60 - int(minutes),
        board=board.file,
        ids=board.ids,
        done=sorted(board.done),
        left_out=[LeftOutFile(job=job, reason=reason) for job, reason in board.left_out],
        events=[HappenedOut(event=event, said=said) for event, said in board.events],
        searching=board.searching,
        trouble=board.trouble,
    )


@router.get("/shop")
def read_shop(boards: ShopBoards) -> ShopFile:
    """People, rates, and what stands on the spindles."""
    return boards.shop()


@router.put("/shop")
def change_shop(shop: ShopFile, boards: ShopBoards) -> ShopFile:
    """Say what holds for the shop."""
    return boards.change_shop(shop)


@router.get("/day")
async def read_day(boards: ShopBoards) -> BoardOut:
    """The board of today: of every job that is ordered or at the bench."""
    return _out(await asyncio.wrap_future(boards.board_soon()))


@router.post("/day/search", status_code=202)
async def search_day(boards: ShopBoards, seconds: Annotated[float, Query(gt=0, le=600)] = 20) -> BoardOut:
    """Look for a better board in the background."""
    return _out(await asyncio.wrap_future(boards.soon(partial(boards.search, seconds=seconds))))


@router.delete("/day/search", status_code=204)
def stop_searching(boards: ShopBoards) -> None:
    """Stop looking; what was found stays."""
    boards.stop()


@router.put("/day/pins/{block}")
async def pin_block(block: BlockKey, pin: PinIn, boards: ShopBoards) -> BoardOut:
    """Put a block somewhere: the rest settles around it, or says why it cannot."""
    put = partial(boards.pin, block, Pin(pin.from_min, pin.person, pin.spindle))
    return _out(await asyncio.wrap_future(boards.soon(put)))


@router.delete("/day/pins/{block}")
async def unpin_block(block: BlockKey, boards: ShopBoards) -> BoardOut:
    """Let a block go again."""
    return _out(await asyncio.wrap_future(boards.soon(partial(boards.pin, block, None))))


@router.post("/day/done/{block}")
async def block_is_done(block: BlockKey, boards: ShopBoards) -> BoardOut:
    """Somebody says that a block is done: not all work is tapped at a bench."""
    return _out(await asyncio.wrap_future(boards.soon(partial(boards.finish, block))))


@router.get("/day/first/{block}")
async def if_it_went_first(block: BlockKey, boards: ShopBoards) -> WhyFirstOut:
    """What would happen if this block went first."""
    found = await asyncio.wrap_future(boards.soon(partial(boards.why, block)))
    return WhyFirstOut(now=None, first=None) if found is None else WhyFirstOut(now=found[0], first=found[1], changes=found[2])


@router.post("/day/try")
async def what_it_would_do(event: DayEventFile, boards: ShopBoards) -> EffectFile:
    """What something that happens would do to every promise; nothing is changed."""
    return await asyncio.wrap_future(boards.soon(partial(try_event, boards, event)))


@router.post("/day/events", status_code=201)
async def it_happened(event: DayEventFile, boards: ShopBoards) -> BoardOut:
    """Something happened: the rest of the day is planned around it."""
    return _out(await asyncio.wrap_future(boards.soon(partial(happen, boards, event))))


@router.delete("/day/events/{number}")
async def it_did_not_happen(number: Annotated[int, Path(ge=0, le=1000)], boards: ShopBoards) -> BoardOut:
    """Take back what was said to have happened."""
    return _out(await asyncio.wrap_future(boards.soon(partial(forget, boards, number))))


@router.get("/day/late/{job_id}")
async def why_it_is_late(job_id: JobId, boards: ShopBoards) -> LateFile:
    """Why a job's promise is late, and what would help."""
    return await asyncio.wrap_future(boards.soon(partial(late, boards, job_id)))


@router.get("/day.ics", responses={200: {"content": {"text/calendar": {}}}})
async def day_as_calendar(boards: ShopBoards, person: Annotated[str | None, _PEOPLE] = None) -> Response:
    """The board as a calendar."""
    board = await asyncio.wrap_future(boards.board_soon())
    now = wall_clock()
    text = day_calendar(board.file, board.day, now=now, person=person)
    return Response(text, media_type="text/calendar", headers={"content-disposition": 'attachment; filename="day.ics"'})


@router.get("/day.csv", responses={200: {"content": {"text/csv": {}}}})
async def day_as_csv(boards: ShopBoards) -> Response:
    """The board as a table."""
    text = day_csv((await asyncio.wrap_future(boards.board_soon())).file)
    return Response(text, media_type="text/csv", headers={"content-disposition": 'attachment; filename="day.csv"'})
