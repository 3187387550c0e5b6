"""The file of a part that is worked to size: read, refused by name, and answered."""

import json
from collections.abc import Callable
from typing import Any

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from attacking import many
from kelbrast.app.sizing import size_answer
from kelbrast.core.errors import BadInput
from kelbrast.core.units import from_si, to_si
from kelbrast.documents.size.answer import SizeAnswer, size_text
from kelbrast.documents.size.format import check_size_file, part_of, read_size_file, rounds_of

READ = [
    {"z_mm": z, "phi_deg": phi, "mm": 19.987 + (0.006 if phi == 90 else -0.006 if phi == 0 else 0)}
    for z in (-15, 0, 15)
    for phi in (0, 45, 90, 135)
]
BUSH: dict[str, Any] = {
    "kelbrast": "size/1",
    "title": "Tide gauge bush",
    "material": "bronze",
    "kind": "bore",
    "length_mm": 40,
    "want": {"limits_mm": [20.0, 20.021]},
    "marks_um": 2,
    "gauge": {"repeatability_um": 2},
    "lap": {"grade": "F400", "material": "aluminium", "length_mm": 45, "split": "single"},
    "spindle_rpm": 300,
    "rounds": [{"worked_s": 0, "readings": READ}],
}
SHAFT = {
    **{key: value for key, value in BUSH.items() if key not in ("lap", "spindle_rpm")},
    "kind": "shaft",
    "material": "stainless-304",
    "want": {"nominal_mm": 20, "class": "g6"},
    "lathe": {"cutting_speed_m_min": 15, "turned_by": "file"},
    "rounds": [{"readings": [{**one, "mm": one["mm"] + 0.06} for one in READ]}],
}


def test_a_bush_is_answered() -> None:
    found = size_answer(check_size_file(BUSH))
    assert found.form.size_mm == pytest.approx(19.987, abs=1e-4)
    assert found.form.oval_um == pytest.approx(12.0, abs=0.5)
    assert found.form.taper_um == pytest.approx(0.0, abs=1e-6)
    assert found.form.widest_deg == pytest.approx(90)
    assert found.now_mm == pytest.approx(19.981, abs=5e-4)
    assert (found.left_um.near, found.left_um.far) == (pytest.approx(19, abs=0.5), pytest.approx(40, abs=0.5))
    assert found.can_be_had.all_round
    assert found.next.move == "lap"
    assert 0 < found.next.seconds < 600
    assert found.next.chance_past_limit <= 0.003 * (1 + 1e-6)
    assert [one.grade for one in found.stop_sheet] == ["F400", "F1200"]
    assert found.stop_sheet[-1].read_mm == pytest.approx(found.target_mm)
    assert 3e-3 <= found.stop_sheet[1].read_mm - found.stop_sheet[0].read_mm <= 5e-3 + 1e-9
    assert found.rate_um_min.low < found.rate_um_min.likely < found.rate_um_min.high


def test_a_shaft_in_the_lathe_goes_down_grade_by_grade() -> None:
    found = size_answer(check_size_file(SHAFT))
    assert found.limits_mm == (pytest.approx(19.98), pytest.approx(19.993))
    assert found.next.move == "lap"
    assert [one.grade for one in found.stop_sheet] == ["file", "P240", "P320", "P400", "P600"]
    sizes = [one.read_mm for one in found.stop_sheet]
    assert sizes == sorted(sizes, reverse=True)
    assert sizes[-1] == pytest.approx(found.target_mm)


def test_after_rounds_the_rate_is_better_known() -> None:
    worked = {"worked_s": 180, "readings": [{"mm": 19.986, "phi_deg": 0}, {"mm": 19.986, "phi_deg": 180}]}
    before, after = (
        size_answer(check_size_file(BUSH)),
        size_answer(check_size_file({**BUSH, "rounds": [*BUSH["rounds"], worked]})),
    )
    assert after.now_mm == pytest.approx(19.9855, abs=1e-3)
    assert after.rate_um_min.high / after.rate_um_min.low < before.rate_um_min.high / before.rate_um_min.low


def test_warm_readings_are_brought_to_the_gauge() -> None:
    warm = [{**one, "at_c": 30.0} for one in READ]
    file = check_size_file({**BUSH, "gauge_c": 20.0, "rounds": [{"readings": warm}]})
    cool = rounds_of(check_size_file(BUSH))[0].readings
    expected = [one.diameter - 20e-3 * 18e-6 * 10 for one in cool]
    assert [reading.diameter for reading in rounds_of(file)[0].readings] == pytest.approx(expected, abs=1e-8)
    ungauged = check_size_file({**BUSH, "rounds": [{"readings": warm}]})
    assert rounds_of(ungauged)[0].readings == cool


@pytest.mark.parametrize(("at", "gauge", "cools"), [(20.5, 20, False), (30, 20, False), (95, 20, True), (-40, 35, True)])
def test_what_is_too_warm_to_be_told_cools_first(at: float, gauge: float, cools: bool) -> None:
    # At 75 K apart 5 % of the growth and a kelvin leave 1.7 um of 20 mm of bronze in doubt, and the gauge 1.2.
    warm = [{**one, "mm": one["mm"] * (1 + 18e-6 * (at - gauge)), "at_c": float(at)} for one in READ]
    change = {"gauge_c": float(gauge), "gauge": {"repeatability_um": 1.2}, "rounds": [{"readings": warm}]}
    move = size_answer(check_size_file({**BUSH, **change})).next
    assert (move.move == "cool") == cools
    assert not cools or (move.seconds, move.readings) == (0, 4)


