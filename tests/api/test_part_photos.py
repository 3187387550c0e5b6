"""Photos of a part: kept clean, drawn on, their areas; and they come back with a job that was deleted by mistake."""

import io

import pytest
from PIL import Image

from kelbrast.app.photos import PartPhotos


def picture(size: tuple[int, int] = (800, 600), kind: str = "JPEG") -> bytes:
    out = io.BytesIO()
    exif = Image.Exif()
    exif[0x010F] = "who made the camera"
    Image.new("RGB", size, (180, 160, 90)).save(out, kind, exif=exif)
    return out.getvalue()


@pytest.fixture
def job(client, collar) -> int:
    return client.post("/api/jobs", json=collar).json()["id"]


@pytest.fixture
def photo(client, job) -> dict:
    return client.post(f"/api/jobs/{job}/photos", content=picture(), headers={"content-type": "image/jpeg"}).json()


SQUARE = [[100, 100], [300, 100], [300, 300], [100, 300]]
LENGTH = {"kind": "length", "ends": [[100, 500], [500, 500]], "mm": 200}


def test_a_photo_is_kept_clean_and_drawn_on(client, job, photo) -> None:
    assert (photo["width"], photo["height"], photo["areas"]) == (800, 600, [])
    kept = client.get(f"/api/part-photos/{photo['id']}.jpg")
    assert kept.headers["content-type"] == "image/jpeg"
    assert b"camera" not in kept.content
    outline = {"face": "barrel", "points": SQUARE}
    drawn = client.put(f"/api/part-photos/{photo['id']}", json={"outlines": [outline]}).json()
    assert drawn["areas"] == [None]
    whole = {"scale": LENGTH, "outlines": [outline, {**outline, "face": "rim", "curved": 1.5, "keep_off": True}]}
    drawn = client.put(
        f"/api/part-photos/{photo['id']}", json={**whole, "marks": [{"damage": "dents", "points": [[9, 9]]}]}
    ).json()
    assert drawn["areas"] == [100.0, 150.0]
    (again,) = client.get(f"/api/jobs/{job}/photos").json()
    assert again == drawn


def test_what_can_not_be_is_refused_with_its_place_and_nothing_is_changed(client, job, photo) -> None:
    address = f"/api/part-photos/{photo['id']}"
    crossed = {"face": "rim", "points": [SQUARE[0], SQUARE[2], SQUARE[1], SQUARE[3]]}
    refused = client.put(address, json={"scale": LENGTH, "outlines": [crossed]})
    assert refused.status_code == 422
    (fault,) = refused.json()["faults"]
    assert fault["field"] == "outlines[0]"
    assert "crosses itself" in fault["message"]
    assert client.put(address, json={"scale": {**LENGTH, "ends": [[1, 1], [1, 1]]}}).status_code == 422
    assert client.put(address, json={"outlines": [{"face": "rim", "points": SQUARE[:2]}]}).status_code == 422
    assert client.get(f"/api/jobs/{job}/photos").json() == [photo]
    assert client.post(f"/api/jobs/{job}/photos", content=b"no picture").status_code == 422
    assert client.post("/api/jobs/999/photos", content=picture()).status_code == 404
    assert client.get("/api/jobs/999/photos").status_code == 404
    for call in (
        client.put("/api/part-photos/99", json={}),
        client.delete("/api/part-photos/99"),
        client.get("/api/part-photos/99.jpg"),
    ):
        assert call.status_code == 404


def test_a_deleted_job_that_comes_back_has_its_photos_and_one_that_does_not_leaves_none(client, job, photo, collar) -> None:
    other = client.post("/api/jobs", json=collar).json()["id"]
    client.delete(f"/api/jobs/{job}")
    assert client.get(f"/api/jobs/{other}/photos").json() == []
    back = client.post("/api/jobs", json=collar, params={"was": job}).json()["id"]
    (kept,) = client.get(f"/api/jobs/{back}/photos").json()
    assert (kept["id"], kept["job_id"]) == (photo["id"], back)
    client.delete(f"/api/jobs/{back}")
    PartPhotos(client.app.state.jobs.engine).forget_left()
    assert client.get(f"/api/part-photos/{photo['id']}.jpg").status_code == 404


def test_a_photo_is_taken_away(client, job, photo) -> None:
    assert client.delete(f"/api/part-photos/{photo['id']}").status_code == 204
    assert client.get(f"/api/jobs/{job}/photos").json() == []
