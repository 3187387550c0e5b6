"""Today: the board of a shop's open jobs, planned in the background and following what the bench says."""

import threading
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field, replace
from datetime import date, datetime

from kelbrast.app.board_at_bench import at_the_bench, with_ways_back
from kelbrast.app.board_kept import KeptBoard, keys_of
from kelbrast.app.clock import wall_clock
from kelbrast.app.day import DayJob, at_once, by_arrival, work_of
from kelbrast.app.jobs import Jobs, KeptJob
from kelbrast.app.planning import job_of
from kelbrast.app.runs import Runs
from kelbrast.core.day.follow import Pin, first_of_all, with_done, with_pins
from kelbrast.core.day.greedy import plan_at_once, settled
from kelbrast.core.day.schedule import DayScore, Placed, faults_in, score
from kelbrast.core.day.shop import DayWork
from kelbrast.core.day.solver import DayFound, improve
from kelbrast.core.errors import BadInput
from kelbrast.core.job import ORDERED_STATES
from kelbrast.core.planning.whole.plan import plan_job
from kelbrast.exchange.day_file import DayFigures, DayFile, to_day_file, to_workers
from kelbrast.exchange.shop_file import ShopFile
from kelbrast.storage import shop as store
from kelbrast.storage.sessions import reading, writing

_SHOP = "shop"


@dataclass(frozen=True, slots=True)
class Board:
    """The board as it stands.

    Attributes:
        ids: of the job of every block.  done: blocks that are over, with the minute at which they ended.
        left_out: jobs that can not be planned, and why.
    """

    file: DayFile
    day: date
    ids: dict[int, int]
    done: dict[int, int]
    left_out: tuple[tuple[str, str], ...]
    searching: bool
    now: datetime


@dataclass(slots=True)
class _Search:
    """A search in the background: of which question, and what it found."""

    question: object
    found: DayFound | None = None
    done: bool = False
    stop: threading.Event = field(default_factory=threading.Event)


@dataclass(frozen=True, slots=True)
class _Asked:
    """Everything that a board follows from."""

    work: DayWork
    ids: dict[int, int]
    done: dict[int, int]
    origin: int
    left_out: tuple[tuple[str, str], ...]
    last: tuple[Placed, ...]
    under_way: bool  # something of it is done or in hand


