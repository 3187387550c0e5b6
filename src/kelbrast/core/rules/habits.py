"""Habits of the trade: with which grade to begin, how far to jump, and where paper ends and the wheel starts."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Final

import numpy as np

from kelbrast.core.process.rework import expected_repeats
from kelbrast.core.process.scratch import depth_of_marks, roughness_left
from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.rule import Practice, StepRule
from kelbrast.core.tooling.surfaces import Surfaces
from kelbrast.core.tooling.tool_on_face import ToolOnFace
from kelbrast.core.validity import REL_TOL, Flags, Reals
from kelbrast.core.wording import sentence


@dataclass(frozen=True, slots=True)
class Steepness:
    """How steeply a habit goes down, as ratios (constants `habit.*`).

    Attributes:
        jump: of grain between two backed abrasives, or from one to a lap; lap: from lap to lap.
        first: of the damage to the first grade's own marks; first_raised: of metal that is knocked down to them.
        soft: of the marks that are met to one's own, of what is soft: wheels, pads, non-woven, rubber, bristle.
    """

    jump: float
    lap: float
    first: float
    first_raised: float
    soft: float


def steepness(habit: str) -> Steepness | None:
    """What a habit allows; None for long steps, which the physics alone bounds."""
    if habit == "long-steps":
        return None
    return Steepness(
        **{name: constant(f"habit.{habit}.{name}").value for name in ("jump", "lap", "first", "first_raised", "soft")}
    )


def excess(surfaces: Surfaces, habit: str) -> Reals:
    """(n, n) how many times as far each step goes as the habit allows; 0 for a habit that allows anything."""
    limits = steepness(habit)
    if limits is None:
        return np.zeros((surfaces.count, surfaces.count))
    sinks = surfaces.depth_worst[:, None] / surfaces.depth_worst[None, :]
    backed = np.array([False, *(on_face.tool.carrier.cutting.backed for on_face in surfaces.tools)])
    laps = np.array([False, *(on_face.tool.carrier.cutting.wear_law == "lap" for on_face in surfaces.tools)])
    may_jump = np.where(laps[:, None] & laps[None, :], limits.lap, limits.jump)
    over = np.maximum(_jumps(surfaces) / may_jump, np.where(backed[None, :], 0.0, sinks / limits.soft))
    if habit == "every-grade":
        over = np.maximum(over, 1 + _left_out(surfaces))
    if surfaces.face.edge is not None or surfaces.face.stock > 0:
        over[0] = 0.0  # what comes off for a form or a size is no mark that a first grade could lose
    elif surfaces.face.found.has_depth:
        over[0] = sinks[0] / (limits.first_raised if surfaces.face.stands_proud else limits.first)
    return over


def _jumps(surfaces: Surfaces) -> Reals:
    """(n, n) how many times finer the grain gets from one firm abrasive, or paper that was there before, to another; else 0."""
    after = surfaces.face.found.after
    firm = [on_face.tool.grain if on_face.tool.is_firm else np.nan for on_face in surfaces.tools]
    grains = np.array([after.grain if after is not None else np.nan, *firm])
    return np.asarray(np.nan_to_num(grains[:, None] / grains[None, :], nan=0.0))


def _left_out(surfaces: Surfaces) -> Reals:
    """(n, n) how many grades each step leaves out: of its own carrier, or before a wheel of the carrier that it comes from."""
    depth = surfaces.depth_worst
    backed = np.array([False, *(on_face.tool.carrier.cutting.backed for on_face in surfaces.tools)])
    names = np.array(["", *(on_face.tool.carrier.id for on_face in surfaces.tools)])
    left = np.zeros((surfaces.count, surfaces.count))
    for carrier in np.unique(names[backed]):
        own = depth[names == carrier]
        finer_than_from = (own[None, :] < depth[:, None] * (1 - REL_TOL)).sum(axis=1)
        coarser_than_to = (own[None, :] > depth[:, None] * (1 + REL_TOL)).sum(axis=1)
        between = np.maximum(finer_than_from[:, None] + coarser_than_to[None, :] - len(own), 0)
        to_it = (names == carrier)[None, :]
        off_it = (names == carrier)[:, None] & ~backed[None, :]
        left = np.where(to_it, between, np.where(off_it, finer_than_from[:, None], left))
    return left


def fine_paper_excess(surfaces: Surfaces) -> Reals:
    """(n, n) how many times as deep as those of fine paper the marks are to which a compound is taken; 0 for other steps."""
    fine_paper = roughness_left(grain=constant("handover.fine_paper").si, hold=1.0, hardness=surfaces.material.hardness)
    polishes = np.array([False, *(on_face.tool.carrier.cutting.wear_law == "compound" for on_face in surfaces.tools)])
    times = surfaces.depth_worst / depth_of_marks(fine_paper)
    return np.where((~polishes)[:, None] & polishes[None, :], times[:, None], 0.0)


def early_wheel_excess(surfaces: Surfaces) -> Reals:
    """(n, n) how many times as fine a backed abrasive is as where the cutting bar takes over; 0 for other steps."""
    coarse = constant("handover.early_wheel").si
    times = [coarse / on_face.tool.grain if on_face.tool.carrier.cutting.backed else 0.0 for on_face in surfaces.tools]
    return np.broadcast_to(np.array([0.0, *times])[None, :], (surfaces.count, surfaces.count))


SCHOOLS: Final[Mapping[str, Callable[[Surfaces], Reals]]] = {"fine-paper": fine_paper_excess, "early-wheel": early_wheel_excess}


def repeats(surfaces: Surfaces, beyond: Reals, handover: str) -> Reals:
    """(rows, n) how often each step is expected to be repeated by a habit and the school of where the wheel starts.

    Args:
        beyond: (n, n) how many times as far each step goes as the habit allows (`excess`), or the first rows of it.
    """
    expected = expected_repeats(beyond)
    expected[0] = expected_repeats(beyond[0], first=True)
    if handover in SCHOOLS:
        expected = expected + expected_repeats(SCHOOLS[handover](surfaces)[: len(beyond)])
    return expected


def _colours(on_face: ToolOnFace) -> bool:
    """A colouring bar on a wheel."""
    carrier = on_face.tool.carrier
    wheel = carrier.cutting.wear_law == "compound" and carrier.running.band in ("cut", "colour", "small")
    return wheel and on_face.tool.grain < constant("handover.colour_below").si


def _colour_without_a_cut(surfaces: Surfaces) -> Flags:
    coarse = constant("handover.colour_after").si * (1 + REL_TOL)
    after = surfaces.face.found.after
    from_paper = [on_face.tool.carrier.cutting.backed and on_face.tool.grain > coarse for on_face in surfaces.tools]
    uncut = np.array([after is not None and after.grain > coarse, *from_paper])
    mask: Flags = uncut[:, None] & np.array([False, *map(_colours, surfaces.tools)])[None, :]
    return mask


KEPT: Final = Practice(
    id="steepness",
    says="A habit says how steeply the work goes down: the first grade's own marks are not lost beside the damage "
    "(first), the grain of backed abrasives and laps gets so many times finer (jump, lap), and the marks sink by no more "
    "than so many times to and between wheels, pads and soft abrasives (soft). Every grade leaves none of a carrier out. "
    "It is a price and no wall: what goes further risks that the light check fails and the step is repeated "
    "(process.rework), and the expected repeats count like work. Long steps are bounded by the physics alone.",
    source="practice-fit",
    lifted_by="another habit",
    kept_by=repeats,
)
COLOUR_FOLLOWS_A_CUT: Final = StepRule(
    id="colour-follows-a-cut",
    says="A colouring bar comes after a cutting one, or after paper that is nearly as fine (handover.colour_after).",
    source="bench-practice",
    lifted_by="a cutting bar, or finer paper",
    refusal="too-soft",
    mask=_colour_without_a_cut,
    reason=lambda surfaces, _before, at: sentence("soft.colour", tool=surfaces.leaving(at).tool.label),
)
FINE_PAPER: Final = Practice(
    id="fine-paper",
    says="The fine-paper school takes a compound to marks as fine as those of fine paper (handover.fine_paper); deeper ones "
    "risk repeats by the same law as a habit.",
    source="bench-practice",
    lifted_by="another school",
    kept_by=fine_paper_excess,
)
EARLY_WHEEL: Final = Practice(
    id="early-wheel",
    says="The early-wheel school uses backed abrasives no finer than where the cutting bar takes over (handover.early_wheel); "
    "finer ones count as if they risked repeats by the same law as a habit.",
    source="bench-practice",
    lifted_by="another school",
    kept_by=early_wheel_excess,
)
