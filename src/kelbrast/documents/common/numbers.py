"""Numbers as people write them, with a point or a comma; and figures of the core (SI) in the units of the files."""

import re
from typing import Final

from kelbrast.core.units import from_si

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


def shop_or_none(value: float | None, unit: str) -> float | None:
    """The same, with null for what is not there or has no end."""
    return None if value is None or value == float("inf") else shop(value, unit)
