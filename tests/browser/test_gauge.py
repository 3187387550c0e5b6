"""The gauge: a part of one's own lapped to size by keyboard, whatever the lap really takes; reload, undo, inches, a wrong reading."""

import math

import pytest
from playwright.sync_api import Page, Route, expect

from kelbrast.app.sizing import Sizings
from kelbrast.core.catalogue.grades import parse_grade
from kelbrast.core.catalogue.materials import material
from kelbrast.core.precision.advice import lap_tool
from kelbrast.core.precision.simulate import Hidden, Specimen
from kelbrast.core.surface.sized import Gauge, RoundPart, SizeLimits
from screen import answer, appears

UM = 1e-6
BRONZE = lap_tool(parse_grade("F800"), material("bronze"), speed=0.45).rate
PLACE = {"in the middle": 0.0, "near the left end": -0.35, "near the right end": 0.35}


def describe(page: Page, address: str, grade: str = "F800") -> None:
    page.goto(f"{address}/gauge")
    page.get_by_label("Name").fill("Lantern door bush")
    page.get_by_label("Marks, how deep").fill("1")
    page.get_by_label("Gauge repeats within").fill("1.5")
    page.get_by_label("Grade of the lap").select_option(grade)
    page.get_by_role("button", name="To the gauge").click()
    page.get_by_role("button", name="Yes, read it").click()
    appears(page.get_by_text("Reading 1 of 12"))


def read_all(page: Page, bench: Specimen, *, inch: bool = False) -> None:
    """Read at every place that is asked for, with the keyboard."""
    panel = page.get_by_role("region", name="Read the size")
    while panel.is_visible():
        asked = page.get_by_test_id("count").inner_text()
        where, at = panel.locator("p").nth(1).inner_text().split(", at ")
        phi = math.radians(float(at.strip().rstrip("°")))
        (reading,) = bench.read([(PLACE[where] * bench.part.length, phi)])
        typed = f"{reading.diameter / 0.0254:.5f}" if inch else f"{reading.diameter * 1e3:.4f}"
        for _ in range(9):
            page.keyboard.press("Backspace")
        page.keyboard.type(typed)
        page.keyboard.press("Enter")
        expect(page.get_by_text(asked, exact=True)).to_have_count(0)


@pytest.mark.parametrize(("times", "inch"), [pytest.param(2.0, False, marks=pytest.mark.soak), (0.5, True)])
def test_a_part_is_on_size_whether_the_lap_takes_twice_or_half_of_what_the_model_says(
    page: Page, empty, times: float, inch: bool
) -> None:
    part = RoundPart("bore", 40e-3, SizeLimits(20e-3, 20.021e-3))
    hidden = Hidden(size=19.988e-3, oval=8 * UM, rate=times * BRONZE, widest=1.0, drift=0.1, off=0.5 * UM)
    bench = Specimen(part, hidden, Gauge(1.5 * UM, 1 * UM), seed=4)
    page.clock.install()
    describe(page, empty.address)
    if inch:
        page.keyboard.press("u")
    read_all(page, bench, inch=inch)
    move = page.get_by_test_id("move")
    rounds = 0
    while not move.inner_text().startswith("Stop") and rounds < 12:
        seconds = sum(int(one) * (60 if at == 0 else 1) for at, one in enumerate(move.inner_text().split()[-1].split(":")))
        page.keyboard.press("Space")
        appears(page.get_by_text("At work"))
        page.clock.fast_forward(seconds * 1000)
        bench.work(seconds)
        page.keyboard.press("Space")
        appears(page.get_by_role("region", name="Read the size"))
        read_all(page, bench, inch=inch)
        rounds += 1
    expect(move).to_have_text("Stop")
    appears(page.get_by_text("On size"))
    assert part.near <= bench.cut <= part.far


def test_a_reload_keeps_every_reading_and_a_reading_is_taken_back(page: Page, empty) -> None:
    describe(page, empty.address)
    for at, typed in enumerate(("19.985", "19.986", "19.984"), start=2):
        for _ in range(9):
            page.keyboard.press("Backspace")
        page.keyboard.type(typed)
        page.keyboard.press("Enter")
        appears(page.get_by_text(f"Reading {at} of 12"))
    page.keyboard.press("z")
    appears(page.get_by_text("Reading 3 of 12"))
    page.reload()
    appears(page.get_by_role("img", name="2 readings along the length"))
    expect(page.get_by_test_id("move")).to_have_text("Measure")


