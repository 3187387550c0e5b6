"""The part on a photo in the real browser: scale, slant, outlines, damage; the areas in the job, and the bench shows where to work."""

import io
import json
import re
from pathlib import Path

import pytest
from PIL import Image, ImageDraw
from playwright.sync_api import Page, expect

from conftest import EXAMPLES
from kelbrast.app.runs import Runs
from kelbrast.documents.job.read import check_job_file
from screen import appears, findings, option

# A drawn sheet of A4 and a plate beside it, seen square on: two pixels a millimetre.
SHEET = [(100, 100), (520, 100), (520, 694), (100, 694)]
PLATE = [(700, 200), (1100, 200), (1100, 500), (700, 500)]  # 200 x 150 mm
HOLES = [(740, 240), (1060, 460)]


def drawn(path: Path, *, by: int = 0) -> Path:
    picture = Image.new("RGB", (1300, 800), (92, 84, 74))
    pen = ImageDraw.Draw(picture)
    pen.polygon([(x + by, y) for x, y in SHEET], fill=(240, 238, 232))
    pen.polygon([(x + by, y) for x, y in PLATE], fill=(196, 160, 84))
    for x, y in HOLES:
        pen.ellipse([x + by - 8, y - 8, x + by + 8, y + 8], fill=(50, 44, 40))
    out = io.BytesIO()
    picture.save(out, "PNG")
    path.write_bytes(out.getvalue())
    return path


def picked(page: Page, label: str, file: Path) -> None:
    """A file is chosen once the page takes one: not while it is still reading what there is."""
    field = page.get_by_label(label)
    expect(field).to_be_enabled()
    field.set_input_files(file)


def tap(page: Page, *points: tuple[float, float]) -> None:
    """On the picture, in its own pixels."""
    box = page.get_by_role("img", name="The part with what is drawn on it").bounding_box()
    assert box is not None
    scale = min(box["width"] / 1300, box["height"] / 800)
    left, top = box["x"] + (box["width"] - 1300 * scale) / 2, box["y"] + (box["height"] - 800 * scale) / 2
    for x, y in points:
        page.mouse.click(left + x * scale, top + y * scale)


def drag(page: Page, start: tuple[float, float], end: tuple[float, float]) -> None:
    """A point of the picture to another place, in its own pixels."""
    box = page.get_by_role("img", name="The part with what is drawn on it").bounding_box()
    assert box is not None
    scale = min(box["width"] / 1300, box["height"] / 800)
    left, top = box["x"] + (box["width"] - 1300 * scale) / 2, box["y"] + (box["height"] - 800 * scale) / 2
    page.mouse.move(left + start[0] * scale, top + start[1] * scale)
    page.mouse.down()
    page.mouse.move(left + end[0] * scale, top + end[1] * scale, steps=4)
    page.mouse.up()


