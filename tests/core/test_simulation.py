"""The simulated surface keeps to the planner's laws: depths, roughness, the layer that clears, what is left when stopped early."""

import itertools
import math
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from attacking import many
from kelbrast.core.catalogue.materials import material
from kelbrast.core.errors import OutsideValidity
from kelbrast.core.metrology.areal import areal
from kelbrast.core.process.clearance import marks_left
from kelbrast.core.simulation.light import Lamp, lit, look_of
from kelbrast.core.simulation.marks import Marks, draw, floors_of
from kelbrast.core.simulation.patch import FoundPatch, Patch, Working, found_patch, worked

UM = 1e-6
SIZE, SPACING = (400, 400), 10e-6
COARSE, FINE = Marks(13 * UM, 201 * UM), Marks(4.3 * UM, 82 * UM, "one-way", math.pi / 2)


def rng(seed: int = 1) -> np.random.Generator:
    return np.random.default_rng(seed)


def share_left(before: Patch, after: Patch) -> float:
    """Share of the old surface's low places that still lie below the plane that was cut down to."""
    low = before.z < before.top - 0.02 * before.depth
    return float((before.z[low] < after.top).mean()) if low.any() else 0.0


@pytest.mark.parametrize("lay", ["one-way", "none"])
@pytest.mark.parametrize(("grain", "depth"), [(82, 4.3), (201, 13.0), (127, 7.0)])
def test_roughness_is_a_sixth_of_the_depth_as_the_model_has_it(lay, grain, depth) -> None:
    z = draw(Marks(depth * UM, grain * UM, lay), SIZE, SPACING, rng()).z
    assert areal(z, (SPACING, SPACING)).sa == pytest.approx(depth * UM / 6, rel=0.2)
    assert z.max() <= 0


@pytest.mark.parametrize("lay", ["one-way", "none"])
def test_a_patch_is_covered_up_to_its_sides(lay) -> None:
    """A groove that runs beside the patch is drawn as far as it is wide."""
    patches = [draw(Marks(6 * UM, 201 * UM, lay, 0.6), (40, 40), 8 * UM, rng(seed)).z for seed in range(200)]
    mean = np.mean(patches, axis=0)
    for side in (mean[0], mean[-1], mean[:, 0], mean[:, -1]):
        assert side.mean() == pytest.approx(mean[4:-4, 4:-4].mean(), rel=0.08)


def test_the_metal_needed_until_old_marks_are_gone_is_the_largest_of_so_many() -> None:
    # the extreme-value law of `process.clearance.area_factor`; sqrt(2 ln N) is a little more than the mean of the largest
    floors = [floors_of(10 * UM, 3000, rng(seed)).max() for seed in range(40)]
    expected = 10 * UM * (math.sqrt(2 * math.log(3000)) + 3) / 6.5
    assert np.mean(floors) == pytest.approx(expected, rel=0.1)


@pytest.mark.parametrize("share", [0.5, 0.8, 1.0])
def test_share_of_old_marks_left_when_stopped_early(share) -> None:
    # one square metre of marks of 0.03 mm by 30 grains and the count that the planner expects to be left of them
    layer, grain = 8 * UM * share, 82 * UM
    floors = floors_of(10 * UM, 200_000, rng())
    area = 200_000 * 0.03e-3 * 30 * grain
    expected = marks_left(area=area, grain=grain, depth=10 * UM, layer=layer) / 200_000
    assert (floors > layer).mean() == pytest.approx(expected, abs=0.004)


def test_a_step_done_leaves_its_own_depth_and_roughness() -> None:
    found = found_patch(FoundPatch("lay", 13 * UM, 201 * UM), SIZE, SPACING, seed=2)
    after = worked(found, Working(layer=26 * UM, marks=FINE))
    assert after.depth == pytest.approx(FINE.depth, rel=0.25)
    assert areal(after.z, (SPACING, SPACING)).sa == pytest.approx(FINE.depth / 6, rel=0.25)
    assert share_left(found, after) == 0


def test_stopped_too_early_the_deeper_old_marks_stay() -> None:
    found = found_patch(FoundPatch("lay", 13 * UM, 201 * UM), SIZE, SPACING, seed=2)
    left = [share_left(found, worked(found, Working(13 * UM, FINE, share=share))) for share in (0.2, 0.5, 0.8, 1.0)]
    assert left == sorted(left, reverse=True)
    assert left[0] > 0.3
    assert left[-1] < 0.02
    half = worked(found, Working(13 * UM, FINE, share=0.5))
    assert half.depth > 1.2 * FINE.depth


