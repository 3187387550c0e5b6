"""Takes the pictures of the main views from the demo workshop, into docs/screenshots (`make screenshots`)."""

import io
import math
import os
import subprocess
import sys
import tempfile
from collections.abc import Callable
from dataclasses import replace
from datetime import datetime
from pathlib import Path

import segno
from PIL import Image, ImageDraw
from playwright.sync_api import Page, sync_playwright

CHROMIUM = "/usr/bin/chromium-headless-shell"
HERE = Path(__file__).parent / "screenshots"


def plan_of(page: Page, address: str, title: str) -> None:
    page.goto(address)
    page.get_by_role("link", name=title, exact=True).click()
    page.get_by_label("Title of the job").wait_for()
    page.wait_for_load_state("networkidle")
    page.locator("[aria-label=Steps] img").first.wait_for()  # the pictures come after the plan
    page.wait_for_load_state("networkidle")


def take(page: Page, address: str) -> None:
    page.goto(address)
    page.locator("[data-job]").nth(3).wait_for()
    page.wait_for_load_state("networkidle")  # the small pictures of the rows come after the list
    page.screenshot(path=HERE / "jobs.png")
    plan_of(page, address, "Gallery rail collar")
    page.screenshot(path=HERE / "plan.png")
    page.locator("[aria-label=Steps] button:has(.disc)").nth(1).click()
    page.get_by_role("img", name="After").wait_for()
    page.screenshot(path=HERE / "plan-step.png")
    page.keyboard.press("c")
    page.get_by_text("Lay out:").wait_for()
    page.screenshot(path=HERE / "job-card.png")
    page.goto(f"{address}rack")
    page.get_by_role("button", name="left, cut").click()
    page.screenshot(path=HERE / "rack.png")
    page.goto(f"{address}tables?show=materials")
    page.locator("[data-scope=collapsible][data-part=trigger]").first.click()
    page.screenshot(path=HERE / "tables.png")
    page.goto(f"{address}schedule")
    page.get_by_role("region", name="Now and next").wait_for()
    if datetime.now().hour >= 12:  # the rest of this day would show little
        page.get_by_role("button", name="The next day").click()
    page.screenshot(path=HERE / "schedule.png")
    at_the_bench(page, address)
    page.goto(f"{address}log")
    page.get_by_role("table", name="Runs").wait_for()
    page.screenshot(path=HERE / "log.png")
    page.get_by_role("link", name="Keepers' name plates").nth(1).click()
    page.get_by_role("list", name="Everything that happened").wait_for()
    page.screenshot(path=HERE / "run.png")
    page.goto(f"{address}gauge")
    page.get_by_role("link", name="Tide gauge bush").click()
    page.get_by_test_id("move").wait_for()
    page.screenshot(path=HERE / "gauge.png")
    page.goto(f"{address}trial")
    page.get_by_role("region", name="Worth trying").get_by_role("button").first.click()
    page.get_by_role("button", name="Start the clock").click()
    page.wait_for_timeout(1500)
    page.keyboard.press("1")
    page.get_by_label("Looks so far").wait_for()
    page.screenshot(path=HERE / "trial.png")
    page.get_by_role("button", name="Leave this trial").click()
    page.goto(address)
    page.get_by_role("link", name="Keepers' name plates", exact=True).click()
    page.get_by_role("list", name="Steps").wait_for()
    page.keyboard.press("q")
    page.get_by_role("table", name="Prices").wait_for()
    page.wait_for_load_state("networkidle")
    page.screenshot(path=HERE / "quote.png")
    page.goto(f"{address}light")
    page.get_by_text("µm deep").nth(1).wait_for()
    page.get_by_role("application").first.focus()
    page.keyboard.press("ArrowLeft")
    page.wait_for_timeout(800)
    page.screenshot(path=HERE / "light.png")
    page.goto(f"{address}light?show=practice")
    page.get_by_label("Who practises").fill("Ada")
    page.keyboard.press("Enter")
    for number in range(1, 11):  # until a question with a picture is on the screen
        page.get_by_role("region", name=f"Question {number} of 10").wait_for()
        page.keyboard.press("1")
        page.locator("[role=status] b").first.wait_for()
        if page.locator("figure img").count() == 2:
            break
        page.keyboard.press("Enter")
    page.wait_for_timeout(800)
    page.screenshot(path=HERE / "practice.png")


def on_a_photo(page: Page, address: str) -> None:
    """A name plate beside a sheet of paper, both drawn."""
    picture = Image.new("RGB", (1300, 800), (96, 88, 78))
    pen = ImageDraw.Draw(picture)
    pen.polygon([(110, 130), (500, 96), (560, 640), (84, 690)], fill=(240, 238, 232))
    pen.polygon([(690, 180), (1210, 220), (1190, 560), (660, 520)], fill=(200, 164, 88), outline=(120, 96, 44), width=4)
    for x, y in ((722, 222), (1172, 256), (1158, 520), (698, 486)):
        pen.ellipse([x - 9, y - 9, x + 9, y + 9], fill=(52, 44, 38))
    pen.line([(800, 330), (930, 390), (990, 380)], fill=(120, 90, 40), width=4)
    out = io.BytesIO()
    picture.save(out, "PNG")
    page.goto(address)
    page.get_by_role("link", name="Keepers' name plates", exact=True).click()
    page.get_by_role("main").get_by_role("button", name="Options").click()
    page.get_by_role("menuitem", name="Photo of the part").click()
    file = {"name": "plate.png", "mimeType": "image/png", "buffer": out.getvalue()}
    page.wait_for_load_state("networkidle")
    page.get_by_label("Photo before the work").set_input_files([file])
    page.get_by_role("button", name="Four corners").click()
    image = page.get_by_role("img", name="The part with what is drawn on it")

    def tap(*points: tuple[float, float]) -> None:
        box = image.bounding_box()
        assert box is not None
        scale = min(box["width"] / 1300, box["height"] / 800)
        left, top = box["x"] + (box["width"] - 1300 * scale) / 2, box["y"] + (box["height"] - 800 * scale) / 2
        for x, y in points:
            page.mouse.click(left + x * scale, top + y * scale)

    tap((110, 130), (500, 96), (560, 640), (84, 690))
    page.get_by_label("The outline is of").wait_for()
    tap((690, 180), (1210, 220), (1190, 560), (660, 520))
    page.keyboard.press("f")
    page.get_by_role("table", name="Faces on the photo").wait_for()
    page.get_by_role("button", name="Mark damage").click()
    tap((800, 330), (930, 390), (990, 380))
    page.get_by_role("button", name="End the stroke").click()
    page.wait_for_load_state("networkidle")
    page.screenshot(path=HERE / "photo.png")


