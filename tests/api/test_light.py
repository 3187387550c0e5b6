"""The light strip over HTTP: as many pictures as stages, made in the background, the same for the same plan."""

import io
import re
from typing import Any

import numpy as np
import pytest
from PIL import Image
from starlette.testclient import TestClient

from tapping import tap
from telling import told


@pytest.fixture
def tiles(client: TestClient, collar: dict[str, Any]) -> list[dict[str, Any]]:
    return client.post("/api/light/strip", params={"face": collar["faces"][0]["name"]}, json=collar).json()


def picture(client: TestClient, key: str) -> np.ndarray:
    answer = client.get(f"/api/light/{key}.png")
    assert answer.headers["content-type"] == "image/png"
    return np.asarray(Image.open(io.BytesIO(answer.content))).astype(float)


def test_a_picture_for_the_found_surface_and_each_step(client, collar, tiles) -> None:
    steps = client.post("/api/plan", json=collar).json()["faces"][0]["steps"]
    assert [tile["label"] for tile in tiles] == ["as found", *(step["label"] for step in steps)]
    pictures = [picture(client, tile["key"]) for tile in tiles]
    fine = [float(np.abs(np.diff(picture.mean(axis=2), axis=0)).mean()) for picture in pictures]
    assert fine[0] > fine[1] > fine[-1]  # the marks get finer from stage to stage
    assert all(picture[..., 0].mean() > picture[..., 2].mean() for picture in pictures)  # brass


def test_the_same_plan_has_the_same_pictures_and_another_face_others(client, collar, tiles) -> None:
    again = client.post("/api/light/strip", params={"face": collar["faces"][0]["name"]}, json=collar).json()
    assert again == tiles
    collar["faces"][0]["found"] = {"kind": "scratches", "depth_um": 30}
    other = client.post("/api/light/strip", params={"face": collar["faces"][0]["name"]}, json=collar).json()
    assert other[0]["key"] != tiles[0]["key"]


def test_every_picture_has_its_figures_in_words(client, tiles) -> None:
    words = client.get(f"/api/light/{tiles[0]['key']}/words").json()["words"]
    assert "µm deep" in told(words)
    assert "mm wide" in told(words)
    assert "thou deep" in told(words, "inch")


def test_what_nobody_asked_for_is_not_there(client, collar) -> None:
    assert client.get(f"/api/light/{'0' * 32}.png").status_code == 404
    assert client.get("/api/light/zz.png").status_code == 422
    bad = client.post("/api/light/strip", params={"face": "none"}, json=collar)
    assert bad.json()["faults"][0]["field"] == "face"


def test_the_pair_at_the_bench_tells_done_from_not_yet(client, collar) -> None:
    job = client.post("/api/jobs", json=collar).json()["id"]
    run = client.post(f"/api/jobs/{job}/runs").json()["id"]
    done, early = client.get(f"/api/runs/{run}/light").json()
    assert (done["label"], early["label"]) == ("It should look like", "Not yet, keep going")
    apart = np.abs(picture(client, done["key"]) - picture(client, early["key"]))
    assert (apart.max(axis=2) > 8).mean() > 0.01  # old marks that lie across


def test_on_a_way_back_the_pair_starts_from_the_mark_that_was_found(client, collar) -> None:
    """Not from how the part once came: nine micrometres deep, the mark needs less than the first damage did."""
    job = client.post("/api/jobs", json=collar).json()["id"]
    run = client.post(f"/api/jobs/{job}/runs").json()
    run = tap(client, tap(client, run, "started").json(), "back", depth_um=9.0, extent="whole").json()
    assert run["hand"]["route"] == 1
    done, early = client.get(f"/api/runs/{run['id']}/light").json()
    deep = [
        float(re.search(r"marks ([\d.]+) µm deep", told(client.get(f"/api/light/{one['key']}/words").json()["words"]))[1])
        for one in (done, early)
    ]
    assert deep[0] < deep[1] <= 9.5
