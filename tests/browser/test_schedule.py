"""The day and the price: a board that is improved and moved, orders, quotes, own operations."""

import io
import json
import re
from datetime import datetime
from pathlib import Path

import pytest
from PIL import Image
from playwright.sync_api import Locator, Page, expect

from ahead import Ahead
from conftest import EXAMPLES
from kelbrast.app.board import Boards
from kelbrast.documents.day.format import ShopFile, WorkerFile
from kelbrast.documents.job.read import check_job_file
from screen import appears, job_row, option, put_away, saved


def logo() -> bytes:
    out = io.BytesIO()
    Image.new("RGBA", (120, 40), (0, 0, 90, 0)).save(out, "PNG")
    return out.getvalue()


def lane(page: Page, name: str) -> Locator:
    """The column of a person on the board."""
    return page.get_by_role("list", name=name, exact=True)


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
    page.goto(f"{shop.address}/schedule")
    appears(lane(page, "Ada"))
    board = page.get_by_role("region", name="Board")
    board.focus()
    expect(board).to_be_focused()  # so that keys scroll it, also when it has no block
    page.keyboard.press("o")
    expect(page.get_by_text("looking for a better order")).to_have_count(0, timeout=60_000)
    work = lane(page, "Ben").get_by_role("button").last
    work.click()
    panel = page.get_by_role("region", name="Block")
    panel.get_by_role("button", name="Keep here").click()
    appears(panel.get_by_role("button", name="Let it move"))
    panel.get_by_role("button", name="What if it went first?").click()
    appears(panel.get_by_role("status"))
    panel.get_by_role("button", name="Let it move").click()
    appears(panel.get_by_role("button", name="Keep here"))
    page.keyboard.press("s")
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("Away").nth(1).check()
    page.keyboard.press("Escape")
    expect(lane(page, "Ben")).to_have_count(0)
    with page.expect_download() as download:
        option(page, "Calendar")
    assert "BEGIN:VEVENT" in Path(download.value.path()).read_text()

    morning.by += 12 * 3600  # everybody went home
    page.reload()
    appears(page.get_by_text(re.compile(r"Nothing is left for this day\. Work goes on \w{3} \d+ 08:00\.")))
    expect(page.locator(".board .block")).to_have_count(0)
    expect(page.get_by_role("region", name="Now and next")).to_contain_text("08:00")
    page.goto(f"{shop.address}/bench")
    expect(page.get_by_role("region", name="What next")).to_contain_text("08:00")
    page.go_back()
    page.get_by_role("button", name="Show it").click()
    appears(page.locator(".board .block").first)
    expect(page.get_by_text("Nothing is left for this day")).to_have_count(0)


def test_a_block_is_dragged_and_moved_by_keys(page: Page, shop) -> None:
    order(shop, "barometer-lens")
    page.goto(f"{shop.address}/schedule")
    appears(page.locator(".board .block").first)
    block = page.locator(".board .block").last
    box = block.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + 10)
    page.mouse.down()
    page.mouse.move(box["x"] + box["width"] / 2, box["y"] + 70, steps=4)
    page.mouse.up()
    put = page.get_by_role("button", name="kept here").first
    appears(put)
    before = put.inner_text()
    put.focus()
    page.keyboard.press("ArrowDown")
    expect(page.get_by_role("button", name="kept here").first).not_to_have_text(before)


