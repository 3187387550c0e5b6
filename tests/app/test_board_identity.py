"""The board knows jobs and blocks by their identities: names, positions and other jobs change nothing of what is kept of a block."""

import random
from concurrent.futures import wait
from datetime import datetime, timedelta
from itertools import count
from typing import Any

import pytest

from attacking import chance, many
from days import WallClock
from kelbrast.app import board as board_module
from kelbrast.app import board_search
from kelbrast.app.board import Boards
from kelbrast.app.jobs import Jobs
from kelbrast.app.runs import Runs
from kelbrast.core.day.follow import Pin
from kelbrast.demo.workshop import demo_jobs
from kelbrast.documents.job.format import JobFile
from kelbrast.documents.rack.format import ItemFile
from kelbrast.documents.run.format import TapFile

MORNING = datetime(2026, 11, 27, 8, 0)


@pytest.fixture
def clock() -> WallClock:
    return WallClock(MORNING)


@pytest.fixture
def boards(jobs: Jobs, clock: WallClock) -> Boards:
    return Boards(jobs, clock)


def two_faces(title: str, first: str = "outer barrel", second: str = "rim", **more: Any) -> JobFile:
    """The rail collar with two faces of its own names, without edges."""
    file = next(job for job in demo_jobs() if job.title == "Gallery rail collar")
    face = next(face for face in file.faces if face.edge is None)
    faces = [
        face.model_copy(update={"id": "", "name": first}),
        face.model_copy(update={"id": "", "name": second, "limit_um": None}),
    ]
    return file.model_copy(update={"title": title, "faces": faces, "pieces": 1, "state": "ordered", **more})


def work_through(runs: Runs, run_id: int, clock: WallClock) -> None:
    """Everything of the first stage in hand."""
    _, stage = runs.get(run_id).run.current
    for kind in ("started", "gone"):
        kept = runs.get(run_id)
        where = {"piece": 1, "face": stage.face, "route": stage.route, "step": stage.step}
        clock.now += timedelta(minutes=2)
        runs.tap(run_id, TapFile.model_validate({"kind": kind, **where}), name=f"tap-{kept.run.seen:08d}", after=kept.run.seen)


@pytest.mark.parametrize("name", ["rim, outer", ", ", "barrel", "a, b, c"])
def test_a_comma_in_a_face_name_is_no_separator(boards: Boards, jobs: Jobs, clock: WallClock, name: str) -> None:
    kept = jobs.add(two_faces("Collar", first=name))
    boards.board()
    runs = Runs(jobs, clock.moment)
    run_id = runs.begin(kept.id).id
    for _ in range(4):
        work_through(runs, run_id, clock)
    done = boards.board().done
    assert len(done) >= 1


def test_a_done_mark_stays_with_its_block_when_a_face_is_added(boards: Boards, jobs: Jobs) -> None:
    kept = jobs.add(two_faces("Collar"))
    blocks = [block for block in boards.board().file.blocks if block.kind == "work" and block.tool]
    marked = blocks[1]
    boards.finish(marked.key)
    before = {block.key: (block.tool, block.face) for block in blocks}
    file = jobs.get(kept.id).job
    added = file.faces[0].model_copy(update={"id": "", "name": "inner bore", "want": file.faces[0].want, "limit_um": None})
    jobs.change(kept.id, file.model_copy(update={"faces": [added, *file.faces]}), revision=kept.revision)
    after = boards.board()
    said = boards._kept.said_done(boards._asked().work, MORNING.date())
    assert said == {}  # with the new face the block is another one, which nobody said to be done
    still = {block.key: (block.tool, block.face) for block in after.file.blocks}
    assert all(before[key] == still[key] for key in set(before) & set(still))


def test_three_jobs_of_confusing_titles_keep_their_blocks(boards: Boards, jobs: Jobs) -> None:
    lens = next(job for job in demo_jobs() if job.title == "Barometer lens").model_copy(update={"state": "ordered"})
    collar = two_faces("Box (3)")
    added = [
        jobs.add(lens.model_copy(update={"title": "Box"})),
        jobs.add(collar),
        jobs.add(lens.model_copy(update={"title": "Box", "pieces": 2})),
    ]
    board = boards.board()
    assert len({block.job for block in board.file.blocks}) == 3
    tools = {
        kept.id: {block.tool for block in board.file.blocks if board.ids[block.key] == kept.id and block.tool} for kept in added
    }
    assert tools[added[0].id] == tools[added[2].id]
    assert tools[added[1].id] != tools[added[0].id]
    planned = {step.tool for face in jobs.plan(added[1].id).faces for step in face.steps}
    assert tools[added[1].id] == planned


