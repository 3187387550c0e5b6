"""A job's page: the stair follows every value, nothing typed is lost, everything can be done by keyboard."""

import re

from playwright.sync_api import Page, expect

from kelbrast.documents.job.read import check_job_file
from screen import (
    answer,
    any_tool,
    appears,
    curves,
    findings,
    job_row,
    of_the_job,
    open_job,
    option,
    put_away,
    saved,
    step_card,
)

REDRAWN = "before => document.querySelector('svg path.curve')?.getAttribute('d') !== before"


def test_faces_are_added_shaped_kept_off_and_removed(page: Page, workshop) -> None:
    job = open_job(page, workshop, "Barometer lens")
    page.keyboard.press("n")
    name = page.get_by_label("Name", exact=True)
    expect(name).to_have_value("face 2")
    name.fill("dome")
    appears(page.get_by_text("Another face or edge has this name"))
    name.fill("rim")
    page.get_by_label("Shape", exact=True).select_option("cylinder")
    page.get_by_label("Diameter", exact=True).fill("100")
    page.get_by_label("Length", exact=True).fill("100")
    appears(page.get_by_text("Area 314 cm²"))
    page.get_by_label("Mask: do not touch").check()
    appears(page.get_by_role("heading", name="Masked"))
    page.get_by_label("Mask: do not touch").uncheck()
    page.get_by_role("button", name="Remove this face").click()
    saved(page)
    assert [face.name for face in workshop.jobs.get(job).job.faces] == ["dome"]


def test_not_possible_says_why(page: Page, workshop) -> None:
    open_job(page, workshop, "Lantern door bush")
    appears(page.get_by_role("heading", name="Not possible: metal"))
    appears(page.get_by_text("only 30 µm may come off"))
    answer(page, "Limits and reach")
    page.get_by_label("At most", exact=True).last.fill("120")
    appears(page.get_by_role("list", name="Steps"))


def test_a_wrong_value_changes_nothing_and_typing_and_dragging_redraw_the_stair(page: Page, workshop) -> None:
    job = open_job(page, workshop, "Keepers' name plates")
    answer(page, "What most of it looks like")
    depth = page.get_by_label("Likely depth", exact=True).first
    for text, said in (("0", "Must be above 0"), ("deep", "This is not a number"), ("", "Put in a number above 0")):
        depth.fill(text)
        appears(page.get_by_text(said))
    depth.blur()
    expect(depth).to_have_value("22")
    assert workshop.jobs.get(job).job.faces[0].found.depth_um.likely == 22
    before = curves(page)
    depth.press("ArrowUp")
    expect(depth).to_have_value("23")
    page.wait_for_function(REDRAWN, arg=before[0])
    saved(page)
    assert workshop.jobs.get(job).job.faces[0].found.depth_um.likely == 23
    before = curves(page)
    thumb = page.get_by_role("slider").first
    thumb.scroll_into_view_if_needed()
    box = thumb.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + 8, box["y"] + 8)
    page.mouse.down()
    page.mouse.move(box["x"] - 30, box["y"] + 8, steps=6)
    page.wait_for_function(REDRAWN, arg=before[0])
    page.mouse.up()


def test_every_way_to_describe_the_part_found_wanted_and_limit(page: Page, workshop) -> None:
    job = open_job(page, workshop, "Keepers' name plates")
    expect(page.get_by_role("list", name="Steps")).to_contain_text("flat-disc machine")
    answer(page, "Limits and reach")
    page.get_by_label("The part, for bench machines").select_option("fixed")
    expect(page.get_by_role("list", name="Steps")).not_to_contain_text("flat-disc machine")
    saved(page)
    assert workshop.jobs.get(job).job.carried is False
    answer(page, "What most of it looks like")
    page.get_by_text("Left by a grit").click()
    page.get_by_label("Grit", exact=True).select_option("P240")
    answer(page, "Finish")
    page.get_by_label("Finish", exact=True).select_option("grip")
    page.get_by_label("No finer than", exact=True).select_option("P320")
    answer(page, "Limits and reach")
    page.get_by_label("May come off").select_option("coat")
    page.get_by_label("Reach", exact=True).select_option("inside")
    page.get_by_label("Inside radius").fill("14")
    saved(page)
    kept = workshop.jobs.get(job).job.faces[0]
    assert (kept.found.after, kept.want.finish, kept.want.no_finer_than) == ("P240", "grip", "P320")
    assert (kept.coat_um, kept.keep_um, kept.reach, kept.inside_radius_mm) == (45, 30, "inside", 14)
    answer(page, "Finish")
    page.get_by_label("Finish", exact=True).select_option("own-band")
    page.get_by_label("Ra to").fill("0.8")
    page.get_by_label("Lay").select_option("one-way")
    answer(page, "Limits and reach")
    page.get_by_label("May come off").select_option("none")
    saved(page)
    kept = workshop.jobs.get(job).job.faces[0]
    assert kept.want.ra_um is not None
    assert kept.want.ra_um[1] == 0.8
    assert kept.want.lay == "one-way"
    assert kept.coat_um is None


