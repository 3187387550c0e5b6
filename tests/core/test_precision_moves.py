"""Working to size: no move that may pass the limit, and a stop in time."""

import math
from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from attacking import many
from bores import worked_out
from kelbrast.core.precision.belief import Belief, chance_past, longest
from kelbrast.core.precision.move import finishing_stock, next_move, readings_needed, target_of
from kelbrast.core.precision.simulate import Hidden, Specimen
from kelbrast.core.precision.state import SizeState, SizingTool, WorkRound, follow
from kelbrast.core.precision.stop_sheet import SizingGrade, stop_sheet
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.sized import Gauge, Reading, RoundKind, RoundPart, SizeLimits

UM = 1e-6
RISK = constant("precision.risk").value
GAUGE = Gauge(2 * UM, 1 * UM)
LAP = SizingTool("F400", 2.5 * UM / 60, 0.7)
PLACES = [(z, phi) for z in (-0.015, 0.0, 0.015) for phi in (0.0, math.pi / 4, math.pi / 2, 3 * math.pi / 4)]


def part(kind: RoundKind = "bore", tolerance: float = 21, marks: float = 0.0) -> RoundPart:
    return RoundPart(kind, 40e-3, SizeLimits(20e-3, 20e-3 + tolerance * UM), marks * UM)


def standing(
    size_um: float, *, kind: RoundKind = "bore", tool: SizingTool = LAP, marks: float = 0.0, **form: float
) -> SizeState:
    """Measured everywhere without errors, `size_um` above 20 mm."""
    hidden = Hidden(20e-3 + size_um * UM, form.get("oval", 0.0) * UM, LAP.rate, taper=form.get("taper", 0.0) * UM)
    one = part(kind, marks=marks)
    exact = Specimen(one, hidden, Gauge(1e-12, 0.0), 1)
    return follow(one, [WorkRound(0.0, tool, exact.read(PLACES))], GAUGE)


@pytest.mark.parametrize(
    ("kind", "tolerance", "off"),
    [
        ("bore", 21, 1.0),
        ("shaft", 21, 1.0),
        pytest.param("bore", 33, 1.0, marks=pytest.mark.soak),
        ("bore", 21, 2.0),
        pytest.param("bore", 21, 0.5, marks=pytest.mark.soak),
    ],
)
def test_invented_parts_end_within_their_limits(kind: RoundKind, tolerance: float, off: float) -> None:
    done = [worked_out(seed, kind=kind, tolerance=tolerance, off=off) for seed in range(120)]
    ended = [one for one in done if one[0].action == "stop"]
    assert len(ended) >= 116
    assert sum(far > 0 for _, _, far, _ in done) <= 3
    assert sum(near < 0 for _, near, _, _ in ended) <= 2
    assert sorted(rounds for *_, rounds in done)[60] <= (5 if off == 1 else 6)


def test_the_rounds_stop_when_it_is_on_size() -> None:
    assert next_move(standing(10.5), GAUGE, risk=RISK).action == "stop"
    assert next_move(standing(10.5, kind="shaft"), GAUGE, risk=RISK).action == "stop"
    assert next_move(standing(-15.0), GAUGE, risk=RISK).action == "lap"
    assert next_move(standing(36.0, kind="shaft"), GAUGE, risk=RISK).action == "lap"


def test_what_is_past_the_limit_is_said_to_be() -> None:
    assert next_move(standing(30.0), GAUGE, risk=RISK).reason.code == "size.past"
    assert next_move(standing(-10.0, kind="shaft"), GAUGE, risk=RISK).reason.code == "size.past"
    assert next_move(standing(5.0, oval=50.0), GAUGE, risk=RISK).reason.code == "size.past-found"


def test_more_stock_than_a_lap_should_take_is_cut_first() -> None:
    assert next_move(standing(-49.0), GAUGE, risk=RISK).action == "lap"
    assert next_move(standing(-51.0), GAUGE, risk=RISK).action == "cut-again"


