"""Measured surfaces from files: round trips against independent readers and writers, and damaged files refused."""

import io
from pathlib import Path

import numpy as np
import pytest
import sdfio
import x3pio
from hypothesis import given, settings
from hypothesis import strategies as st

from attacking import many
from kelbrast.core.errors import BadInput, OutsideValidity, ReadError
from kelbrast.core.metrology.areal import HeightMap
from kelbrast.core.metrology.evaluate import evaluate
from kelbrast.core.metrology.profile import Profile, without_form
from kelbrast.documents.surface.measured.points import points_text, read_points
from kelbrast.documents.surface.measured.read import read_surface
from kelbrast.documents.surface.measured.x3p import write_x3p
from kelbrast.documents.surface.report import measure

RNG = np.random.default_rng(3)
MAP = RNG.standard_normal((12, 17)) * 1e-6
LINE = RNG.standard_normal(640) * 1e-6


def x3p(heights: np.ndarray, **more) -> bytes:
    out = io.BytesIO()
    x3pio.write(out, heights, x_scale=2e-6, y_scale=3e-6, **more)
    return out.getvalue()


def sdf(heights: np.ndarray, revision: str = "ISO-1.0", text: bool = False) -> bytes:
    out = io.BytesIO()
    form = sdfio.FileFormat.ASCII if text else sdfio.FileFormat.BINARY
    file = sdfio.SdfFile.from_array(heights, x_scale=2e-6, y_scale=3e-6, format=form)
    file.with_revision(sdfio.Revision(revision), refit_z_scale=True).save(out)
    return out.getvalue()


def test_x3p_of_an_independent_writer() -> None:
    # cross-check: x3pio 2.0.0
    found = read_surface(x3p(MAP))
    assert isinstance(found, HeightMap)
    assert found.spacing == pytest.approx((3e-6, 2e-6))
    assert np.allclose(found.z, MAP, atol=1e-15)


def test_our_x3p_is_read_by_an_independent_reader() -> None:
    # cross-check: x3pio 2.0.0
    read = x3pio.read(io.BytesIO(write_x3p(HeightMap(MAP, (3e-6, 2e-6)), comment="a patch")))
    assert np.array_equal(read.layers[0].z, MAP)
    line = x3pio.read(io.BytesIO(write_x3p(Profile(LINE, 2e-6))))
    assert np.array_equal(np.ravel(line.layers[0].z), LINE)
    assert isinstance(read_surface(write_x3p(Profile(LINE, 2e-6))), Profile)


@pytest.mark.parametrize("revision", ["BCR-1.0", "ISO-1.0", "ISO-2.0"])
@pytest.mark.parametrize("text", [False, True])
def test_sdf_of_an_independent_writer(revision, text) -> None:
    # cross-check: sdfio 2.0.0
    found = read_surface(sdf(MAP, revision, text))
    assert isinstance(found, HeightMap)
    assert found.spacing == pytest.approx((3e-6, 2e-6))
    assert np.allclose(found.z, MAP, atol=1e-11)


def test_points_that_were_not_measured_are_filled_from_their_neighbours() -> None:
    holed = MAP.copy()
    holed[3, 4] = np.nan
    for data in (x3p(holed), sdf(holed)):
        found = read_surface(data)
        assert found.z[3, 4] == pytest.approx((MAP[3, 3] + MAP[3, 5]) / 2, abs=1e-11)
    with pytest.raises(BadInput):
        read_surface(x3p(np.where(np.arange(17) > 5, np.nan, MAP)))


@settings(max_examples=many(40))
@given(st.sampled_from([x3p(MAP), sdf(MAP), sdf(MAP, "ISO-1.0", True), write_x3p(Profile(LINE, 2e-6))]), st.data())
def test_a_damaged_file_is_refused_clearly_or_read_and_never_breaks_the_program(data, draw) -> None:
    broken = bytearray(data)
    for _ in range(draw.draw(st.integers(1, 6))):
        broken[draw.draw(st.integers(0, len(broken) - 1))] = draw.draw(st.integers(0, 255))
    cut = draw.draw(st.integers(0, len(broken)))
    for damaged in (bytes(broken), data[:cut]):
        try:
            found = read_surface(damaged)
            assert np.isfinite(found.z).all()
        except (BadInput, OutsideValidity) as refused:
            assert str(refused)


def test_a_changed_height_does_not_fit_its_checksum() -> None:
    import zipfile

    out = io.BytesIO()
    with zipfile.ZipFile(io.BytesIO(write_x3p(Profile(LINE, 2e-6)))) as old, zipfile.ZipFile(out, "w") as new:
        for name in old.namelist():
            new.writestr(name, old.read(name)[:-8] + bytes(8) if name.endswith(".bin") else old.read(name))
    with pytest.raises(ReadError, match="does not fit"):
        read_surface(out.getvalue())


