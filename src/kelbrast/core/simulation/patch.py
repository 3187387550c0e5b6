"""Simulated height maps of a surface: as found, and after each step."""

import math
from dataclasses import dataclass, field, replace
from typing import Final

import numpy as np

from kelbrast.core.errors import OutsideValidity
from kelbrast.core.metrology.profile import low_pass
from kelbrast.core.reference.loader import constant
from kelbrast.core.simulation.marks import Marks, draw
from kelbrast.core.surface.found import FoundKind
from kelbrast.core.validity import Flags, Reals, require_above_zero, require_not_below_zero, require_within

_PEAKS: Final = 15  # columns over which the peaks are smoothed
START_ANGLE: Final = 0.6  # rad: of the first marks, so that they lie along neither side of a picture


@dataclass(frozen=True, slots=True)
class Patch:
    """Heights (m) on a grid of this spacing (m), from the plane that it was found with.

    Attributes:
        top: the plane down to which it was worked, m; 0 as found.
    """

    z: Reals
    spacing: float
    top: float = 0.0

    @property
    def depth(self) -> float:
        """From its plane down to the deepest place, m."""
        return float(self.top - self.z.min())


@dataclass(frozen=True, slots=True)
class FoundPatch:
    """How a patch is found (SI): the kind of damage, how deep, and the grain that leaves such marks."""

    kind: FoundKind
    depth: float
    grain: float
    angle: float = START_ANGLE


@dataclass(frozen=True, slots=True)
class Working:
    """A step on a patch (SI).

    Attributes:
        layer: what it takes off in its planned time.  marks: what it leaves.
        levels: a firm backing cuts the tops down to a plane; a soft one follows the shape.
        reaches: the deepest mark that it can take out; None for no limit.
        share: of the planned time that it was worked.
        covers: how far from the left it works, as a share of the width; None for all of it.
    """

    layer: float
    marks: Marks
    levels: bool = True
    reaches: float | None = None
    share: float = 1.0
    seed: int = field(default=0)
    covers: float | None = None


def found_patch(found: FoundPatch, size: tuple[int, int], spacing: float, seed: int) -> Patch:
    """A patch as it is found; the same seed gives the same patch.

    Equation: the marks, ripple, bead, pits or nick of its kind, down from its plane to its depth (m)
    Valid: at least 8 by 8 points; spacing, depth and grain above 0.

    Args:
        found: its kind, depth and grain, m, and angle, rad.
        size: rows and columns, dimensionless.
        spacing: of the points, m.
        seed: of its chance, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: simulation-fit, our-choice.

    >>> patch = found_patch(FoundPatch("nick", 50e-6, 80e-6), (64, 64), 40e-6, seed=1)
    >>> 40e-6 < patch.depth <= 50e-6
    True
    """
    require_above_zero(spacing=spacing, depth=found.depth, grain=found.grain)
    if min(size) < 8:
        raise OutsideValidity("a patch needs at least 8 by 8 points")
    chance = np.random.default_rng(seed)
    if found.kind in ("scratches", "lay"):
        marks = Marks(found.depth, found.grain, "one-way" if found.kind == "lay" else "none", found.angle)
        return Patch(draw(marks, size, spacing, chance).z, spacing)
    if found.kind == "raised":
        return Patch(_bead(found, size, spacing), spacing)
    if found.kind == "waviness":
        return Patch(_ripple(found.depth, size, spacing, chance), spacing)
    if found.kind == "nick":
        return Patch(_nicked(found, size, spacing, chance), spacing)
    return Patch(_pitted(found, size, spacing, chance), spacing)


def worked(patch: Patch, step: Working) -> Patch:
    """The patch after a step, or after a share of its planned time.

    A firm carrier cuts down to a plane, a soft one to the shape less the same layer; what lies deeper stays. Then the
    step's own marks lie below that, as far as it has worked the patch over. Where it works a part only, the layer fades
    smoothly to nothing at the rim.

    Equation: `z' = min(z, plane - a p + own min(1, a p / d))`, a the layer, p the share, d the depth of its own marks (m)
    Valid: share from 0 to 1.5, what it covers from 0 to 1, layer not below 0.

    Args:
        patch: heights, m.
        step: its layer and marks, m, and the share of its time, dimensionless.

    Raises:
        OutsideValidity: outside that.

    Source: simulation-fit.

    >>> patch = Patch(np.zeros((16, 16)), 8e-6)
    >>> after = worked(patch, Working(10e-6, Marks(2e-6, 30e-6)))
    >>> round(after.top * 1e6, 6)
    -10.0
    """
    require_within(0, 1.5, share=step.share)
    require_within(0, 1, covers=1.0 if step.covers is None else step.covers)
    require_not_below_zero(layer=step.layer)
    taken = step.layer * step.share
    if step.reaches is not None:
        taken = min(taken, step.reaches)
    chance = np.random.default_rng(step.seed)
    own = draw(step.marks, patch.z.shape, patch.spacing, chance).z
    if step.covers is not None:
        return _worked_in_part(patch, step, taken, own)
    plane = patch.top - taken if step.levels else _shape(patch) - taken
    # Its marks reach their depth as soon as so much was taken; a step that has just begun has only scratched the tops.
    begun = min(1.0, taken / step.marks.depth) if step.marks.depth > 0 else 1.0
    return replace(patch, z=np.minimum(patch.z, plane + own * begun), top=float(np.max(plane)))