def test_a_soft_carrier_follows_ripple_and_a_firm_one_takes_it_down() -> None:
    ripple = found_patch(FoundPatch("waviness", 20 * UM, 100 * UM), SIZE, SPACING, seed=4)
    own = Marks(1 * UM, 26 * UM, "none")
    firm, soft = worked(ripple, Working(22 * UM, own)), worked(ripple, Working(22 * UM, own, levels=False))
    assert firm.depth < 2 * UM
    assert soft.depth > 10 * UM


@pytest.mark.parametrize("seed", range(6))
def test_the_plane_of_a_soft_carrier_is_never_below_its_marks(seed) -> None:
    found = found_patch(FoundPatch("lay", 2e-6, 15e-6), (96, 96), 8e-6, seed)
    after = worked(found, Working(0.4e-6, Marks(0.05e-6, 3e-6), levels=False, seed=seed))
    assert after.depth >= after.z.max() - after.z.min() > 0


def test_a_wheel_takes_no_more_than_it_can_reach() -> None:
    found = found_patch(FoundPatch("lay", 13 * UM, 201 * UM), SIZE, SPACING, seed=2)
    after = worked(found, Working(26 * UM, Marks(0.2 * UM, 5 * UM), levels=False, reaches=1.5 * UM))
    assert after.top == pytest.approx(-1.5 * UM)
    assert after.depth > 8 * UM


@settings(max_examples=many(10))
@given(st.floats(0, 1), st.floats(0, 1), st.integers(0, 50), st.sampled_from(["scratches", "lay", "waviness", "pits", "nick"]))
def test_metal_never_grows_back_and_more_time_never_leaves_more(first, second, seed, kind) -> None:
    less, more = sorted((first, second))
    found = found_patch(FoundPatch(kind, 10 * UM, 100 * UM), (60, 60), 20e-6, seed)
    early, late = (worked(found, Working(12 * UM, FINE, share=share, seed=seed)) for share in (less, more))
    assert (early.z <= found.z + 1e-15).all()
    assert share_left(found, late) <= share_left(found, early)


def test_the_same_seed_gives_the_same_patch() -> None:
    one, two, other = (found_patch(FoundPatch("scratches", 10 * UM, 82 * UM), SIZE, SPACING, seed) for seed in (5, 5, 6))
    assert np.array_equal(one.z, two.z)
    assert not np.array_equal(one.z, other.z)


def test_neighbouring_grades_are_told_apart_and_in_order() -> None:
    """By what the eye sees: the unevenness of the light over the picture grows with the grade's coarseness."""
    look = look_of(material("naval-brass"))
    grades = [(201, 13.0), (127, 7.4), (82, 4.3), (58.5, 2.9), (46, 2.2), (35, 1.6)]
    uneven = []
    for grain, depth in grades:
        patch = Patch(draw(Marks(depth * UM, grain * UM, "one-way", 0.3), SIZE, SPACING / 2, rng()).z, SPACING / 2)
        uneven.append(float(lit(patch, look, Lamp()).astype(float).mean(axis=2).std()))
    assert uneven == sorted(uneven, reverse=True)
    assert all(coarse > 1.08 * fine for coarse, fine in itertools.pairwise(uneven))


def test_brass_is_yellow_acrylic_is_not() -> None:
    flat = Patch(np.zeros((40, 40)), SPACING)
    brass = lit(flat, look_of(material("naval-brass")), Lamp()).reshape(-1, 3).mean(axis=0)
    acrylic = lit(flat, look_of(material("acrylic")), Lamp()).reshape(-1, 3).mean(axis=0)
    assert brass[0] > brass[1] > 1.25 * brass[2]
    assert acrylic[2] >= acrylic[0]


def test_a_bead_stands_above_the_face_and_its_crest_goes_first() -> None:
    found = found_patch(FoundPatch("raised", 60 * UM, 100 * UM), SIZE, SPACING, seed=1)
    assert (found.z.max(), found.z.min()) == pytest.approx((0, -60 * UM), abs=0.5 * UM)
    assert (found.z < -59 * UM).mean() > 0.3  # the face beside it
    after = worked(found, Working(layer=30 * UM, marks=FINE))
    untouched = found.z < -45 * UM
    assert after.z[untouched] == pytest.approx(found.z[untouched], abs=0.1 * UM)
    assert after.z.max() < -29 * UM


@pytest.mark.parametrize("bad", [{"depth": 0.0}, {"grain": -1.0}])
def test_marks_that_can_not_be_are_refused(bad) -> None:
    with pytest.raises(OutsideValidity):
        draw(replace(COARSE, **bad), SIZE, SPACING, rng())
