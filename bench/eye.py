"""The eye on simulated photos: prints how often it is right on photos nobody tuned on, as in the table of docs/eye.md.

Seeds below 10,000 are for choosing; those from 80,000 on are only judged.
"""

import math
import random
import sys
import time
from collections.abc import Iterator
from concurrent.futures import ProcessPoolExecutor
from dataclasses import replace
from pathlib import Path

import numpy as np
from numpy.typing import NDArray

sys.path.insert(0, str(Path(__file__).parents[1] / "tests"))

from kelbrast.app.eye import opened
from kelbrast.core.vision.lay import apart
from kelbrast.core.vision.light_check import CanNotSay, CheckAsked, EyeSaw, light_check, width_of_marks
from photographing import Face, Shot, both, depth_of, messenger

STEPS = (
    ("P120", "P240"),
    ("P180", "P320"),
    ("P240", "P400"),
    ("P240", "P600"),
    ("P320", "P600"),
    ("P400", "P800"),
    ("P180", "P400"),
)
JUDGED_FROM = 80_000


def guided(seed: int) -> tuple[Face, Shot, Shot, random.Random]:
    """A face and two photos as the person is told to take them; every second face is clean."""
    dice = random.Random(seed)
    before, own = dice.choice(STEPS)
    face = Face(
        before=before,
        own=own,
        share=1.0 if seed % 2 == 0 else 0.6,
        crossing=math.radians(dice.uniform(55, 90)),
        lay=math.radians(dice.uniform(0, 180)),
        hardness=dice.choice([60, 110, 150, 200]),
    )
    first = Shot(
        lamp=face.lay + math.radians(dice.uniform(-8, 8)),
        height=math.radians(dice.uniform(8, 15)),
        um=dice.uniform(6, 12),
        pixels=(448, 448),
        body=dice.uniform(0.1, 0.4),
        blur=dice.uniform(0.5, 1.1),
        noise=dice.uniform(0.006, 0.02),
        dirt=dice.randrange(8),
        exposure=dice.uniform(0.35, 0.6),
        tilt=dice.uniform(-0.03, 0.03),
        falloff=dice.uniform(0.1, 0.4),
        quality=dice.randrange(92, 98),
        seed=seed,
    )
    second = replace(first, lamp=face.lay + math.pi / 2 + math.radians(dice.uniform(-8, 8)))
    return face, first, second, dice


def asked(face: Face, shot: Shot, dice: random.Random) -> CheckAsked:
    """The person's line lies within three degrees of the lay."""
    stated = face.lay + math.radians(dice.uniform(-3, 3))
    return CheckAsked(shot.um * 1e-6, stated, face.crossing, width_of_marks(depth_of(face.before, face.hardness)[1]))


def judged(seed: int, change: str = "") -> tuple[bool, EyeSaw | CanNotSay, Face, float]:
    face, first, second, dice = guided(seed)
    turned = dice.choice((-1, 1))
    match change:
        case "lamp 25 to 45 degrees off the lay":
            first = replace(first, lamp=face.lay + turned * math.radians(dice.uniform(25, 45)))
        case "lamp across on both photos":
            first = replace(first, lamp=second.lamp + math.radians(dice.uniform(-20, 20)))
        case "lamp 30 to 60 degrees high":
            first = replace(first, height=math.radians(dice.uniform(30, 60)))
        case "two lamps":
            first = replace(first, second_lamp=first.lamp + math.radians(dice.uniform(60, 120)))
        case "out of focus":
            first = replace(first, blur=dice.uniform(2.5, 4))
        case "crossing under 35 degrees":
            face = replace(face, crossing=math.radians(dice.uniform(10, 34)))
        case "too far away":
            first, second = (replace(one, um=dice.uniform(40, 60)) for one in (first, second))
        case "lamp 16 to 25 degrees high":
            first = replace(first, height=math.radians(dice.uniform(16, 25)))
        case "crossing of 35 to 50 degrees":
            face = replace(face, crossing=math.radians(dice.uniform(35, 50)))
    one, two, _ = both(face, first, second)
    if change == "through a messenger":
        one, two = messenger(one), messenger(two)
    wanted = asked(face, first, dice)
    if change == "no lay stated":
        wanted = replace(wanted, lay=None)
    if change == "the line 20 to 60 degrees off":
        wanted = replace(wanted, lay=face.lay + turned * math.radians(dice.uniform(20, 60)))
    if change == "one photo twice":
        two = one
    if change == "a curved face":
        wanted = replace(wanted, curved=True)
    began = time.perf_counter()
    told = light_check(opened(one), opened(two), wanted)
    return face.share >= 1, told, face, time.perf_counter() - began


