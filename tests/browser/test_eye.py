"""The eye through the real interface, with rendered photos: on a tablet and on a phone held upright."""

import math
from collections.abc import Iterator
from dataclasses import replace
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect

from kelbrast.app.runs import Runs
from photographing import Face, Shot, both, messenger
from screen import appears, findings_in_both_themes, open_job

FACE = Face(before="P120", own="P240", share=0.6, lay=math.radians(20))
ALONG = Shot(lamp=FACE.lay, pixels=(448, 1344), um=9.0, seed=96_001)
ACROSS = replace(ALONG, lamp=FACE.lay + math.pi / 2)
WIDE_MM = f"{1344 * 9e-3:.3f}"
SIZES = {"tablet": {"width": 1024, "height": 768}, "phone": {"width": 390, "height": 844}}


@pytest.fixture(scope="module")
def photos(tmp_path_factory: pytest.TempPathFactory) -> dict[str, tuple[Path, Path]]:
    """The lamp across, and along."""
    folder = tmp_path_factory.mktemp("photos")
    stopped, clean = (both(replace(FACE, share=share), ACROSS, ALONG)[:2] for share in (0.6, 1.0))
    sets = {
        "stopped": stopped,
        "clean": clean,
        "messenger": (stopped[0], messenger(stopped[1])),
        "one twice": (stopped[0],) * 2,
    }
    found = {}
    for name, pair in sets.items():
        found[name] = tuple(folder / f"{name}-{at}.jpg" for at in (1, 2))
        for path, data in zip(found[name], pair, strict=True):
            path.write_bytes(data)
    return found


def take(page: Page, photo: Path) -> None:
    page.get_by_label("Photo from a file").set_input_files(photo)


def confirm_the_lay(page: Page, photo: Path) -> None:
    """The first photo, and the line that was found on it."""
    appears(page.get_by_text("Photo 1: the lamp across the new marks"))
    wide = page.get_by_label("Width of the picture", exact=True)
    wide.fill(WIDE_MM)
    wide.press("Tab")
    expect(page.get_by_role("status").first).to_contain_text(
        "With 12 mm of the face across the picture, the camera shows marks of P2000 and coarser"
    )
    take(page, photo)
    line = page.get_by_role("slider", name="Line along the new marks")
    expect(line).to_have_attribute("aria-valuetext", "20 degrees", timeout=30_000)
    page.get_by_role("button", name="Yes, it lies along them").click()
    appears(page.get_by_text("Photo 2: the lamp along the new marks"))


def told(page: Page) -> str:
    answer = page.get_by_role("region", name="What the eye saw")
    answer.wait_for(timeout=60_000)
    return answer.inner_text()


@pytest.fixture
def at_work(browser: Browser, workshop, request: pytest.FixtureRequest) -> Iterator[Page]:
    """A device at the bench, in the middle of a step, with the eye asked for."""
    context = browser.new_context(
        viewport=SIZES[request.param], has_touch=True, reduced_motion="reduce", service_workers="block"
    )
    page = context.new_page()
    open_job(page, workshop, "Galley top")
    page.keyboard.press("b")
    page.get_by_role("button", name="Start this step").click()
    appears(page.get_by_role("button", name="Old marks gone"))
    page.keyboard.press("e")
    yield page
    context.close()


@pytest.mark.parametrize("at_work", ["tablet"], indirect=True)
def test_a_clean_face_passes_and_what_it_can_not_judge_is_said_with_the_way_out(at_work: Page, photos) -> None:
    page = at_work
    confirm_the_lay(page, photos["clean"][0])
    take(page, photos["messenger"][1])
    assert "compressed, as messengers" in told(page)
    page.get_by_role("button", name="Photo 2 again").click()
    take(page, photos["one twice"][1])
    assert "On photo 2 the new marks show as on photo 1" in told(page)
    page.get_by_role("button", name="Photo 2 again").click()
    take(page, photos["clean"][1])
    said = told(page)
    assert said.startswith("None seen")
    assert "Your lamp and your eye decide" in said
    assert "What it cannot see" in said
    page.get_by_role("button", name="My eye decides").click()
    appears(page.get_by_role("button", name="Old marks gone"))


