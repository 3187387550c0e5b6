"""The part as a warm lump: rests for small parts, wet work, inserts, and the two ends of the slab."""

import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from kelbrast.core.job import Job
from kelbrast.core.process.heat import Lump, rest, work_until_hot
from kelbrast.core.surface.part import Part
from making import face, job, plan

BUFFER = ("bench-buffer", "sisal-tripoli", "sewn-tripoli", "loose-white", "felt-white")


@given(st.floats(5, 500), st.floats(1, 100), st.floats(0.001, 0.2))
def test_the_time_until_hot_is_the_lump_the_other_way_round(power: float, allowed: float, surface: float) -> None:
    lump = Lump(capacity=40.0, surface=surface)
    seconds = work_until_hot(lump=lump, power=power, loss=15.0, allowed=allowed)
    at_most = power / (15.0 * surface)
    assert np.isfinite(seconds) == (at_most > allowed)
    for_ever = 1e12
    # Carslaw and Jaeger: a lump that loses heat in proportion to its rise.
    rise = at_most * -math.expm1(-min(seconds, for_ever) * 15.0 * surface / 40.0)
    assert rise == pytest.approx(min(allowed, at_most), rel=1e-6)


def test_a_small_part_gets_too_hot_to_hold_in_seconds() -> None:  # common practice
    small = plan("brass", face("bright", after="P1200", area=0.004), rack=BUFFER, part=Part(mass=0.05))
    first = small.steps[0]
    assert first.time.rests is not None
    assert first.time.rests.by_hand
    assert first.time.rests.after < 20
    heavy = plan("brass", face("bright", after="P1200", area=0.004), rack=BUFFER, part=Part(mass=5.0))
    assert heavy.steps[0].time.rests is None
    assert small.seconds > heavy.seconds


def test_a_clamp_lets_it_get_as_hot_as_the_material_may() -> None:
    one = face("bright", after="P1200", area=0.004)
    hand, clamp = (plan("brass", one, rack=BUFFER, part=Part(mass=0.05, held=held)) for held in ("hand", "clamp"))
    assert clamp.seconds <= hand.seconds
    assert clamp.steps[0].time.rests is None or not clamp.steps[0].time.rests.by_hand


def test_without_water_a_rest_is_long() -> None:
    one = face("bright", after="P1200", area=0.004)
    dry = plan("brass", one, rack=BUFFER, part=Part(mass=0.1, inserts=("bearing",)))
    wet = plan("brass", one, rack=BUFFER, part=Part(mass=0.1))
    pairs = [(a, b) for a, b in zip(dry.steps, wet.steps, strict=False) if a.time.rests and b.time.rests]
    assert pairs
    assert all(a.time.rests.seconds > 5 * b.time.rests.seconds for a, b in pairs if a.time.rests and b.time.rests)
    assert rest(lump=Lump(190, 0.03), loss=15, left=0.25) > rest(lump=Lump(190, 0.03), loss=500, left=0.25)


def test_inserts_lower_the_limit_and_cost_time() -> None:
    one = face("bright", depth=20, thickness=0.002)
    bare, glued = (job("brass", one, part=Part(inserts=inserts)) for inserts in ((), ("adhesive",)))
    assert glued.hottest < bare.hottest
    rack = ("belt-p320", "sisal-tripoli", "loose-white", "belt-grinder", "bench-buffer")
    quick, slow = (plan("brass", one, rack=rack, part=part) for part in (bare.part, glued.part))
    assert slow.seconds > quick.seconds
    assert all(
        b.on_face.working.stay < a.on_face.working.stay
        for a, b in zip(quick.steps, slow.steps, strict=True)
        if a.on_face.working.force == b.on_face.working.force
    )


def test_wet_is_worked_where_the_material_asks_and_never_where_an_insert_forbids_it() -> None:
    coat = plan("clear-coat-2k", face("bright", depth=8, kind="waviness"))
    assert coat.steps[0].on_face.working.wet
    assert any("Wet" in caution for caution in coat.steps[0].cautions)
    dry = plan("clear-coat-2k", face("bright", depth=8, kind="waviness"), part=Part(inserts=("inlay",)))
    assert not any(step.on_face.working.wet for step in dry.steps)
    metal = plan("brass", face("satin", after="P120"), rack=("paper-p240",), part=Part(wet="always"))
    assert all(step.on_face.working.wet for step in metal.steps)


@given(st.floats(5, 500), st.floats(5, 2000), st.floats(1.0, 5.0))
def test_a_heavier_part_is_never_hot_sooner(power: float, capacity: float, factor: float) -> None:
    light, heavy = (
        work_until_hot(lump=Lump(capacity=c, surface=0.02), power=power, loss=15.0, allowed=28.0)
        for c in (capacity, capacity * factor)
    )
    assert heavy >= light


def test_the_heaviest_wall_stands_for_the_weight_when_it_is_not_known() -> None:
    plate = face("bright", thickness=0.002, area=0.0063)
    known: Job = job("brass", plate)
    assert known.lump is not None
    assert known.lump.capacity == pytest.approx(0.0063 * 0.002 * 8530 * 380, rel=0.03)  # hand calculation
    assert replace(known, faces=(face("bright"),)).lump is None
