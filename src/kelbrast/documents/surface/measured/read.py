"""A measured surface from a file of whatever kind, told by how it begins."""

from pathlib import Path
from typing import Final

from kelbrast.core.errors import ReadError
from kelbrast.documents.surface.measured.points import Surface, read_points
from kelbrast.documents.surface.measured.sdf import is_sdf, read_sdf
from kelbrast.documents.surface.measured.x3p import is_x3p, read_x3p

LARGEST: Final = 64 * 1024 * 1024  # bytes


def surface_bytes(path: Path) -> bytes:
    """The bytes of a measured file, unless there are too many.

    Raises:
        ReadError: it is too large.  OSError: it cannot be read.
    """
    with path.open("rb") as file:
        data = file.read(LARGEST + 1)
    if len(data) > LARGEST:
        raise ReadError.one(str(path), f"is larger than {LARGEST // 1024 // 1024} MB; save a part of it")
    return data


def read_surface(data: bytes, *, x_unit: str = "mm", z_unit: str = "um") -> Surface:
    """A profile or a map from CSV or text, X3P or SDF. The units are those of text; the others carry their own.

    Raises:
        ReadError: the file cannot be read.  BadInput: it can, and says what cannot be.
    """
    if not data:
        raise ReadError.one("", "the file is empty")
    if is_x3p(data):
        return read_x3p(data)
    if is_sdf(data):
        return read_sdf(data)
    try:
        text = data.decode("utf-8-sig")
    except UnicodeDecodeError:
        raise ReadError.one("", "is neither text nor X3P nor SDF") from None
    return read_points(text, x_unit=x_unit, z_unit=z_unit)
