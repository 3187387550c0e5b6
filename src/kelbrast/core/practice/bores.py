"""A simulated bore to lap as an exercise, and the decisions that the program would have made."""

import math
import random
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from kelbrast.core.errors import BadInput
from kelbrast.core.precision.move import next_move
from kelbrast.core.precision.readings import everywhere, narrowest
from kelbrast.core.precision.simulate import Hidden, Specimen
from kelbrast.core.precision.state import SizingTool, WorkRound, follow
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.sized import Gauge, Reading, RoundPart, SizeLimits
from kelbrast.core.wording import Measure, Sentence, sentence

UM: Final = 1e-6
LEVELS: Final = {1: (33.0, 12.0, 0.3), 2: (21.0, 30.0, 0.5), 3: (13.0, 40.0, 0.7)}
"""By difficulty: the tolerance and the largest oval, um, and how much the rate differs from bore to bore (invented)."""
MOST_ROUNDS: Final = 30
_NOMINAL, _LENGTH, _RATE = 20e-3, 40e-3, 2.5e-6 / 60
_LOOKS: Final = 4  # readings of a look at the gauge
_FREE: Final = 4  # rounds, the first measuring counts
_EACH: Final = 8  # points off for every further one


@dataclass(frozen=True, slots=True)
class PracticeBore:
    """A bore with what is known of it, and what is hidden."""

    part: RoundPart
    gauge: Gauge
    tool: SizingTool
    hidden: Hidden
    seed: int


@dataclass(frozen=True, slots=True)
class PracticeEnd:
    """How it ended: within the limits or not, points from 0 to 100, the size that was reached, m, and what the program does.

    Attributes:
        program_size, program_rounds: where the program's own moves end on the same bore, and after how many rounds.
    """

    on_size: bool
    points: int
    size: float
    said: Sentence
    program_size: float
    program_rounds: int


def practice_bore(difficulty: int, seed: int) -> PracticeBore:
    """The bore of this difficulty and seed; the same every time.

    Raises:
        BadInput: there is no such difficulty.
    """
    if difficulty not in LEVELS:
        raise BadInput.one("difficulty", f"must be one of {', '.join(map(str, LEVELS))}")
    tolerance, most_oval, spread = LEVELS[difficulty]
    chance = random.Random(f"{difficulty} {seed}")
    oval = chance.uniform(4.0, most_oval)
    size = min(-chance.uniform(8, 24) + oval / 2, tolerance - 4 - oval / 2)
    hidden = Hidden(
        size=_NOMINAL + size * UM,
        oval=oval * UM,
        rate=_RATE * math.exp(chance.gauss(0, spread)),
        widest=chance.uniform(0, math.pi),
        drift=0.15,
        off=chance.uniform(-0.5, 0.5) * UM,
    )
    part = RoundPart("bore", _LENGTH, SizeLimits(_NOMINAL, _NOMINAL + tolerance * UM))
    tool = SizingTool("F800", _RATE, constant("precision.prior").value)
    return PracticeBore(part, Gauge(1.5 * UM, 0.5 * UM), tool, hidden, seed)


def practice_read(bore: PracticeBore, worked: Sequence[float], *, widest: float | None = None) -> tuple[Reading, ...]:
    """Readings after these rounds of work, s: everywhere, or across the widest direction (rad). Asked again they agree."""
    return _after(bore, worked).read(_places(bore, widest, _LOOKS))


def practice_end(bore: PracticeBore, worked: Sequence[float]) -> PracticeEnd:
    """What came of it, with points, and where the program's own moves end."""
    cut, limits = _after(bore, worked).cut, bore.part.wanted
    on_size = limits.low <= cut <= limits.high
    rounds = len(worked) + 1
    points = max(0, 100 - _EACH * max(0, rounds - _FREE)) if on_size else 0
    code = "practice.bore-on-size" if on_size else "practice.bore-past" if cut > limits.high else "practice.bore-short"
    off = Measure(max(cut - limits.high, limits.low - cut, 0.0), "depth")
    size = Measure(cut, "length", 6)
    said = sentence(code, size=size) if on_size else sentence(code, off=off, size=size)
    program = _by_the_program(bore)
    return PracticeEnd(on_size, points, cut, said, _after(bore, program).cut, len(program) + 1)


def _places(bore: PracticeBore, widest: float | None, count: int) -> tuple[tuple[float, float], ...]:
    length = bore.part.length
    if widest is None:
        return everywhere(length=length)
    return narrowest(length=length, direction=widest + math.pi / 2, count=count)


def _after(bore: PracticeBore, worked: Sequence[float]) -> Specimen:
    specimen = Specimen(bore.part, bore.hidden, bore.gauge, bore.seed)
    for seconds in worked:
        specimen.work(seconds)
    return specimen


def _by_the_program(bore: PracticeBore) -> list[float]:
    rounds = [WorkRound(0.0, bore.tool, practice_read(bore, ()))]
    worked: list[float] = []
    for _ in range(MOST_ROUNDS):
        state = follow(bore.part, rounds, bore.gauge)
        move = next_move(state, bore.gauge, risk=constant("precision.risk").value)
        if move.action in ("stop", "not-possible", "cut-again"):
            break
        if move.seconds:
            worked.append(move.seconds)
        places = _places(bore, state.form.widest or 0.0, move.readings)
        rounds.append(WorkRound(move.seconds, bore.tool, _after(bore, worked).read(places)))
    return worked
