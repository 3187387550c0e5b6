"""Small changes of the code that nobody would have noticed: each has a test that would."""

import math
from dataclasses import replace
from itertools import permutations

import numpy as np
import pytest

from benching import Bench, stage
from kelbrast.core.bench.events import Measured
from kelbrast.core.bench.observed import Planned, observed, way_of
from kelbrast.core.bench.run import Layout
from kelbrast.core.bench.told import tell
from kelbrast.core.catalogue.machines import Machine, machine
from kelbrast.core.catalogue.materials import families
from kelbrast.core.catalogue.tools import speed_bands, tool
from kelbrast.core.errors import BadInput
from kelbrast.core.learning.factors import Yours
from kelbrast.core.metrology.cutoff import cut_offs
from kelbrast.core.metrology.evaluate import evaluate
from kelbrast.core.metrology.profile import Profile
from kelbrast.core.planning.face.step_figures import step_figures
from kelbrast.core.planning.kernel.step_table import TIME
from kelbrast.core.planning.whole.plan import plan_job
from kelbrast.core.process.removal import contact_kept
from kelbrast.core.rack.item import Item, ItemEvent, Taken, effects, taken_since
from kelbrast.core.rack.offer import offer
from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.book import usable
from kelbrast.core.surface.part import Part
from kelbrast.core.tooling.tool_context import ToolContext
from kelbrast.core.tooling.tool_on_face import tools_on_face
from kelbrast.core.tooling.working_conditions import choose_drive
from making import UM, face, job


def place_of(stuff: str, **more) -> ToolContext:
    one = face(more.pop("want", "bright"), after="P2500", **more)
    return ToolContext.of(one, job(stuff, one))


class TestMachineChoice:
    """The machine that works a tool fastest, inside its band before below it, and brought before too big."""

    def turning(self, name: str, surface: float, **more) -> Machine:
        """A bench buffer that gives a new felt wheel this surface speed, m/s."""
        diameter = tool("felt-white").carrier.running.diameter
        assert diameter is not None
        return replace(machine("bench-buffer"), id=name, settings=(surface / (math.pi * diameter),), **more)

    def test_inside_the_band_before_below_it_before_none(self) -> None:
        low, high = speed_bands()["cut", "copper-alloy"]
        assert tool("felt-white").carrier.running.band == "cut"
        inside = self.turning("inside", (low + min(high, 35.0)) / 2, contact=0.2)
        below = self.turning("below", 0.75 * low, contact=0.9)
        none = self.turning("none", 0.45 * low, contact=1.0)
        for available in permutations((inside, below, none)):
            drive = choose_drive(tool("felt-white"), available, place_of("brass"))
            assert drive is not None
            assert (drive.machine.id, drive.suited, drive.setting.below_band) == ("inside", True, False)
        for available in permutations((below, none)):
            drive = choose_drive(tool("felt-white"), available, place_of("brass"))
            assert drive is not None
            assert (drive.machine.id, drive.suited, drive.setting.below_band) == ("below", True, True)
        drive = choose_drive(tool("felt-white"), (none,), place_of("brass"))
        assert drive is not None
        assert not drive.suited
        assert drive.setting.surface == machine("hand").stroke

    def test_the_steadier_of_two_that_turn_alike(self) -> None:
        one = machine("bench-buffer")
        shaky = replace(one, id="shaky", contact=one.contact / 2)
        drive = choose_drive(tool("felt-white"), (shaky, one), place_of("brass"))
        assert drive is not None
        assert drive.machine.id == one.id

    def test_what_can_be_brought_comes_before_what_is_faster(self) -> None:
        one = face("bright", after="P2500", area=0.5)
        context = ToolContext.of(one, job("brass", one, carried=False))
        standing, in_hand = machine("bench-buffer"), replace(machine("bench-buffer"), id="hand-held", stands=False, contact=0.1)
        drive = choose_drive(tool("felt-white"), (standing, in_hand), context)
        assert drive is not None
        assert drive.machine.id == "hand-held"


