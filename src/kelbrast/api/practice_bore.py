"""A practice bore: nothing is kept, the same number gives the same bore."""

from typing import Annotated

from fastapi import APIRouter, Query
from pydantic import BaseModel, ConfigDict, Field

from kelbrast.api.problems import RESPONSES
from kelbrast.core.practice.bores import MOST_ROUNDS, practice_bore, practice_end, practice_read
from kelbrast.core.units import to_si
from kelbrast.documents.size.format import SizeFile
from kelbrast.documents.size.practice_bore import BoreEndFile, to_bore_end, to_readings, to_size_file
from kelbrast.documents.size.wanted import SizeReading

router = APIRouter(prefix="/api/gauge/practice", responses=RESPONSES)

Difficulty = Annotated[int, Query(ge=1, le=3, description="1 is the easiest")]
Seed = Annotated[int, Query(ge=0, le=2**53, description="number of the bore")]
Seconds = Annotated[float, Field(gt=0, le=36_000, allow_inf_nan=False)]


class WorkedIn(BaseModel):
    """What was worked so far, round by round, s."""

    model_config = ConfigDict(extra="forbid")

    worked_s: Annotated[list[Seconds], Field(max_length=MOST_ROUNDS)]


class ReadIn(WorkedIn):
    """The same, and where to read now: everywhere, or where the oval is widest, for readings where the lap comes first."""

    widest_deg: Annotated[float, Field(ge=-720, le=720, allow_inf_nan=False)] | None = None


@router.get("")
def begin_practice_bore(difficulty: Difficulty, seed: Seed) -> SizeFile:
    """What is known of the bore before any reading."""
    return to_size_file(practice_bore(difficulty, seed))


@router.post("/read")
def read_practice_bore(difficulty: Difficulty, seed: Seed, asked: ReadIn) -> list[SizeReading]:
    """What the simulated gauge reads now."""
    widest = None if asked.widest_deg is None else to_si(asked.widest_deg, "deg")
    return to_readings(practice_read(practice_bore(difficulty, seed), asked.worked_s, widest=widest))


@router.post("/end")
def end_practice_bore(difficulty: Difficulty, seed: Seed, asked: WorkedIn) -> BoreEndFile:
    """The bore as it is now, and what the program would have done with it."""
    return to_bore_end(practice_end(practice_bore(difficulty, seed), asked.worked_s))
