"""The day and the price over HTTP."""

import csv
import io
import json
from typing import Any

import pytest

from kelbrast.demo.workshop import EXAMPLES

LENS = {**json.loads((EXAMPLES / "04-barometer-lens.job.json").read_text()), "state": "ordered", "customer": "Weather station"}
HOUSING = {**json.loads((EXAMPLES / "06-clock-housing.job.json").read_text()), "state": "ordered"}
# Whatever the clock on the wall says, the day is long enough.
SHOP = {"people": [{"name": "Ada", "begins": "00:00", "ends": "24:00", "breaks": []}]}


@pytest.fixture
def ordered(client) -> Any:
    client.put("/api/shop", json=SHOP)
    for job in (LENS, HOUSING):
        assert client.post("/api/jobs", json=job).status_code == 201
    return client


def test_the_board_of_what_is_ordered(ordered) -> None:
    board = ordered.get("/api/day").json()
    assert {one["job"] for one in board["board"]["blocks"]} == {"Barometer lens", "Lamp clock housing"}
    assert {one["person"] for one in board["board"]["blocks"] if one["kind"] == "work"} == {"Ada"}
    assert board["board"]["first_come"]["changes"] >= board["board"]["changes"]


def test_without_orders_there_is_no_board(client) -> None:
    told = client.get("/api/day")
    assert told.status_code == 422
    assert "no job is ordered" in told.json()["faults"][0]["message"]


def test_looking_for_a_better_one_is_begun_and_stopped(ordered) -> None:
    assert ordered.post("/api/day/search", params={"seconds": 30}).status_code == 202
    assert ordered.delete("/api/day/search").status_code == 204
    assert ordered.post("/api/day/search", params={"seconds": 0}).status_code == 422


def test_a_block_is_put_somewhere_let_go_done_and_asked_about(ordered) -> None:
    board = ordered.get("/api/day").json()
    last = max((one for one in board["board"]["blocks"] if one["kind"] == "work"), key=lambda one: one["from_min"])
    moved = ordered.put(f"/api/day/pins/{last['key']}", json={"from_min": last["from_min"] + 30, "person": "Ada"}).json()
    assert next(one for one in moved["board"]["blocks"] if one["key"] == last["key"] and one["kind"] == "work")["fixed"]
    assert not any(one["fixed"] for one in ordered.delete(f"/api/day/pins/{last['key']}").json()["board"]["blocks"])
    first = min((one for one in board["board"]["blocks"] if one["kind"] == "work"), key=lambda one: one["from_min"])
    assert ordered.get(f"/api/day/first/{last['key']}").json()["now"] is not None
    assert first["key"] in ordered.post(f"/api/day/done/{first['key']}").json()["done"]
    assert ordered.get("/api/day/first/9999").status_code == 422
    assert ordered.put("/api/day/pins/9999", json={"from_min": 0}).status_code == 422


def test_the_board_as_calendar_and_table(ordered) -> None:
    calendar = ordered.get("/api/day.ics")
    assert calendar.headers["content-type"].startswith("text/calendar")
    lines = calendar.text.split("\r\n")
    assert (lines[0], lines[-2]) == ("BEGIN:VCALENDAR", "END:VCALENDAR")
    assert all(len(line.encode()) <= 75 for line in lines)
    blocks = ordered.get("/api/day").json()["board"]["blocks"]
    assert lines.count("BEGIN:VEVENT") == len(blocks)
    mine = ordered.get("/api/day.ics", params={"person": "Ada"}).text
    assert mine.count("BEGIN:VEVENT") == sum(block["person"] == "Ada" for block in blocks)
    rows = list(csv.DictReader(io.StringIO(ordered.get("/api/day.csv").text)))
    assert [row["label"] for row in rows] == [block["label"] for block in blocks]


