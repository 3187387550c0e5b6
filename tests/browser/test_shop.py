"""Tablets and phones in the shop: paired, following one run, without a connection for a while, and taken off."""

import random
import re
from collections.abc import Iterator
from pathlib import Path

import pytest
from playwright.sync_api import Browser, BrowserContext, Page, expect

from attacking import many
from cutting import Net
from kelbrast.app.runs import Runs
from screen import appears, findings_in_both_themes, open_job
from serving import Served, serve

TABLET = {"width": 1024, "height": 768}
PHONE = {"width": 390, "height": 844}


@pytest.fixture
def shop(tmp_path: Path) -> Iterator[Served]:
    served = serve(tmp_path / "shop.sqlite", demo=True, shop=True)
    yield served
    served.stop()


@pytest.fixture
def devices(browser: Browser) -> Iterator[list[BrowserContext]]:
    opened: list[BrowserContext] = []
    yield opened
    for one in opened:
        one.close()


def device(browser: Browser, devices: list[BrowserContext], size: dict[str, int], *, keeps: bool = True) -> Page:
    context = browser.new_context(
        viewport=size, has_touch=True, reduced_motion="reduce", service_workers="allow" if keeps else "block"
    )
    devices.append(context)
    return context.new_page()


def shown_code(main: Page, served: Served) -> str:
    main.goto(f"{served.address}/settings")
    main.get_by_role("button", name="Show a code").click()
    code = main.get_by_label("Code", exact=True).inner_text()
    assert re.fullmatch(r"\w{4}-\w{4}", code)
    return code


def pair(main: Page, served: Served, page: Page, address: str, name: str) -> None:
    code = shown_code(main, served)
    page.goto(address)
    appears(page.get_by_role("heading", name="Pair this device with the shop"))
    page.get_by_label("The code on the main screen").fill(code.lower().replace("-", ""))
    page.get_by_label("What this device is called in the shop").fill(name)
    page.get_by_role("button", name="Pair").click()
    appears(page.get_by_role("navigation", name="Views"))
    appears(main.get_by_role("status").filter(has_text=name))
    main.get_by_role("dialog").get_by_role("button", name="Close").click()


def begun(main: Page, served: Served) -> int:
    """The name plates are taken to the bench at the main screen. Returns the number of the run."""
    open_job(main, served, "Keepers' name plates")
    main.keyboard.press("b")
    appears(main.get_by_role("button", name="Start this step"))
    return int(main.url.rsplit("/", 1)[1])


def kinds(served: Served, run: int) -> list[str]:
    return [event.kind for event in Runs(served.jobs).get(run).events]


def until(page: Page, holds: str) -> None:
    for _ in range(150):
        if page.evaluate(holds):
            return
        page.wait_for_timeout(100)
    raise AssertionError(holds)


def told_ahead(page: Page, run: int, steps: int) -> None:
    """The device knows so many steps ahead."""
    until(page, f"(JSON.parse(localStorage.getItem('kelbrast.run.{run}'))?.ahead.length ?? 0) > {steps}")


def kept_ready(page: Page) -> None:
    """The worker has the screens."""
    page.evaluate("navigator.serviceWorker.ready.then(() => true)")
    until(page, "caches.match('/').then((found) => !!found)")
    page.reload()  # from now on the page is the worker's


def test_a_phone_and_a_tablet_follow_one_run_with_the_network_cut_in_the_middle(
    page: Page, browser: Browser, devices: list[BrowserContext], shop: Served
) -> None:
    net = Net(int(shop.shop.rsplit(":", 1)[1]))
    tablet, phone = device(browser, devices, TABLET), device(browser, devices, PHONE, keeps=False)
    pair(page, shop, tablet, f"http://127.0.0.1:{net.port}", "Tablet at the buffing wheel")
    pair(page, shop, phone, shop.shop, "Phone of Maren")
    run = begun(page, shop)

    tablet.goto(f"http://127.0.0.1:{net.port}/bench/{run}")
    kept_ready(tablet)
    phone.goto(f"{shop.shop}/bench/{run}")
    tablet.get_by_role("button", name="Start this step").tap()
    appears(phone.get_by_role("button", name="Old marks gone"))
    told_ahead(tablet, run, 5)

    net.cut()
    tablet.get_by_role("button", name="Old marks gone").tap()
    tablet.get_by_role("button", name="Start this step").tap()
    appears(tablet.get_by_role("alert").filter(has_text="Your last 2 taps are saved in this browser"))
    tablet.get_by_role("button", name="Pause").tap()
    appears(tablet.get_by_role("alert").filter(has_text="Your last 3 taps"))
    tablet.reload()  # the battery was changed, say: the bench opens without a connection
    appears(tablet.get_by_role("alert").filter(has_text="Your last 3 taps"))
    appears(tablet.get_by_role("button", name="Go on", exact=False).first)
    tablet.get_by_role("button", name="Old marks gone").tap()
    appears(phone.get_by_role("button", name="Old marks gone"))  # it knows nothing of that yet
    assert kinds(shop, run) == ["started"]

    net.mend()
    expect(tablet.get_by_role("alert")).to_have_count(0)
    assert kinds(shop, run) == ["started", "gone", "started", "paused", "gone"]
    appears(phone.get_by_role("button", name="Start this step"))
    third = tablet.locator(".bench").get_attribute("data-seen")
    expect(phone.locator(".bench")).to_have_attribute("data-seen", third or "")
    assert phone.get_by_role("heading").first.inner_text() == tablet.get_by_role("heading").first.inner_text()

    # The phone is lost: it is taken off at the main screen, and shows nothing of the shop any more.
    page.goto(f"{shop.address}/settings")
    page.get_by_role("button", name="Take off Phone of Maren").click()
    appears(phone.get_by_role("heading", name="Pair this device with the shop"))
    assert phone.evaluate("Object.keys(localStorage).filter((key) => key.startsWith('kelbrast.run'))") == []
    appears(tablet.get_by_role("button", name="Start this step"))


