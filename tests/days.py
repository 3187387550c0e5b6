"""Shops for the tests of the day: published job shops, and random ones."""

import json
import random
from dataclasses import replace
from datetime import datetime
from pathlib import Path

from kelbrast.core.bench.events import Moment
from kelbrast.core.day.schedule import Placed, needs_change
from kelbrast.core.day.shop import DAY, After, DayWork, Station, Task, Worker

SHOPS = json.loads((Path(__file__).parent / "outside" / "shops" / "job_shops.json").read_text())


def job_shop(name: str) -> DayWork:
    """A published job shop: machines alone, no people, no wheels, no hours."""
    shop = SHOPS[name]
    tasks, links = [], []
    for job, (machines, durations) in enumerate(zip(shop["machines"], shop["durations"], strict=True)):
        for at, (machine, minutes) in enumerate(zip(machines, durations, strict=True)):
            tasks.append(Task(len(tasks), f"job {job}", f"{job}.{at}", minutes, by_person=False, machine=str(machine)))
            if at:
                links.append(After(len(tasks) - 2, len(tasks) - 1))
    stations = tuple(Station(str(one), str(one)) for one in range(len(shop["machines"][0])))
    return DayWork((), stations, tuple(tasks), tuple(links))


def random_shop(
    seed: int, *, jobs: int = 6, steps: int = 5, people: int = 2, spindles: int = 2, early: bool = False
) -> DayWork:
    """A shop of a day: grinding by hand, wheels on a buffer, a soak, drying, lacquer before it tarnishes, promises."""
    chance = random.Random(seed)
    tasks: list[Task] = []
    links: list[After] = []
    wheels = [f"wheel {one}" for one in range(chance.randint(3, 5))]
    for job in range(jobs):
        name, before = f"job {job}", None
        for at in range(steps):
            kind = chance.choice(["hand", "buffer", "buffer", "grinder"]) if at not in (0, steps - 1) else "hand"
            minutes = chance.randint(5, 25)
            number = len(tasks)
            if at == 0 and chance.random() < 0.4:
                tasks.append(Task(number, name, f"{name} soak", 20, kind="wait", most=60, by_person=False))
                before, number = number, number + 1
                tasks.append(Task(number, name, f"{name} rinse", minutes))
                links.append(After(before, number, 0, 0))
            elif kind == "buffer":
                wheel = chance.choice(wheels)
                tasks.append(Task(number, name, f"{name}.{at}", minutes, machine="buffer", wheel=wheel, change=5))
            elif kind == "grinder":
                tasks.append(Task(number, name, f"{name}.{at}", minutes, machine="grinder", dusty=True, vibration=4.0))
            else:
                tasks.append(Task(number, name, f"{name}.{at}", minutes))
            if before is not None and not (links and links[-1].task == number):
                links.append(After(before, number, 0, 120 if at == steps - 1 and chance.random() < 0.4 else None))
            before = number
        if chance.random() < 0.3:
            number = len(tasks)
            tasks.append(Task(number, name, f"{name} dries", 30, kind="wait", by_person=False, clean=True))
            links.append(After(number - 1, number))
        last = tasks[-1]
        # An early one is promised about when it can just be, were it taken in hand in time.
        due = chance.choice([None, 600 + 60 * chance.randint(2, 9)]) if not early else 570 + 45 * chance.randint(1, 7)
        tasks[-1] = Task(**{name: getattr(last, name) for name in last.__dataclass_fields__ if name != "due"}, due=due)
    crew = tuple(Worker(f"P{one}", 8 * 60, 16 * 60 + 30, ((12 * 60, 12 * 60 + 30),)) for one in range(people))
    stations = (Station("buffer", "Buffer", (wheels[0],) + (None,) * (spindles - 1)), Station("grinder", "Grinder"))
    return DayWork(crew, stations, tuple(tasks), tuple(links), now=8 * 60, days=1, shaking=100.0)


def random_rooms(seed: int) -> DayWork:
    """A random day whose grinding throws sparks or leaves dust that burns, in one room or two, with few extractors."""
    work, chance = random_shop(seed, jobs=5, people=3, early=seed % 2 == 0), random.Random(seed)
    second = chance.random() < 0.3
    metal = {job: chance.choice(["steel", "aluminium", "titanium", "brass"]) for job in {task.job for task in work.tasks}}
    tasks = []
    for task in work.tasks:
        kin = metal[task.job]
        ground = task.machine == "grinder"
        room = "back" if second and (ground or task.clean) else ""
        dusty = task.dusty or (task.machine is None and task.by_person and chance.random() < 0.3)
        tasks.append(
            replace(
                task,
                room=room,
                dusty=dusty and not task.clean,
                sparks=dusty and kin in ("steel", "titanium"),
                burns=dusty and kin in ("aluminium", "titanium"),
            )
        )
    return replace(work, tasks=tuple(tasks), most_dust={"": chance.choice([1, 1, 2]), "back": 1})


def carried_out(work: DayWork, plan: list[Placed], scatter: float, seed: int) -> tuple[int, int]:
    """Minutes late and wheel changes when work really takes other times: everybody keeps the order of the plan and waits for what
    must come before."""
    chance = random.Random(seed)
    real = {task.id: task.minutes * chance.lognormvariate(0.0, scatter) for task in work.tasks}
    ends: dict[int, float] = {}
    free: dict[object, float] = {}
    stands = {(station.id, at): wheel for station in work.stations for at, wheel in enumerate(station.standing, start=1)}
    before = {task.id: [link for link in work.links if link.task == task.id] for task in work.tasks}
    late, changes = 0.0, 0
    for one in sorted(plan, key=lambda block: (block.begins, block.ends)):
        task = work.by_id[one.task]
        spindle = (task.machine, one.spindle)
        users = [user for user in (one.person, spindle if task.machine else None) if user is not None]
        start = max(
            [
                one.begins,
                *(free.get(user, 0.0) for user in users),
                *(ends[link.before] + link.least for link in before[task.id]),
            ]
        )
        change = needs_change(task, stands.get(spindle))
        changes += change
        ends[task.id] = start + real[task.id] + (task.change if change else 0)
        if task.wheel is not None:
            stands[spindle] = task.wheel
        free |= dict.fromkeys(users, ends[task.id])
        late += max(0.0, ends[task.id] - task.due) if task.due is not None else 0.0
    return round(late), changes


__all__ = ["DAY", "carried_out", "job_shop", "random_shop"]


class WallClock:
    """The clock on the wall, set by the test."""

    def __init__(self, now: datetime) -> None:
        self.now = now

    def __call__(self) -> datetime:
        return self.now

    def moment(self) -> Moment:
        return Moment(self.now.timestamp(), self.now.timestamp(), "test")