class Boards:
    """The board of one shop. Searches live as long as the server; what they found is kept."""

    def __init__(self, jobs: Jobs, clock: Callable[[], datetime] = wall_clock) -> None:
        self._jobs, self._clock = jobs, clock
        self._lock = threading.Lock()
        self._search: _Search | None = None
        self._kept = KeptBoard(jobs.engine)

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
        with writing(self._jobs.engine) as session:
            store.put_setting(session, _SHOP, file.model_dump(mode="json"))
        return file

    def board(self) -> Board:
        """The board as it is known now; the search that was begun for it goes on."""
        asked = self._asked()
        found, searching = self._found(asked)
        # What is over keeps its place.
        gone = [one for one in asked.last if one.task in asked.done]
        self._kept.keep(asked.ids, (*gone, *found.plan), asked.work.stations, self._clock().date())
        return Board(
            file=to_day_file(found, origin=asked.origin, first_come=by_arrival(asked.work, origin=asked.origin)),
            day=self._clock().date(),
            ids=asked.ids,
            done=asked.done,
            left_out=asked.left_out,
            searching=searching,
            now=self._clock(),
        )

    def search(self, *, seconds: float, seed: int = 1) -> Board:
        """Look for a better board in the background; what runs is stopped.

        Raises:
            BadInput: there is nothing to plan.
        """
        asked = self._asked()
        found, _ = self._found(asked)
        with self._lock:
            if self._search is not None:
                self._search.stop.set()
            search = self._search = _Search(_question(asked), found)
        # Of a day that is under way as few blocks as possible move; before that every one may.
        keep = found.plan if asked.under_way else ()
        thread = threading.Thread(target=_run, args=(search, found, seconds, seed, keep), daemon=True)
        thread.start()
        return self.board()

    def stop(self) -> None:
        """Stop looking; what was found stays."""
        with self._lock:
            if self._search is not None:
                self._search.stop.set()

    def pin(self, task: int, pin: Pin | None) -> Board:
        """Put a block somewhere, or let it go again.

        Raises:
            BadInput: it can not stand there, and why.
        """
        asked = self._asked()
        if task not in asked.work.by_id:
            raise BadInput.one("task", "there is no such block on the board")
        pins = {key: one for key, one in self._kept.pins().items() if key != keys_of(asked.ids)[task]}
        if pin is not None:
            pins[keys_of(asked.ids)[task]] = Pin(pin.begins + asked.origin, pin.person, pin.spindle)
        self._found(self._asked(pins))  # refused here when nothing else fits around it
        self._kept.pin(pins)
        return self.board()

    def why(self, task: int) -> tuple[DayFigures, DayFigures] | None:
        """The figures now, and if this block went first; None where it can not."""
        asked = self._asked()
        if task not in asked.work.by_id:
            raise BadInput.one("task", "there is no such block on the board")
        found, _ = self._found(asked)
        other = plan_at_once(first_of_all(asked.work, task))
        if other is None:
            return None
        return _figures(found.score, asked.origin), _figures(score(*other), asked.origin)

    def _asked(self, pins: dict[str, Pin] | None = None) -> _Asked:
        now = self._clock()
        shop = self.shop()
        jobs: list[tuple[KeptJob, DayJob]] = []
        left_out: list[tuple[str, str]] = []
        shelf = self._jobs.rack.shelf()
        for kept in self._open_jobs():
            try:
                plan = plan_job(job_of(kept.job, shelf))
            except BadInput as bad:
                left_out.append((kept.job.title, str(bad.faults[0])))
                continue
            if plan.possible:
                names = [one.name for _, one in jobs]
                name = kept.job.title if kept.job.title not in names else f"{kept.job.title} ({kept.id})"
                jobs.append((kept, DayJob(name, plan, kept.job.due)))
            else:
                left_out.append((kept.job.title, "it has no plan that could be followed"))
        if not jobs:
            raise BadInput.one("jobs", "no job is ordered: set the state of those that are to be done")
        people = to_workers(shop.people)
        origin = min(one.begins for one in people)
        minute = now.hour * 60 + now.minute
        standing = {
            machine: tuple(wheels) for machine, wheels in {**self._kept.this_morning(now.date()), **shop.standing}.items()
        }
        work = work_of([one for _, one in jobs], people, day=now.date(), now=origin, shaking=shop.shaking, standing=standing)
        ids = _ids(work, jobs)
        runs = {run.job_id: run for run in Runs(self._jobs).open() if run.job_id is not None}
        work, ids, back = with_ways_back(work, ids, {kept.id: runs[kept.id] for kept, _ in jobs if kept.id in runs})
        last = self._kept.last(ids, now.date())
        done, begun = at_the_bench(work, ids, runs, back, now.date())
        done |= {task: ended for task, ended in self._kept.said_done(ids, now.date()).items() if task not in done}
        left = replace(with_done(work, last, done, now=minute, begun=begun), now=max(origin, minute))
        held = self._kept.pins() if pins is None else pins
        pinned = with_pins(left, {task: held[key] for task, key in keys_of(ids).items() if key in held})
        return _Asked(pinned, ids, done, origin, tuple(left_out), last, under_way=bool(done or begun))

    def _open_jobs(self) -> list[KeptJob]:
        return sorted(self._jobs.plannable(ORDERED_STATES), key=lambda one: one.id)

    def finish(self, task: int) -> Board:
        """Somebody says that a block is done: not all work is tapped at a bench.

        Raises:
            BadInput: there is no such block.
        """
        asked = self._asked()
        if task not in asked.work.by_id:
            raise BadInput.one("task", "there is no such block on the board")
        now = self._clock()
        self._kept.say_done(keys_of(asked.ids)[task], now.hour * 60 + now.minute)
        return self.board()

    def _found(self, asked: _Asked) -> tuple[DayFound, bool]:
        """What the search found, where it was asked the same; else the last board, where that still can be; else at once."""
        search = self._search
        if search is not None and search.question == _question(asked) and search.found is not None:
            return search.found, not search.done
        here = {task.id for task in asked.work.tasks}
        last = tuple(one for one in asked.last if one.task in here)
        if len(last) == len(here) and not faults_in(asked.work, last):
            return DayFound(asked.work, last, score(asked.work, last)), False
        found = at_once(asked.work)
        moved = settled(found.work, last) if last else None
        if moved is not None and score(found.work, moved).late <= found.score.late:
            return DayFound(found.work, tuple(moved), score(found.work, moved)), False
        return found, False


def _question(asked: _Asked) -> object:
    """What a search is about: the same question has the same answer, minute by minute as nothing new happens."""
    work = asked.work
    tasks = tuple(replace(task, earliest=0) for task in work.tasks)
    return work.people, work.stations, tasks, work.links


def _run(search: _Search, found: DayFound, seconds: float, seed: int, keep: Sequence[Placed]) -> None:
    def tell(better: DayFound) -> None:
        search.found = better

    try:
        search.found = improve(found, seconds=seconds, seed=seed, stop=search.stop.is_set, tell=tell, keep=keep)
    finally:
        search.done = True


def _ids(work: DayWork, jobs: Sequence[tuple[KeptJob, DayJob]]) -> dict[int, int]:
    """The job of every block: blocks of a job stand together, in the order of the jobs."""
    found: dict[int, int] = {}
    names = iter(jobs)
    current, name = None, None
    for task in work.tasks:
        if current is None or task.job != name:
            current, one = next(names)
            name = one.name
        found[task.id] = current.id
    return found


def _figures(found: DayScore, origin: int) -> DayFigures:
    return DayFigures(changes=found.changes, late_min=found.late, ends_min=max(0, found.ends - origin))
