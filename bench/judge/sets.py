"""Pairs of photos with their truth, in folders as `kelbrast eye` scores them, of two judges that know nothing of each other.

- `traced`: faces of `judge.faces`, seen by a path tracer and a phone's processing.
- `drawn`: the planner's own laws, by `tests/photographing.py`.

Seeds below 90,000 are for choosing; the others are only judged, and looked at once.

    python bench/judge/sets.py traced FOLDER FIRST COUNT [WHAT]
"""

import csv
import math
import random
import sys
from collections.abc import Callable
from concurrent.futures import ProcessPoolExecutor
from dataclasses import dataclass, replace
from pathlib import Path

sys.path[:0] = [str(Path(__file__).parents[2] / "tests"), str(Path(__file__).parents[1])]

from judge.faces import GRAIN_MM  # noqa: E402
from kelbrast.core.vision.light_check import camera_shows  # noqa: E402
from kelbrast.documents.run.eye_pairs import COLUMNS, TABLE  # noqa: E402

_SAMPLES = 6  # of light in each of three pictures: what is left of chance is like a sensor's noise, 4 to 5 %
STEPS = (
    ("P120", "P240"),
    ("P180", "P320"),
    ("P240", "P400"),
    ("P240", "P600"),
    ("P320", "P600"),
    ("P400", "P800"),
    ("P180", "P400"),
)
PIXELS = (896, 1344)  # six fields
# What the table of docs/eye.md is of. Guided photos have blur of 0.5 to 1.1 px and up to 8 % of room light.
HELD_OUT = (
    ("traced", range(90_000, 90_060), "guided"),
    ("traced", range(92_000, 92_006), "room light"),
    ("drawn", range(90_000, 90_060), "guided"),
    ("drawn", range(92_000, 92_016), "dirty"),
    ("drawn", range(92_000, 92_016), "very blurred"),
    ("drawn", range(92_000, 92_016), "high lamp"),
    ("drawn", range(92_000, 92_016), "lamps alike"),
)


@dataclass(frozen=True)
class Pair:
    """Two photos, by the place of the lamp, and what is true of them: degrees, mm, and the share of the face left."""

    across: bytes
    along: bytes
    um: float
    before: str
    crossing: float
    lay: float
    left: float


def traced(seed: int, what: str = "guided") -> Pair:
    """A face that was never drawn by the program, by the path tracer."""
    from judge.faces import Dirt, Face, surface
    from judge.phone import Phone, photo
    from judge.traced import METALS, Camera, Lamp, Metal, Room, Scene

    dice = random.Random(seed)

    def some(share: float, low: float, high: float) -> float:
        return dice.uniform(low, high) if dice.random() < share else 0.0

    before, own = dice.choice(STEPS)
    lay, um = dice.uniform(0, math.pi), dice.uniform(6, _widest(before))
    dirty = what == "dirty"
    face = Face(
        before,
        own,
        lay,
        math.radians(dice.uniform(50, 90)) * dice.choice((-1, 1)),
        _left(dice, seed),
        pits=int(some(0.3, 5, 60)),
        ripple=some(0.25, 0.0001, 0.0006),
        patina=some(0.15, 0.3, 0.7),
        scatter=math.radians(dice.uniform(0.5, 4)),
        bow=some(0.2, -1 / 60, 1 / 60),
        dirt=Dirt(
            fibres=dice.randrange(8, 20) if dirty else dice.choice((0, 0, 1, 1, 2, 3)),
            dust=dice.randrange(100 if dirty else 40),
            prints=1 if dirty else int(dice.random() < 0.15),
            drops=2 if dirty else int(dice.random() < 0.15),
            smear=dice.random() < 0.1,
        ),
        seed=seed,
    )
    spacing = um / 1000 / 1.5
    rows, columns = (round(length * 1.5 * 1.08) for length in PIXELS)
    scene = Scene(face, surface(face, (rows, columns), spacing), Metal(dice.choice(METALS), dice.uniform(0.08, 0.25)))
    height = dice.uniform(30, 60) if what == "high lamp" else dice.uniform(8, 15)
    far = dice.uniform(80, 150) if dice.random() < 0.3 else dice.uniform(150, 500)
    lamp = Lamp(
        lay + math.radians(dice.uniform(-8, 8)) + dice.choice((0, math.pi)), math.radians(height), far, dice.uniform(4, 25)
    )
    across = replace(lamp, turn=lay + math.pi / 2 + math.radians(dice.uniform(-8, 8)) + dice.choice((0, math.pi)))
    if what == "lamps alike":
        lamp = replace(across, turn=across.turn + math.radians(dice.uniform(-20, 20)))
    camera = Camera(um, PIXELS, dice.uniform(100, 150), (dice.gauss(0, 0.02), dice.gauss(0, 0.02)))
    moved = Camera(
        um * dice.uniform(0.995, 1.005),
        PIXELS,
        camera.away,
        camera.lean,
        math.radians(dice.gauss(0, 0.5)),
        (dice.gauss(0, 0.1), dice.gauss(0, 0.1)),
    )
    light = 0.05 if what == "room light" else dice.uniform(0, 0.03) if dice.random() < 0.8 else dice.uniform(0.03, 0.08)
    room = Room(light, some(0.2, 0.1, 0.5), dice.uniform(0, 2 * math.pi))
    phone = Phone(
        blur=_blur(dice, what),
        shake=(some(0.3, 0.2, 0.8), some(0.3, 0.2, 0.8)),
        veil=dice.uniform(0, 0.05),
        noise=dice.uniform(0.005, 0.04),
        exposure=dice.uniform(0.35, 0.55),
        smoothing=dice.uniform(0, 1.2),
        sharpening=dice.uniform(0, 1),
        curve=dice.uniform(0, 0.6),
        vignette=dice.uniform(0.05, 0.35),
        bent=dice.uniform(-0.01, 0.01),
        quality=dice.randrange(90, 98),
        seed=seed,
    )
    first = photo(scene.seen(across, camera, room, _SAMPLES, seed), phone)
    second = photo(scene.seen(lamp, moved, room, _SAMPLES, seed + 1), replace(phone, seed=seed + 1))
    return Pair(first, second, um, before, abs(face.crossing), lay, face.left)


