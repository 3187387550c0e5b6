"""The ways to do a job side by side."""

from dataclasses import replace

import pytest

from kelbrast.core.job import AIMS
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
    whole = to_job(next(job for job in demo_jobs() if job.title == title))
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


@pytest.mark.parametrize("title", ["Gallery rail collar", "Lamp clock housing", "Galley top", "Fog gauge window"])
def test_the_ways_differ_and_none_beats_another_but_the_job_s_own_is_there(title) -> None:
    whole = to_job(next(job for job in demo_jobs() if job.title == title))
    made = choices(whole)
    ways = [way.choice for way in made.ways]
    own = next(way for way in made.by_aim if way.aim == whole.aim)
    assert own in ways
    assert ways == sorted(ways, key=lambda way: way.seconds + way.rework)
    for one in (*made.by_aim, *made.by_habit, *made.by_handover):  # whoever is not there is like or beaten by one who is
        assert any(all(a <= b * 1.05 + 1e-9 for a, b in zip(way.criteria, one.criteria, strict=True)) for way in ways)
    for one in ways:
        beaten_by = [
            way
            for way in ways
            if all(a <= b for a, b in zip(way.criteria, one.criteria, strict=True))
            and any(a < b * 0.95 for a, b in zip(way.criteria, one.criteria, strict=True))
        ]
        assert one is own or beaten_by == []
    named = [aim for way in made.ways for aim in way.best_at]
    assert len(named) == len(set(named))
    for way in made.ways:
        taken = replace(whole, aim=way.choice.aim, habit=way.choice.habit, handover=way.choice.handover)
        assert way.hands_on == plan_job(taken).account.all.hands_on
        for aim in way.best_at:
            at = list(AIMS).index(aim)
            assert way.choice.criteria[at] == min(way.criteria[at] for way in ways)


def test_a_job_with_one_way_shows_one_and_an_impossible_one_none() -> None:
    alone = {"rack": ("hand", "paper-p240"), "habit": "long-steps"}
    (way,) = choices(job("brass", face("brushed-fine", depth=10), **alone)).ways
    assert way.best_at == ()
    assert choices(job("bronze", face("bright", depth=40, limit_um=5))).ways == ()
