"""Grain sizes: standards quoted from memory, each value checked on its own (never a sum over a table)."""

import itertools

import pytest

from kelbrast.core.catalogue.grades import nearest, nearest_everywhere, parse_grade, scale
from kelbrast.core.reference.schemas import SYSTEMS

# FEPA 43-1, 43-2; 42-1, 42-2; ANSI B74.18; JIS R 6001 (all from memory): grade and median um, read off independently
SPOT = {
    "P12": 1815, "P40": 425, "P80": 201, "P120": 125, "P180": 82, "P220": 68, "P240": 58.5, "P320": 46.2,
    "P400": 35.0, "P600": 25.8, "P800": 21.8, "P1000": 18.3, "P1500": 12.6, "P2000": 10.3, "P2500": 8.4,
    "F36": 525, "F120": 109, "F230": 53, "F400": 17.3, "F600": 9.3, "F1200": 3.0, "F2000": 1.2,
    "CAMI60": 265, "CAMI180": 82, "CAMI240": 53, "CAMI320": 36, "CAMI400": 23.6, "CAMI600": 16, "CAMI1200": 6.5,
    "JIS240": 57, "JIS600": 20, "JIS800": 14, "JIS1200": 9.5, "JIS2000": 6.7, "JIS4000": 3.0, "JIS8000": 1.2,
}  # fmt: skip


@pytest.mark.parametrize(("grade", "um"), SPOT.items())
def test_grain(grade: str, um: float) -> None:
    assert parse_grade(grade).grain * 1e6 == pytest.approx(um)


@pytest.mark.parametrize("system", SYSTEMS)
def test_every_table_falls(system: str) -> None:
    grains = [grain for _, grain in scale(system)]
    assert all(coarse > fine for coarse, fine in itertools.pairwise(grains))


def test_the_1000_trap() -> None:
    sizes = [parse_grade(f"{system}1000").grain * 1e6 for system in ("P", "JIS", "CAMI", "F")]
    assert sizes == pytest.approx([18.3, 11.5, 9.2, 4.5])


def test_the_600_trap() -> None:
    sizes = {system: parse_grade(f"{system}600").grain * 1e6 for system in SYSTEMS}
    assert sizes == pytest.approx({"P": 25.8, "F": 9.3, "CAMI": 16, "JIS": 20})


def test_conversion_goes_through_the_grain() -> None:
    assert nearest_everywhere(25.8e-6) == {"P": "P600", "F": "F360", "CAMI": "CAMI400", "JIS": "JIS500"}
    assert nearest("P", parse_grade("CAMI600").grain).name == "P1200"  # 16 um: 15.3 is nearer in log than 18.3


def test_between_two_grades_the_grain_is_interpolated_in_log() -> None:
    between = parse_grade("P700").grain
    assert parse_grade("P800").grain < between < parse_grade("P600").grain
