"""Habits of the trade as masks: where paper ends and the wheel starts."""

import numpy as np

from kelbrast.core.arrays import Flags, Reals
from kelbrast.core.planning.fit import Fit
from kelbrast.core.process.scratch import depth_of_marks, roughness_left
from kelbrast.core.reference.loader import constant


def handover_mask(fits: tuple[Fit, ...], depth: Reals, hardness: float) -> dict[str, Flags]:
    """(n, n) per school, True where it forbids the step. `depth`: (n,) likely depth of the marks at each node.

    "fine-paper": a compound only meets marks as fine as those of fine paper, however they were made.
    "early-wheel": no backed abrasive that is finer than where the cutting bar takes over.
    """
    n = len(fits) + 1
    polishes = np.array([False, *(fit.tool.carrier.wear_law == "compound" for fit in fits)])
    fine = depth_of_marks(roughness_left(grain=constant("handover.fine_paper").si, hold=1.0, hardness=hardness))
    coarse = constant("handover.early_wheel").si
    too_fine = np.array([False, *(fit.tool.carrier.backed and fit.tool.grain < coarse * (1 - 1e-9) for fit in fits)])
    from_paper = np.array([True, *(fit.tool.carrier.wear_law != "compound" for fit in fits)])
    return {
        "free": np.zeros((n, n), dtype=bool),
        "fine-paper": (from_paper & (depth > fine * (1 + 1e-9)))[:, None] & polishes[None, :],
        "early-wheel": np.broadcast_to(too_fine[None, :], (n, n)),
    }