def test_a_reading_that_can_not_be_right_is_asked_again(page: Page, workshop) -> None:
    page.goto(f"{workshop.address}/gauge")
    page.get_by_role("link", name="Tide gauge bush").click()
    page.get_by_role("button", name="Read again first").click()
    for at, typed in enumerate(("13.989", "13.988", "13.989", "14.489"), start=1):
        appears(page.get_by_text(f"Reading {at} of 4"))
        for _ in range(9):
            page.keyboard.press("Backspace")
        page.keyboard.type(typed)
        page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("14.4890 mm cannot be right beside the others")
    page.keyboard.press("z")
    expect(page.get_by_role("alert")).to_have_count(0)


def test_a_part_has_a_mate_and_the_two_stand_beside_each_other(page: Page, workshop) -> None:
    page.goto(f"{workshop.address}/gauge")
    page.get_by_text("Shaft", exact=True).click()
    page.get_by_text("Its mate", exact=True).click()
    page.get_by_label("The mate", exact=True).select_option("Tide gauge bush")
    expect(page.get_by_label("The mate measures")).to_have_value("13.98886")
    page.get_by_label("Length").fill("30")
    page.get_by_role("button", name="To the gauge").click()
    page.get_by_role("button", name="Yes, read it").click()
    appears(page.get_by_text("Reading 1 of 12"))
    page.goto(f"{workshop.address}/gauge")
    page.get_by_role("link", name="A shaft and its bore beside each other").click()
    expect(page.get_by_test_id("verdict")).to_contain_text("Too tight")
    appears(page.get_by_text("Take the bore to 14.0064 mm"))
    page.get_by_label("Clearance wanted, least").fill("30")
    expect(page.get_by_role("alert")).to_contain_text("The least clearance must be below the most")
    page.get_by_label("Clearance wanted, least").fill("-30")
    expect(page.get_by_role("alert")).to_have_count(0)
    expect(page.get_by_test_id("verdict")).not_to_contain_text("Too tight")
    appears(page.get_by_text("Press it straight, in a press"))
    page.get_by_label("Clearance wanted, least").fill("7")
    page.get_by_role("button", name="To its gauge").nth(1).click()
    appears(page.get_by_role("heading", name="Tide gauge spindle, journal"))
    appears(page.get_by_text("Clearance wanted"))


def test_a_face_of_a_job_is_worked_to_a_size(page: Page, empty) -> None:
    page.goto(empty.address)
    page.get_by_role("button", name="New job").first.click()
    page.get_by_text("From a shape").click()
    page.get_by_label("Shape", exact=True).select_option("bore")
    page.get_by_label("Diameter", exact=True).fill("14")
    page.get_by_label("Length", exact=True).fill("30")
    page.get_by_role("button", name="Everything at once").click()
    answer(page, "Limits and reach")
    page.get_by_label("May come off").select_option("fit")
    expect(page.get_by_label("Class, as in H7 or g6")).to_have_value("H7")
    appears(page.get_by_text("Read it clean and cool, before any work"))
    for at, (row, mm) in enumerate([("Left", 13.983), ("Middle", 13.985), ("Right", 13.984)]):
        for turn in (0, 45, 90, 135):
            page.get_by_label(f"{row}, at {turn}°").fill(f"{mm + turn / 45 % 2 * 0.004 + at * 0.0005:.4f}")
    page.keyboard.press("Tab")
    appears(page.get_by_text("to the near limit"))
    appears(page.get_by_text("of it can be clean"))  # what a new face is found with is deeper than that
    page.get_by_label("Class, as in H7 or g6").fill("g6")
    appears(page.get_by_text("a bore has a capital letter"))


