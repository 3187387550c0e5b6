"""How long a part can be worked before it is too hot, and the rests that this asks for."""

import math
from dataclasses import dataclass

import numpy as np

from kelbrast.core.arrays import SAME, Reals
from kelbrast.core.job import Job
from kelbrast.core.process.rests import rest, work_until_hot
from kelbrast.core.reference.loader import constant
from kelbrast.core.tooling.tool_on_face import ToolOnFace


@dataclass(frozen=True, slots=True)
class Warming:
    """Per tool of a list, in seconds: work until the first rest (infinite for none), between rests, and one rest."""

    first: Reals
    between: Reals
    rest: float

    def rests(self, cut: Reals) -> Reals:
        """How many rests so much cutting asks for; the last axis runs over the tools."""
        more = np.ceil((cut - self.first) / self.between - SAME)
        return np.where(cut > self.first, np.maximum(more, 1.0), 0.0)


def warming(job: Job, tools: tuple[ToolOnFace, ...]) -> Warming:
    """The whole part as one lump; where nothing is known of its weight, it is taken as too heavy to warm."""
    lump = job.lump
    if lump is None:
        return Warming(np.full(len(tools), np.inf), np.ones(len(tools)), 0.0)
    air, left = constant("heat.loss_air").si, constant("heat.rest_to").value

    def again(one: ToolOnFace) -> float:
        """Work goes on at the share of the rise that a rest leaves."""
        if math.isinf(one.manner.until_hot):
            return math.inf
        return one.manner.until_hot - work_until_hot(
            lump=lump, power=one.manner.power, loss=air, allowed=one.manner.allowed * left
        )

    first = np.array([one.manner.until_hot for one in tools])
    between = np.where(np.isfinite(first), np.array([again(one) for one in tools]), 1.0)
    cooling = constant("heat.loss_water").si if "wet" not in job.forbids else air
    return Warming(first, between, rest(lump=lump, loss=cooling, left=left) + constant("heat.handling").si)
