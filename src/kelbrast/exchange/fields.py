"""The kinds of fields that the open files are made of, and how long each text may be: said here once for all documents.

What one document takes, every other takes too: a name that a job may have, a tap can say, a photo carries and a quote prints.
"""

from typing import Annotated, Any, Final

from pydantic import AfterValidator, BaseModel, ConfigDict, Field
from pydantic_core import PydanticCustomError

from kelbrast.exchange.plain_text import Lines, OneLine

LONGEST_ID: Final = 80
LONGEST_NAME: Final = 200  # of a job, a face, a person, a customer
LONGEST_GRADE: Final = 20
LONGEST_REMARK: Final = 400
LONGEST_NOTE: Final = 2000


def _said(text: str) -> str:
    """A name without space around it, which says something."""
    text = text.strip()
    if not text:
        raise PydanticCustomError("blank", "must not be blank")
    return text


def _not_tiny(value: float) -> float:
    if value < _LEAST:
        raise PydanticCustomError("greater_than_equal", "must be at least {ge}", {"ge": _LEAST})
    return value


_LEAST: Final = 1e-6  # a picometre: smaller is a slip, and numbers below 1e-308 have no reciprocal
_NOT_BLANK: Final[dict[str, Any]] = {"pattern": r"\S"}  # for the schema; the reader says it in words
NotTiny: Final = AfterValidator(_not_tiny)
ID = Annotated[str, Field(min_length=1, max_length=LONGEST_ID), OneLine]
FaceId = Annotated[str, Field(max_length=LONGEST_ID, pattern=r"^[A-Za-z0-9-]*$")]  # empty: one is made
GradeText = Annotated[str, Field(max_length=LONGEST_GRADE), OneLine]
Text = Annotated[
    str, Field(min_length=1, max_length=LONGEST_NAME, json_schema_extra=_NOT_BLANK), OneLine, AfterValidator(_said)
]
NameText = Annotated[str, Field(max_length=LONGEST_NAME), OneLine]  # may be left empty
Word = Annotated[str, Field(max_length=LONGEST_ID), OneLine]
Remark = Annotated[str, Field(max_length=LONGEST_REMARK), OneLine]
Note = Annotated[str, Field(max_length=LONGEST_NOTE), Lines]
Micrometres = Annotated[float, Field(gt=0, le=20_000, allow_inf_nan=False), NotTiny]
Millimetres = Annotated[float, Field(gt=0, le=100_000, allow_inf_nan=False), NotTiny]


class Strict(BaseModel):
    """Unknown keys are refused by name; numbers are never read out of text."""

    model_config = ConfigDict(extra="forbid", frozen=True, strict=True)
