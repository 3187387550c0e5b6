"""The rack on the screen: filled by keyboard alone, used by plans, bound for life, imported with a preview."""

import time

import pytest
from playwright.sync_api import Page, expect

from screen import appears, findings, open_job, saved

SHOP = [  # what is typed, and how many of the boxes that are found then are ticked
    ("bench buffer three", 1), ("belt grinder contact", 1), ("small rotary", 1), ("hand paper", 13), ("belt on the", 7),
    ("small flap", 5), ("rubber", 4), ("loose cotton wheel", 1), ("sewn cotton wheel", 1), ("felt wheel", 1), ("sisal wheel", 1),
    ("soft cloth", 1), ("tripoli", 1), ("white bar", 1), ("rouge", 1), ("polishing compound", 1),
]  # fmt: skip


def open_rack(page: Page, served) -> None:
    page.goto(f"{served.address}/rack")
    appears(page.get_by_role("region", name="Rails"))


@pytest.mark.soak
def test_a_shop_of_forty_items_by_keyboard_alone(page: Page, empty) -> None:
    page.goto(f"{empty.address}/rack")
    appears(page.get_by_text("Nothing on the rack yet"))
    page.keyboard.press("n")
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_placeholder("paper, belt p180")).to_be_focused()
    for typed, count in SHOP:
        page.keyboard.type(typed)
        expect(dialog.get_by_role("checkbox")).to_have_count(count)
        if count == 1:
            page.keyboard.press("Enter")  # ticks the only one
            page.keyboard.press("Enter")  # and puts it on
        else:
            page.keyboard.press("Tab")  # over how many of each
            for _ in range(count):
                page.keyboard.press("Tab")
                page.keyboard.press("Space")
            page.keyboard.press("Enter")
        expect(dialog.get_by_placeholder("paper, belt p180")).to_have_value("")
    items = empty.jobs.rack.items()
    assert len(items) == sum(count for _, count in SHOP) >= 40
    page.keyboard.press("Escape")
    expect(page.get_by_role("region", name="Rails")).to_contain_text("Loose cotton wheel")


def test_a_wheel_is_bound_when_it_was_used_and_its_history_stays(page: Page, workshop) -> None:
    page.goto(f"{workshop.address}/rack")
    page.get_by_role("button", name="new felt").click()
    panel = page.get_by_label("Item in hand")
    panel.get_by_label("Compound or grit").select_option(label="White bar")
    panel.get_by_label("Metal family").select_option("silver")
    panel.get_by_role("button", name="Record use").click()
    expect(panel).to_contain_text("only white bar · Silver")
    panel.get_by_label("Diameter now").fill("141")
    panel.get_by_label("Diameter now").press("Enter")
    expect(panel).to_contain_text("measured 141 mm")
    item = next(kept for kept in workshop.jobs.rack.items() if kept.file.name == "new felt")
    assert [event.kind for event in item.file.history] == ["used", "measured"]
    page.goto(f"{workshop.address}/rack/{item.id}")  # what the label's code opens
    expect(page.get_by_label("Item in hand")).to_contain_text("used: white · Silver")


def test_an_import_is_shown_before_it_happens_and_its_faults_by_row(page: Page, workshop) -> None:
    page.goto(f"{workshop.address}/rack")
    before = len(workshop.jobs.rack.items())

    def choose(csv: bytes) -> None:
        page.get_by_role("button", name="Options").click()
        page.get_by_role("menuitem", name="Import a rack").click()
        page.get_by_label("Rack file").set_input_files({"name": "r.csv", "mimeType": "text/csv", "buffer": csv})

    choose(b"what,count\npaper-p240,lots\n")
    expect(page.get_by_role("alert")).to_contain_text("row 2, count")
    page.keyboard.press("Escape")
    choose(b"what,count\nfibre-p60,4\n")
    appears(page.get_by_text("1 new, 0 changed"))
    assert len(workshop.jobs.rack.items()) == before
    page.get_by_role("button", name="Import", exact=True).click()
    expect(page.get_by_role("region", name="Rails")).to_contain_text("P60 fibre disc")
    assert len(workshop.jobs.rack.items()) == before + 1


def test_what_to_buy_shows_progress_and_figures_per_job(page: Page, workshop) -> None:
    open_rack(page, workshop)
    page.keyboard.press("b")
    dialog = page.get_by_role("dialog")
    appears(dialog.get_by_role("progressbar"))
    dialog.get_by_role("button", name="Stop").click()
    expect(dialog.get_by_role("progressbar")).to_have_count(0)
    page.keyboard.press("Escape")
    page.keyboard.press("b")
    for _ in range(240):
        if dialog.get_by_role("progressbar").count() == 0 and dialog.locator("section").count():
            break
        time.sleep(0.25)
    expect(dialog.locator("section").first).to_contain_text("min")
    assert findings(page, "[role=dialog]") == []


def test_set_ups_of_two_jobs_together(page: Page, workshop) -> None:
    open_rack(page, workshop)
    page.keyboard.press("s")
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Gallery rail collar").check()
    dialog.get_by_label("Keepers' name plates").check()
    expect(dialog).to_contain_text("Keepers' name plates: front")
    expect(dialog).to_contain_text("Gather:")


def test_what_is_short_is_said_and_from_the_own_rack_a_steel_wheel_stays_out(page: Page, workshop) -> None:
    job = open_job(page, workshop, "Gallery rail collar")
    appears(page.get_by_text("Missing:"))
    page.get_by_role("button", name="Plan without").click()
    expect(page.get_by_text("Missing:")).to_have_count(0)
    for way in ("Plan with any tool", "Plan from your own rack"):
        page.get_by_role("button", name="Options").click()
        page.get_by_role("menuitem", name=way).click()
    page.get_by_role("button", name="Options").click()
    page.get_by_role("menuitem", name="Notes on this plan").click()
    page.get_by_text("may not be used on this metal").click()
    appears(page.get_by_text("and is kept for it").first)
    saved(page)
    assert workshop.jobs.get(job).job.use_rack == "own"
    made = workshop.jobs.plan(job)
    items = {step.item for face in made.faces for step in face.steps}
    steel = next(kept.id for kept in workshop.jobs.rack.items() if kept.file.name == "steel only")
    assert None not in items
    assert steel not in items
