"""The day: nothing twice at once, every window kept, every wheel where it stands; and it follows what happens."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from days import random_shop
from kelbrast.core.day.follow import Pin, first_of_all, with_done, with_pins
from kelbrast.core.day.from_plan import blocks_of, minutes_of, stations_of
from kelbrast.core.day.greedy import first_come, plan_at_once, settled
from kelbrast.core.day.schedule import Placed, points_by_day, score, violations
from kelbrast.core.day.shop import After, DayWork, Station, Task, Worker
from kelbrast.core.day.solver import GOALS, DayFound, improve
from kelbrast.core.errors import OutsideValidity
from kelbrast.core.planning.whole.plan import plan_job
from kelbrast.demo.workshop import demo_jobs
from kelbrast.documents.job.read import to_job

CREW = (Worker("A", 480, 960, ((720, 750),)), Worker("B", 480, 960, machines=frozenset({"grinder"})))
BUFFER = Station("buffer", "Buffer", ("felt", None))
GRINDER = Station("grinder", "Grinder")


def day(*tasks: Task, links: tuple[After, ...] = (), people: tuple[Worker, ...] = CREW, **more: object) -> DayWork:
    return DayWork(people, (BUFFER, GRINDER), tasks, links, **{"now": 480, **more})


def at_once(work: DayWork) -> DayFound:
    made = plan_at_once(work)
    assert made is not None
    return DayFound(made[0], tuple(made[1]), score(*made))


@settings(max_examples=15)
@given(seed=st.integers(0, 100_000))
def test_a_plan_at_once_can_be_followed(seed: int) -> None:
    work = random_shop(seed)
    found, served = at_once(work), first_come(work)
    assert violations(found.work, found.plan) == []
    assert served is not None
    assert found.score <= score(*served) or found.work.days < served[0].days


@pytest.mark.parametrize("seed", [3, 8])
def test_the_solver_is_never_worse_checked_and_says_the_same_again(seed: int) -> None:
    found = at_once(random_shop(seed, jobs=4, steps=4))
    better, again = (improve(found, seconds=2.0, seed=7) for _ in range(2))
    assert violations(better.work, better.plan) == []
    assert better.score <= found.score
    assert better.plan == again.plan
    assert better.bounds[0] is not None
    assert better.bounds[0] <= better.score.late


def test_what_was_told_to_stop_stops_with_what_it_has() -> None:
    found = at_once(random_shop(5))
    told: list[DayFound] = []
    stopped = improve(found, seconds=1e9, stop=lambda: True, tell=told.append)  # it would never end by itself
    assert violations(stopped.work, stopped.plan) == []
    assert told


def good(work: DayWork) -> list[Placed]:
    return list(at_once(work).plan)


WHEELS = day(
    Task(0, "collar", "felt", 30, machine="buffer", wheel="felt", change=5),
    Task(1, "collar", "cotton", 30, machine="buffer", wheel="cotton", change=5),
    Task(2, "plate", "grind", 20, machine="grinder", dusty=True, vibration=6.0),
    Task(3, "plate", "dries", 30, kind="wait", by_person=False, clean=True),
    links=(After(0, 1), After(2, 3)),
)


def test_a_wheel_that_stands_is_used_without_a_change_and_another_goes_beside_it() -> None:
    found = {one.task: one for one in good(WHEELS)}
    assert (found[0].spindle, found[0].change) == (1, False)
    assert (found[1].spindle, found[1].change) == (2, True)
    assert found[1].ends - found[1].begins == 35


@pytest.mark.parametrize(
    ("change", "said"),
    [
        ({"begins": 470, "ends": 500}, "before it can"),
        ({"ends": 520}, "takes 30 minutes"),
        ({"person": None}, "needs somebody"),
        ({"person": "Nobody"}, "nobody here"),
        ({"person": "B"}, "may not use"),
        ({"spindle": 3}, "needs a spindle"),
        ({"spindle": 2}, "needs its wheel put on"),
        ({"begins": 700, "ends": 730}, "is not there"),
    ],
)
def test_what_can_not_be_is_said(change: dict[str, object], said: str) -> None:
    plan = [replace(one, **change) if one.task == 0 else one for one in good(WHEELS)]
    assert any(said in fault for fault in violations(WHEELS, plan))


def test_two_blocks_at_once_an_order_turned_round_and_a_missing_block_are_faults() -> None:
    plan = {one.task: one for one in good(WHEELS)}
    early = replace(plan[1], begins=480, ends=515, spindle=2)
    assert any("is done" in fault for fault in violations(WHEELS, [*[plan[0], plan[2], plan[3]], early]))
    assert violations(WHEELS, list(plan.values())[:-1]) == ["every block must stand in the plan once"]
    same = replace(plan[2], person=plan[0].person, begins=plan[0].begins, ends=plan[0].begins + 20)
    assert any("are at once" in fault for fault in violations(WHEELS, [plan[0], plan[1], same, plan[3]]))


def test_no_dry_grinding_while_lacquer_dries() -> None:
    work = day(
        Task(0, "case", "lacquer", 10), Task(1, "case", "dries", 60, kind="wait", by_person=False, clean=True),
        Task(2, "plate", "grind", 30, machine="grinder", dusty=True), links=(After(0, 1),),
    )  # fmt: skip
    found = {one.task: one for one in good(work)}
    assert found[2].ends <= found[1].begins or found[2].begins >= found[1].ends
    overlapping = [
        replace(one, begins=found[1].begins, ends=found[1].begins + 30) if one.task == 2 else one for one in found.values()
    ]
    assert any("makes dust" in fault for fault in violations(work, overlapping))


def test_copper_is_under_its_lacquer_in_time() -> None:
    """Two hours after the last step, and the break lies in between: it is begun late enough."""
    work = day(
        Task(0, "rail", "polish", 60), Task(1, "rail", "lacquer", 40), links=(After(0, 1, 0, 20),), people=CREW[:1], now=630
    )
    found = {one.task: one for one in good(work)}
    assert found[1].begins - found[0].ends <= 20
    assert violations(work, list(found.values())) == []


def test_a_soak_is_as_long_as_it_may_be_and_the_next_begins_at_its_end() -> None:
    work = day(
        Task(0, "case", "soak", 20, kind="wait", most=45, by_person=False), Task(1, "case", "scrub", 10),
        Task(2, "plate", "other", 30), links=(After(0, 1, 0, 0),), people=CREW[:1],
    )  # fmt: skip
    found = {one.task: one for one in good(work)}
    assert 20 <= found[0].ends - found[0].begins <= 45
    assert found[1].begins == found[0].ends


def test_nobody_shakes_more_than_the_bound() -> None:
    # 6 m/s2 for an hour is 100 (6 / 2.5)^2 / 8 = 72 points, by hand
    tasks = tuple(Task(at, "rail", f"grind {at}", 60, machine="grinder", vibration=6.0) for at in range(2))
    alone = day(*tasks, people=CREW[:1], shaking=100.0)
    found = at_once(alone)
    assert found.work.days == 2  # the second goes to the next day
    points = points_by_day(found.work, found.plan)
    assert [round(one) for _, one in sorted(points.items())] == [72, 72]
    assert at_once(day(*tasks, shaking=100.0)).work.days == 1  # two people share it


def test_a_full_day_goes_on_tomorrow() -> None:
    tasks = tuple(Task(at, "rail", f"part {at}", 90) for at in range(7))
    found = at_once(day(*tasks, people=CREW[:1]))
    assert found.work.days == 2
    assert any(one.begins >= 1440 + 480 for one in found.plan)


def test_what_can_not_be_planned_at_all_is_nothing() -> None:
    assert plan_at_once(day(Task(0, "rail", "long", 300), people=CREW[:1])) is None


def test_what_is_done_stands_on_its_spindle_and_what_is_in_hand_stays() -> None:
    plan = good(WHEELS)
    at = {one.task: one for one in plan}
    now = at[1].begins + 3
    left = with_done(WHEELS, plan, {0: at[0].ends, 2: at[2].ends}, now=now, begun={1: at[1].begins})
    assert [task.id for task in left.tasks] == [1, 3]
    assert left.station("buffer").standing == ("felt", None)
    assert left.by_id[1].fixed == (at[1].begins, at[1].person, at[1].spindle)
    late = with_done(WHEELS, plan, {0: at[0].ends}, now=at[1].begins + 70, begun={1: at[1].begins})
    assert late.by_id[1].minutes == 70  # it takes longer than planned, and lasts until now at least
    assert late.by_id[2].fixed is None  # nobody began it, whatever the plan said
    found = at_once(left)
    assert violations(found.work, found.plan) == []


def test_two_blocks_that_ended_in_one_minute_leave_the_later_of_them_standing() -> None:
    work = day(
        Task(0, "a", "felt", 5, machine="grinder", wheel="felt", change=1),
        Task(1, "a", "cotton", 5, machine="grinder", wheel="cotton", change=1),
        Task(2, "a", "wash", 5),
        links=(After(0, 1), After(1, 2)),
    )
    left = with_done(work, good(work), {1: 500, 0: 500}, now=500)
    assert left.station("grinder").standing == ("cotton",)


def test_what_came_before_what_is_in_hand_is_over_whether_anybody_said_so_or_not() -> None:
    plan = good(WHEELS)
    left = with_done(WHEELS, plan, {}, now=600, begun={1: 590})
    assert [task.id for task in left.tasks] == [1, 2, 3]
    assert violations(left, list(at_once(left).plan)) == []
    assert [task.id for task in with_done(WHEELS, plan, {3: 600}, now=600).tasks] == [0, 1]


def test_a_block_stays_where_it_was_put_and_the_rest_settles() -> None:
    work = with_pins(day(Task(0, "a", "one", 30), Task(1, "b", "two", 30), people=CREW[:1]), {1: Pin(480, "A")})
    found = {one.task: one for one in good(work)}
    assert (found[1].begins, found[0].begins) == (480, 510)
    better = improve(at_once(work), seconds=1.0)
    assert {one.task: one.begins for one in better.plan}[1] == 480


def test_after_a_late_block_the_rest_keeps_its_order() -> None:
    work = day(*(Task(at, f"job {at}", "step", 20) for at in range(4)), people=CREW[:1])
    turned = [Placed(at, 480 + 20 * (3 - at), 500 + 20 * (3 - at), "A") for at in range(4)]
    left = with_done(work, turned, {}, now=520, begun={3: 480})
    again = settled(left, turned)
    assert again is not None
    assert [one.task for one in sorted(again, key=lambda one: one.begins)] == [3, 2, 1, 0]
    assert min(one.begins for one in again if one.task != 3) == 520


def test_what_would_be_if_a_block_went_first() -> None:
    work = day(Task(0, "a", "first", 30, due=520), Task(1, "b", "second", 30), people=CREW[:1])
    assert at_once(work).score.late == 0
    assert at_once(first_of_all(work, 1)).score.late > 0


def test_of_a_day_under_way_as_few_blocks_as_possible_move() -> None:
    """Two blocks swapped put the promised one in its time; the others stand as they stood, though the day could end sooner."""
    promised = (Task(0, "a", "step", 20), Task(1, "b", "step", 20), Task(2, "c", "step", 20), Task(3, "d", "step", 20, due=520))
    stood = [Placed(at, 480 + 30 * at, 500 + 30 * at, "A") for at in range(4)]
    work = day(*promised, people=CREW[:1])
    late = DayFound(work, tuple(stood), score(work, stood))
    kept = {one.task: one.begins for one in improve(late, seconds=2.0, keep=stood).plan}
    assert kept[3] <= 500
    assert sum(kept[one.task] != one.begins for one in stood) == 2
    free = improve(late, seconds=2.0)
    assert free.score.ends == 560
    assert free.proven == GOALS


def test_bad_days_are_refused() -> None:
    with pytest.raises(OutsideValidity, match="hours of"):
        Worker("A", 900, 480)
    with pytest.raises(OutsideValidity, match="number of its own"):
        day(Task(0, "a", "x", 1), Task(0, "a", "y", 1))
    with pytest.raises(OutsideValidity, match="has not"):
        day(Task(0, "a", "x", 1, machine="lathe"))
    with pytest.raises(OutsideValidity, match="not there"):
        day(Task(0, "a", "x", 1), links=(After(0, 9),))
    with pytest.raises(OutsideValidity, match="below 0"):
        Task(0, "a", "x", -1)


def test_a_job_is_blocks_in_the_order_of_its_plan() -> None:
    """The gallery rail collar: four pieces, lacquered within its time after the last step."""
    plan = plan_job(to_job(next(file for file in demo_jobs() if file.title == "Gallery rail collar")))
    made = blocks_of(plan, job="collar", title="Gallery rail collar", first=10, due=900, earliest=500)
    tools = [task.tool for task in made.tasks if task.tool]
    assert tools == [one.tool.id for one in plan.set_ups]
    assert [task.id for task in made.tasks] == list(range(10, 10 + len(made.tasks)))
    assert made.tasks[-1].due == 900
    assert {task.earliest for task in made.tasks} == {500}
    assert made.tasks[0].operation == "inspect"
    total = sum(task.minutes + task.change for task in made.tasks if task.kind == "work")
    assert total == pytest.approx(plan.account.all.hands_on / 60, abs=0.51)  # whole minutes, which make up for each other
    assert any(link.most is not None and link.most > 0 for link in made.links)
    assert {station.id for station in stations_of([plan])} == {one.machine.id for one in plan.set_ups} - {"hand"}


def test_long_work_is_done_in_parts_with_one_change() -> None:
    file = next(file for file in demo_jobs() if file.title == "Gallery rail collar")
    plan = plan_job(replace(to_job(file), pieces=40))
    made = blocks_of(plan, job="collar", title="Gallery rail collar", first=0)
    assert max(task.minutes for task in made.tasks) <= 90
    parts = [task for task in made.tasks if "part 2 of" in task.label and task.wheel]
    assert parts
    assert minutes_of(60.0) == 1


def test_what_a_person_shook_before_counts_on_the_first_day() -> None:
    tired = replace(CREW[0], vibrated=60.0)
    work = day(Task(0, "rail", "grind", 60, machine="grinder", vibration=6.0), people=(tired,), shaking=200.0)
    assert [round(one) for one in points_by_day(work, at_once(work).plan).values()] == [132]  # 60 and 72, see above
    found = at_once(replace(work, shaking=100.0))
    assert found.plan[0].begins >= 1440  # that would be too much today


def test_dust_may_begin_in_the_minute_in_which_drying_ends() -> None:
    work = day(
        Task(0, "case", "dries", 60, kind="wait", by_person=False, clean=True),
        Task(1, "plate", "grind", 30, machine="grinder", dusty=True),
    )
    for begins in (540, 450):
        plan = [Placed(0, 480, 540, None, None, change=False), Placed(1, begins, begins + 30, "A", 1, change=False)]
        assert not [violation for violation in violations(work, plan) if "dust" in violation]
    plan = [Placed(0, 480, 540, None, None, change=False), Placed(1, 539, 569, "A", 1, change=False)]
    assert [violation for violation in violations(work, plan) if "dust" in violation]


def test_what_dries_needs_clean_air_and_what_grinds_dry_by_machine_makes_dust() -> None:
    for file in demo_jobs():
        plan = plan_job(to_job(file))
        if not plan.possible:
            continue
        tasks = blocks_of(plan, job="1", title="", first=0).tasks
        assert {task.operation for task in tasks if task.clean} == {
            operation.id for operation in plan.operations if operation.id == "lacquer" and operation.passive
        }
        for set_up in plan.set_ups:
            step = next(face for face in plan.faces if face.face.key == set_up.faces[0][0]).steps[set_up.faces[0][1] - 1]
            dry = not step.on_face.working.wet and set_up.tool.carrier.cutting.wear_law != "compound"
            blocks = [task for task in tasks if task.tool == set_up.tool.id]
            assert all(block.dusty == (block.machine is not None and dry) for block in blocks)


def test_a_fixed_block_holds_its_spindle_for_the_change_too() -> None:
    fixed = Task(0, "a", "felt", 20, machine="grinder", wheel="felt", change=10, fixed=(500, "A", 1))
    work = day(fixed, Task(1, "b", "cotton", 20, machine="grinder", wheel="cotton", change=10), people=CREW)
    found = {one.task: one for one in good(work)}
    assert (found[0].begins, found[0].ends) == (500, 530)
    assert found[1].ends <= 500 or found[1].begins >= 530
    assert violations(work, list(found.values())) == []


def test_what_is_left_of_a_day_begins_now() -> None:
    assert with_done(WHEELS, good(WHEELS), {}, now=601).now == 601


def test_a_spindle_of_one_machine_is_not_that_of_another() -> None:
    work = day(
        Task(0, "a", "felt", 60, machine="buffer", wheel="felt"),
        Task(1, "b", "grind", 60, machine="grinder"),
        people=(replace(CREW[0], breaks=()), Worker("C", 480, 960)),
    )
    assert {one.begins for one in good(work)} == {480}
