"""How long a part can be worked before it is too hot, and the rests that this asks for."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from kelbrast.core.planning.fit import Fit
from kelbrast.core.planning.job import Job
from kelbrast.core.process.rests import rest, work_until_hot
from kelbrast.core.reference.loader import constant

Reals = NDArray[np.float64]


@dataclass(frozen=True, slots=True)
class Warming:
    """Per tool of a list, in seconds: work until the first rest (infinite for none), between rests, and one rest.

    Attributes:
        by_hand: whether the hand, not the material, is what gets too hot first.
    """

    first: Reals
    between: Reals
    rest: float
    by_hand: NDArray[np.bool_]

    def rests(self, cut: Reals) -> Reals:
        """How many rests so much cutting asks for; the last axis runs over the tools."""
        more = np.ceil((cut - self.first) / self.between - 1e-9)
        return np.where(cut > self.first, np.maximum(more, 1.0), 0.0)


def warming(job: Job, fits: tuple[Fit, ...]) -> Warming:
    """The whole part as one lump; where nothing is known of its weight, it is taken as too heavy to warm."""
    lump, room, air = job.lump, constant("heat.room").si, constant("heat.loss_air").si
    count = len(fits)
    if lump is None:
        never = np.full(count, np.inf)
        return Warming(never, np.ones(count), 0.0, np.zeros(count, dtype=bool))
    hand = constant("heat.hand").si
    held = np.array([job.part.held == "hand" and fit.machine.stands and job.comes_to_the_bench for fit in fits], dtype=bool)
    allowed = np.where(held, min(job.hottest, hand), job.hottest) - room
    left = constant("heat.rest_to").value

    power = np.array([fit.power for fit in fits])
    first, again = (work_until_hot(lump=lump, power=power, loss=air, allowed=allowed * share) for share in (1.0, left))
    gets_hot = np.isfinite(first)  # and then it gets to the rest's temperature too
    between = np.where(gets_hot, first, 1.0) - np.where(gets_hot, again, 0.0)
    cooling = constant("heat.loss_water").si if "wet" not in job.forbids else air
    seconds = rest(lump=lump, loss=cooling, left=left) + constant("heat.handling").si
    return Warming(first, between, seconds, held & (hand < job.hottest))
