"""The bench: runs, taps, ways back, readings."""

from typing import Annotated, Any, Final, Literal

from fastapi import APIRouter, Path, Query, Request, Response
from pydantic import BaseModel, Field
from starlette.concurrency import run_in_threadpool

from kelbrast.api.bench_schemas import RunOut, run_out
from kelbrast.api.jobs import JobId
from kelbrast.api.planning import DeepMark, LikeGrade
from kelbrast.api.problems import NOT_FOUND, RESPONSES, Problem
from kelbrast.api.requests import AllRuns
from kelbrast.app.instruments import instruments, read
from kelbrast.core.bench.instruments import QUANTITIES
from kelbrast.core.errors import BadInput, OutsideValidity
from kelbrast.documents.plan.questions import GoBackFile
from kelbrast.documents.run.format import ReadingFile, TapFile
from kelbrast.documents.surface.measured.read import read_surface
from kelbrast.documents.surface.report import MeasureFile, MeasureMapFile, measure

router = APIRouter(prefix="/api", responses=RESPONSES)

RunId = Annotated[int, Path(ge=1, le=2**53, description="id of the run")]
_CONFLICT: Final[dict[int | str, dict[str, Any]]] = {412: {"model": Problem, "description": "Another screen tapped"}}


_FILE: Final[dict[str, Any]] = {
    "requestBody": {
        "required": True,
        "content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}},
    }
}


TapName = Annotated[str, Field(min_length=8, max_length=40, pattern=r"^[\w-]+$")]


class TapIn(BaseModel):
    """A tap on its way. `name` names this very tap, so that sending it twice keeps it once; `after`: the newest event that the
    screen had seen, or `after_tap`, the name of its own tap before, which nobody had answered yet; `age_s`: how long it had to
    wait before it could be sent."""

    tap: TapFile
    name: TapName
    after: Annotated[int, Field(ge=0, le=2**53)]
    after_tap: TapName | None = None
    age_s: Annotated[float, Field(ge=0, le=86_400, allow_inf_nan=False)] = 0


class AheadOut(BaseModel):
    """The run after event `seen` as it would stand after each of the next steps, if each goes as planned."""

    seen: int
    runs: list[RunOut]


class InstrumentOut(BaseModel):
    """An instrument that can be read; `simulated`: a stand-in, whose readings prove nothing."""

    id: str
    label: str
    quantity: str
    simulated: bool


class QuantityOut(BaseModel):
    """A quantity that can be measured, and the unit that it is typed in."""

    id: str
    label: str
    unit: str


class MeasuringOut(BaseModel):
    """What can be measured, and with what."""

    quantities: list[QuantityOut]
    instruments: list[InstrumentOut]


@router.post("/jobs/{job_id}/runs", status_code=201, responses=NOT_FOUND)
def begin_run(job_id: JobId, runs: AllRuns) -> RunOut:
    """Take a job to the bench, with its plan as it is now."""
    return run_out(runs.begin(job_id))


@router.get("/runs")
def open_runs(runs: AllRuns) -> list[RunOut]:
    """The runs at the bench, the newest first."""
    return [run_out(kept) for kept in runs.open()]


@router.get("/runs/{run_id}", response_model=RunOut, responses={**NOT_FOUND, 204: {"description": "Nothing happened since"}})
def read_run(
    run_id: RunId,
    runs: AllRuns,
    after: Annotated[int | None, Query(ge=0, le=2**53, description="answer 204 when this is the newest event")] = None,
) -> RunOut | Response:
    """A run as it stands now. Screens ask every second, so what did not change is told without working it out."""
    if after is not None and runs.seen(run_id) == after:
        return Response(status_code=204)
    return run_out(runs.get(run_id))


@router.get("/runs/{run_id}/ahead", responses=NOT_FOUND)
def run_ahead(run_id: RunId, runs: AllRuns) -> AheadOut:
    """What a screen shows if it has to do without an answer for a while."""
    seen, foreseen = runs.ahead(run_id)
    return AheadOut(seen=seen, runs=[run_out(kept) for kept in foreseen])


@router.post("/runs/{run_id}/taps", responses={**NOT_FOUND, **_CONFLICT})
def tap(run_id: RunId, given: TapIn, runs: AllRuns) -> RunOut:
    """Keep a tap. The answer comes when it is on the disk."""
    kept = runs.tap(run_id, given.tap, name=given.name, after=given.after, after_tap=given.after_tap, age=given.age_s)
    return run_out(kept)


@router.get("/runs/{run_id}/goback", responses=NOT_FOUND)
def ways_back(
    run_id: RunId,
    runs: AllRuns,
    depth_um: DeepMark = None,
    like: LikeGrade = None,
    fingernail: Annotated[bool, Query(description="or: a fingernail catches it")] = False,
) -> GoBackFile:
    """The light check of the step in hand failed: the ways to the finish from there."""
    return runs.ways_back(run_id, depth_um=depth_um, like=like, fingernail=fingernail)


@router.get("/measuring")
def measuring() -> MeasuringOut:
    """What can be measured at the bench, and the instruments at hand."""
    return MeasuringOut(
        quantities=[QuantityOut(id=key, label=kind.label, unit=kind.unit) for key, kind in QUANTITIES.items()],
        instruments=[
            InstrumentOut(
                id=instrument.id, label=instrument.label, quantity=instrument.quantity, simulated=instrument.simulated
            )
            for instrument in instruments().values()
        ],
    )


@router.post("/measure", openapi_extra=_FILE)
async def measure_profile(
    request: Request,
    x_unit: Annotated[Literal["m", "mm", "um"], Query(description="of places in text")] = "mm",
    z_unit: Annotated[Literal["m", "mm", "um"], Query(description="of heights in text")] = "um",
    form: Annotated[int, Query(ge=0, le=12, description="degree of the polynomial that is taken off")] = 1,
) -> MeasureFile | MeasureMapFile:
    """Evaluate a measured profile or map: CSV, text, X3P or SDF in the body. Nothing is kept."""
    data = await request.body()
    return await run_in_threadpool(_measured, data, x_unit, z_unit, form)


def _measured(data: bytes, x_unit: str, z_unit: str, form: int) -> MeasureFile | MeasureMapFile:
    try:
        return measure(read_surface(data, x_unit=x_unit, z_unit=z_unit), form=form)
    except OutsideValidity as problem:
        raise BadInput.one("file", str(problem)) from None


@router.get("/runs/{run_id}/readings/{instrument_id}", responses=NOT_FOUND)
def read_instrument(run_id: RunId, instrument_id: Annotated[str, Path(max_length=80)], runs: AllRuns) -> ReadingFile:
    """Read an instrument at the piece in hand. The reading is kept when it is tapped."""
    return read(runs.get(run_id), instrument_id)
