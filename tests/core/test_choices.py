"""The ways to do a job side by side."""

from dataclasses import replace

import pytest

from kelbrast.core.planning.questions.choices import choices
from kelbrast.core.planning.whole.plan import plan_job
from kelbrast.demo.workshop import demo_jobs
from kelbrast.documents.job.read import to_job
from making import face, job


def test_each_aim_is_best_at_its_own() -> None:
    ways = choices(job("naval-brass", face("mirror", depth=14, worst=20), habit="long-steps")).by_aim
    best = {way.aim: way for way in ways}
    assert best["time"].seconds == min(way.seconds for way in ways)
    assert best["metal"].metal == min(way.metal for way in ways)
    assert best["cost"].cost == min(way.cost for way in ways)
    assert best["changes"].changes == min(way.changes for way in ways)


def test_habits_cost_what_their_plans_say() -> None:
    one = face("bright", after="P80")
    whole = job("brass", one, habit="double-up")
    for way in choices(whole).by_habit:
        assert way.seconds == plan_job(job("brass", one, habit=way.habit)).seconds_each
    every, _, long = choices(whole).by_habit
    assert long.seconds <= every.seconds


def test_a_face_without_a_route_is_said() -> None:
    assert not any(way.possible for way in choices(job("bronze", face("bright", depth=40, limit_um=5))).by_aim)


@pytest.mark.parametrize("title", ["Gallery rail collar", "Lamp clock housing", "Tide gauge spindle", "Lens guard"])
def test_an_aim_says_what_its_plan_says(title) -> None:
    """Also over several faces, insides before open ones, by hand and on wheels."""
    whole = to_job(next(one for one in demo_jobs() if one.title == title))
    for way in choices(whole).by_aim:
        plan = plan_job(replace(whole, aim=way.aim))
        assert (way.changes, way.steps) == (plan.changes, sum(len(each.steps) for each in plan.faces))
        assert way.seconds == pytest.approx(plan.seconds_each)
        assert way.metal == pytest.approx(max(each.metal for each in plan.faces))


def test_set_ups_that_faces_share_count_once_here_too() -> None:
    one = face("bright", after="P240")
    whole = replace(job("brass", one), faces=(one, replace(one, name="other")))
    for way in choices(whole).by_aim:
        assert way.seconds == pytest.approx(plan_job(replace(whole, aim=way.aim)).seconds_each)
