"""The door to the shop's network, attacked: guessing, replay, other names, taken-off devices, no cookie, foreign pages.

The points of OWASP ASVS 4.0.3, level 1, that these tests hold are listed in docs/security.md, which names them.
"""

import re
from datetime import UTC, datetime, timedelta
from pathlib import Path

import pytest
from fastapi import FastAPI
from starlette.testclient import TestClient

from kelbrast.api.application import create_app
from kelbrast.api.door import OpenShop, ShopDoor
from kelbrast.app import pairing as pairing_module
from kelbrast.app.jobs import Jobs
from kelbrast.app.pairing import CODE_LENGTH, LETTERS, WRONG_TRIES, Pairing
from kelbrast.core.errors import NotLetIn, StoreTrouble, TooSoon
from kelbrast.storage.devices import devices_file

NAMES = ("workshop", "workshop.local")


class Hands:
    """A clock whose hands the test sets on."""

    def __init__(self) -> None:
        self.at, self.gone = datetime(2026, 3, 1, 8, tzinfo=UTC), 0.0

    def ticks(self) -> float:
        """By the clock that nobody sets."""
        return self.gone

    def set(self, **by: float) -> None:
        """Somebody sets the clock on the wall: no time has gone by."""
        self.at += timedelta(**by)

    def __call__(self) -> datetime:
        return self.at

    def on(self, **by: float) -> None:
        self.at += timedelta(**by)
        self.gone += timedelta(**by).total_seconds()


class Shop:
    """One program with both doors."""

    def __init__(self, database: Path, secure: bool = True) -> None:
        self.clock = Hands()
        self.app: FastAPI = create_app(Jobs.open(database), web=None)
        self.app.state.pairing = self.pairing = Pairing(devices_file(database), self.clock, self.clock.ticks)
        self.secure = secure
        shop = OpenShop(8643, secure, lambda: NAMES, lambda: ["192.168.7.5"], root=lambda: b"root", fingerprint="AB")
        self.door = ShopDoor(self.app, shop)
        self.main = TestClient(self.app, base_url="http://127.0.0.1", raise_server_exceptions=False)

    def tablet(self, host: str = "workshop.local") -> TestClient:
        kind = "https" if self.secure else "http"
        return TestClient(self.door, base_url=f"{kind}://{host}", raise_server_exceptions=False)

    def with_token(self, token: str) -> TestClient:
        tablet = self.tablet()
        tablet.cookies.set("__Host-kelbrast", token)
        return tablet

    def as_named(self, tablet: TestClient, host: str) -> dict[str, str]:
        """Headers of a request under another name for the host; a browser would send its cookie to its own host only."""
        return {"host": host, "cookie": f"__Host-kelbrast={tablet.cookies['__Host-kelbrast']}"}

    def code(self) -> str:
        return self.main.post("/api/devices/code").json()["code"]["code"]

    def paired(self, name: str = "Tablet at the wheel") -> TestClient:
        tablet = self.tablet()
        assert tablet.post("/api/pairing", json={"code": self.code(), "name": name}).status_code == 201
        return tablet


@pytest.fixture
def shop(tmp_path: Path) -> Shop:
    return Shop(tmp_path / "shop.sqlite")


def status(client: TestClient, path: str = "/api/jobs", **more) -> int:
    return client.get(path, **more).status_code


def test_a_device_gives_the_code_once_and_is_let_in(shop: Shop) -> None:
    tablet, code = shop.tablet(), shop.code()
    assert tablet.get("/api/pairing").json() == {"screen": "shop", "let_in": False, "secure": True, "device": None}
    assert status(tablet) == 401
    told = tablet.post("/api/pairing", json={"code": code.lower().replace("-", " "), "name": "  Tablet  at the wheel "})
    assert (told.status_code, told.json()["name"]) == (201, "Tablet at the wheel")
    assert status(tablet) == 200
    assert tablet.get("/api/pairing").json()["let_in"] is True
    assert [one["name"] for one in shop.main.get("/api/devices").json()["devices"]] == ["Tablet at the wheel"]


