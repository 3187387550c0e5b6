"""The form of a round part from its readings: what they can tell, how surely, and what they cannot."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from attacking import many
from kelbrast.core.precision.form import along, fit_form
from kelbrast.core.precision.lap import cleaned_share, clipped, oval_left
from kelbrast.core.precision.readings import outlier
from kelbrast.core.surface.sized import Reading

UM, LENGTH = 1e-6, 40e-3
EVERYWHERE = [(z, phi) for z in (-0.015, 0.0, 0.015) for phi in (0.0, math.pi / 4, math.pi / 2, 3 * math.pi / 4)]


def read(
    places: list[tuple[float, float]], *, size: float = 20e-3, taper=0.0, barrel=0.0, oval=0.0, widest=0.0
) -> list[Reading]:
    return [
        Reading(
            size + along(z / LENGTH, taper=taper, barrel=barrel) + oval / 2 * math.cos(2 * (phi - widest)),
            z,
            phi,
        )
        for z, phi in places
    ]


@settings(max_examples=many(20))
@given(*(st.floats(-20, 20) for _ in range(2)), st.floats(5, 60), st.floats(0.1, 3.0))
def test_what_was_made_is_found_again(taper: float, barrel: float, oval: float, widest: float) -> None:
    made = {"taper": taper * UM, "barrel": barrel * UM, "oval": oval * UM, "widest": widest}
    found = fit_form(read(EVERYWHERE, **made), length=LENGTH, repeatability=0.01 * UM)
    assert found.taper is not None
    assert found.barrel is not None
    assert found.oval is not None
    assert found.widest is not None
    assert found.size.value == pytest.approx(20e-3, abs=1e-9)
    assert found.taper.value == pytest.approx(made["taper"], abs=1e-9)
    assert found.barrel.value == pytest.approx(made["barrel"], abs=1e-9)
    assert found.oval.value == pytest.approx(made["oval"], abs=0.02 * UM)
    assert math.cos(2 * (found.widest - widest)) == pytest.approx(1.0, abs=1e-6)
    assert found.blind == ("lobes",)
    for z, phi in EVERYWHERE:
        at = along(z / LENGTH, taper=made["taper"], barrel=made["barrel"]) + made["oval"] / 2 * math.cos(2 * (phi - widest))
        assert found.at(z / LENGTH, phi) == pytest.approx(20e-3 + at, abs=0.02 * UM)


def test_it_is_the_least_squares_of_matrices_made_by_hand() -> None:
    chance = np.random.default_rng(5)
    readings = [Reading(one.diameter + chance.normal(0, 2 * UM), one.height, one.direction) for one in read(EVERYWHERE)]
    rows = [
        (1.0, math.cos(2 * r.direction), math.sin(2 * r.direction), r.height / LENGTH, 1 / 3 - (2 * r.height / LENGTH) ** 2)
        for r in readings
    ]
    expected, *_ = np.linalg.lstsq(np.array(rows), np.array([r.diameter for r in readings]), rcond=None)
    found = fit_form(readings, length=LENGTH, repeatability=2 * UM)
    covariance = (2 * UM) ** 2 * np.linalg.inv(np.array(rows).T @ np.array(rows))
    assert found.size.value == pytest.approx(expected[0], abs=1e-12)
    assert found.taper is not None
    assert (found.taper.value, found.taper.within) == pytest.approx(
        (expected[3], 1.96 * math.sqrt(covariance[3, 3])), abs=1e-12
    )
    assert found.size.within == pytest.approx(1.96 * math.sqrt(covariance[0, 0]))
    chance_oval = 4 * (covariance[1, 1] + covariance[2, 2])
    wanted = math.sqrt(max(4 * (expected[1] ** 2 + expected[2] ** 2) - chance_oval, 0.0))
    assert found.oval is not None
    assert found.oval.value == pytest.approx(wanted, abs=1e-12)


@pytest.mark.parametrize(
    ("places", "blind"),
    [
        ([(0.0, 0.0)], {"taper", "barrel", "oval", "lobes"}),
        ([(0.0, 0.0), (0.0, math.pi / 2)], {"taper", "barrel", "oval-between", "lobes"}),
        ([(-0.015, 0.0), (0.015, 0.0)], {"barrel", "oval", "lobes"}),
        ([(z, phi) for z in (-0.015, 0.015) for phi in (0.0, math.pi / 2)], {"barrel", "oval-between", "lobes"}),
        ([(z, phi) for z in (-0.015, 0.0, 0.015) for phi in (0.0, math.pi / 2)], {"oval-between", "lobes"}),
        ([(0.0, phi) for phi in (0.0, 1.0, 2.0)], {"taper", "barrel", "lobes"}),
        (EVERYWHERE, {"lobes"}),
    ],
)
def test_what_readings_can_not_tell_is_said(places: list[tuple[float, float]], blind: set[str]) -> None:
    found = fit_form(read(places, oval=20 * UM, widest=0.2), length=LENGTH, repeatability=2 * UM)
    assert set(found.blind) == blind
    assert (found.taper is None) == ("taper" in blind)
    assert (found.barrel is None) == ("barrel" in blind)
    assert (found.oval is None) == bool(blind & {"oval", "oval-between"})


def test_two_directions_tell_how_large_an_oval_is_at_least() -> None:
    crosswise = [(z, phi) for z in (-0.015, 0.0, 0.015) for phi in (0.3, 0.3 + math.pi / 2)]
    along_it = fit_form(read(crosswise, oval=20 * UM, widest=0.3), length=LENGTH, repeatability=2 * UM)
    assert along_it.across == pytest.approx(20 * UM, abs=1e-9)
    assert along_it.widest == pytest.approx(0.3)
    other_way = fit_form(read(crosswise, oval=20 * UM, widest=0.3 + math.pi / 2), length=LENGTH, repeatability=2 * UM)
    assert other_way.widest == pytest.approx(0.3 + math.pi / 2)
    between = fit_form(read(crosswise, oval=20 * UM, widest=0.3 + math.pi / 4), length=LENGTH, repeatability=2 * UM)
    assert between.across == pytest.approx(0.0, abs=1e-9)
    assert between.seen_oval == between.across


def test_belly_and_taper_lift_and_lower_sections() -> None:
    belly = fit_form(read(EVERYWHERE, barrel=12 * UM, taper=6 * UM), length=LENGTH, repeatability=0.01 * UM)
    places = [along(u / 1000, taper=6 * UM, barrel=12 * UM) for u in range(-500, 501)]
    assert belly.lift == pytest.approx(max(places), abs=1e-9)
    assert belly.fall == pytest.approx(min(places), abs=1e-9)


def test_readings_that_scatter_more_than_the_gauge_are_said_to_and_count_less() -> None:
    chance = np.random.default_rng(3)
    wild = [Reading(one.diameter + chance.normal(0, 20 * UM), one.height, one.direction) for one in read(EVERYWHERE)]
    found = fit_form(wild, length=LENGTH, repeatability=2 * UM)
    assert "scatter" in found.blind
    assert found.deviation > 10 * UM


def test_more_readings_never_widen_the_size_on_average() -> None:
    """In the order of a bench: crosswise in the middle, between, both ends, and again."""
    chance = np.random.default_rng(8)
    order = [place for place in EVERYWHERE if place[0] == 0] + [place for place in EVERYWHERE if place[0]] + EVERYWHERE * 2
    widths = []
    for count in (1, 2, 4, 12, 24, 36):
        draws = [
            fit_form(
                [Reading(r.diameter + chance.normal(0, 2 * UM), r.height, r.direction) for r in read(order[:count])],
                length=LENGTH,
                repeatability=2 * UM,
            ).size.within
            for _ in range(80)
        ]
        widths.append(float(np.mean(draws)))
    assert widths == sorted(widths, reverse=True)


@settings(max_examples=many(20))
@given(st.sets(st.sampled_from(EVERYWHERE), min_size=1))
def test_the_same_places_read_twice_never_widen_it(places: set[tuple[float, float]]) -> None:
    once = fit_form(read(sorted(places)), length=LENGTH, repeatability=2 * UM)
    twice = fit_form(read(sorted(places) * 2), length=LENGTH, repeatability=2 * UM)
    assert twice.size.within == pytest.approx(once.size.within / math.sqrt(2))


@settings(max_examples=many(25))
@given(st.floats(-1, 1), st.floats(1, 100))
def test_a_clipped_section_has_its_mean_and_harmonic(c: float, oval: float) -> None:
    phi = (np.arange(20_000) + 0.5) * 2 * np.pi / 20_000
    section = np.maximum(np.cos(2 * phi), c)
    mean, harmonic = clipped(c)
    assert mean == pytest.approx(section.mean(), abs=1e-6)
    assert harmonic == pytest.approx(2 * (section * np.cos(2 * phi)).mean(), abs=1e-6)
    share = float((np.cos(2 * phi) <= c).mean())
    assert cleaned_share(grown=c * oval / 2, oval=oval) == pytest.approx(share, abs=2e-3)
    assert oval_left(grown=c * oval / 2, oval=oval) == pytest.approx((1 - c) * oval / 2, abs=1e-9)


def test_a_reading_far_from_the_others_is_asked_again() -> None:
    right = read(EVERYWHERE, oval=30 * UM)
    assert outlier(right, repeatability=2 * UM, growth=20 * UM) is None
    assert outlier([*right, Reading(20.1e-3)], repeatability=2 * UM, growth=20 * UM) == len(right)
    assert outlier([], repeatability=2 * UM, growth=20 * UM) is None
