"""What is known of a face stays with it: through other names, other faces, another order, and writers who know of no ids."""

import io
import json
import random
import sqlite3
from datetime import datetime, timedelta
from pathlib import Path
from typing import Any

import pytest
from PIL import Image

from attacking import chance, many
from days import WallClock
from kelbrast.app.board import Boards
from kelbrast.app.jobs import Jobs
from kelbrast.app.photos import PartPhotos
from kelbrast.app.planning import plan_file
from kelbrast.app.runs import Runs
from kelbrast.core.errors import BadInput
from kelbrast.documents.job.face_ids import identified, ids_for, made_id
from kelbrast.documents.job.format import FaceFile, JobFile
from kelbrast.documents.job.part_photo import PartPhotoFile
from kelbrast.documents.job.read import check_job_file, read_as_written, read_job_file
from kelbrast.documents.run.format import TapFile

NAMES = ("rim", "rim, outer", "rim (2)", "Rim", "lid", "lid-2", "крышка", "a, b", " b ", "face 1", "cap" * 60)
TRIANGLE = [(10.0, 10.0), (90.0, 10.0), (50.0, 80.0)]


def face(name: str, area: float, **more: Any) -> dict[str, Any]:
    found = {"kind": "scratches", "depth_um": {"likely": 10, "worst": 15}}
    return {"name": name, "area_cm2": area, "found": found, "want": {"finish": "satin"}, **more}


def collar(*faces: dict[str, Any], **more: Any) -> dict[str, Any]:
    return {"kelbrast": "job/2", "title": "Lantern collar", "material": "brass", "faces": list(faces), **more}


def by_area(faces: list[FaceFile]) -> dict[float, FaceFile]:
    """In these tests the area tells which face it really is."""
    return {face.area_cm2 or 0.0: face for face in faces}


def shuffled(file: JobFile, luck: random.Random, fresh: float) -> JobFile:
    """The job with faces renamed, one more of them, and all of them in another order; areas stay."""
    names = luck.sample(NAMES, len(file.faces) + 1)
    renamed = [one.model_copy(update={"name": name.strip()}) for one, name in zip(file.faces, names, strict=False)]
    more = renamed[0].model_copy(update={"id": "", "name": names[-1].strip(), "area_cm2": fresh})
    faces = [*renamed, more]
    luck.shuffle(faces)
    return file.model_copy(update={"faces": faces})


def test_renames_insertions_and_orders_attach_nothing_to_another_face(jobs: Jobs) -> None:
    clock = WallClock(datetime(2026, 11, 27, 8, 0))
    runs, boards, photos = Runs(jobs, clock.moment), Boards(jobs, clock), PartPhotos(jobs.engine)
    picture = io.BytesIO()
    Image.new("RGB", (120, 100), "gray").save(picture, "JPEG")
    for turn in range(many(3)):
        luck = chance(f"identities {turn}")
        first = collar(*(face(name, 40.0 + at) for at, name in enumerate(luck.sample(NAMES, 3))), state="ordered")
        kept = jobs.add(check_job_file(first))
        photo = photos.add(kept.id, picture.getvalue(), shows="before")
        outlines = [
            {"face": face.id, "name": face.name, "points": TRIANGLE, "curved": face.area_cm2 / 40} for face in kept.job.faces
        ]
        photos.draw(photo.id, PartPhotoFile.model_validate({"outlines": outlines}))
        boards.board()
        run_id = runs.begin(kept.id).id
        _, stage = runs.get(run_id).run.current
        worked = {face.id: face.area_cm2 for face in kept.job.faces}[stage.face]
        clock.now += timedelta(minutes=2)
        tapped(runs, run_id, "started", "gone")
        for change in range(2):
            now = jobs.get(kept.id)
            jobs.change(kept.id, shuffled(now.job, luck, 60.0 + change), revision=now.revision)
            after = jobs.get(kept.id).job
            assert {area: one.id for area, one in by_area(after.faces).items() if area < 50} == {
                face.area_cm2: face.id for face in kept.job.faces
            }
            # The plan, the photo, the bench, the board and the log speak of the same faces, under their new names.
            named = {face.id: face.name for face in after.faces}
            plan = plan_file(after)
            assert {face.id: face.area_cm2 for face in plan.faces} == {face.id: face.area_cm2 for face in after.faces}
            assert {step.face_id: step.face for one in plan.set_ups for step in one.steps} == named
            for outline in photos.of_job(kept.id)[0].drawn.outlines:
                assert round(outline.curved * 40) == round(
                    next(face.area_cm2 for face in after.faces if face.id == outline.face)
                )
                assert outline.name == named[outline.face]
            run = runs.get(run_id)
            assert run.job.face(stage.face).area == pytest.approx(worked / 1e4)
            assert run.run.work(1, stage).outcome == "gone"
            board = boards.board()
            over = [task for task in boards._asked().work.tasks if task.key in board.done and task.job == str(kept.id)]
            assert all(stage.face in one.faces and one.tool == stage.tool for one in over)
        jobs.set_state(kept.id, "delivered", after=jobs.get(kept.id).state_number)


