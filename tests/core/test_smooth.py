"""Plans without cliffs, on random jobs: a larger rack never makes them worse, and a little more of anything moves them a little."""

import random
from dataclasses import replace

import numpy as np
import pytest

from attacking import SOAK, chance
from kelbrast.core.job import Job
from kelbrast.core.planning.face.face_plan import Worked
from kelbrast.core.planning.kernel.step_table import METAL, TIME
from kelbrast.core.planning.whole.plan import plan_job
from kelbrast.core.reference.loader import constant
from random_jobs import all_tools, random_job, random_rack, with_face, worked

JOBS = 5000 if SOAK else 120


def seconds(worked: Worked) -> float:
    return np.inf if worked.chosen.route is None else float(worked.chosen.route.totals[TIME])


def limit_binds(worked: Worked) -> bool:
    """Within a few percent of the limit the route is another one: that is a wall, and must be."""
    route, limit = worked.chosen.route, worked.face.may_come_off
    return route is None or float(route.totals[METAL]) > 0.9 * limit


@pytest.fixture(scope="module")
def jobs() -> list[Job]:
    luck = chance("smooth") if SOAK else random.Random(2026)  # the same ones in `make test`, others in every soak
    return [random_job(luck) for _ in range(JOBS)]


def deeper(job: Job, times: float) -> Job:
    found = job.faces[0].found
    assert found.likely is not None
    assert found.worst is not None
    return with_face(job, found=replace(found, likely=found.likely * times, worst=found.worst * times))


def test_a_larger_rack_is_never_worse(jobs: list[Job]) -> None:
    luck, longer, tried = chance("racks") if SOAK else random.Random(2027), 0, 0
    for job in jobs:
        rack = random_rack(luck)
        more = luck.sample(all_tools(), luck.choice((1, 5, 30)))
        few, many_tools = worked(replace(job, rack=rack)), worked(replace(job, rack=tuple({*rack, *more})))
        assert many_tools.seconds_with_repeats <= few.seconds_with_repeats * (1 + 1e-9)
        if np.isfinite(seconds(few)):
            tried += 1
            longer += seconds(many_tools) > 1.25 * seconds(few)  # where it buys a risk down with work
    assert tried > JOBS / 3
    assert longer <= 0.03 * tried


def test_a_little_deeper_or_larger_takes_a_little_longer(jobs: list[Job]) -> None:
    jumps, tried = 0, 0
    for job in jobs:
        before = worked(job)
        if limit_binds(before) or seconds(before) == 0:
            continue
        for other in (deeper(job, 1.01), with_face(job, area=job.faces[0].area * 1.01)):
            after = worked(other)
            tried += 1
            jumps += not limit_binds(after) and abs(seconds(after) / seconds(before) - 1) > 0.08
    assert tried > JOBS / 3
    assert jumps <= 0.02 * tried


def test_deeper_is_never_quicker(jobs: list[Job]) -> None:
    for job in jobs:
        before, after = worked(job), worked(deeper(job, 1.3))
        assert after.seconds_with_repeats >= before.seconds_with_repeats * 0.98


def test_two_halves_take_what_the_whole_takes(jobs: list[Job]) -> None:
    """Apart from what each face costs by itself: its light checks. Both halves are as large as any pad asks for."""
    pairs = []
    for job in (job for job in jobs if job.faces[0].area > 0.08):
        (whole,) = job.faces
        half = replace(whole, area=whole.area / 2, name="left", id="left")
        both = plan_job(replace(job, faces=(half, replace(half, name="right", id="right"))))
        checks = constant("work.check").si * sum(len(face.steps) for face in both.faces)
        pairs.append((plan_job(job), both, checks))
    likes = [(one.seconds_each, two.seconds_each, checks) for one, two, checks in pairs if one.possible and two.possible]
    assert len(likes) > JOBS / 10
    unlike = sum(not one * 0.9 - 60 <= two <= one * 1.1 + checks + 60 for one, two, checks in likes)
    assert unlike <= 0.2 * len(likes)  # a count of marks goes with the area of a face, and now and then another grade does it
