"""Spots on a face: what must hold whatever they are, and what a polisher would look for in the plan."""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from attacking import many
from kelbrast.core.planning.face.face_plan import FacePlan, figures_of, request_for
from kelbrast.core.planning.face.fallback import fallback
from kelbrast.core.planning.face.routes import seconds_with_repeats, sensible_route
from kelbrast.core.planning.questions.choices import choices
from kelbrast.core.planning.whole.plan import plan_job
from kelbrast.core.process.blend import dug_area, rim_width, zone_area
from kelbrast.core.surface.face import Face
from kelbrast.core.surface.found import Found, Spots
from making import UM, face, job, plan, spots

GOUGES = spots("scratches", 60, length_mm=80, width_mm=2, count=3, name="gouges")
TOP = face("brushed-fine", depth=3, area=0.9, spots=(GOUGES,))


def worth(one: Face, stuff: str) -> float:
    """Of the best route, before all of the face is preferred where that hardly takes longer."""
    planned = job(stuff, one, habit="long-steps")
    figures, request = figures_of(one, planned), request_for(one, planned)
    assert figures is not None
    route = sensible_route(figures, request)
    return np.inf if route is None else seconds_with_repeats(figures, request, route)


def zoned(made: FacePlan) -> list[bool]:
    return [step.zone is not None for step in made.steps]


def test_three_gouges_are_worked_in_their_places_and_one_pass_goes_over_everything() -> None:
    made = plan("stainless-304", TOP)
    assert zoned(made) == [True, True, False]
    first, second, last = made.steps
    assert first.zone is not None
    assert second.zone is not None
    assert first.zone.area < second.zone.area < 0.1 * TOP.area
    assert (last.tool, last.goes_on, last.time.wash) == (second.tool, True, 0.0)
    assert made.seconds < 0.2 * (made.all_alike or 0.0)
    assert made.metal > 60 * UM > 10 * UM > (made.metal_elsewhere or 0.0)
    assert made.rest == pytest.approx(3 * UM)
    assert "rim" in first.check
    assert "rim" not in last.check


def test_hand_calculations_of_a_zone() -> None:
    assert rim_width(depth=60 * UM, slope=0.01) == pytest.approx(0.009)  # 1.5 x 60 um x 100
    area = zone_area(count=1, length=0.08, width=0.002, margin=np.array(0.009))
    assert float(area) * 1e4 == pytest.approx(1.6 + 14.76 + 2.545, abs=0.01)  # l w + 2 e (l + w) + pi e2
    dug = dug_area(count=1, length=0.08, width=0.002, rim=np.array(0.009))
    assert float(dug) * 1e4 == pytest.approx(1.6 + 7.38 + 0.763, abs=0.01)


def test_a_window_is_worked_far_out() -> None:
    scratch = spots("scratches", 20, length_mm=30, width_mm=1)
    cover = face("mirror", depth=2, area=0.3, spots=(scratch,))
    small, far = (plan("acrylic", replace(cover, looked_through=through)).steps[0].zone for through in (False, True))
    assert small is not None
    assert far is not None
    assert far.margins[0] >= 1.5 * 20e-6 / 0.001
    assert small.margins[0] < far.margins[0]


@pytest.mark.parametrize(
    ("changes", "stuff"),
    [({"stays_flat": True, "want": "N6"}, "mild-steel"), ({"limit_kind": "size", "limit_um": 300, "want": "N6"}, "mild-steel")],
)
def test_no_hollow_where_a_size_or_a_flatness_would_suffer(changes: dict, stuff: str) -> None:
    more = dict(changes)
    one = face(more.pop("want"), depth=5, area=0.05, spots=(spots("nick", 30, length_mm=5, width_mm=2),), **more)
    figures = figures_of(one, job(stuff, one))
    assert figures is not None
    assert figures.zones is None
    assert figures.graph.whole[1:].all()


