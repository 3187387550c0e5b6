"""The routes of all faces chosen together, against trying every combination."""

import random
from dataclasses import replace
from itertools import product

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from attacking import many
from enumerated import square_table
from kelbrast.core.job import AIMS, Aim, Job
from kelbrast.core.planning.face.face_plan import Worked, work_out
from kelbrast.core.planning.face.routes import RouteRequest, other_routes, step_table
from kelbrast.core.planning.kernel.pareto import non_dominated
from kelbrast.core.planning.kernel.search import quickest_by_changes
from kelbrast.core.planning.kernel.step_table import CHANGES, COST, CRITERIA, METAL, TIME
from kelbrast.core.planning.kernel.together import Option, choose_together
from kelbrast.core.planning.questions.choices import choices
from kelbrast.core.planning.whole.plan import Plan, face_in_plan, plan_job
from kelbrast.core.planning.whole.set_ups import set_ups
from kelbrast.core.surface.face import Face, Wish
from making import face, job


def cost_of(picks: tuple[int, ...], groups: list[list[Option]], prices: list[tuple[float, float]]) -> float:
    paid, total = 0, 0.0
    for options, pick in zip(groups, picks, strict=True):
        total += options[pick].own[0]
        paid |= options[pick].charges
    return total + sum(price[0] for bit, price in enumerate(prices) if paid >> bit & 1)


@settings(max_examples=many(50))
@given(st.integers(0, 10_000), st.booleans())
def test_no_combination_is_cheaper(seed: int, whole_numbers: bool) -> None:
    chance = random.Random(seed)
    draw = (lambda: float(chance.randint(0, 3))) if whole_numbers else (lambda: chance.uniform(0, 3))
    prices = [(draw(), draw()) for _ in range(6)]
    groups = [
        [Option((draw(), draw()), chance.getrandbits(6)) for _ in range(chance.randint(1, 4))]
        for _ in range(chance.randint(1, 5))
    ]
    found = choose_together(groups, prices)
    everything = product(*(range(len(options)) for options in groups))
    best = min(cost_of(picks, groups, prices) for picks in everything)
    assert found.exact
    assert found.total[0] == pytest.approx(best, abs=1e-9)
    assert cost_of(found.picks, groups, prices) == pytest.approx(best, abs=1e-9)


def test_of_equals_the_second_cost_decides() -> None:
    groups = [[Option((1.0, 5.0), 0), Option((1.0, 2.0), 0)], [Option((0.0, 0.0), 1), Option((0.0, 3.0), 0)]]
    assert choose_together(groups, [(0.0, 4.0)]).picks == (1, 1)
    assert choose_together(groups, [(0.0, 2.0)]).picks == (1, 0)


def test_many_groups_say_how_far_from_the_best_they_may_be() -> None:
    chance = random.Random(3)
    prices = [(chance.uniform(1, 2), 0.0) for _ in range(30)]
    groups = [[Option((chance.uniform(2, 4), 0.0), chance.getrandbits(30)) for _ in range(8)] for _ in range(16)]
    found = choose_together(groups, prices)
    assert found.bound <= found.total[0]
    few = choose_together([[Option((1.0, 0.0), 1)]] * 16, [(2.0, 0.0)])
    assert (few.total[0], few.bound, few.exact) == (18.0, 18.0, True)


@settings(max_examples=many(20))
@given(st.integers(0, 10_000))
def test_the_quickest_by_changes_are_the_front_of_both(seed: int) -> None:
    chance = np.random.default_rng(seed)
    count = 9
    values = np.zeros((4, count, count))
    values[TIME] = chance.uniform(1, 10, (count, count))
    values[CHANGES] = chance.integers(0, 2, (count, count))
    steps = np.triu(chance.random((count, count)) < 0.6, 1)
    ends = chance.random(count) < 0.4
    ends[0] = False
    table = square_table(values, steps, ends)
    expected = {tuple(route.totals[[TIME, CHANGES]].round(9)) for route in non_dominated(table).routes}
    found = {tuple(route.totals[[TIME, CHANGES]].round(9)) for route in quickest_by_changes(table, count)}
    assert found == expected


FACES = (
    face("bright", after="P240"),
    replace(face("mirror", depth=15, area=0.004), name="second"),
    replace(face("bright", depth=30, area=0.02, curved=True), name="third"),
)
RACK = (
    "orbital-p120",
    "orbital-p240",
    "foam-p400",
    "foam-p800",
    "paper-p240",
    "paper-p600",
    "paper-p1200",
    "belt-p240",
    "sewn-tripoli",
    "sisal-grey",
    "loose-white",
    "felt-white",
)


def as_planned(made: Plan, picked: tuple[Face, ...], job: Job) -> Plan:
    faces = tuple(work_out(one, job).plan(job) for one in picked)
    return replace(made, faces=faces, set_ups=set_ups(faces))


