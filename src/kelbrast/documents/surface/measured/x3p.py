"""X3P (ISO 25178-72): profiles and maps on a grid, read and written; checksums are checked."""

import hashlib
import io
import struct
import zipfile
import zlib
from typing import Final
from xml.etree.ElementTree import Element, SubElement, tostring

import numpy as np
from defusedxml.common import DefusedXmlException
from defusedxml.ElementTree import ParseError, fromstring

from kelbrast.core.errors import ReadError
from kelbrast.core.metrology.profile import Profile
from kelbrast.core.validity import Reals
from kelbrast.documents.surface.measured.points import Surface, on_grid, size_of

_NAMESPACE: Final = "http://www.opengps.eu/2008/ISO5436_2"
_TYPES: Final = {"I": "<i2", "L": "<i4", "F": "<f4", "D": "<f8"}
# What the archive and the numbers raise when bytes are not what they were.
_DAMAGE: Final = (
    zipfile.BadZipFile, zlib.error, struct.error, KeyError, EOFError, ValueError, OSError, NotImplementedError, RuntimeError,
)  # fmt: skip
# Unpacked, for a small archive can hold a huge file. Elements take thirty times the room of their text.
_MOST_XML: Final = 8 * 1024 * 1024
_MOST_SUM: Final = 4096
_TOO_LONG: Final = "more heights than are announced"


def is_x3p(data: bytes) -> bool:
    """Whether a file begins as an archive does."""
    return data[:4] == b"PK\x03\x04"


def read_x3p(data: bytes) -> Surface:
    """A profile or a map from an X3P file.

    Raises:
        ReadError: damaged, a checksum that does not fit, or a kind that is not read (point clouds, layers, absolute x and y).
        BadInput: figures that cannot be.
    """
    try:
        with zipfile.ZipFile(io.BytesIO(data)) as archive:
            text = _read(archive, "main.xml", _MOST_XML, "save the heights as a binary part, not as a list")
            _check_sum(archive, text)
            return _surface(_root(text), archive)
    except _DAMAGE as problem:
        raise ReadError.one("x3p", f"the file is damaged or cut off: {problem}") from None


def _read(archive: zipfile.ZipFile, name: str, most: int, mend: str) -> bytes:
    """A part of the archive; no more of it is unpacked than it may hold, whatever it says of its own size."""
    with archive.open(name) as part:
        data = part.read(most + 1)
    if len(data) > most:
        raise ReadError.one(name, f"unpacks to more than {most:,} bytes: {mend}")
    return data


def _root(text: bytes) -> Element:
    try:
        root: Element = fromstring(text)
    except (ParseError, DefusedXmlException) as problem:
        raise ReadError.one("main.xml", f"cannot be read: {problem}") from None
    return root


def _surface(root: Element, archive: zipfile.ZipFile) -> Surface:
    axes = {name: _axis(root, name) for name in ("CX", "CY", "CZ")}
    profile = _said(root, "Record1/FeatureType") == "PRF"
    if axes["CX"][0] != "I" or (not profile and axes["CY"][0] != "I"):
        raise ReadError.one("Axes", "only a grid with incremental x and y is read; this has absolute places")
    if root.find("Record3/MatrixDimension") is None:
        raise ReadError.one("MatrixDimension", "is missing: point clouds are not read")
    columns, rows, layers = (int(_said(root, f"Record3/MatrixDimension/Size{axis}")) for axis in "XYZ")
    if layers != 1:
        raise ReadError.one("SizeZ", "only one layer is read")
    listed = root.find("Record3/DataLink/PointDataLink") is None
    count = size_of(rows, columns, text=listed)
    _, kind, increment, offset = axes["CZ"]
    z = _listed(root, count) if listed else _heights(root, archive, kind, count)
    return on_grid((z * increment + offset).reshape(rows, columns), axes["CY"][2], axes["CX"][2])