def test_a_quote_for_a_part_of_ones_own(page: Page, empty) -> None:
    page.goto(empty.address)
    page.get_by_role("button", name="Describe the first part").click()
    page.get_by_label("Title of the job").fill("Door plates")
    page.get_by_role("button", name="What finish?").click()
    page.get_by_label("Finish", exact=True).select_option("mirror")
    page.get_by_role("button", name="Show the plan").click()
    page.get_by_label("Title of the job").blur()
    page.keyboard.press("o")
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("Customer").fill("Harbour office")
    sheet.get_by_label("Promised for").fill("2030-05-02T12:00")
    sheet.get_by_role("button", name="Add an operation").click()
    sheet.get_by_label("What", exact=True).fill("Put it back")
    sheet.get_by_label("Check, to pass or fail").fill("It sits flush")
    sheet.get_by_label("Save these for the next, as").fill("Plates")
    sheet.get_by_role("button", name="Keep", exact=True).click()
    appears(sheet.get_by_label("Saved for such parts"))
    page.keyboard.press("Escape")
    expect(sheet).to_have_count(0)
    saved(page)
    page.keyboard.press("q")
    prices = page.get_by_role("table", name="Prices")
    expect(prices.get_by_role("row")).to_have_count(4)
    page.get_by_label("Pieces to quote").fill("11")
    expect(prices.get_by_role("row")).to_have_count(3)  # and the number that is ordered
    letter = page.get_by_role("article", name="The customer's page")
    letter.get_by_role("button", name="Shop details").click()
    shop = page.get_by_role("dialog", name="Shop details")
    shop.get_by_label("Name of the shop").fill("Harbour Polishing")
    shop.get_by_label("Tax, %").fill("20")
    shop.get_by_label("Logo").set_input_files({"name": "logo.png", "mimeType": "image/png", "buffer": logo()})
    put_away(page)
    expect(letter).to_contain_text("Harbour Polishing")
    expect(letter.locator("img")).to_be_visible()
    total = letter.get_by_label("Total")
    expect(total).to_contain_text("VAT 20 %")
    letter.get_by_role("button", name="Customer").click()
    page.get_by_label("Address").fill("Quay 1\nSkerry")
    page.get_by_label("Address").blur()
    page.keyboard.press("Escape")
    expect(letter).to_contain_text("Quay 1")
    for inner in ("hands-on", "Margin", "abrasives", "saves"):
        expect(letter).not_to_contain_text(inner)
    expect(page.get_by_role("region", name="What would make it less")).to_contain_text("Satin")
    with page.expect_popup() as opened:
        page.get_by_role("button", name="Save and print").click()
    opened.value.close()
    saved_quotes = page.get_by_role("region", name="Saved quotes")
    expect(saved_quotes).to_contain_text("Q-0001")
    expect(saved_quotes).to_contain_text("11 for")
    address = saved_quotes.get_by_role("link").get_attribute("href")
    assert page.request.get(f"{empty.address}{address}").body().startswith(b"%PDF")
    page.get_by_role("link", name="Jobs", exact=True).first.click()
    row = job_row(page, "Door plates")
    expect(row).to_contain_text("Quoted")
    expect(row).to_contain_text("Harbour office")
    page.get_by_role("searchbox").fill("nothing like it")
    appears(page.get_by_text("No job is like that."))
    page.get_by_role("searchbox").fill("harbour")
    page.get_by_role("heading", name="Jobs").click()
    page.keyboard.press("s")
    row.get_by_role("checkbox").check()
    page.get_by_role("button", name="Put on the schedule").click()
    expect(page.get_by_role("region", name="Promises", exact=True)).to_contain_text("Door plates")


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
    page.goto(f"{shop.address}/schedule")
    promised = page.get_by_role("list", name="Jobs of the schedule")
    expect(promised.get_by_role("listitem")).to_have_count(len(numbers))
    page.keyboard.press("i")
    sheet = page.get_by_role("dialog", name="Someone is ill")
    sheet.get_by_label("Which").select_option("Ada")
    expect(sheet.get_by_role("status")).to_contain_text("late")
    expect(sheet.get_by_role("status")).to_contain_text("promised")
    sheet.get_by_role("button", name="Plan around it").click()
    expect(sheet).to_be_hidden()
    happened = page.get_by_role("list", name="Happened today")
    expect(happened).to_contain_text("Ada is away")
    expect(lane(page, "Ada").get_by_role("button")).to_have_count(0)
    page.keyboard.press("j")
    sheet = page.get_by_role("dialog", name="Urgent job")
    sheet.get_by_label("Which").select_option("Fog gauge window")
    sheet.get_by_role("button", name="Plan around it").click()
    expect(happened.get_by_role("listitem")).to_have_count(2)
    told = page.get_by_role("region", name="Promises in danger").get_by_role("status")
    expect(told).to_contain_text("promised for", timeout=60_000)
    happened.get_by_role("button", name="Undo").first.click()
    expect(happened).not_to_contain_text("Ada is away")
    appears(lane(page, "Ada").get_by_role("button").first)
