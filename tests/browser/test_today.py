"""The day and the price: a board that is improved and moved, orders, quotes, own operations."""

import json
from datetime import datetime
from pathlib import Path

import pytest
from playwright.sync_api import Page, expect

from ahead import Ahead
from conftest import EXAMPLES
from kelbrast.app.board import Boards
from kelbrast.documents.day.format import ShopFile, WorkerFile
from kelbrast.documents.job.read import check_job_file
from screen import appears


def order(served, name: str, **more: object) -> int:
    document = json.loads(next(EXAMPLES.glob(f"*{name}.job.json")).read_text())
    return served.jobs.add(check_job_file({**document, "state": "ordered", **more})).id


@pytest.fixture
def shop(empty, morning):
    """Two people at work from eight on."""
    people = [WorkerFile(name=name, begins="08:00", ends="17:00", breaks=[]) for name in ("Ada", "Ben")]
    Boards(empty.jobs).change_shop(ShopFile(people=people, welcomed=True))
    return empty


def test_the_board_is_improved_moved_asked_and_goes_on_tomorrow(page: Page, shop, morning: Ahead) -> None:
    order(shop, "clock-housing", due="2030-01-01T12:00:00")
    order(shop, "barometer-lens")
    page.goto(f"{shop.address}/today")
    appears(page.get_by_role("listitem", name="Ada", exact=True))
    board = page.get_by_role("region", name="Board")
    board.focus()
    expect(board).to_be_focused()  # so that keys scroll it, also when it has no block
    page.keyboard.press("o")
    expect(page.get_by_text("Nothing is better by")).to_contain_text("changes", timeout=60_000)
    stop = page.get_by_role("button", name="Stop looking")
    if stop.is_visible():
        stop.click()
    work = page.get_by_role("listitem", name="Ben", exact=True).get_by_role("button").last
    work.click()
    panel = page.get_by_role("region", name="Block")
    panel.get_by_role("button", name="Keep it here").click()
    appears(panel.get_by_role("button", name="Let it go"))
    panel.get_by_role("button", name="If it went first?").click()
    appears(panel.get_by_role("status"))
    panel.get_by_role("button", name="Let it go").click()
    appears(panel.get_by_role("button", name="Keep it here"))
    page.keyboard.press("s")
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("Away").nth(1).check()
    page.keyboard.press("Escape")
    expect(page.get_by_role("listitem", name="Ben", exact=True)).to_have_count(0)
    with page.expect_download() as download:
        page.get_by_role("link", name="Calendar").click()
    assert "BEGIN:VEVENT" in Path(download.value.path()).read_text()

    morning.by += 12 * 3600  # everybody went home
    page.reload()
    appears(page.get_by_text("Nothing is left for this day. Work goes on: day 2, 08:00."))
    expect(page.locator(".board .block")).to_have_count(0)
    expect(page.get_by_role("region", name="What next")).to_contain_text("day 2, 08:00")
    page.goto(f"{shop.address}/bench")
    expect(page.get_by_role("region", name="What next")).to_contain_text("day 2, 08:00")
    page.go_back()
    page.get_by_role("button", name="Show it").click()
    appears(page.locator(".board .block").first)
    expect(page.get_by_text("Nothing is left for this day")).to_have_count(0)


def test_a_block_is_dragged_and_moved_by_keys(page: Page, shop) -> None:
    order(shop, "barometer-lens")
    page.goto(f"{shop.address}/today")
    last = page.locator(".board .block:not(.wait):not(.change)").last
    appears(last)
    block = (
        page.get_by_role("listitem", name="Ada", exact=True)
        .or_(page.get_by_role("listitem", name="Ben", exact=True))
        .get_by_role("button")
        .last
    )
    name = block.get_attribute("aria-label")
    assert name is not None
    box = block.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + 10)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] / 2 + 90, box["y"] + 10, steps=4)
    page.mouse.up()
    put = page.get_by_role("button", name="put there").first
    appears(put)
    before = put.get_attribute("aria-label")
    put.focus()
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("button", name="put there").first).not_to_have_attribute("aria-label", before or "")


