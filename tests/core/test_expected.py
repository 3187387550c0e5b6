"""What the plan expects instruments to read, which limits hold for a reading, and what of the rack is looked after."""

from dataclasses import replace
from datetime import UTC, datetime, timedelta

import pytest

from benching import Bench, stage
from kelbrast.core.bench.events import Measured, Moment, StageDrive
from kelbrast.core.bench.expected import done_on, doubted, expected, more_time, protection_left, verdict
from kelbrast.core.bench.instruments import gloss_of
from kelbrast.core.bench.run import Layout
from kelbrast.core.job import Job
from kelbrast.core.planning.whole.account import Times
from kelbrast.core.rack.item import Item, ItemEvent
from kelbrast.core.rack.upkeep import looked_after, upkeep
from kelbrast.core.surface.face import Gauged
from kelbrast.core.surface.part import Part
from making import UM, face, job

DRIVE = StageDrive("bench-buffer", spindle=47.5, diameter=0.2, marked=35.0, rest_after=60.0, rest_by_hand=True)
LAYOUT = Layout(1, (stage(step=1, drive=DRIVE), stage(step=2, tool="loose-white", drive=DRIVE)), {"wax": Times()})
ROOM, HAND = 293.15, 343.15


def with_face(**more) -> Job:
    return job("brass", replace(face("bright", depth=20, limit_um=100), name="barrel", **more), part=Part(held="hand"))


def now(bench: Bench, after: float = 0.0) -> Moment:
    return Moment(bench.now + after, bench.now + after, "test")


def reads(bench: Bench, job: Job, quantity: str, after: float = 0.0) -> float | None:
    current = bench.run.current
    return expected(bench.run, job, quantity, 1, current[1] if current else None, now(bench, after))


class TestReadings:
    def test_a_coat_and_a_wall_get_thinner_by_the_layer_a_shaft_by_twice_that(self) -> None:
        coat = with_face(gauged=Gauged(coat=120 * UM))
        wall = with_face(thickness=2e-3)
        shaft = with_face(gauged=Gauged(shape="cylinder", diameter=25e-3), thickness=2e-3)
        bore = with_face(gauged=Gauged(shape="bore", diameter=25e-3))
        bench = Bench(LAYOUT)
        assert reads(bench, coat, "coat") == pytest.approx(120 * UM)
        assert reads(bench, with_face(), "coat") is None
        assert reads(bench, with_face(), "size") is None
        bench.do(60)  # takes 20 um
        assert reads(bench, coat, "coat") == pytest.approx(100 * UM)
        assert reads(bench, wall, "size") == pytest.approx(1.98e-3)
        assert reads(bench, shaft, "size") == pytest.approx(24.96e-3)
        assert reads(bench, bore, "size") == pytest.approx(25.04e-3)

    def test_roughness_and_gloss_are_those_of_the_last_step_that_was_done(self) -> None:
        bench = Bench(LAYOUT)
        assert (reads(bench, with_face(), "ra"), reads(bench, with_face(), "gloss")) == (None, None)
        bench.do(60)  # leaves 10 um
        assert reads(bench, with_face(), "ra") == pytest.approx(10 * UM / 6)
        assert reads(bench, with_face(), "gloss") == pytest.approx(gloss_of(10 * UM / 6))

    def test_the_spindle_as_planned_and_the_part_as_warm_as_the_clock_has_it(self) -> None:
        bench, one = Bench(LAYOUT), with_face()
        assert reads(bench, one, "spindle") == 47.5
        assert reads(bench, one, "temperature") == pytest.approx(ROOM)
        bench.tap("started")
        assert reads(bench, one, "temperature", after=30) == pytest.approx((ROOM + HAND) / 2)
        assert reads(bench, one, "temperature", after=1000) == pytest.approx(HAND)
        assert reads(bench, one, "weight") is None

    def test_nothing_is_expected_when_nothing_is_in_hand(self) -> None:
        bench = Bench(LAYOUT)
        bench.do(60)
        bench.do(60)
        assert bench.run.current is None
        assert reads(bench, with_face(thickness=2e-3), "size") is None

    def test_what_was_done_on_a_face(self) -> None:
        bench = Bench(LAYOUT)
        assert done_on(bench.run, 1, "barrel", with_current=False) == []
        assert len(done_on(bench.run, 1, "barrel", with_current=True)) == 1
        bench.do(60)
        (done,) = done_on(bench.run, 1, "barrel", with_current=False)
        assert (done.layer, done.leaves) == pytest.approx((20 * UM, 10 * UM))
        assert done_on(bench.run, 1, "flange", with_current=True) == []


