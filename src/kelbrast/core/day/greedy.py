"""A first schedule by priority rules: blocks placed one after the other, in several orders; the best is kept."""

from bisect import bisect_right
from collections import defaultdict
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Final

from kelbrast.core.day.air import air_of
from kelbrast.core.day.schedule import DayScore, Placed, needs_change, points_by_day, score, violations
from kelbrast.core.day.shop import DAY, DayWork, Task, Worker
from kelbrast.core.process.vibration import vibration_points
from kelbrast.core.units import to_si

_MOST_DAYS: Final = 21
PlacingOrder = Callable[[tuple[Task, ...], "PlacingBoard"], tuple[float, ...]]


@dataclass(frozen=True, slots=True)
class Gap:
    """Room on a spindle (None: no machine is needed), whether the wheel must be put on there, and whether it takes one off."""

    spindle: int | None
    low: int
    high: int
    change: bool
    taken: bool = False


class PlacingBoard:
    """What is put down so far."""

    def __init__(self, work: DayWork, stood: Mapping[int, Placed] | None = None) -> None:
        self.work, self.stood = work, stood or {}
        self.at: dict[int, Placed] = {}
        self._counted, self._of_people = -1, dict[str, _Taken]()
        self._dust_counted, self._of_rooms = -1, dict[str, _Taken]()
        self.free = {person.name: person.free(work.days) for person in work.people}
        self.before: Mapping[int, list[tuple[int, int, int | None]]] = _before(work)
        self.fixed = [task for task in work.tasks if task.fixed is not None]
        self.air = air_of(work)
        self.apart: dict[int, list[tuple[int, int, int]]] = defaultdict(list)  # other block, minutes before it, after it
        for apart in self.air.apart:
            self.apart[apart.other].append((apart.first, 0, apart.after))
            self.apart[apart.first].append((apart.other, apart.after, 0))

    def copy(self) -> "PlacingBoard":
        other = PlacingBoard.__new__(PlacingBoard)
        other.work, other.free, other.before, other.fixed = self.work, self.free, self.before, self.fixed
        other.air, other.apart, other.stood = self.air, self.apart, self.stood
        other._counted, other._of_people = self._counted, self._of_people
        other._dust_counted, other._of_rooms = self._dust_counted, dict(self._of_rooms)
        other.at = dict(self.at)
        return other

    def earliest(self, task: Task) -> int:
        """When what comes before it is done."""
        return max(self.work.now, task.earliest, self.done_before(task))

    def done_before(self, task: Task) -> int:
        """When what comes before it is done, whatever the clock says."""
        return max((self.at[before].ends + least for before, least, _ in self.before[task.id]), default=0)

    def latest(self, task: Task) -> float:
        """When it must have begun, for what runs out after what came before it."""
        ends = (self.at[before].ends + most for before, _, most in self.before[task.id] if most is not None)
        return min(ends, default=float("inf"))

    def spots(self, task: Task, not_before: int) -> Iterator[Placed]:
        """Where it could go first, for every person and every gap on a spindle; what is fixed goes there or nowhere."""
        begins, name, where = task.fixed if task.fixed is not None else (None, None, None)
        people = [person for person in self.work.people if name in (None, person.name)] if task.by_person else [None]
        for gap in self._gaps(task, where):
            long = task.minutes + (task.change if gap.change else 0)
            for person in people:
                first = begins if begins is not None else self._first(person, task, max(not_before, gap.low), long, gap.high)
                if first is not None and gap.low <= first and first + long <= gap.high:
                    yield Placed(task.id, first, first + long, person.name if person else None, gap.spindle, gap.change)

    def _gaps(self, task: Task, where: int | None) -> list["Gap"]:
        """Where its machine has room: a wheel put on between two blocks must leave the next as it was planned."""
        if task.machine is None:
            return [Gap(None, 0, self.work.horizon, change=False)]
        gaps: list[Gap] = []
        for spindle in range(1, len(self.work.station(task.machine).standing) + 1):
            if where in (None, spindle):
                gaps += self._gaps_on(task, task.machine, spindle)
        # An empty one before one whose wheel may be wanted again.
        return sorted(gaps, key=lambda gap: gap.taken)

    def _gaps_on(self, task: Task, machine: str, spindle: int) -> Iterator["Gap"]:
        stands, low = self.work.station(machine).standing[spindle - 1], 0
        for placed in [*self._on(machine, spindle, task.id), None]:
            change = needs_change(task, stands)
            high = self.work.horizon if placed is None else placed.begins
            after = None if placed is None else self.work.by_id[placed.task]
            open_end = placed is None or after is None or placed.task not in self.at
            if open_end or (
                placed is not None and after is not None and needs_change(after, task.wheel or stands) == placed.change
            ):
                yield Gap(spindle, low, high, change=change, taken=stands is not None)
            if placed is not None and after is not None:
                stands, low = after.wheel or stands, placed.ends

    def _on(self, machine: str, spindle: int, but: int) -> list[Placed]:
        """What stands on a spindle, and what is kept for it, in order of time."""
        here = [
            placed
            for placed in self.at.values()
            if self.work.by_id[placed.task].machine == machine and placed.spindle == spindle
        ]
        kept = [
            placed
            for placed in self._kept(but)
            if self.work.by_id[placed.task].machine == machine and placed.spindle == spindle
        ]
        return sorted([*here, *kept], key=lambda block: block.begins)

    def _kept(self, but: int) -> list[Placed]:
        """Room for what is fixed and not put down yet, as if its wheel had to be put on."""
        return [
            Placed(task.id, task.fixed[0], task.fixed[0] + task.minutes + task.change, task.fixed[1], task.fixed[2])
            for task in self.fixed
            if task.id not in self.at and task.id != but and task.fixed is not None
        ]

    def _first(self, person: Worker | None, task: Task, start: int, long: int, until: int) -> int | None:
        """The first minute from which this person is free for so long, and the air is as it must be."""
        if person is not None and not person.may_use(task.machine):
            return None
        windows = self.free[person.name] if person is not None else ((0, self.work.horizon),)
        kept = self._kept(task.id)
        closed = [*self._foul(task, kept)]
        closed += [(one.begins, one.ends) for one in kept if person is not None and one.person == person.name]
        taken = [_Taken(closed)] if closed else []
        if task.dusty and not kept and self.air.most.get(task.room) == 1:
            taken.append(self._dusty(task.room))
        if person is not None and person.name in self._busy():
            taken.append(self._busy()[person.name])
        for low, high in windows:
            last = min(high, until) - long
            if max(low, start) > last:
                continue
            at = _free_from(max(low, start), long, taken)
            if at <= last and (person is None or self._may_shake(person, task, at // DAY)):
                return at
        return None

    def _may_shake(self, person: Worker, task: Task, day: int) -> bool:
        if not task.vibration or self.work.shaking == float("inf"):
            return True
        mine = [placed for placed in self.at.values() if placed.person == person.name]
        had = points_by_day(self.work, mine).get((person.name, day), 0.0)
        return had + vibration_points(vibration=task.vibration, seconds=to_si(task.minutes, "min")) <= self.work.shaking

    def _foul(self, task: Task, kept: Sequence[Placed]) -> Iterator[tuple[int, int]]:
        """When the air is not as the block needs it, by what else stands there or is kept for."""
        also = {placed.task: placed for placed in kept}
        for other, before, after in self.apart.get(task.id, ()):
            placed = self.at.get(other) or also.get(other)
            if placed is not None:
                yield placed.begins - before, placed.ends + after
        if not task.dusty or task.room not in self.air.most or (not kept and self.air.most[task.room] == 1):
            return
        dusty = [self.at.get(one) or also.get(one) for one in self.air.dusty[task.room] if one != task.id]
        there = [one for one in dusty if one is not None]
        if self.air.most[task.room] == 1:
            yield from ((one.begins, one.ends) for one in there)
        else:
            yield from _full(there, self.air.most[task.room])

    def _dusty(self, room: str) -> "_Taken":
        """When there is dust in a room where one at a time may make it; worked out anew when something was put down."""
        if self._dust_counted != len(self.at):
            self._dust_counted, self._of_rooms = len(self.at), {}
        if room not in self._of_rooms:
            there = [self.at[other] for other in self.air.dusty[room] if other in self.at]
            self._of_rooms[room] = _Taken((placed.begins, placed.ends) for placed in there)
        return self._of_rooms[room]

    def _busy(self) -> Mapping[str, "_Taken"]:
        """When everybody is busy with what stands there; worked out anew when something was put down."""
        if self._counted != len(self.at):
            of_people = defaultdict(list)
            for placed in self.at.values():
                if placed.person is not None:
                    of_people[placed.person].append((placed.begins, placed.ends))
            self._counted, self._of_people = len(self.at), {name: _Taken(times) for name, times in of_people.items()}
        return self._of_people


class _Taken:
    """Times that are taken, in order and without overlaps: when each of them begins and ends."""

    def __init__(self, times: Iterable[tuple[int, int]]) -> None:
        self.begins, self.ends = list[int](), list[int]()
        for begins, ends in sorted(times):
            if self.ends and begins <= self.ends[-1]:
                self.ends[-1] = max(self.ends[-1], ends)
            else:
                self.begins.append(begins)
                self.ends.append(ends)


def _free_from(at: int, long: int, taken: Sequence[_Taken]) -> int:
    """The first minute, not before that, from which nothing is taken for so long."""
    moved = True
    while moved:
        moved = False
        for each in taken:
            next_one = bisect_right(each.ends, at)
            while next_one < len(each.ends) and each.begins[next_one] < at + long:
                at, moved = each.ends[next_one], True
                next_one += 1
    return at


def _full(dusty: Sequence[Placed], most: int) -> Iterator[tuple[int, int]]:
    """When so many of these go on at once as may: from where the last of them begins until the first of them ends."""
    for placed in dusty:
        beside = [one for one in dusty if one.begins <= placed.begins < one.ends]
        if len(beside) >= most:
            yield placed.begins, min(one.ends for one in beside)


def _before(work: DayWork) -> dict[int, list[tuple[int, int, int | None]]]:
    found: dict[int, list[tuple[int, int, int | None]]] = defaultdict(list)
    for link in work.links:
        found[link.task].append((link.before, link.least, link.most))
    return found


def chains(work: DayWork) -> list[tuple[Task, ...]]:
    """Blocks that belong together because something runs out between them, each in an order that can be followed."""
    after: dict[int, list[int]] = defaultdict(list)
    for link in work.links:
        after[link.before].append(link.task)
    order = _in_order(work, after)
    place = {task: at for at, task in enumerate(order)}
    group = {task: task for task in order}

    def root(task: int) -> int:
        while group[task] != task:
            task = group[task]
        return task

    for link in work.links:
        if link.most is not None:
            for between in _between(link.before, link.task, after):
                group[root(between)] = root(link.before)
    found: dict[int, list[int]] = defaultdict(list)
    for task in order:
        found[root(task)].append(task)
    return [tuple(work.by_id[one] for one in sorted(each, key=place.__getitem__)) for each in found.values()]


def _between(before: int, task: int, after: Mapping[int, list[int]]) -> set[int]:
    """Everything on a way from one to the other."""
    known: dict[int, bool] = {}

    def leads(one: int) -> bool:
        if one not in known:
            known[one] = one == task
            ways = [leads(other) for other in after.get(one, ())]  # all of them, so that every one is known
            known[one] = known[one] or any(ways)
        return known[one]

    leads(before)
    return {one for one, does in known.items() if does}


def _in_order(work: DayWork, after: Mapping[int, list[int]]) -> list[int]:
    waits = dict.fromkeys(work.by_id, 0)
    for link in work.links:
        waits[link.task] += 1
    ready, found = [one for one, count in waits.items() if not count], []
    while ready:
        one = ready.pop(0)
        found.append(one)
        for other in after.get(one, ()):
            waits[other] -= 1
            if not waits[other]:
                ready.append(other)
    return found


def put_down(work: DayWork, order: PlacingOrder, stood: Mapping[int, Placed] | None = None) -> list[Placed] | None:
    """Chain after chain in an order; None where one of them has no place within the days.

    Args:
        stood: where blocks stood, and stay if they can.
    """
    board, waiting = PlacingBoard(work, stood), chains(work)
    while waiting:
        ready = [chain for chain in waiting if _can_begin(chain, board)]
        if not ready:
            return None
        chain = min(ready, key=lambda one: order(one, board))
        if not _place(chain, board):
            return None
        waiting.remove(chain)
    return list(board.at.values())


def _can_begin(chain: tuple[Task, ...], board: PlacingBoard) -> bool:
    own = {task.id for task in chain}
    return all(before in board.at for task in chain for before, _, _ in board.before[task.id] if before not in own)


def _place(chain: tuple[Task, ...], board: PlacingBoard) -> bool:
    """The whole chain, begun as early as all of it fits; a later beginning where something would run out."""
    start = 0
    for _ in range(200):
        trial, lacks = board.copy(), 0
        for at, task in enumerate(chain):
            if task.id in trial.at:
                continue
            spot = _best(task, trial, start if at == 0 else 0)
            if spot is None or (task.fixed is not None and spot.begins < trial.done_before(task)):
                return False
            trial.at[task.id] = spot
            lacks = max(lacks, int(max(0, spot.begins - trial.latest(task))))
            _stretch(task, spot, trial)
        if not lacks:
            board.at = trial.at
            return True
        start = trial.at[chain[0].id].begins + max(1, lacks)
    return False


def _stretch(task: Task, spot: Placed, board: PlacingBoard) -> None:
    """A wait that is followed at its end lasts until then, as far as it may."""
    for before, _, most in board.before[task.id]:
        waits = board.work.by_id[before]
        if waits.kind == "wait" and most == 0:
            end = spot.begins if waits.most is None else min(spot.begins, board.at[before].begins + waits.most)
            board.at[before] = replace(board.at[before], ends=max(board.at[before].ends, end))


def _best(task: Task, board: PlacingBoard, start: int) -> Placed | None:
    """Where it stood before, if it can still be there; else, not before that, where it is done first."""
    not_before = max(start, board.earliest(task))
    stood = board.stood.get(task.id)
    if stood is not None:
        not_before = max(not_before, stood.begins)
        place = stood.begins, stood.person, stood.spindle
        for spot in board.spots(task, not_before):
            if (spot.begins, spot.person, spot.spindle) == place:
                return spot
    return min(
        board.spots(task, not_before),
        key=lambda spot: (spot.ends + (task.change if spot.change else 0), spot.begins),
        default=None,
    )


def _due(chain: tuple[Task, ...], work: DayWork) -> float:
    jobs = {task.job for task in chain}
    return min((task.due for task in work.tasks if task.job in jobs and task.due is not None), default=float("inf"))


def _first_spot(chain: tuple[Task, ...], board: PlacingBoard) -> tuple[float, float]:
    spot = _best(chain[0], board, 0)
    return (float("inf"), 1.0) if spot is None else (spot.begins, float(spot.change))


def come_first(work: DayWork) -> PlacingOrder:
    """First come, first served: the jobs as they stand, each through before the next."""
    place = {job: at for at, job in enumerate(dict.fromkeys(task.job for task in work.tasks))}
    return lambda chain, _: (place[chain[0].job], min(task.id for task in chain))


def orders(work: DayWork) -> tuple[PlacingOrder, ...]:
    """Ways to choose what comes next: by promise; by promise and then what stands; what stands first; what begins first."""
    return (
        come_first(work),
        lambda chain, board: (_due(chain, work), *_first_spot(chain, board)),
        lambda chain, board: (_first_spot(chain, board)[1], _due(chain, work), _first_spot(chain, board)[0]),
        lambda chain, board: (*_first_spot(chain, board), _due(chain, work)),
    )


def first_come(work: DayWork) -> tuple[DayWork, list[Placed]] | None:
    """The day by first come, first served, over as many days as it takes."""
    return _over_days(work, lambda longer: [put_down(longer, come_first(longer))])


def put_job_first(work: DayWork, job: str) -> tuple[DayWork, list[Placed]] | None:
    """The day if all blocks of a job were put down before any other, those by promise, over as many days as it takes."""

    def first(longer: DayWork) -> PlacingOrder:
        return lambda chain, _: (float(chain[0].job != job), _due(chain, longer), float(chain[0].id))

    return _over_days(work, lambda longer: [put_down(longer, first(longer))])


def settled(work: DayWork, last: Sequence[Placed]) -> list[Placed] | None:
    """The same day again after something changed, in the order in which blocks stood: every one stays where it was unless it
    cannot, or all of them move up, whichever is less late."""
    stood = {placed.task: placed for placed in last}

    def as_they_stood(chain: tuple[Task, ...], _: PlacingBoard) -> tuple[float, ...]:
        return (min(stood[task.id].begins if task.id in stood else float("inf") for task in chain),)

    made = [put_down(work, as_they_stood, where) for where in (stood, None)]
    good = [plan for plan in made if plan is not None and not violations(work, plan)]
    return min(good, key=lambda plan: score(work, plan).late, default=None)


def plan_at_once(work: DayWork) -> tuple[DayWork, list[Placed]] | None:
    """The best of several orders, checked; over as many days as it takes. None where nothing fits at all."""
    return _over_days(work, lambda longer: [put_down(longer, order) for order in orders(longer)])


def _over_days(work: DayWork, make: Callable[[DayWork], Sequence[list[Placed] | None]]) -> tuple[DayWork, list[Placed]] | None:
    for days in range(max(work.days, _least_days(work)), _MOST_DAYS + 1):
        longer = replace(work, days=days)
        good = [plan for plan in make(longer) if plan is not None and not violations(longer, plan)]
        if good:
            return longer, min(good, key=lambda plan: _rank(longer, plan))
    return None


def _least_days(work: DayWork) -> int:
    """As many as the people need at the very least, if nobody ever waited for anything."""
    needed = sum(task.minutes for task in work.tasks if task.by_person and task.fixed is None)
    for days in range(1, _MOST_DAYS):
        there = sum(
            max(0, ends - max(begins, work.now)) for one in work.people for begins, ends in one.free(days) if ends > work.now
        )
        if there >= needed:
            return days
    return _MOST_DAYS


def _rank(work: DayWork, plan: Sequence[Placed]) -> DayScore:
    return score(work, plan)
