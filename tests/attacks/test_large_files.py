"""Files that are small and unpack to something huge, or are large throughout: read within 600 MB, or refused by name."""

import io
import os
import resource
import struct
import zipfile
from collections.abc import Callable
from pathlib import Path

import numpy as np
import pytest
from PIL import Image

from kelbrast.app.photos import encoded_anew
from kelbrast.core.errors import BadInput, ReadError
from kelbrast.core.metrology.areal import HeightMap
from kelbrast.documents.job.read import read_job_file
from kelbrast.documents.rack.csv import read_rack
from kelbrast.documents.surface.measured.read import LARGEST, read_surface, surface_bytes
from kelbrast.documents.surface.measured.x3p import write_x3p
from kelbrast.documents.surface.report import measure

MOST_BYTES = 600_000_000


def within_memory(act: Callable[[], object], refused: type[Exception] | None, saying: str = "") -> None:
    """Do it in a process of its own that may take no more than so much; it must come through, or be refused in these words."""
    read, write = os.pipe()
    child = os.fork()
    if child == 0:
        now = int(Path("/proc/self/statm").read_text().split()[0]) * resource.getpagesize()
        resource.setrlimit(resource.RLIMIT_AS, (now + MOST_BYTES, now + MOST_BYTES))
        try:
            act()
            said = "done"
        except MemoryError:
            said = "out of memory"
        except BaseException as problem:
            said = f"{type(problem).__name__}: {problem}"
        os.write(write, said.encode()[:4000])
        os._exit(0)
    os.close(write)
    with os.fdopen(read, "rb") as told:
        said = told.read().decode()
    os.waitpid(child, 0)
    if refused is None:
        assert said == "done"
    else:
        assert said.startswith(refused.__name__), said
        assert saying in said


def x3p(xml: str, **parts: bytes) -> bytes:
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr("main.xml", xml)
        for name, data in parts.items():
            archive.writestr(name, data)
    return out.getvalue()


def document(columns: int, rows: int, heights: str) -> str:
    axes = "".join(
        f"<{axis}><AxisType>{kind}</AxisType><DataType>D</DataType><Increment>1e-6</Increment></{axis}>"
        for axis, kind in (("CX", "I"), ("CY", "I"), ("CZ", "A"))
    )
    return (
        '<p:ISO5436_2 xmlns:p="http://www.opengps.eu/2008/ISO5436_2"><Record1><FeatureType>SUR</FeatureType>'
        f"<Axes>{axes}</Axes></Record1><Record3><MatrixDimension><SizeX>{columns}</SizeX><SizeY>{rows}</SizeY>"
        f"<SizeZ>1</SizeZ></MatrixDimension>{heights}</Record3></p:ISO5436_2>"
    )


LINK = "<DataLink><PointDataLink>data</PointDataLink></DataLink>"


@pytest.mark.soak
# The files are made when their test runs: every worker reads these lines, and some files take a second to pack.
@pytest.mark.parametrize(
    ("make", "saying"),
    [
        (lambda: x3p(document(20_000, 20_000, LINK), data=bytes(400_000_000)), "more than the 4,500,000"),
        (lambda: x3p(document(1000, 1000, LINK), data=bytes(300_000_000)), "more heights than are announced"),
        (lambda: x3p(document(10**40, 10**40, LINK), data=b""), "a thousand million"),
        (
            lambda: x3p(document(10, 10, "<DataList>" + "<Datum>1e-6</Datum>" * 3_000_000 + "</DataList>")),
            "save the heights as a binary",
        ),
        (lambda: x3p("<a>" * 2_000_000 + "</a>" * 2_000_000), "main.xml"),
        (lambda: x3p(document(10, 10, LINK), data=bytes(800), **{"md5checksum.hex": bytes(100_000_000)}), "no checksum"),
        (
            lambda: b"aISO-1.0\nNumPoints=30000\nNumProfiles=30000\nXscale=1e-6\nYscale=1e-6\nZscale=1\nDataType=7\n*\n1\n*\n",
            "are read",
        ),
        (
            lambda: (
                b"aISO-1.0\nNumPoints=100\nNumProfiles=1\nXscale=1e-6\nZscale=1\nDataType=7\n*\n" + b"1 " * 4_000_000 + b"\n*\n"
            ),
            "more are there",
        ),
        (
            lambda: struct.pack("<8s10s12s12sIIddddBBB", b"bISO-2.0", b"", b"", b"", 2**31, 2**31, 1e-6, 1e-6, 1, 0, 0, 7, 0),
            "points are more",
        ),
        (lambda: b"0 1\n" * 1_000_000, "more than the 500,000 points"),
        (lambda: b"\n" * 8_000_000, "no line"),
    ],
    ids=range(11),
)
def test_a_measured_file_that_unpacks_to_too_much(make: Callable[[], bytes], saying: str) -> None:
    data = make()
    within_memory(lambda: read_surface(data), ReadError, saying)


