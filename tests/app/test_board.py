"""Today: what is ordered is on the board, it follows the bench, and moves what is moved."""

import time
from datetime import datetime, timedelta
from typing import Any

import pytest

from days import WallClock
from kelbrast.app.board import Boards
from kelbrast.app.jobs import Jobs
from kelbrast.app.planning import plan_file
from kelbrast.app.quotes import Quotes, quote_file
from kelbrast.app.runs import Runs
from kelbrast.app.templates import Templates
from kelbrast.core.day.follow import Pin
from kelbrast.core.errors import BadInput, NotFound
from kelbrast.core.price.quote import Rates
from kelbrast.demo.workshop import demo_jobs
from kelbrast.documents.day.format import RoomFile, ShopFile
from kelbrast.documents.job.format import JobFile, OwnOperationFile
from kelbrast.documents.run.format import TapFile

MORNING = datetime(2026, 11, 27, 7, 30)


@pytest.fixture
def clock() -> WallClock:
    return WallClock(MORNING)


def job(title: str, **more: Any) -> JobFile:
    file = next(job for job in demo_jobs() if job.title == title)
    return file.model_copy(update={"state": "ordered", **more})


@pytest.fixture
def boards(jobs: Jobs, clock: WallClock) -> Boards:
    jobs.add(job("Lamp clock housing", due=MORNING + timedelta(hours=5)))
    jobs.add(job("Barometer lens"))
    jobs.add(job("Galley top", state="quoted"))
    return Boards(jobs, clock)


def test_what_is_ordered_is_on_the_board_and_nothing_else(boards: Boards) -> None:
    board = boards.board()
    assert {block.job for block in board.file.blocks} == {"Lamp clock housing", "Barometer lens"}
    assert board.file.late_min == 0
    assert {block.person for block in board.file.blocks if block.person} <= {"One", "Two"}
    assert board.file.begins == "08:00"


def test_nothing_ordered_is_said(jobs: Jobs, clock: WallClock) -> None:
    with pytest.raises(BadInput, match="no job is ordered"):
        Boards(jobs, clock).board()


def test_a_job_without_a_plan_is_left_out_and_said(boards: Boards, jobs: Jobs) -> None:
    jobs.add(job("Lantern door bush"))
    assert boards.board().left_out == (("Lantern door bush", "it has no plan that could be followed"),)


def test_people_who_are_away_do_nothing(boards: Boards) -> None:
    shop = boards.shop()
    people = [shop.people[0], shop.people[1].model_copy(update={"away": True})]
    boards.change_shop(shop.model_copy(update={"people": people}))
    assert {block.person for block in boards.board().file.blocks if block.person} == {"One"}
    with pytest.raises(BadInput, match="nobody is there"):
        boards.change_shop(ShopFile(people=[people[1]]))


def wait_for(boards: Boards) -> Any:
    for _ in range(400):
        board = boards.board()
        if not board.searching:
            return board
        time.sleep(0.05)
    raise AssertionError("the search does not end")


def test_a_search_goes_on_in_the_background_is_never_worse_and_is_kept(boards: Boards, jobs: Jobs, clock: WallClock) -> None:
    before = boards.board().file
    assert boards.search(seconds=3.0).file.changes <= before.changes
    after = wait_for(boards).file
    assert (after.late_min, after.changes) <= (before.late_min, before.changes)
    assert "late" in after.proven
    again = Boards(jobs, clock).board().file  # the program was started anew
    assert [(block.key, block.from_min) for block in again.blocks] == [(block.key, block.from_min) for block in after.blocks]


def test_a_new_board_is_improved_without_being_asked_until_work_begins(boards: Boards, jobs: Jobs, clock: WallClock) -> None:
    first = boards.board().file
    improving = Boards(jobs, clock, improving=True)
    assert improving.board().searching
    after = wait_for(improving).file
    assert (after.late_min, after.changes, after.ends_min) <= (first.late_min, first.changes, first.ends_min)
    assert "late" in after.proven
    assert not improving.board().searching  # the same question has its answer
    improving.finish(next(block.key for block in after.blocks if block.kind == "work"))
    begun = improving.board()
    assert begun.done
    assert not begun.searching  # from now on a block moves when somebody asks


def test_what_a_search_found_moves_on_while_nobody_begins(boards: Boards, clock: WallClock) -> None:
    boards.search(seconds=3.0)
    wait_for(boards)
    clock.now = MORNING + timedelta(hours=2)
    blocks = [block for block in boards.board().file.blocks if block.kind == "work"]
    assert min(block.from_min for block in blocks) >= 90  # half past nine, on a board that begins at eight


def test_a_block_stays_where_it_was_put_until_it_is_let_go(boards: Boards) -> None:
    task = next(block for block in boards.board().file.blocks if block.kind == "work" and block.from_min > 0)
    moved = boards.pin(task.key, Pin(task.from_min + 60, "Two")).file
    there = next(block for block in moved.blocks if block.key == task.key and block.kind == "work")
    assert (there.fixed, there.person) == (True, "Two")
    assert there.to_min - there.from_min == task.to_min - task.from_min
    assert not any(block.fixed for block in boards.pin(task.key, None).file.blocks)