def test_a_place_is_finished_by_itself_only_where_it_cannot_be_told_from_the_rest() -> None:
    scratch = spots("scratches", 15, length_mm=40, width_mm=1)
    bright = face("mirror", area=0.3, spots=(scratch,))
    done = replace(bright, found=Found("scratches", as_wanted=True))
    assert all(zoned(plan("brass", done)))
    assert plan("brass", done).metal_elsewhere == 0
    assert zoned(plan("brass", bright))[-1] is False
    brushed = replace(face("brushed-fine", area=0.6, spots=(scratch,)), found=Found("scratches", as_wanted=True))
    assert zoned(plan("stainless-304", brushed))[-1] is False
    banded = plan("stainless-304", replace(brushed, lay_runs_out=True, longest=1.0))
    assert banded.steps[-1].zone is not None
    assert banded.steps[-1].zone.band
    assert banded.steps[-1].zone.area < brushed.area / 2
    assert banded.metal_elsewhere == 0


def test_raised_metal_costs_the_face_nothing_and_has_no_rim() -> None:
    bead = spots("raised", 800, 1000, length_mm=600, width_mm=6, name="bead")
    made = plan("stainless-304", face("brushed-fine", depth=3, area=0.4, limit_um=100, spots=(bead,)))
    assert made.possible
    assert made.steps[0].tool.carrier.cutting.levels
    assert made.steps[0].zone is not None
    assert made.steps[0].zone.margins[0] < 0.05
    assert made.above == pytest.approx(1000 * UM)
    assert made.metal - made.above <= 100 * UM


def test_spots_too_deep_for_the_limit_are_left_and_the_rest_is_done() -> None:
    hole = spots("pits", 900, 1000, length_mm=3, width_mm=3, name="sand hole")
    one = face("paint-ready", depth=20, area=0.07, limit_um=400, spots=(hole, spots("pits", 60, length_mm=9, width_mm=9)))
    made = plan("aluminium-cast", one)
    assert made.possible
    (left,) = made.left
    assert left.spots == hole
    assert left.least > left.may == 400 * UM
    assert left.dish_stays == pytest.approx(600 * UM)
    assert made.steps[0].marks.before == pytest.approx(60 * UM)


def test_the_ways_that_differ_leave_the_same_spots() -> None:
    hole = spots("pits", 900, 1000, length_mm=4, width_mm=4, name="hole")
    asked = job("brass", face("bright", depth=10, area=0.1, spots=(hole,), limit_um=60))
    weighed = choices(asked)
    assert weighed.own.possible
    assert weighed.own.seconds == pytest.approx(plan_job(asked).faces[0].seconds)
    assert weighed.ways


def test_what_came_off_spots_already_is_no_more_to_spend_on_a_dish() -> None:
    hole = spots("pits", 900, 1000, length_mm=4, width_mm=4, gone=40 * UM)
    (left,) = plan("brass", face("bright", depth=10, area=0.1, spots=(hole,), limit_um=60)).left
    assert left.may == pytest.approx(20 * UM)
    assert left.dish == pytest.approx(2e-3)  # 1:100, by hand
    (spent,) = plan("brass", face("bright", depth=10, area=0.1, spots=(replace(hole, gone=80 * UM),), limit_um=60)).left
    assert (spent.may, spent.dish) == (0.0, 0.0)


def test_damage_as_large_as_the_face_and_too_deep_is_said_of_the_face() -> None:
    everywhere = spots("scratches", 300, 400, length_mm=100, width_mm=100)
    made = plan("brass", face("bright", depth=10, area=0.01, spots=(everywhere,), limit_um=60))
    assert made.binding is not None
    assert made.binding.rule == "metal"
    assert not made.left


