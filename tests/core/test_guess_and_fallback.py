"""Bets on a guessed depth, and what is left when the damage is deeper than may come off."""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from attacking import many
from kelbrast.core.planning.face.face_plan import figures_of, plan_face
from kelbrast.core.planning.face.fallback import fallback
from kelbrast.core.planning.kernel.step_table import METAL
from kelbrast.core.planning.questions.choices import pareto_front
from kelbrast.core.planning.questions.guess import bet, depths_of_guess
from kelbrast.core.surface.limits import strictest
from making import UM, face, job, plan


def test_the_guess_has_its_middle_at_the_likely_depth() -> None:
    depths = depths_of_guess(20e-6, 60e-6)
    assert depths[4] == pytest.approx(20e-6)
    assert depths[-1] == pytest.approx(60e-6, rel=0.05)  # the 94th percentile beside the 95th
    assert list(depths) == sorted(depths)


def test_a_bet_gives_both_figures_and_advises_the_smaller() -> None:
    one = face("brushed-fine", depth=10, worst=80, area=1.5)
    made = bet(one, job("stainless-304", one))
    assert made is not None
    assert made.fine.grain < made.coarse.grain
    assert 0 <= made.clears <= 1
    assert made.try_first == (made.trying < made.sure)
    assert made.trial > 0


def test_nothing_is_at_stake_when_the_depth_is_known() -> None:
    for one in (face("bright", depth=20), face("bright", after="P240"), face("bright", depth=20, worst=40, keep_off=True)):
        assert bet(one, job("brass", one)) is None


def test_a_large_uncertain_face_is_tried_on_a_patch_and_a_small_one_is_not() -> None:
    small, large = (face("brushed-fine", depth=10, worst=80, area=area) for area in (0.004, 1.5))
    bets = [bet(one, job("stainless-304", one)) for one in (small, large)]
    assert bets[1] is not None
    gain = bets[1].sure - bets[1].trying
    assert bets[0] is None or gain > bets[0].sure - bets[0].trying


def test_the_fallback_stays_within_the_limit_and_says_what_stays() -> None:
    one = face("bright", depth=40, worst=65, limit_um=30)
    planned = plan("bronze", one)
    made = fallback(planned, job("bronze", one))
    assert made is not None
    assert made.plan is not None
    assert made.plan.metal <= 30 * UM * (1 + 1e-6)
    assert made.stays == pytest.approx(65 * UM - made.plan.metal)
    assert 0 < made.cleared < 65 * UM
    assert made.dish == pytest.approx(30 * UM / 0.01)  # 1:100, hand calculation
    assert made.dish_stays == pytest.approx(35 * UM)


def test_a_simpler_finish_is_offered_when_the_whole_damage_fits() -> None:
    rack = ("paper-p320", "paper-p1000", "paper-p2500", "cloth-polishing")
    whole = job("brass", face("mirror", depth=40, worst=50), rack=rack)
    figures = figures_of(whole.faces[0], whole)
    assert figures is not None
    least = min(route.totals[METAL] for route in pareto_front(figures, whole).routes)
    one = face("mirror", depth=40, worst=50, limit_um=least / UM - 0.5)
    made = fallback(plan("brass", one, rack=rack), job("brass", one, rack=rack))
    assert made is not None
    assert [finish.id for finish, _ in made.simpler]
    for finish, seconds in made.simpler:
        simpler = plan("brass", replace(one, want=finish), rack=rack)
        assert simpler.possible
        assert simpler.seconds == pytest.approx(seconds)


def test_no_fallback_where_the_limit_is_not_what_binds() -> None:
    one = face("mirror", depth=20)
    assert fallback(plan("brass", one, rack=("paper-p180",)), job("brass", one)) is None


@settings(max_examples=many(10))
@given(st.floats(5, 60), st.floats(0.3, 0.95))
def test_a_tighter_limit_never_leaves_less(limit: float, share: float) -> None:
    made = [
        fallback(plan("bronze", one), job("bronze", one))
        for one in (face("bright", depth=60, limit_um=limit * s) for s in (1, share))
    ]
    assert made[0] is not None
    assert made[1] is not None
    assert made[1].cleared <= made[0].cleared + 1e-9


def test_the_strictest_limit_binds() -> None:
    assert strictest({"metal": None, "wall": None}) is None
    limit = strictest({"metal": 100e-6, "wall": 150e-6, "coat": 20e-6})
    assert limit is not None
    assert limit.kind == "coat"


@pytest.mark.parametrize(("more_allowed", "dear"), [(2.0, True), (0.999, False)])
def test_a_retreat_that_takes_several_times_as_long_is_hardly_worth_it(monkeypatch, more_allowed: float, dear: bool) -> None:
    """Three times as long as taking the marks out would take without a limit (ours)."""
    scratched = face("bright", depth=20, worst=30, limit_um=18)
    asked = job("brass", scratched)
    instead = fallback(plan_face(scratched, asked), asked)
    assert instead is not None
    assert instead.plan is not None
    free = plan_face(face("bright", depth=20, worst=30), asked).seconds
    assert instead.dear == (instead.plan.seconds > 3 * free)
    slow = replace(instead.plan, seconds=3 * free * more_allowed)
    monkeypatch.setattr("kelbrast.core.planning.face.fallback._deepest_that_fits", lambda *_: (instead.cleared, slow))
    again = fallback(plan_face(scratched, asked), asked)
    assert again is not None
    assert again.dear == dear