class TestVerdicts:
    @pytest.mark.parametrize(
        ("quantity", "value", "more", "level"),
        [
            ("coat", 39 * UM, {"gauged": Gauged(coat=120 * UM, keep=40 * UM)}, "over"),
            ("coat", 80 * UM, {"gauged": Gauged(coat=120 * UM, keep=40 * UM)}, "fine"),
            ("temperature", 344.0, {}, "over"),  # 71 C, held in finger guards to a machine that stands
            ("spindle", 60.0, {}, "over"),  # 37.7 m/s where 35 are marked
            ("spindle", 47.0, {}, "fine"),
        ],
    )
    def test_a_reading_is_held_against_what_held_for_it(self, quantity, value, more, level) -> None:
        bench = Bench(LAYOUT)
        bench.tap("measured", measured=Measured(quantity, value), piece=1, stage=("barrel", 0, 1))
        found = verdict(bench.run, with_face(**more), bench.run.standing[-1])
        assert found is not None
        assert found.level == level

    def test_in_a_clamp_only_the_material_counts(self) -> None:
        bench = Bench(LAYOUT)
        bench.tap("measured", measured=Measured("temperature", 344.0), piece=1, stage=("barrel", 0, 1))
        found = verdict(bench.run, replace(with_face(), part=Part(held="clamp")), bench.run.standing[-1])
        assert found is not None
        assert found.level == "fine"

    def test_a_size_against_the_first_reading_at_the_same_place(self) -> None:
        bench, one = Bench(LAYOUT), with_face(gauged=Gauged(shape="cylinder"))
        for value in (25.0e-3, 24.78e-3):  # 110 um off each side, and 100 may
            bench.tap("measured", measured=Measured("size", value, "middle"), piece=1, stage=("barrel", 0, 1))
        found = verdict(bench.run, one, bench.run.standing[-1])
        assert found is not None
        assert found.level == "over"

    def test_the_roughness_of_a_finish_counts_only_when_every_step_is_over(self) -> None:
        bench, one = Bench(LAYOUT), with_face()
        rough = Measured("ra", 1.0 * UM)
        bench.tap("measured", measured=rough, piece=1, stage=("barrel", 0, 1))
        assert verdict(bench.run, one, bench.run.standing[-1]) is None
        bench.do(60)
        bench.do(60)
        bench.tap("measured", measured=rough, piece=1, stage=("barrel", 0, 2))
        found = verdict(bench.run, one, bench.run.standing[-1])
        assert found is not None
        assert found.level == "near"

    def test_a_note_has_none(self) -> None:
        bench = Bench(LAYOUT)
        bench.tap("note", words="warm today")
        assert verdict(bench.run, with_face(), bench.run.standing[-1]) is None


def test_a_protection_counts_down_from_the_last_step() -> None:
    bench = Bench(LAYOUT)
    assert protection_left(bench.run, 1, 1800.0, now(bench)) is None
    bench.do(60)
    assert protection_left(bench.run, 1, 1800.0, now(bench)) is None, "a step is still in hand"
    bench.do(60)
    assert protection_left(bench.run, 1, 1800.0, now(bench, 100.0)) == pytest.approx(1700.0)
    assert protection_left(bench.run, 1, None, now(bench)) is None