def test_the_main_screen_is_as_free_as_it_was(shop: Shop) -> None:
    assert status(shop.main) == 200
    assert shop.main.get("/api/pairing").json()["screen"] == "main"
    assert shop.main.post("/api/pairing", json={"code": "A", "name": "B"}).status_code == 404


# --- the code


def test_codes_are_long_random_and_easy_to_read(shop: Shop) -> None:
    codes = {shop.pairing.show_code().letters for _ in range(200)}
    assert len(codes) == 200
    assert len(LETTERS) ** CODE_LENGTH >= 2**20  # ASVS 2.7.6 asks for 20 bits
    assert not set("01IO") & set("".join(codes))


def test_a_code_is_used_once(shop: Shop) -> None:
    code = shop.code()
    assert shop.tablet().post("/api/pairing", json={"code": code, "name": "One"}).status_code == 201
    again = shop.tablet().post("/api/pairing", json={"code": code, "name": "Two"})
    assert again.status_code == 401
    assert len(shop.pairing.devices) == 1


def test_a_code_dies_after_ten_minutes_and_a_new_one_ends_the_old(shop: Shop) -> None:
    code = shop.code()
    shop.clock.on(minutes=10)
    assert shop.tablet().post("/api/pairing", json={"code": code, "name": "One"}).status_code == 401
    shop.clock.on(minutes=1)
    old, new = shop.code(), shop.code()
    assert shop.tablet().post("/api/pairing", json={"code": old, "name": "One"}).status_code == 401
    shop.clock.on(minutes=1)
    assert shop.tablet().post("/api/pairing", json={"code": new, "name": "One"}).status_code == 201


def test_without_a_code_on_the_main_screen_nothing_pairs(shop: Shop) -> None:
    for guess in ("none", "", "NONE"):
        assert shop.tablet().post("/api/pairing", json={"code": guess, "name": "One"}).status_code in (401, 422)
        shop.clock.on(minutes=2)
    code = shop.code()
    shop.main.delete("/api/devices/code")
    assert shop.tablet().post("/api/pairing", json={"code": code, "name": "One"}).status_code == 401


def test_wrong_codes_are_slowed_down_and_end_the_code(shop: Shop) -> None:
    code, waits = shop.code(), []
    for _ in range(WRONG_TRIES):
        assert shop.tablet().post("/api/pairing", json={"code": "22222222", "name": "One"}).status_code == 401
        slowed = shop.tablet().post("/api/pairing", json={"code": code, "name": "One"})
        assert slowed.status_code == 429
        waits.append(int(slowed.headers["retry-after"]))
        shop.clock.on(seconds=waits[-1])
    assert waits == sorted(waits)
    assert waits[-1] >= 16 * waits[0]
    told = shop.main.get("/api/devices").json()
    assert (told["code"], told["wrong"]["times"]) == (None, WRONG_TRIES)  # the main screen says that somebody guesses
    assert shop.tablet().post("/api/pairing", json={"code": code, "name": "One"}).status_code == 401
    assert shop.pairing.devices == []


def test_a_hundred_thousand_guesses_take_longer_than_a_code_lives(shop: Shop) -> None:
    shop.code()
    refused: list[type[Exception]] = []
    for _ in range(700):  # a guess every second, for longer than ten minutes
        with pytest.raises((NotLetIn, TooSoon)) as told:
            shop.pairing.pair("ABCDEFGH", "X", "192.168.7.66")
        refused.append(told.type)
        shop.clock.on(seconds=1)
    assert refused.count(NotLetIn) <= 20


# --- the session


def test_the_cookie_is_kept_from_scripts_other_hosts_and_open_air(shop: Shop) -> None:
    told = shop.tablet().post("/api/pairing", json={"code": shop.code(), "name": "One"})
    cookie = told.headers["set-cookie"]
    assert re.match(r"__Host-kelbrast=[\w-]{43};", cookie)
    for part in ("HttpOnly", "Secure", "SameSite=strict", "Path=/", f"Max-Age={30 * 86400}"):
        assert part in cookie
    assert "domain" not in cookie.lower()


