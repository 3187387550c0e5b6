"""Something that no catalogue lists, as a new user: described where it is missing, and planned with at once."""

from playwright.sync_api import Page, expect

from kelbrast.core.reference.own_rows import using
from screen import appears, findings, option, saved


def minutes(served, job: int) -> float:
    with using(served.jobs.own.rows()):
        return served.jobs.plan(job).hands_on_minutes


def test_a_ceramic_belt_and_a_manganese_bronze_go_from_not_listed_to_a_plan(page: Page, empty) -> None:
    page.goto(f"{empty.address}/rack")
    page.get_by_role("button", name="Add the first items").click()
    page.get_by_role("button", name="Not listed? Describe it").click()
    sheet = page.get_by_role("dialog", name="Describe one of your own")
    sheet.get_by_label("Name", exact=True).fill("Ceramic belt")
    sheet.get_by_label("Most like").select_option("belt")
    sheet.get_by_label("Grits that you have").fill("P80, coarse")
    assert findings(page) == []
    sheet.get_by_role("button", name="Save").click()
    appears(sheet.get_by_text('"coarse" is not a grade'))
    sheet.get_by_label("Grits that you have").fill("P80, P120, P240")
    sheet.get_by_label("Cuts, times as fast").fill("3")
    sheet.get_by_label("Put in by").fill("Mara")
    sheet.get_by_role("button", name="Save").click()
    appears(page.get_by_text("Ceramic belt is on the rack."))
    with using(empty.jobs.own.rows()):
        assert len(empty.jobs.rack.items()) == 3

    page.goto(empty.address)
    page.get_by_role("button", name="New job", exact=True).or_(
        page.get_by_role("button", name="Describe the first part")
    ).first.click()
    page.get_by_label("Material").select_option("not-listed")
    sheet.get_by_label("Name", exact=True).fill("Manganese bronze")
    sheet.get_by_label("Most like").select_option("bronze")
    sheet.get_by_label("Hardness").fill("180")
    sheet.get_by_role("button", name="Save").click()
    expect(page.get_by_label("Material").locator("option:checked")).to_have_text("Manganese bronze")
    page.get_by_role("button", name="Everything at once").click()
    option(page, "Plan with any tool")
    expect(page.get_by_role("list", name="Steps")).to_contain_text("ceramic belt")
    saved(page)
    with using(empty.jobs.own.rows()):
        (job,) = empty.jobs.search()[1]
        assert empty.jobs.get(job.id).job.material.startswith("own-")
    before = minutes(empty, job.id)

    page.goto(f"{empty.address}/trial")
    other = page.get_by_role("region", name="Any other")
    other.get_by_label("Tool").select_option(label="P120 ceramic belt")
    other.get_by_label("Material").select_option(label="Manganese bronze")
    other.get_by_role("button", name="Try it").click()
    appears(page.get_by_text("Mark a square of"))
    for seen in ("2", "3"):  # gone within seconds: it cuts far faster than it was described
        page.keyboard.press("Space")
        expect(page.get_by_role("timer")).not_to_have_text("0:00")
        page.keyboard.press(seen)
    page.get_by_role("button", name="What it says").click()
    page.get_by_role("button", name="Use it from now on").click()
    appears(page.get_by_text("Plans use what the trial"))
    assert minutes(empty, job.id) < before

    page.goto(f"{empty.address}/rack")
    page.get_by_role("button", name="Options").click()
    page.get_by_role("menuitem", name="The shop’s own").click()
    own = page.get_by_role("dialog", name="The shop’s own")
    appears(own.get_by_text("Manganese bronze"))
    own.get_by_role("listitem").filter(has_text="Ceramic belt").get_by_role("button", name="Retire").click()
    appears(own.get_by_text("retired"))
    own.get_by_role("listitem").filter(has_text="Manganese").get_by_role("button", name="Delete").click()
    expect(own.get_by_role("alert")).to_contain_text("retire it instead")