def test_in_a_bore_the_contact_is_less() -> None:
    """Q = eta K F v / H with the smaller of the machine's contact and removal.bore_contact: hand calculation."""
    bore = face("satin", depth=10, reach="inside", inside_radius=0.02)
    for on in tools_on_face(ToolContext.of(bore, job("brass", bore))):
        kept = contact_kept(ToolContext.of(bore, job("brass", bore)).too_small_for(on.tool))
        eta = min(on.machine.contact * kept, constant("removal.bore_contact").value)
        by_hand = eta * on.tool.wear * on.working.force * on.setting.surface / 1.3e9
        hardness = ToolContext.of(bore, job("brass", bore)).material.hardness
        assert on.rate == pytest.approx(by_hand * 1.3e9 / hardness)


def test_the_grit_of_the_grade_before_is_washed_off_and_there_is_none_before_the_first() -> None:
    one = face("bright", depth=20)
    planned = job("brass", one)
    figures = step_figures(one, planned, usable)
    tools, wash, check = figures.surfaces.toolset, constant("work.wash").si, constant("work.check").si
    after, first = figures.met.after, figures.graph.before == 0
    busy = figures.cut + figures.rests * figures.warm.rest + (figures.used - 1) * tools.change[after] + tools.setup[after]
    assert 0 < first.sum() < len(first)
    np.testing.assert_allclose(figures.values[TIME][first], (busy + check)[first])
    np.testing.assert_allclose(figures.values[TIME][~first], (busy + check + wash)[~first])


def test_changing_a_dead_abrasive_costs_its_time_and_its_price_as_bench_time() -> None:
    """At 30 an hour a disc of 0.60 costs 72 s more than the change itself: hand calculation."""
    one = face("satin", depth=20)
    for on in tools_on_face(ToolContext.of(one, job("brass", one))):
        stock = on.tool.carrier.stock
        assert on.change_cost == pytest.approx(stock.change + stock.price / 30 * 3600)


@pytest.mark.parametrize(
    ("stuff", "want", "part", "protection"),
    [
        ("brass", "mirror", Part(), families()["copper-alloy"].protection),
        ("brass", "mirror", Part(protect="none"), None),
        ("brass", "mirror", Part(protect="wax"), "wax"),
        ("mild-steel", "paint-ready", Part(), None),
        ("acrylic", "mirror", Part(), None),
    ],
)
def test_when_a_protection_applies(stuff: str, want: str, part: Part, protection: str | None) -> None:
    one = face(want, depth=20)
    made = plan_job(job(stuff, one, part=part))
    found = [each for each in made.operations if each.id in ("lacquer", "wax", "oil")]
    assert [each.id for each in found] == ([protection] if protection else [])
    within = families()["copper-alloy"].protect_within
    assert [each.within for each in found] == ([within] if protection else [])


def test_a_face_that_needs_no_work_gets_no_finishing() -> None:
    made = plan_job(job("brass", face("brushed-coarse", after="P120", keep_off=True)))
    assert not {operation.id for operation in made.operations} & {"lacquer", "compare", "residue-ultrasonic"}


def plans_of(**more) -> dict[tuple[str, int, int], Planned]:
    figures = {"carrier": "paper", "family": "copper-alloy", "seconds": 60.0, "life": None, "change_after": None, "takes": 20 * UM,
               "leaves_ra": 0.5 * UM, "guessed": True, "shape": None, "yours": Yours()}  # fmt: skip
    return {("barrel", 0, step): Planned(**{**figures, **more}) for step in (1, 2)}


def measured_after(bench: Bench, value: float, step: int = 1, quantity: str = "size") -> None:
    bench.tap("measured", measured=Measured(quantity, value, "middle"), piece=1, stage=("barrel", 0, step))


