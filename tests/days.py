"""Shops for the tests of the day: published job shops, and random ones."""

import json
import random
from pathlib import Path

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


def random_shop(seed: int, *, jobs: int = 6, steps: int = 5, people: int = 2, spindles: int = 2, tight: bool = True) -> DayWork:
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
        due = chance.choice([None, 600 + 60 * chance.randint(2, 9)]) if tight else None
        tasks[-1] = Task(**{name: getattr(last, name) for name in last.__dataclass_fields__ if name != "due"}, due=due)
    crew = tuple(Worker(f"P{one}", 8 * 60, 16 * 60 + 30, ((12 * 60, 12 * 60 + 30),)) for one in range(people))
    stations = (Station("buffer", "Buffer", (wheels[0],) + (None,) * (spindles - 1)), Station("grinder", "Grinder"))
    return DayWork(crew, stations, tuple(tasks), tuple(links), now=8 * 60, days=1, shaking=100.0)


__all__ = ["DAY", "job_shop", "random_shop"]