def test_every_pairing_has_a_new_token_that_stands_in_no_file(shop: Shop, tmp_path: Path) -> None:
    tokens = [shop.paired(f"Device {at}").cookies["__Host-kelbrast"] for at in range(5)]
    assert len(set(tokens)) == 5
    kept = [path.read_bytes() for path in tmp_path.rglob("*") if path.is_file()]
    assert not any(token.encode() in data for token in tokens for data in kept)
    file = devices_file(tmp_path / "shop.sqlite")
    assert file.stat().st_mode & 0o077 == 0


def test_pairing_again_ends_the_session_before(shop: Shop) -> None:
    tablet = shop.paired()
    old = tablet.cookies["__Host-kelbrast"]
    assert tablet.post("/api/pairing", json={"code": shop.code(), "name": "The same"}).status_code == 201
    assert status(tablet) == 200
    assert status(shop.with_token(old)) == 401
    assert len(shop.pairing.devices) == 1


def test_a_device_that_is_taken_off_is_out_at_once_also_after_a_new_start(shop: Shop, tmp_path: Path) -> None:
    tablet, other = shop.paired("One"), shop.paired("Two")
    device = next(device for device in shop.pairing.devices if device.name == "One")
    assert shop.main.delete(f"/api/devices/{device.id}").status_code == 204
    assert (status(tablet), status(other)) == (401, 200)
    again = Pairing(devices_file(tmp_path / "shop.sqlite"), shop.clock)
    assert again.who(tablet.cookies["__Host-kelbrast"]) is None
    assert again.who(other.cookies["__Host-kelbrast"]) is not None


def test_a_device_takes_itself_off(shop: Shop) -> None:
    tablet = shop.paired()
    token = tablet.cookies["__Host-kelbrast"]
    gone = tablet.delete("/api/pairing")
    assert gone.status_code == 204
    assert '__Host-kelbrast=""' in gone.headers["set-cookie"]
    assert status(shop.with_token(token)) == 401
    assert shop.tablet().delete("/api/pairing").status_code == 401


def test_a_session_ends_after_thirty_days(shop: Shop) -> None:
    tablet = shop.paired()
    shop.clock.on(days=29, hours=23)
    assert status(tablet) == 200
    shop.clock.on(hours=1)
    assert status(tablet) == 401
    assert shop.main.get("/api/devices").json()["devices"] == []


def test_made_up_cookies_let_nobody_in(shop: Shop) -> None:
    shop.paired()
    key = shop.pairing.devices[0].key
    for made_up in ("", "x" * 43, key, "../../etc", '"quoted"', "\u00e9", "a;b", "1" * 100_000):
        raw = f"__Host-kelbrast={made_up}".encode("latin-1")
        assert shop.tablet().get("/api/jobs", headers={b"cookie": raw}).status_code == 401


def test_a_damaged_list_of_devices_lets_nobody_in(shop: Shop, tmp_path: Path) -> None:
    tablet = shop.paired()
    file = devices_file(tmp_path / "shop.sqlite")
    whole = file.read_text()
    for damaged in ("", "{", "[]", "null", whole.replace('"until"', '"till"'), whole.replace("2026", "never")):
        file.write_text(damaged)
        assert Pairing(file, shop.clock).who(tablet.cookies["__Host-kelbrast"]) is None


# --- where it comes from


def test_another_hosts_name_is_refused_and_its_own_is_not(shop: Shop) -> None:
    tablet = shop.paired()
    for name in (
        "evil.example",
        "workshop.local.evil.example",
        "192.168.7.99",
        "localhost",
        "workshop.",
        ":",
        "[::1",
        "a" * 300,
    ):
        assert status(tablet, headers=shop.as_named(tablet, name)) == 400, name
    for name in ("workshop", "workshop.local", "WORKSHOP.local:8643"):
        assert status(tablet, headers=shop.as_named(tablet, name)) == 200, name