def test_a_reading_in_the_middle_of_a_step_speaks_of_the_share_that_was_worked() -> None:
    """54 of 60 s were worked between the readings: nine tenths of 20 um were expected, and 27 um went: 1.5."""
    bench = Bench(Layout(1, (stage(step=1), stage(step=2))))
    measured_after(bench, 25.0e-3)
    bench.tap("started")
    bench.tap("paused", after=54)
    measured_after(bench, 24.973e-3)
    bench.tap("started")
    bench.tap("gone", after=6)
    bench.tap("skipped", words="enough")
    bench.tap("finished", well=True)
    (said,) = observed(bench.run, plans_of(), run_id=1)
    assert said.ratio == pytest.approx(1.5)


def test_a_coat_is_read_from_one_side_whatever_the_shape() -> None:
    bench = Bench(Layout(1, (stage(step=1), stage(step=2))))
    measured_after(bench, 120 * UM, quantity="coat")
    bench.do(60)
    measured_after(bench, 90 * UM, step=2, quantity="coat")
    bench.tap("skipped", words="enough")
    bench.tap("finished", well=True)
    (said,) = observed(bench.run, plans_of(shape="cylinder"), run_id=1)
    assert said.ratio == pytest.approx(1.5)  # 30 um, not 15


def test_the_noise_limit_is_that_of_its_cut_off() -> None:
    """ISO 3274 table 1 (from memory): 0.8 mm goes with 2.5 um, 2.5 mm with 8 um; none where the points lie too far apart."""
    assert {round(row.cut_off * 1e3, 2): round(row.noise * 1e6, 1) for row in cut_offs()} == {
        0.08: 2.5,
        0.25: 2.5,
        0.8: 2.5,
        2.5: 8.0,
        8.0: 25.0,
    }
    z = np.random.default_rng(5).standard_normal(20_000) * 1e-6
    assert evaluate(Profile(z, 1.0e-6), cut_off=0.8e-3).noise == pytest.approx(2.5e-6)
    assert evaluate(Profile(z, 1.25e-6), cut_off=0.8e-3).noise == pytest.approx(2.5e-6)  # just twice in it
    assert evaluate(Profile(z, 1.26e-6), cut_off=0.8e-3).noise is None
    assert evaluate(Profile(z, 1.0e-6), cut_off=2.5e-3).noise == pytest.approx(8e-6)


class TestTheRack:
    WHEEL, BAR = Item(1, "loose"), Item(2, "white", count=3)

    def test_using_a_fresh_wheel_commits_it(self) -> None:
        fresh = next(tool for tool in offer([self.WHEEL, self.BAR], "steel").tools if tool.tool == "loose-white")
        used = replace(self.WHEEL, history=(ItemEvent("used", charge="white", family="steel"),))
        bound = next(tool for tool in offer([used, self.BAR], "steel").tools if tool.tool == "loose-white")
        assert (fresh.commits, bound.commits) == (True, False)

    def test_of_two_wheels_the_bound_one_is_taken(self) -> None:
        used = replace(self.WHEEL, id=7, history=(ItemEvent("used", charge="white", family="steel"),))
        for items in ([self.WHEEL, used, self.BAR], [used, self.WHEEL, self.BAR]):
            assert next(tool for tool in offer(items, "steel").tools if tool.tool == "loose-white").item == 7

    def test_what_use_does(self) -> None:
        bars = {"white": 2}
        assert effects(tool("loose-white"), 1, 0.5, "steel", bars) == [
            (1, ItemEvent("used", charge="white", family="steel")),
            (2, ItemEvent("stock", amount=-0.5)),
        ]
        assert effects(tool("loose-white"), 1, 0.5, "steel", {}) == [(1, ItemEvent("used", charge="white", family="steel"))]
        assert effects(tool("lap-9um"), 3, 0.5, "steel", bars) == [(3, ItemEvent("used", charge="9um", family="steel"))]
        assert effects(tool("paper-p240"), 4, 1.25, "steel", bars) == [(4, ItemEvent("stock", amount=-1.25))]
        assert effects(tool("paper-p240"), 4, 0.0, "steel", bars) == []

    def test_a_tap_taken_back_gives_the_stock_back_and_keeps_the_wheel_bound(self) -> None:
        of = {"items": {"loose-white": 1, "paper-p240": 4}, "family": "steel", "bars": {"white": 2}}
        worn = {"loose-white": 0.5, "paper-p240": 1.0, "not-of-the-rack": 9.0}
        first, told = taken_since(Taken(), worn, touched={"loose-white"}, **of)
        assert first == Taken({"loose-white": 0.5, "paper-p240": 1.0}, ("loose-white",))
        assert [(item, event.kind, event.amount) for item, event in told] == [
            (1, "used", 0.0),
            (2, "stock", -0.5),
            (4, "stock", -1.0),
        ]
        again, told = taken_since(first, worn, touched={"loose-white"}, **of)
        assert (again, told) == (first, [])
        less, told = taken_since(first, {"paper-p240": 0.25}, touched=set(), **of)
        assert less == Taken({"paper-p240": 0.25}, ("loose-white",))
        assert [(item, event.kind, event.amount) for item, event in told] == [(4, "stock", 0.75), (2, "stock", 0.5)]


