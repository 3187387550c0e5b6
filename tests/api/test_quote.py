"""The quote's page for the customer: what stands on it, what never does, and its number."""

import io
import json
from typing import Any

import pytest
from fastapi.testclient import TestClient
from PIL import Image

from conftest import EXAMPLES

INNER = ("hands_on", "abrasives", "margin", "drives", "humbler", "hour", "allow", "price_high")


@pytest.fixture
def shop(client: TestClient) -> TestClient:
    head = {"name": "Harbour Polishing", "address": "Quay 1\nSkerry", "tax": 0.2, "terms": "Within 14 days.\n\nNo transport."}
    file = client.get("/api/shop").json()
    assert client.put("/api/shop", json={**file, "letterhead": head}).status_code == 200
    return client


def job(client: TestClient, name: str, **more: Any) -> int:
    document = json.loads(next(EXAMPLES.glob(f"*{name}.job.json")).read_text())
    return int(client.post("/api/jobs", json={**document, **more}).json()["id"])


def test_what_comes_in_what_goes_out_and_what_it_costs(shop: TestClient) -> None:
    plates = job(shop, "keepers-name-plates", customer="Museum", customer_address="Hill 2", due="2027-02-03T12:00:00")
    quote = shop.get(f"/api/jobs/{plates}/quote", params={"pieces": [1, 20]}).json()
    page = quote["page"]
    assert (page["number"], page["customer"], page["customer_address"]) == ("", "Museum", "Hill 2")
    assert page["ready_by"] == "Wed 3 February 2027, 12:00"
    front, edges = page["scope"]
    assert (front["size"], front["received"]) == ("140 × 45 mm", "pits, up to 35 µm deep")
    assert front["finish"].startswith("Bright: ")
    assert edges["finish"] == "Broken at 45°, 0.2 mm"
    assert page["protection"] == "lacquer, three thin coats"
    assert [(price["pieces"], price["ordered"]) for price in page["prices"]] == [(1, False), (11, True), (20, False)]
    eleven = page["prices"][1]["total"]
    assert (page["net"], page["tax_money"]) == (eleven, round(0.2 * eleven, 2))
    assert page["to_pay"] == round(page["net"] + page["tax_money"], 2)
    assert page["terms"][-2:] == ["Within 14 days.", "No transport."]
    assert "80 µm may come off front" in page["terms"][0]
    assert not [word for word in INNER if word in json.dumps(page)]
    inch = shop.get(f"/api/jobs/{plates}/quote", params={"inch": True}).json()["page"]
    assert inch["scope"][0]["size"].endswith(" in")
    assert "mm" not in json.dumps(inch["scope"])


def test_masked_faces_spots_and_limits_are_said(shop: TestClient) -> None:
    spots = [{"id": "g", "name": "Gouges", "kind": "nick", "count": 3, "length_mm": 80, "width_mm": 2, "depth_um": 200}]
    face = {"name": "top", "area_cm2": 900, "found": {"depth_um": {"likely": 5, "worst": 8}}, "spots": spots, "limit_um": 60}
    masked = {"name": "sign", "area_cm2": 20, "keep_off": True, "found": {"depth_um": 5}, "want": {"finish": "satin"}}
    made = shop.post(
        "/api/jobs",
        json={
            "kelbrast": "job/2",
            "title": "Chart table",
            "material": "stainless-304",
            "faces": [{**face, "want": {"finish": "brushed-fine"}}, masked],
        },
    ).json()
    page = shop.get(f"/api/jobs/{made['id']}/quote").json()["page"]
    top, sign = page["scope"]
    assert top["received"] == "scratches, up to 8 µm deep; 3 × gouges, up to 200 µm deep"
    assert sign["finish"] == "masked, not worked"
    assert any("Gouges on top stay as they are" in term for term in page["terms"])