def test_the_address_that_it_came_to_is_its_own(shop: Shop) -> None:
    assert status(shop.tablet("testserver"), "/api/pairing") == 200  # the test's own name for the address of the socket


def test_the_main_door_does_not_answer_to_the_names_of_the_shop(shop: Shop) -> None:
    for name in (*NAMES, "192.168.7.5", "evil.example"):
        assert shop.main.get("/api/jobs", headers={"host": name}).status_code == 400


FOREIGN = (
    {"origin": "https://evil.example"},
    {"origin": "null"},
    {"origin": "https://workshop.local:9999"},
    {"sec-fetch-site": "cross-site"},
    {"sec-fetch-site": "same-site"},
)


def test_a_foreign_page_changes_nothing_with_a_devices_cookie(shop: Shop) -> None:
    tablet, code = shop.paired(), shop.code()
    for headers in FOREIGN:
        assert tablet.delete("/api/jobs/1", headers=headers).status_code == 403
        assert tablet.delete("/api/pairing", headers=headers).status_code == 403
        assert shop.tablet().post("/api/pairing", json={"code": code, "name": "X"}, headers=headers).status_code == 403
    assert len(shop.pairing.devices) == 1


# --- what is not to be had


def test_without_a_session_nothing_of_the_shop_is_told(shop: Shop) -> None:
    paths = shop.main.get("/api/openapi.json").json()["paths"]
    tablet, open_to_all = shop.tablet(), {"/api/pairing", "/api/shop-certificate.crt"}
    assert open_to_all <= set(paths)
    for path in [*paths, "/api/openapi.json", "/api/", "/api/nothing"]:
        answers = {
            method: tablet.request(method, path.replace("{", "").replace("}", "")).status_code
            for method in ("GET", "POST", "PUT", "DELETE", "HEAD", "OPTIONS")
        }
        assert path in open_to_all or set(answers.values()) == {401}, (path, answers)


def test_a_device_can_not_let_others_in_nor_put_backups_back(shop: Shop) -> None:
    tablet = shop.paired()
    for path in ("/api/devices", "/api/devices/code", "/api/devices/1", "/api/backups", "/api/everything.zip"):
        assert {tablet.request(method, path).status_code for method in ("GET", "POST", "PUT", "DELETE")} == {403}, path


def test_the_demo_is_no_way_around_the_door(shop: Shop) -> None:
    tablet = shop.tablet()
    tablet.cookies.set("kelbrast-look", "demo")
    assert status(tablet) == 401
    assert status(tablet, "/api/devices") == 401


def test_nothing_secret_stands_in_an_address(shop: Shop) -> None:
    told = shop.main.post("/api/devices/code").json()["code"]
    assert all(told["code"] not in place["address"] for place in told["places"])
    assert {place["address"] for place in told["places"]} == {
        "https://192.168.7.5:8643",
        "https://workshop:8643",
        "https://workshop.local:8643",
    }


def test_without_a_certificate_it_says_so(tmp_path: Path) -> None:
    shop = Shop(tmp_path / "plain.sqlite", secure=False)
    tablet = shop.tablet()
    told = tablet.post("/api/pairing", json={"code": shop.code(), "name": "One"})
    assert told.headers["set-cookie"].startswith("kelbrast-device=")
    assert "HttpOnly" in told.headers["set-cookie"]
    assert tablet.get("/api/pairing").json() | {"device": None} == {
        "screen": "shop", "let_in": True, "secure": False, "device": None,
    }  # fmt: skip
    assert shop.main.get("/api/devices").json()["secure"] is False


