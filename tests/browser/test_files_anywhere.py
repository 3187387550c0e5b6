"""Any of our files may be dropped anywhere, marked jobs go out as one archive, and tables are copied as text."""

import io
import json
import re
import zipfile
from pathlib import Path

import pytest
from PIL import Image
from playwright.sync_api import Page, expect

from conftest import EXAMPLES
from kelbrast.app.log import Log
from kelbrast.app.runs import Runs
from kelbrast.documents.job.archive import jobs_archive
from kelbrast.documents.job.read import read_job_file
from kelbrast.storage.everything import write_everything
from kelbrast.storage.runs import Wanted
from screen import appears, open_job, put_away

DROP = """([name, bytes]) => {
    const data = new DataTransfer();
    data.items.add(new File([new Uint8Array(bytes)], name));
    document.querySelector('main').dispatchEvent(new DragEvent('drop', { dataTransfer: data, bubbles: true, cancelable: true }));
}"""


def drop(page: Page, name: str, data: bytes) -> None:
    page.evaluate(DROP, [name, list(data)])


def test_each_file_goes_where_it_belongs(page: Page, empty) -> None:
    page.goto(f"{empty.address}/tables")
    appears(page.get_by_role("heading", name="Tables"))
    drop(page, "lens.job.json", (EXAMPLES / "04-barometer-lens.job.json").read_bytes())
    expect(page.get_by_label("Title of the job")).to_have_value("Barometer lens")
    drop(page, "bush.size.json", (EXAMPLES / "tide-gauge-bush.size.json").read_bytes())
    appears(page.get_by_role("heading", name="Tide gauge bush"))
    drop(page, "light.rack.json", (EXAMPLES / "skerry-light.rack.json").read_bytes())
    expect(page.get_by_role("dialog")).to_contain_text("74 new, 0 changed")
    put_away(page)
    drop(page, "letter.txt", b"Dear keeper")
    appears(page.get_by_text("letter.txt was not taken"))
    files = [read_job_file(path.read_bytes()) for path in sorted(EXAMPLES.glob("0[12]*.job.json"))]
    drop(page, "two.zip", jobs_archive([file.model_dump(mode="json", exclude_none=True) for file in files]))
    appears(page.get_by_role("link", name="Gallery rail collar", exact=True))
    assert len(empty.jobs.search()[1]) == 3


def test_marked_jobs_are_one_archive_and_a_table_is_copied(page: Page, workshop) -> None:
    page.context.grant_permissions(["clipboard-read", "clipboard-write"], origin=workshop.address)
    page.goto(workshop.address)
    page.locator("[data-job]").first.wait_for()
    page.keyboard.press("s")
    for title in ("Galley top", "Lens guard"):
        page.get_by_role("checkbox", name=f"Select {title}").check()
    with page.expect_download() as download:
        page.get_by_role("button", name="Export").click()
    with zipfile.ZipFile(Path(download.value.path())) as archive:
        assert [json.loads(archive.read(name))["title"] for name in archive.namelist()] == ["Galley top", "Lens guard"]
    page.goto(f"{workshop.address}/log?show=gone-back")
    page.goto(f"{workshop.address}/tables?show=grades")
    page.get_by_role("button", name="Copy as text").first.click()
    appears(page.get_by_text("The table is copied as text."))
    copied = page.evaluate("navigator.clipboard.readText()").splitlines()
    assert len(copied) > 20
    assert "P240" in "\n".join(copied)


@pytest.mark.soak
def test_a_run_an_archive_of_everything_and_a_picture_go_where_they_belong(page: Page, worked_workshop, tmp_path: Path) -> None:
    served, old = worked_workshop, Log(Runs(worked_workshop.jobs))
    finished = old.search(Wanted(status="finished"))[1][0]
    run = old.run_file(finished.id).model_dump_json().encode()
    archive = write_everything(Path(served.jobs.engine.url.database), tmp_path / "everything.zip").read_bytes()
    picture = io.BytesIO()
    Image.new("RGB", (320, 240), "#b08d57").save(picture, "PNG")
    page.goto(served.address)
    appears(page.get_by_role("heading", name="Jobs", exact=True))
    drop(page, "again.run.json", run)
    appears(page.get_by_text("this run is in the log already"))
    with served.jobs.engine.begin() as connection:
        connection.exec_driver_sql("delete from runs where id = ?", (finished.id,))
    drop(page, "elsewhere.run.json", run)
    appears(page.get_by_role("heading", name=finished.title))
    open_job(page, served, "Barometer lens")
    drop(page, "lens.png", picture.getvalue())
    expect(page).to_have_url(re.compile(r"/jobs/\d+/photo$"))
    drop(page, "everything.zip", archive)
    expect(page.get_by_role("dialog", name="What putting it back would change")).to_contain_text("Photos of parts")
