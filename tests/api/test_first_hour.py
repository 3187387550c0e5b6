"""What a shop that opens the program for the first time meets: kits, words, sizes of drawings, and the demo from inside."""

import tempfile

import pytest
from starlette.testclient import TestClient

from kelbrast.app import jobs
from kelbrast.core.catalogue.damages import damages, feels
from kelbrast.core.catalogue.tools import kits
from kelbrast.core.surface.found import FOUND_KINDS
from kelbrast.documents.size.wanted import SizeWanted, drawn_size

# What a shop of each kind takes in: a material and a finish that it can do with what it has.
CAN = [
    ("hand", "brass", "mirror"),
    ("rotary", "brass", "mirror"),
    ("buffer", "stainless-304", "mirror"),
    ("belt", "stainless-304", "mirror"),
    ("coating", "acrylic", "mirror"),
    ("lathe", "brass", "bright"),
    ("sheet", "stainless-304", "bright"),
    ("turned", "brass", "bright"),
    ("bores", "brass", "N6"),
]
PLACES = {
    "sheet": {"area_cm2": 8000},
    "turned": {"shape": {"kind": "cylinder", "diameter_mm": 30, "length_mm": 40}},
    "bores": {"shape": {"kind": "bore", "diameter_mm": 40, "length_mm": 300}, "reach": "inside", "inside_radius_mm": 20},
}


@pytest.mark.parametrize(("kit", "material", "finish"), CAN)
def test_a_rack_filled_from_a_kit_plans_the_work_of_such_a_shop(client, kit: str, material: str, finish: str) -> None:
    told = next(one for one in client.get("/api/catalogue").json()["kits"] if one["id"] == kit)
    items = [{"what": what} for what in told["items"]]
    assert client.post("/api/rack", json={"items": items}).status_code == 201
    damage = damages()["scratches"]
    face = {
        "name": "face 1",
        **PLACES.get(kit, {"area_cm2": 100}),
        "found": {"kind": damage.kind, "depth_um": {"likely": damage.likely.value, "worst": damage.worst.value}},
        "want": {"finish": finish},
    }
    job = {"kelbrast": "job/2", "title": "First part", "material": material, "pieces": 1, "use_rack": "own", "faces": [face]}
    plan = client.post("/api/plan", json=job).json()
    assert plan["possible"]
    owned = {item["what"] for item in items}
    assert {one["machine"] for one in plan["set_ups"]} <= {*owned, "hand"}


def test_every_word_becomes_what_the_model_knows() -> None:
    wanted = "dents gouges rust tarnish heat-tint orange-peel casting-skin tool-marks weld-bead solder polish-haze"
    assert set(wanted.split()) <= set(damages())
    for damage in damages().values():
        assert damage.kind in FOUND_KINDS
        assert 0 < damage.likely.si <= damage.worst.si
        assert {damage.length is None, damage.width is None} == {damage.kind not in ("nick", "raised")}
    depths = [feel.likely.si for feel in feels().values()]
    assert depths == sorted(depths)
    assert feels()["card"].likely.value == 760  # ISO/IEC 7810: a bank card is 0.76 mm thick
    assert set(kits()) == {kit for kit, *_ in CAN}


@pytest.mark.parametrize(
    ("written", "system", "wanted"),
    [
        ("25 h6", "metric", {"nominal_mm": 25, "class": "h6"}),
        ("Ø12H7", "metric", {"nominal_mm": 12, "class": "H7"}),
        ("25 -0.005", "metric", {"nominal_mm": 25, "deviation_um": (-5, 0)}),
        ("25 +0,021 0", "metric", {"nominal_mm": 25, "deviation_um": (0, 21)}),
        ("25 +0.021/0", "metric", {"nominal_mm": 25, "deviation_um": (0, 21)}),
        ("25 −0.020 −0.041", "metric", {"nominal_mm": 25, "deviation_um": (-41, -20)}),
        ("25 ±0.01", "metric", {"nominal_mm": 25, "deviation_um": (-10, 10)}),
        ("24.98 - 25.00 mm", "metric", {"limits_mm": (24.98, 25)}),
        ("25 - 24.98", "metric", {"limits_mm": (24.98, 25)}),
        (".5000 +.0005 / -0", "inch", {"nominal_mm": 12.7, "deviation_um": (0, 12.7)}),
        ("1.0000 - 1.0005", "inch", {"limits_mm": (25.4, 25.4127)}),
    ],
)
def test_a_size_is_read_as_drawings_say_it(client, written: str, system: str, wanted: dict) -> None:
    assert drawn_size(written, system=system) == SizeWanted.model_validate(wanted)
    answer = client.post("/api/size/drawn", json={"text": written, "system": system})
    assert SizeWanted.model_validate({key: value for key, value in answer.json().items() if value is not None}) == drawn_size(
        written, system=system
    )


