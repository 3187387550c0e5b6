"""Measured profiles as text: two columns, place and height, separated by spaces, tabs, commas or semicolons; and what every
reader of measured surfaces shares."""

import io
import re
from array import array
from typing import Final

import numpy as np

from kelbrast.core.errors import BadInput, Fault, OutsideValidity, ReadError
from kelbrast.core.metrology.areal import HeightMap
from kelbrast.core.metrology.profile import Profile, resampled
from kelbrast.core.units import SCALE, to_si
from kelbrast.core.validity import Flags, Reals

Surface = Profile | HeightMap
MOST_POINTS: Final = 4_500_000  # of a map: 2048 by 2048 and a little more
MOST_ON_A_LINE: Final = 1_000_000  # of a profile
MOST_IN_TEXT: Final = 500_000  # written out as text, which takes ten times as long to read


def on_grid(z: Reals, rows: float, columns: float) -> Surface:
    """A map, or a profile where there is one row. Points that were not measured (NaN) are filled in from their neighbours.

    Args:
        z: (rows, columns) heights, m.  rows, columns: their spacing, m.

    Raises:
        BadInput: a spacing that is not above 0, heights without end, or more than half of them missing.
    """
    if not 0 < columns < 1 or (z.shape[0] > 1 and not 0 < rows < 1):
        raise BadInput.one("spacing", "must be above 0 and below a metre")
    if np.isinf(z).any():
        raise BadInput.one("heights", "must be numbers throughout")
    missing = np.isnan(z)
    if missing.mean() > 0.5:
        raise BadInput.one("heights", "more than half of the points were not measured")
    filled = _filled(z, missing) if missing.any() else z
    return Profile(filled[0], columns) if z.shape[0] == 1 else HeightMap(filled, (rows, columns))


def size_of(rows: int, columns: int, *, text: bool = False) -> int:
    """How many points a grid has that is about to be read; `text`: written out, not in binary.

    Raises:
        ReadError: nothing in it, or too much.
    """
    if rows < 1 or columns < 2:
        raise ReadError.one("size", f"a grid of {rows} by {columns} points cannot be read")
    most = min(MOST_ON_A_LINE if rows == 1 else MOST_POINTS, MOST_IN_TEXT if text else MOST_POINTS)
    if rows * columns > most:
        said = f"{_short(rows)} by {_short(columns)} points are more than the {most:,} that are read"
        raise ReadError.one("size", f"{said}; save a part of it, or fewer points")
    return rows * columns


def _short(count: int) -> str:
    return str(count) if count < 10**9 else "a thousand million"


def _filled(z: Reals, missing: Flags) -> Reals:
    """Along each row in a straight line over the gap; a row with no point at all like the row before it."""
    found = z.copy()
    places = np.arange(z.shape[1])
    last = np.full(z.shape[1], np.nanmean(z))
    for row, gaps in zip(found, missing, strict=True):
        if gaps.all():
            row[:] = last
        elif gaps.any():
            row[gaps] = np.interp(places[gaps], places[~gaps], row[~gaps])
        last = row
    return found


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
