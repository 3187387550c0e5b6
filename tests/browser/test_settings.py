"""Settings: what was changed holds, a taught key works at the bench, the step is read aloud, and a backup is put back."""

from playwright.sync_api import Page, expect

from kelbrast.app.runs import Runs
from screen import appears, called


def test_a_foot_switch_is_taught_and_works_at_the_bench(page: Page, workshop) -> None:
    page.goto(workshop.address)
    page.keyboard.press("Alt+9")
    page.get_by_role("button", name="Teach: Start, then: old marks gone, next").click()
    page.keyboard.press("g")
    expect(page.get_by_role("alert")).to_contain_text("G has a meaning at the bench already")
    page.keyboard.press("PageDown")
    expect(page.get_by_role("list", name="What the switch means")).to_contain_text("PageDown")
    job = called(workshop, "Barometer lens")
    run = Runs(workshop.jobs).begin(job)
    # what would be said is caught, for a test has no ears
    page.add_init_script("window.speechSynthesis.speak = (said) => (window.said = said.text)")
    page.goto(f"{workshop.address}/bench/{run.id}")
    appears(page.get_by_role("button", name="Start this step"))
    page.keyboard.press("a")
    said = page.evaluate("window.said")
    stage = run.run.current[1]
    assert run.steps[stage.key].label in said
    assert "Done when:" in said
    page.keyboard.press("PageDown")
    appears(page.get_by_role("button", name="Old marks gone"))
    page.keyboard.press("?")
    expect(page.get_by_role("dialog")).to_contain_text("Start, then: old marks gone, next (taught)")


def test_what_is_set_holds(page: Page, empty) -> None:
    page.goto(f"{empty.address}/settings")
    page.get_by_text("Inches", exact=True).click()
    page.get_by_label("Currency").fill("GBP")
    page.get_by_label("An hour").fill("61")
    page.get_by_label("An hour").press("Enter")
    page.get_by_role("button", name="People, hours and machines").click()
    page.get_by_role("dialog").get_by_role("button", name="Add a person").click()
    expect(page.get_by_role("dialog").get_by_label("Name").last).to_be_focused()
    page.keyboard.type("Cora")
    page.keyboard.press("Escape")
    page.keyboard.press("Escape")
    expect(page.get_by_role("region", name="The shop")).to_contain_text("3 people")
    page.reload()
    expect(page.get_by_label("Currency")).to_have_value("GBP")
    expect(page.get_by_label("An hour")).to_have_value("61")
    expect(page.get_by_role("radio", name="Inches")).to_be_checked()
    page.get_by_text("What changed:").click()
    expect(page.get_by_role("region", name="About").get_by_role("listitem")).not_to_have_count(0)


def test_a_backup_is_looked_into_and_put_back(page: Page, workshop) -> None:
    page.goto(f"{workshop.address}/settings")
    page.get_by_role("button", name="Back up now").click()
    there = page.get_by_role("list", name="Backups that are there")
    expect(there).to_contain_text("asked for")
    titles = {one.title for one in workshop.jobs.search()[1]}
    workshop.jobs.remove(workshop.jobs.search()[1][0].id)
    there.get_by_role("button", name="Look into the backup").click()
    row = page.get_by_role("table", name="What would change").get_by_role("row").filter(has_text="Jobs")
    expect(row.get_by_role("cell").nth(3)).to_have_text("1")
    page.get_by_role("button", name="Put it back", exact=True).click()
    expect(page.locator("[data-job]")).to_have_count(len(titles))
    assert {one.title for one in workshop.jobs.search()[1]} == titles
    page.goto(f"{workshop.address}/settings")
    expect(there).to_contain_text("before a restore")
