"""The best plan of a day by constraint programming (CP-SAT): lateness, then changes, then its end, each held for the next.

While a day is under way its blocks stay where they stand unless lateness or changes are gained: how many move is a goal of its
own, before the end of the day.

One worker and a deterministic limit: the same seed gives the same plan, however busy the machine is. The solver is large, so it
is loaded when it is first asked.
"""

from collections import defaultdict
from collections.abc import Callable, Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass, field
from threading import Event, Thread
from typing import Any, Final

from kelbrast.core.day.air import air_of
from kelbrast.core.day.schedule import DayScore, Placed, score, violations
from kelbrast.core.day.shop import DAY, DayWork, Task, Worker
from kelbrast.core.process.vibration import vibration_points
from kelbrast.core.units import to_si

_POINT: Final = 10  # parts of a point of vibration: the solver counts in whole numbers


@dataclass(slots=True)
class _Vars:
    """What the solver decides on of one block."""

    begins: Any
    ends: Any
    long: Any = 0
    by: dict[str, Any] = field(default_factory=dict)  # person -> on them
    on: dict[int, Any] = field(default_factory=dict)  # spindle -> on it
    change: Any = None


class DayConstraints:
    """The day as constraints."""

    def __init__(self, cp_model: Any, work: DayWork, keep: Sequence[Placed]) -> None:
        self.cp: cp_model.CpModel = cp_model.CpModel()
        free = {task.id for task in work.tasks if task.fixed is None}
        self.work, self.keep = work, {placed.task: placed for placed in keep if placed.task in free}
        self.vars = {task.id: self._task(task) for task in work.tasks}
        self._links()
        self._people()
        for station in work.stations:
            for spindle in range(1, len(station.standing) + 1):
                self._spindle(station.id, spindle, station.standing[spindle - 1])
        self._air()
        self._goals()

    def _task(self, task: Task) -> _Vars:
        cp, end = self.cp, self.work.horizon
        fixed = task.fixed
        low = fixed[0] if fixed else max(self.work.now, task.earliest)
        found = _Vars(cp.new_int_var(low, low if fixed else end, f"b{task.id}"), cp.new_int_var(low, end, f"e{task.id}"))
        if task.wheel is not None:
            found.change = cp.new_bool_var(f"c{task.id}")
        found.long = task.minutes
        if task.kind == "wait":
            found.long = cp.new_int_var(task.minutes, end if task.most is None else task.most, f"w{task.id}")
        elif found.change is not None:
            found.long = task.minutes + task.change * found.change
        cp.add(found.ends == found.begins + found.long)
        if task.by_person:
            able = [person.name for person in self.work.people if person.may_use(task.machine)]
            found.by = {name: cp.new_bool_var(f"p{task.id}{name}") for name in able}
            cp.add_exactly_one(found.by.values())
            if fixed and fixed[1] in found.by:
                cp.add(found.by[fixed[1]] == 1)
        if task.machine is not None:
            spindles = range(1, len(self.work.station(task.machine).standing) + 1)
            found.on = {spindle: cp.new_bool_var(f"s{task.id}{spindle}") for spindle in spindles}
            cp.add_exactly_one(found.on.values())
            if fixed and fixed[2] in found.on:
                cp.add(found.on[fixed[2]] == 1)
        return found

    def _links(self) -> None:
        exact = {link.before for link in self.work.links if link.most == 0}
        for link in self.work.links:
            before, after = self.vars[link.before], self.vars[link.task]
            self.cp.add(after.begins >= before.ends + link.least)
            if link.most is not None:
                self.cp.add(after.begins <= before.ends + link.most)
        for task in self.work.tasks:
            if task.kind == "wait" and task.id not in exact:  # nobody waits longer than there is something to wait for
                self.cp.add(self.vars[task.id].long == task.minutes)

    def _people(self) -> None:
        for person in self.work.people:
            mine = [task for task in self.work.tasks if person.name in self.vars[task.id].by]
            intervals = [self._interval(self.vars[task.id], self.vars[task.id].by[person.name], "") for task in mine]
            free = [task for task in mine if task.fixed is None]
            closed = [self.cp.new_fixed_size_interval_var(a, b - a, "") for a, b in _closed(person, self.work.days)]
            standing = [one for task, one in zip(mine, intervals, strict=True) if task.fixed is not None]
            self.cp.add_no_overlap(intervals)
            self.cp.add_no_overlap([*(interval for interval in intervals if interval not in standing), *closed])
            self._shaking(person, free)

    def _shaking(self, person: Worker, tasks: Sequence[Task]) -> None:
        if self.work.shaking == float("inf") or not any(task.vibration for task in tasks):
            return
        for day in range(self.work.now // DAY, self.work.days):
            terms = []
            for task in tasks:
                if not task.vibration:
                    continue
                seconds = to_si(task.minutes, "min")
                points = round(_POINT * vibration_points(vibration=task.vibration, seconds=seconds) + 0.5)
                terms.append(points * self._on_day(task, person.name, day))
            had = person.vibrated if day == self.work.now // DAY else 0.0
            self.cp.add(sum(terms) <= max(0, int(_POINT * (self.work.shaking - had))))

    def _on_day(self, task: Task, name: str, day: int) -> Any:
        by = self.vars[task.id].by[name]
        if self.work.days == 1:
            return by
        here = self.cp.new_bool_var(f"d{task.id}{name}{day}")
        begins = self.vars[task.id].begins
        low, high = self.cp.new_bool_var(""), self.cp.new_bool_var("")
        self.cp.add(begins >= day * DAY).only_enforce_if(low)
        self.cp.add(begins < day * DAY).only_enforce_if(~low)
        self.cp.add(begins < (day + 1) * DAY).only_enforce_if(high)
        self.cp.add(begins >= (day + 1) * DAY).only_enforce_if(~high)
        self.cp.add_bool_or(~by, ~low, ~high, here)
        return here

    def _interval(self, block: _Vars, there: Any, name: str) -> Any:
        return self.cp.new_optional_interval_var(block.begins, block.long, block.ends, there, name)

    def _spindle(self, machine: str, spindle: int, standing: str | None) -> None:
        """A circuit of what follows what on a spindle; the wheel of the block before decides on a change."""
        mine = [task for task in self.work.tasks if task.machine == machine]
        self.cp.add_no_overlap([self._interval(self.vars[task.id], self.vars[task.id].on[spindle], "") for task in mine])
        if not any(task.wheel is not None for task in mine):
            return
        arcs: list[tuple[int, int, Any]] = []
        changes: dict[int, list[Any]] = defaultdict(list)
        empty = self.cp.new_bool_var(f"empty{machine}{spindle}")
        arcs.append((0, 0, empty))
        for at, task in enumerate(mine, start=1):
            block = self.vars[task.id]
            arcs.append((at, at, ~block.on[spindle]))
            first, last = self.cp.new_bool_var(""), self.cp.new_bool_var("")
            arcs += [(0, at, first), (at, 0, last)]
            if task.wheel is not None and task.wheel != standing:
                changes[task.id].append(first)
            for other_at, other in enumerate(mine, start=1):
                if other is task:
                    continue
                follows = self.cp.new_bool_var("")
                arcs.append((other_at, at, follows))
                self.cp.add(block.begins >= self.vars[other.id].ends).only_enforce_if(follows)
                if task.wheel is not None and task.wheel != other.wheel:
                    changes[task.id].append(follows)
        self.cp.add_circuit(arcs)
        for task in mine:
            if task.wheel is not None:
                # At most one of the arcs into it is taken, and none where it is not on this spindle.
                on = self.vars[task.id].on[spindle]
                self.cp.add(self.vars[task.id].change == sum(changes[task.id])).only_enforce_if(on)

    def _air(self) -> None:
        air, always = air_of(self.work), self.cp.new_constant(1)
        for apart in air.apart:
            first, other = self.vars[apart.first], self.vars[apart.other]
            lies = self.cp.new_interval_var(first.begins, first.long + apart.after, first.ends + apart.after, "")
            self.cp.add_no_overlap([lies, self._interval(other, always, "")])
        for room, dusty in air.dusty.items():
            intervals = [self._interval(self.vars[task], always, "") for task in dusty if not self.work.by_id[task].begun]
            begun = sum(self.work.by_id[task].begun for task in dusty)
            standing = [self._interval(self.vars[task], always, "") for task in dusty if self.work.by_id[task].begun]
            most = max(air.most[room], begun)
            self.cp.add_cumulative([*intervals, *standing], [1] * (len(intervals) + begun), most)

    def _goals(self) -> None:
        cp, end = self.cp, self.work.horizon
        lates = []
        slope = []
        for task in self.work.tasks:
            if task.due is not None:
                late = cp.new_int_var(0, 2 * end, f"l{task.id}")
                cp.add(late >= self.vars[task.id].ends - task.due)
                lates.append(late)
            slope.append(self.vars[task.id].ends)
        self.late = cp.new_int_var(0, 2 * end * max(1, len(lates)), "late")
        cp.add(self.late == sum(lates))
        blocks = [var.change for var in self.vars.values() if var.change is not None]
        self.changes = cp.new_int_var(0, len(blocks), "changes")
        cp.add(self.changes == sum(blocks))
        cp.add(self.changes >= self._least_changes())
        self.ends = cp.new_int_var(0, end, "ends")
        cp.add_max_equality(self.ends, [var.ends for var in self.vars.values()] or [cp.new_constant(0)])
        self.moved = cp.new_int_var(0, len(self.keep), "moved")
        cp.add(self.moved == sum(self._moves(placed) for placed in self.keep.values()))
        # What ends early leaves air: a small slope under the end of the day.
        self.weight = 1 + len(self.vars) * end
        self.last = self.weight * self.ends + sum(slope)

    def _moves(self, stood: Placed) -> Any:
        """Whether a block stands elsewhere than it stood: from another minute, by somebody else, on another spindle."""
        block, moves = self.vars[stood.task], self.cp.new_bool_var(f"m{stood.task}")
        self.cp.add(block.begins == stood.begins).only_enforce_if(~moves)
        for here in (block.by.get(stood.person or ""), block.on.get(stood.spindle or 0)):
            if here is not None:
                self.cp.add_implication(~moves, here)
        return moves

    def _least_changes(self) -> int:
        """Wheels that are needed and stand nowhere."""
        found = 0
        for station in self.work.stations:
            needed = {task.wheel for task in self.work.tasks if task.machine == station.id and task.wheel is not None}
            found += len(needed - set(station.standing))
        return found

    def minimise(self, goal: str) -> None:
        self.cp.minimize({"late": self.late, "changes": self.changes, "moved": self.moved, "ends": self.last}[goal])

    def bound(self, goal: str, value: float) -> int:
        """What the solver proved, in the goal's own measure."""
        return int(value // self.weight) if goal == "ends" else round(value + 0.499)

    def hold(self, goal: str, best: int) -> None:
        if goal != "ends":
            self.cp.add({"late": self.late, "changes": self.changes, "moved": self.moved}[goal] <= best)

    def reached(self, goal: str, plan: Sequence[Placed]) -> int:
        """What a plan is worth by one goal."""
        if goal == "moved":
            places = ((placed, self.keep[placed.task]) for placed in plan if placed.task in self.keep)
            return sum(
                (placed.begins, placed.person, placed.spindle) != (old.begins, old.person, old.spindle)
                for placed, old in places
            )
        reached: int = getattr(score(self.work, plan), goal)
        return reached

    def rank(self, plan: Sequence[Placed]) -> tuple[int, ...]:
        """Plans in the order of all goals."""
        return tuple(self.reached(goal, plan) for goal in ("late", "changes", "moved", "ends"))

    def hint(self, plan: Sequence[Placed]) -> None:
        self.cp.clear_hints()
        for placed in plan:
            block = self.vars[placed.task]
            self.cp.add_hint(block.begins, placed.begins)
            self.cp.add_hint(block.ends, placed.ends)
            for name, by in block.by.items():
                self.cp.add_hint(by, name == placed.person)
            for spindle, on in block.on.items():
                self.cp.add_hint(on, spindle == placed.spindle)
            if block.change is not None:
                self.cp.add_hint(block.change, placed.change)

    def plan(self, value: Callable[[Any], int]) -> tuple[Placed, ...]:
        return tuple(self._placed(task, value) for task in self.work.tasks)

    def _placed(self, task: Task, value: Callable[[Any], int]) -> Placed:
        block = self.vars[task.id]
        person = next((name for name, by in block.by.items() if value(by)), None)
        spindle = next((spindle for spindle, on in block.on.items() if value(on)), None)
        change = block.change is not None and bool(value(block.change))
        return Placed(task.id, int(value(block.begins)), int(value(block.ends)), person, spindle, change)


def _closed(person: Worker, days: int) -> list[tuple[int, int]]:
    """When a person is not there."""
    found, at = [], 0
    for begins, ends in person.free(days):
        if begins > at:
            found.append((at, begins))
        at = ends
    return [*found, (at, days * DAY)] if at < days * DAY else found


GOALS: Final = ("late", "changes", "ends")
_MEMORY_MB: Final = 1000
_LISTEN_S: Final = 0.1
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
        stop: asked several times a second.  tell: every better plan.
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
            if not violations(work, plan) and model.rank(plan) <= model.rank(found.plan):
                found = DayFound(work, plan, score(work, plan), found.bounds, found.proven)
                tell(found)

        with _stopped_when(stop, solver):
            status = solver.solve(model.cp, _callback(cp_model, model, better))
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


def _callback(cp_model: Any, model: DayConstraints, better: Callable[[tuple[Placed, ...]], None]) -> Any:
    # The solver is loaded when it is first asked, so its class is not known to the types before that.
    class BetterPlan(cp_model.CpSolverSolutionCallback):  # type: ignore[misc]
        def on_solution_callback(self) -> None:
            better(model.plan(self.value))

    return BetterPlan()


@contextmanager
def _stopped_when(stop: Callable[[], bool], solver: Any) -> Iterator[None]:
    """Stop a solver soon after that is asked for: it can be minutes from one solution to the next."""
    over = Event()

    def watch() -> None:
        while not over.wait(_LISTEN_S):
            if stop():
                solver.stop_search()

    thread = Thread(target=watch, name="listen", daemon=True)
    thread.start()
    try:
        yield
    finally:
        over.set()
        thread.join()
