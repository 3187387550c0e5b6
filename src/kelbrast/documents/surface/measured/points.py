"""Measured profiles as text: two columns, place and height, separated by spaces, tabs, commas or semicolons."""

import io
import re
from array import array
from typing import Final

import numpy as np

from kelbrast.core.errors import BadInput, Fault, OutsideValidity, ReadError
from kelbrast.core.metrology.profile import Profile, resampled
from kelbrast.core.units import SCALE, to_si
from kelbrast.documents.surface.measured.grid import MOST_IN_TEXT

UNITS: Final = ("m", "mm", "um")
_MOST_FAULTS: Final = 10


def read_points(text: str, *, x_unit: str = "mm", z_unit: str = "um") -> Profile:
    """A profile from text. A first line that is no numbers is taken for the names of the columns.

    Raises:
        ReadError: there is nothing to read.
        BadInput: a unit that is not known, or lines that are not two numbers, each by its number.
    """
    for name, unit in (("x_unit", x_unit), ("z_unit", z_unit)):
        if unit not in UNITS:
            raise BadInput.one(name, f"must be one of {', '.join(UNITS)}")
    points, faults = array("d"), list[Fault]()
    for number, line in enumerate(io.StringIO(text, newline=None), start=1):
        line = line.strip()
        if not line or line.startswith("#"):
            continue
        parts = _parts(line)
        if parts is None and not points and not faults:
            continue  # names of the columns
        if parts is None:
            faults.append(Fault(f"line {number}", "must be two numbers, the place and the height"))
            if len(faults) == _MOST_FAULTS:
                break
            continue
        points.extend(parts)
        if len(points) > 2 * MOST_IN_TEXT:
            raise ReadError.one("size", f"there are more than the {MOST_IN_TEXT:,} points that are read; save fewer")
    if faults:
        raise BadInput(faults)
    if not points:
        raise ReadError.one("", "there is no line with a place and a height")
    x, z = np.array(points).reshape(-1, 2).T
    try:
        return resampled(x * SCALE[x_unit], z * SCALE[z_unit])
    except OutsideValidity as problem:
        raise BadInput.one("profile", str(problem)) from None


def points_text(profile: Profile, *, x_unit: str = "mm", z_unit: str = "um") -> str:
    """A profile as CSV, with the names of its columns."""
    scale_x, scale_z = to_si(1.0, x_unit), to_si(1.0, z_unit)
    lines = [f"x_{x_unit},z_{z_unit}"]
    lines += [f"{at * profile.spacing / scale_x:.9g},{z / scale_z:.9g}" for at, z in enumerate(profile.z)]
    return "\n".join(lines) + "\n"


def _parts(line: str) -> tuple[float, float] | None:
    """Two numbers; a comma between digits is a decimal comma where something else separates the columns."""
    columns = re.split(r"[;\t]+\s*|\s+", line)
    if len(columns) < 2:
        columns = line.split(",")
    try:
        x, z = (float(part.strip().replace(",", ".")) for part in columns[:2])
    except ValueError:
        return None
    return x, z
