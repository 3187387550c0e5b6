"""Today: the board of a shop's open jobs, planned in the background and following what the bench says."""

import logging
import threading
from collections.abc import Callable, Mapping, Sequence
from concurrent.futures import Future, ThreadPoolExecutor
from dataclasses import dataclass, replace
from datetime import date, datetime
from functools import partial
from typing import TypeVar

from kelbrast.app.board_at_bench import at_the_bench, with_ways_back
from kelbrast.app.board_kept import KeptBoard
from kelbrast.app.board_search import IMPROVE_S, Search
from kelbrast.app.clock import wall_clock
from kelbrast.app.day import DayJob, at_once, by_arrival, planned_or_why, told_apart, work_of
from kelbrast.app.jobs import Jobs, KeptJob
from kelbrast.app.planning import job_of
from kelbrast.app.runs import Runs
from kelbrast.core.day.events import applied
from kelbrast.core.day.follow import Pin, first_of_all, with_done, with_pins
from kelbrast.core.day.from_plan import machines_missing
from kelbrast.core.day.greedy import plan_at_once, settled
from kelbrast.core.day.promises import promises, replanned
from kelbrast.core.day.schedule import DayScore, Placed, score, violations
from kelbrast.core.day.shop import DAY, DayWork
from kelbrast.core.day.solver import DayFound
from kelbrast.core.errors import BadInput
from kelbrast.core.job import ORDERED_STATES, Job
from kelbrast.core.planning.whole.plan import Plan, plan_job
from kelbrast.core.reference.own_rows import carrying, in_use
from kelbrast.documents.day.events import DayEventFile, changes_said, event_said, to_event
from kelbrast.documents.day.format import DayFigures, DayFile, ShopFile, to_day_file, to_rooms, to_workers
from kelbrast.storage import shop as store
from kelbrast.storage.sessions import reading, writing

_SHOP = "shop"
log = logging.getLogger(__name__)
Answered = TypeVar("Answered")


@dataclass(frozen=True, slots=True)
class Board:
    """The board as it stands.

    Attributes:
        ids: of the job of every block.  done: blocks that are over, with the minute at which they ended.
        events: what was said to have happened today, each with its words.
        left_out: jobs that cannot be planned, and why.  trouble: why the search for a better one failed; empty if it did not.
    """

    file: DayFile
    day: date
    ids: dict[str, int]
    done: dict[str, int]
    left_out: tuple[tuple[str, str], ...]
    searching: bool
    now: datetime
    trouble: str
    events: tuple[tuple[DayEventFile, str], ...] = ()


@dataclass(frozen=True, slots=True)
class Standing:
    """The schedule as it stands: what is to be done, where it stands, and where the board begins, in minutes of its day."""

    work: DayWork
    plan: tuple[Placed, ...]
    origin: int
    day: date


@dataclass(frozen=True, slots=True)
class _Asked:
    """Everything that a board follows from. `keys`: of every block, also of those that are over."""

    work: DayWork
    keys: dict[int, str]
    ids: dict[str, int]
    done: dict[int, int]
    origin: int
    left_out: tuple[tuple[str, str], ...]
    last: tuple[Placed, ...]
    under_way: bool  # something of it is done or in hand

    @property
    def known(self) -> bool:
        """Whether some of it stands on a board that people have seen."""
        return not {placed.task for placed in self.last}.isdisjoint(self.work.by_id)