def test_arrows_walk_the_steps_and_keys_open_the_sums_and_the_ways_back(page: Page, workshop) -> None:
    open_job(page, workshop, "Gallery rail collar")
    card = page.get_by_label("Step in hand")
    page.keyboard.press("ArrowRight")
    expect(card).to_contain_text("Step 1 of")
    page.keyboard.press("ArrowRight")
    expect(card).to_contain_text("Step 2 of")
    page.keyboard.press("ArrowLeft")
    page.keyboard.press("ArrowLeft")
    expect(card).to_contain_text("Step 1 of")
    for word in ("Speed", "Takes off", "Clearance", "Light check", "rev/min"):
        expect(card).to_contain_text(word)
    page.keyboard.press("y")
    sums = page.get_by_role("dialog", name=re.compile("^Why: "))
    for words in ("Depth of its own marks", "Layer to take off", "Longest stay on one spot", "fitted: Fitted to Ra by grit"):
        expect(sums).to_contain_text(words)
    put_away(page)
    page.keyboard.press("ArrowRight")
    page.keyboard.press("g")
    sheet = page.get_by_role("dialog", name="A mark is still there after step 2")
    expect(sheet).to_contain_text("Where the mark is")
    expect(sheet).to_contain_text("Over the whole face")
    expect(sheet).to_contain_text("It will show")
    sheet.get_by_text("A fingernail catches").click()
    expect(sheet).to_contain_text("A mark of 15 µm")
    sheet.get_by_text("Looks like a grit").click()
    sheet.get_by_label("It looks as left by").select_option("P240")
    expect(sheet).to_contain_text("was left too early")
    page.keyboard.press("Escape")
    expect(sheet).to_have_count(0)


def test_the_ways_side_by_side_and_inch_everywhere(page: Page, workshop) -> None:
    job = open_job(page, workshop, "Gallery rail collar")
    any_tool(page)
    page.keyboard.press("w")
    ways = page.get_by_role("radiogroup", name="Ways to do it")
    appears(ways.get_by_text("Cheapest"))
    expect(ways.get_by_role("radio")).to_have_count(2)
    expect(ways.get_by_role("radio", checked=True)).to_have_count(1)
    put_away(page)
    before = curves(page)
    page.keyboard.press("a")
    page.wait_for_function(REDRAWN, arg=before[0])
    saved(page)
    assert workshop.jobs.get(job).job.habit == "long-steps"
    page.keyboard.press("u")
    answer(page, "Part")
    expect(page.get_by_label("Diameter", exact=True)).to_have_value("2.835")
    expect(step_card(page)).to_contain_text("ft/min")
    appears(page.get_by_text("Deepest marks left, thou"))
    assert not re.search(r"\d (µm|mm|cm²|m/s)\b", page.locator("main").inner_text())
    page.get_by_label("Diameter", exact=True).fill("3")
    saved(page)
    page.reload()
    answer(page, "Part")
    expect(page.get_by_label("Diameter", exact=True)).to_have_value("3")


def test_what_was_typed_is_kept_on_leaving_beside_another_screen_and_without_a_server(page: Page, workshop) -> None:
    job = open_job(page, workshop, "Galley top")
    of_the_job(page)
    page.get_by_role("textbox", name="Pieces").fill("7")
    page.keyboard.press("Escape")
    page.get_by_role("link", name="Jobs", exact=True).first.click()
    expect(job_row(page, "Galley top")).to_contain_text("7 ×")
    assert workshop.jobs.get(job).job.pieces == 7

    open_job(page, workshop, "Galley top")
    of_the_job(page)
    other = page.context.new_page()
    other.goto(f"{workshop.address}/jobs/{job}")
    of_the_job(other)
    other.get_by_role("textbox", name="Pieces").fill("3")
    saved(other)
    appears(other.get_by_text("3 pieces"))
    page.get_by_role("textbox", name="Pieces").fill("5")
    appears(page.get_by_text("Changed elsewhere"))
    assert workshop.jobs.get(job).job.pieces == 3
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Take theirs").click()
    of_the_job(page)
    expect(page.get_by_role("textbox", name="Pieces")).to_have_value("3")
    other.close()

    workshop.stop()
    page.get_by_role("textbox", name="Pieces").fill("2")
    appears(page.get_by_text("does not answer").first)
    expect(page.get_by_role("textbox", name="Pieces")).to_have_value("2")