REFUSED = (
    "no lay stated", "the line 20 to 60 degrees off", "one photo twice", "lamp across on both photos",
    "lamp 25 to 45 degrees off the lay", "lamp 30 to 60 degrees high", "two lamps", "out of focus", "through a messenger",
    "crossing under 35 degrees", "too far away", "a curved face",
)  # fmt: skip
WEAKER = ("lamp 16 to 25 degrees high", "crossing of 35 to 50 degrees")


def _judged(task: tuple[int, str]) -> tuple[bool, EyeSaw | CanNotSay, Face, float]:
    return judged(*task)


def area(found: NDArray[np.float64], clean: NDArray[np.float64]) -> float:
    """Under the ROC curve: how often old marks score higher than a clean face."""
    return float((found[:, None] > clean[None, :]).mean() + 0.5 * (found[:, None] == clean[None, :]).mean())


def rows(count: int, others: int) -> Iterator[str]:
    with ProcessPoolExecutor() as pool:
        yield from _guided_rows(list(pool.map(_judged, ((JUDGED_FROM + at, "") for at in range(count)))))
        for change in WEAKER:
            told = list(pool.map(_judged, ((JUDGED_FROM + 2000 + at, change) for at in range(others))))
            seen = [isinstance(one, EyeSaw) and one.verdict == "seen" for clean, one, _, _ in told if not clean]
            false = [isinstance(one, EyeSaw) and one.verdict == "seen" for clean, one, _, _ in told if clean]
            refused = np.mean([isinstance(one, CanNotSay) for _, one, _, _ in told])
            yield f"| {change} | found {np.mean(seen):.0%}, false {np.mean(false):.0%}, refused {refused:.0%} |"
        for change in REFUSED:
            told = list(pool.map(_judged, ((JUDGED_FROM + 4000 + at, change) for at in range(others))))
            refused = [one.why for _, one, _, _ in told if isinstance(one, CanNotSay)]
            why = ", ".join(sorted(set(refused)))
            yield f"| {change} | refused {len(refused)} of {len(told)} ({why}) |"


def _guided_rows(told: list[tuple[bool, EyeSaw | CanNotSay, Face, float]]) -> Iterator[str]:
    answers = [(clean, one, face) for clean, one, face, _ in told if isinstance(one, EyeSaw)]
    found = np.array([one.score for clean, one, _ in answers if not clean])
    clean = np.array([one.score for is_clean, one, _ in answers if is_clean])
    seen = np.mean([one.verdict == "seen" for is_clean, one, _ in answers if not is_clean])
    false = np.mean([one.verdict == "seen" for is_clean, one, _ in answers if is_clean])
    lays = np.degrees([apart(one.lay.angle, face.lay) for _, one, face in answers])
    crossing = np.degrees(
        [apart(one.angle, face.lay + face.crossing) for c, one, face in answers if not c and one.angle is not None]
    )
    yield f"| guided: refused all the same | {len(told) - len(answers)} of {len(told)} |"
    yield f"| guided, {len(found)} faces stopped at 60 % and {len(clean)} clean | ROC area {area(found, clean):.3f} |"
    yield f"| old marks found, and clean fields called marked | {seen:.0%}, {false:.1%} |"
    yield f"| direction of the lay, median and 95 % | {np.median(lays):.2f}, {np.quantile(lays, 0.95):.2f} degrees |"
    middle, most = np.median(crossing), np.quantile(crossing, 0.95)
    yield f"| direction of the old marks, median and 95 % | {middle:.1f}, {most:.1f} degrees |"
    yield f"| seconds for a field | {np.median([seconds for *_, seconds in told]):.2f} |"


if __name__ == "__main__":
    for row in rows(160, 16):
        print(row, flush=True)