def test_what_can_not_stand_there_is_refused_and_nothing_moves(boards: Boards) -> None:
    before = boards.board().file
    last = max((block for block in before.blocks if block.kind == "work"), key=lambda block: block.from_min)
    with pytest.raises(BadInput, match="nothing can be planned"):
        boards.pin(last.key, Pin(0, "One"))
    assert boards.board().file == before
    with pytest.raises(BadInput, match="no such block"):
        boards.pin("999", Pin(0))


def test_what_would_be_if_a_block_went_first(boards: Boards) -> None:
    lens = [block for block in boards.board().file.blocks if block.job == "Barometer lens"]
    found = boards.why(lens[-1].key)
    assert found is not None
    now, first, changes = found
    assert first.late_min >= now.late_min
    assert any(change.startswith("Lamp clock housing: done ") and "instead of" in change for change in changes)


def bench(jobs: Jobs, clock: WallClock, title: str) -> tuple[Runs, int]:
    runs = Runs(jobs, clock.moment)
    job_id = next(one.id for one in jobs.search()[1] if one.title == title)
    return runs, runs.begin(job_id).id


def tap(runs: Runs, run_id: int, kind: str, **more: Any) -> None:
    kept = runs.get(run_id)
    where: dict[str, Any] = {}
    if kind in ("started", "gone") and kept.run.current is not None:
        piece, stage = kept.run.current
        where = {"piece": piece, "face": stage.face, "route": stage.route, "step": stage.step}
    file = TapFile.model_validate({"kind": kind, **where, **more})
    runs.tap(run_id, file, name=f"tap-{kept.run.seen:08d}", after=kept.run.seen)


def work_through(runs: Runs, run_id: int, clock: WallClock, *, minutes: float) -> str:
    """The stage in hand on every piece, so long each; the tool that it was."""
    stage = runs.get(run_id).run.current[1]
    while (current := runs.get(run_id).run.current) is not None and current[1].key == stage.key:
        tap(runs, run_id, "started")
        clock.now += timedelta(minutes=minutes)
        tap(runs, run_id, "gone")
    return stage.tool


def test_the_board_follows_the_bench_through_a_late_step(boards: Boards, jobs: Jobs, clock: WallClock) -> None:
    clock.now = MORNING.replace(hour=8, minute=0)
    before = boards.board()
    first = next(block for block in before.file.blocks if block.job == "Lamp clock housing" and block.operation == "inspect")
    runs, run_id = bench(jobs, clock, "Lamp clock housing")
    clock.now += timedelta(minutes=9)
    tap(runs, run_id, "operated", operation="inspect")
    board = boards.board()
    assert board.done[first.key] == 8 * 60 + 9
    assert first.key not in {block.key for block in board.file.blocks}
    done: list[str] = []
    while not done:  # a set-up may serve several faces
        tool = work_through(runs, run_id, clock, minutes=30)  # planned for a few minutes
        late = boards.board()
        done = [task for task in late.done if task != first.key]
    assert [block.tool for block in before.file.blocks if block.key in done and block.kind == "work"] == [tool]
    now = (clock.now.hour * 60 + clock.now.minute) - 8 * 60
    others = [block for block in late.file.blocks if not block.fixed and block.kind != "change"]
    assert all(other.from_min >= now - 10 or other.fixed for other in others)


def test_a_job_is_at_the_bench_then_done_and_off_the_board(boards: Boards, jobs: Jobs, clock: WallClock) -> None:
    def state() -> str:
        return next(one.kept_state for one in jobs.search()[1] if one.title == "Barometer lens")

    runs, run_id = bench(jobs, clock, "Barometer lens")
    assert state() == "at-the-bench"
    while runs.get(run_id).run.current is not None:
        work_through(runs, run_id, clock, minutes=5)
    tap(runs, run_id, "finished", well=True)
    assert state() == "done"
    assert {block.job for block in boards.board().file.blocks} == {"Lamp clock housing"}
    tap(runs, run_id, "undone", undoes=runs.get(run_id).run.seen)
    assert state() == "at-the-bench"


def test_the_bench_of_another_day_does_not_move_todays_board(boards: Boards, clock: WallClock) -> None:
    monday = boards.board().file
    clock.now += timedelta(days=3)
    assert boards.board().file.begins == monday.begins