@pytest.mark.parametrize("written", ["", "25", "round", "25 Q9", "0 -0.1", "25 h6 h7"])
def test_what_is_no_size_is_refused(client, written: str) -> None:
    refused = client.post("/api/size/drawn", json={"text": written})
    assert refused.status_code == 422
    assert refused.json()["faults"][0]["field"] == "text"


def test_the_answers_of_the_first_hour_are_kept(client) -> None:
    shop = client.get("/api/shop").json()
    assert shop["welcomed"] is False
    usual = {"material": "copper", "finish": "mirror", "damage": "tarnish", "use_rack": "own"}
    changed = client.put("/api/shop", json={**shop, "currency": "GBP", "usual": usual, "welcomed": True})
    assert changed.status_code == 200, changed.text
    again = client.get("/api/shop").json()
    assert (again["welcomed"], again["usual"], again["currency"]) == (True, usual, "GBP")


def test_leaving_the_demo_does_not_wait_for_whoever_reads_it(client, monkeypatch: pytest.MonkeyPatch) -> None:
    waited: list[object] = []
    monkeypatch.setattr(jobs, "close_database", waited.append)  # puts all into one file, once nobody reads any more
    client.put("/api/demo")
    assert client.get("/api/jobs").json()["count"] == 12
    assert client.delete("/api/demo").status_code == 204
    assert waited == []


def test_what_is_on_its_way_when_the_demo_is_left_is_answered_and_then_it_is_gone(client, tmp_path, monkeypatch) -> None:
    monkeypatch.setattr(tempfile, "tempdir", str(tmp_path))
    beside = client.app.state.demo
    one, other = beside.held(), beside.held()
    assert client.delete("/api/demo").status_code == 204
    with TestClient(one.app, base_url="http://127.0.0.1") as inside:
        assert inside.get("/api/jobs").json()["count"] == 12
    one.let_go()
    beside.prepared.forget()
    assert len([*tmp_path.glob("kelbrast-scratch-*")]) == 1
    other.let_go()
    assert not [*tmp_path.glob("kelbrast-scratch-*")]
    assert beside.held() is not one


def test_the_demo_is_looked_at_from_inside_and_left_without_a_trace(client) -> None:
    assert client.get("/api/jobs").json()["jobs"] == []
    assert client.put("/api/demo").status_code == 204
    demo = client.get("/api/jobs").json()["jobs"]
    assert len(demo) == 12
    client.delete(f"/api/jobs/{demo[0]['id']}")
    assert client.get("/api/jobs").json()["count"] == 11
    # another browser sees the shop's own data meanwhile
    looks = client.cookies.get("kelbrast-look")
    client.cookies.clear()
    assert client.get("/api/jobs").json()["jobs"] == []
    client.cookies.set("kelbrast-look", "something else")
    assert client.get("/api/jobs").json()["jobs"] == []
    client.cookies.set("kelbrast-look", looks)
    assert client.delete("/api/demo").status_code == 204
    client.cookies.clear()
    assert client.get("/api/jobs").json()["jobs"] == []
    assert client.app.state.jobs.search()[1] == []
    client.put("/api/demo")
    assert client.get("/api/jobs").json()["count"] == 12  # as when it was new
    client.delete("/api/demo")
