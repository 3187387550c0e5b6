"""The bench in the real browser: a whole job with a failed check, a reload, a killed server and a second tablet."""

import io
import re
import time
from collections.abc import Iterator
from pathlib import Path

import pytest
from PIL import Image
from playwright.sync_api import Browser, Page, expect

from demo_workshop import demo_workshop
from kelbrast.app.log import Log
from kelbrast.app.runs import Runs
from killable import Server
from screen import appears, findings, open_job
from tapping import leave_out


@pytest.fixture
def killable(tmp_path: Path) -> Iterator[tuple[Server, Runs]]:
    jobs = demo_workshop(tmp_path / "demo.sqlite")
    server = Server(tmp_path / "demo.sqlite")
    server.jobs = jobs  # what open_job looks the job up in
    yield server, Runs(jobs)
    server.kill()


def start(page: Page) -> None:
    page.keyboard.press("Space")
    appears(page.get_by_role("button", name="Old marks gone"))


def seen(page: Page, runs: Runs) -> int:
    return runs.seen(run_of(page))


def run_of(page: Page) -> int:
    found = re.search(r"/bench/(\d+)", page.url)
    assert found is not None
    return int(found[1])


@pytest.mark.long
def test_a_whole_job_through_everything_that_can_happen(page: Page, browser: Browser, killable) -> None:
    server, runs = killable
    open_job(page, server, "Gallery rail collar")
    page.keyboard.press("b")
    appears(page.get_by_role("button", name="Start this step"))
    run = run_of(page)
    assert runs.get(run).run.layout.pieces == 4

    # the first step of the first piece, begun and found done
    start(page)
    page.wait_for_timeout(1200)
    page.keyboard.press("Space")
    appears(page.get_by_text("piece 2 of 4").first)

    # a reload in the middle of a step: the clock is where it was
    start(page)
    page.wait_for_timeout(1500)
    page.reload()
    appears(page.get_by_role("button", name="Old marks gone"))
    shown = page.locator("svg[role=img] text.time").text_content()
    minutes, seconds = shown.split(":")
    assert int(minutes) * 60 + int(seconds) >= 1

    # a second tablet sees a tap, and cannot contradict it silently
    context = browser.new_context(viewport={"width": 1024, "height": 768})
    second = context.new_page()
    second.goto(f"{server.address}/bench/{run}")
    appears(second.get_by_role("button", name="Still some, keep going"))
    page.keyboard.press("k")
    expect(page.get_by_role("button", name=re.compile("Undo"))).to_be_enabled()
    expect(second.locator("svg[role=img] text.under")).to_have_text(
        re.compile(r"^cutting, of \d+:\d\d$")
    )  # it asks every second
    before = seen(page, runs)
    second.route(f"**/api/runs/{run}?after=*", lambda route: route.abort())  # it sees nothing new for a while
    page.keyboard.press("p")
    appears(page.get_by_text("paused", exact=True))
    second.unroute(f"**/api/runs/{run}?after=*")
    second.route(f"**/api/runs/{run}?after=*", lambda route: route.abort())
    second.keyboard.press("k")
    appears(second.get_by_text("Another screen tapped first"))
    assert seen(page, runs) == before + 1  # the pause, and nothing of the second tablet
    context.close()

    # undo of the last tap
    page.keyboard.press("z")
    appears(page.get_by_text("Taken back: Paused"))

    # the server is killed; the tap waits in the browser and is kept as soon as the server answers
    server.kill()
    page.keyboard.press("Space")
    appears(page.get_by_role("alert").get_by_text("Your last tap is saved in this browser"))
    page.wait_for_timeout(800)
    server.start()
    appears(page.get_by_text("piece 3 of 4").first)
    expect(page.get_by_role("alert")).to_have_count(0)

    # a failed light check: the planner's way back, and the run goes on along it
    start(page)
    page.keyboard.press("g")
    dialog = page.get_by_role("dialog")
    dialog.get_by_text("By depth").click()
    dialog.get_by_label("Depth of the mark").fill("12")
    appears(dialog.get_by_text("A mark of 12 µm"))
    dialog.get_by_role("button", name="Go back").first.click()
    appears(page.get_by_text("of the way back").first)

    # a reading near its limit, a trouble from the table
    page.keyboard.press("m")
    dialog.get_by_label("What").select_option("temperature")
    dialog.get_by_label("Reading").fill("300")
    dialog.get_by_role("button", name="Keep the reading").click()
    appears(dialog.get_by_text("Stop and let it cool").first)
    page.keyboard.press("Escape")
    expect(page.get_by_role("list", name="Due now")).to_contain_text("Stop and let it cool")
    page.keyboard.press("n")
    dialog.get_by_text("Something went wrong").click()
    dialog.get_by_label("What is seen").select_option("furrow")
    appears(dialog.get_by_text("The work stood still on the wheel"))
    dialog.get_by_label("What was done about it").fill("levelled on the block")
    dialog.get_by_role("button", name="Save it").click()
    expect(dialog).to_have_count(0)

    # the next piece and most of the last are left out on another screen; everything that is left then, by one key
    kept = runs.get(run)
    by_key = kept.run.stages[4][-6:]
    while kept.run.current not in [(4, one) for one in by_key]:
        kept = leave_out(runs, kept)
    appears(page.get_by_text("piece 4 of 4").first)
    for _ in range(200):
        if page.get_by_role("region", name="End of the run").count():
            break
        before = seen(page, runs)
        page.keyboard.press("Space")
        began = time.monotonic()
        while seen(page, runs) == before and time.monotonic() - began < 5:
            time.sleep(0.01)
        appears(page.locator(f'[data-seen="{runs.seen(run)}"]').first)
    page.get_by_role("button", name="As wanted", exact=True).click()
    page.get_by_role("link", name="To the log of this run").click()
    told = page.get_by_role("list", name="Everything that happened")
    expect(told).to_contain_text("A mark of 12 µm at the light check")
    expect(told).to_contain_text("Taken back: “Paused")
    expect(told).to_contain_text("Finished: as wanted.")
    assert findings(page) == []

    # the run can be retold without the program: from its file, in words
    file = Log(runs).run_file(run)
    assert file.status == "finished"
    texts = " ".join(file.told)
    for said in ("Began step 1 (piece 1", "back over", "Trouble", "levelled on the block", "Temperature 300 °C", "Finished"):
        assert said in texts
    ends = [text for text in file.told if text.startswith("Old marks gone")]
    assert len(ends) == sum(work.outcome == "gone" for work in runs.get(run).run.works.values())