def the_eye(page: Page, address: str) -> None:
    """A step that was stopped too early, photographed by the planner's laws."""
    sys.path.insert(0, str(Path(__file__).parents[1] / "tests"))
    from photographing import Face, Shot, both

    face = Face(before="P120", own="P240", share=0.6, lay=math.radians(20))
    along = Shot(lamp=face.lay, pixels=(896, 1344), um=9.0, seed=7)
    photos = both(face, replace(along, lamp=face.lay + math.pi / 2), along)[:2]
    page.goto(f"{address}light?show=eye")
    page.get_by_label("Width of the picture", exact=True).fill("12.1")
    page.keyboard.press("Tab")
    for at, photo in enumerate(photos, start=1):
        page.get_by_text(f"Photo {at}:").wait_for()
        file = {"name": f"{at}.jpg", "mimeType": "image/jpeg", "buffer": photo}
        page.get_by_label("Photo from a file").set_input_files([file])
        if at == 1:
            page.get_by_role("button", name="Yes, it lies along them").click(timeout=60_000)
    page.get_by_role("region", name="What the eye saw").wait_for(timeout=60_000)
    page.screenshot(path=HERE / "eye.png")


def settings(page: Page, address: str) -> None:
    """A tablet is paired. The addresses on the picture are this machine's own, so they are named as in a shop."""
    page.goto(f"{address}settings")
    page.get_by_role("button", name="Show a code").click()
    page.get_by_label("Code", exact=True).wait_for()
    address = "https://192.168.7.5:8643"
    page.get_by_label("Address").locator("option").evaluate_all(
        "(all, to) => all.forEach((one) => (one.textContent = to))", address
    )
    code = page.get_by_label("Code", exact=True).inner_text()
    drawn = segno.make(f"{address}/#pair={code}", error="m", micro=False).svg_data_uri(scale=4, border=2, light="#fff")
    page.get_by_role("img", name="The address and the code").evaluate("(one, to) => (one.src = to)", drawn)
    page.locator(".mono", has_text="/").evaluate_all("all => all.forEach((one) => (one.textContent = 'data/shop-backups'))")
    page.get_by_text("of the disk are free").evaluate(
        "one => (one.innerHTML = one.innerHTML.replace(/\\S+ GB of/, '120 GB of'))"
    )
    page.wait_for_timeout(400)
    page.screenshot(path=HERE / "settings.png")


def first_hour(page: Page, address: str) -> None:
    """What an empty program asks."""
    page.goto(address)
    page.get_by_role("button", name="Next").click()
    page.get_by_text("Bench buffer and bars").click()
    page.get_by_text("items go on the rack").wait_for()
    page.screenshot(path=HERE / "first-hour.png")


def at_the_bench(page: Page, address: str) -> None:
    """A step of the collar a while after it was begun."""
    plan_of(page, address, "Gallery rail collar")
    page.keyboard.press("b")
    page.get_by_text("Start this step").wait_for()
    page.keyboard.press("o")
    page.get_by_role("button", name="All pieces per step").wait_for()
    for step in range(4):
        page.keyboard.press("Space")
        page.get_by_role("button", name="Old marks gone").wait_for()
        if step < 3:
            page.keyboard.press("Space")
            page.get_by_role("button", name="Start this step").wait_for()
    page.wait_for_timeout(9000)
    page.screenshot(path=HERE / "bench.png")


def main() -> None:
    HERE.mkdir(exist_ok=True)
    look(["demo"], take, on_a_photo, the_eye)
    look(["demo", "--shop", "--shop-port", "0"], settings)
    look(["serve"], first_hour)


def look(start: list[str], *shows: Callable[[Page, str], None]) -> None:
    """Pictures of a program that was started anew with this command."""
    with tempfile.TemporaryDirectory() as folder:
        command = [sys.executable, "-m", "kelbrast", *start, "--port", "0", "--database", f"{folder}/kept.sqlite"]
        environment = {**os.environ, "PYTHONUNBUFFERED": "1"}
        with subprocess.Popen(command, stdout=subprocess.PIPE, text=True, env=environment) as server, sync_playwright() as kit:
            assert server.stdout is not None
            address = server.stdout.readline().split(" at ")[1].split()[0]
            browser = kit.chromium.launch(executable_path=CHROMIUM, args=["--no-sandbox", "--disable-gpu"])
            page = browser.new_page(viewport={"width": 1280, "height": 800}, reduced_motion="reduce")
            try:
                for show in shows:
                    show(page, address)
            finally:  # else the server would be waited for
                browser.close()
                server.terminate()


if __name__ == "__main__":
    main()
