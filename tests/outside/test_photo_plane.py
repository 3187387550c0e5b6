"""Areas on a photo against a camera that is known: printed squares, tilted and turned, seen through a pinhole."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from attacking import many
from kelbrast.core.errors import OutsideValidity
from kelbrast.core.surface.photo_plane import area_on, plane_by_length, plane_by_rectangle

SHEET = [(0.0, 0.0), (0.210, 0.0), (0.210, 0.297), (0.0, 0.297)]  # A4, ISO 216


def seen(points, *, tilt: float, turn: float = 0.0, away: float = 0.6, focal: float = 1500.0, whole: bool = True):
    """Pixels of points of the plane (m): a camera over the middle of the sheet, which lies tilted and turned under it."""
    found = []
    for x, y in points:
        x, y = x - 0.105, y - 0.1485
        x, y = x * math.cos(turn) - y * math.sin(turn), x * math.sin(turn) + y * math.cos(turn)
        depth = away + y * math.sin(tilt)
        pixel = (focal * x / depth + 1000, focal * y * math.cos(tilt) / depth + 750)
        found.append((float(round(pixel[0])), float(round(pixel[1]))) if whole else pixel)
    return found


def square(at: tuple[float, float], side: float):
    x, y = at
    return [(x, y), (x + side, y), (x + side, y + side), (x, y + side)]


@pytest.mark.parametrize("degrees", [0, 15, 30, 45, 60])
@pytest.mark.parametrize("turned", [0, 30])
def test_printed_squares_at_known_slants_within_two_per_cent(degrees: int, turned: int) -> None:
    """Corners tapped to a whole pixel."""
    slant = {"tilt": math.radians(degrees), "turn": math.radians(turned)}
    plane = plane_by_rectangle(seen(SHEET, **slant), width=0.210, height=0.297)
    for side in (0.03, 0.05, 0.1):
        for at in ((0.01, 0.01), (0.1, 0.05), (0.08, 0.18)):
            assert area_on(plane, seen(square(at, side), **slant)) == pytest.approx(side**2, rel=0.02)


def test_a_length_gives_the_scale_square_on_and_no_slant_is_taken_out() -> None:
    flat = seen([*SHEET[:2], *square((0.05, 0.05), 0.1)], tilt=0.0)
    assert area_on(plane_by_length(*flat[:2], length=0.210), flat[2:]) == pytest.approx(0.01, rel=0.01)
    tilted = seen([*SHEET[:2], *square((0.05, 0.05), 0.1)], tilt=math.radians(45))
    assert area_on(plane_by_length(*tilted[:2], length=0.210), tilted[2:]) < 0.008


@settings(max_examples=many(20))
@given(tilt=st.floats(0, 1.0), turn=st.floats(-math.pi, math.pi), focal=st.floats(600, 4000), start=st.integers(0, 3))
def test_the_slant_is_taken_out_exactly_whichever_corner_is_first(tilt: float, turn: float, focal: float, start: int) -> None:
    corners = seen(SHEET, tilt=tilt, turn=turn, focal=focal, whole=False)
    sides = (0.210, 0.297) if start % 2 == 0 else (0.297, 0.210)
    plane = plane_by_rectangle(corners[start:] + corners[:start], width=sides[0], height=sides[1])
    shape = [(0.02, 0.02), (0.15, 0.04), (0.18, 0.2), (0.1, 0.25), (0.03, 0.12)]
    x, y = np.array(shape).T
    flat = abs(np.dot(x, np.roll(y, -1)) - np.dot(y, np.roll(x, -1))) / 2
    assert area_on(plane, seen(shape, tilt=tilt, turn=turn, focal=focal, whole=False)) == pytest.approx(flat, rel=1e-6)


def test_what_can_not_be_is_refused() -> None:
    flat = plane_by_length((0, 0), (100, 0), length=0.1)
    with pytest.raises(OutsideValidity, match="three points"):
        area_on(flat, [(0, 0), (1, 1)])
    with pytest.raises(OutsideValidity, match="crosses itself"):
        area_on(flat, [(0, 0), (10, 10), (10, 0), (0, 10)])
    with pytest.raises(OutsideValidity, match="ten times"):
        area_on(flat, [(0, 0), (10, 0), (10, 10)], curved=0.5)
    with pytest.raises(OutsideValidity, match="one point"):
        plane_by_length((5, 5), (5, 5.5), length=0.1)
    with pytest.raises(OutsideValidity, match="above 0"):
        plane_by_length((5, 5), (50, 5), length=0)
    with pytest.raises(OutsideValidity, match="in turn"):
        plane_by_rectangle([(0, 0), (10, 10), (10, 0), (0, 10)], width=1, height=1)
    with pytest.raises(OutsideValidity, match="line"):
        plane_by_rectangle([(0, 0), (5, 0), (10, 0), (0, 10)], width=1, height=1)
    with pytest.raises(OutsideValidity, match="four corners"):
        plane_by_rectangle([(0, 0), (5, 0), (10, 0)], width=1, height=1)
    with pytest.raises(OutsideValidity, match="above 0"):
        plane_by_rectangle([(0, 0), (9, 0), (9, 9), (0, 9)], width=0, height=1)
    slanted = plane_by_rectangle(seen(SHEET, tilt=1.2), width=0.21, height=0.297)
    with pytest.raises(OutsideValidity, match="horizon"):
        slanted.on_part([(1000, 5000)])


def test_a_curved_face_is_larger_than_it_looks() -> None:
    flat = plane_by_length((0, 0), (100, 0), length=0.1)
    face = [(0, 0), (10, 0), (10, 10), (0, 10)]
    assert area_on(flat, face, curved=math.pi / 2) == pytest.approx(math.pi / 2 * area_on(flat, face))