@pytest.mark.soak
def test_offline_taps_are_delivered_once_each_after_random_cuts(
    page: Page, browser: Browser, devices: list[BrowserContext], shop: Served
) -> None:
    dice = random.Random(20261127)
    net = Net(int(shop.shop.rsplit(":", 1)[1]))
    tablet = device(browser, devices, TABLET, keeps=False)
    pair(page, shop, tablet, f"http://127.0.0.1:{net.port}", "Tablet")
    run = begun(page, shop)
    tablet.goto(f"http://127.0.0.1:{net.port}/bench/{run}")
    tapped: list[str] = []
    for cut in range(many(3)):
        expect(tablet.locator(".bench [role=alert]")).to_have_count(0)
        told_ahead(tablet, run, 3)
        # Cut at once, while a tap is on its way, or just before its answer or the answer to a poll comes back.
        match cut % 3:
            case 0:
                net.cut()
            case 1:
                net.cut_before_answer(dice.randrange(3))
        for _ in range(dice.randrange(1, 4)):
            working = tablet.get_by_role("button", name="Old marks gone").is_visible()
            tablet.keyboard.press("Space")
            if cut % 3 == 2:
                tablet.wait_for_timeout(dice.randrange(12))
                net.cut()
            tapped.append("gone" if working else "started")
            appears(tablet.get_by_role("button", name="Start this step" if working else "Old marks gone"))
        net.cut()
        tablet.wait_for_timeout(dice.randrange(300))
        net.mend()
    expect(tablet.locator(".bench [role=alert]")).to_have_count(0)
    assert kinds(shop, run) == tapped
    assert len(tapped) >= many(3)


def test_a_tap_that_another_screen_forestalled_is_told_with_what_followed_from_it(
    page: Page, browser: Browser, devices: list[BrowserContext], shop: Served
) -> None:
    net = Net(int(shop.shop.rsplit(":", 1)[1]))
    tablet = device(browser, devices, TABLET, keeps=False)
    pair(page, shop, tablet, f"http://127.0.0.1:{net.port}", "Tablet")
    run = begun(page, shop)
    tablet.goto(f"http://127.0.0.1:{net.port}/bench/{run}")
    told_ahead(tablet, run, 3)
    net.cut()
    for answer in ("Start this step", "Old marks gone", "Start this step"):
        tablet.get_by_role("button", name=answer).tap()
    tablet.keyboard.press("n")
    tablet.get_by_role("textbox").first.fill("The belt is worn")
    tablet.get_by_role("dialog").get_by_role("button", name="Save the note").first.click()
    page.get_by_role("button", name="Start this step").click()  # at the main screen, meanwhile
    appears(page.get_by_role("button", name="Old marks gone"))
    net.mend()
    appears(tablet.get_by_text("Another screen tapped first"))
    appears(tablet.get_by_text("The 2 taps after it could not be saved either"))
    appears(tablet.get_by_role("button", name="Old marks gone"))
    expect(tablet.locator(".bench [role=alert]")).to_have_count(0)
    assert kinds(shop, run) == ["started", "note"]  # what was written beside the work is kept