def test_a_coarse_lap_leaves_something_for_the_one_that_finishes() -> None:
    coarse = replace(LAP, leaves=4 * UM)
    assert next_move(standing(5.0, tool=coarse), GAUGE, risk=RISK).action == "finer"
    assert next_move(standing(2.0, tool=replace(coarse, leaves=10 * UM)), GAUGE, risk=RISK).action == "finer"
    assert next_move(standing(2.0, tool=coarse), GAUGE, risk=RISK).action == "lap"
    assert [round(finishing_stock(one * UM) / UM, 1) for one in (0.2, 1.1, 9.0)] == [3.0, 4.4, 5.0]


def test_a_taper_is_worked_off_with_short_strokes_first() -> None:
    move = next_move(standing(-15.0, taper=14.0), GAUGE, risk=RISK)
    assert move.action == "short-strokes"
    assert move.seconds <= 7 * UM / LAP.rate * (1 + 1e-9)
    assert dict(move.reason.values)["end"].code == "size.end-low"
    assert dict(next_move(standing(-15.0, taper=-14.0), GAUGE, risk=RISK).reason.values)["end"].code == "size.end-high"


def test_what_can_not_be_told_is_measured_first() -> None:
    read = (Reading(19.99e-3),)
    one = next_move(follow(part(), [WorkRound(0.0, LAP, read)], GAUGE), GAUGE, risk=RISK)
    assert (one.action, one.reason.code) == ("measure", "size.crosswise")
    across = (Reading(19.99e-3), Reading(19.99e-3, direction=math.pi / 2))
    one = next_move(follow(part(), [WorkRound(0.0, LAP, across)], GAUGE), GAUGE, risk=RISK)
    assert (one.action, one.reason.code) == ("measure", "size.ends")
    short = replace(part(), length=4e-3)
    assert next_move(follow(short, [WorkRound(0.0, LAP, across)], GAUGE), GAUGE, risk=RISK).action == "lap"


def test_a_gauge_that_can_not_tell_is_refused() -> None:
    assert next_move(standing(0.0), Gauge(2 * UM, 11 * UM), risk=RISK).reason.code == "size.gauge-too-coarse"


def test_near_the_end_it_is_read_again_and_then_left() -> None:
    narrow = RoundPart("bore", 40e-3, SizeLimits(20e-3, 20.0025e-3))
    gauge = Gauge(1 * UM, 1 * UM)
    read = tuple(Reading(20.0012e-3, z, phi) for z, phi in PLACES)
    rounds = [WorkRound(0.0, LAP, read)]
    codes = []
    for _ in range(3):
        codes.append(next_move(follow(narrow, rounds, gauge), gauge, risk=RISK).reason.code)
        rounds.append(WorkRound(0.0, LAP, read[:4]))
    assert codes == ["size.look-again", "size.look-again", "size.not-told"]


def test_a_lap_that_does_not_cut_is_set_out() -> None:
    read = tuple(Reading(19.985e-3, z, phi) for z, phi in PLACES)
    state = follow(part(), [WorkRound(0.0, LAP, read), WorkRound(600.0, LAP, read[:4])], GAUGE)
    move = next_move(state, GAUGE, risk=RISK)
    assert move.action == "expand"
    as_it_was = Belief(state.belief.size, math.log(LAP.rate), state.belief.var_size, 0.0, LAP.spread**2)
    assert move.seconds > 0
    assert (
        chance_past(as_it_was, seconds=move.seconds, limit=state.part.far - GAUGE.bias) < 0.1
    )  # should it cut as it first did


def test_the_target_is_where_all_of_it_is_clean_when_that_is_safe() -> None:
    size, clean = target_of(standing(-10.0, oval=10.0, marks=4.0), GAUGE)
    assert ((size - 20e-3) / UM, clean) == (pytest.approx(10.5, abs=0.1), True)
    size, clean = target_of(standing(-10.0, oval=26.0, marks=4.0), GAUGE)
    assert ((size - 20e-3) / UM, clean) == (pytest.approx(3 + 8 + 2, abs=0.3), True)
    size, clean = target_of(standing(-10.0, oval=56.0, marks=4.0), GAUGE)
    assert ((size - 20e-3) / UM, clean) == (pytest.approx(10.5, abs=0.1), False)


