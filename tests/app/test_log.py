"""The log: found again, exported whole; house ways, photos and upkeep that come from it."""

import io
import json
from datetime import UTC, datetime, timedelta

import pytest
from PIL import Image

from kelbrast.app.house import HouseWays
from kelbrast.app.log import Log
from kelbrast.app.photos import LARGEST_SIDE, Photos
from kelbrast.app.upkeep import Upkeep
from kelbrast.core.bench.taps import replay
from kelbrast.core.errors import BadInput, NotFound
from kelbrast.documents.job.read import to_job
from kelbrast.documents.run.format import EventFile, RunFile, to_events, to_layout
from kelbrast.storage.runs import Wanted


def test_runs_are_found_by_words_material_finish_tool_and_day(shop, keep) -> None:
    job = keep()
    shop.begin(job)
    shop.tap("note", words="the north stair")
    shop.finish()
    shop.wait(40 * 86_400)
    shop.begin(keep(title="Lens guard", material="copper"))
    shop.tap("trouble", fault="haze", words="new cloth")
    shop.finish(well=False)
    log = Log(shop.runs)

    def titles(**more):
        return [line.title for line in log.search(Wanted(**more))[1]]

    assert titles() == ["Lens guard", "Gallery rail collar"]
    assert titles(text="north stair") == ["Gallery rail collar"]
    assert titles(text="HAZE guard") == ["Lens guard"]
    assert titles(material="copper") == ["Lens guard"]
    assert titles(finish="No such finish") == []
    assert titles(tool=log.tools()[0])
    assert titles(tool="belt-p60") == []
    day = datetime.fromtimestamp(shop.at, UTC) - timedelta(days=10)
    assert titles(since=day) == ["Lens guard"]
    assert titles(until=day) == ["Gallery rail collar"]
    assert titles(status="open") == []
    assert log.search(Wanted(), offset=1, limit=1)[0] == 2


def test_a_run_file_is_enough_to_replay_and_to_read_the_run(shop, keep) -> None:
    shop.begin(keep(pieces=2))
    shop.do(45)
    shop.tap("started")
    shop.tap("back", fingernail=True, extent="whole")
    shop.tap("undone", undoes=shop.kept.run.last.number)
    shop.tap("gone")
    shop.finish()
    text = Log(shop.runs).run_file(shop.kept.id).model_dump_json()
    file = RunFile.model_validate_json(text)
    assert replay(to_layout(to_job(file.job), file.plan), to_events(file.events, to_job(file.job))) == shop.kept.run
    assert len(file.told) == len(file.events)
    assert file.told[0].startswith("Began step 1 (piece 1,")
    assert all(isinstance(event, EventFile) for event in file.events)


def test_figures_are_planned_and_as_they_were(shop, keep) -> None:
    shop.begin(keep())
    shop.finish(pace=2.0)
    (line,) = Log(shop.runs).search(Wanted())[1]
    assert line.figures["minutes"] == pytest.approx(2 * line.figures["planned_minutes"], rel=0.01)
    assert line.figures["metal_um"] is None
    assert line.figures["planned_metal_um"] > 0
    assert line.well


def test_a_run_that_went_well_becomes_a_house_way_with_its_own_minutes(shop, keep, collar) -> None:
    job = keep()
    shop.begin(job)
    face = collar["faces"][0]["name"]
    ways = HouseWays(shop.jobs.engine)
    with pytest.raises(BadInput):
        ways.make(shop.kept, face, "too early")
    shop.finish(pace=0.5)
    made = ways.make(shop.kept, face, "Our mirror")
    file = shop.jobs.get(job).job
    (offer,) = ways.offered(file, shop.jobs.rack.shelf())
    assert offer.name == "Our mirror"
    assert offer.log_minutes == pytest.approx(offer.cut_minutes / 2, rel=0.02)
    assert offer.route == [step.tool for step in shop.kept.plan.faces[0].steps]
    for name, which in (("", face), ("x", "no such face")):
        with pytest.raises(BadInput):
            ways.make(shop.kept, which, name)
    ways.forget(made.id)
    assert ways.offered(file, shop.jobs.rack.shelf()) == []
    with pytest.raises(NotFound):
        ways.forget(made.id)