def test_a_quote_for_a_part_of_ones_own(page: Page, empty) -> None:
    page.goto(empty.address)
    page.get_by_role("button", name="Describe the first part").click()
    page.get_by_label("Title of the job").fill("Door plates")
    page.get_by_label("Wanted").select_option("mirror")
    page.get_by_label("Title of the job").blur()
    page.keyboard.press("o")
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("Customer").fill("Harbour office")
    sheet.get_by_label("Promised for").fill("2030-05-02T12:00")
    sheet.get_by_role("button", name="Add an operation").click()
    sheet.get_by_label("What", exact=True).fill("Put it back")
    sheet.get_by_label("Check, to pass or fail").fill("It sits flush")
    sheet.get_by_label("Keep these for the next, as").fill("Plates")
    sheet.get_by_role("button", name="Keep", exact=True).click()
    appears(sheet.get_by_label("As kept for such parts"))
    page.keyboard.press("Escape")
    expect(sheet).to_have_count(0)
    appears(page.get_by_text("Kept", exact=True))
    page.keyboard.press("q")
    prices = page.get_by_role("table", name="Prices")
    expect(prices.get_by_role("row")).to_have_count(5)
    page.get_by_label("Numbers of pieces").fill("11")
    expect(prices.get_by_role("row")).to_have_count(2)
    expect(page.get_by_role("region", name="What would make it less")).to_contain_text("Bright")
    page.get_by_role("button", name="Save quote").click()
    expect(page.get_by_role("list", name="Quotes that were kept")).to_contain_text("11 for")
    with page.expect_download() as download:
        page.get_by_role("link", name="For the customer, PDF").click()
    assert Path(download.value.path()).read_bytes().startswith(b"%PDF")
    page.keyboard.press("Escape")
    page.get_by_role("link", name="Jobs", exact=True).first.click()
    row = page.get_by_role("row").filter(has_text="Door plates")
    expect(row).to_contain_text("Quoted")
    expect(row).to_contain_text("Harbour office")
    page.get_by_label("Find by title").fill("nothing like it")
    appears(page.get_by_text("No job is like that."))
    page.get_by_label("Find by title").fill("harbour")
    row.get_by_role("checkbox").check()
    page.get_by_role("button", name="Put on the schedule").click()
    expect(page.get_by_role("region", name="What next")).to_contain_text("Door plates")


def test_the_owners_morning(page: Page, shop, morning: Ahead) -> None:
    """Six orders, one person ill, one urgent job: said first, then planned around, explained, and taken back."""
    due = {"due": datetime.fromtimestamp(morning.time()).replace(hour=10, minute=30, second=0, microsecond=0).isoformat()}
    names = (
        "clock-housing",
        "barometer-lens",
        "fog-gauge-window",
        "signal-lamp-cover",
        "keepers-name-plates",
        "tide-gauge-bush",
    )
    numbers = [order(shop, name, **due) for name in names]
    page.goto(f"{shop.address}/today")
    promised = page.get_by_role("list", name="Jobs of the schedule")
    expect(promised.get_by_role("listitem")).to_have_count(len(numbers))
    page.keyboard.press("h")
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("Which").select_option("Ada")
    expect(sheet.get_by_role("status")).to_contain_text("late")
    expect(sheet.get_by_role("status")).to_contain_text("promised")
    sheet.get_by_role("button", name="Plan around it").click()
    expect(sheet).to_be_hidden()
    happened = page.get_by_role("list", name="Happened today")
    expect(happened).to_contain_text("Ada is away")
    expect(page.get_by_role("listitem", name="Ada", exact=True).get_by_role("button")).to_have_count(0)
    page.keyboard.press("h")
    sheet.get_by_label("What").select_option("A job is urgent")
    sheet.get_by_label("Which").select_option("Fog gauge window")
    sheet.get_by_role("button", name="Plan around it").click()
    expect(happened.get_by_role("listitem")).to_have_count(2)
    late = promised.get_by_role("button", name="Why?").first
    late.click()
    told = promised.get_by_role("status")
    expect(told).to_contain_text("promised for", timeout=60_000)
    happened.get_by_role("button", name="Take back").first.click()
    expect(happened).not_to_contain_text("Ada is away")
    appears(page.get_by_role("listitem", name="Ada", exact=True).get_by_role("button").first)
