"""Surface data files, SDF (ISO 25178-71, and BCR-1.0 before it): read as text or binary."""

import re
import struct
from collections.abc import Iterator
from dataclasses import dataclass
from itertools import islice
from typing import Final

import numpy as np
from numpy.typing import NDArray

from kelbrast.core.errors import ReadError
from kelbrast.core.validity import Flags
from kelbrast.documents.surface.measured.points import Surface, on_grid, size_of

_TYPES: Final = {0: "<u1", 1: "<u2", 2: "<u4", 3: "<f4", 4: "<i1", 5: "<i2", 6: "<i4", 7: "<f8"}
_VERSIONS: Final = ("BCR-1.0", "ISO-1.0", "ISO-2.0")
_LONG: Final = "<8s10s12s12sIIddddBBB"  # ISO-2.0 counts its points in 4 bytes
_SHORT: Final = "<8s10s12s12sHHddddBBB"


@dataclass(frozen=True, slots=True)
class _Header:
    version: str
    columns: int
    rows: int
    x_scale: float
    y_scale: float
    z_scale: float
    compression: int
    kind: int
    check: int


def is_sdf(data: bytes) -> bool:
    """Whether a file says that it is one."""
    return data[1:5] in (b"BCR-", b"ISO-") and data[:1].lower() in (b"a", b"b")


def read_sdf(data: bytes) -> Surface:
    """A profile or a map from an SDF file.

    Raises:
        ReadError: a version, compression or type that is not known, or a file that is cut off or damaged.
        BadInput: figures that cannot be.
    """
    version = data[1:8].decode("latin-1")
    if version not in _VERSIONS:
        raise ReadError.one("version", f'"{version}" is not one of {", ".join(_VERSIONS)}')
    try:
        header, heights = _text(data, version) if data[:1].lower() == b"a" else _binary(data, version)
    except (struct.error, ValueError, KeyError, OverflowError) as problem:
        raise ReadError.one("sdf", f"the file is damaged or cut off: {problem}") from None
    z = heights.astype(np.float64)
    z[_missing(heights, header)] = np.nan
    grid = (z * header.z_scale).reshape(header.rows, header.columns)
    if header.version == "BCR-1.0":
        grid = grid[::-1]  # its first row stands for the largest y
    return on_grid(grid, header.y_scale, header.x_scale)


def _binary(data: bytes, version: str) -> tuple[_Header, NDArray[np.generic]]:
    layout = _LONG if version == "ISO-2.0" else _SHORT
    fields = struct.unpack_from(layout, data)
    columns, rows, x, y, z, _, compression, kind, check = fields[4:]
    header = _Header(version, columns, rows, x, y, z, compression, kind, check)
    start, count = struct.calcsize(layout), _checked(header, text=False)
    heights = np.frombuffer(data, dtype=_TYPES[header.kind], count=count, offset=start)
    return header, heights


def _text(data: bytes, version: str) -> tuple[_Header, NDArray[np.generic]]:
    parts = re.split(r"^\*\s*$", data.decode("ascii", errors="strict"), flags=re.MULTILINE)
    if len(parts) < 3:
        raise ValueError("the end of the header or of the data is missing")
    named = {
        name.strip().lower(): value.strip()
        for name, _, value in (line.partition("=") for line in parts[0].splitlines()[1:])
        if value
    }
    header = _Header(
        version,
        int(named["numpoints"]),
        int(named["numprofiles"]),
        float(named["xscale"]),
        float(named.get("yscale", "1")),
        float(named["zscale"]),
        int(named.get("compression", "0")),
        int(named["datatype"]),
        int(named.get("checktype", "0")),
    )
    count = _checked(header, text=True)
    heights = np.fromiter(islice(_heights(parts[1]), count + 1), dtype=np.float64)
    if len(heights) != count:
        there = len(heights) if len(heights) < count else "more"
        raise ValueError(f"{count} heights are announced and {there} are there")
    return header, heights


def _heights(text: str) -> Iterator[float]:
    """One after the other, so that a long file is never there as words."""
    for found in re.finditer(r";[^\r\n]*|[^\s;]+", text):
        word = found[0]
        if not word.startswith(";"):
            yield float("nan") if word == "BAD" else float(word)


def _checked(header: _Header, *, text: bool) -> int:
    """How many heights there are to read."""
    count = size_of(header.rows, header.columns, text=text)
    if header.compression != 0 or header.check != 0:
        raise ReadError.one("sdf", "files with compression or checksums are not read; save it without them")
    if header.kind not in _TYPES:
        raise ReadError.one("DataType", f"{header.kind} is not one of {', '.join(map(str, _TYPES))}")
    if not header.z_scale > 0:
        raise ReadError.one("Zscale", "must be above 0")
    return count


def _missing(heights: NDArray[np.generic], header: _Header) -> Flags:
    """Points that were not measured: the smallest value of the type, the largest in BCR; NaN in text."""
    kind = np.dtype(_TYPES[header.kind])
    as_numbers = heights.astype(np.float64)
    limits = np.iinfo(kind) if kind.kind in "iu" else np.finfo(kind)
    marked = float(limits.max if header.version == "BCR-1.0" else limits.min)
    return np.asarray(np.isnan(as_numbers) | (as_numbers == marked))
