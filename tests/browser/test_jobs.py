"""The list: from nothing to the first job, files in and out, keys."""

import json
import re
from pathlib import Path

from playwright.sync_api import Page, expect

from kelbrast.app.planning import plan_file
from kelbrast.documents.job.read import read_job_file
from screen import appears, job_row, option, put_away, saved, step_rows

EXAMPLES = Path(__file__).parents[2] / "examples"


def drop(page: Page, name: str, text: str) -> None:
    """Drop a file on the list, as from the desktop."""
    page.evaluate(
        """([name, text]) => {
            const data = new DataTransfer();
            data.items.add(new File([text], name, { type: 'application/json' }));
            const target = document.querySelector('main > div');
            for (const kind of ['dragover', 'drop'])
                target.dispatchEvent(new DragEvent(kind, { dataTransfer: data, bubbles: true, cancelable: true }));
        }""",
        [name, text],
    )


def test_from_an_empty_list_to_a_plan_that_the_command_line_repeats(page: Page, empty) -> None:
    page.goto(empty.address)
    page.get_by_role("button", name="Describe the first part").click()
    expect(page.get_by_label("Title of the job")).to_be_focused()
    page.keyboard.type("Fog horn trumpet")
    questions = page.get_by_role("region", name="Four questions")
    page.get_by_label("Material", exact=True).select_option("copper")
    page.get_by_label("Area", exact=True).last.fill("640")
    questions.get_by_role("button", name="Next").click()
    expect(questions).to_contain_text("Copper, 640 cm²")
    page.get_by_label("Likely depth", exact=True).first.fill("35")
    page.get_by_label("At worst", exact=True).fill("50")
    questions.get_by_role("button", name="Next").click()
    appears(page.get_by_role("region", name="What is known so far").get_by_text("35 to 50 µm"))
    questions.get_by_role("button", name="No", exact=True).click()
    page.get_by_label("Finish", exact=True).select_option("mirror")
    questions.get_by_role("button", name="Show the plan").click()
    expect(step_rows(page).first).to_contain_text("50 → ")
    saved(page)
    with page.expect_download() as download:
        option(page, "Job file")
    text = Path(download.value.path()).read_text()
    plan = plan_file(read_job_file(text))
    labels = step_rows(page).all_inner_texts()
    assert len(labels) == len(plan.faces[0].steps)
    for shown, step in zip(labels, plan.faces[0].steps, strict=True):
        assert step.label in shown
    assert json.loads(text)["title"] == "Fog horn trumpet"


def test_files_come_in_by_dropping_or_chosen_and_faults_are_named(page: Page, empty) -> None:
    page.goto(empty.address)
    appears(page.get_by_text("No jobs yet"))
    good = (EXAMPLES / "05-galley-top.job.json").read_text()
    drop(page, "galley.job.json", good)
    appears(page.get_by_role("link", name="Galley top", exact=True))
    drop(page, "bad.job.json", good.replace("stainless-304", "stainless-305").replace("brushed-fine", "brused", 1))
    refused = page.get_by_text("bad.job.json was not taken")
    expect(refused).to_contain_text('material: there is no material "stainless-305"; did you mean stainless-304')
    expect(refused).to_contain_text("faces[0].want.finish")
    drop(page, "noise.json", "[1")
    expect(page.get_by_text("noise.json was not taken")).to_contain_text("not JSON")
    assert len(empty.jobs.search()[1]) == 1
    page.keyboard.press("i")
    page.get_by_label("Job files", exact=True).set_input_files(sorted(EXAMPLES.glob("*.json"))[:3])
    expect(page.locator("[data-job]")).to_have_count(4)
    appears(page.get_by_text("3 jobs are in the list."))  # one notice for all of them


def test_keys(page: Page, workshop) -> None:
    page.goto(workshop.address)
    expect(page.locator("[data-job]")).not_to_have_count(0)
    page.keyboard.press("?")
    expect(page.get_by_role("dialog", name="This screen and its keys")).to_contain_text("New job")
    put_away(page)
    page.keyboard.press("/")
    expect(page.get_by_label("What to find")).to_be_focused()
    page.keyboard.type("nx fog")  # N must not make a job while typing
    appears(page.get_by_text("Nothing by that name"))
    page.get_by_label("What to find").fill("fog")
    page.keyboard.press("Enter")
    expect(page.get_by_label("Title of the job")).to_have_value("Fog gauge window")
    page.keyboard.press("Alt+8")
    appears(page.get_by_role("heading", name="Tables"))
    page.keyboard.press("Alt+1")
    appears(page.get_by_role("heading", name="Jobs"))
    page.keyboard.press("n")
    expect(page.get_by_label("Title of the job")).to_have_value("New job")


def test_a_page_that_is_not_there(page: Page, workshop) -> None:
    page.goto(f"{workshop.address}/nowhere")
    appears(page.get_by_role("heading", name="There is no page here"))
    page.goto(f"{workshop.address}/jobs/999")
    expect(page.get_by_role("alert")).to_contain_text("cannot be opened")


def test_the_list_says_what_each_job_needs_and_what_is_deleted_comes_back(page: Page, workshop) -> None:
    page.goto(workshop.address)
    collar = job_row(page, "Gallery rail collar")
    expect(collar).to_contain_text("naval brass")
    expect(collar).to_contain_text("mirror")
    expect(collar).to_contain_text(re.compile(r"\d (min|h)"))
    expect(job_row(page, "Lantern door bush")).to_contain_text("only 30 µm may come off")
    before = len(workshop.jobs.search()[1])
    page.get_by_role("button", name="More for Galley top").click()
    page.get_by_role("menuitem", name="Duplicate").click()
    appears(page.get_by_role("link", name="Galley top (copy)", exact=True))
    page.get_by_role("button", name="More for Galley top (copy)").click()
    page.get_by_role("menuitem", name="Delete").click()
    expect(page.get_by_role("link", name="Galley top (copy)", exact=True)).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    appears(page.get_by_role("link", name="Galley top (copy)", exact=True))
    assert len(workshop.jobs.search()[1]) == before + 1


def test_a_promise_and_what_is_next_stand_first_and_many_are_chosen_at_once(page: Page, workshop, morning) -> None:
    page.goto(workshop.address)
    ordered = job_row(page, "Gallery rail collar")
    expect(ordered).to_contain_text("Today 15:30")
    expect(ordered).to_contain_text(re.compile("(to spare|late)"))
    expect(ordered).to_contain_text(re.compile(r"At \d\d:\d\d: |until \d\d:\d\d"))
    expect(job_row(page, "Lantern door bush").get_by_role("button", name="Decide")).to_be_visible()
    quoted = job_row(page, "Galley top")
    quoted.get_by_role("button", name="Ordered").click()
    appears(quoted.get_by_role("button", name="Start"))
    page.get_by_role("button", name="Undo").click()
    appears(quoted.get_by_role("button", name="Ordered"))
    many = page.locator("[data-job]").count()
    page.keyboard.press("s")
    page.get_by_label("Select all").check()
    expect(page.get_by_role("group", name="Selected jobs")).to_contain_text(f"{many} of {many}")
    page.get_by_role("group", name="Selected jobs").get_by_role("button", name="Delete").click()
    expect(page.locator("[data-job]")).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    expect(page.locator("[data-job]")).to_have_count(many)
    job_row(page, "Gallery rail collar").get_by_role("button", name="Start").click()
    expect(page).to_have_url(re.compile(r"/bench/\d+$"))