def test_what_can_still_be_had_is_told_of_what_covers_the_face() -> None:
    window = face("bright", depth=100, area=0.01, limit_um=60, looked_through=True)
    deep = spots("scratches", 300, 400, length_mm=30, width_mm=10)
    without, told = (fallback(plan("acrylic", each), job("acrylic", each)) for each in (window, replace(window, spots=(deep,))))
    assert without is not None
    assert told is not None
    assert told.cleared == without.cleared > 0
    assert told.stays == pytest.approx(without.stays + 300 * UM)
    assert told.dish == pytest.approx(60 * UM / 0.001)  # 1:1000 where people look through, by hand


def test_spots_as_large_as_the_face_are_what_covers_it() -> None:
    everywhere = spots("scratches", 40, length_mm=100, width_mm=100)
    one = face("bright", depth=5, area=0.01, spots=(everywhere,))
    same = face("bright", depth=40, area=0.01)
    assert [step.tool for step in plan("brass", one).steps] == [step.tool for step in plan("brass", same).steps]
    assert plan("brass", one).seconds == plan("brass", same).seconds


def test_all_of_a_small_plate_is_worked_alike() -> None:
    dings = spots("nick", 80, length_mm=12, width_mm=8, count=5)
    assert not any(zoned(plan("brass", face("bright", depth=8, area=0.018, spots=(dings,)))))


def test_faces_share_set_ups_in_the_order_of_each() -> None:
    faces = tuple(replace(TOP, name=name, spots=(replace(GOUGES, count=count),)) for name, count in (("one", 1), ("two", 4)))
    made = plan_job(replace(job("stainless-304", faces[0]), faces=faces))
    by_face: dict[str, list[int]] = {}
    for set_up in made.set_ups:
        for key, number in set_up.faces:
            by_face.setdefault(key, []).append(number)
    assert all(numbers == sorted(numbers) == list(range(1, len(numbers) + 1)) for numbers in by_face.values())
    once = sum(set_up.tool.carrier.stock.setup for set_up in made.set_ups)
    alone = sum(face.seconds for face in made.faces)
    assert 0 < made.saved <= alone
    assert made.saved + once == pytest.approx(
        sum(step.tool.carrier.stock.setup for each in made.faces for step in each.steps if not step.goes_on)
        + sum(max(0, set_up.washes - 1) * 60 for set_up in made.set_ups)
    )


some = st.builds(
    lambda kind, deep, count, long, wide: spots(kind, deep, count=count, length_mm=long, width_mm=min(long, wide)),
    st.sampled_from(["scratches", "pits", "nick"]),
    st.floats(5, 150),
    st.integers(1, 4),
    st.floats(3, 150),
    st.floats(1, 20),
)


@settings(max_examples=many(12), deadline=None)
@given(
    some,
    st.sampled_from(["brass", "stainless-304", "acrylic"]),
    st.sampled_from(["bright", "satin", "brushed-fine"]),
    st.floats(1, 8),
)
def test_more_deeper_or_larger_spots_never_take_less_time(found: Spots, stuff: str, want: str, depth: float) -> None:
    one = face(want, depth=depth, area=0.5, spots=(found,))
    least = worth(one, stuff)
    likely, worst = found.found.likely or 0.0, found.found.worst or 0.0
    deeper = replace(found.found, likely=likely * 1.3, worst=worst * 1.3)
    for more in (
        replace(found, count=found.count + 1),
        replace(found, length=found.length * 1.4),
        replace(found, found=deeper),
    ):
        assert worth(replace(one, spots=(more,)), stuff) >= least * (1 - 1e-9)
    assert worth(replace(one, spots=()), stuff) <= least * (1 + 1e-9)


@settings(max_examples=many(6), deadline=None)
@given(some, st.sampled_from(["brass", "stainless-304"]), st.floats(1, 8))
def test_a_spot_cut_in_two_costs_its_rims_more_and_no_cliff(found: Spots, stuff: str, depth: float) -> None:
    one = face("bright", depth=depth, area=0.5, spots=(replace(found, count=1),))
    halves = replace(found, count=2, length=max(found.length / 2, found.width))
    whole, split = worth(one, stuff), worth(replace(one, spots=(halves,)), stuff)
    assert split <= 2 * whole