def test_from_a_photo_to_the_areas_and_to_the_bench(page: Page, empty, tmp_path: Path) -> None:
    document = json.loads((EXAMPLES / "02-keepers-name-plates.job.json").read_text())
    job = empty.jobs.add(check_job_file({**document, "pieces": 1, "faces": document["faces"][:1]})).id
    page.goto(f"{empty.address}/jobs/{job}")
    option(page, "Photo of the part")
    appears(page.get_by_role("heading", name="No photo yet"))
    picked(page, "Photo before the work", drawn(tmp_path / "before.png"))
    page.get_by_role("button", name="Four corners").click()
    tap(page, *SHEET)
    appears(page.get_by_label("The outline is of"))  # the scale is known: faces are next
    tap(page, *PLATE)
    page.keyboard.press("f")
    row = page.get_by_role("table", name="Faces on the photo").get_by_role("row").last
    expect(row).to_contain_text("front")
    (photo,) = page.request.get(f"{empty.address}/api/jobs/{job}/photos").json()
    assert photo["areas"][0] == pytest.approx(300, rel=0.02)
    page.get_by_role("button", name="Mark damage").click()
    page.get_by_label("The damage is").select_option("gouges")
    tap(page, (800, 300), (900, 340))
    page.get_by_role("button", name="End the stroke").click()
    damage = page.get_by_role("region", name="Spots: Gouges")
    expect(damage).to_contain_text("mark 1")
    (gouges,) = empty.jobs.get(job).job.faces[0].spots
    assert gouges.length_mm == pytest.approx(53.9, rel=0.02)  # 100 and 40 pixels, two a millimetre
    damage.get_by_label("Likely depth").fill("90")
    damage.get_by_label("At worst").click()
    page.get_by_role("button", name="Move points").click()
    drag(page, (900, 340), (1000, 300))
    expect(damage).to_contain_text(re.compile(r"100 × 2 mm"))
    (gouges,) = empty.jobs.get(job).job.faces[0].spots
    assert (gouges.length_mm, gouges.depth_um.likely) == (pytest.approx(100, rel=0.02), 90)
    damage.get_by_role("checkbox").check()
    page.get_by_label("Put the 1 chosen into").select_option(label="a new kind on front")
    expect(page.get_by_label("Put the 1 chosen into")).to_have_count(0)
    assert findings(page) == []
    # an outline over itself is refused, and what was there stays
    page.get_by_role("button", name="Outline a face").click()
    tap(page, (700, 550), (900, 700), (900, 550), (700, 700))
    page.get_by_role("button", name="Close the outline").click()
    expect(page.get_by_role("alert")).to_contain_text("crosses itself")
    page.get_by_role("button", name="Remove mark 1 away").click()
    expect(damage).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(damage).to_contain_text("Gouges")
    page.get_by_role("button", name="Use these areas in the job").click()
    appears(page.get_by_text("The areas are those of the faces now."))
    face = empty.jobs.get(job).job.faces[0]
    assert face.area_cm2 == pytest.approx(300, rel=0.02)
    run = Runs(empty.jobs).begin(job)
    page.goto(f"{empty.address}/bench/{run.id}")
    appears(page.get_by_role("button", name="Start this step"))
    page.keyboard.press("h")  # where there is little room it stands with the rest of the step
    where = page.get_by_role("dialog").get_by_role("img", name="The part on its photo: work at front now")
    appears(where)
    expect(where.locator("polygon[data-face=front]")).to_have_count(1)


def test_before_and_after_lie_over_each_other_and_points_are_set_by_keys(page: Page, empty, tmp_path: Path) -> None:
    job = empty.jobs.add(check_job_file(json.loads((EXAMPLES / "04-barometer-lens.job.json").read_text()))).id
    page.goto(f"{empty.address}/jobs/{job}/photo")
    picked(page, "Photo before the work", drawn(tmp_path / "before.png"))
    page.get_by_role("button", name="Two points").click()
    tap(page, *HOLES)
    picked(page, "Photo after the work", drawn(tmp_path / "after.png", by=120))
    expect(page.get_by_role("group", name="Photos of this part").get_by_role("button")).to_have_count(2)
    page.get_by_role("button", name="Two points").click()
    tap(page, *[(x + 120, y) for x, y in HOLES])
    page.get_by_role("button", name="Before and after over each other").click()
    over = page.get_by_role("img", name="Before the work and after it, over each other").locator("image").last
    matrix = over.get_attribute("transform") or ""
    a, b, c, d, e, f = (float(one) for one in matrix.removeprefix("matrix(").removesuffix(")").split())
    assert (a, b, c, d) == pytest.approx((1, 0, 0, 1), abs=0.02)
    assert (e, f) == pytest.approx((-120, 0), abs=12)
    page.get_by_role("button", name="Before and after over each other").click()
    page.get_by_role("button", name="A known length").click()
    page.get_by_role("application").focus()
    for key in ("Enter", *["Shift+ArrowRight"] * 2, "Enter"):
        page.keyboard.press(key)
    appears(page.get_by_label("The outline is of"))
    photo = page.request.get(f"{empty.address}/api/jobs/{job}/photos").json()[1]
    assert photo["drawn"]["scale"]["ends"] == [[650, 400], [780, 400]]
