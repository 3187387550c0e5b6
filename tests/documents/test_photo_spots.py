"""Damage that was drawn on a photo is the spots of the job, in real millimetres."""

from typing import Any

import pytest

from kelbrast.documents.job.format import JobFile
from kelbrast.documents.job.part_photo import PartPhotoFile
from kelbrast.documents.job.photo_spots import told_apart, with_spots_drawn
from kelbrast.documents.job.read import check_job_file

FACE = {"area_cm2": 300, "found": {"kind": "scratches", "depth_um": 3}, "want": {"finish": "bright"}}
LEFT = [(0, 0), (400, 0), (400, 300), (0, 300)]
RIGHT = [(500, 0), (900, 0), (900, 300), (500, 300)]
SCALE = {"kind": "length", "ends": [(0, 400), (200, 400)], "mm": 100}  # two pixels a millimetre


@pytest.fixture
def job() -> JobFile:
    faces = [{**FACE, "id": "left", "name": "left"}, {**FACE, "id": "right", "name": "right"}]
    return check_job_file({"kelbrast": "job/2", "title": "Plates", "material": "brass", "faces": faces})


def photo(*marks: dict[str, Any], scale: Any = SCALE) -> PartPhotoFile:
    outlines = [{"face": "left", "points": LEFT}, {"face": "right", "points": RIGHT}]
    return PartPhotoFile.model_validate({"scale": scale, "outlines": outlines, "marks": list(marks)}, strict=False)


def gouge(*points: tuple[float, float], **more: Any) -> dict[str, Any]:
    return {"damage": "gouges", "points": list(points), **more}


def taken(job: JobFile, drawn: PartPhotoFile, **more: Any) -> tuple[JobFile, PartPhotoFile]:
    apart = told_apart(job, drawn)
    return with_spots_drawn(job, [apart], **more), apart


def test_marks_of_one_word_on_a_face_are_one_kind_as_large_as_drawn(job: JobFile) -> None:
    made, apart = taken(job, photo(gouge((10, 10), (170, 10)), gouge((20, 60), (20, 300)), gouge((600, 50), (600, 90))))
    (gouges,), (other,) = made.faces[0].spots, made.faces[1].spots
    assert (gouges.count, gouges.length_mm, gouges.width_mm, gouges.drawn) == (2, 100, 2, True)  # 80 and 120 mm
    assert (other.count, other.length_mm) == (1, 20)
    assert [mark.face for mark in apart.marks] == ["left", "left", "right"]
    assert len({mark.spots for mark in apart.marks}) == 2


def test_a_place_with_an_outline_has_its_area_and_a_point_is_as_wide_as_such_damage(job: JobFile) -> None:
    corner = {"damage": "rust", "closed": True, "points": [(0, 0), (100, 0), (100, 80), (0, 80)]}
    made, _ = taken(job, photo(corner, gouge((10, 200))))
    rust, point = made.faces[0].spots
    assert rust.area_cm2 == pytest.approx(20)
    assert rust.kind == "pits"
    assert (point.length_mm, point.width_mm) == (2, 2)


def test_moving_a_point_changes_its_size_and_keeps_what_was_said(job: JobFile) -> None:
    made, apart = taken(job, photo(gouge((0, 0), (100, 0))))
    named = made.faces[0].spots[0].model_copy(update={"name": "chisel slips", "depth_um": 90.0})
    said = made.model_copy(update={"faces": [made.faces[0].model_copy(update={"spots": [named]}), made.faces[1]]})
    moved = apart.marks[0].model_copy(update={"points": [(0.0, 0.0), (200.0, 0.0)]})
    again, _ = taken(said, apart.model_copy(update={"marks": [moved]}))
    (spots,) = again.faces[0].spots
    assert (spots.name, spots.depth_um, spots.length_mm) == ("chisel slips", 90.0, 100)


def test_marks_can_be_put_into_another_kind_and_a_kind_without_marks_goes(job: JobFile) -> None:
    made, apart = taken(job, photo(gouge((0, 0), (100, 0)), {"damage": "pits", "points": [(10, 10)]}))
    gouges, pits = made.faces[0].spots
    together = [mark.model_copy(update={"spots": gouges.id}) for mark in apart.marks]
    merged, _ = taken(made, apart.model_copy(update={"marks": together}), were=[("left", gouges.id), ("left", pits.id)])
    (one,) = merged.faces[0].spots
    assert (one.id, one.count) == (gouges.id, 2)
    alike = together[1].model_copy(update={"damage": "gouges"})
    split = [together[0], alike.model_copy(update={"spots": "left-new"})]
    apart_again, _ = taken(merged, apart.model_copy(update={"marks": split}))
    assert [spots.count for spots in apart_again.faces[0].spots] == [1, 1]


def test_what_is_written_in_the_list_stays_beside_what_is_drawn(job: JobFile) -> None:
    listed = {"id": "bead", "name": "bead", "kind": "raised", "length_mm": 90, "width_mm": 6, "depth_um": 400}
    whole = check_job_file(
        {**job.model_dump(mode="json"), "faces": [{**job.faces[0].model_dump(mode="json"), "spots": [listed]}]}
    )
    made, _ = taken(whole, photo(gouge((0, 0), (100, 0))))
    assert [spots.name for spots in made.faces[0].spots] == ["bead", "Gouges"]
    assert made.faces[0].spots[0] == whole.faces[0].spots[0]
    bare = with_spots_drawn(made, [photo()])
    assert [spots.drawn for spots in bare.faces[0].spots] == [False, False], "without the photo they are the list's own"


def test_without_a_scale_marks_stay_what_they_are(job: JobFile) -> None:
    made, apart = taken(job, photo(gouge((0, 0), (100, 0)), scale=None))
    assert made == job
    assert apart.marks[0].spots == ""
