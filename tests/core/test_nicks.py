"""Nicks: blended in a dish or the face lowered, both costed."""

import math

import pytest

from kelbrast.core.process.blend import dish_radius, dish_volume
from making import UM, face, plan


def nicked(count: int = 1, blend: bool | None = None, depth: float = 300, **more):
    from dataclasses import replace

    one = face("bright", depth=depth, kind="nick", **more)
    return replace(one, found=replace(one.found, count=count, blend=blend))


def test_the_dish() -> None:  # hand calculation: 0.3 mm at 1:100 is 30 mm, pi 30^2 0.3 / 2 mm3
    assert dish_radius(depth=300 * UM, slope=0.01) == pytest.approx(0.030)
    assert float(dish_volume(area=math.pi * 0.030**2, depth=300 * UM)) == pytest.approx(424.1e-9, rel=1e-3)


def test_one_nick_on_a_large_face_is_blended_and_both_ways_are_costed() -> None:
    large = plan("brass", nicked(area=0.08))
    assert large.nicks is not None
    assert large.nicks.blended
    assert large.nicks.radius == pytest.approx(0.030)
    forced = plan("brass", nicked(area=0.08, blend=False))
    assert forced.nicks is not None
    assert not forced.nicks.blended
    assert forced.seconds == pytest.approx(large.nicks.other_seconds)
    assert forced.nicks.other_seconds == pytest.approx(large.seconds)
    assert large.seconds < forced.seconds


def test_many_nicks_cover_the_face_and_it_is_lowered() -> None:
    assert plan("brass", nicked(count=40, area=0.02)).nicks is None


def test_a_working_surface_takes_a_steeper_dish() -> None:
    from dataclasses import replace

    from kelbrast.core.catalogue.finishes import finish

    working = plan("brass", replace(nicked(area=0.08), want=finish("paint-ready")))
    assert working.nicks is not None
    assert working.nicks.radius == pytest.approx(0.015)


def test_the_metal_limit_holds_in_the_dish_too() -> None:
    assert not plan("brass", nicked(area=0.08, limit_um=200)).possible