@pytest.mark.parametrize("at_work", ["phone"], indirect=True)
def test_old_marks_are_shown_kept_with_the_run_and_lead_to_the_ways_back(at_work: Page, workshop, photos) -> None:
    page, run = at_work, int(at_work.url.rsplit("/", 1)[1])
    confirm_the_lay(page, photos["stopped"][0])
    take(page, photos["stopped"][1])
    assert told(page).startswith("Seen")
    marks = page.get_by_role("img", name="Where old marks lie")
    appears(marks)
    assert findings_in_both_themes(page) == []
    page.get_by_role("button", name="Hide the marks").click()
    expect(marks).to_have_count(0)
    page.get_by_role("button", name="Keep the photo with the run").click()
    appears(page.get_by_role("button", name="Saved with the run"))
    kept = Runs(workshop.jobs).get(run).events[-1]
    assert (kept.kind, kept.words.startswith("The eye: Old marks are seen")) == ("photo", True)
    page.get_by_role("dialog").get_by_role("button", name="Found a deep one").click()
    appears(page.get_by_role("dialog").get_by_role("button", name="Go back").last)  # one tap to the ways back


def test_where_it_cannot_help_it_says_so_before_any_photo(page: Page, workshop) -> None:
    open_job(page, workshop, "Fog gauge window")
    page.keyboard.press("b")
    appears(page.get_by_role("button", name="Start this step"))
    page.keyboard.press("e")
    dialog = page.get_by_role("dialog")
    expect(dialog).to_contain_text("the eye tells old marks from new ones by theirs")
    expect(dialog.locator("input[type=file]")).to_have_count(0)
    dialog.get_by_role("button", name="My eye decides").click()
    appears(page.get_by_role("button", name="Start this step"))


def test_the_live_picture_is_measured_and_a_lay_that_was_found_wrong_is_turned(
    browser_type, browser_type_launch_args, workshop, photos
) -> None:
    camera = ["--use-fake-device-for-media-stream", "--use-fake-ui-for-media-stream"]
    browser = browser_type.launch(**{**browser_type_launch_args, "args": [*browser_type_launch_args["args"], *camera]})
    context = browser.new_context(
        viewport=SIZES["tablet"], permissions=["camera"], service_workers="block", reduced_motion="reduce"
    )
    page = context.new_page()
    page.goto(f"{workshop.address}/light?show=eye")
    appears(page.get_by_role("img", name="The lamp stands across the new marks"))
    live = page.locator("dl", has_text="Sharp, of the sharpest yet")
    expect(live).to_contain_text("µm")
    expect(live).to_contain_text("%")
    keep = page.get_by_role("button", name="Keep focus and exposure")
    keep.click()
    expect(keep).to_have_attribute("aria-pressed", "true")
    page.get_by_role("button", name="Take it", exact=True).click()
    said = page.get_by_role("region", name="How the new marks run")
    appears(said)  # a test picture is no face, and it may or may not look like one
    page.get_by_role("button", name="Take it again").click()
    page.get_by_label("Width of the picture", exact=True).fill(WIDE_MM)
    take(page, photos["stopped"][0])
    line = page.get_by_role("slider", name="Line along the new marks")
    expect(line).to_have_attribute("aria-valuetext", "20 degrees", timeout=30_000)
    box = line.bounding_box()
    page.mouse.move(box["x"] + box["width"] / 2 + 40, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] / 2 + 40, box["y"] + box["height"] / 2 - 40, steps=4)
    page.mouse.up()
    expect(line).to_have_attribute("aria-valuetext", "45 degrees")
    assert findings_in_both_themes(page) == []
    page.get_by_role("button", name="Yes, it lies along them").click()
    take(page, photos["stopped"][1])
    assert "the marks run another way than the line says" in told(page)
    browser.close()


def test_who_was_right_is_told_in_the_log(page: Page, workshop) -> None:
    page.goto(f"{workshop.address}/log?show=learnt")
    expect(page.get_by_role("region", name="Who was right at light checks")).to_contain_text("Nothing to compare yet")
