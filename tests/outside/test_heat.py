"""Heat against closed forms (Carslaw & Jaeger), an independent finite-difference solution, and bench seconds."""

import numpy as np
import pytest

from kelbrast.core.catalogue.materials import material
from kelbrast.core.process.heat import friction_flux, longest_stay, slab_rise

# (k, rho, c), flux, rise after 1 s and 10 s of a thick body: closed form, cross-checked by finite differences
THICK = [
    ((16.2, 8000, 500), 1e5, 14.0174, 44.3269),
    ((50, 7850, 465), 1e5, 8.3524, 26.4125),
    ((167, 2700, 896), 1e5, 5.6139, 17.7526),
    ((401, 8960, 385), 1e5, 3.0339, 9.5940),
    ((120, 8530, 375), 1e5, 5.7594, 18.2127),
    ((429, 10490, 235), 1e5, 3.4698, 10.9725),
    ((6.7, 4430, 526), 1e5, 28.5577, 90.3073),
    ((0.19, 1180, 1466), 1e4, 19.6820, 62.2401),
    ((0.20, 1200, 1200), 1e4, 21.0261, 66.4904),
]


@pytest.mark.parametrize(("stuff", "flux", "after_1", "after_10"), THICK)
def test_thick_body(stuff: tuple[float, float, float], flux: float, after_1: float, after_10: float) -> None:
    k, rho, c = stuff
    for seconds, rise in ((1, after_1), (10, after_10)):
        ours = slab_rise(flux=flux, seconds=seconds, thickness=1.0, conductivity=k, diffusivity=k / rho / c)
        assert ours == pytest.approx(rise, rel=1e-4)


def test_thin_slab_warms_as_a_whole() -> None:
    k, rho, c, s = 401.0, 8960.0, 385.0, 0.0005
    rise = slab_rise(flux=1e4, seconds=60, thickness=s, conductivity=k, diffusivity=k / rho / c)
    assert rise == pytest.approx(1e4 * 60 / (rho * c * s), rel=1e-4)  # q t / (rho c s)


def test_the_two_series_meet() -> None:
    """Below and above the change of series the slab is the same function."""
    k, alpha, s = 16.2, 4.05e-6, 0.003
    at = 0.3 * s**2 / alpha
    below, above = (
        slab_rise(flux=1e5, seconds=at * f, thickness=s, conductivity=k, diffusivity=alpha) for f in (1 - 1e-9, 1 + 1e-9)
    )
    assert below == pytest.approx(above, rel=1e-6)


def test_slab_against_finite_differences() -> None:
    k, rho, c, s, flux = 0.19, 1180.0, 1466.0, 0.003, 1e4
    alpha, cells = k / rho / c, 60
    dx = s / cells
    dt = 0.2 * dx**2 / alpha
    rise, elapsed = np.zeros(cells), 0.0
    while elapsed < 20:
        flow = -k * np.diff(rise) / dx  # between cell centres; the back is insulated
        net = np.concatenate([[flux], flow]) - np.concatenate([flow, [0.0]])
        rise += dt * net / (rho * c * dx)
        elapsed += dt
    surface = rise[0] + flux * dx / 2 / k
    assert slab_rise(flux=flux, seconds=elapsed, thickness=s, conductivity=k, diffusivity=alpha) == pytest.approx(
        surface, rel=3e-3
    )


def test_acrylic_seconds() -> None:  # common practice: light pressure at 12 m/s some 20 s, cutting at 25 m/s under one
    acrylic = material("acrylic")
    light = friction_flux(friction=0.4, force=5, speed=12, patch=18e-4)
    cutting = friction_flux(friction=0.4, force=25, speed=25, patch=18e-4)
    assert 12 < longest_stay(flux=light, thickness=0.01, material=acrylic) < 30
    assert longest_stay(flux=cutting, thickness=0.01, material=acrylic) < 1


# Range checks: package bd-materials 0.2.5 (measured there): conductivity W/mK
@pytest.mark.parametrize(
    ("key", "low", "high"),
    [
        ("stainless-304", 14, 17),
        ("aluminium-wrought", 130, 180),
        ("brass", 110, 130),
        ("copper", 390, 402),
        ("acrylic", 0.17, 0.21),
    ],
)
def test_conductivity_in_range(key: str, low: float, high: float) -> None:
    assert low <= material(key).conductivity <= high
