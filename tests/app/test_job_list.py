"""The list: a line is worked out once, again when something that it follows from has changed, and never waited for too long."""

import itertools
from collections.abc import Iterator
from pathlib import Path

import pytest

from demo_workshop import demo_workshop
from kelbrast.app import job_list
from kelbrast.app.jobs import Jobs
from kelbrast.core.rack.item import ItemEvent
from kelbrast.documents.rack.format import ItemFile


@pytest.fixture
def jobs(tmp_path: Path) -> Iterator[Jobs]:
    jobs = demo_workshop(tmp_path / "demo.sqlite")
    yield jobs
    jobs.close()


@pytest.fixture
def planned(monkeypatch: pytest.MonkeyPatch) -> list[str]:
    """The titles of the jobs that were planned for the list."""
    titles: list[str] = []
    plan_file = job_list.plan_file

    def counted(file, shelf, **more):
        titles.append(file.title)
        return plan_file(file, shelf, **more)

    monkeypatch.setattr(job_list, "plan_file", counted)
    return titles


def test_a_line_is_worked_out_again_only_when_what_it_follows_from_has_changed(jobs: Jobs, planned: list[str]) -> None:
    before = jobs.search()[1]
    assert sorted(planned) == sorted(line.title for line in before)
    planned.clear()
    bar = next(kept for kept in jobs.rack.items() if kept.item.kind == "compound")
    jobs.rack.note_all([(bar.id, ItemEvent("stock", amount=-0.25))], why="spilt")  # less of it plans nothing anew
    jobs.set_state(
        before[0].id, "quoted" if before[0].kept_state != "quoted" else "ordered", after=jobs.get(before[0].id).state_number
    )
    after = {line.id: line for line in jobs.search()[1]}
    assert planned == []
    assert after[before[0].id].kept_state != before[0].kept_state
    changed = jobs.get(before[1].id)
    jobs.change(before[1].id, changed.job.model_copy(update={"title": "Renamed", "pieces": 7}), revision=changed.revision)
    assert {line.title: line.pieces for line in jobs.search()[1]}["Renamed"] == 7
    assert planned == ["Renamed"]
    planned.clear()
    jobs.rack.add([ItemFile.model_validate({"what": "loose", "name": "new"})])
    assert len(jobs.search()[1]) == len(before)
    assert len(planned) > 1  # another wheel may be used by many


def test_who_waits_only_so_long_is_told_what_is_known_and_the_rest_the_next_time(
    jobs: Jobs, planned: list[str], monkeypatch: pytest.MonkeyPatch
) -> None:
    whole = {line.id: line for line in Jobs(jobs.engine).search()[1]}
    planned.clear()
    seconds = itertools.count()
    monkeypatch.setattr(job_list.time, "perf_counter", lambda: float(next(seconds)))  # each look at the clock takes a second
    first = jobs.search(within_s=3.5)[1]
    pending = next(line for line in first if line.state == "planning")
    told = [line.faces for line in first if line.state != "planning"]
    assert sorted(told) == sorted(line.faces for line in first)[:3]  # the small ones first
    assert [line.id for line in first] == [line.id for line in jobs.search(within_s=0)[1]]  # in the order of the list
    assert (pending.next, pending.hands_on_minutes, pending.reason) == (whole[pending.id].next, None, None)
    assert (pending.title, pending.finishes, pending.due) == (
        whole[pending.id].title, whole[pending.id].finishes, whole[pending.id].due,
    )  # fmt: skip
    for _ in range(len(whole)):
        lines = jobs.search(within_s=3.5)[1]
    assert {line.id: line for line in lines} == whole
    assert len(planned) == len(whole)
