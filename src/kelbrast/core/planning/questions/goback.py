"""Rework after a failed light check: what clears the mark, locally or on the whole face, and what accepting it means."""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Final, Literal

from kelbrast.core.catalogue.grades import nearest
from kelbrast.core.errors import BadInput
from kelbrast.core.job import Job
from kelbrast.core.planning.face.face_plan import FacePlan, plan_face
from kelbrast.core.planning.face.fallback import fallback
from kelbrast.core.planning.face.step import Step
from kelbrast.core.planning.whole.plan import Plan, face_in_plan
from kelbrast.core.planning.whole.set_ups import set_ups
from kelbrast.core.process.scratch import depth_of_marks, grain_of_marks
from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.roughness import wanted_band
from kelbrast.core.surface.face import Face, Wish
from kelbrast.core.surface.found import Found, Spots
from kelbrast.core.tooling.surfaces import described_depth
from kelbrast.core.validity import REL_TOL

_NOTHING: Final = 1e-12  # m: a limit that is used up, where 0 would be none at all

MARK: Final = "the mark"  # what the spot is called

Extent = Literal["patch", "whole"]


@dataclass(frozen=True, slots=True)
class GoingBack:
    """The answer to a mark that is still there (SI).

    Attributes:
        after: the step (from 1) at whose light check it was found; depth: how deep it is.
        whole: the way to the finish over the whole face; patch: with the mark worked in its place first, None where all of the
            face is worked alike.
        missed: the last step before (from 1) whose own marks are as deep, so which step was left too early; None for none.
        deeper: the mark is deeper than the face was described, so no step was left too early.
        like: the paper grade whose marks are nearest to it.
        times_deeper: depth over the depth of the marks that the finish allows (infinite when it allows any).
        shows: whether accepting it leaves a line that can be seen in the finish.
    """

    face: Face
    after: int
    depth: float
    whole: FacePlan
    patch: FacePlan | None
    missed: int | None
    deeper: bool
    like: str
    times_deeper: float
    shows: bool

    @property
    def cheapest(self) -> tuple[Extent, FacePlan]:
        """The quicker of the two that are possible; the whole face when neither is."""
        choices: list[tuple[Extent, FacePlan]] = [("whole", self.whole)]
        if self.patch is not None:
            choices.append(("patch", self.patch))
        return min(choices, key=lambda choice: (not choice[1].possible, choice[1].seconds))


@dataclass(frozen=True, slots=True)
class Done:
    """A step that was done on a face (SI).

    Attributes:
        layer: that it took off.  leaves: depth of the marks that it left.
        places: what the spots are known by that it worked, each with how far around it; None for all of the face.
    """

    layer: float
    leaves: float
    places: tuple[tuple[str, float], ...] | None = None

    @classmethod
    def of(cls, step: Step) -> "Done":
        """A step as it was planned."""
        zone = step.zone
        places = None if zone is None else tuple((spots.key, e) for spots, e in zip(zone.spots, zone.margins, strict=True))
        return cls(step.marks.layer, step.marks.after, places)


def go_back(job: Job, face: Face, *, after: int, depth: float) -> GoingBack:
    """What to do about a mark of this depth found after this step of the face's plan.

    Args:
        after: the step whose light check showed the mark, from 1.
        depth: of the mark, m.

    Raises:
        BadInput: no such step in the plan of this face, or the depth is not above 0.
    """
    planned = face_in_plan(face, job)
    if not 1 <= after <= len(planned.steps):
        have = f"the plan of this face has steps 1 to {len(planned.steps)}" if planned.steps else "this face has no steps"
        raise BadInput.one("after", f"{have}, not {after}")
    return back_from(job, face, [Done.of(step) for step in planned.steps[:after]], depth=depth)