@pytest.mark.parametrize("aim", ["time", "changes"])
@pytest.mark.parametrize("habit", ["double-up", "long-steps"])
def test_no_combination_of_the_routes_of_the_faces_is_better(aim: Aim, habit: str) -> None:
    asked = replace(job("brass", FACES[0], aim=aim, habit=habit), faces=FACES)
    made = plan_job(asked)
    assert made.possible
    own = []
    for one in FACES:
        worked = work_out(one, asked)
        assert worked.figures is not None
        assert worked.chosen.route is not None
        assert worked.chosen.request is not None
        routes = [worked.chosen.route, *other_routes(worked.figures, worked.chosen.request, worked.chosen.route)]
        own.append([replace(one, wish=Wish(route=worked.figures.ids_of(route))) for route in routes])
    everything = [as_planned(made, picked, asked) for picked in product(*own)]
    best = min((plan.seconds_each, plan.changes) if aim == "time" else (plan.changes, plan.seconds_each) for plan in everything)
    reached = (made.seconds_each, made.changes) if aim == "time" else (made.changes, made.seconds_each)
    assert reached[0] <= best[0] * (1 + 1e-9)
    assert made.gained is None or made.gained.exact


def gaining() -> Plan:
    """Faces whose own best routes do not share what they could."""
    small, large = (
        face("bright", after="P240", area=0.002),
        replace(face("bright", depth=25, area=0.03, curved=True), name="large"),
    )
    return plan_job(
        replace(job("brass", small), faces=(small, large, replace(face("mirror", after="P400", area=0.004), name="third")))
    )


def test_what_was_gained_is_what_the_plans_differ_by() -> None:
    made = gaining()
    alone = tuple(work_out(face, made.job).plan(made.job) for face in made.job.faces)
    apart = replace(made, faces=alone, set_ups=set_ups(alone))
    assert made.gained is not None
    assert made.gained.seconds == pytest.approx(apart.seconds_each - made.seconds_each)
    assert made.gained.changes == apart.changes - made.changes
    assert made.gained.seconds > 0
    assert made.gained.at_most > 0


def test_the_plan_of_a_face_is_that_of_its_job_and_the_ways_beside_it_have_the_same_totals() -> None:
    made = gaining()
    for one, planned in zip(made.job.faces, made.faces, strict=True):
        assert face_in_plan(one, made.job) == planned
    beside = next(one for one in choices(made.job).by_aim if one.aim == made.job.aim)
    assert beside.seconds == pytest.approx(made.seconds_each)
    assert beside.changes == made.changes


@pytest.mark.parametrize("aim", AIMS)
def test_every_face_keeps_its_own_limit_and_wish(aim: Aim) -> None:
    locked = replace(face("bright", after="P240", limit_um=40), wish=Wish(lock=("felt-white",)))
    asked = replace(job("brass", locked, aim=aim), faces=(locked, replace(face("mirror", depth=20), name="second")))
    first = plan_job(asked).faces[0]
    assert first.wish_note is None
    assert "felt-white" in {step.tool.id for step in first.steps}
    assert first.metal <= first.face.may_come_off * (1 + 1e-9)


def test_a_binding_limit_has_no_quicker_route_with_fewer_changes_that_breaks_it() -> None:
    tight = face("bright", depth=20, limit_um=24)
    asked = job("brass", tight, habit="long-steps")
    worked = work_out(tight, asked)
    assert worked.figures is not None
    assert worked.chosen.route is not None
    assert worked.chosen.request is not None
    found = other_routes(worked.figures, worked.chosen.request, worked.chosen.route)
    assert found
    assert all(route.totals[METAL] <= tight.may_come_off * (1 + 1e-9) for route in found)
    assert all(route.totals[COST] > 0 for route in found), "the totals are those of the steps"
    free = step_table(worked.figures, RouteRequest())
    assert any(route.totals[METAL] > tight.may_come_off for route in quickest_by_changes(free, 9))


@pytest.mark.parametrize("aim", ["metal", "cost", "changes"])
def test_time_counts_in_every_aim_at_its_price(aim: str) -> None:
    """Seconds with repeats and the end's risk, and the aim's own at its price: no aim's plan is worse by it than the quickest."""
    one = face("mirror", depth=20)
    quick, other = (work_out(one, job("naval-brass", one, aim=each)) for each in ("time", aim))

    def weighed(worked: Worked) -> float:
        route, figures = worked.chosen.route, worked.figures
        assert route is not None
        assert quick.chosen.route is not None
        assert figures is not None
        row = CRITERIA.index(aim)
        times = 1 + figures.repeats("double-up", "free")
        own = sum(float((figures.values[row] * times)[step]) for step in route.steps) + float(
            figures.stop[row, route.nodes[-1]]
        )
        least = quick.chosen.route.totals
        worth = {
            "metal": 3 * quick.seconds_with_repeats / float(least[METAL]),  # three percents of time for one of metal
            "cost": 3600 / 30,  # the bench's hour
            "changes": 600,  # ten minutes
        }
        return worked.seconds_with_repeats + worth[aim] * own

    assert weighed(other) <= weighed(quick) * (1 + 1e-9)
    assert other.seconds_with_repeats >= quick.seconds_with_repeats * (1 - 1e-9)
