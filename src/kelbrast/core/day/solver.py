"""The best plan of a day by constraint programming (CP-SAT): lateness, then changes, then its end, each held for the next.

While a day is under way its blocks stay where they stand unless lateness or changes are gained: how many move is a goal of its
own, before the end of the day.

One worker and a deterministic limit: the same seed gives the same plan, however busy the machine is. The solver is large, so it
is loaded when it is first asked.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any, Final

from kelbrast.core.day.constraints import DayConstraints
from kelbrast.core.day.schedule import DayScore, Placed, faults_in, score
from kelbrast.core.day.shop import DayWork

GOALS: Final = ("late", "changes", "ends")
_MEMORY_MB: Final = 1000
_SHARES: Final = {"late": 0.25, "changes": 0.3, "moved": 0.15, "ends": 0.3}  # of the time, by goal


@dataclass(frozen=True, slots=True)
class DayFound:
    """The best plan so far, with what is proven of each goal.

    Attributes:
        plan: checked.  bounds: by goal, what no plan can be better than; None where that goal was not come to yet.
        proven: goals of which this is the best that can be.
    """

    work: DayWork
    plan: tuple[Placed, ...]
    score: DayScore
    bounds: tuple[int | None, int | None, int | None] = (None, None, None)
    proven: tuple[str, ...] = ()


def improve(
    found: DayFound,
    *,
    seconds: float,
    seed: int = 1,
    stop: Callable[[], bool] = lambda: False,
    tell: Callable[[DayFound], None] = lambda _: None,
    keep: Sequence[Placed] = (),
) -> DayFound:
    """A plan at least as good, after at most so many deterministic seconds.

    Args:
        found: a plan that can be followed, to begin with.
        seconds: of the solver's own deterministic time, about those of one core.
        stop: asked between solutions.  tell: every better plan.
        keep: where blocks stand, of a day that is under way: as few as possible of them move.
    """
    from ortools.sat.python import cp_model

    work = found.work
    model = DayConstraints(cp_model, work, keep)
    bounds: dict[str, int] = {}
    for goal in ("late", "changes", *(("moved",) if keep else ()), "ends"):
        solver = cp_model.CpSolver()
        solver.parameters.num_workers = 1
        solver.parameters.random_seed = seed
        solver.parameters.max_deterministic_time = seconds * _SHARES[goal]
        solver.parameters.max_memory_in_mb = _MEMORY_MB
        model.hint(found.plan)
        model.minimise(goal)

        def better(plan: tuple[Placed, ...]) -> None:
            nonlocal found
            if not faults_in(work, plan) and model.rank(plan) <= model.rank(found.plan):
                found = DayFound(work, plan, score(work, plan), found.bounds, found.proven)
                tell(found)

        status = solver.solve(model.cp, _callback(cp_model, model, better, stop))
        if status in (cp_model.OPTIMAL, cp_model.FEASIBLE):
            better(model.plan(solver.value))
        if status == cp_model.INFEASIBLE:  # a wheel stands otherwise than the model can say: the plan at hand stays
            break
        best = model.reached(goal, found.plan)
        if goal in GOALS:
            bounds[goal] = min(best, model.bound(goal, solver.best_objective_bound))
            proven = (*found.proven, goal) if bounds[goal] == best else found.proven
            late, changes, ends = (bounds.get(one) for one in GOALS)
            found = DayFound(work, found.plan, found.score, (late, changes, ends), proven)
            tell(found)
        if stop():
            break
        model.hold(goal, best)
    return found


def _callback(
    cp_model: Any, model: DayConstraints, better: Callable[[tuple[Placed, ...]], None], stop: Callable[[], bool]
) -> Any:
    # The solver is loaded when it is first asked, so its class is not known to the types before that.
    class BetterPlan(cp_model.CpSolverSolutionCallback):  # type: ignore[misc]
        def on_solution_callback(self) -> None:
            better(model.plan(self.value))
            if stop():
                self.stop_search()

    return BetterPlan()
