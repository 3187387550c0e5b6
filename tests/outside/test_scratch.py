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
    for one in tools().values():
        law = one.carrier.wear_law
        if (
            law == "coated" and one.grain > 25e-6
        ):  # finer than this the size effect carries it below, as published for fine grains
            assert 6e-3 <= one.wear <= 2e-1, one.id
        if one.carrier.kind == "file":
            assert 6e-3 <= one.wear <= 2e-1, one.id
        elif law in ("lap", "constant"):
            assert 1e-3 <= one.wear <= 1.01e-2, one.id
        if law == "compound":  # polishing lies below three-body abrasion
            assert 2e-4 <= one.wear <= 1.5e-3, one.id


def test_the_size_effect_stops_at_the_critical_grain() -> None:
    paper = tools()["paper-p80"].carrier
    assert wear_coefficient(paper, 500e-6) == wear_coefficient(paper, 130e-6) == constant("removal.coated").value
