"""The eye: lay, old marks, refusals and bounds, on drawings whose truth is known and on photos made by the planner's laws."""

import math
import random
import tracemalloc
from dataclasses import replace

import numpy as np
import pytest
from scipy import ndimage

from benching import LAYOUT, Bench
from kelbrast.app.eye import opened
from kelbrast.core.bench.observed import LightCheck, TurnedOut, turned_out
from kelbrast.core.bench.run import Layout
from kelbrast.core.reference.loader import eye
from kelbrast.core.vision.agreement import CheckTurnedOut, agreement, rightness
from kelbrast.core.vision.fields import MOST_FIELDS, contrast, fields_of
from kelbrast.core.vision.lay import apart, lay_of
from kelbrast.core.vision.light_check import CanNotSay, CheckAsked, EyeSaw, Photo, gate, light_check, width_of_marks
from kelbrast.core.vision.old_marks import old_marks_in
from photographing import Face, Shot, both, depth_of, messenger, photographed

ROWS, COLUMNS = np.mgrid[0:448, 0:448]


def grating(angle: float, wave: float, noise: float = 0.0) -> np.ndarray:
    """Lines along an angle (anticlockwise), so many radians a pixel."""
    drawn = np.sin(wave * (COLUMNS * math.sin(angle) + ROWS * math.cos(angle)))
    return drawn + noise * np.random.default_rng(1).standard_normal(drawn.shape)


def test_contrast_is_against_a_wide_gaussian_up_to_the_sides() -> None:
    """Another way to it: a filter that goes along the rows and the columns."""
    grey = np.random.default_rng(3).random((300, 180))
    linear = grey ** eye("field.gamma")
    around = ndimage.gaussian_filter(linear, eye("field.surroundings"), mode="nearest", truncate=3.0)
    assert contrast(grey) == pytest.approx(linear / around - 1, abs=1e-5)


@pytest.mark.parametrize("wave", [0.45, 0.9, 1.7])
@pytest.mark.parametrize("noise", [0.0, 0.5])
def test_the_lay_of_drawn_gratings_is_right_within_three_tenths_of_a_degree(wave: float, noise: float) -> None:
    for degrees in np.linspace(2.0, 178.0, 12):
        found = lay_of(grating(math.radians(degrees), wave, noise), pixel=10e-6)
        assert found.claimed
        assert math.degrees(apart(found.angle, math.radians(degrees))) < 0.3
        assert noise or found.evenness > 0.99


def test_noise_has_no_lay() -> None:
    assert not lay_of(np.random.default_rng(2).standard_normal((448, 448)), pixel=10e-6).claimed


@pytest.mark.soak
def test_the_structure_tensor_says_the_same() -> None:
    """scikit-image's structure tensor, a way of its own to a direction."""
    from skimage.feature import structure_tensor  # large: only here

    for seed, degrees in enumerate((12.0, 63.0, 141.0)):
        face = Face(lay=math.radians(degrees))
        photo, _ = photographed(face, Shot(lamp=face.lay + math.pi / 2, pixels=(448, 448), seed=seed))
        field = next(fields_of(opened(photo).grey)).contrast
        rr, rc, cc = (part.mean() for part in structure_tensor(ndimage.gaussian_filter(field, 1.0), sigma=2.0, order="rc"))
        gradient = 0.5 * math.atan2(-2 * rc, cc - rr)  # rows run down
        assert math.degrees(apart(lay_of(field, pixel=10e-6).angle, gradient + math.pi / 2)) < 2.5


@pytest.mark.soak
def test_turning_the_picture_turns_the_answer() -> None:
    face = Face(before="P180", own="P400", share=0.6, lay=math.radians(30))
    shot = Shot(lamp=face.lay, pixels=(720, 720), seed=11)
    straight, _ = photographed(face, shot)
    turned, _ = photographed(face, replace(shot, turned=math.radians(25)))
    middle = (slice(136, 584), slice(136, 584))
    one, other = (next(fields_of(np.ascontiguousarray(opened(one).grey[middle]))).contrast for one in (straight, turned))
    found, after = old_marks_in(one, face.lay), old_marks_in(other, face.lay + math.radians(25))
    assert min(found.score, after.score) > eye("marks.seen")
    assert math.degrees(apart(after.angle, found.angle + math.radians(25))) < 4
    across = [photographed(face, replace(shot, lamp=face.lay + math.pi / 2, turned=by))[0] for by in (0.0, math.radians(25))]
    lays = [
        lay_of(next(fields_of(np.ascontiguousarray(opened(one).grey[middle]))).contrast, pixel=10e-6).angle for one in across
    ]
    assert math.degrees(apart(lays[1], lays[0] + math.radians(25))) < 0.5