class TestTaps:
    def test_a_mark_that_is_accepted_changes_nothing_but_the_log(self) -> None:
        bench = Bench()
        bench.tap("started")
        before = bench.run
        after = bench.tap("accepted", after=60, depth=4 * UM)
        assert (after.current, after.works, after.stages) == (before.current, before.works, before.stages)
        assert after.standing[-1].depth == pytest.approx(4 * UM)
        assert "4" in str(tell(bench.run.layout, bench.events)[-1].said)

    def test_only_the_step_in_hand_can_be_accepted(self) -> None:
        bench = Bench()
        with pytest.raises(BadInput):
            bench.tap("accepted", depth=4 * UM, piece=1, stage=("flange", 0, 1))

    def test_a_run_that_is_stopped_keeps_its_time_and_is_over(self) -> None:
        bench = Bench()
        bench.tap("started")
        bench.tap("stopped", after=40, words="the light went")
        assert bench.run.status == "stopped"
        assert bench.run.work(1, bench.run.stages[1][0]).seconds == pytest.approx(40)
        assert "the light went" in " ".join(str(one.said) for one in tell(bench.run.layout, bench.events))
        with pytest.raises(BadInput):
            bench.tap("started")


class TestHouseWay:
    JOB = job("brass", replace(face("mirror", depth=30), name="barrel"))

    def finished(self, *seconds: float, well: bool = True) -> Bench:
        bench = Bench(Layout(len(seconds), (stage(step=1, tool="paper-p400"),)))
        for one in seconds:
            bench.do(one)
        bench.tap("finished", well=well)
        return bench

    def test_it_is_the_route_with_the_median_of_its_pieces(self) -> None:
        way = way_of(self.finished(50.0, 90.0, 70.0).run, self.JOB, "barrel", " plates ")
        assert (way.name, way.route, way.family, way.finish, way.kind) == (
            "plates",
            ("paper-p400",),
            "copper-alloy",
            "mirror",
            "scratches",
        )
        assert way.seconds == pytest.approx(70.0)
        assert way.metal == pytest.approx(20 * UM)
        assert way.depth == pytest.approx(30 * UM)

    def test_of_two_pieces_the_slower_counts(self) -> None:
        assert way_of(self.finished(50.0, 90.0).run, self.JOB, "barrel", "x").seconds == pytest.approx(90.0)

    @pytest.mark.parametrize(
        ("seconds", "well", "face_name", "name", "field"),
        [
            ((60.0,), True, "barrel", "  ", "name"),
            ((60.0,), False, "barrel", "x", "run"),
            ((60.0,), True, "lid", "x", "face"),
            ((5.9,), True, "barrel", "x", "face"),
        ],
    )
    def test_what_can_not_become_one_is_refused(self, seconds, well, face_name, name, field) -> None:
        with pytest.raises(BadInput) as refused:
            way_of(self.finished(*seconds, well=well).run, self.JOB, face_name, name)
        assert refused.value.faults[0].field == field

    def test_a_tenth_of_the_planned_time_is_enough(self) -> None:
        assert way_of(self.finished(6.0).run, self.JOB, "barrel", "x").seconds == pytest.approx(6.0)