def picture(kind: str = "JPEG", size: tuple[int, int] = (3000, 1500), **more) -> bytes:
    out = io.BytesIO()
    Image.new("RGB", size, (180, 140, 60)).save(out, kind, **more)
    return out.getvalue()


def test_a_photo_is_made_smaller_turned_upright_and_rid_of_where_it_was_taken(shop, keep) -> None:
    shop.begin(keep())
    exif = Image.Exif()
    exif[0x0112] = 6  # lies on its side
    exif[0x010F] = "some camera"
    exif.get_ifd(0x8825)[1] = "N"  # position
    photos = Photos(shop.jobs.engine)
    kept = photos.add(shop.kept.id, picture(exif=exif), shows="finished", across_mm=40.0)
    assert (kept.width, kept.height) == (LARGEST_SIDE // 2, LARGEST_SIDE)
    with Image.open(io.BytesIO(photos.picture(kept.id))) as again:
        assert again.format == "JPEG"
        assert dict(again.getexif()) == {}
        assert "exif" not in again.info
    assert [reference.id for reference in photos.references()] == [kept.id]
    photos.scale(kept.id, 55.0)
    assert photos.of_run(shop.kept.id)[0].across_mm == 55


@pytest.mark.parametrize(
    "make",
    [
        lambda: b"",
        lambda: b"GIF89a" + bytes(20),
        lambda: b"<svg/>",
        lambda: picture()[:200],
        lambda: picture("PNG", (9000, 9000)),
    ],
)
def test_what_is_no_picture_or_too_large_is_refused_and_nothing_is_kept(shop, keep, make) -> None:
    data = make()
    shop.begin(keep())
    photos = Photos(shop.jobs.engine)
    with pytest.raises(BadInput) as refused:
        photos.add(shop.kept.id, data, shows="stage", across_mm=None)
    assert refused.value.faults[0].field == "photo"
    assert photos.of_run(shop.kept.id) == []


def test_photos_belong_to_a_run(shop) -> None:
    with pytest.raises(NotFound):
        Photos(shop.jobs.engine).add(7, picture(), shows="stage", across_mm=None)


def test_upkeep_follows_from_the_log_and_is_put_down_as_done(shop, keep) -> None:
    shop.begin(keep(protect="wax"))
    shop.finish()
    assert not any(one.care.id == "rewax" for one in Upkeep(shop.jobs).due())  # nobody said yet that it was waxed
    shop.wait(3600)
    shop.tap("operated", operation="wax")
    now = datetime.fromtimestamp(shop.at, UTC)
    upkeep = Upkeep(shop.jobs)
    later = now + timedelta(days=200)
    waxed = next(one for one in upkeep.due(later) if one.care.id == "rewax")
    assert waxed.now
    assert waxed.thing.since == now  # from when it was told, not from the end of the run
    upkeep.done(waxed.thing.key, "rewax", now=later)
    assert not next(one for one in upkeep.due(later) if one.care.id == "rewax").now
    every = waxed.care.every
    renewed = later + every * 2.9  # more than three periods since it was waxed, and not yet since it was waxed again
    assert renewed > now + every * 3
    assert [one.thing.key for one in upkeep.due(renewed) if one.care.id == "rewax"] == [waxed.thing.key]
    assert not [one for one in upkeep.due(later + every * 3.1) if one.care.id == "rewax"]  # then its owner minds it
    with pytest.raises(BadInput):
        upkeep.done("item:99", "rake")
    with pytest.raises(NotFound):
        upkeep.done("shop", "sing")


def test_the_log_as_json_is_json(shop, keep) -> None:
    shop.begin(keep())
    shop.finish()
    files = [json.loads(file.model_dump_json()) for file in Log(shop.runs).run_files(Wanted())]
    assert files[0]["kelbrast"] == "run/1"