# --- two photos


def guided(seed: int, share: float) -> tuple[Face, Shot, Shot]:
    """Photos as the person is told to take them; the dice are not those that the eye was made on."""
    dice = random.Random(seed)
    before, own = dice.choice([("P120", "P240"), ("P180", "P320"), ("P240", "P400")])
    face = Face(
        before=before, own=own, share=share, lay=math.radians(dice.uniform(0, 180)), crossing=math.radians(dice.uniform(60, 90))
    )
    first = Shot(
        lamp=face.lay + math.radians(dice.uniform(-5, 5)),
        height=math.radians(dice.uniform(9, 13)),
        um=dice.uniform(7, 11),
        pixels=(448, 448),
        blur=dice.uniform(0.5, 0.9),
        seed=seed,
    )
    return face, first, replace(first, lamp=face.lay + math.pi / 2)


def asked(face: Face, shot: Shot) -> CheckAsked:
    width = width_of_marks(depth_of(face.before, face.hardness)[1])
    return CheckAsked(shot.um * 1e-6, face.lay + math.radians(2), face.crossing, width)


def looked(face: Face, first: Shot, second: Shot, **known) -> EyeSaw | CanNotSay:
    one, two, _ = both(face, first, second)
    return light_check(opened(one), opened(two), replace(asked(face, first), **known))


def test_a_clean_step_passes_and_one_that_was_stopped_is_caught() -> None:
    """Few of them; how often, on many that nobody chose by, is told in docs/eye.md and measured by bench/eye.py."""
    seen = {share: [looked(*guided(90_000 + at, share)) for at in range(4)] for share in (1.0, 0.6)}
    clean = [getattr(one, "verdict", one) for one in seen[1.0]]
    assert clean.count("none-seen") >= 2
    assert "seen" not in clean
    assert [getattr(one, "verdict", one) for one in seen[0.6]].count("seen") >= 3


def test_what_is_seen_is_told_with_its_place_and_direction() -> None:
    face, first, second = guided(90_100, 0.6)
    told = looked(face, first, second)
    assert isinstance(told, EyeSaw)
    assert told.angle is not None
    assert math.degrees(apart(told.angle, face.lay + face.crossing)) < 4
    assert math.degrees(apart(told.lay.angle, face.lay)) < 0.5
    assert len(told.lines) >= 2
    for line in told.lines:
        along = math.atan2(line.y0 - line.y1, line.x1 - line.x0)
        assert math.degrees(apart(along, told.angle)) < 1
        assert all(0 <= place <= 448 for place in (line.x0, line.y0, line.x1, line.y1))
    assert told.smallest == pytest.approx(first.um * 1e-6)


def test_whatever_it_can_not_judge_is_refused_by_name() -> None:
    face, first, second = guided(90_200, 0.6)
    away = math.radians(60)
    assert looked(face, first, second, lay=None) == CanNotSay("no-lay")
    assert looked(face, first, second, curved=True) == CanNotSay("curved")
    assert looked(face, first, second, crossing=math.radians(34)) == CanNotSay("crossing")
    assert looked(face, first, second, width=5e-6) == CanNotSay("under-a-pixel")
    assert looked(face, first, second, lay=face.lay + math.radians(12)) == CanNotSay("lay-off", 2)
    assert looked(face, replace(first, lamp=second.lamp + 0.1), second).why in ("alike", "lamp-along")
    assert looked(face, replace(first, lamp=first.lamp + away), second).why in ("alike", "lamp-along")
    assert looked(face, replace(first, height=math.radians(45)), second).why in ("alike", "lamp-along")
    assert looked(face, replace(first, second_lamp=second.lamp), second).why in ("alike", "lamp-along")
    assert looked(face, replace(first, blur=3.0), second) == CanNotSay("blurred", 1)
    assert looked(face, first, replace(second, exposure=0.05)) == CanNotSay("dark", 2)
    assert looked(face, replace(first, exposure=0.97), second) == CanNotSay("clipped", 1)
    one, two, _ = both(face, first, second)
    known = asked(face, first)
    assert light_check(opened(one), opened(one), known).why == "alike"
    assert light_check(opened(messenger(one)), opened(two), known) == CanNotSay("messenger", 1)
    small = Photo(opened(one).grey[:400])
    assert light_check(small, small, known) == CanNotSay("small", 1)
    polished = replace(face, one_way=False)
    assert looked(polished, first, second).why in ("no-lay-seen", "lay-off", "alike", "lamp-along")