def test_the_shop_says_who_is_there(client) -> None:
    shop = client.get("/api/shop").json()
    assert [one["name"] for one in shop["people"]] == ["One", "Two"]
    twice = {"people": [{"name": "Ada"}, {"name": "Ada"}]}
    assert client.put("/api/shop", json=twice).json()["faults"][0]["field"] == "people[1].name"
    late = {"people": [{"name": "Ada", "begins": "17:00", "ends": "9:00"}]}
    assert client.put("/api/shop", json=late).json()["faults"][0]["field"] == "people[0].ends"
    odd = {"people": [{"name": "Ada", "begins": "noon"}]}
    assert client.put("/api/shop", json=odd).status_code == 422
    assert client.put("/api/shop", json={"people": []}).status_code == 422
    assert client.put("/api/shop", json={**SHOP, "hour": 60.5}).json()["hour"] == 60.5


def test_a_quote_is_worked_out_kept_and_printed(ordered) -> None:
    job = ordered.get("/api/jobs").json()["jobs"][-1]
    quote = ordered.get(f"/api/jobs/{job['id']}/quote", params={"pieces": [1, 20]}).json()
    assert [one["pieces"] for one in quote["prices"]] == [1, 20]
    assert quote["prices"][1]["price_each"] < quote["prices"][0]["price_each"]
    assert sum(one["share"] for one in quote["drives"]) == pytest.approx(1, abs=0.001)
    usual = ordered.get(f"/api/jobs/{job['id']}/quote").json()
    assert {1, 5, 20, 100, job["pieces"]} == {one["pieces"] for one in usual["prices"]}
    told = ordered.get(f"/api/jobs/{job['id']}").json()["job"]
    assert {one["face"] for one in quote["offered"]} == {one["name"] for one in told["faces"] if not one.get("keep_off")}
    assert quote["material"]
    kept = ordered.post(f"/api/jobs/{job['id']}/quotes", params={"pieces": [1]})
    assert kept.status_code == 201
    (again,) = ordered.get(f"/api/jobs/{job['id']}/quotes").json()
    assert (again["quote"]["prices"], again["actual"]) == (kept.json()["quote"]["prices"], None)
    for inner in (False, True):
        page = ordered.get(f"/api/jobs/{job['id']}/quote.pdf", params={"inner": inner})
        assert page.content.startswith(b"%PDF")
    rows = list(csv.DictReader(io.StringIO(ordered.get("/api/quotes.csv").text)))
    assert [(row["title"], row["pieces"]) for row in rows] == [(job["title"], "1")]
    assert ordered.get("/api/jobs/9999/quote").status_code == 404
    assert ordered.get(f"/api/jobs/{job['id']}/quote", params={"pieces": 0}).status_code == 422


def test_own_operations_are_kept_as_a_template(client) -> None:
    trial = {"label": "Run water over it", "when": "after", "minutes": 5.0, "check": "It runs off in one sheet"}
    assert client.put("/api/templates/Windows", json={"operations": [trial]}).status_code == 204
    assert client.get("/api/templates").json()["Windows"][0]["check"] == "It runs off in one sheet"
    assert client.put("/api/templates/None", json={"operations": []}).status_code == 422
    assert client.delete("/api/templates/Windows").status_code == 204
    assert client.delete("/api/templates/Windows").status_code == 404


def test_a_job_says_customer_promise_state_and_its_own_operations(client) -> None:
    own = {"label": "Take it apart", "when": "before", "minutes": 10.0, "caution": "The spring is under load"}
    job = {**LENS, "due": "2026-11-30T16:00:00", "note": "mind the engraving", "own_operations": [own], "coats": 2}
    kept = client.post("/api/jobs", json=job).json()
    assert (kept["job"]["customer"], kept["job"]["due"], kept["job"]["coats"]) == ("Weather station", "2026-11-30T16:00:00", 2)
    (line,) = client.get("/api/jobs").json()["jobs"]
    assert (line["kept_state"], line["due"], line["note"]) == ("ordered", "2026-11-30T16:00:00", "mind the engraving")
    plan = client.get(f"/api/jobs/{kept['id']}/plan").json()
    mine = next(one for one in plan["operations"] if one["id"] == "own-1")
    assert (mine["label"], mine["minutes"], mine["cautions"]) == ("Take it apart", 10.0, ["The spring is under load"])
    assert client.post("/api/jobs", json={**LENS, "state": "lost"}).status_code == 422
    assert client.post("/api/jobs", json={**LENS, "due": "soon"}).status_code == 422