def test_numbers_go_on_and_what_was_sent_stays(shop: TestClient) -> None:
    plates = job(shop, "keepers-name-plates")
    first = shop.post(f"/api/jobs/{plates}/quotes").json()
    assert first["quote"]["page"]["number"] == "Q-0001"
    file = shop.get("/api/shop").json()
    shop.put("/api/shop", json={**file, "hour": 96, "letterhead": {**file["letterhead"], "prefix": 'Ž"/', "tax": None}})
    collar = job(shop, "gallery-rail-collar")
    second = shop.post(f"/api/jobs/{collar}/quotes").json()
    assert second["quote"]["page"]["number"] == 'Ž"/0002'
    assert shop.get(f"/api/quotes/{second['id']}.pdf").content.startswith(b"%PDF")  # whatever stands before the number
    assert second["quote"]["page"]["tax"] is None
    assert second["quote"]["page"]["to_pay"] == second["quote"]["page"]["net"]
    shop.delete(f"/api/jobs/{collar}")  # its number is not given again
    assert shop.post(f"/api/jobs/{plates}/quotes").json()["quote"]["page"]["number"] == 'Ž"/0003'
    (kept,) = [one for one in shop.get(f"/api/jobs/{plates}/quotes").json() if one["id"] == first["id"]]
    assert kept["quote"]["page"] == first["quote"]["page"]
    for inner in (False, True):
        pdf = shop.get(f"/api/quotes/{first['id']}.pdf", params={"inner": inner})
        assert pdf.content.startswith(b"%PDF")
        assert pdf.headers["content-disposition"] == "inline; filename*=UTF-8''q-0001.pdf"
    assert shop.get("/api/quotes/9999.pdf").status_code == 404


def test_the_logo_is_a_picture_and_can_be_taken_away(shop: TestClient) -> None:
    plates = job(shop, "keepers-name-plates")
    assert shop.get("/api/shop/logo").status_code == 404
    out = io.BytesIO()
    Image.new("RGBA", (1400, 300), (0, 0, 0, 0)).save(out, "PNG")
    assert shop.put("/api/shop/logo", content=out.getvalue(), headers={"content-type": "image/png"}).status_code == 204
    with Image.open(io.BytesIO(shop.get("/api/shop/logo").content)) as logo:
        assert (logo.format, logo.width) == ("JPEG", 600)
        assert logo.getpixel((5, 5)) == (255, 255, 255)  # what was clear is white, as the page is
    assert shop.get(f"/api/jobs/{plates}/quote").json()["page"]["logo"]
    assert shop.get(f"/api/jobs/{plates}/quote.pdf").content.startswith(b"%PDF")
    saved = shop.post(f"/api/jobs/{plates}/quotes").json()
    sent = shop.get(f"/api/quotes/{saved['id']}.pdf").content
    bad = shop.put("/api/shop/logo", content=b"GIF89a", headers={"content-type": "image/png"})
    assert bad.status_code == 422
    assert shop.delete("/api/shop/logo").status_code == 204
    assert shop.get("/api/shop/logo").status_code == 404
    again = shop.get(f"/api/quotes/{saved['id']}.pdf").content  # a quote keeps the picture that it was sent with
    assert sent.count(b"/Image") == again.count(b"/Image") > 0
    assert not shop.get(f"/api/jobs/{plates}/quote").json()["page"]["logo"]


def test_what_the_shop_sees_is_for_the_pieces_that_are_ordered(shop: TestClient) -> None:
    plates = job(shop, "keepers-name-plates")
    many = shop.get(f"/api/jobs/{plates}/quote", params={"pieces": [1, 11]}).json()
    own = shop.get(f"/api/jobs/{plates}/quote", params={"pieces": [11]}).json()
    for part in ("basis", "drives", "humbler", "looser_each"):
        assert many[part] == own[part], part
    assert many["basis"] == 11
    (each,) = [price["price_each"] for price in many["prices"] if price["pieces"] == 11]
    assert all(one["price_each"] <= 0.95 * each + 0.01 for one in many["humbler"])
    assert shop.get(f"/api/jobs/{plates}/quote", params={"pieces": [5]}).json()["basis"] == 5
