"""Runs as they are kept: every tap counts once, nothing is contradicted silently, the rack is told with the tap."""

from typing import Any

import pytest

from kelbrast.app.runs import Runs
from kelbrast.core.catalogue.tools import tool
from kelbrast.core.errors import BadInput, Conflict, NotFound
from kelbrast.documents.rack.format import ItemEventFile, ItemFile


def test_a_run_is_where_it_was_for_whoever_asks(shop, keep) -> None:
    shop.begin(keep(pieces=2))
    shop.tap("started")
    shop.wait(75)
    other = Runs(shop.jobs, clock=shop.runs._clock)  # another process of the same database
    seen = other.get(shop.kept.id)
    assert seen.run.seconds_in_hand(seen.now) == 75
    assert seen.run == shop.runs.get(shop.kept.id).run


def test_the_clock_runs_on_through_a_new_start_of_the_machine(shop, keep) -> None:
    shop.begin(keep())
    shop.tap("started")
    shop.at, shop.ticks, shop.boot = shop.at + 600, 3.0, "second"
    assert shop.runs.get(shop.kept.id).run.seconds_in_hand(shop.runs._clock()) == 600


def test_a_clock_that_is_put_back_an_hour_changes_no_time(shop, keep) -> None:
    shop.begin(keep())
    shop.tap("started")
    shop.at, shop.ticks = shop.at - 3600, shop.ticks + 90
    kept = shop.tap("gone")
    assert [work.seconds for work in kept.run.works.values()] == [90]


def test_the_same_tap_sent_twice_counts_once(shop, keep) -> None:
    shop.begin(keep())
    shop.tap("started", name="tap-by-name")
    shop.wait(10)
    again = shop.tap("paused", name="tap-by-name", after=0)  # the answer was lost, so the screen sends it again
    assert again.run.seen == 1
    assert again.run.clock is not None


def test_a_screen_that_has_not_seen_the_newest_tap_can_not_contradict_it(shop, keep) -> None:
    shop.begin(keep())
    shop.tap("started")
    shop.wait(5)
    shop.tap("gone")
    with pytest.raises(Conflict):
        shop.tap("skipped", after=1, words="on the other tablet")
    assert shop.runs.get(shop.kept.id).run.seen == 2
    assert shop.tap("note", after=1, words="beside the work it may be late").run.seen == 3


def test_a_tap_that_had_to_wait_counts_from_when_it_was_tapped_but_never_before_the_last(shop, keep) -> None:
    shop.begin(keep())
    shop.tap("started")
    shop.wait(100)
    kept = shop.tap("gone", age=40.0)
    assert [work.seconds for work in kept.run.works.values()] == [60]
    shop.tap("started", age=5000.0)
    assert shop.kept.happened[-1].at.at >= shop.kept.happened[-2].at.at


def test_going_back_follows_the_planner_and_the_old_route_stays_in_the_log(shop, keep) -> None:
    shop.begin(keep())
    shop.do(60)
    shop.tap("started")
    shop.wait(30)
    asked = shop.runs.ways_back(shop.kept.id, depth_um=9.0, like=None, fingernail=False).goback
    kept = shop.tap("back", depth_um=9.0, extent=asked.extent)
    chosen = asked.patch if asked.extent == "patch" else asked.whole
    piece, stage = kept.run.current
    assert [stage.tool for stage in kept.run.stages[piece] if stage.route == 1] == [step.tool for step in chosen.steps]
    assert (stage.route, stage.step) == (1, 1)
    assert {work.outcome for (_, _, route, _), work in kept.run.works.items() if route == 0} == {"gone", "back", "dropped"}
    assert [event.kind for event in kept.events] == ["started", "gone", "started", "back"]


def test_metal_that_is_gone_counts_against_the_limit_of_the_way_back(shop, keep, collar) -> None:
    face = {**collar["faces"][0], "limit_um": 60}
    shop.begin(keep(faces=[face]))
    shop.do(60)
    for value in (25.0, 24.9):
        reading = {"quantity": "size", "value": value, "position": "middle"}
        piece, stage = shop.kept.run.current
        shop.tap("measured", measured=reading, piece=piece, face=stage.face, route=stage.route, step=stage.step)
    shop.tap("started")
    whole = shop.runs.ways_back(shop.kept.id, depth_um=20.0, like=None, fingernail=False).goback.whole
    assert whole.binding == "metal"  # 50 of the 60 um are gone by measurement, if the barrel is round


def test_undo_goes_back_one_tap_at_a_time_and_only_the_last(shop, keep) -> None:
    shop.begin(keep())
    before = shop.do(60).run
    shop.tap("started")
    with pytest.raises(BadInput):
        shop.tap("undone", undoes=1)
    after = shop.tap("undone", undoes=3).run
    assert (after.works, after.clock, after.begun) == (before.works, before.clock, before.begun)
    assert shop.tap("undone", undoes=2).run.begun


def on_rack(shop, keep, **more: Any) -> int:
    """The collar planned from a rack that can just do it."""
    steps = [step for face in shop.jobs.plan(keep()).faces for step in face.steps]
    what: set[str] = {step.machine for step in steps} - {"hand"}
    for step in steps:
        one = tool(step.tool)
        law = one.carrier.cutting.wear_law
        what |= {one.carrier.id, one.charge} if law == "compound" else {one.carrier.id} if law == "lap" else {one.id}
    shop.jobs.rack.add([ItemFile(what=each, count=5) for each in sorted(what)])
    return keep(use_rack="own", **more)


