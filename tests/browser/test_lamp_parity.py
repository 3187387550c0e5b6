"""The lamp on the screen and the still pictures are two implementations of one light: held together on fixed patches."""

import base64
import io

import numpy as np
import pytest
from PIL import Image
from playwright.sync_api import Page

from screen import appears

PATCHES = {
    "marks": {"after": "P80"},
    "worked": {"after": "P120", "then": "P400", "share": 1},
    "ripple": {"kind": "waviness", "depth_um": 60},
}


@pytest.mark.parametrize("asked", PATCHES.values(), ids=PATCHES)
@pytest.mark.parametrize("material", ["naval-brass", pytest.param("acrylic", marks=pytest.mark.soak)])
def test_the_same_patch_looks_the_same(page: Page, workshop, asked: dict, material: str) -> None:
    """Compared at one size in grey: the screen reads between the points, so fine grain may differ, what is seen may not."""
    fixed = {"kind": "scratches", **asked, "material": material, "seed": 7}
    page.route("**/api/light/patch", lambda route: route.continue_(post_data={**fixed, **_size(route.request.post_data_json)}))
    with page.expect_response("**/api/light/patch") as told:
        page.goto(f"{workshop.address}/light")
    key = told.value.json()["key"]
    canvas = page.locator("canvas").first
    appears(canvas)
    page.wait_for_load_state("networkidle")
    drawn = canvas.evaluate("(one) => new Promise((done) => requestAnimationFrame(() => done(one.toDataURL())))")
    on_screen = Image.open(io.BytesIO(base64.b64decode(drawn.split(",")[1]))).convert("RGB")
    still = Image.open(io.BytesIO(page.request.get(f"{workshop.address}/api/light/{key}.png").body())).convert("RGB")
    small = (60, 40)
    one, other = (np.asarray(picture.resize(small, Image.Resampling.BOX), dtype=float) for picture in (on_screen, still))
    assert abs(one - other).mean() < 3  # of 255
    assert np.corrcoef(one.ravel(), other.ravel())[0, 1] > 0.98


def _size(asked: dict) -> dict:
    return {key: asked[key] for key in ("rows", "columns", "spacing_um") if key in asked}
