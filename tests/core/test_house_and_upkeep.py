"""House ways are offered where they fit; upkeep falls due by work and by the calendar."""

from datetime import UTC, datetime, timedelta

import pytest

from kelbrast.core.catalogue.damages import faults_of_work
from kelbrast.core.planning.questions.house import HouseWay, kind_of_find, offers
from kelbrast.core.rack.upkeep import LookedAfter, cares, upkeep
from making import UM, face, job, plan

NOW = datetime(2026, 6, 1, 12, tzinfo=UTC)


def way(**more) -> HouseWay:
    computed = plan("naval-brass", face("bright"))
    figures = {
        "id": 1, "name": "ours", "family": "copper-alloy", "finish": "bright", "kind": "scratches", "reach": "open",
        "depth": 20 * UM, "area": 0.01, "seconds": 300.0, "metal": computed.metal,
        "route": tuple(step.tool.id for step in computed.steps),
    }  # fmt: skip
    return HouseWay(**{**figures, **more})


def test_a_house_way_is_offered_with_its_own_figures_by_area() -> None:
    larger = face("bright", area=0.02)
    (offer,) = offers(larger, job("naval-brass", larger), [way()])
    assert offer.seconds_by_log == pytest.approx(600)
    assert tuple(step.tool.id for step in offer.plan.steps) == way().route


@pytest.mark.parametrize(
    "other",
    [
        {"family": "steel"},
        {"finish": "satin"},
        {"kind": "pits"},
        {"reach": "tight"},
        {"depth": 5 * UM},
        {"route": ("file-bastard",)},
    ],
)
def test_it_is_not_offered_for_another_kind_of_face(other) -> None:
    one = face("bright")
    assert offers(one, job("naval-brass", one), [way(**other)]) == []


def test_the_quickest_by_the_log_comes_first() -> None:
    one = face("bright")
    found = offers(one, job("naval-brass", one), [way(id=1), way(id=2, seconds=200.0)])
    assert [offer.way.id for offer in found] == [2, 1]


def test_the_marks_of_a_grade_are_a_kind_of_their_own() -> None:
    assert kind_of_find(face("bright", after="P240")) == "after"


def wheel(**more) -> LookedAfter:
    return LookedAfter("item:1", "Loose wheel", "wheel", NOW - timedelta(days=30), **more)


def due(thing: LookedAfter, care: str, now: datetime = NOW):
    return next(one for one in upkeep([thing], now) if one.care.id == care)


def test_a_wheel_is_raked_after_so_much_work_and_counts_anew_when_it_was_done() -> None:
    worked = ((NOW - timedelta(days=2), 2000.0), (NOW - timedelta(days=1), 2000.0))
    assert due(wheel(worked=worked), "rake").now
    raked = due(wheel(worked=worked, done=(("rake", NOW - timedelta(days=1, hours=12)),)), "rake")
    assert not raked.now
    assert raked.worked == 2000
    assert not due(wheel(), "rake").now  # never used, never due


def test_the_calendar_counts_too() -> None:
    shop = LookedAfter("shop", "The workshop", "shop", NOW - timedelta(days=100))
    assert due(shop, "filters").now  # a quarter is over, without any work
    assert due(shop, "filters", NOW - timedelta(days=30)).on_day == NOW - timedelta(days=10)
    assert not due(shop, "touch-up").now  # no work, nothing to touch up
    used = LookedAfter("shop", "The workshop", "shop", NOW - timedelta(days=100), worked=((NOW - timedelta(days=2), 60.0),))
    assert due(used, "touch-up").now


def test_the_newest_care_counts_and_only_its_own_kind() -> None:
    raked = (("rake", NOW - timedelta(days=3)), ("rake", NOW - timedelta(days=1)), ("true", NOW - timedelta(hours=1)))
    worked = ((NOW - timedelta(days=2), 3000.0), (NOW - timedelta(hours=5), 1000.0))
    found = due(wheel(worked=worked, done=raked), "rake")
    assert (found.last, found.worked, found.now) == (NOW - timedelta(days=1), 1000.0, False)
    assert due(wheel(worked=((NOW - timedelta(hours=5), 3600.0),)), "rake").now  # the hour is full: due, not a moment later
    assert not due(wheel(worked=((NOW - timedelta(hours=5), 3599.0),)), "rake").now


def test_either_work_or_the_calendar_makes_it_due() -> None:
    busy = LookedAfter(
        "shop", "The workshop", "shop", NOW - timedelta(days=5), worked=((NOW - timedelta(days=1), 20 * 3600.0),)
    )
    assert due(busy, "filters").now  # twenty hours within a week
    idle = LookedAfter("shop", "The workshop", "shop", NOW - timedelta(days=90))
    assert due(idle, "filters").now  # the very day
    assert not due(idle, "filters", NOW - timedelta(seconds=1)).now


def test_hand_tools_are_due_a_day_after_the_first_work_since() -> None:
    days = tuple((NOW - timedelta(days=at), 60.0) for at in (3, 2, 1))
    shop = LookedAfter(
        "shop", "The workshop", "shop", NOW - timedelta(days=9), days, (("touch-up", NOW - timedelta(days=2, hours=12)),)
    )
    found = due(shop, "touch-up")
    assert found.on_day == NOW - timedelta(days=1)  # a day after the work of two days ago, the first since it was done
    assert found.now


def test_waxed_work_asks_for_new_wax() -> None:
    waxed = LookedAfter("run:3", "Collar", "waxed", NOW - timedelta(days=200))
    assert due(waxed, "rewax").now
    assert not due(waxed, "rewax", NOW - timedelta(days=100)).now


def test_what_is_due_stands_first() -> None:
    order = upkeep([wheel(worked=((NOW, 4000.0),)), LookedAfter("shop", "The workshop", "shop", NOW)], NOW)
    assert order[0].care.id == "rake"
    assert [one.now for one in order] == sorted((one.now for one in order), reverse=True)


def test_every_care_says_when_and_every_fault_says_what_to_do() -> None:
    assert all(care.after or care.every for care in cares().values())
    assert all(fault.why and fault.cure and fault.avoid for fault in faults_of_work().values())
