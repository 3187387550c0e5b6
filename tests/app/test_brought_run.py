"""A run that was done elsewhere comes into the log from its file: the same figures and lessons, and nothing of this rack."""

import json
from pathlib import Path
from typing import Any

import pytest

from demo_workshop import demo_workshop
from kelbrast.app.brought_run import bring_run
from kelbrast.app.jobs import Jobs
from kelbrast.app.log import Log
from kelbrast.app.runs import Runs
from kelbrast.core.errors import BadInput
from kelbrast.documents.run.format import read_run_file
from kelbrast.storage.run_results import newest_observations, work_days
from kelbrast.storage.runs import Wanted
from kelbrast.storage.sessions import reading


@pytest.fixture(scope="module")
def elsewhere(tmp_path_factory: pytest.TempPathFactory) -> Log:
    return Log(Runs(demo_workshop(tmp_path_factory.mktemp("there") / "there.sqlite", with_past=True)))


@pytest.fixture
def here(tmp_path: Path) -> Runs:
    return Runs(Jobs.open(tmp_path / "here.sqlite"))


def files(log: Log) -> list[dict[str, Any]]:
    return [json.loads(file.model_dump_json()) for file in log.run_files(Wanted()) if file.status != "open"]


def test_its_line_and_its_lessons_are_the_same(elsewhere: Log, here: Runs) -> None:
    told = files(elsewhere)
    assert len(told) > 5
    for one in told:
        bring_run(here, read_run_file(json.dumps(one)))
    there, brought = elsewhere.search(Wanted(), limit=None)[1], Log(here).search(Wanted(), limit=None)[1]
    said = {(one.title, one.began_at): (one.status, one.well, one.figures["minutes"], one.finishes) for one in there}
    assert {(one.title, one.began_at): (one.status, one.well, one.figures["minutes"], one.finishes) for one in brought} == {
        key: value for key, value in said.items() if value[0] != "open"
    }
    with reading(here.engine) as session, reading(elsewhere._engine) as other:
        assert sorted(observation.ratio for observation in newest_observations(session, 200)) == sorted(
            observation.ratio for observation in newest_observations(other, 200)
        )
        assert {each.item for each in work_days(session)} == {None}


def test_it_comes_in_once(elsewhere: Log, here: Runs) -> None:
    file = read_run_file(json.dumps(files(elsewhere)[0]))
    bring_run(here, file)
    with pytest.raises(BadInput, match="in the log already"):
        bring_run(here, file)
    assert Log(here).search(Wanted())[0] == 1


@pytest.mark.parametrize(
    ("change", "said"),
    [
        ({"status": "open"}, "still open"),
        ({"events": []}, "nothing happened"),
        ({"status": "stopped"}, "by its events"),
        ({"kelbrast": "run/9"}, "run/1"),
        ({"colour": "red"}, "colour"),
    ],
)
def test_what_can_not_be_is_refused(elsewhere: Log, here: Runs, change: dict[str, Any], said: str) -> None:
    finished = next(file for file in files(elsewhere) if file["status"] == "finished")
    with pytest.raises(BadInput, match=said):
        bring_run(here, read_run_file(json.dumps({**finished, **change})))
    assert Log(here).search(Wanted())[0] == 0


def test_events_that_can_not_have_happened_are_refused(elsewhere: Log, here: Runs) -> None:
    finished = next(file for file in files(elsewhere) if file["status"] == "finished")
    first, *others = finished["events"]
    strange = [{**one, "face": "the mirror"} if one["kind"] == "started" else one for one in finished["events"]]
    for events in (others, strange, [first, first, *others]):
        with pytest.raises(BadInput):
            bring_run(here, read_run_file(json.dumps({**finished, "events": events})))
    assert Log(here).search(Wanted())[0] == 0


def test_a_photo_of_elsewhere_is_none_of_here(elsewhere: Log, here: Runs) -> None:
    finished = next(file for file in files(elsewhere) if file["status"] == "finished")
    last = finished["events"][-1]
    taken = {**{key: last[key] for key in ("at", "ticks", "boot")}, "kind": "photo", "photo": 1, "number": last["number"] + 1}
    run = bring_run(here, read_run_file(json.dumps({**finished, "events": [*finished["events"], taken]})))
    event = here.get(run).events[-1]
    assert (event.kind, event.photo, event.words) == ("note", None, "A photo was taken.")


def test_a_run_file_from_before_faces_had_ids_comes_in(elsewhere: Log, here: Runs) -> None:
    """Its job is job/1, and plan, ways back and taps say the names of faces."""
    for file in files(elsewhere):
        names = {face["id"]: face["name"] for face in file["job"]["faces"]}
        for face in (
            *file["job"]["faces"],
            *file["plan"]["faces"],
            *(event["back"] for event in file["events"] if event["back"]),
        ):
            del face["id"]
        for event in file["events"]:
            event["face"] = names.get(event["face"])
        for face in file["job"]["faces"]:
            if face["edge"]:
                face["edge"]["next_to"] = [names[key] for key in face["edge"]["next_to"]]
        file["job"]["kelbrast"] = "job/1"
        bring_run(here, read_run_file(json.dumps(file)))
    there, brought = elsewhere.search(Wanted(), limit=None)[1], Log(here).search(Wanted(), limit=None)[1]
    minutes = {(one.title, one.began_at): one.figures["minutes"] for one in there if one.status != "open"}
    assert {(one.title, one.began_at): one.figures["minutes"] for one in brought} == minutes
