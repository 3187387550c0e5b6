"""What every screen says of the program itself: it was updated, a part of it cannot be loaded, its file was replaced, a job cannot be read."""

import json
import shutil
import sqlite3
from collections.abc import Iterator
from contextlib import closing
from pathlib import Path

import pytest
from playwright.sync_api import Browser, Page, expect

from kelbrast.api.application import WEB, create_app
from kelbrast.app.jobs import Jobs
from screen import appears, job_row
from serving import Served, _port, _running, _server, serve


def another_build(target: Path) -> Path:
    """The screens as a later version has them: under another name of the build, and with other names of its scripts."""
    shutil.copytree(WEB, target)
    build = json.loads((target / "build.json").read_text())["build"]
    names = {file.name: file.name.replace("-", "-new-", 1) for file in (target / "assets").glob("*.js")}
    texts = [file for file in target.rglob("*") if file.suffix in (".js", ".html", ".json")]
    for file in texts:
        text = file.read_text().replace(build, f"{build}-later")
        for old, new in names.items():
            text = text.replace(old, new)
        file.write_text(text)
    for old, new in names.items():
        (target / "assets" / old).rename(target / "assets" / new)
    return target


def updated(served: Served, web: Path) -> None:
    """The same program stopped and started at its address, with other screens."""
    number = int(served.address.rsplit(":", 1)[1])
    served.stop()
    jobs = Jobs.open(Path(served.jobs.engine.url.database or ""))
    served.servers = [_running(_server(create_app(jobs, web=web)), _port(number))]


# What is installed has its own copy of the screens, and what is not asks for each when it is opened.
@pytest.fixture
def installed(browser: Browser) -> Iterator[Page]:
    with closing(browser.new_context(viewport={"width": 1280, "height": 800}, service_workers="allow")) as made:
        yield made.new_page()


@pytest.fixture
def visiting(browser: Browser) -> Iterator[Page]:
    with closing(browser.new_context(viewport={"width": 1280, "height": 800}, service_workers="block")) as made:
        yield made.new_page()


def test_a_screen_is_told_of_an_update_and_loses_nothing_that_was_typed(
    installed: Page, workshop: Served, tmp_path: Path
) -> None:
    page = installed
    page.clock.install()
    page.goto(f"{workshop.address}/jobs/1")
    title = page.get_by_label("Title of the job")
    appears(title)
    title.fill("Typed before the update")
    page.wait_for_timeout(700)
    updated(workshop, another_build(tmp_path / "web"))
    title.fill("Typed after the update")
    page.clock.run_for(61_000)
    appears(page.get_by_text("Kelbrast was updated"))
    expect(title).to_have_value("Typed after the update")
    page.get_by_role("button", name="Reload", exact=True).click()
    expect(page.get_by_label("Title of the job")).to_have_value("Typed after the update")
    expect(page.get_by_text("Kelbrast was updated")).to_have_count(0)


def test_a_view_whose_script_is_gone_says_so_and_offers_to_reload(visiting: Page, workshop: Served, tmp_path: Path) -> None:
    page = visiting
    page.goto(workshop.address)
    appears(page.get_by_role("heading", name="Jobs", exact=True))
    updated(workshop, another_build(tmp_path / "web"))
    page.keyboard.press("Alt+8")
    appears(page.get_by_text("A part of this screen could not be loaded."))
    page.get_by_role("button", name="Reload", exact=True).click()
    appears(page.get_by_role("heading", name="Jobs", exact=True))
    page.keyboard.press("Alt+8")
    appears(page.get_by_role("heading", name="Tables"))


def test_what_is_installed_opens_every_view_from_its_own_copy(installed: Page, workshop: Served, tmp_path: Path) -> None:
    page = installed
    page.goto(workshop.address)
    page.evaluate("navigator.serviceWorker.ready.then(() => null)")
    updated(workshop, another_build(tmp_path / "web"))
    page.keyboard.press("Alt+8")
    appears(page.get_by_role("heading", name="Tables"))
    expect(page.get_by_text("A part of this screen could not be loaded.")).to_have_count(0)


def test_a_replaced_file_is_told_and_what_is_held_can_be_saved(page: Page, workshop: Served) -> None:
    database = Path(workshop.jobs.engine.url.database or "")
    database.rename(database.with_name("elsewhere.sqlite"))
    page.goto(workshop.address)
    appears(page.get_by_text("The database file was replaced while the program runs").first)
    page.get_by_role("button", name="Save as a backup").click()
    appears(page.get_by_text("Saved as the backup"))
    (saved,) = database.with_name(f"{database.stem}-backups").glob("*.sqlite")
    with sqlite3.connect(saved) as raw:
        assert raw.execute("select count(*) from jobs").fetchone() == (12,)


def test_a_job_that_cannot_be_read_is_one_line(page: Page, workshop: Served) -> None:
    with sqlite3.connect(workshop.jobs.engine.url.database or "") as raw:
        raw.execute("update jobs set document = json_set(document, '$.colour', 'red') where id = 3")
    raw.close()
    page.goto(workshop.address)
    row = job_row(page, "Cannot be read")
    expect(row).to_have_count(1)
    with page.expect_download() as told:
        row.get_by_role("link", name="Save it as it is").click()
    assert json.loads(Path(told.value.path()).read_text())["colour"] == "red"
    expect(page.locator("[data-job]")).to_have_count(12)


def test_a_long_name_without_a_space_pushes_nothing_aside_on_a_phone(browser: Browser, tmp_path: Path, collar) -> None:
    served = serve(tmp_path / "long.sqlite", demo=False)
    from kelbrast.documents.job.read import check_job_file

    name = "W" * 200
    job = {**collar, "title": name, "customer": name, "state": "ordered", "faces": [{**collar["faces"][0], "name": name}]}
    served.jobs.add(check_job_file(job))
    context = browser.new_context(viewport={"width": 390, "height": 844}, service_workers="block")
    page = context.new_page()
    for address in ("/", "/jobs/1", "/schedule", "/bench", "/log"):
        page.goto(f"{served.address}{address}")
        page.wait_for_timeout(600)
        wide = page.evaluate("Math.max(document.documentElement.scrollWidth, document.querySelector('main').scrollWidth)")
        assert wide <= 391, (
            address,
            wide,
            page.evaluate(
                "[...document.querySelectorAll(`main *`)].filter((one) => one.getBoundingClientRect().right > 400).slice(-3).map((one) => one.outerHTML.slice(0, 120))"
            ),
        )
    context.close()
    served.stop()


def test_a_key_after_a_reload_does_not_rename_a_new_job(page: Page, empty: Served) -> None:
    page.goto(empty.address)
    page.keyboard.press("n")
    title = page.get_by_label("Title of the job")
    expect(title).to_be_focused()
    page.keyboard.type("Lamp bracket")
    page.keyboard.press("Enter")
    expect(title).not_to_be_focused()
    expect(page.get_by_role("status").filter(has_text="Saved")).to_have_count(1)
    title.focus()
    page.keyboard.press("Escape")
    expect(title).to_have_value("Lamp bracket")
    page.reload()
    appears(title)
    expect(title).not_to_be_focused()
    page.locator("body").press("b")
    page.wait_for_timeout(300)
    assert [one.title for one in empty.jobs.search()[1]] == ["Lamp bracket"]
