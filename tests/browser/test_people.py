"""Six people of different trades, each from an empty program to what they came for, with their presses counted."""

from playwright.sync_api import Locator, Page, expect

from conftest import EXAMPLES
from screen import answer, appears, job_row, option, saved, step_card, step_rows


class Person:
    """Presses what a person would press, and counts it. Typing and choosing from a list count once each."""

    def __init__(self, page: Page, address: str) -> None:
        self.page, self.presses = page, 0
        page.goto(address)

    def press(self, what: Locator) -> None:
        self.presses += 1
        what.click()

    def button(self, name: str) -> None:
        self.press(self.page.get_by_role("button", name=name).first)

    def choose(self, label: str, value: str) -> None:
        self.presses += 1
        self.page.get_by_label(label, exact=True).select_option(value)

    def fill(self, label: str, text: str) -> None:
        self.presses += 1
        self.page.get_by_role("textbox", name=label, exact=True).first.fill(text)

    def ask(self, question: str) -> None:
        self.presses += 1
        answer(self.page, question)

    def begins(self, title: str, material: str | None = None) -> None:
        """Skips the questions of the first hour and names the part."""
        for _ in range(3):
            self.button("Skip this")
        self.button("Describe the first part")
        self.fill("Title of the job", title)
        if material is not None:
            self.choose("Material", material)


def test_a_hobbyist_polishes_a_lamp_base_by_hand(page: Page, brand_new) -> None:
    who = Person(page, brand_new.address)
    who.begins("Lamp base")
    who.button("What finish?")
    who.choose("Finish", "mirror")
    who.button("Show the plan")
    appears(step_rows(page).first)
    saved(page)
    who.button("Start")
    who.button("Start this step")
    appears(page.get_by_role("button", name="Old marks gone"))
    assert who.presses <= 10


def test_a_sheet_metal_worker_takes_gouges_out_of_a_worktop(page: Page, brand_new) -> None:
    who = Person(page, brand_new.address)
    who.begins("Worktop", "stainless-304")
    who.fill("Area", "9000")
    who.button("Next")
    who.fill("Likely depth", "3")
    who.button("Next")
    who.button("Yes, in some places")
    who.fill("How many", "3")
    who.button("Next")
    who.choose("Finish", "brushed-fine")
    who.button("Show the plan")
    expect(page.get_by_role("list", name="Steps")).to_contain_text("over everything")
    expect(page.get_by_role("button", name="Anything deeper?")).to_contain_text("3 × gouges")
    assert who.presses <= 15


def test_an_owner_quotes_and_schedules_what_came_in(page: Page, empty) -> None:
    who = Person(page, empty.address)
    page.keyboard.press("i")
    page.get_by_label("Job files", exact=True).set_input_files(sorted(EXAMPLES.glob("0[12]*.job.json")))
    appears(page.get_by_text("2 jobs are in the list."))
    who.press(job_row(page, "Keepers' name plates").get_by_role("button", name="Quote"))
    appears(page.get_by_role("table", name="Prices"))
    with page.expect_popup() as opened:
        who.button("Save and print")
    opened.value.close()
    appears(page.get_by_role("region", name="Saved quotes").get_by_text("Q-0001"))
    who.press(page.get_by_role("link", name="Jobs", exact=True).first)
    who.press(job_row(page, "Keepers' name plates").get_by_role("button", name="Ordered"))
    appears(job_row(page, "Keepers' name plates").get_by_role("button", name="Start"))
    who.press(page.get_by_role("link", name="Schedule", exact=True).first)
    expect(page.get_by_role("list", name="Jobs of the schedule")).to_contain_text("Keepers' name plates")
    assert who.presses <= 6


def test_a_plastics_worker_clears_a_window_without_burning_it(page: Page, brand_new) -> None:
    who = Person(page, brand_new.address)
    who.begins("Lantern pane", "acrylic")
    who.button("What finish?")
    who.choose("Finish", "bright")
    who.button("Show the plan")
    who.ask("Limits and reach")
    who.fill("Wall behind it", "6")
    card = step_card(page)
    who.presses += 1
    expect(card).to_contain_text("on one spot")
    expect(card).to_contain_text("Light check")
    assert who.presses <= 12


def test_a_fitter_laps_a_bore_to_its_size(page: Page, brand_new) -> None:
    who = Person(page, brand_new.address)
    who.begins("Hinge bush", "bronze")
    who.press(page.get_by_text("From a shape"))
    who.choose("Shape", "bore")
    who.fill("Diameter", "14")
    who.fill("Length", "30")
    who.button("Everything at once")
    who.ask("Limits and reach")
    who.choose("May come off", "fit")
    expect(page.get_by_label("Class, as in H7 or g6")).to_have_value("H7")
    appears(page.get_by_text("Read it clean and cool, before any work"))
    assert who.presses <= 13


def test_a_restorer_keeps_what_must_stay_and_lacquers_the_rest(page: Page, brand_new) -> None:
    who = Person(page, brand_new.address)
    who.begins("Copper bowl", "copper")
    who.button("Everything at once")
    who.press(page.get_by_role("main").get_by_role("button", name="Options"))
    who.press(page.get_by_role("menuitem", name="Add a face"))
    who.fill("Name", "engraving")
    who.press(page.get_by_label("Mask: do not touch"))
    appears(page.get_by_role("heading", name="Masked"))
    option(page, "The part and how to work")
    who.presses += 2
    page.get_by_role("dialog").get_by_label("Protected at the end by").select_option("lacquer")
    who.presses += 1
    page.keyboard.press("Escape")
    who.press(page.get_by_role("button", name="face 1"))
    expect(page.get_by_role("list", name="Steps")).to_contain_text("lacquer, three thin coats")
    expect(page.get_by_role("region", name="Faces of this part")).to_contain_text("masked")
    assert who.presses <= 17
