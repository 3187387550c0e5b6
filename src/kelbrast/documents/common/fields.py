"""The kinds of fields that the open files are made of, how long each text may be, and numbers as people write them."""

import re
from collections.abc import Iterable
from typing import Annotated, Any, Final

from pydantic import AfterValidator, BaseModel, ConfigDict, Field
from pydantic_core import PydanticCustomError

from kelbrast.core.units import from_si, to_si

# Signs that turn the direction of writing (UAX #9), or take no room: a name with them is not what it looks like.
_TURNING: Final = re.compile(r"[\u200b\u200e\u200f\u061c\u202a-\u202e\u2060-\u2069\ufeff]")
_UNSEEN: Final = re.compile(r"[\x00-\x1f\x7f-\x9f\u2028\u2029\ufffe\uffff]")
_UNSEEN_IN_LINES: Final = re.compile(r"[\x00-\x08\x0b-\x1f\x7f-\x9f\u2028\u2029\ufffe\uffff]")


def one_line(text: str) -> str:
    """The text on one line, without unseen signs.

    >>> one_line("left\\rend\\x00")
    'left end '
    >>> one_line("rim\u202ereversed")
    'rimreversed'
    """
    return _UNSEEN.sub(" ", _TURNING.sub("", text))


def lines(text: str) -> str:
    """The text with its lines, without other unseen signs."""
    return _UNSEEN_IN_LINES.sub(" ", _TURNING.sub("", text).replace("\r\n", "\n").replace("\r", "\n"))


OneLine: Final = AfterValidator(one_line)
Lines: Final = AfterValidator(lines)

_LONGEST_FILE_NAME: Final = 120  # bytes: file systems take 255, and an ending, a number and a folder come on top


def file_name(title: str) -> str:
    """A title in letters, digits and dashes, no longer than any system takes: letters beyond ASCII are several bytes each.

    >>> file_name("Gallery rail, collar"), file_name("..."), len(file_name("щ" * 200).encode())
    ('gallery-rail-collar', 'job', 120)
    """
    name = re.sub(r"[^\w-]+", "-", title.lower()).strip("-") or "job"
    return name.encode()[:_LONGEST_FILE_NAME].decode(errors="ignore")


# The standard faces of a PDF know Latin letters and the micro sign, but not these.
_IN_PDFS: Final = str.maketrans({"\u202f": " ", "“": '"', "”": '"', "–": "-", "’": "'", "…": "...", "→": "to", "−": "-"})


def plain_letters(text: str) -> str:
    """The text in the letters that every PDF has.

    >>> plain_letters("20 → 3 µm – “fine”")
    '20 to 3 µm - "fine"'
    """
    return text.translate(_IN_PDFS).encode("latin-1", "replace").decode("latin-1")


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
Address = Annotated[str, Field(max_length=LONGEST_REMARK), Lines]
Micrometres = Annotated[float, Field(gt=0, le=20_000, allow_inf_nan=False), NotTiny]
Millimetres = Annotated[float, Field(gt=0, le=100_000, allow_inf_nan=False), NotTiny]


class Strict(BaseModel):
    """Unknown keys are refused by name; numbers are never read out of text."""

    model_config = ConfigDict(extra="forbid", frozen=True, strict=True)


_SPACES: Final = re.compile(r"(?<=\d)[\s\u00a0\u202f'’](?=\d{3}(?!\d))")
_PLAIN: Final = re.compile(r"[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?", re.IGNORECASE)
_COMMAS: Final = re.compile(r"[+-]?[1-9]\d{0,2}(,\d{3})+(\.\d*)?")
_POINTS: Final = re.compile(r"[+-]?[1-9]\d{0,2}((\.\d{3}){2,}|(\.\d{3})+,\d*)(,\d*)?")
_EITHER: Final = re.compile(r"[+-]?[1-9]\d{0,2},\d{3}")


def read_number(text: str) -> float:
    """A number from text. A comma is a decimal sign or stands between thousands; where it could be both, it is refused.

    Raises:
        ValueError: not a number, or one that can be read in two ways; says which.

    >>> read_number("1,5"), read_number("1 000"), read_number("1,000.5"), read_number("1.000,5"), read_number("0,125")
    (1.5, 1000.0, 1000.5, 1000.5, 0.125)
    """
    written = _SPACES.sub("", text.strip()).replace("−", "-")
    if _EITHER.fullmatch(written):
        whole, part = written.replace(",", ""), written.replace(",", ".")
        raise ValueError(f'"{text.strip()}" can be read in two ways: write {whole}, or {part.rstrip("0").rstrip(".")}')
    if _COMMAS.fullmatch(written):
        written = written.replace(",", "")
    elif _POINTS.fullmatch(written):
        written = written.replace(".", "").replace(",", ".")
    elif written.count(",") == 1 and "." not in written:
        written = written.replace(",", ".")
    if not _PLAIN.fullmatch(written):
        raise ValueError(f'"{text.strip()}" is not a number')
    return float(written)


def shop(value: float, unit: str) -> float:
    """To nine figures: more would be noise, fewer would break `takes_um = clearance * from_um`.

    >>> shop(2.5e-5, "um")
    25.0
    """
    return float(f"{from_si(value, unit):.9g}")


def shop_all(values: Iterable[float], unit: str) -> list[float]:
    """The same of many values, in a unit that begins at nothing.

    >>> shop_all((2.5e-5, 1e-6), "um")
    [25.0, 1.0]
    """
    one = to_si(1.0, unit)
    return [float(f"{value / one:.9g}") for value in values]


def shop_or_none(value: float | None, unit: str) -> float | None:
    """The same, with null for what is not there or has no end."""
    return None if value is None or value == float("inf") else shop(value, unit)
