"""A shaft and its bore: the clearance, which of them to take, and the laps of the rack for it."""

import math

import pytest

from kelbrast.core.catalogue.grades import parse_grade
from kelbrast.core.precision.lap import laps_at_hand
from kelbrast.core.precision.pair import Mate, Pair, pair_up
from kelbrast.core.precision.state import SizingTool, WorkRound, follow
from kelbrast.core.rack.item import Item, ItemEvent
from kelbrast.core.surface.sized import Gauge, Reading, RoundKind, RoundPart, SizeLimits

UM = 1e-6
GAUGE = Gauge(0.5 * UM, 0.2 * UM)
LIMITS = {"bore": (14e-3, 14.018e-3), "shaft": (13.983e-3, 13.994e-3)}


def mate(
    kind: RoundKind, size_mm: float, *, oval: float = 0.0, rate: float = 4e-8, gauge: Gauge = GAUGE, alpha: float = 18e-6
) -> Mate:
    places = [(z, phi) for z in (0.0, -10e-3, 10e-3) for phi in (0.0, math.pi / 4, math.pi / 2, 3 * math.pi / 4)]
    read = tuple(Reading(size_mm * 1e-3 + oval / 2 * math.cos(2 * phi), z, phi) for z, phi in places)
    part = RoundPart(kind, 30e-3, SizeLimits(*LIMITS[kind]))
    return Mate(follow(part, [WorkRound(0.0, SizingTool("F400", rate, 0.7), read)], gauge), gauge, alpha)


def pair(bore: Mate, shaft: Mate, least: float = 6.0, most: float = 24.0) -> Pair:
    return pair_up(bore, shaft, least=least * UM, most=most * UM)


def test_the_clearance_of_two_round_parts_is_the_difference_of_their_diameters() -> None:
    found = pair(mate("bore", 14.005), mate("shaft", 13.990))
    assert (found.least / UM, found.most / UM) == pytest.approx((15, 15), abs=0.5)
    assert (found.verdict, found.takes) == ("fits", ())


def test_an_oval_takes_from_the_least_and_gives_to_the_most() -> None:
    found = pair(mate("bore", 14.005, oval=8 * UM), mate("shaft", 13.990, oval=4 * UM))
    assert found.most - found.least == pytest.approx(12 * UM, abs=1 * UM)
    assert found.least == pytest.approx((15 - 6) * UM, abs=0.6 * UM)


def test_too_tight_the_one_with_room_is_taken_to_the_middle_of_the_clearance() -> None:
    found = pair(mate("bore", 14.001), mate("shaft", 13.999))
    (take,) = found.takes
    assert found.verdict == "tight"
    assert take.until - 13.999e-3 == pytest.approx(15 * UM, abs=0.5 * UM)
    assert (take.kind, take.why.code) == ("bore", "pair.quicker")


def test_the_quicker_of_two_equals_and_the_one_that_is_out_of_round_first() -> None:
    quick = mate("shaft", 13.999, rate=8e-8)
    assert pair(mate("bore", 14.001), quick).takes[0].kind == "shaft"
    egg = mate("bore", 14.003, oval=9 * UM, rate=1e-8)
    (take,) = pair(egg, quick).takes
    assert (take.kind, take.why.code) == ("bore", "pair.uneven")


def test_only_one_has_room() -> None:
    (take,) = pair(mate("bore", 14.001), mate("shaft", 13.996)).takes
    assert (take.kind, take.why.code) == ("bore", "pair.quicker")
    (take,) = pair(mate("bore", 14.012), mate("shaft", 14.012)).takes
    assert (take.kind, take.why.code) == ("shaft", "pair.only")


def test_both_give_their_share_where_neither_has_enough_and_nothing_is_said_where_both_have_not() -> None:
    found = pair(mate("bore", 13.990), mate("shaft", 14.005))
    assert [take.kind for take in found.takes] == ["bore", "shaft"]
    assert sum(take.off for take in found.takes) == pytest.approx(30 * UM, abs=1 * UM)
    assert found.takes[1].until < 14.005e-3 < 14.018e-3
    hopeless = pair(mate("bore", 14.017), mate("shaft", 13.984), 60, 80)
    assert (hopeless.takes, hopeless.said.code) == ((), "pair.tight-no-room")


