"""Invented bores and shafts, each worked to its end by the program's own moves."""

import math
import random
from dataclasses import replace
from typing import Final

from kelbrast.core.precision.move import Move, next_move
from kelbrast.core.precision.readings import everywhere
from kelbrast.core.precision.simulate import Hidden, Specimen
from kelbrast.core.precision.state import SizingTool, WorkRound, follow
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.sized import Gauge, RoundKind, RoundPart, SizeLimits

UM: Final = 1e-6
GAUGE: Final = Gauge(2 * UM, 1 * UM)
LAP: Final = SizingTool("F400", 2.5 * UM / 60, 0.7)
RISK: Final = constant("precision.risk").value


def worked_out(seed: int, *, kind: RoundKind, tolerance: float, off: float = 1.0) -> tuple[Move, float, float, int]:
    """One invented part to its end: the last move, how far it is past the near and the far limit (um), rounds."""
    chance = random.Random(seed)
    one = RoundPart(kind, 40e-3, SizeLimits(20e-3, 20e-3 + tolerance * UM))
    oval = chance.uniform(3, 60)
    start = chance.uniform(5, 30) - oval / 2
    size = min(-start, tolerance - 3 - oval / 2) if kind == "bore" else max(tolerance + start, 3 + oval / 2)
    hidden = Hidden(
        size=20e-3 + size * UM,
        oval=oval * UM,
        rate=LAP.rate * math.exp(chance.gauss(0, 0.7)),
        widest=chance.uniform(0, math.pi),
        faster=chance.random() < 0.5,
        off=chance.uniform(-1, 1) * UM,
    )
    bench = Specimen(one, hidden, GAUGE, seed + 10**6)
    tool = replace(LAP, rate=LAP.rate * off, spread=1.0 if off != 1 else 0.7)
    rounds = [WorkRound(0.0, tool, bench.read(everywhere(length=one.length)))]
    for _ in range(40):
        state = follow(one, rounds, GAUGE)
        move = next_move(state, GAUGE, risk=RISK)
        if move.action in ("stop", "not-possible", "cut-again"):
            break
        bench.work(move.seconds)
        narrow = (state.form.widest or 0.0) + (math.pi / 2 if kind == "bore" else 0.0)
        rounds.append(WorkRound(move.seconds, tool, bench.read([(0.0, narrow)] * move.readings)))
    return move, (bench.cut - one.near) / UM, (bench.cut - one.far) / UM, len(rounds)
