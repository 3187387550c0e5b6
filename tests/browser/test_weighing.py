"""Weighing a plan on the screen: routes, what if, undo, the part, the use of a face, the job card."""

import re

from playwright.sync_api import Page, expect

from screen import answer, any_tool, appears, curves, open_job, put_away, saved, step_card, step_rows


def tools(page: Page) -> list[str]:
    return [row.inner_text() for row in step_rows(page).locator("b.font-semibold:not(.num)").all()]


def test_a_step_left_out_warns_of_the_marks_it_leaves(page: Page, workshop) -> None:
    open_job(page, workshop, "Fog gauge window")
    expect(step_card(page)).to_contain_text("orbital disc")
    page.get_by_role("button", name="Leave out").click()
    appears(page.get_by_text("old marks can be expected to be there still"))
    page.keyboard.press("Control+z")
    expect(page.get_by_text("old marks can be expected")).to_have_count(0)


def test_the_part_decides_operations_and_limits(page: Page, workshop) -> None:
    open_job(page, workshop, "Gallery rail collar")
    page.keyboard.press("e")
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Covered by").select_option("painted")
    dialog.get_by_label("Protected at the end by").select_option("lacquer")
    dialog.get_by_label("Bearing or seal").check()
    page.keyboard.press("Escape")
    appears(page.get_by_role("alert").filter(has_text="Painted parts are not stripped"))
    steps = page.get_by_role("list", name="Steps")
    expect(steps).to_contain_text("lacquer, three thin coats")
    expect(page.get_by_label("Where the time goes")).to_contain_text("Waiting")


def test_only_the_machines_at_hand_are_planned_with(page: Page, workshop) -> None:
    job = open_job(page, workshop, "Keepers' name plates")
    any_tool(page)
    page.keyboard.press("e")
    dialog = page.get_by_role("dialog")
    appears(dialog.get_by_role("group", name="Machines at hand"))
    for box in dialog.get_by_role("group", name="Machines at hand").get_by_role("checkbox").all():
        box.uncheck()
    put_away(page)
    expect(step_card(page)).to_contain_text("Hand")
    saved(page)
    assert workshop.jobs.get(job).job.rack == ["hand"]


def test_what_is_left_when_the_damage_is_too_deep(page: Page, workshop) -> None:
    open_job(page, workshop, "Lantern door bush")
    any_tool(page)
    expect(page.get_by_label("What can be reached")).to_contain_text("The deepest stays")
    answer(page, "Limits and reach")
    page.get_by_label("At most", exact=True).fill("75")
    expect(page.get_by_label("What can be reached")).to_have_count(0)
    assert curves(page)


def test_the_job_card_is_there_to_print_and_to_save(page: Page, workshop) -> None:
    open_job(page, workshop, "Gallery rail collar")
    page.keyboard.press("c")
    expect(page).to_have_url(re.compile(r"/jobs/\d+/card$"))
    card = page.locator("article")
    expect(card).to_contain_text("Lay out:")
    expect(card).to_contain_text("Wax")
    page.emulate_media(media="print")
    expect(page.get_by_role("button", name="Print")).to_be_hidden()
    expect(page.get_by_role("link", name="Kelbrast, to the jobs")).to_be_hidden()
    page.emulate_media(media="screen")
    with page.expect_download() as download:
        page.get_by_role("link", name="Save as PDF").click()
    assert download.value.suggested_filename == "gallery-rail-collar.pdf"


def test_a_route_that_nothing_beats_is_taken_undone_and_taken_again_by_the_picture(page: Page, workshop) -> None:
    job = open_job(page, workshop, "Gallery rail collar")
    before = tools(page)
    page.keyboard.press("w")
    dialog = page.get_by_role("dialog")
    appears(dialog.get_by_text("best trade-offs"))
    dialog.get_by_role("button", name=re.compile("^Use the way")).last.click()
    appears(page.get_by_text("You set these steps yourself."))
    steps = page.get_by_role("list", name="Steps")
    expect(steps).not_to_contain_text(before[0])  # the last of the front begins otherwise
    saved(page)
    assert workshop.jobs.get(job).job.faces[0].wish.route
    page.keyboard.press("Control+z")
    expect(page.get_by_text("You set these steps yourself")).to_have_count(0)
    for tool in before:
        expect(steps).to_contain_text(tool)
    page.keyboard.press("Control+Shift+z")
    appears(page.get_by_text("You set these steps yourself"))
    page.get_by_role("button", name="Let the plan choose").click()
    expect(page.get_by_text("You set these steps yourself")).to_have_count(0)
    page.keyboard.press("w")
    picture = page.get_by_role("application")
    appears(picture.get_by_text("Long steps", exact=True))
    sight = page.get_by_role("region", name="Selected way")
    picture.focus()
    first = sight.inner_text()
    page.keyboard.press("ArrowRight")
    page.keyboard.press("ArrowRight")
    expect(sight).not_to_have_text(first)
    listed = sight.get_by_role("listitem").all_inner_texts()
    page.get_by_text("Cost", exact=True).first.click()
    appears(page.get_by_role("application", name=re.compile("cost")))
    picture.focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("dialog")).to_have_count(0)
    appears(page.get_by_text("You set these steps yourself"))
    saved(page)
    taken = workshop.jobs.get(job).job.faces[0].wish.route
    assert len(taken) == len(listed)


def test_a_swap_says_what_it_costs_first_and_a_locked_step_stays_whatever_else_changes(page: Page, workshop) -> None:
    open_job(page, workshop, "Gallery rail collar")
    step_card(page, 1)
    page.keyboard.press("s")
    dialog = page.get_by_role("dialog")
    row = dialog.get_by_role("listitem").filter(has_text="no old marks left").filter(has_text="min").first
    expect(row).to_contain_text("min")
    swapped = row.get_by_role("button").inner_text().split("\n")[0]
    row.get_by_role("button").click()
    expect(page.get_by_role("list", name="Steps")).to_contain_text(swapped)
    page.keyboard.press("Escape")
    page.keyboard.press("ArrowRight")
    label = page.get_by_label("Step in hand").locator("div.font-bold").inner_text()
    page.keyboard.press("l")
    appears(page.get_by_role("button", name="Locked"))
    before = curves(page)
    page.keyboard.press("a")
    expect(page.locator("svg path.curve").first).not_to_have_attribute("d", before[0])
    expect(page.get_by_role("list", name="Steps")).to_contain_text(label)


def test_a_worn_wheel_slows_down_a_use_chooses_the_finish_and_limits_are_said_in_many_ways(page: Page, workshop) -> None:
    job = open_job(page, workshop, "Gallery rail collar")
    any_tool(page)
    card = step_card(page, 1)
    expect(card).to_contain_text("37.6 m/s")  # pi x 0.2 m x 3590 / 60
    card.get_by_label("Diameter of the wheel as it is now").fill("180")
    card.get_by_label("Diameter of the wheel as it is now").press("Enter")
    page.keyboard.press("Escape")
    saved(page)
    assert list(workshop.jobs.get(job).job.diameters_mm.values()) == [180]
    answer(page, "Limits and reach")
    page.get_by_label("May come off").select_option("size")
    expect(page.get_by_text("to spare on a side")).to_contain_text("10 µm")  # 20 µm over the diameter
    page.get_by_label("May come off").select_option("plated")
    page.get_by_label("Must stay").fill("40")
    appears(page.get_by_text("What must stay has to be less"))
    answer(page, "Finish")
    page.get_by_label("What it is for").select_option("painted")
    expect(page.get_by_label("Finish", exact=True)).to_have_value("paint-ready")
    appears(page.get_by_text("A finish can be too good"))