def test_a_quote_is_kept_and_what_runs_took_by_line_is_in_the_next_plans(jobs: Jobs, clock: WallClock) -> None:
    """Somebody who takes twice as long between the steps as planned: the cutting stays as it is, the quote grows by the line."""
    quotes, rates = Quotes(jobs), Rates(48.0, 0.15)
    before = plan_file(job("Barometer lens"), jobs.rack.shelf()).account
    for _ in range(5):
        kept = jobs.add(job("Barometer lens"))
        told = quotes.keep(kept.id, quote_file(kept.job, rates=rates, pieces=[1, 5]))
        assert told.actual is None
        clock.now = datetime.now() + timedelta(hours=1)
        runs = Runs(jobs, clock.moment)
        run_id = runs.begin(kept.id).id
        last = ""
        while (current := runs.get(run_id).run.current) is not None:
            stage = current[1]
            clock.now += timedelta(seconds=2 * (stage.handling + (stage.setup if stage.tool != last else 0.0)))
            tap(runs, run_id, "started")
            clock.now += timedelta(seconds=stage.seconds)
            tap(runs, run_id, "gone")
            last = stage.tool
        tap(runs, run_id, "finished", well=True)
        assert 0.5 < quotes.of(kept.id)[0].actual < 2
    after = plan_file(job("Barometer lens"), jobs.rack.shelf()).account
    assert before is not None
    assert after is not None
    assert after.handling == pytest.approx(2 * before.handling, rel=0.2)
    assert after.set_up == pytest.approx(2 * before.set_up, rel=0.2)
    assert after.cutting == pytest.approx(before.cutting, rel=0.05)
    assert after.before_after == before.before_after


def test_numbers_of_pieces_and_jobs_without_a_plan_have_no_price() -> None:
    for pieces in ([], [0], [200_000]):
        with pytest.raises(BadInput, match="from 1 to"):
            quote_file(job("Barometer lens"), rates=Rates(48, 0.1), pieces=pieces)
    with pytest.raises(BadInput, match="no price"):
        quote_file(job("Lantern door bush"), rates=Rates(48, 0.1))


def test_own_operations_are_kept_for_the_next_such_part(jobs: Jobs) -> None:
    templates = Templates(jobs.engine)
    trial = OwnOperationFile(label="Run water over it", when="after", minutes=5, check="It runs off in one sheet")
    templates.keep("Windows", [trial])
    assert Templates(jobs.engine).all() == {"Windows": [trial]}
    with pytest.raises(BadInput, match="nothing to keep"):
        templates.keep("Windows", [])
    templates.forget("Windows")
    with pytest.raises(NotFound):
        templates.forget("Windows")


def test_a_way_back_is_on_the_board_before_what_comes_after_the_steps(boards: Boards, jobs: Jobs, clock: WallClock) -> None:
    runs, run_id = bench(jobs, clock, "Barometer lens")
    work_through(runs, run_id, clock, minutes=3)
    tap(runs, run_id, "started")
    clock.now += timedelta(minutes=2)
    piece, stage = runs.get(run_id).run.current
    where = {"piece": piece, "face": stage.face, "route": stage.route, "step": stage.step}
    tap(runs, run_id, "back", fingernail=True, extent="whole", **where)
    board = boards.board()
    back = [block for block in board.file.blocks if block.label.endswith("way back")]
    open_still = [one for one in runs.get(run_id).run.ahead[1] if one.route > 0]
    assert [one.tool for one in sorted(back, key=lambda one: one.from_min)] == [one.tool for one in open_still]
    after = [block for block in board.file.blocks if block.job == "Barometer lens" and block.operation]
    assert min(one.from_min for one in after if one.operation != "inspect") >= max(one.to_min for one in back)


def test_what_was_left_on_a_spindle_stands_there_the_next_morning(boards: Boards, jobs: Jobs, clock: WallClock) -> None:
    runs, run_id = bench(jobs, clock, "Lamp clock housing")
    boards.board()
    while runs.get(run_id).run.current is not None:
        work_through(runs, run_id, clock, minutes=1)
    boards.board()
    jobs.add(job("Lamp clock housing").model_copy(update={"title": "The same again"}))
    today = [block for block in boards.board().file.blocks if block.job == "The same again"]
    clock.now += timedelta(days=1)
    tomorrow = [block for block in boards.board().file.blocks if block.job == "The same again"]
    assert sum(one.kind == "change" for one in tomorrow) <= sum(one.kind == "change" for one in today)
    assert sum(one.kind == "change" for one in tomorrow) < sum(
        one.machine is not None and one.kind == "work" for one in tomorrow
    )


def test_rooms_are_told_apart_and_a_machine_stands_in_one(boards: Boards) -> None:
    grinder, lathe = RoomFile(name="Back", machines=["belt-grinder"]), RoomFile(name="Front", machines=["lathe"], lacquers=True)
    assert boards.change_shop(ShopFile(rooms=[grinder, lathe], extractors=2)).rooms == [grinder, lathe]
    for wrong, said in (
        ([grinder, grinder], "called"),
        ([grinder, grinder.model_copy(update={"name": "Other"})], "stands in Back already"),
        ([RoomFile(name="Back", machines=["steam-hammer"])], "no machine"),
    ):
        with pytest.raises(BadInput, match=said):
            boards.change_shop(ShopFile(rooms=wrong))
    assert boards.shop().extractors == 2
    assert boards.board().file.blocks