def _widest(before: str) -> float:
    """Micrometres to a pixel: the person goes as near as is said before the first photo, with a little to spare."""
    most = camera_shows(pixel=1.0, grain=GRAIN_MM[before] / 1000).most
    return min(12.0, 0.99 * 1e6 * most)


def _left(dice: random.Random, seed: int) -> float:
    """Every second face is clean; of the others a share of 0.05 to 4 % is left, small ones as often as large ones."""
    share = math.exp(dice.uniform(math.log(0.0005), math.log(0.04)))
    return share if seed % 2 else 0.0


def _blur(dice: random.Random, what: str) -> float:
    ordinary = dice.uniform(0.5, 1.1)
    return dice.uniform(3, 5) if what == "very blurred" else ordinary


def drawn(seed: int, what: str = "guided") -> Pair:
    """A face by the planner's own laws."""
    from photographing import Face, Shot, both

    dice = random.Random(seed)
    before, own = dice.choice(STEPS)
    face = Face(
        before=before,
        own=own,
        share=dice.uniform(0.5, 0.8) if seed % 2 else 1.0,
        crossing=math.radians(dice.uniform(50, 90)),
        lay=math.radians(dice.uniform(0, 180)),
        hardness=dice.choice([60, 110, 150, 200]),
    )
    first = Shot(
        lamp=face.lay + math.radians(dice.uniform(-8, 8)),
        height=math.radians(dice.uniform(30, 60) if what == "high lamp" else dice.uniform(8, 15)),
        um=dice.uniform(6, _widest(before)),
        pixels=PIXELS,
        body=dice.uniform(0.1, 0.4),
        blur=_blur(dice, what),
        noise=dice.uniform(0.006, 0.02),
        dirt=dice.randrange(60, 120) if what == "dirty" else dice.randrange(24),
        exposure=dice.uniform(0.35, 0.6),
        tilt=dice.uniform(-0.03, 0.03),
        falloff=dice.uniform(0.1, 0.4),
        quality=dice.randrange(90, 98),
        seed=seed,
    )
    second = replace(first, lamp=face.lay + math.pi / 2 + math.radians(dice.uniform(-8, 8)))
    if what == "lamps alike":
        first = replace(first, lamp=second.lamp + math.radians(dice.uniform(-20, 20)))
    along, across, left = both(face, first, second)
    return Pair(across, along, first.um, before, face.crossing, face.lay, left)


JUDGES: dict[str, Callable[[int, str], Pair]] = {"traced": traced, "drawn": drawn}


def written(task: tuple[str, Path, int, str]) -> dict[str, str]:
    """A pair in the folder, and its row of the table."""
    judge, folder, seed, what = task
    pair, name = JUDGES[judge](seed, what), f"{judge}-{seed}-{what.replace(' ', '-')}"
    (folder / f"{name}-across.jpg").write_bytes(pair.across)
    (folder / f"{name}-along.jpg").write_bytes(pair.along)
    told = (
        name,
        "yes" if pair.left > 0 else "no",
        f"{PIXELS[1] * pair.um / 1000:.3f}",
        pair.before,
        f"{math.degrees(pair.crossing):.1f}",
        f"{math.degrees(pair.lay) % 180:.2f}",
        f"{pair.left:.6f}",
        what,
    )
    return dict(zip(COLUMNS, told, strict=True))


def write(judge: str, folder: Path, seeds: range, what: str = "guided") -> None:
    """A set of pairs, added to what the folder has; what is there already is not made again."""
    folder.mkdir(parents=True, exist_ok=True)
    table = folder / TABLE
    there = {row["pair"] for row in csv.DictReader(table.open())} if table.exists() else set()
    tasks = [(judge, folder, seed, what) for seed in seeds if f"{judge}-{seed}-{what.replace(' ', '-')}" not in there]
    with table.open("a", newline="") as out:
        writer = csv.DictWriter(out, COLUMNS)
        if not there:
            writer.writeheader()
        # The tracer takes all cores by itself.
        with ProcessPoolExecutor(1 if judge == "traced" else None) as pool:
            for row in pool.map(written, tasks):
                writer.writerow(row)
                out.flush()


if __name__ == "__main__":
    judge, folder, first, count, *what = sys.argv[1:]
    write(judge, Path(folder), range(int(first), int(first) + int(count)), *what)
