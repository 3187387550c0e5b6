"""Limits and errors of the single models."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kelbrast.core.catalogue.grades import parse_grade
from kelbrast.core.catalogue.machines import machine
from kelbrast.core.errors import BadInput, OutsideValidity
from kelbrast.core.process import heat, removal, scratch, speed
from kelbrast.core.process.clearance import area_factor, clearance
from kelbrast.core.process.removal import change_after, cutting, share_done


@pytest.mark.parametrize(
    "call",
    [
        lambda: scratch.roughness_left(grain=0, hold=1, hardness=1e9),
        lambda: removal.removal_rate(wear=0.01, contact=1.2, force=1, speed=1, hardness=1e9),
        lambda: area_factor(area=0, grain=1e-5),
        lambda: clearance(area=1, grain=1e-5, deformed=-1),
        lambda: speed.surface_speed(diameter=0, spindle=1),
        lambda: speed.spindle_speed(diameter=-1, surface=1),
        lambda: heat.friction_flux(friction=0, force=1, speed=1, patch=1),
        lambda: heat.slab_rise(flux=1, seconds=1, thickness=0, conductivity=1, diffusivity=1),
        lambda: change_after(life=0, change_cost=1),
        lambda: cutting(fresh=-1, life=math.inf, change_after=1),
    ],
)
def test_outside_validity_is_said(call) -> None:
    with pytest.raises(OutsideValidity):
        call()


@given(st.floats(1, 3000), st.floats(30, 2000), st.floats(5, 500))
def test_dulling_does_the_whole_layer(fresh: float, life: float, change_cost: float) -> None:
    after = change_after(life=life, change_cost=change_cost)
    done = cutting(fresh=fresh, life=life, change_after=after)
    assert done.seconds >= fresh * (1 - 1e-9)
    assert done.used >= 1
    assert share_done(seconds=float(done.seconds), fresh=fresh, life=life, change_after=after) == pytest.approx(1, abs=1e-6)


@given(st.floats(1, 3000), st.floats(30, 2000), st.floats(5, 500))
def test_dulling_is_what_a_person_with_a_stop_watch_would_find(fresh: float, life: float, change_cost: float) -> None:
    """Piece by piece: each is worked until it is changed, the last until the rest is done."""
    after = change_after(life=life, change_cost=change_cost)
    left, seconds, used = fresh, 0.0, 1
    while left > life * (1 - math.exp(-after / life)) * (1 + 1e-9):
        left -= life * (1 - math.exp(-after / life))
        seconds += after
        used += 1
    seconds -= life * math.log(1 - left / life)
    done = cutting(fresh=fresh, life=life, change_after=after)
    assert done.seconds == pytest.approx(seconds, rel=1e-6)
    assert done.used == used


@given(st.floats(30, 2000), st.floats(5, 500))
def test_the_change_pays_when_it_is_made(life: float, change_cost: float) -> None:
    """No other moment to change gives more work per time and cost."""

    def worth(after: float) -> float:
        return -life * math.expm1(-after / life) / (after + change_cost)

    best = change_after(life=life, change_cost=change_cost)
    assert worth(best) >= worth(best * 1.05) - 1e-12
    assert worth(best) >= worth(best * 0.95) - 1e-12


@pytest.mark.parametrize("text", ["", "600", "X600", "P", "P5", "P9000", "0um", "6000um", "P6oo", "-3um"])
def test_what_is_no_grade_is_refused_by_its_field(text: str) -> None:
    with pytest.raises(BadInput) as bad:
        parse_grade(text, field="faces[0].found.after")
    assert bad.value.faults[0].field == "faces[0].found.after"


def test_settings_keep_below_band_and_mark() -> None:
    three = machine("bench-buffer-3")
    chosen = speed.choose_setting(three, diameter=0.2, band=(30.0, 45.0), marked_limit=48.0)
    assert chosen is not None
    assert chosen.surface == pytest.approx(31.4, abs=0.1)
    assert speed.choose_setting(three, diameter=0.2, band=(60.0, 70.0), marked_limit=30.0) is None
    slow = speed.choose_setting(machine("bench-buffer"), diameter=0.2, band=(40.0, 46.0), marked_limit=48.0)
    assert slow is not None
    assert slow.below_band


def test_the_hand_has_no_setting() -> None:
    hand = speed.choose_setting(machine("hand"), diameter=None, band=None, marked_limit=None)
    assert hand == speed.Setting(0.6, None, None)
