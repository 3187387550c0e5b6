"""What holds for a whole shop: people, rates, what stands on the spindles."""

from typing import Annotated

from pydantic import Field

from kelbrast.core.job import RackUsed
from kelbrast.documents.common.fields import ID, OneLine, Strict
from kelbrast.documents.day.format import WorkerFile


class UsualFile(Strict):
    """What usually comes in: ids of a material, a finish and a damage; and what jobs are planned from."""

    material: ID = "brass"
    finish: ID = "bright"
    damage: ID = "scratches"
    use_rack: RackUsed = "catalogue"


class ShopFile(Strict):
    """The shop. `hour`: what an hour of a person is charged at, in `currency`; `margin`: a share on everything.

    `shaking`: points of hand-arm vibration that nobody goes above in a day. `standing`: for a machine, the wheel on each
    spindle (tool on metal family). `usual`: what usually comes in, as a new job begins. `welcomed`: the first questions were
    answered or skipped.
    """

    people: Annotated[list[WorkerFile], Field(min_length=1, max_length=30)] = [WorkerFile(name="One"), WorkerFile(name="Two")]
    currency: Annotated[str, Field(max_length=8), OneLine] = "EUR"
    hour: Annotated[float, Field(gt=0, le=100_000, allow_inf_nan=False)] = 48.0
    margin: Annotated[float, Field(ge=0, le=10, allow_inf_nan=False)] = 0.15
    shaking: Annotated[float, Field(gt=0, le=400, allow_inf_nan=False)] = 400.0
    standing: Annotated[dict[ID, list[str | None]], Field(max_length=50)] = {}
    usual: UsualFile = UsualFile()
    welcomed: bool = False