def test_a_document_that_points_elsewhere_is_refused() -> None:
    import zipfile

    evil = b'<?xml version="1.0"?><!DOCTYPE a [<!ENTITY x SYSTEM "file:///etc/hostname">]><a>&x;</a>'
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as archive:
        archive.writestr("main.xml", evil)
    with pytest.raises(ReadError):
        read_surface(out.getvalue())


@pytest.mark.parametrize("text", ["0 1\n1 2\n", "", "a;b\nc;d\n", "0 1\n1 x\n2 3\n"])
def test_text_that_is_no_profile_is_refused(text) -> None:
    with pytest.raises(BadInput):
        read_surface(text.encode())


@pytest.mark.parametrize("separator", [" ", "\t", ";", ",", "; "])
def test_text_in_the_usual_ways(separator) -> None:
    lines = "\r\n".join(f"{x / 1000}{separator}{z}" for x, z in enumerate(LINE * 1e6))
    found = read_points(f"x{separator}z\r\n{lines}")
    assert np.allclose(found.z, LINE)
    assert found.spacing == pytest.approx(1e-6)
    comma = "\r".join(f"{x / 1000};{z:.9f}".replace(".", ",") for x, z in enumerate(LINE * 1e6))
    assert np.allclose(read_points(comma).z, LINE, atol=1e-14)


def test_text_comes_back_as_it_was() -> None:
    again = read_points(points_text(Profile(LINE, 2e-6)))
    assert np.allclose(again.z, LINE, atol=1e-14)
    assert again.spacing == pytest.approx(2e-6)


class TestIndependentPrograms:
    """The same profile and map through two programs that know nothing of ours."""

    def profile(self) -> Profile:
        path = Path(__file__).parent / "profiles" / "NU206-IR-1.txt"
        return read_points(path.read_bytes().decode())

    def test_form_and_height_of_a_measured_profile(self) -> None:
        # cross-check: SurfaceTopography 1.27.1
        from SurfaceTopography import UniformLineScan

        profile = self.profile()
        theirs = UniformLineScan(profile.z, profile.length).detrend("height")
        ours = without_form(profile, 1)
        assert np.sqrt((ours.z**2).mean()) == pytest.approx(theirs.rms_height_from_profile(), rel=1e-6)

    def test_profile_parameters(self) -> None:
        # cross-check: surfalize 0.19.2 on the same roughness profile
        from surfalize import Profile as Theirs

        found = evaluate(self.profile(), degree=4, cut_off=0.8e-3, noise=2.5e-6)
        theirs = Theirs(found.rough.z * 1e6, found.rough.spacing * 1e6).center()
        of = found.heights
        for ours, other in ((of.ra, theirs.Ra()), (of.rq, theirs.Rq()), (of.rt, theirs.Rt()), (of.rz, theirs.Rz())):
            assert ours * 1e6 == pytest.approx(other, rel=0.01)
        assert of.rku == pytest.approx(theirs.Rku(), rel=0.01)
        assert found.material_ratio.rk * 1e6 == pytest.approx(theirs.Rk(), rel=0.02)

    def test_what_is_drawn_loses_no_peak(self) -> None:
        found = measure(self.profile(), form=4, lambda_c_mm=0.8)
        x, z = np.array(found.profile).T
        assert z.max() - z.min() == pytest.approx(found.Rt_um, rel=1e-9)
        assert x[-1] <= found.evaluation_mm

    def test_map_parameters(self) -> None:
        # cross-check: surfalize 0.19.2 (an outside oracle; nothing of it is copied)
        from surfalize import Surface

        rows, columns = np.mgrid[0:120, 0:150]
        heights = 0.4e-6 * np.sin(columns / 7.0) + 0.1e-6 * np.cos(rows / 5.0) + 0.02e-6 * RNG.standard_normal((120, 150))
        theirs = Surface(heights * 1e6, 1.0, 1.0)
        ours = measure(HeightMap(heights, (1e-6, 1e-6)), form=0)
        assert ours.Sa_um == pytest.approx(theirs.Sa(), rel=1e-6)
        assert ours.Sq_um == pytest.approx(theirs.Sq(), rel=1e-6)
        assert ours.Sz_um == pytest.approx(theirs.Sz(), rel=1e-6)
        assert ours.Ssk == pytest.approx(theirs.Ssk(), abs=1e-6)
        assert ours.Sku == pytest.approx(theirs.Sku(), rel=1e-6)
        assert ours.Sdr == pytest.approx(theirs.Sdr(), rel=0.02)
        assert ours.Sk_um == pytest.approx(theirs.Sk(), rel=0.02)