@pytest.mark.soak
def test_over_a_whole_photo_several_fields_must_agree() -> None:
    face, first, second = guided(90_300, 0.6)
    wide = (448, 1344)
    one, two, _ = both(face, replace(first, pixels=wide), replace(second, pixels=wide))
    told = light_check(opened(one), opened(two), asked(face, first))
    assert isinstance(told, EyeSaw)
    assert (told.fields, told.verdict) == (3, "seen")
    assert told.agreeing == 3
    clean = opened(both(replace(face, share=1.0), replace(first, pixels=wide), second)[0]).grey.copy()
    marked = opened(one).grey
    clean[:, :448] = marked[:, :448]  # old marks at one end alone
    corner = light_check(Photo(clean), opened(two), asked(face, first))
    assert isinstance(corner, EyeSaw)
    assert corner.verdict == "look-again"


def test_twelve_megapixels_stay_within_their_memory() -> None:
    """Whatever looks at a whole photo; each field after that is as small as any other."""
    large = np.random.default_rng(8).integers(60, 200, (3000, 4000), dtype=np.uint8)
    tracemalloc.start()
    gate(large)
    fields = list(fields_of(large))
    _, most = tracemalloc.get_traced_memory()
    tracemalloc.stop()
    assert len(fields) == MOST_FIELDS
    assert most < 300e6


# --- who was right


def test_what_a_light_check_turned_out_to_be() -> None:
    bench = Bench()
    run = bench.tap("started")
    piece, stage = run.current
    check = LightCheck(run.seen, piece, stage.key)
    assert turned_out(run, check).person is None
    assert turned_out(bench.tap("more", seconds=20.0), check) == turned_out(bench.run, check)
    assert (turned_out(bench.run, check).person, turned_out(bench.run, check).left) == (True, True)
    later = LightCheck(bench.run.seen, piece, stage.key)
    run = bench.tap("gone")
    assert (turned_out(run, later).person, turned_out(run, later).left) == (False, None)  # nobody knows yet


@pytest.mark.parametrize(
    ("said", "then", "person", "left"),
    [
        ("back", None, True, True),
        ("accepted", None, True, True),
        ("gone", "back", False, True),
        ("gone", "accepted", False, True),
        ("gone", "finished well", False, False),
        ("gone", "finished badly", False, None),
        ("gone", "back on another face", False, False),
    ],
)
def test_what_came_of_a_light_check(said: str, then: str | None, person: bool, left: bool | None) -> None:
    bench = Bench(Layout(1, LAYOUT.stages))

    def go_back(kind: str) -> None:
        _, here = bench.run.current
        way = (replace(here, route=bench.run.next_route, step=1),) if kind == "back" else ()
        bench.tap(kind, depth=5e-6, stages=way)

    bench.tap("started")
    piece, here = bench.run.current
    check = LightCheck(bench.run.seen, piece, here.key)
    go_back(said) if said != "gone" else bench.tap("gone")
    while then is not None and bench.run.current is not None:
        bench.tap("started")
        on_it = bench.run.current[1].face == here.face
        if then in ("back", "accepted") and on_it:
            go_back(then)
            break
        if then == "back on another face" and not on_it and bench.run.current[1].route == 0:
            go_back("back")
            continue
        bench.tap("gone")
    if then is not None and bench.run.current is None:
        bench.tap("finished", well=then != "finished badly")
    assert turned_out(bench.run, check) == TurnedOut(person, left)


def test_shares_have_their_interval_and_disagreement_is_told_apart() -> None:
    told = agreement(
        [
            CheckTurnedOut(False, True, True),
            CheckTurnedOut(False, True, False),
            CheckTurnedOut(True, True, True),
            CheckTurnedOut(False, False, False),
        ]
    )
    assert (told["person"].right, told["eye"].right, told["person"].of) == (3, 3, 4)
    assert (told["together"].right, told["together"].of) == (2, 2)
    assert (told["person-apart"].right, told["eye-apart"].right, told["eye-apart"].of) == (1, 1, 2)
    assert rightness(0, 0).high == 1.0
    # Wilson 1927: 0 of 10 and 5 of 10 at 95 %.
    assert (round(rightness(0, 10).high, 3), round(rightness(5, 10).low, 3)) == (0.278, 0.237)