@pytest.mark.parametrize(("planned", "more"), [(10.0, 30.0), (100.0, 30.0), (160.0, 60.0), (600.0, 180.0)])
def test_keep_going_adds_about_a_third_in_half_minutes(planned: float, more: float) -> None:
    assert more_time(stage(seconds=planned)) == more


class TestUpkeep:
    NOW = datetime(2026, 5, 4, 12, tzinfo=UTC)
    WHEEL, FLAP, PAPER = Item(1, "loose", name="no. 3"), Item(2, "flap-p180"), Item(3, "paper-p240")

    def test_wheels_and_abrasive_wheels_are_looked_after_sheets_and_what_is_retired_are_not(self) -> None:
        gone = replace(self.WHEEL, id=9, history=(ItemEvent("retired"),))
        found = looked_after(
            [(one, self.NOW) for one in (self.WHEEL, self.FLAP, self.PAPER, gone)], [], work=[], done=[], now=self.NOW
        )
        assert {one.key: one.on for one in found} == {"shop": "shop", "item:1": "wheel", "item:2": "abrasive-wheel"}
        assert next(one.label for one in found if one.key == "item:1") == "Loose cotton wheel, no. 3"
        assert next(one.label for one in found if one.key == "item:2") == "P180 flap wheel"

    def test_work_counts_for_the_item_it_was_done_with_and_for_the_shop(self) -> None:
        work = [(1, self.NOW, 60.0), (None, self.NOW - timedelta(days=2), 30.0)]
        found = {one.key: one for one in looked_after([(self.WHEEL, None)], [], work=work, done=[], now=self.NOW)}
        assert found["item:1"].worked == ((self.NOW, 60.0),)
        assert found["item:1"].since.year == 1
        assert [seconds for _, seconds in found["shop"].worked] == [60.0, 30.0]
        assert found["shop"].since == self.NOW - timedelta(days=2)

    def test_waxed_work_is_looked_after_and_what_was_done_is_known(self) -> None:
        done = [("run:7", "rewax", self.NOW)]
        (shop, waxed) = looked_after([], [(7, "rail", self.NOW)], work=[], done=done, now=self.NOW)
        assert (shop.since, shop.done) == (self.NOW, ())
        assert (waxed.key, waxed.label, waxed.on, waxed.done) == ("run:7", "rail", "waxed", (("rewax", self.NOW),))

    def test_what_is_due_comes_first(self) -> None:
        work = [(1, self.NOW - timedelta(hours=1), 1e6)]
        things = looked_after(
            [(self.WHEEL, self.NOW - timedelta(days=1)), (self.FLAP, self.NOW)], [], work=work, done=[], now=self.NOW
        )
        found = upkeep(things, self.NOW)
        assert found[0].now
        assert [one.now for one in found] == sorted((one.now for one in found), reverse=True)


class TestDoubt:
    """A step that is said to be over far too soon is asked about."""

    def asked(self, seconds: float, after: float, kind: str = "gone") -> str | None:
        bench = Bench(Layout(1, (stage(seconds=seconds), stage(step=2))))
        bench.tap("started")
        bench.tap(kind, after=after, **({"seconds": 30.0} if kind == "more" else {}))
        said = doubted(bench.run)
        return str(said) if said else None

    def test_a_slip_is_questioned_with_both_times(self) -> None:
        assert self.asked(43 * 60, 1) == "That was 0:01 of 43:00 planned. Are the old marks gone?"

    @pytest.mark.parametrize(
        ("seconds", "after", "kind"),
        [(600, 60, "gone"), (600, 400, "gone"), (59, 1, "gone"), (600, 1, "more"), (600, 1, "paused")],
    )
    def test_what_may_be_meant_is_not(self, seconds: float, after: float, kind: str) -> None:
        assert self.asked(seconds, after, kind) is None

    def test_a_tenth_is_the_border(self) -> None:
        assert self.asked(600, 59.9) is not None

    def test_nothing_is_asked_before_the_first_tap(self) -> None:
        assert doubted(Bench(Layout(1, (stage(seconds=600),))).run) is None
