"""Speeds: hand calculation, EN 12413 (from memory), and pint as an independent converter."""

import math

import pint
import pytest

from kelbrast.core.catalogue.tools import speed_bands
from kelbrast.core.process.speed import spindle_speed, surface_speed
from kelbrast.core.units import from_si, to_si


@pytest.mark.parametrize(
    ("diameter", "rpm", "metres_per_second"), [(0.2032, 1800, 19.1511), (0.15, 3000, 23.5619), (0.125, 11000, 71.9948)]
)
def test_surface_speed(diameter: float, rpm: float, metres_per_second: float) -> None:  # hand calculation, pi d n / 60
    assert surface_speed(diameter=diameter, spindle=rpm / 60) == pytest.approx(metres_per_second, abs=1e-4)


@pytest.mark.parametrize(("diameter", "rpm"), [(0.115, 13290), (0.125, 12220), (0.230, 6640)])
def test_marked_80_m_s(diameter: float, rpm: float) -> None:  # EN 12413: rounded to ten
    assert spindle_speed(diameter=diameter, surface=80) * 60 == pytest.approx(rpm, abs=6)


def test_feet_per_minute_against_pint() -> None:
    units = pint.UnitRegistry()
    foot = units.Quantity(1, "foot/minute").to("m/s").magnitude
    assert to_si(3769.9, "ft/min") == pytest.approx(3769.9 * foot)
    assert from_si(19.1511, "ft/min") == pytest.approx(3769.9, abs=0.05)


def test_pints_rpm_is_radians_and_ours_is_not() -> None:  # the factor 2 pi trap
    units = pint.UnitRegistry()
    assert units.Quantity(60, "rpm").to("rad/s").magnitude == pytest.approx(2 * math.pi * to_si(60, "rev/min"))


def test_bands_are_in_order_and_plausible() -> None:
    for low, high in speed_bands().values():
        assert 0.1 < low < high <= 80  # slow where the lathe turns a thin part