@pytest.mark.soak
def test_the_largest_map_that_is_read(tmp_path: Path) -> None:
    chance = np.random.default_rng(3)
    data = write_x3p(HeightMap(chance.normal(size=(2048, 2048)) * 1e-6, (1e-6, 1e-6)))
    within_memory(lambda: measure(read_surface(data)), None)


def test_a_file_that_is_too_large_is_not_read_at_all(tmp_path: Path) -> None:
    path = tmp_path / "huge.x3p"
    with path.open("wb") as file:
        file.truncate(40 * LARGEST)  # a hole: it takes no room on the disk
    within_memory(lambda: surface_bytes(path), ReadError, "larger than 64 MB")


@pytest.mark.parametrize("kind", ["PNG", "JPEG", "WEBP"])
def test_a_picture_of_many_megapixels(kind: str) -> None:
    out = io.BytesIO()
    size = {"JPEG": (8000, 7400), "PNG": (8000, 5000), "WEBP": (4000, 3000)}[kind]
    Image.new("RGB", size, (90, 90, 90)).save(out, kind)
    within_memory(lambda: encoded_anew(out.getvalue()), None)


@pytest.mark.soak
@pytest.mark.parametrize(
    ("kind", "size", "said"),
    [
        ("PNG", (15_000, 15_000), "megapixels"),
        ("PNG", (1, 5_000_000), "a side of more than 16000 pixels"),
        ("PNG", (5_000_000, 1), "a side of more than 16000 pixels"),
        ("WEBP", (4000, 4000), "more than 12 megapixels"),
    ],
)
def test_a_picture_of_more_is_not_opened(kind: str, size: tuple[int, int], said: str) -> None:
    out = io.BytesIO()
    Image.new("L", size).save(out, kind)
    within_memory(lambda: encoded_anew(out.getvalue()), BadInput, said)


def test_a_rack_that_is_wrong_throughout_is_answered_with_the_first_faults() -> None:
    rows = "what,name,count\n" + "no-such-thing,name,many\n" * 300_000
    with pytest.raises(BadInput) as found:
        read_rack(rows)
    assert len(found.value.faults) == 51
    assert "more like these" in found.value.faults[-1].message


@pytest.mark.parametrize(
    ("row", "said"),
    [
        ("paper-p240,,1,5,20", "5 cells where the first row names 4"),
        ("paper-p240,a", "2 cells"),
        ('paper-p240,,"1,000",2', "two ways"),
    ],
)
def test_a_row_that_does_not_fit_is_refused(row: str, said: str) -> None:
    with pytest.raises(BadInput, match=said):
        read_rack(f"what,name,count,price\n{row}\n")


def test_json_that_is_deep_or_long() -> None:
    for text in ("[" * 100_000, '{"kelbrast": "job/2", "faces": ' + "[" * 50_000 + "]" * 50_000 + "}"):
        with pytest.raises(BadInput):
            read_job_file(text)
    wrong = '{"kelbrast": "rack/1", "items": [' + ",".join(['{"wat": 1}'] * 100_000) + "]}"
    with pytest.raises(BadInput) as found:
        read_rack(wrong)
    assert len(found.value.faults) <= 51