class Boards:
    """The board of one shop. Searches live as long as the server; what they found is kept.

    Args:
        improving: look for a better schedule whenever there is a new question, as long as no work of the day is begun: after
            that blocks only move when somebody asks.

    Boards are worked out one at a time in a thread of their own, to which every question is put by `soon`: nobody who taps
    waits for them.
    """

    def __init__(self, jobs: Jobs, clock: Callable[[], datetime] = wall_clock, *, improving: bool = False) -> None:
        self._jobs, self._clock, self._improving = jobs, clock, improving
        self._lock = threading.Lock()
        self._search: Search | None = None
        self._kept = KeptBoard(jobs.engine)
        self._plans: dict[int, tuple[object, Plan | str]] = {}
        self._worker: ThreadPoolExecutor | None = None
        self._next: Future[Board] | None = None

    def soon(self, act: Callable[[], Answered]) -> "Future[Answered]":
        """What this answers, worked out in the thread of the boards."""
        with self._lock:
            return self._thread().submit(carrying(act))

    def _thread(self) -> ThreadPoolExecutor:
        if self._worker is None:
            self._worker = ThreadPoolExecutor(1, "board")
        return self._worker

    def board_soon(self) -> "Future[Board]":
        """The board as it is known now. Everybody who asks before the next one is begun gets the same."""
        with self._lock:  # held until it is written down: it may be answered before that otherwise, and stay for ever
            if self._next is None:
                self._next = self._thread().submit(carrying(self._begin))
            return self._next

    def _begin(self) -> Board:
        with self._lock:
            self._next = None  # whoever asks from now on may know of something newer
        return self.board()

    def shop(self) -> ShopFile:
        """What holds for the shop."""
        with reading(self._jobs.engine) as session:
            return ShopFile.model_validate(dict(store.get_setting(session, _SHOP)), strict=False)

    def change_shop(self, file: ShopFile) -> ShopFile:
        """Say what holds for the shop.

        Raises:
            BadInput: hours that are none, or two people of one name.
        """
        to_workers(file.people)
        to_rooms(file)
        with writing(self._jobs.engine) as session:
            store.put_setting(session, _SHOP, file.model_dump(mode="json"))
        return file

    def board(self) -> Board:
        """The board as it is known now; the search that was begun for it goes on."""
        asked = self._asked()
        day_found, search = self._found(asked), self._searched(asked)
        if search is None and self._improving and not asked.under_way:
            search = self._begin_search(asked, day_found, IMPROVE_S)
        # What is over keeps its place.
        gone = [placed for placed in asked.last if placed.task in asked.done]
        now = self._clock()
        self._kept.keep(asked.keys, (*gone, *day_found.plan), asked.work.stations, now.date())
        return Board(
            file=to_day_file(day_found, origin=asked.origin, first_come=by_arrival(asked.work, origin=asked.origin)),
            day=now.date(),
            ids=asked.ids,
            done={asked.keys[task]: ended for task, ended in asked.done.items()},
            left_out=asked.left_out,
            searching=search is not None and search.searching,
            now=now,
            trouble=search.trouble if search is not None else "",
            events=tuple((file, event_said(file, asked.work, asked.origin)) for _, file in self.events(now.date())),
        )

    def standing(self) -> Standing:
        """The schedule as it stands, to ask what would be."""
        asked = self._asked()
        day_found = self._found(asked)
        return Standing(day_found.work, day_found.plan, asked.origin, self._clock().date())

    def events(self, day: date) -> list[tuple[int, DayEventFile]]:
        """What was said to have happened on a day, each with the minute at which it was said."""
        return [(at, DayEventFile.model_validate(one, strict=False)) for at, one in self._kept.events(day)]

    def keep_events(self, events: Sequence[tuple[int, DayEventFile]]) -> Board:
        """Keep what happened today: the rest of the day is planned around it, with as few blocks moved as may be."""
        self.board()  # kept for today, so that what happened is of today
        self._kept.keep_events([(at, file.model_dump(mode="json", exclude_none=True)) for at, file in events])
        asked = self._asked()
        here = {task.id for task in asked.work.tasks}
        made = replanned(asked.work, [placed for placed in asked.last if placed.task in here])
        if made is not None:
            gone = [placed for placed in asked.last if placed.task in asked.done]
            self._kept.keep(asked.keys, (*gone, *made[1]), asked.work.stations, self._clock().date())
        return self.board()

    def search(self, *, seconds: float, seed: int = 1) -> Board:
        """Look for a better board in the background; what runs is stopped.

        Raises:
            BadInput: there is nothing to plan.
        """
        asked = self._asked()
        self._begin_search(asked, self._found(asked), seconds, seed)
        return self.board()

    def _begin_search(self, asked: _Asked, day_found: DayFound, seconds: float, seed: int = 1) -> Search:
        # What people know of already moves as little as possible; of a first plan everything may.
        keep = day_found.plan if asked.under_way or asked.known else ()
        with self._lock:
            if self._search is not None:
                self._search.stop()
            self._search = Search(day_found, seconds=seconds, seed=seed, keep=keep)
            return self._search

    def stop(self) -> None:
        """Stop looking; what was found stays."""
        with self._lock:
            if self._search is not None:
                self._search.stop()

    def pin(self, key: str, pin: Pin | None) -> Board:
        """Put a block somewhere, or let it go again.

        Raises:
            BadInput: it cannot stand there, and why.
        """
        asked = self._asked()
        self._task(asked, key)
        pins = {known: pin for known, pin in self._kept.pins().items() if known != key}
        if pin is not None:
            pins[key] = Pin(pin.begins + asked.origin, pin.person, pin.spindle)
        with_it = self._asked(pins)
        self._task(with_it, key)  # a job that is left out since then has no room there
        self._found(with_it)  # refused here when nothing else fits around it
        self._kept.pin(pins)
        return self.board()

    def why(self, key: str) -> tuple[DayFigures, DayFigures, list[str]] | None:
        """The figures now, and if this block went first, and every promise that would change; None where it cannot."""
        asked = self._asked()
        task = self._task(asked, key)
        day_found = self._found(asked)
        other = plan_at_once(first_of_all(asked.work, task))
        if other is None:
            return None
        changes = changes_said(promises(day_found.work, day_found.plan), promises(*other))
        return _figures(day_found.score, asked.origin), _figures(score(*other), asked.origin), changes

    def finish(self, key: str) -> Board:
        """Somebody says that a block is done: not all work is tapped at a bench.

        Raises:
            BadInput: there is no such block.
        """
        asked = self._asked()
        self._task(asked, key)
        now = self._clock()
        self._kept.say_done(key, now.hour * 60 + now.minute)
        return self.board()

    @staticmethod
    def _task(asked: _Asked, key: str) -> int:
        found = next((task.id for task in asked.work.tasks if task.key == key), None)
        if found is None:
            raise BadInput.one("block", "there is no such block on the board")
        return found

    def _asked(self, pins: Mapping[str, Pin] | None = None) -> _Asked:
        now, shop = self._clock(), self.shop()
        planned, left_out = self._planned()
        if not planned and not left_out:
            raise BadInput.one("jobs", "no job is ordered: set the state of those that are to be done")
        people = to_workers(shop.people)
        origin = min(person.begins for person in people)
        minute = now.hour * 60 + now.minute
        standing = {
            machine: tuple(wheels) for machine, wheels in {**self._kept.this_morning(now.date()), **shop.standing}.items()
        }
        happened, at_begin = self.events(now.date()), origin
        runs = {str(run.job_id): run for run in Runs(self._jobs).open() if run.job_id is not None}
        names = told_apart([kept.job.title for kept, _ in planned], [kept.id for kept, _ in planned])

        def asked(only: Sequence[int]) -> _Asked:
            chosen = [
                DayJob(str(kept.id), name, plan, kept.job.due)
                for (kept, plan), name in zip(planned, names, strict=True)
                if kept.id in only
            ]
            work = work_of(
                chosen, people, day=now.date(), now=origin, shaking=shop.shaking, rooms=to_rooms(shop), standing=standing
            )
            work, back = with_ways_back(work, runs)
            work = applied(work, [to_event(file, at=at, origin=at_begin) for at, file in happened])
            last = self._kept.last(work, now.date())
            done, begun = at_the_bench(work, runs, back, now.date())
            done |= {task: ended for task, ended in self._kept.said_done(work, now.date()).items() if task not in done}
            left = replace(with_done(work, last, done, now=minute, begun=begun), now=max(origin, minute))
            held = self._kept.pins() if pins is None else pins
            pinned = with_pins(left, {task.id: held[task.key] for task in left.tasks if task.key in held})
            return _Asked(
                pinned,
                {task.id: task.key for task in work.tasks},
                {task.key: int(task.job) for task in work.tasks},
                done,
                origin,
                tuple(left_out),
                last,
                under_way=bool(done or begun),
            )

        together = asked([kept.id for kept, _ in planned])
        if pins is not None or isinstance(planned_or_why(together.work), DayFound):
            return together
        # What does not fit must not take the others with it: they are put on one after the other, and it is named.
        fits: list[int] = []
        for (kept, _), name in zip(planned, names, strict=True):
            made = planned_or_why(asked([*fits, kept.id]).work)
            if isinstance(made, DayFound):
                fits.append(kept.id)
            else:
                left_out.append((name, made))
        return asked(fits)

    def _planned(self) -> tuple[list[tuple[KeptJob, Plan]], list[tuple[str, str]]]:
        """The ordered jobs with their plans, and those that have none, with the reason."""
        shelf = self._jobs.rack.shelf()
        jobs, unreadable = self._jobs.plannable(ORDERED_STATES)
        left_out = [(job.title, job.reason) for job in unreadable]
        planned: list[tuple[KeptJob, Plan]] = []
        plans: dict[int, tuple[object, Plan | str]] = {}
        for kept in sorted(jobs, key=lambda job: job.id):
            about = (kept.revision, shelf, in_use())
            known = self._plans.get(kept.id)
            plan = known[1] if known is not None and known[0] == about else _plan_of(partial(job_of, kept.job, shelf))
            plans[kept.id] = about, plan
            if isinstance(plan, str):
                left_out.append((kept.job.title, plan))
            elif missing := machines_missing(plan, shelf.machines):
                left_out.append((kept.job.title, f"it waits for what the shop does not have: {', '.join(missing)}"))
            else:
                planned.append((kept, plan))
        self._plans = plans
        return planned, left_out

    def _found(self, asked: _Asked) -> DayFound:
        """What the search found, where it was asked the same, or the last board: as it is where that still can be, moved as
        time went on where it cannot; else at once."""
        search = self._searched(asked)
        last = search.found.plan if search is not None else asked.last
        last = tuple(placed for placed in last if placed.task in asked.work.by_id)
        # It may have taken more days than the day is begun with.
        longer = replace(asked.work, days=max([asked.work.days, *(1 + placed.ends // DAY for placed in last)]))
        if len(last) == len(asked.work.tasks) and not violations(longer, last):
            told = (search.found.bounds, search.found.proven) if search is not None else ()
            return DayFound(longer, last, score(longer, last), *told)
        day_found = at_once(asked.work)
        moved = settled(day_found.work, last) if last else None
        if moved is not None and score(day_found.work, moved).late <= day_found.score.late:
            return DayFound(day_found.work, tuple(moved), score(day_found.work, moved))
        return day_found

    def _searched(self, asked: _Asked) -> Search | None:
        """The search that was begun for this very question."""
        return self._search if self._search is not None and self._search.answers(asked.work) else None


def _plan_of(job: Callable[[], Job]) -> Plan | str:
    try:
        plan = plan_job(job())
    except BadInput as bad:
        return str(bad.faults[0])
    return plan if plan.possible else "it has no plan that could be followed"


def _figures(found: DayScore, origin: int) -> DayFigures:
    return DayFigures(changes=found.changes, late_min=found.late, ends_min=max(0, found.ends - origin))