def test_the_camera_brings_the_code_and_wrong_ones_are_told(
    page: Page, browser: Browser, devices: list[BrowserContext], shop: Served
) -> None:
    phone = device(browser, devices, PHONE, keeps=False)
    phone.goto(shop.shop)
    phone.get_by_label("The code on the main screen").fill("WRONGONE")
    phone.get_by_label("What this device is called in the shop").fill("Phone")
    phone.get_by_role("button", name="Pair").click()
    expect(phone.get_by_role("alert")).to_contain_text("not the code on the main screen")
    assert findings_in_both_themes(phone) == []
    phone.wait_for_timeout(2100)  # wrong codes are slowed down
    code = shown_code(page, shop)
    assert findings_in_both_themes(page) == []
    phone.goto("about:blank")
    phone.goto(f"{shop.shop}/#pair={code}")
    expect(phone.get_by_label("The code on the main screen")).to_have_value(code)
    assert code not in phone.evaluate("location.href")
    expect(phone.get_by_label("What this device is called in the shop")).to_be_focused()
    phone.keyboard.type("Phone")
    phone.keyboard.press("Enter")
    appears(phone.get_by_role("navigation", name="Views"))
    phone.goto(f"{shop.shop}/settings")
    expect(phone.get_by_role("region", name="This device")).to_contain_text("Phone")
    expect(phone.get_by_role("region", name="Backups")).to_have_count(0)
    phone.get_by_role("button", name="Remove this device").click()
    appears(phone.get_by_role("heading", name="Pair this device with the shop"))


def test_over_the_certificate_the_session_is_secret(
    page: Page, browser: Browser, devices: list[BrowserContext], tmp_path: Path
) -> None:
    shop = serve(tmp_path / "shop.sqlite", demo=False, shop=True, secure=True)
    context = browser.new_context(ignore_https_errors=True, viewport=TABLET)
    devices.append(context)
    tablet = context.new_page()
    pair(page, shop, tablet, shop.shop, "Tablet")
    (cookie,) = context.cookies()
    assert (cookie["name"], cookie["httpOnly"], cookie["secure"], cookie["sameSite"]) == (
        "__Host-kelbrast", True, True, "Strict",
    )  # fmt: skip
    assert tablet.evaluate("document.cookie") == ""
    shop.stop()


def test_it_can_be_installed(page: Page, browser: Browser, devices: list[BrowserContext], shop: Served) -> None:
    page.goto(shop.address)
    told = page.evaluate(
        "fetch(document.querySelector('link[rel=manifest]').href).then(async (one) => "
        "[one.headers.get('content-type'), await one.json()])"
    )
    kind, manifest = told
    assert kind.startswith("application/manifest+json")
    assert (manifest["display"], manifest["start_url"]) == ("standalone", "/bench")
    for icon in manifest["icons"]:
        size = page.evaluate(
            "src => { const one = new Image(); one.src = src; return one.decode().then(() => one.naturalWidth); }", icon["src"]
        )
        assert icon["sizes"] in ("any", f"{size}x{size}")
    assert {"192x192", "512x512"} <= {icon["sizes"] for icon in manifest["icons"]}
    assert page.evaluate("fetch('/sw.js').then((one) => one.headers.get('cache-control'))") == "no-cache"


@pytest.mark.soak
def test_a_computer_that_died_is_replaced(
    page: Page, browser: Browser, devices: list[BrowserContext], shop: Served, tmp_path: Path
) -> None:
    tablet = device(browser, devices, TABLET, keeps=False)
    pair(page, shop, tablet, shop.shop, "Tablet")
    open_job(page, shop, "Gallery rail collar")
    page.keyboard.press("b")
    page.get_by_role("button", name="Start this step").click()
    appears(page.get_by_role("button", name="Old marks gone"))
    page.goto(f"{shop.address}/settings")
    with page.expect_download() as told:
        page.get_by_role("link", name="Everything as one archive").click()
    archive = tmp_path / "everything.zip"
    told.value.save_as(archive)
    titles = {one.title for one in shop.jobs.search()[1]}
    shop.stop()

    new = serve(tmp_path / "new" / "shop.sqlite", demo=False, shop=True)
    page.goto(f"{new.address}/settings")
    page.get_by_label("An archive of everything, or a backup").set_input_files(archive)
    dialog = page.get_by_role("dialog")
    appears(dialog.get_by_role("row", name="Jobs 0 12 12 0 0"))
    assert new.jobs.search()[1] == []
    dialog.get_by_role("button", name="Put it back").click()
    appears(page.get_by_role("heading", name="Jobs", exact=True))
    assert {one.title for one in new.jobs.search()[1]} == titles
    page.goto(f"{new.address}/bench")
    appears(page.get_by_role("button", name="Old marks gone"))  # the run goes on where it was

    tablet.goto(new.shop)
    appears(tablet.get_by_role("heading", name="Pair this device with the shop"))
    pair(page, new, tablet, new.shop, "Tablet")
    tablet.goto(f"{new.shop}/bench")
    appears(tablet.get_by_role("button", name="Old marks gone"))
    new.stop()
