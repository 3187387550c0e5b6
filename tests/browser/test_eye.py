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
SHOT = Shot(lamp=FACE.lay, pixels=(448, 448), um=9.0, seed=96_001)
WIDE_MM = f"{448 * 9e-3:.3f}"
SIZES = {"tablet": {"width": 1024, "height": 768}, "phone": {"width": 390, "height": 844}}


@pytest.fixture(scope="module")
def photos(tmp_path_factory: pytest.TempPathFactory) -> dict[str, tuple[Path, Path]]:
    folder = tmp_path_factory.mktemp("photos")
    across = replace(SHOT, lamp=FACE.lay + math.pi / 2)
    stopped, clean = (both(replace(FACE, share=share), SHOT, across)[:2] for share in (0.6, 1.0))
    sets = {
        "stopped": stopped,
        "clean": clean,
        "messenger": tuple(messenger(one) for one in stopped),
        "wrong lamp": (stopped[1], stopped[0]),
    }
    found = {}
    for name, pair in sets.items():
        found[name] = tuple(folder / f"{name}-{at}.jpg" for at in (1, 2))
        for path, data in zip(found[name], pair, strict=True):
            path.write_bytes(data)
    return found


def take(page: Page, pair: tuple[Path, Path]) -> None:
    """Both photos, the line turned onto the new marks, the width."""
    appears(page.get_by_text("Photo 1: the lamp along the new marks"))
    page.get_by_label("The camera’s own file").set_input_files(pair[0])
    appears(page.get_by_text("Photo 2: the lamp across the new marks"))
    page.get_by_label("The camera’s own file").set_input_files(pair[1])
    line = page.get_by_role("slider", name="Line along the new marks")
    line.focus()
    if line.get_attribute("aria-valuetext") == "0 degrees":  # it stays where it was turned
        page.keyboard.press("Shift+ArrowUp")
        page.keyboard.press("Shift+ArrowUp")
    expect(line).to_have_attribute("aria-valuetext", "20 degrees")
    wide = page.get_by_label("Width of the picture", exact=True)
    wide.fill(WIDE_MM)
    wide.press("Tab")


def ask(page: Page, pair: tuple[Path, Path]) -> str:
    take(page, pair)
    page.get_by_role("button", name="Ask the eye").last.click()
    told = page.get_by_role("region", name="What the eye saw")
    told.wait_for(timeout=60_000)
    return told.inner_text()


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
    assert "compressed, as messengers" in ask(page, photos["messenger"])
    page.get_by_role("button", name="Take them again").click()
    assert "Put the lamp along them" in (said := ask(page, photos["wrong lamp"])) or "no direction of the new marks" in said
    page.get_by_role("button", name="Take them again").click()
    said = ask(page, photos["clean"])
    assert said.startswith("None seen")
    assert "Your lamp and your eye decide" in said
    assert "What it cannot see" in said
    page.get_by_role("button", name="My eye decides").click()
    appears(page.get_by_role("button", name="Old marks gone"))


@pytest.mark.parametrize("at_work", ["phone"], indirect=True)
def test_old_marks_are_shown_kept_with_the_run_and_lead_to_the_ways_back(at_work: Page, workshop, photos) -> None:
    page, run = at_work, int(at_work.url.rsplit("/", 1)[1])
    assert ask(page, photos["stopped"]).startswith("Seen")
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


def test_the_live_picture_guides_and_the_line_is_turned_by_a_finger(browser_type, browser_type_launch_args, workshop) -> None:
    camera = ["--use-fake-device-for-media-stream", "--use-fake-ui-for-media-stream"]
    browser = browser_type.launch(**{**browser_type_launch_args, "args": [*browser_type_launch_args["args"], *camera]})
    context = browser.new_context(
        viewport=SIZES["tablet"], permissions=["camera"], service_workers="block", reduced_motion="reduce"
    )
    page = context.new_page()
    page.goto(f"{workshop.address}/light?show=eye")
    appears(page.get_by_role("img", name="The lamp stands along the new marks"))
    page.get_by_role("button", name="Take it").click()
    appears(page.get_by_role("img", name="The lamp stands across the new marks"))
    page.get_by_role("button", name="Take it").click()
    line = page.get_by_role("slider", name="Line along the new marks")
    ask_it = page.get_by_role("button", name="Ask the eye")
    expect(ask_it).to_be_disabled()  # until the line was turned
    box = line.bounding_box()
    page.mouse.move(box["x"] + box["width"] / 2 + 60, box["y"] + box["height"] / 2)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] / 2 + 60, box["y"] + box["height"] / 2 - 60, steps=4)
    page.mouse.up()
    expect(line).to_have_attribute("aria-valuetext", "45 degrees")
    ask_it.click()
    told = page.get_by_role("region", name="What the eye saw")
    expect(told).to_contain_text("It cannot say", timeout=60_000)  # a test picture is no face
    assert findings_in_both_themes(page) == []
    browser.close()


def test_who_was_right_is_told_in_the_log(page: Page, workshop) -> None:
    page.goto(f"{workshop.address}/log?show=learnt")
    expect(page.get_by_role("region", name="Who was right at light checks")).to_contain_text("Nothing to compare yet")
