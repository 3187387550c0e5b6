"""The day against published job shops, brute force on small days, and the vibration limits by hand."""

from itertools import permutations

import pytest

from days import job_shop
from kelbrast.core.day.greedy import plan_at_once, put_down
from kelbrast.core.day.schedule import faults_in, score
from kelbrast.core.day.shop import DayWork, Station, Task, Worker
from kelbrast.core.day.solver import DayFound, improve
from kelbrast.core.day.vibration import daily_exposure, exposure_of, vibration_points


def best_of(work: DayWork, seconds: float = 8.0) -> DayFound:
    made = plan_at_once(work)
    assert made is not None
    longer, plan = made
    return improve(DayFound(longer, tuple(plan), score(longer, plan)), seconds=seconds)


# The best known and proven ends: Fisher and Thompson 1963; Lawrence 1984.
@pytest.mark.parametrize(("name", "best"), [("ft06", 55), ("la01", 666), ("la05", 593)])
def test_published_job_shops(name: str, best: int) -> None:
    found = best_of(job_shop(name), 12)
    assert found.score.ends == best
    assert found.bounds[2] == best
    assert faults_in(found.work, found.plan) == []


@pytest.mark.parametrize("seed", range(4))
def test_every_order_of_a_small_day(seed: int) -> None:
    """One person, one spindle, five wheel blocks with promises: every order tried, by the same scorer."""
    chance = __import__("random").Random(seed)
    wheels = ["felt", "cotton", "sisal"]
    tasks = tuple(
        Task(at, f"job {at}", f"block {at}", chance.randint(5, 40), machine="buffer", wheel=chance.choice(wheels), change=5,
             due=480 + chance.randint(30, 160))
        for at in range(5)
    )  # fmt: skip
    work = DayWork((Worker("A", 480, 990),), (Station("buffer", "Buffer", ("felt",)),), tasks, (), now=480)
    plans = [put_down(work, lambda chain, _, order=order: (order.index(chain[0].id),)) for order in permutations(range(5))]
    brute = min(score(work, plan) for plan in plans if plan is not None)
    found = best_of(work)
    assert (found.score.late, found.score.changes) == (brute.late, brute.changes)
    assert set(found.proven) >= {"late", "changes"}


def test_vibration_by_hand() -> None:
    # 2.5 m/s2 for eight hours is the action value, 100 points; 5 m/s2 the limit, 400. An hour at 10 m/s2 is 200.
    assert vibration_points(vibration=2.5, seconds=8 * 3600) == pytest.approx(100)
    assert vibration_points(vibration=5.0, seconds=8 * 3600) == pytest.approx(400)
    assert vibration_points(vibration=10.0, seconds=3600) == pytest.approx(200)
    assert daily_exposure(points=100) == pytest.approx(2.5)
    assert [exposure_of(points) for points in (100, 101, 400, 401)] == ["below", "action", "action", "limit"]
