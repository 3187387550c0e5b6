"""How often the eye is right, on pairs of photos of two judges: the table of docs/eye.md.

    python bench/eye.py FOLDER...

scores folders of pairs as `kelbrast eye` does, by judge and by how they were taken, and makes them where they are not there yet
(`judge.sets`; the traced ones take half a minute each and the packages of the group `judge`). Thresholds were chosen on seeds
below 90,000; those from there on were looked at once, when everything was chosen.
"""

import math
import sys
import time
from collections import defaultdict
from collections.abc import Iterator
from concurrent.futures import ProcessPoolExecutor
from pathlib import Path

import numpy as np

sys.path.insert(0, str(Path(__file__).parent))

from judge.sets import HELD_OUT, write

from kelbrast.app.eye_kit import JudgedPair, judged_pairs, pairs_in, score_of
from kelbrast.core.vision.agreement import Rightness
from kelbrast.core.vision.light_check import EyeSaw
from kelbrast.core.vision.spectra import apart

LEAST = 0.0015  # of the face: less of old marks is not counted on
DEFAULT = Path("data/eye-judges")


def scored(task: tuple[Path, str]) -> list[tuple[JudgedPair, float]]:
    """One pair of a folder, with the seconds that it took."""
    folder, name = task
    began = time.perf_counter()
    found = judged_pairs([one for one in pairs_in(folder) if one[0].pair == name])
    return [(one, time.perf_counter() - began) for one in found]


def rows(folder: Path) -> Iterator[str]:
    """The rows of a folder's table."""
    tasks = [(folder, pair.pair) for pair, _ in pairs_in(folder)]
    sets: dict[tuple[str, str], list[tuple[JudgedPair, float]]] = defaultdict(list)
    with ProcessPoolExecutor() as pool:
        for each in pool.map(scored, tasks):
            for one, seconds in each:
                sets[one.pair.pair.split("-")[0], one.pair.what].append((one, seconds))
    for (judge, what), judged in sorted(sets.items()):
        yield from (f"| {judge} | {what} | {row} |" for row in _set([one for one, _ in judged], [s for _, s in judged]))


def _set(judged: list[JudgedPair], seconds: list[float]) -> Iterator[str]:
    counted = [one for one in judged if not one.pair.old_marks or (one.pair.left or 0.0) >= LEAST]
    score = score_of(counted)
    yield f"old marks on 0.15 % or more told | {_share(score.told)}"
    yield f"of them called clean | {_share(score.missed)}"
    yield f"clean called marked | {_share(score.false)}"
    yield f"clean that pass | {_share(score.passed)}"
    yield f"refused | {_share(score_of(judged).refused)} {_why(judged)}"
    less = score_of([one for one in judged if one not in counted]).told
    yield f"old marks on less of the face told | {_share(less)}"
    answers = [(one, one.answer) for one in judged if isinstance(one.answer, EyeSaw)]
    lay = [math.degrees(apart(saw.lay.angle, math.radians(one.pair.lay_deg or 0))) for one, saw in answers]
    if lay:
        yield f"direction of the lay, median and 95 % | {np.median(lay):.2f}, {np.quantile(lay, 0.95):.2f} degrees"
    seen = [(one, saw) for one, saw in answers if saw.verdict == "seen" and saw.crossing is not None and one.pair.old_marks]
    off = [abs(math.degrees(saw.crossing or 0.0) - one.pair.crossing_deg) for one, saw in seen]
    if off:
        yield f"direction of old marks seen, median and 95 % | {np.median(off):.1f}, {np.quantile(off, 0.95):.1f} degrees"
    yield f"seconds, median | {np.median(seconds):.1f}"


def _why(judged: list[JudgedPair]) -> str:
    why = sorted({one.said.why for one in judged if one.said.why})
    return f"({', '.join(why)})" if why else ""


def _share(one: Rightness) -> str:
    return f"{one.right} of {one.of}" + (f" ({max(0, one.low):.0%} to {one.high:.0%})" if one.of else "")


if __name__ == "__main__":
    folders = [Path(name) for name in sys.argv[1:]] or [DEFAULT]
    if folders == [DEFAULT]:
        for judge, seeds, what in HELD_OUT:
            write(judge, DEFAULT, seeds, what)
    for folder in folders:
        for row in rows(folder):
            print(row, flush=True)