def test_too_loose_is_not_mended_by_taking() -> None:
    found = pair(mate("bore", 14.017), mate("shaft", 13.984))
    assert (found.verdict, found.takes, found.said.code) == ("loose", (), "pair.loose")


def test_a_coarse_gauge_can_not_tell() -> None:
    coarse = Gauge(20 * UM, 5 * UM)
    found = pair(mate("bore", 14.0, gauge=coarse), mate("shaft", 13.996, gauge=coarse))
    assert found.verdict == "unsure"


def test_a_press_fit_is_tried_another_way() -> None:
    assert pair(mate("bore", 14.005), mate("shaft", 13.990)).trial.code == "pair.trial-slide"
    assert pair(mate("bore", 13.9995), mate("shaft", 14.0095), -20, -5).trial.code == "pair.trial-press"


def test_a_bronze_bore_opens_on_a_steel_shaft_when_both_are_warm() -> None:
    # (18 - 11.5) um a metre and kelvin on 14 mm over ten kelvins, by hand
    assert pair(mate("bore", 14.005), mate("shaft", 13.99, alpha=11.5e-6)).warmer == pytest.approx(0.91 * UM, rel=0.01)


USED = ItemEvent("used", charge="F400", family="copper-alloy")


def lap(number: int = 1, *, what: str = "bore-lap", history: tuple[ItemEvent, ...] = (USED,), **more: float) -> Item:
    return Item(number, what, "lap", history=history, **{"diameter": 13.960e-3, "length": 30e-3, "per_turn": 60 * UM, **more})


def at_hand(*items: Item, kind: RoundKind = "bore", grade: str = "F400"):
    tightest, target = (13.983e-3, 14.009e-3) if kind == "bore" else (14.008e-3, 13.9885e-3)
    return laps_at_hand(items, kind=kind, tightest=tightest, target=target, length=30e-3, grade=parse_grade(grade))


def test_a_lap_is_set_out_until_it_slides() -> None:
    (found,) = at_hand(lap())
    assert (found.able, found.said.code) == (True, "lap.able")
    assert found.slides == pytest.approx(13 * UM)  # 23 below the bore, less 10 to slide
    assert found.turns == pytest.approx(13 / 60)
    assert found.to_end == pytest.approx(49 * UM)


@pytest.mark.parametrize(
    ("item", "code"),
    [
        (lap(history=(ItemEvent("used", charge="F800"),)), "lap.bound"),
        (lap(history=(USED, ItemEvent("used", charge="F800"))), "lap.bound"),
        (lap(diameter=None), "lap.unmeasured"),
        (lap(diameter=13.99e-3), "lap.too-thick"),
        (lap(diameter=13.80e-3), "lap.too-far"),
        (lap(length=24e-3), "lap.short"),
    ],
)
def test_why_a_lap_can_not_or_how_it_can(item: Item, code: str) -> None:
    (found,) = at_hand(item)
    assert (found.said.code, found.able) == (code, code == "lap.short")


def test_other_kinds_and_what_is_gone_are_not_asked() -> None:
    assert at_hand(lap(what="ring-lap"), lap(what="lap"), lap(history=(ItemEvent("retired"),)), lap(count=0.0)) == ()


def test_a_lap_for_shafts_closes() -> None:
    (found,) = at_hand(lap(what="ring-lap", diameter=14.03e-3), kind="shaft")
    assert found.slides == pytest.approx(12 * UM)
    (narrow,) = at_hand(lap(what="ring-lap", diameter=14.0e-3), kind="shaft")
    assert narrow.said.code == "lap.too-narrow"


def test_the_able_ones_come_first_and_wear_is_what_two_measurements_differ_by() -> None:
    worn = lap(2, diameter=13.970e-3, history=(USED, ItemEvent("measured", size=13.964e-3)))
    found = at_hand(lap(1), lap(3, diameter=13.99e-3), worn)
    assert [one.item.id for one in found] == [2, 1, 3]
    assert found[0].worn == pytest.approx(6 * UM)
    assert found[1].worn is None
