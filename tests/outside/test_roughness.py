"""Roughness against closed forms, seeded values and measured profiles."""

import math
from pathlib import Path

import numpy as np
import pytest

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.metrology.areal import areal, finer_than
from kelbrast.core.metrology.areal import without_form as without_form_of_map
from kelbrast.core.metrology.cutoff import chosen, cut_offs, for_spacing, period_of
from kelbrast.core.metrology.evaluate import evaluate
from kelbrast.core.metrology.optics import reflected_share
from kelbrast.core.metrology.parameters import heights, material_ratio
from kelbrast.core.metrology.profile import ALPHA, Profile, central, low_pass, resampled, without_form

RNG = np.random.default_rng(12345)
SEEDED = RNG.standard_normal(8000)
PROFILES = Path(__file__).parent / "profiles"


def test_a_sine_has_the_closed_forms() -> None:
    x = np.arange(50_000) / 10_000
    sine = heights(np.sin(2 * np.pi * x), 1e-4)
    # closed forms of a sine of amplitude 1
    assert sine.ra == pytest.approx(2 / math.pi, rel=1e-6)
    assert sine.rq == pytest.approx(1 / math.sqrt(2), rel=1e-6)
    assert sine.rz == pytest.approx(2, rel=1e-6)
    assert sine.rku == pytest.approx(1.5, rel=1e-6)
    assert sine.rsk == pytest.approx(0, abs=1e-9)
    assert sine.rsm == pytest.approx(1.0, rel=1e-3)


def test_a_sawtooth_has_the_closed_forms() -> None:
    saw = heights((np.arange(50_000) / 10_000 % 1) * 2 - 1, 1e-4)
    assert saw.ra == pytest.approx(0.5, rel=1e-3)
    assert saw.rq == pytest.approx(1 / math.sqrt(3), rel=1e-3)


def test_seeded_values() -> None:
    # numpy.random.default_rng(12345).standard_normal(8000), worked out by hand with numpy
    found = heights(SEEDED, 1e-6)
    assert found.ra == pytest.approx(0.796823879, rel=1e-4)
    assert found.rq == pytest.approx(1.006432539, rel=1e-4)
    assert found.rz == pytest.approx(6.801763, rel=1e-4)
    assert found.rt == pytest.approx(7.316661, rel=1e-4)
    assert found.rku == pytest.approx(3.047180, rel=1e-3)
    assert found.rsk == pytest.approx(0.003880, abs=5e-4)


def test_the_filter_lets_half_of_a_wave_through_at_the_cut_off() -> None:
    # ISO 16610-21: transmission 1/2 at the cut-off; closed form elsewhere
    assert pytest.approx(0.469719, abs=1e-6) == ALPHA
    x = np.arange(40_000) * 1e-6
    for ratio in (0.5, 1.0, 2.0, 4.0):
        wave = np.sin(2 * np.pi * x / (ratio * 0.8e-3))
        inside = slice(12_000, 28_000)
        passed = np.abs(low_pass(wave, 1e-6, 0.8e-3)[inside]).max()
        assert passed == pytest.approx(math.exp(-math.pi * (ALPHA / ratio) ** 2), abs=1e-3)


def test_the_filter_leaves_a_level_and_its_ends_alone() -> None:
    assert np.allclose(low_pass(np.full(500, 3.0), 1e-6, 0.1e-3), 3.0)


def test_a_gaussian_surface_has_the_closed_form_bearing_curve() -> None:
    # closed form: Rk 2.57396 sigma by the least-squares line over the flattest 40 %; a plain secant would give 2.622
    quantiles = np.linspace(0.5 / 200_000, 1 - 0.5 / 200_000, 200_000)
    from statistics import NormalDist

    surface = np.array([NormalDist().inv_cdf(q) for q in quantiles])
    found = material_ratio(surface)
    assert found.rk == pytest.approx(2.57396, rel=2e-3)
    assert found.rpk == pytest.approx(0.94506, rel=3e-3)
    assert found.rvk == pytest.approx(0.94506, rel=3e-3)
    assert found.mr1 == pytest.approx(0.09905, abs=1e-3)
    assert found.mr2 == pytest.approx(0.90095, abs=1e-3)


MEASURED = {  # Ra, Rq, Rz, Rt in um; two independent programs agree on these
    "81212-RE-1": (0.0731, 0.0925, 0.631, 0.816),
    "NU206-IR-1": (0.1077, 0.1361, 0.829, 1.010),
    "NU206-IR-2": (0.1629, 0.2035, 1.217, 1.486),
    "NU206-RE-1": (0.0947, 0.1198, 0.760, 0.896),
}


def measured(name: str) -> Profile:
    text = (PROFILES / f"{name}.txt").read_bytes().replace(b"\r\n", b"\n").replace(b"\r", b"\n").decode()
    points = np.array([[float(part) for part in line.split()[:2]] for line in text.splitlines() if line.split()])
    return resampled(points[:, 0] * 1e-3, points[:, 1] * 1e-6)