def test_whoever_writes_without_ids_means_the_face_of_that_name() -> None:
    before = read_job_file(json.dumps(collar(face("lid", 40, id="a1"), face("cover", 41, id="lid"))))
    written = read_as_written(json.dumps({**collar(face("cover", 41), face("lid", 40), face("rim", 42)), "kelbrast": "job/1"}))
    assert [face.id for face in identified(written, before).faces] == ["lid", "a1", "rim"]
    # A name that is an id of a face that went is no way to come by what was known of that face.
    gone = read_job_file(json.dumps(collar(face("cover", 41, id="lid"), face("rim", 42))))
    again = identified(read_as_written(json.dumps(collar(face("lid", 40), face("rim", 42, id="rim")))), gone)
    assert [face.id for face in again.faces] == ["lid-2", "rim"]


def test_made_ids_are_told_apart_and_the_same_for_everybody() -> None:
    for turn in range(many(20)):
        luck = chance(f"made {turn}")
        given = [(name.strip(), luck.choice(["", "", f"k{at}"])) for at, name in enumerate(luck.sample(NAMES, 6))]
        made = ids_for(given)
        assert len(set(made)) == len(made)
        assert all(key == said for key, (_, said) in zip(made, given, strict=True) if said)
        assert ids_for(list(zip((name for name, _ in given), made, strict=True))) == made
    assert made_id("Rim") != made_id("rim") != made_id("rim ")


def test_job_1_is_read_for_ever_and_its_edges_find_their_faces() -> None:
    edge = {"name": "arris", "edge": {"length_mm": 100, "wanted": "sharp", "next_to": ["rim, outer"]}}
    old = {**collar(face("rim, outer", 40), face("lid", 41), edge), "kelbrast": "job/1"}
    file = check_job_file(old)
    assert file.kelbrast == "job/2"
    assert file.faces[2].edge.next_to == [file.faces[0].id]
    renamed = file.model_copy(update={"faces": [file.faces[0].model_copy(update={"name": "collar"}), *file.faces[1:]]})
    assert check_job_file(renamed.model_dump(mode="json", exclude_none=True)).faces[2].edge.next_to == [file.faces[0].id]


@pytest.mark.parametrize(
    ("ids", "says"), [(("a", "a"), 'two faces have the id "a"'), (("a b", ""), "faces[0].id"), (("é", ""), "id")]
)
def test_ids_that_can_not_be(ids: tuple[str, str], says: str) -> None:
    with pytest.raises(BadInput) as refused:
        check_job_file(collar(face("lid", 40, id=ids[0]), face("rim", 41, id=ids[1])))
    assert says in str(refused.value)


def test_a_run_from_before_faces_had_ids_goes_on(jobs: Jobs) -> None:
    """Its job, its plan and its events say names; whoever taps now says ids."""
    runs, database = Runs(jobs), Path(str(jobs.engine.url.database))
    kept = jobs.add(check_job_file(collar(face("rim, outer", 40), face("rim", 41), state="ordered")))
    run_id = runs.begin(kept.id).id
    tapped(runs, run_id, "started", "gone")
    was = runs.get(run_id)
    names = {face.id: face.name for face in kept.job.faces}
    with sqlite3.connect(database) as raw:
        for table, column in (("runs", "job"), ("runs", "plan"), ("run_events", "document"), ("jobs", "document")):
            for key, text in raw.execute(f"select rowid, {column} from {table}").fetchall():
                raw.execute(
                    f"update {table} set {column} = ? where rowid = ?", (json.dumps(_old(json.loads(text), names)), key)
                )
    again = Runs(Jobs.open(database))
    now = again.get(run_id)
    assert {key: work.outcome for key, work in now.run.works.items()} == {
        key: work.outcome for key, work in was.run.works.items()
    }
    assert [stage.key for stage in now.run.stages[1]] == [stage.key for stage in was.run.stages[1]]
    tapped(again, run_id, "started", "gone")
    assert sum(work.outcome == "gone" for work in again.get(run_id).run.works.values()) == 2


def tapped(runs: Runs, run_id: int, *kinds: str) -> None:
    _, stage = runs.get(run_id).run.current
    for kind in kinds:
        seen = runs.get(run_id).run.seen
        tap = TapFile(kind=kind, piece=1, face=stage.face, route=stage.route, step=stage.step)
        runs.tap(run_id, tap, name=f"tap-{run_id}-{seen:08d}", after=seen)


def _old(document: dict[str, Any], names: dict[str, str]) -> dict[str, Any]:
    """The document as it was kept before faces had ids."""
    if document.get("kelbrast") == "job/2":
        document["kelbrast"] = "job/1"
    if document.get("face"):
        document["face"] = names[document["face"]]
    faces = [{key: value for key, value in one.items() if key != "id"} for one in document.get("faces", [])]
    return {**document, **({"faces": faces} if faces else {})}