def test_pieces_order_and_what_it_costs_and_photos_side_by_side_at_one_scale(page: Page, workshop) -> None:
    open_job(page, workshop, "Gallery rail collar")
    page.keyboard.press("b")
    expect(page.get_by_role("button", name="One piece through")).to_contain_text(re.compile(r"[12]\d more changes"))
    page.keyboard.press("o")
    expect(page.get_by_role("button", name="All pieces per step")).to_contain_text(re.compile(r"[12]\d fewer changes"))
    page.get_by_role("button", name=re.compile("^Piece 3")).click()
    appears(page.get_by_text("piece 3 of 4").first)
    page.keyboard.press("f")
    dialog = page.get_by_role("dialog")
    for kind, width in (("Finished reference", "60"), ("This stage", "30")):
        out = io.BytesIO()
        Image.new("RGB", (900, 600), (180, 150, 70)).save(out, "JPEG")
        dialog.get_by_text(kind, exact=True).first.click()
        dialog.get_by_label("Width of the next photo").fill(width)
        picture = {"name": "a.jpg", "mimeType": "image/jpeg", "buffer": out.getvalue()}
        dialog.get_by_label("From a file").set_input_files(picture)
        appears(dialog.get_by_role("img", name=re.compile(kind.split()[0] if kind != "This stage" else "Stage")).first)
    appears(dialog.get_by_text("Both at the same scale."))
    widths = dialog.get_by_role("img").evaluate_all("all => all.map(one => one.getBoundingClientRect().width)")
    assert max(widths) == pytest.approx(2 * min(widths), rel=0.02)
    assert min(widths) < dialog.bounding_box()["width"] / 2  # both are in sight, side by side
    assert findings(page) == []


def test_operations_wait_side_by_side_also_for_another_job(page: Page, workshop) -> None:
    open_job(page, workshop, "Keepers' name plates")
    page.keyboard.press("b")
    appears(page.get_by_role("button", name="Start this step"))
    page.keyboard.press("t")
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("listitem").filter(has_text="Lacquer").get_by_role("button", name="Start waiting").click()
    appears(dialog.get_by_text("1:29:5").first)
    page.keyboard.press("Escape")
    open_job(page, workshop, "Gallery rail collar")
    page.keyboard.press("b")
    expect(page.get_by_role("list", name="Waiting")).to_contain_text("Keepers' name plates")
    expect(page.get_by_role("list", name="Waiting")).to_contain_text("Lacquer")
    page.keyboard.press("Alt+2")
    runs = page.get_by_role("region", name="Runs at the bench").get_by_role("list").first
    expect(runs.get_by_role("link")).to_have_count(2)


def test_the_log_is_searched_a_way_is_made_and_offered_and_upkeep_is_done(page: Page, worked_workshop) -> None:
    page.goto(f"{worked_workshop.address}/log")
    table = page.get_by_role("table", name="Runs")
    expect(table.get_by_role("row")).to_have_count(10)
    page.get_by_label("Words").fill("north stair")
    expect(table.get_by_role("row")).to_have_count(2)
    table.get_by_role("link", name="Gallery rail collar").click()
    form = page.get_by_role("form", name="House way")
    form.get_by_label("make the way of").select_option("outer barrel")
    form.get_by_label("the house way called").fill("Barrel, our way")
    form.get_by_role("button", name="Make it").click()
    appears(page.get_by_text("is a house way now"))
    open_job(page, worked_workshop, "Gallery rail collar")
    page.get_by_role("button", name="outer barrel").first.click()
    appears(page.get_by_text("Barrel, our way"))
    page.get_by_role("button", name="Take it").click()
    appears(page.get_by_role("button", name="Back to the computed one"))
    page.keyboard.press("Alt+5")
    page.get_by_text("Learnt", exact=True).click()
    appears(page.get_by_text("published 1.00, yours").first)
    assert findings(page) == []
    page.get_by_text("Upkeep", exact=True).click()
    page.get_by_role("button", name="Done: The workshop, Touch up the hand tools").click()
    appears(page.get_by_text("touch up the hand tools, done"))
    page.get_by_text("What went wrong?", exact=True).click()
    page.get_by_label("Filter").fill("ripple")
    appears(page.get_by_role("heading", name="Ripple still shows in the reflection"))
    assert findings(page) == []
