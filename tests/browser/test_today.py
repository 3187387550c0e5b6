"""The day and the price: a board that is improved and moved, followed at two benches to its end; orders, quotes, own operations."""

import json
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect

from ahead import Ahead
from conftest import EXAMPLES
from kelbrast.app.board import Boards
from kelbrast.app.runs import Runs
from kelbrast.exchange.day_file import WorkerFile
from kelbrast.exchange.read import check_job_file
from kelbrast.exchange.shop_file import ShopFile


def order(served, name: str, **more: object) -> int:
    document = json.loads(next(EXAMPLES.glob(f"*{name}.job.json")).read_text())
    return served.jobs.add(check_job_file({**document, "state": "ordered", **more})).id


@pytest.fixture
def shop(empty):
    """Two people around the clock, so that the board is the same at every hour at which this runs."""
    people = [WorkerFile(name=name, begins="00:00", ends="24:00", breaks=[]) for name in ("Ada", "Ben")]
    Boards(empty.jobs).change_shop(ShopFile(people=people))
    return empty


def test_the_board_is_improved_moved_and_asked(page: Page, shop) -> None:
    order(shop, "clock-housing", due="2030-01-01T12:00:00")
    order(shop, "barometer-lens")
    page.goto(f"{shop.address}/today")
    expect(page.get_by_role("listitem", name="Ada", exact=True)).to_be_visible()
    page.keyboard.press("o")
    expect(page.get_by_text("Nothing is better by")).to_contain_text("changes", timeout=60_000)
    stop = page.get_by_role("button", name="Stop looking")
    if stop.is_visible():
        stop.click()
    work = page.get_by_role("listitem", name="Ben", exact=True).get_by_role("button").last
    work.click()
    panel = page.get_by_role("region", name="Block")
    panel.get_by_role("button", name="Keep it here").click()
    expect(panel.get_by_role("button", name="Let it go")).to_be_visible()
    panel.get_by_role("button", name="If it went first?").click()
    expect(panel.get_by_role("status")).to_be_visible()
    panel.get_by_role("button", name="Let it go").click()
    expect(panel.get_by_role("button", name="Keep it here")).to_be_visible()
    page.keyboard.press("s")
    sheet = page.get_by_role("dialog")
    sheet.get_by_label("Away").nth(1).check()
    page.keyboard.press("Escape")
    expect(page.get_by_role("listitem", name="Ben", exact=True)).to_have_count(0)
    with page.expect_download() as download:
        page.get_by_role("link", name="Calendar").click()
    assert "BEGIN:VEVENT" in Path(download.value.path()).read_text()


def test_a_block_is_dragged_and_moved_by_keys(page: Page, shop) -> None:
    order(shop, "barometer-lens")
    page.goto(f"{shop.address}/today")
    last = page.locator(".board .block:not(.wait):not(.change)").last
    expect(last).to_be_visible()
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
    expect(put).to_be_visible()
    before = put.get_attribute("aria-label")
    put.focus()
    page.keyboard.press("ArrowRight")
    expect(page.get_by_role("button", name="put there").first).not_to_have_attribute("aria-label", before or "")


def operations(page: Page, when: str) -> None:
    """Everything around the work that is due now, by its sheet."""
    page.keyboard.press("t")
    sheet = page.get_by_role("dialog")
    rows = sheet.get_by_role("listitem").filter(has_text=when)
    for at in range(rows.count()):
        for name in ("Done", "Passed"):
            button = rows.nth(at).get_by_role("button", name=name, exact=True)
            if button.count():
                button.click()
                expect(button).to_have_count(0)
    page.keyboard.press("Escape")
    expect(sheet).to_have_count(0)


def seen(page: Page) -> str:
    return page.locator(".bench").get_attribute("data-seen") or ""


def press(page: Page, key: str) -> None:
    before = seen(page)
    page.keyboard.press(key)
    expect(page.locator(f'.bench[data-seen="{before}"]')).to_have_count(0)


def test_the_day_is_followed_at_two_benches_with_a_late_step_and_a_way_back(
    page: Page, browser: Browser, shop, ahead: Ahead
) -> None:
    trial = {"label": "Run water over it", "when": "after", "minutes": 2.0, "check": "It runs off in one sheet"}
    ids = [order(shop, "barometer-lens", own_operations=[trial]), order(shop, "fog-gauge-window", pieces=1)]
    other = browser.new_context(viewport={"width": 1024, "height": 768}).new_page()
    benches = [page, other]
    runs = Runs(shop.jobs)
    for bench, job_id in zip(benches, ids, strict=True):
        bench.goto(f"{shop.address}/jobs/{job_id}")
        bench.get_by_role("button", name="To the bench").click()
        expect(bench.locator(".bench")).to_be_visible()
        operations(bench, "Before")
    board = browser.new_context().new_page()
    board.goto(f"{shop.address}/today")
    expect(board.get_by_role("region", name="What next")).to_contain_text("Ada")
    blocks = board.locator(".board .block").count()
    ends = board.get_by_test_id("ends")
    planned = ends.inner_text()
    press(other, "Space")
    ahead.by += 50 * 60  # planned for a few minutes
    expect(ends).not_to_have_text(planned)
    press(other, "Space")
    went_back = False
    for _ in range(60):
        open_still = [
            bench for bench in benches if bench.get_by_role("group", name="Answers").count() and bench.locator(".bench").count()
        ]
        if not open_still:
            break
        for bench in open_still:
            press(bench, "Space")
            if not went_back and bench is page and "step 2 of" in bench.get_by_role("region", name="Step in hand").inner_text():
                went_back = True
                bench.keyboard.press("g")
                sheet = bench.get_by_role("dialog")
                before = seen(bench)
                sheet.get_by_role("button", name="Go back").last.click()
                expect(bench.locator(f'.bench[data-seen="{before}"]')).to_have_count(0)
            else:
                press(bench, "Space")
    assert went_back
    for bench in benches:
        operations(bench, "After")
    expect(board.locator(".board .block")).not_to_have_count(blocks, timeout=30_000)
    for bench in benches:
        bench.get_by_role("button", name="As wanted", exact=True).click()
        expect(bench.get_by_role("link", name="To the log of this run")).to_be_visible()
    assert [one.kept_state for one in shop.jobs.summaries()] == ["done", "done"]
    assert runs.open() == []
    board.reload()
    expect(board.get_by_role("alert")).to_contain_text("o job is ordered")


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
    expect(sheet.get_by_label("As kept for such parts")).to_be_visible()
    page.keyboard.press("Escape")
    expect(sheet).to_have_count(0)
    expect(page.get_by_text("Kept", exact=True)).to_be_visible()
    page.keyboard.press("q")
    prices = page.get_by_role("table", name="Prices")
    expect(prices.get_by_role("row")).to_have_count(5)
    page.get_by_label("Numbers of pieces").fill("11")
    expect(prices.get_by_role("row")).to_have_count(2)
    expect(page.get_by_role("region", name="What would make it less")).to_contain_text("Bright")
    page.get_by_role("button", name="Keep this quote").click()
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
    expect(page.get_by_text("No job is like that.")).to_be_visible()
    page.get_by_label("Find by title").fill("harbour")
    row.get_by_role("checkbox").check()
    page.get_by_role("button", name="To the day").click()
    expect(page.get_by_role("region", name="What next")).to_contain_text("Door plates")