def test_the_root_is_told_to_anybody_and_a_name_is_asked_for(shop: Shop) -> None:
    assert shop.tablet().get("/api/shop-certificate.crt").content == b"root"
    nameless = shop.tablet().post("/api/pairing", json={"code": shop.code(), "name": "   "})
    assert nameless.status_code == 422
    assert "say which device" in nameless.json()["detail"]
    assert shop.main.delete("/api/devices/7").status_code == 404
    closed = TestClient(create_app(shop.app.state.jobs, web=None), base_url="http://127.0.0.1")
    assert closed.post("/api/devices/code").status_code == 404
    assert closed.get("/api/shop-certificate.crt").status_code == 404


def test_every_answer_has_the_headers_refusals_too(shop: Shop) -> None:
    tablet = shop.paired()
    answers = [
        tablet.get("/api/jobs"),
        shop.tablet().get("/api/jobs"),
        shop.tablet().get("/", headers={"host": "evil.example"}),
        tablet.get("/api/devices"),
    ]
    assert [answer.status_code for answer in answers] == [200, 401, 400, 403]
    for one in answers:
        assert "default-src 'self'" in one.headers["content-security-policy"]
        assert "frame-ancestors 'none'" in one.headers["content-security-policy"]
        assert one.headers["x-content-type-options"] == "nosniff"
        assert one.headers["referrer-policy"] == "no-referrer"
        assert "access-control-allow-origin" not in one.headers


def test_a_clock_that_was_wrong_at_the_start_blocks_no_code(shop: Shop) -> None:
    shop.clock.set(hours=-1)  # it was an hour ahead when the program began, and is put right
    code = shop.pairing.show_code().shown
    device, token = shop.pairing.pair(code, "Tablet", "192.168.7.9")
    assert shop.pairing.who(token) == device


def test_a_clock_a_month_ahead_costs_no_other_device(shop: Shop) -> None:
    _, token = shop.pairing.pair(shop.pairing.show_code().shown, "Tablet", "192.168.7.9")
    shop.clock.set(days=40)
    assert shop.pairing.who(token) is None
    shop.pairing.pair(shop.pairing.show_code().shown, "Phone", "192.168.7.10")
    shop.clock.set(days=-40)
    assert shop.pairing.who(token) is not None
    assert {device.name for device in shop.pairing.devices} == {"Tablet", "Phone"}


def test_a_tablet_whose_clock_is_a_day_off_pairs_and_taps(shop: Shop, collar) -> None:
    """Only the age of a tap is sent, never when it was by the tablet's own clock."""
    tablet = shop.tablet()
    code = shop.pairing.show_code().shown
    assert (
        tablet.post("/api/pairing", json={"code": code, "name": "Tablet"}, headers={"date": "Mon, 01 Jan 2001"}).status_code
        == 201
    )
    job = shop.main.post("/api/jobs", json=collar).json()["id"]
    run = tablet.post(f"/api/jobs/{job}/runs").json()
    where = {key: run["hand"][key] for key in ("piece", "face", "route", "step")}
    for age in (86_400, 0):
        body = {"tap": {"kind": "note", "words": "x", **where}, "name": f"tap-{age:08d}", "after": 0, "age_s": age}
        assert tablet.post(f"/api/runs/{run['id']}/taps", json=body).status_code == 200


def test_a_full_disk_lets_nobody_in_and_leaves_the_code(shop: Shop, monkeypatch: pytest.MonkeyPatch) -> None:
    code = shop.pairing.show_code().shown

    def full(*_: object) -> None:
        raise StoreTrouble("full", "The disk is full", safe="", mend="")

    with monkeypatch.context() as patched:
        patched.setattr(pairing_module, "write_devices", full)
        with pytest.raises(StoreTrouble):
            shop.pairing.pair(code, "Tablet", "192.168.7.9")
    assert shop.pairing.devices == []
    assert shop.pairing.pair(code, "Tablet", "192.168.7.9")[0].id == 1


def test_the_demo_is_the_main_screens_alone(shop: Shop) -> None:
    tablet = shop.tablet()
    tablet.post("/api/pairing", json={"code": shop.pairing.show_code().shown, "name": "Tablet"})
    assert [tablet.request(way, "/api/demo").status_code for way in ("PUT", "DELETE")] == [403, 403]