def test_a_job_is_planned_from_the_rack_wherever_there_is_one_unless_somebody_wants_any_tool(shop, keep) -> None:
    number = keep()
    assert shop.jobs.plan(number).planned_from == "catalogue"  # nothing stands there
    tools = {step.tool for face in shop.jobs.plan(number).faces for step in face.steps}
    (item,) = shop.jobs.rack.add([ItemFile(what="paper-p400", count=5)])
    made = shop.jobs.plan(number)
    assert made.planned_from == "own"
    assert {step.tool for face in made.faces for step in face.steps} <= {"paper-p400"}
    anything = shop.jobs.plan(keep(use_rack="catalogue"))
    assert (anything.planned_from, {step.tool for face in anything.faces for step in face.steps}) == ("catalogue", tools)
    shop.jobs.rack.note(item.id, [ItemEventFile(kind="retired")])
    assert shop.jobs.plan(number).planned_from == "catalogue"


def test_the_rack_is_told_with_the_tap_and_undo_gives_the_stock_back(shop, keep) -> None:
    shop.begin(on_rack(shop, keep))
    have = {kept.id: kept.item.have for kept in shop.jobs.rack.items()}
    shop.finish()
    now = {kept.id: kept.item.have for kept in shop.jobs.rack.items()}
    assert any(now[item] < have[item] for item in have)
    used = [event for kept in shop.jobs.rack.items() for event in kept.file.history if event.kind == "used"]
    assert len(used) == len({(event.charge, event.family) for event in used})  # bound once
    while (last := shop.kept.run.last) is not None:
        shop.tap("undone", undoes=last.number)
    back = {kept.id: kept.item.have for kept in shop.jobs.rack.items()}
    assert back == pytest.approx(have, abs=1e-3)


def test_an_item_that_left_the_rack_does_not_stop_the_run(shop, keep) -> None:
    shop.begin(on_rack(shop, keep))
    for kept in shop.jobs.rack.items():
        shop.jobs.rack.remove(kept.id)
    assert shop.finish().run.status == "finished"


def test_what_can_not_be_followed_does_not_come_to_the_bench(shop, keep, collar) -> None:
    with pytest.raises(BadInput, match="no plan that could be followed"):
        shop.begin(keep(faces=[{**collar["faces"][0], "limit_um": 1}]))
    with pytest.raises(BadInput, match="batches"):
        shop.begin(keep(pieces=501))
    with pytest.raises(NotFound):
        shop.begin(999)
    with pytest.raises(NotFound):
        shop.runs.get(5)


def test_a_run_stays_when_its_job_is_deleted(shop, keep) -> None:
    job = keep()
    shop.begin(job)
    shop.do(30)
    shop.jobs.remove(job)
    assert shop.runs.get(shop.kept.id).job_id is None
    assert shop.finish().run.status == "finished"


@pytest.mark.parametrize(
    "bad",
    [
        {"kind": "measured", "measured": {"quantity": "coat", "value": -5.0}},
        {"kind": "trouble", "fault": "gremlins"},
        {"kind": "back", "extent": "whole"},
        {"kind": "back", "depth_um": 5.0},
        {"kind": "back", "depth_um": 5.0, "like": "P400", "extent": "whole"},
        {"kind": "finished", "well": True},
    ],
)
def test_a_refused_tap_leaves_no_trace(shop, keep, bad) -> None:
    shop.begin(keep())
    shop.tap("started")
    with pytest.raises((BadInput, NotFound)):
        shop.tap(**bad)
    assert shop.runs.seen(shop.kept.id) == 1


def test_finished_runs_teach_later_plans_but_never_one_alone(shop, keep, collar) -> None:
    face = {**collar["faces"][0], "found": {"kind": "scratches", "after": "P120"}}
    job = keep(faces=[face])
    before = shop.jobs.plan(job)
    first = before.minutes
    for count in range(1, 5):
        shop.begin(job)
        shop.finish(pace=1.5)
        now = shop.jobs.plan(job).minutes
        assert (now > first) == (count >= 3)
    learnt = {one.quantity: one for one in shop.jobs.rack.learning.learnt()}
    assert 0.6 < learnt["removal"].factor < 1  # a disc that was changed on the way did a little more than two thirds as much
    used = [step.tool for face in before.faces for step in face.steps]
    same = keep(faces=[{**face, "wish": {"route": used}}])
    assert any(step.yours is not None for step in shop.jobs.plan(same).faces[0].steps)
    shop.jobs.rack.learning.switch(on=False)
    assert shop.jobs.plan(job).minutes == pytest.approx(first)
    shop.jobs.rack.learning.switch(on=True)
    one = shop.jobs.rack.learning.learnt()[0]
    shop.jobs.rack.learning.switch_one((one.carrier, one.family, one.quantity), on=False)
    assert not shop.jobs.rack.learning.learnt()[0].used
    with pytest.raises(BadInput):
        shop.jobs.rack.learning.switch_one(("lap", "silver", "life"), on=True)


def test_a_run_that_is_taken_back_from_its_end_teaches_nothing(shop, keep, collar) -> None:
    job = keep(faces=[{**collar["faces"][0], "found": {"kind": "scratches", "after": "P120"}}])
    for _ in range(3):
        shop.begin(job)
        shop.finish(pace=1.5)
    assert shop.jobs.rack.learning.learnt()
    shop.tap("undone", undoes=shop.kept.run.last.number)
    assert all(one.runs == 2 and not one.used for one in shop.jobs.rack.learning.learnt())