def test_the_finer_lap_is_taken_in_hand_a_warm_part_is_told_and_the_next_move_is_read_aloud(page: Page, workshop) -> None:
    page.add_init_script(
        "window.SpeechSynthesisUtterance = function (words) { this.text = words; };"
        "Object.defineProperty(window, 'speechSynthesis', { value: { cancel() {}, speak(one) { window.said = one.text; } } });"
    )
    page.goto(f"{workshop.address}/gauge")
    page.get_by_role("link", name="Tide gauge bush").click()
    appears(page.get_by_text("That is 101° of its screw."))
    appears(page.get_by_text("a lap carries one grade for life"))
    page.keyboard.press("a")
    page.wait_for_function("window.said && window.said.startsWith('Lap. 3 minutes')")
    page.get_by_role("button", name="Read again first").click()
    page.get_by_label("The part is at").fill("250")
    page.get_by_test_id("count").click()  # the pad has the keys again
    for at in range(1, 5):
        appears(page.get_by_text(f"Reading {at} of 4"))
        for _ in range(9):
            page.keyboard.press("Backspace")
        page.keyboard.type("14.0480")
        page.keyboard.press("Enter")
        if at == 1:
            page.get_by_label("The gauge is at").fill("20")
            page.keyboard.press("Tab")
            page.get_by_test_id("count").click()
    expect(page.get_by_test_id("move")).to_have_text("Let it cool")


def test_what_is_wrong_is_said_and_a_deleted_part_comes_back(page: Page, workshop) -> None:
    page.goto(f"{workshop.address}/gauge")
    page.get_by_text("Class", exact=True).click()
    page.get_by_label("Class, as in H7 or g6").fill("Q9")
    page.get_by_role("button", name="To the gauge").click()
    appears(page.get_by_text("is not a tolerance class"))
    page.get_by_role("button", name="Delete Tide gauge bush").click()
    expect(page.get_by_role("link", name="Tide gauge bush")).to_have_count(0)
    page.get_by_role("button", name="Undo").click()
    appears(page.get_by_role("link", name="Tide gauge bush"))


def test_a_practice_bore_is_scored_and_the_program_shows_what_it_would_have_done(page: Page, empty) -> None:
    page.goto(f"{empty.address}/gauge")
    page.get_by_role("link", name="Practise on an invented bore").click()
    page.get_by_role("button", name="Easy").click()
    page.get_by_role("button", name="Measure it everywhere").click()
    rounds = page.get_by_role("table", name="Rounds").get_by_role("row")
    expect(rounds).to_have_count(2)
    page.get_by_label("Work, seconds").fill("3600")
    page.get_by_role("button", name="Lap for 1:00:00").click()
    appears(page.get_by_text("It was worked and not read since."))
    page.get_by_role("button", name="Read it").click()
    expect(rounds).to_have_count(3)
    expect(page.get_by_text("It was worked and not read since.")).to_have_count(0)
    page.get_by_role("button", name="Stop here").click()
    ended = page.get_by_role("status", name="How it ended")
    expect(ended).to_contain_text("0 points")
    expect(ended).to_contain_text("Past the limit by")
    expect(ended).to_contain_text("you took 2")
    page.get_by_role("button", name="The same again").click()
    appears(page.get_by_role("button", name="Measure it everywhere"))


def test_what_the_drawing_says_is_read_before_the_part_is_made(page: Page, empty) -> None:
    """Enter in the middle of reading it: nothing is made with what was there before, and what is wanted is confirmed once."""

    def slowly(route: Route) -> None:
        page.wait_for_timeout(400)
        route.continue_()

    page.route("**/api/size/drawn", slowly)
    page.goto(f"{empty.address}/gauge")
    page.get_by_label("As the drawing says it").fill("12 h6")
    page.keyboard.press("Enter")
    check = page.get_by_role("region", name="Check what is wanted")
    expect(check).to_contain_text("Shaft")
    expect(check).to_contain_text("11.9890 to 12.0000 mm")
    page.reload()
    appears(check)
    page.get_by_role("button", name="Yes, read it").click()
    appears(page.get_by_text("Reading 1 of 12"))
    kept = empty.jobs.engine
    assert [(size.size.kind, size.size.want.class_) for size in Sizings(kept).page().sizes] == [("shaft", "h6")]


def test_a_form_with_something_that_is_not_understood_is_not_sent(page: Page, empty) -> None:
    page.goto(f"{empty.address}/gauge")
    page.get_by_label("As the drawing says it").fill("12 q99")
    page.keyboard.press("Enter")
    expect(page.get_by_label("As the drawing says it")).to_have_attribute("aria-invalid", "true")
    page.get_by_label("As the drawing says it").fill("12 H7")
    page.get_by_label("Length").fill("forty")
    page.get_by_label("Length").press("Enter")
    expect(page.get_by_label("Length")).to_be_focused()
    page.wait_for_timeout(300)
    assert Sizings(empty.jobs.engine).page().count == 0
