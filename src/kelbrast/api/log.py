"""The log: searched, read, exported."""

from datetime import UTC, date, datetime, timedelta
from typing import Annotated, Any, Final

from fastapi import APIRouter, Depends, Query, Request, Response
from pydantic import BaseModel
from starlette.concurrency import run_in_threadpool

from kelbrast.api.bench import RunId
from kelbrast.api.log_schemas import LogOut, RunPageOut, line_out, named_tools, run_page
from kelbrast.api.problems import NOT_FOUND, RESPONSES
from kelbrast.api.requests import AllRuns, ShopLog, text_in_body
from kelbrast.app.brought_run import bring_run
from kelbrast.app.clock import began
from kelbrast.app.followed import figures_of
from kelbrast.core.bench.run import Status
from kelbrast.core.bench.told import tell
from kelbrast.core.catalogue.damages import FaultOfWork, faults_of_work
from kelbrast.core.vision.agreement import Rightness
from kelbrast.documents.run.format import read_run_file
from kelbrast.documents.run.log_csv import events_csv, runs_csv
from kelbrast.storage.runs import Wanted

router = APIRouter(prefix="/api", responses=RESPONSES)

SearchText = Annotated[str, Query(max_length=200, description="words in title, finish, notes and troubles")]
NamedId = Annotated[str | None, Query(max_length=80)]


def _wanted(
    text: SearchText = "",
    material: NamedId = None,
    finish: Annotated[str | None, Query(max_length=80, description="label of the finish")] = None,
    tool: NamedId = None,
    status: Annotated[Status | None, Query()] = None,
    since: Annotated[date | None, Query(description="begun on this day of the shop or later")] = None,
    until: Annotated[date | None, Query(description="begun on this day of the shop or before")] = None,
) -> Wanted:
    after = _began(until + timedelta(days=1)) if until and until < date.max else None
    return Wanted(text, material, finish, tool, status, _began(since) if since else None, after)


_RUN_IN_BODY: Final[dict[str, Any]] = {
    "requestBody": {"required": True, "content": {"application/json": {"schema": {"type": "object"}}}}
}


class BroughtOut(BaseModel):
    """Which number a run has in this log."""

    run_id: int


Sought = Annotated[Wanted, Depends(_wanted)]


@router.get("/log")
def search_log(
    log: ShopLog,
    wanted: Sought,
    offset: Annotated[int, Query(ge=0, le=2**53)] = 0,
    limit: Annotated[int, Query(ge=1, le=200)] = 50,
) -> LogOut:
    """The runs of what is looked for, the newest first."""
    count, lines = log.search(wanted, offset=offset, limit=limit)
    return LogOut(count=count, lines=[line_out(line) for line in lines], tools=named_tools(log.tools()))


class CalibrationOut(BaseModel):
    """Of the runs that were promised at nine in ten, how many kept to it, with the interval of the share (95 %)."""

    cutting: Rightness
    hands_on: Rightness


@router.get("/log/calibration")
def how_promises_were_kept(log: ShopLog) -> CalibrationOut:
    """Whether what is allowed for is right here."""
    return CalibrationOut(**log.calibration())


@router.post("/log", status_code=201, openapi_extra=_RUN_IN_BODY)
async def bring_in_run(request: Request, runs: AllRuns) -> BroughtOut:
    """Put a run that was done elsewhere into the log, from its file."""
    file = read_run_file(await text_in_body(request, "run"))
    return BroughtOut(run_id=await run_in_threadpool(bring_run, runs, file))


@router.get("/log.csv", responses={200: {"content": {"text/csv": {}}}})
def log_as_csv(log: ShopLog, wanted: Sought) -> Response:
    """A row a run, for a spreadsheet."""
    rows: list[dict[str, Any]] = []
    for line in log.search(wanted, limit=None)[1]:
        figures = dict(line.figures)
        rows.append(
            {
                **figures,
                "run": line.id,
                "began_utc": line.began_at,
                "ended_utc": line.ended_at,
                "title": line.title,
                "material": line.material,
                "finishes": line.finishes,
                "pieces": line.pieces,
                "status": line.status,
                "as_wanted": line.well,
                "went_back": figures.get("backs"),
                "planned_abrasives": _counted(figures.get("planned_worn", {})),
                "abrasives": _counted(figures.get("worn", {})),
            }
        )
    return Response(runs_csv(rows), media_type="text/csv", headers=_named("log.csv"))


@router.get("/log.json", responses={200: {"content": {"application/json": {}}}})
def log_as_json(log: ShopLog, wanted: Sought) -> Response:
    """Every run of what is looked for, as a list of run/1 files."""
    files = ",\n".join(file.model_dump_json(indent=1, exclude_defaults=False) for file in log.run_files(wanted))
    return Response(f"[{files}]\n", media_type="application/json", headers=_named("log.json"))


@router.get("/runs/{run_id}/page", responses=NOT_FOUND)
def read_run_page(run_id: RunId, runs: AllRuns) -> RunPageOut:
    """Everything that happened in a run, in words and in figures."""
    kept = runs.get(run_id)
    return run_page(kept, figures_of(kept), runs.finishes_of(kept))


@router.get("/runs/{run_id}/file.json", responses={**NOT_FOUND, 200: {"content": {"application/json": {}}}})
def run_as_file(run_id: RunId, log: ShopLog) -> Response:
    """A run as a run/1 file."""
    text = log.run_file(run_id).model_dump_json(indent=1) + "\n"
    return Response(text, media_type="application/json", headers=_named(f"run-{run_id}.json"))


@router.get("/runs/{run_id}/file.csv", responses={**NOT_FOUND, 200: {"content": {"text/csv": {}}}})
def run_as_csv(run_id: RunId, runs: AllRuns) -> Response:
    """A row an event, in figures and in words."""
    kept = runs.get(run_id)
    text = events_csv(tell(kept.run.layout, kept.happened))
    return Response(text, media_type="text/csv", headers=_named(f"run-{run_id}.csv"))


@router.get("/faults")
def list_faults() -> list[FaultOfWork]:
    """What goes wrong at the bench, why, what cures it and what avoids it."""
    return list(faults_of_work().values())


def _began(day: date) -> datetime | None:
    """When a day began, in UTC as it is kept; None for days before there were clocks."""
    try:
        return began(day).astimezone(UTC)
    except (OverflowError, ValueError, OSError):
        return None


def _counted(worn: dict[str, float]) -> str:
    return "; ".join(f"{name} {count:g}" for name, count in worn.items())


def _named(name: str) -> dict[str, str]:
    return {"content-disposition": f"attachment; filename={name}"}