def test_a_finer_lap_keeps_what_was_learnt_of_the_hand() -> None:
    slow = [Reading(19.985e-3 + 5 * UM, z, phi) for z, phi in PLACES]
    first = WorkRound(0.0, LAP, tuple(Reading(19.985e-3, z, phi) for z, phi in PLACES))
    fine = replace(LAP, grade="F1200", rate=LAP.rate / 3)
    before = follow(part(), [first, WorkRound(240.0, LAP, tuple(slow))], GAUGE)
    after = follow(part(), [first, WorkRound(240.0, LAP, tuple(slow)), WorkRound(1.0, fine, ())], GAUGE)
    assert after.belief.rate == pytest.approx(before.belief.rate / 3, rel=1e-6)
    assert after.belief.var_log > before.belief.var_log
    assert after.tool == fine


def test_later_readings_count_where_the_tool_has_been() -> None:
    """The wide side of an oval still reads as it was found: taken for the size, it would stop far too soon."""
    hidden = Hidden(19.99e-3, 30 * UM, LAP.rate, drift=0.0)
    bench = Specimen(part(), hidden, Gauge(1e-12, 0.0), 1)
    rounds = [WorkRound(0.0, LAP, bench.read(PLACES))]
    bench.work(240.0)
    rounds.append(WorkRound(240.0, LAP, bench.read([(0.0, 0.0), (0.0, math.pi / 2)])))
    state = follow(part(), rounds, GAUGE)
    assert state.belief.size == pytest.approx(bench.cut, abs=1 * UM)


@settings(max_examples=many(20))
@given(st.floats(-30, -2), st.floats(0.2, 20), st.floats(0.1, 1.2), st.floats(0.3, 4))
def test_a_tighter_limit_never_gives_a_longer_move(size: float, rate: float, spread: float, sd: float) -> None:
    known = Belief(size * UM, math.log(rate * UM / 60), (sd * UM) ** 2, 0.0, spread**2)
    wide, tight = (longest(known, limit=limit * UM, risk=0.01) for limit in (20, 12))
    assert tight <= wide
    if_worked = chance_past(known, seconds=tight, limit=12 * UM) if tight else 0.0
    assert if_worked <= 0.01 * (1 + 1e-6)


@pytest.mark.parametrize(("repeatability", "tolerance", "count"), [(2, 21, 4), (2, 6, 4), (2, 4, 16), (5, 12, 4), (5, 8, 12)])
def test_how_many_readings_a_round_needs(repeatability: float, tolerance: float, count: int) -> None:
    assert readings_needed(tolerance=tolerance * UM, repeatability=repeatability * UM, bias=1 * UM) == count


def test_a_stop_sheet_leaves_every_grade_what_clears_the_one_before() -> None:
    way = [SizingGrade("file", 9 * UM, 1.8), SizingGrade("P240", 3 * UM, 1.9), SizingGrade("P400", 1 * UM, 2.0)]
    read = {one.grade: one.diameter for one in stop_sheet(way, target=14e-3, sign=-1)}
    assert read["P400"] == 14e-3
    assert read["P240"] - read["P400"] == pytest.approx(2 * 2.0 * 3 * UM)
    assert read["file"] - read["P240"] == pytest.approx(2 * 1.9 * 9 * UM)
    capped = {one.grade: one.diameter for one in stop_sheet(way, target=14e-3, sign=1, least=3 * UM, most=5 * UM)}
    assert capped["P240"] == pytest.approx(14e-3 - 5 * UM)
    assert capped["file"] == pytest.approx(14e-3 - 10 * UM)