@pytest.mark.parametrize(
    ("want", "kind", "limits"),
    [
        ({"limits_mm": [20.0, 20.021]}, "bore", (20.0, 20.021)),
        ({"nominal_mm": 20, "deviation_um": [-20, -7]}, "shaft", (19.98, 19.993)),
        ({"nominal_mm": 20, "class": "H7"}, "bore", (20.0, 20.021)),
        ({"nominal_mm": 14, "class": "g6"}, "shaft", (13.983, 13.994)),
        ({"mate_mm": 13.99, "clearance_um": [5, 20]}, "bore", (13.995, 14.01)),
        ({"mate_mm": 14.01, "clearance_um": [5, 20]}, "shaft", (13.99, 14.005)),
    ],
)
def test_what_is_wanted_in_every_way(want: dict[str, Any], kind: str, limits: tuple[float, float]) -> None:
    file = check_size_file({**BUSH, "want": want, "kind": kind})
    wanted = part_of(file).wanted
    assert (wanted.low * 1e3, wanted.high * 1e3) == pytest.approx(limits)


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"want": {"nominal_mm": 20}}, "want"),
        ({"want": {"limits_mm": [20.0, 20.021], "nominal_mm": 20}}, "want"),
        ({"want": {"limits_mm": [20.021, 20.0]}}, "want"),
        ({"want": {"nominal_mm": 20, "class": "g6"}}, "want.class"),
        ({"want": {"nominal_mm": 20, "class": "X6"}}, "want.class"),
        ({"want": {"nominal_mm": 400, "class": "H7"}}, "want.nominal_mm"),
        ({"material": "cheese"}, "material"),
        ({"kind": "hole"}, "kind"),
        ({"lap": {"grade": "rough"}}, "lap.grade"),
        ({"lap": None}, ""),
        ({"lathe": {"turned_by": "file"}}, ""),
        ({"rounds": []}, "rounds"),
        ({"rounds": [{"worked_s": 30, "readings": READ}]}, "rounds[0]"),
        ({"rounds": [{"readings": []}]}, "rounds[0]"),
        ({"rounds": [{"readings": [{"mm": 25.4}]}]}, "rounds[0].readings[0].mm"),
        ({"rounds": [{"readings": [{"mm": 20.0, "z_mm": 21}]}]}, "rounds[0].readings[0].z_mm"),
        ({"rounds": [{"readings": [{"mm": float("inf")}]}]}, "rounds[0].readings[0].mm"),
        ({"gauge": {"repeatability_um": 0}}, "gauge.repeatability_um"),
        ({"pass_risk": 0.9}, "pass_risk"),
        ({"spindle_rpm": 0.5}, "spindle_rpm"),
        ({"lap": {"grade": "0.000001um"}}, "lap.grade"),
        ({"lenght_mm": 3}, "lenght_mm"),
    ],
)
def test_what_is_wrong_is_named(change: dict[str, Any], field: str) -> None:
    with pytest.raises(BadInput) as refused:
        size_answer(check_size_file({**BUSH, **change}))
    assert refused.value.faults[0].field == field


@pytest.mark.parametrize("text", ["", "[]", "{}", '{"kelbrast": "job/2"}', "nonsense"])
def test_what_is_no_size_file_is_refused(text: str) -> None:
    with pytest.raises(BadInput):
        read_size_file(text)


def test_the_text_says_all_of_it() -> None:
    told = size_text(size_answer(read_size_file(json.dumps(BUSH))))
    for words in (
        "Wanted 20.0000 to 20.0210 mm",
        "oval 1",
        "cannot tell: Three lobes",
        "NEXT: lap",
        "readings; chance",
        "after F1200",
    ):
        assert words in told
    assert part_of(check_size_file(BUSH)).marks == pytest.approx(2e-6)


@settings(max_examples=many(10))
@given(size=st.floats(0.7864, 0.7874), oval=st.floats(0.0, 0.0008), worked=st.floats(20.0, 400.0), grown=st.floats(0.0, 0.0004))
def test_metric_and_inch_give_the_same_move(size: float, oval: float, worked: float, grown: float) -> None:
    """What an inch gauge shows, taken in by the program's own door, against the same by hand at 25.4 mm an inch."""

    def moved(mm: Callable[[float], float]) -> SizeAnswer:
        around = [mm(round(size + (oval if turn % 2 else 0.0), 5)) for turn in range(4)]
        first = [{"z_mm": z, "phi_deg": 45 * turn, "mm": around[turn]} for z in (-15, 0, 15) for turn in range(4)]
        later = [{"phi_deg": 0, "mm": mm(round(size + grown, 5))}]
        rounds = [{"worked_s": 0, "readings": first}, {"worked_s": worked, "readings": later}]
        want = {"limits_mm": [mm(0.78740), mm(0.78823)]}
        return size_answer(check_size_file({**BUSH, "want": want, "rounds": rounds}))

    by_door, by_hand = moved(lambda inch: from_si(to_si(inch, "in"), "mm")), moved(lambda inch: round(inch * 25.4, 7))
    assert by_door.next.move == by_hand.next.move
    assert by_door.next.seconds == pytest.approx(by_hand.next.seconds, rel=1e-3, abs=1e-3)