def _heights(root: Element, archive: zipfile.ZipFile, kind: str, count: int) -> Reals:
    link = root.findtext("Record3/DataLink/PointDataLink") or ""
    raw = _read(archive, link.strip(), count * np.dtype(_TYPES[kind]).itemsize, _TOO_LONG)
    told = root.findtext("Record3/DataLink/MD5ChecksumPointData")
    if told and hashlib.md5(raw, usedforsecurity=False).hexdigest() != told.strip().lower():
        raise ReadError.one("MD5ChecksumPointData", "does not fit: the heights were changed or damaged")
    z = np.frombuffer(raw, dtype=_TYPES[kind]).astype(np.float64)
    if len(z) != count:
        raise ValueError(f"{count} heights are announced and {len(z)} are there")
    valid = root.find("Record3/DataLink/ValidPointsLink")
    if valid is not None and valid.text:
        packed = _read(archive, valid.text.strip(), count // 8 + 8, _TOO_LONG)
        bits = np.unpackbits(np.frombuffer(packed, dtype=np.uint8), bitorder="little")
        if len(bits) < count:
            raise ValueError("the list of valid points is too short")
        z[bits[:count] == 0] = np.nan
    return z


def _listed(root: Element, count: int) -> Reals:
    """Heights written out in the document; an empty entry was not measured."""
    entries = [(entry.text or "").strip() for entry in root.findall("Record3/DataList/Datum")]
    if len(entries) != count:
        raise ValueError(f"{count} heights are announced and {len(entries)} are there")
    return np.array([float(entry) if entry else np.nan for entry in entries])


def _axis(root: Element, name: str) -> tuple[str, str, float, float]:
    """Type, data type, increment and offset of an axis."""
    at = f"Record1/Axes/{name}/"
    kind = root.findtext(at + "DataType") or "D"
    if kind not in _TYPES:
        raise ReadError.one(f"{name}/DataType", f'"{kind}" is not one of {", ".join(_TYPES)}')
    increment = float(root.findtext(at + "Increment") or 1.0)
    return _said(root, at + "AxisType"), kind, increment, float(root.findtext(at + "Offset") or 0.0)


def _said(root: Element, path: str) -> str:
    text = root.findtext(path)
    if text is None:
        raise ReadError.one(path, "is missing")
    return text.strip()


def _check_sum(archive: zipfile.ZipFile, text: bytes) -> None:
    if "md5checksum.hex" not in archive.namelist():
        return
    told = _read(archive, "md5checksum.hex", _MOST_SUM, "it is no checksum").split()
    if told and told[0].decode("ascii", "replace").lower() != hashlib.md5(text, usedforsecurity=False).hexdigest():
        raise ReadError.one("md5checksum.hex", "does not fit: the document was changed or damaged")


def write_x3p(surface: Surface, *, comment: str = "") -> bytes:
    """A profile or a map as an X3P file, its heights as 64-bit numbers in a binary part."""
    profile = isinstance(surface, Profile)
    z: Reals = np.atleast_2d(surface.z)
    rows, columns = (surface.spacing, surface.spacing) if isinstance(surface, Profile) else surface.spacing
    raw = np.ascontiguousarray(z, dtype="<f8").tobytes()
    root = Element("p:ISO5436_2", {"xmlns:p": _NAMESPACE})
    first = SubElement(root, "Record1")
    _put(first, "Revision", "ISO5436 - 2000")
    _put(first, "FeatureType", "PRF" if profile else "SUR")
    axes = SubElement(first, "Axes")
    for name, kind, step in (("CX", "I", columns), ("CY", "I", rows), ("CZ", "A", 1.0)):
        axis = SubElement(axes, name)
        for tag, value in (("AxisType", kind), ("DataType", "D"), ("Increment", repr(float(step))), ("Offset", "0.0")):
            _put(axis, tag, value)
    second = SubElement(root, "Record2")
    _put(second, "Date", "2000-01-01T00:00:00.0+00:00")  # not known here, and the schema asks for one
    made = SubElement(second, "Instrument")
    for tag in ("Manufacturer", "Model", "Serial", "Version"):
        _put(made, tag, "not told")
    _put(second, "CalibrationDate", "2000-01-01T00:00:00.0+00:00")
    probe = SubElement(second, "ProbingSystem")
    _put(probe, "Type", "Software")
    _put(probe, "Identification", "not told")
    _put(second, "Comment", comment)
    third = SubElement(root, "Record3")
    size = SubElement(third, "MatrixDimension")
    for tag, count in (("SizeX", z.shape[1]), ("SizeY", z.shape[0]), ("SizeZ", 1)):
        _put(size, tag, str(count))
    link = SubElement(third, "DataLink")
    _put(link, "PointDataLink", "bindata/data.bin")
    _put(link, "MD5ChecksumPointData", hashlib.md5(raw, usedforsecurity=False).hexdigest())
    _put(SubElement(root, "Record4"), "ChecksumFile", "md5checksum.hex")
    text = tostring(root, encoding="utf-8", xml_declaration=True)
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("main.xml", text)
        archive.writestr("bindata/data.bin", raw)
        archive.writestr("md5checksum.hex", f"{hashlib.md5(text, usedforsecurity=False).hexdigest()} *main.xml\n")
    return out.getvalue()


def _put(parent: Element, tag: str, text: str) -> None:
    SubElement(parent, tag).text = text