def back_from(job: Job, face: Face, done: Sequence[Done], *, depth: float, gone: float | None = None) -> GoingBack:
    """What to do about a mark of this depth after these steps, whatever route they were of.

    The metal that the steps so far took counts against the limit. The mark is a spot on the face as it is now, planned as any
    other.

    Args:
        done: the steps that were done on the face, the last is the one whose light check showed the mark.
        depth: of the mark, m.
        gone: what came off by measurement, m, where it was more than the steps were planned to take.

    Raises:
        BadInput: the depth is not above 0, or has no end.
    """
    if not 0 < depth < math.inf:
        raise BadInput.one("depth_um", "must be above 0, and a number")
    taken = max(sum(step.layer for step in done), gone or 0.0)
    now = as_it_is(face, done, hardness=job.material.hardness, taken=taken)
    deepest = max(depth, described_depth(now, job.material.hardness) if now.found.has_depth else 0.0)
    left = None if face.limit is None else max(face.may_come_off - taken, _NOTHING)
    whole = plan_face(replace(now, found=Found("scratches", deepest, deepest), spots=(), limit=left), job)
    local = plan_face(replace(now, spots=(*now.spots, _mark(face, done, depth, taken))), job)
    small = local if any(step.zone for step in local.steps) else None
    times = depth / depth_of_marks(wanted_band(face, job.material.hardness)[1])
    like = nearest("P", grain_of_marks(depth=depth, hardness=job.material.hardness)).name
    missed = _left_too_early(done, depth)
    deeper = missed == 1 and depth > described_depth(face, job.material.hardness) * (1 + REL_TOL)
    return GoingBack(face, len(done), depth, whole, small, None if deeper else missed, deeper, like, times, times > 1)


def plan_of(job: Job, back: FacePlan) -> Plan:
    """A way back as a plan of its own: nothing around the abrasives is done again."""
    return Plan(job, (back,), (back.face.key,), set_ups((back,)), (), (), (), (fallback(back, job),))


def as_it_is(face: Face, done: Sequence[Done], *, hardness: float, taken: float) -> Face:
    """The face as it is after these steps, with what its limits have left.

    What was worked all over looks as the last step left it, as wanted where that will do. Before that the rest is as it was
    found, and the spots that were worked are as large as their zones and as deep as the marks that are in them.

    Args:
        hardness: of the work, Pa.  taken: what came off where most did, m.
    """
    gone = _gone(done, taken)
    left = None if face.limit is None else max(face.may_come_off - gone if gone else face.limit, _NOTHING)
    now = replace(face, limit=left, wish=Wish())
    if done[-1].places is None:
        low, high = wanted_band(face, hardness)
        leaves = done[-1].leaves
        good = low <= leaves / constant("scratch.depth_per_ra").value <= high
        rest = Found("scratches", as_wanted=True) if good else Found("scratches", leaves, leaves)
        return replace(now, found=rest, spots=(), stock=0.0, out_of_round=False)
    return replace(now, spots=tuple(_worked(spots, done, gone) for spots in face.spots))


def _gone(done: Sequence[Done], taken: float) -> float:
    """What came off everywhere, m: all of it, where no step worked places only."""
    return sum(step.layer for step in done if step.places is None) if any(step.places for step in done) else taken


def _worked(spots: Spots, done: Sequence[Done], gone: float) -> Spots:
    """Spots after steps that worked places: as they were found, or the zone of the last step around them."""
    margins = [(step, dict(step.places or ()).get(spots.key)) for step in done]
    here = [(step, margin) for step, margin in margins if margin is not None]
    if not here:
        return spots
    (last, margin), off = here[-1], sum(step.layer for step, _ in here)
    return replace(
        spots,
        found=Found("scratches", last.leaves, last.leaves),
        length=spots.length + 2 * margin,
        width=spots.width + 2 * margin,
        gone=max(0.0, off - spots.found.above - gone),
    )


def _mark(face: Face, done: Sequence[Done], depth: float, taken: float) -> Spots:
    """A lone mark of this depth, where most came off."""
    length, width = constant("blend.mark_length").si, constant("blend.mark_width").si
    above = max((found.above for found in face.found_anywhere), default=0.0)
    return Spots(Found("scratches", depth, depth), length, width, name=MARK, gone=max(0.0, taken - above - _gone(done, taken)))


def _left_too_early(done: Sequence[Done], depth: float) -> int | None:
    """The step that met marks of this depth and did not clear them; None when its own marks are as deep."""
    for number, step in reversed(list(enumerate(done, start=1))):
        if step.leaves >= depth:
            return number + 1 if number < len(done) else None
    return 1