def test_what_only_the_server_sees_is_said_and_an_edge_is_broken_rounded_or_kept_sharp(page: Page, workshop) -> None:
    job = open_job(page, workshop, "Lamp clock housing")
    answer(page, "Part")
    page.get_by_label("Inside diameter").fill("400")
    expect(page.get_by_text("Must be below the outside diameter")).to_have_count(1)  # once, beside its field
    appears(page.get_by_text("Not saved until the fault is fixed"))
    page.get_by_label("Inside diameter").fill("150")
    saved(page)

    faces = page.get_by_role("region", name="Faces of this part")
    option(page, "Add an edge")
    steps = page.get_by_role("list", name="Steps")
    expect(steps).to_contain_text("Smooth hand file")
    expect(step_card(page)).to_contain_text("A fresh edge cuts")
    page.get_by_label("Leg of the break").fill("0.9")
    page.get_by_label("Leg of the break").press("Enter")
    appears(faces.get_by_text("0.1 to 0.5 mm"))
    page.get_by_label("What becomes of it").select_option("radius")
    expect(page.get_by_label("Radius", exact=True)).to_have_value("0.9")
    expect(faces.get_by_text("0.1 to 0.5 mm")).to_have_count(0)
    page.get_by_label("What becomes of it").select_option("sharp")
    appears(page.get_by_text("Let no wheel roll over it"))
    faces.get_by_role("button", name=re.compile("^back")).click()
    answer(page, "Part")
    page.get_by_label("Name", exact=True).fill("rear")
    page.get_by_label("Name", exact=True).press("Enter")
    saved(page)
    kept = workshop.jobs.get(job).job.faces
    assert [face.edge.wanted for face in kept if face.edge] == ["sharp", "sharp"]
    assert "rear" not in kept[-1].edge.next_to
    assert kept[-1].edge.next_to == ["rim"]


def test_what_most_of_it_looks_like_and_what_is_deeper_in_some_places(page: Page, empty) -> None:
    """A worktop with gouges: the places are worked first, and one pass goes over everything."""
    face = {"name": "worktop", "area_cm2": 9000, "found": {"depth_um": 3}, "want": {"finish": "brushed-fine"}}
    document = {"kelbrast": "job/2", "title": "Chart house top", "material": "stainless-304", "faces": [face]}
    job = empty.jobs.add(check_job_file(document)).id
    page.goto(f"{empty.address}/jobs/{job}")
    steps = page.get_by_role("list", name="Steps")
    expect(steps).not_to_contain_text("over everything")
    answer(page, "Anything deeper?")
    page.get_by_role("button", name="Yes, in some places").click()
    page.get_by_label("What it is called").fill("gouges")
    page.get_by_label("How many").fill("3")
    page.get_by_label("Length", exact=True).fill("80")
    expect(steps).to_contain_text("gouges")
    expect(steps).to_contain_text("over everything")
    appears(page.get_by_text("spots join here"))
    expect(step_card(page)).to_contain_text("gouges")
    appears(page.get_by_role("figure", name="The face and its spots, to scale"))
    page.keyboard.press("i")
    expect(page.get_by_role("dialog", name="Notes on this plan")).to_contain_text("less than working all of it")
    put_away(page)
    expect(page.get_by_label("Totals")).to_have_attribute("aria-busy", "false")  # what is older is paler
    assert findings(page) == []
    answer(page, "What most of it looks like")
    page.get_by_text("Good already").click()
    expect(page.get_by_label("Likely depth")).to_have_count(0)
    answer(page, "Anything deeper?")
    page.get_by_label("The lay runs out at both ends").check()
    expect(page.get_by_label("Step in hand")).to_contain_text("gouges")
    saved(page)
    (kept,) = empty.jobs.get(job).job.faces
    assert (kept.found.as_wanted, kept.lay_runs_out, [spots.count for spots in kept.spots]) == (True, True, [3])
    page.get_by_role("button", name="Remove gouges").click()
    appears(page.get_by_text("Nothing to do"))


def test_the_whole_part_side_by_side_leads_to_each_face_and_step(page: Page, workshop) -> None:
    open_job(page, workshop, "Gallery rail collar")
    page.keyboard.press("v")
    whole = page.get_by_role("region", name="Plan of the whole part")
    barrel, flange = (whole.get_by_role("list", name=f"Steps of {face}") for face in ("outer barrel", "flange edge"))
    appears(barrel)
    shared = flange.get_by_role("button", name="White bar").locator("b").first.inner_text()
    assert barrel.get_by_role("button", name="White bar").locator("b").first.inner_text() == shared
    tops = [chart.bounding_box()["y"] for chart in whole.get_by_role("img").all()]
    assert len(tops) == 3
    assert len(set(tops)) == 1
    assert findings(page) == []
    flange.get_by_role("button", name="P80 fibre disc").click()
    expect(page.get_by_label("Step in hand")).to_contain_text("P80 fibre disc")
    page.get_by_role("button", name="Whole part").click()
    whole.get_by_role("button", name="lettering recess").click()
    appears(page.get_by_role("region", name="Plan of lettering recess"))
