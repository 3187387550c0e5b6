"""The shop's rules of thumb, as outside checks on the whole model (common practice, no source)."""

import math

import numpy as np
import pytest

from kelbrast.core.catalogue.materials import material
from kelbrast.core.catalogue.tools import Tool, tool, wear_coefficient
from kelbrast.core.process.clearance import area_factor, clearance
from kelbrast.core.process.removal import change_after, cutting, removal_rate
from kelbrast.core.process.scratch import depth_of_marks, roughness_left
from kelbrast.core.reference.loader import constant


def marks(tool: Tool, hardness: float) -> float:
    return depth_of_marks(roughness_left(grain=tool.grain, hold=tool.carrier.cutting.hold, hardness=hardness))


def test_three_successive_foam_discs_take_equal_time_on_copper() -> None:
    copper, area = material("copper"), 0.25  # half a metre square
    discs = [tool("foam-p600"), tool("foam-p1000"), tool("foam-p1500")]
    before = (
        marks(tool("orbital-p400"), copper.hardness) * discs[0].carrier.cutting.hold
    )  # the disc one grade coarser, foam-backed
    minutes, used = [], []
    for disc in discs:
        rate = removal_rate(wear=disc.wear, contact=0.5, force=20, speed=2.9, hardness=copper.hardness)
        done = cutting(
            fresh=2.2 * before * area / rate,
            life=disc.carrier.stock.life or math.inf,
            change_after=change_after(life=disc.carrier.stock.life or math.inf, change_cost=120),
        )
        minutes.append(done.seconds / 60)
        used.append(done.used)
        before = marks(disc, copper.hardness)
    assert max(minutes) < 1.35 * min(minutes)
    assert max(used) - min(used) <= 1 + max(used) // 4


def test_doubling_is_the_best_ratio_by_the_formula() -> None:
    """A descent in equal jumps r takes ln r times fewer steps of r^n each, shortest at e^(1/n)."""
    ratios = np.linspace(1.1, 6, 2000)
    fastest = ratios[np.argmin(ratios ** constant("scratch.exponent").value / np.log(ratios))]
    assert constant("habit.double-up.jump").value == pytest.approx(fastest, abs=0.1)


def test_doubling_is_the_best_ratio_in_the_full_model() -> None:
    """Hand paper on steel from 200 to 5 um, in equal jumps: cutting time is least near a factor of two."""
    paper, steel = tool("paper-p80").carrier, material("mild-steel")

    def minutes(jumps: int) -> float:
        ratio = (200 / 5) ** (1 / jumps)
        total = 0.0
        for k in range(1, jumps + 1):
            grain = 200e-6 / ratio**k
            before = depth_of_marks(roughness_left(grain=grain * ratio, hold=1.0, hardness=steel.hardness))
            wear = wear_coefficient(paper, grain)
            total += before / removal_rate(wear=wear, contact=0.8, force=25, speed=0.6, hardness=steel.hardness)
        return total

    best = min(range(1, 16), key=minutes)
    assert 1.8 < (200 / 5) ** (1 / best) < 3.0


def test_the_same_again_is_the_middle_of_the_clearance() -> None:
    """ "Until the old marks are gone, then the same again" is m = 2."""
    factors = [area_factor(area=area, grain=g) for area in (5e-4, 0.02, 1.0) for g in (10e-6, 100e-6)]
    low, high = min(factors) * 1.0, max(factors) * 2.0
    assert low < 1.3
    assert 2.2 < high < 3.0
    assert math.isclose((low + high) / 2, 2.0, abs_tol=0.15)
    assert clearance(area=0.02, grain=80e-6, deformed=0.0) < 2.0 < clearance(area=0.02, grain=80e-6, deformed=1.0)


def test_coin_and_door() -> None:  # model: about 1.1 on a coin, 1.3 on a door
    assert area_factor(area=5e-4, grain=82e-6) == pytest.approx(1.1, abs=0.05)
    assert area_factor(area=1.6, grain=82e-6) == pytest.approx(1.3, abs=0.06)


def test_a_thin_foam_disc_is_changed_after_about_its_life() -> None:  # common practice: about 4 minutes
    disc = tool("foam-p1000").carrier
    assert disc.stock.life is not None
    after = change_after(life=disc.stock.life, change_cost=disc.stock.change + disc.stock.price / (30 / 3600))
    assert 2.5 < after / 60 < 5.5