def _worked_in_part(patch: Patch, step: Working, taken: float, own: Reals) -> Patch:
    """Up to the rim, where the layer fades as 3 t^2 - 2 t^3 over `simulation.rim` of the width; down from the hollow that
    is there already, which the peaks of every column show."""
    across = np.linspace(0.0, 1.0, patch.z.shape[1])
    t = np.clip(((step.covers or 0.0) - across) / constant("simulation.rim").value, 0.0, 1.0)
    off = taken * (3 * t**2 - 2 * t**3)
    begun = np.minimum(1.0, off / step.marks.depth) if step.marks.depth > 0 else np.ones_like(off)
    window = np.ones(_PEAKS) / _PEAKS
    tops = np.pad(patch.z.max(axis=0), _PEAKS // 2, mode="edge")
    z = np.minimum(patch.z, np.convolve(tops, window, mode="valid") - off + own * begun)
    return replace(patch, z=np.where(t > 0, z, patch.z))


def old_marks(before: Patch, after: Patch) -> Flags:
    """Where the surface before the step still is as it was, below the plane that was worked down to: marks that are left.

    Equation: `z' = z and z' < top'` (flags)
    Valid: two states of one patch.

    Args:
        before: heights, m.
        after: heights, m.

    Raises:
        OutsideValidity: outside that.

    Source: geometry.

    >>> before = Patch(np.array([[0.0, -9e-6]]), 8e-6)
    >>> old_marks(before, Patch(np.array([[-5e-6, -9e-6]]), 8e-6, top=-5e-6)).tolist()
    [[False, True]]
    """
    if before.z.shape != after.z.shape:
        raise OutsideValidity("these are not two states of one patch")
    return np.asarray((after.z == before.z) & (after.z < after.top))


def _shape(patch: Patch) -> Reals:
    """What a soft carrier feels: the surface without its marks, drawn up to its peaks and not beyond the highest."""
    reach = max(constant("simulation.shape_length").si, 6 * patch.spacing)
    long = low_pass(low_pass(patch.z, patch.spacing, reach, axis=0), patch.spacing, reach, axis=1)
    drawn = long + float(np.quantile(patch.z - long, 0.98))
    return np.asarray(drawn - max(0.0, float(np.max(drawn)) - patch.top))


def _ripple(depth: float, size: tuple[int, int], spacing: float, chance: np.random.Generator) -> Reals:
    """Orange peel: waves of about a length, from the plane of their peaks down."""
    length = constant("simulation.ripple_length").si
    wave = low_pass(low_pass(chance.standard_normal(size), spacing, length, axis=0), spacing, length, axis=1)
    wave -= wave.max()
    return np.asarray(wave * depth / -wave.min())


def _bead(found: FoundPatch, size: tuple[int, int], spacing: float) -> Reals:
    """A bead, burr or run of solder across the patch: its crest is the plane, the face lies below it."""
    rows, columns = np.mgrid[0 : size[0], 0 : size[1]] * spacing
    middle = np.array(size) * spacing / 2
    away = (columns - middle[1]) * math.cos(found.angle) + (rows - middle[0]) * math.sin(found.angle)
    return np.asarray(-found.depth * (1 - np.exp(-((away / constant("simulation.bead_width").si) ** 2))))


def _pitted(found: FoundPatch, size: tuple[int, int], spacing: float, chance: np.random.Generator) -> Reals:
    """Round pits, from shallow ones to the depth that was found."""
    area = size[0] * size[1] * spacing**2
    radii = constant("simulation.pit_smallest").si, constant("simulation.pit_largest").si
    z = np.zeros(size)
    for _ in range(max(3, round(area / constant("simulation.pit_area").si))):
        middle = chance.uniform(0.0, 1.0, 2) * np.array(size) * spacing
        deep = found.depth * chance.uniform(constant("simulation.pit_shallowest").value, 1.0)
        radius = chance.uniform(*radii)
        z = np.minimum(z, _hollow(size, spacing, middle, deep, (radius, radius), 0.0))
    return z


def _nicked(found: FoundPatch, size: tuple[int, int], spacing: float, chance: np.random.Generator) -> Reals:
    """One nick with steep sides, well inside the patch."""
    middle = chance.uniform(0.2, 0.8, 2) * np.array(size) * spacing
    halves = constant("simulation.nick_half_length").si, constant("simulation.nick_half_width").si
    return _hollow(size, spacing, middle, found.depth, halves, chance.uniform(0, math.pi))


def _hollow(
    size: tuple[int, int], spacing: float, middle: Reals, deep: float, halves: tuple[float, float], turn: float
) -> Reals:
    """A hollow as deep as told with an elliptical rim of these half axes, turned; 0 around it."""
    rows, columns = np.mgrid[0 : size[0], 0 : size[1]] * spacing
    y, x = rows - middle[0], columns - middle[1]
    along, across = x * math.cos(turn) + y * math.sin(turn), x * math.sin(turn) - y * math.cos(turn)
    away = (along / halves[0]) ** 2 + (across / halves[1]) ** 2
    return np.asarray(-deep * np.clip(1 - away, 0, 1))
