"""Instruments at the bench: a real one beside the stand-ins, and what a stand-in reads follows the work."""

from collections.abc import Iterator
from datetime import UTC, datetime
from types import SimpleNamespace

import pytest

from kelbrast.app import instruments
from kelbrast.core.bench.expected import expected
from kelbrast.core.bench.instruments import stand_ins
from kelbrast.core.errors import BadInput, NotFound
from kelbrast.demo.workshop import demo_jobs
from kelbrast.documents.run.format import EventFile

ROOM, HAND = 20.0, 70.0  # degrees: a workshop, and what a hand in finger guards bears while a step lasts


@pytest.fixture(autouse=True)
def fresh_instruments(monkeypatch: pytest.MonkeyPatch) -> Iterator[None]:
    """The stand-ins with the same errors each time."""
    monkeypatch.setattr(instruments, "stand_ins", lambda: stand_ins(seed=1))
    instruments.instruments.cache_clear()
    yield
    instruments.instruments.cache_clear()


class Micrometer:
    """A real instrument as a package would add it: it does not look at what is expected."""

    id, label, quantity, simulated = "micrometer-1", "Micrometer on the cable", "size", False

    def read(self, expected: float | None) -> float:
        return 24.987e-3


def test_an_instrument_that_a_package_adds_is_read_like_the_others(shop, keep, monkeypatch) -> None:
    def added(group: str) -> list[SimpleNamespace]:
        return [SimpleNamespace(load=lambda: Micrometer)] if group == "kelbrast.instruments" else []

    monkeypatch.setattr(instruments, "entry_points", added)
    kept = shop.begin(keep())
    assert {"thickness-gauge", "micrometer-1"} <= instruments.instruments().keys()
    reading = instruments.read(kept, "micrometer-1")
    assert (reading.quantity, reading.value, reading.instrument, reading.simulated) == (
        "size",
        24.987,
        "Micrometer on the cable",
        False,
    )


def test_an_instrument_that_is_not_there_is_named(shop, keep) -> None:
    with pytest.raises(NotFound, match="micrometer-1"):
        instruments.read(shop.begin(keep()), "micrometer-1")


def test_the_simulated_thermometer_warms_with_the_work_to_where_the_plan_rests(shop) -> None:
    plates = next(job for job in demo_jobs() if job.title == "Keepers' name plates")
    front = plates.model_copy(update={"faces": [face for face in plates.faces if face.name == "front"]})
    kept = shop.begin(shop.jobs.add(front).id)
    rests = kept.steps[kept.run.current[1].key].rests
    assert rests is not None  # so light a part gets hot within its first step
    assert rests.by_hand
    cold = instruments.read(kept, "thermometer").value
    shop.tap("started")
    shop.wait(rests.after_seconds / 2)
    warm = instruments.read(shop.runs.get(kept.id), "thermometer").value
    shop.wait(10 * rests.after_seconds)
    hot = instruments.read(shop.runs.get(kept.id), "thermometer").value
    assert cold == pytest.approx(ROOM, abs=2)
    assert warm == pytest.approx((ROOM + HAND) / 2, abs=2)
    assert hot == pytest.approx(HAND, abs=2)  # then it is put down


@pytest.mark.parametrize(("kind", "grows"), [("cylinder", -1), ("bore", 1)])
def test_the_dial_gauge_expects_a_bore_to_grow_and_a_shaft_to_shrink(shop, keep, collar, kind, grows) -> None:
    shape = {"kind": kind, "diameter_mm": 40.0, "length_mm": 30.0}
    face = {key: value for key, value in collar["faces"][0].items() if key not in ("area_cm2", "shape")}
    kept = shop.begin(keep(faces=[{**face, "shape": shape}], pieces=1))
    before = expected(kept.run, kept.job, "size", 1, kept.run.current[1], kept.now)
    layer = kept.run.current[1].takes
    kept = shop.do(kept.run.current[1].seconds)
    assert before == pytest.approx(40e-3)
    assert expected(kept.run, kept.job, "size", 1, kept.run.current[1], kept.now) == pytest.approx(40e-3 + grows * 2 * layer)


def test_a_run_that_can_not_have_happened_is_not_taken_in_at_all(shop, keep) -> None:
    job = keep()

    def impossible(file, plan) -> list[EventFile]:
        when = {"number": 1, "at": datetime(2026, 5, 1, tzinfo=UTC), "ticks": 0.0, "boot": "first"}
        return [EventFile.model_validate({**when, "kind": "started", "piece": 99, "face": "outer barrel", "step": 1})]

    with pytest.raises(BadInput):
        shop.runs.take_in(job, impossible)
    assert shop.runs.open() == []