def shuffled(file: JobFile, luck: random.Random) -> JobFile:
    """The same job after somebody renamed it, reordered its faces, or changed its note."""
    faces = list(file.faces)
    luck.shuffle(faces)
    return file.model_copy(update={"title": luck.choice(["Box", "Box (1)", "a, b", "Collar"]), "faces": faces, "note": "x"})


def test_what_is_kept_of_a_block_never_comes_to_another(boards: Boards, jobs: Jobs) -> None:
    """Jobs are renamed, reordered, added and removed at random: a pin and a done mark stay with their block, or go with it."""
    luck = chance("identity")
    mine = jobs.add(two_faces("Collar"))
    board = boards.board()
    work = [block for block in board.file.blocks if block.kind == "work" and block.tool]
    pinned = work[-1]
    boards.pin(pinned.key, Pin(pinned.starts_min + 120, None, None))
    others: list[int] = []
    for _ in range(many(6)):
        act = luck.choice(["rename", "add", "remove"])
        if act == "rename":
            now = jobs.get(mine.id)
            jobs.change(mine.id, shuffled(now.job, luck), revision=now.revision)
        elif act == "add":
            others.append(jobs.add(two_faces(luck.choice(["Box", "Collar", "Box (1)"]), first="rim, outer")).id)
        elif others:
            jobs.remove(others.pop(luck.randrange(len(others))))
        board = boards.board()
        fixed = [block for block in board.file.blocks if block.fixed]
        assert all(board.ids[one.key] == mine.id and one.tool == pinned.tool for one in fixed)
        assert {one.key for one in fixed} <= {pinned.key}


def test_a_job_that_does_not_fit_is_named_and_the_others_stay(
    boards: Boards, jobs: Jobs, monkeypatch: pytest.MonkeyPatch
) -> None:
    """Thirty name plates in one lot have to be under their lacquer within their time after the last step, and cannot."""
    plates = next(job for job in demo_jobs() if job.title == "Keepers' name plates")
    jobs.add(two_faces("Collar"))
    jobs.add(plates.model_copy(update={"state": "ordered", "pieces": 300, "lot": 300}))
    board = boards.board()
    assert {block.job for block in board.file.blocks} == {"Collar"}
    ((title, reason),) = board.left_out
    assert title == plates.title
    assert reason
    asked = []
    real = board_module.plan_job
    monkeypatch.setattr(board_module, "plan_job", lambda job: asked.append(job) or real(job))
    assert boards.board().left_out == board.left_out
    assert asked == []  # plans of jobs that did not change are not made again


def test_a_machine_that_the_shop_does_not_have_is_waited_for_and_never_planned(boards: Boards, jobs: Jobs) -> None:
    jobs.add(two_faces("Collar").model_copy(update={"use_rack": "catalogue"}))
    used = {block.machine for block in boards.board().file.blocks} - {None}
    assert used
    jobs.rack.add([ItemFile(what="hand"), ItemFile(what="drill")])
    board = boards.board()
    assert not board.file.blocks
    ((title, reason),) = board.left_out
    assert title == "Collar"
    assert reason.startswith("it waits for what the shop does not have")
    jobs.rack.add([ItemFile(what=machine) for machine in sorted(used)])
    board = boards.board()
    assert {block.machine for block in board.file.blocks} - {None} == used
    assert board.left_out == ()


def test_a_search_that_fails_says_so(boards: Boards, jobs: Jobs, monkeypatch: pytest.MonkeyPatch) -> None:
    jobs.add(two_faces("Collar"))

    def fails(*_: Any, **__: Any) -> None:
        raise RuntimeError("out of memory")

    monkeypatch.setattr(board_search, "improve", fails)
    boards.search(seconds=1.0)
    for _ in range(200):
        board = boards.board()
        if not board.searching:
            break
    assert "failed" in board.trouble
    assert board.file.blocks


def test_everybody_who_asks_at_once_gets_one_answer(boards: Boards, jobs: Jobs, monkeypatch: pytest.MonkeyPatch) -> None:
    jobs.add(two_faces("Collar"))
    made = []
    real = boards.board
    monkeypatch.setattr(boards, "board", lambda: made.append(1) or real())
    asked = [boards.board_soon() for _ in range(20)]
    assert len({id(one.result(30)) for one in asked}) <= 2
    assert len(made) <= 2


def test_who_asks_after_an_answer_is_never_told_that_answer_again(boards: Boards, monkeypatch: pytest.MonkeyPatch) -> None:
    """Also if it was worked out before the thread that asked went on."""
    told = count()
    monkeypatch.setattr(boards, "board", lambda: next(told))
    soon = boards.soon

    def late(act: Any) -> Any:
        wait([asked := soon(act)])
        return asked

    monkeypatch.setattr(boards, "soon", late)
    assert [boards.board_soon().result() for _ in range(3)] == [0, 1, 2]