@pytest.mark.parametrize("name", MEASURED)
def test_measured_profiles_to_one_per_cent(name) -> None:
    found = evaluate(measured(name), degree=4, cut_off=0.8e-3, noise=2.5e-6, length=5.6e-3).heights
    for value, expected in zip((found.ra, found.rq, found.rz, found.rt), MEASURED[name], strict=True):
        assert value * 1e6 == pytest.approx(expected, rel=0.01)


def test_a_shorter_cut_off_sees_less() -> None:
    # two independent programs: Ra .0695 um with a cut-off of .25 mm
    found = evaluate(measured("81212-RE-1"), degree=4, cut_off=0.25e-3, noise=2.5e-6, length=5.6e-3).heights
    assert found.ra * 1e6 == pytest.approx(0.0695, rel=0.01)


def test_the_cut_off_is_chosen_by_the_standard() -> None:
    # ISO 4288:1996 table 1 (from memory)
    ends = {0.02: 0.08, 0.1: 0.25, 2.0: 0.8, 10.0: 2.5, 80.0: 8.0}
    assert {round(row.ra_high * 1e6, 9): round(row.cut_off * 1e3, 9) for row in cut_offs()} == ends
    assert for_spacing(1.0e-3).cut_off == pytest.approx(2.5e-3)
    row, by_spacing = chosen(without_form(measured("NU206-IR-1"), 4))
    assert (row.cut_off, by_spacing) == (pytest.approx(0.8e-3), False)


@pytest.mark.parametrize(("feed", "cut_off"), [(0.03, 0.08), (0.1, 0.25), (0.2, 0.8), (0.35, 0.8), (0.5, 2.5), (1.0, 2.5)])
def test_a_turned_surface_is_measured_by_its_feed(feed: float, cut_off: float) -> None:
    """ISO 4288:1996 table 3 (from memory): RSm up to 0.04, 0.13, 0.4, 1.3 mm. Feed marks are circles of the tool's nose."""
    x = np.arange(20_000) * 1e-6
    across = np.mod(x, feed * 1e-3) - feed * 1e-3 / 2
    chance = np.random.default_rng(3)
    z = across**2 / (2 * 0.8e-3) + 0.02e-6 * chance.standard_normal(len(x))
    row, by_spacing = chosen(without_form(Profile(z, 1e-6), 1))
    assert by_spacing
    assert row.cut_off * 1e3 == pytest.approx(cut_off)


def test_ground_marks_do_not_repeat() -> None:
    for seed in range(20):
        chance = np.random.default_rng(seed)
        z = low_pass(chance.standard_normal(8000), 1e-6, 0.05e-3) * 1e-6
        assert period_of(z, 1e-6) is None


def test_light_that_is_still_reflected() -> None:
    # Bennett and Porteus 1961 at 632.8 nm
    told = {1: 0.999606, 5: 0.990190, 10: 0.961332, 20: 0.854070, 50: 0.373108, 100: 0.019379}
    for nm, share in told.items():
        assert reflected_share(rq=nm * 1e-9, wavelength=632.8e-9) == pytest.approx(share, abs=1e-6)
    at_60 = reflected_share(rq=20e-9, wavelength=632.8e-9, angle=math.pi / 3)
    assert at_60 == pytest.approx(reflected_share(rq=10e-9, wavelength=632.8e-9))


def test_a_tilted_plane_is_larger_by_the_cosine_and_has_no_roughness() -> None:
    rows, _ = np.mgrid[0:100, 0:100] * 1e-6
    tilted = rows * math.tan(math.radians(30))
    assert areal(tilted, (1e-6, 1e-6)).sdr == pytest.approx(1 / math.cos(math.radians(30)) - 1, rel=1e-9)  # hand calculation
    assert np.abs(without_form_of_map(tilted, 1)).max() < 1e-12


def test_an_areal_filter_is_the_line_filter_both_ways() -> None:
    _rows, columns = np.mgrid[0:400, 0:400] * 10e-6
    wave = np.sin(2 * np.pi * columns / 0.8e-3)
    left = finer_than(wave, (10e-6, 10e-6), 0.8e-3)[150:250, 150:250]
    assert np.abs(left).max() == pytest.approx(0.5, abs=0.01)


@pytest.mark.parametrize(
    "call",
    [
        lambda: heights(np.zeros(100), 1e-6),
        lambda: heights(np.arange(5.0), 1e-6),
        lambda: material_ratio(np.zeros(200)),
        lambda: resampled(np.array([0.0, 1, 2, 2, 3, 4, 5, 6]), np.zeros(8)),
        lambda: resampled(np.arange(8.0), np.array([0, 1, np.nan, 0, 0, 0, 0, 0])),
        lambda: central(Profile(np.zeros(100), 1e-6), 1.0),
        lambda: evaluate(Profile(SEEDED[:50], 1e-6), cut_off=0.8e-3),
        lambda: areal(np.zeros((4, 4)), (1, 1)),
    ],
)
def test_what_can_not_be_evaluated_is_refused(call) -> None:
    with pytest.raises(OutsideValidity):
        call()
