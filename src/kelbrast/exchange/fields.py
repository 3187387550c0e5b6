"""The kinds of fields that the open files are made of."""

from typing import Annotated, Final

from pydantic import AfterValidator, BaseModel, ConfigDict, Field
from pydantic_core import PydanticCustomError

from kelbrast.exchange.plain_text import OneLine

ID = Annotated[str, Field(min_length=1, max_length=80), OneLine]
_LEAST: Final = 1e-6  # a picometre: smaller is a slip, and numbers below 1e-308 have no reciprocal


def _not_tiny(value: float) -> float:
    if value < _LEAST:
        raise PydanticCustomError("greater_than_equal", "must be at least {ge}", {"ge": _LEAST})
    return value


NotTiny: Final = AfterValidator(_not_tiny)
Micrometres = Annotated[float, Field(gt=0, le=20_000, allow_inf_nan=False), NotTiny]
Millimetres = Annotated[float, Field(gt=0, le=100_000, allow_inf_nan=False), NotTiny]
Text = Annotated[str, Field(min_length=1, max_length=200), OneLine]


class Strict(BaseModel):
    """Unknown keys are refused by name; numbers are never read out of text."""

    model_config = ConfigDict(extra="forbid", frozen=True, strict=True)
