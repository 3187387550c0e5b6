"""The day's board: the plan at once, what is proven in how long, what moves after a late step, and the memory of the solver."""

import resource
import statistics
import sys
import time
from pathlib import Path

from kelbrast.core.day.follow import with_done
from kelbrast.core.day.greedy import plan_at_once, settled
from kelbrast.core.day.schedule import score, violations
from kelbrast.core.day.shop import DayWork
from kelbrast.core.day.solver import DayFound, improve

ROOT = Path(__file__).parents[1]
Row = tuple[str, str, str]
SHOPS = 20


def _at_once(work: DayWork) -> tuple[DayFound, float]:
    begun = time.perf_counter()
    made = plan_at_once(work)
    took = time.perf_counter() - begun
    assert made is not None
    longer, plan = made
    assert violations(longer, plan) == []
    return DayFound(longer, tuple(plan), score(longer, plan)), took


def _after_a_late_step(found: DayFound) -> tuple[float, float] | None:
    """The first block of the day takes half an hour more: seconds of the search, and the share of the rest that moves; None
    where the order cannot be kept at all."""
    first = min(found.plan, key=lambda one: one.begins)
    now = first.ends + 30
    left = with_done(found.work, found.plan, {}, now=now, begun={first.task: first.begins})
    plan = settled(left, found.plan)
    if plan is None:
        return None
    begun = time.perf_counter()
    again = improve(DayFound(left, tuple(plan), score(left, plan)), seconds=2.0, keep=plan)
    took = time.perf_counter() - begun
    stood = {one.task: (one.begins, one.person, one.spindle) for one in plan}
    moved = sum((one.begins, one.person, one.spindle) != stood[one.task] for one in again.plan)
    return took, moved / len(again.plan)


def the_day() -> list[Row]:
    """Twenty random shops of about forty blocks, two people."""
    sys.path.insert(0, str(ROOT / "tests"))
    from days import random_shop

    before = resource.getrusage(resource.RUSAGE_SELF).ru_maxrss
    at_once, took, proven, replanned, moved, blocks = [], [], {"late": 0, "changes": 0, "ends": 0}, [], [], 0
    on_time = 0
    for seed in range(SHOPS):
        found, first = _at_once(random_shop(seed))
        at_once.append(first * 1000)
        blocks = max(blocks, len(found.work.tasks))
        begun = time.perf_counter()
        better = improve(found, seconds=5.0)
        took.append(time.perf_counter() - begun)
        on_time += better.score.late == 0
        for goal in better.proven:
            proven[goal] += 1
        if (again := _after_a_late_step(better)) is not None:
            replanned.append(again[0])
            moved.append(again[1])
    grew = (resource.getrusage(resource.RUSAGE_SELF).ru_maxrss - before) / 1024
    told = ", ".join(f"{goal} {count}" for goal, count in proven.items())
    return [
        (
            "a day at once",
            f"{statistics.median(at_once):.0f} ms",
            f"checked; slowest {max(at_once):.0f} ms; up to {blocks} blocks",
        ),
        (
            "a day improved",
            f"{statistics.median(took):.1f} s",
            f"of {SHOPS} shops proven best: {told}; {on_time} wholly on time",
        ),
        (
            "after a late step",
            f"{statistics.median(replanned):.1f} s",
            f"slowest {max(replanned):.1f} s of {len(replanned)}; {100 * statistics.median(moved):.0f} % of the blocks move, "
            f"at most {100 * max(moved):.0f} % where lateness or changes are gained",
        ),
        ("memory of the solver", f"{grew:.0f} MB", "more at the most than before it was loaded"),
    ]
