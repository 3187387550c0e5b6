"""Pictures of a simulated surface: what they show, as a document that names them, and how they are made."""

import hashlib
import io
from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache
from typing import Annotated, Final, Literal

import numpy as np
from PIL import Image
from pydantic import BaseModel, Field

from kelbrast.core.catalogue.grades import parse_grade
from kelbrast.core.catalogue.materials import material
from kelbrast.core.catalogue.tools import tool
from kelbrast.core.errors import BadInput
from kelbrast.core.metrology.areal import mean_height
from kelbrast.core.practice.exercises import Shown
from kelbrast.core.process.scratch import depth_of_marks, roughness_left
from kelbrast.core.reference.loader import constant
from kelbrast.core.reference.own_rows import remembered
from kelbrast.core.simulation.light import Lamp, Picture, lit, look_of, outlined, told_apart
from kelbrast.core.simulation.marks import Lay, Marks, marks_as_deep
from kelbrast.core.simulation.patch import START_ANGLE, FoundPatch, Patch, Working, found_patch, old_marks, worked
from kelbrast.core.simulation.sequence import RouteStep, not_yet, one_grade, workings
from kelbrast.core.surface.face import Face
from kelbrast.core.surface.found import FoundKind
from kelbrast.core.units import from_si, to_si
from kelbrast.core.wording import Measure, Sentence, sentence
from kelbrast.documents.common.fields import GradeText, Word
from kelbrast.documents.plan.format import StepFile

SPACING_UM: Final = 8.0
_COARSER_ENDS: Final = 0.55  # of the width of a picture with a rim: where the coarser grade ends


class FoundSpec(BaseModel):
    """How a patch is found."""

    kind: FoundKind
    depth_um: float
    grain_um: float
    angle: float = START_ANGLE


class WorkingSpec(BaseModel):
    """A step on a patch, worked for a share of its planned time."""

    layer_um: float
    depth_um: float
    grain_um: float
    lay: Lay
    angle: float
    levels: bool
    reaches_um: float | None
    share: float = 1.0
    covers: float | None = None


class PatchSpec(BaseModel):
    """A patch: the material, how it is found, the steps on it, its size in points, and the seed of its chance."""

    material: str
    found: FoundSpec
    steps: list[WorkingSpec] = []
    rows: int = 176
    columns: int = 384
    spacing_um: float = SPACING_UM
    seed: int = 1
    marked: bool = False

    @property
    def key(self) -> str:
        """Names the patch by its content."""
        return hashlib.sha256(self.model_dump_json().encode()).hexdigest()[:32]


def found_spec(face: Face, hardness: float, steps: Sequence[StepFile]) -> FoundSpec:
    """Where the first of these steps works, as it was found: what covers the face, or the spots that it begins with."""
    zone = steps[0].zone
    spots = next((spots for spots in face.spots if zone and spots.key in zone.begun), None)
    if zone and spots is None:  # a mark that was found at the bench
        return mark_spec(steps[0].likely_um, hardness)
    found = spots.found if spots else face.found
    if found.after is not None:
        grain = found.after.grain
        depth = depth_of_marks(roughness_left(grain=grain, hold=1.0, hardness=hardness))
        return FoundSpec(kind="lay", depth_um=from_si(depth, "um"), grain_um=from_si(grain, "um"))
    return mark_spec(from_si(found.likely, "um") if found.likely else 1.0, hardness, found.kind)


def mark_spec(depth_um: float, hardness: float, kind: str = "scratches") -> FoundSpec:
    """Damage of a depth; marks by the grain that leaves such marks, within the grains that there are."""
    grain = marks_as_deep(to_si(depth_um, "um"), hardness=hardness)
    return FoundSpec.model_validate({"kind": kind, "depth_um": depth_um, "grain_um": from_si(grain, "um")})


def working_specs(steps: Sequence[StepFile]) -> list[WorkingSpec]:
    """The steps of a route on a patch."""
    return [_spec(working) for working in workings(_route_step(step) for step in steps)]


def not_yet_spec(done: PatchSpec, step: StepFile) -> PatchSpec:
    """The patch with its last step (`step` of the plan) stopped too early: as late as an eye still tells the two apart."""
    *before, last = done.steps
    picture = _lit(done.model_dump_json(), Lamp())
    share = not_yet(_working(last, seed=0), to_si(step.likely_um, "um"))
    least, enough = constant("simulation.not_yet_least").value, constant("simulation.tells_apart").value
    while True:
        early = done.model_copy(update={"steps": [*before, last.model_copy(update={"share": share})]})
        if share <= least or told_apart(picture, _lit(early.model_dump_json(), Lamp())) >= enough:
            return early
        share = max(least, share / 2)


def _route_step(step: StepFile) -> RouteStep:
    return RouteStep(
        tool=tool(step.tool),
        layer=to_si(step.takes_um * step.likely_um / step.from_um, "um"),
        leaves=to_si(step.leaves_um, "um"),
        grain=to_si(step.grain_um, "um"),
        lay=step.lay,
    )


def _spec(working: Working) -> WorkingSpec:
    return WorkingSpec(
        layer_um=from_si(working.layer, "um"),
        depth_um=from_si(working.marks.depth, "um"),
        grain_um=from_si(working.marks.grain, "um"),
        lay=working.marks.lay,
        angle=working.marks.angle,
        levels=working.levels,
        reaches_um=from_si(working.reaches, "um") if working.reaches is not None else None,
        share=working.share,
        covers=working.covers,
    )


def _working(spec: WorkingSpec, *, seed: int) -> Working:
    marks = Marks(to_si(spec.depth_um, "um"), to_si(spec.grain_um, "um"), spec.lay, spec.angle)
    reaches = to_si(spec.reaches_um, "um") if spec.reaches_um is not None else None
    return Working(to_si(spec.layer_um, "um"), marks, spec.levels, reaches, spec.share, seed=seed, covers=spec.covers)


def _found(spec: FoundSpec) -> FoundPatch:
    return FoundPatch(spec.kind, to_si(spec.depth_um, "um"), to_si(spec.grain_um, "um"), spec.angle)


class Asked(BaseModel):
    """A patch that a person chooses: damage of a depth, or the marks of a grade; then perhaps worked with a finer grade, for a
    share of the time that this takes. `rim`: a place that ends within the picture, and how much further the finer grade runs
    than the coarser, as a share of the width (below 0 less far)."""

    material: Word = "naval-brass"
    kind: Literal["scratches", "lay", "waviness", "pits", "nick"] = "lay"
    depth_um: Annotated[float, Field(ge=0.01, le=500, allow_inf_nan=False)] | None = None
    after: GradeText | None = "P240"
    then: GradeText | None = None
    share: Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)] = 1.0
    soft: bool = False
    rim: Annotated[float, Field(ge=-0.3, le=0.3, allow_inf_nan=False)] | None = None
    lay: Lay = "one-way"
    seed: Annotated[int, Field(ge=0, le=10_000)] = 1
    rows: Annotated[int, Field(ge=32, le=512)] = 320
    columns: Annotated[int, Field(ge=32, le=512)] = 320
    spacing_um: Annotated[float, Field(ge=1, le=50, allow_inf_nan=False)] = SPACING_UM
    marked: Annotated[bool, Field(description="old marks that are left are drawn over")] = False


def asked_spec(asked: Asked) -> PatchSpec:
    """The document of a patch that a person chose.

    Raises:
        NotFound: no such material.  BadInput: a grade that cannot be read, or nothing to show.
    """
    hardness = material(asked.material).hardness
    if asked.depth_um is not None:
        found_spec = mark_spec(asked.depth_um, hardness, asked.kind)
    elif asked.after is not None:
        depth_um, grain_um = _of_grade(asked.after, hardness, "after")
        found_spec = FoundSpec(kind=asked.kind, depth_um=depth_um, grain_um=grain_um)
    else:
        raise BadInput.one("depth_um", "say how deep, or which grade left it")
    steps = []
    if asked.then is not None:
        depth_um, grain_um = _of_grade(asked.then, hardness, "then")
        own = Marks(to_si(depth_um, "um"), to_si(grain_um, "um"), asked.lay)
        area = asked.rows * asked.columns * to_si(asked.spacing_um, "um") ** 2
        step = one_grade(_found(found_spec), own, area=area, levels=not asked.soft, share=asked.share)
        steps = [_spec(step)]
        if asked.rim is not None:  # the rest of the face looks as the finer grade left it before
            coarse = Working(step.layer, Marks(to_si(found_spec.depth_um, "um"), to_si(found_spec.grain_um, "um"), asked.lay))
            steps = [
                _spec(replace(coarse, covers=_COARSER_ENDS)),
                _spec(replace(step, covers=_COARSER_ENDS + asked.rim)),
            ]
            found_spec = found_spec.model_copy(update={"depth_um": depth_um, "grain_um": grain_um})
    size = {"rows": asked.rows, "columns": asked.columns, "spacing_um": asked.spacing_um, "seed": asked.seed}
    size["marked"] = asked.marked
    return PatchSpec.model_validate({"material": asked.material, "found": found_spec, "steps": steps, **size})


def asked_of(shown: Shown) -> Asked:
    """A patch of an exercise as it is asked of the simulator."""
    return Asked(
        material=shown.material,
        kind=shown.kind,
        depth_um=from_si(shown.depth, "um") if shown.depth is not None else None,
        after=shown.after,
        then=shown.then,
        share=shown.share,
        soft=shown.soft,
        rim=shown.rim,
        seed=shown.seed,
        marked=shown.marked,
        rows=240,
        columns=375,
    )


def _of_grade(grade: str, hardness: float, field: str) -> tuple[float, float]:
    """Depth of the marks and grain of a grade of paper, um."""
    grain = parse_grade(grade, field=field).grain
    depth = depth_of_marks(roughness_left(grain=grain, hold=1.0, hardness=hardness))
    return from_si(depth, "um"), from_si(grain, "um")


@remembered(48)
def _patch(document: str) -> Patch:
    """By its content; each step is made from the patch before it, which stays known."""
    spec = PatchSpec.model_validate_json(document)
    if not spec.steps:
        return found_patch(_found(spec.found), (spec.rows, spec.columns), to_si(spec.spacing_um, "um"), spec.seed)
    *before, last = spec.steps
    patch = _patch(spec.model_copy(update={"steps": before}).model_dump_json())
    return worked(patch, _working(last, seed=spec.seed + len(spec.steps)))


def patch_of(spec: PatchSpec) -> Patch:
    """The patch that a document describes."""
    return _patch(spec.model_copy(update={"marked": False}).model_dump_json())


def width_of(spec: PatchSpec) -> Measure:
    """How wide the part of the world is that it shows."""
    return Measure(to_si(spec.columns * spec.spacing_um, "um"), "length")


def in_words(spec: PatchSpec) -> Sentence:
    """What the picture shows, in figures."""
    patch = patch_of(spec)
    depth, rough = Measure(patch.depth, "depth"), Measure(mean_height(patch.z), "roughness")
    return sentence("picture.words", wide=width_of(spec), depth=depth, sa=rough)


@remembered(16)
def _lit(document: str, lamp: Lamp) -> Picture:
    spec = PatchSpec.model_validate_json(document)
    return lit(patch_of(spec), look_of(material(spec.material)), lamp)


@remembered(64)
def _png(document: str, lamp: Lamp) -> bytes:
    spec = PatchSpec.model_validate_json(document)
    picture = _lit(document, lamp)
    if spec.marked and spec.steps:
        before = patch_of(spec.model_copy(update={"steps": spec.steps[:-1]}))
        picture = outlined(picture, old_marks(before, patch_of(spec)))
    out = io.BytesIO()
    Image.fromarray(picture).save(out, "PNG", compress_level=1)
    return out.getvalue()


def png_of(spec: PatchSpec, lamp: Lamp | None = None) -> bytes:
    """The patch under a low lamp."""
    return _png(spec.model_dump_json(), lamp or Lamp())


@lru_cache(maxsize=64)
def small_picture(png: bytes) -> bytes:
    """A picture for the screens as WebP: a quarter of its size, with nothing lost that an eye would see in it."""
    out = io.BytesIO()
    Image.open(io.BytesIO(png)).save(out, "WEBP", quality=84, method=3)
    return out.getvalue()


def heights_of(spec: PatchSpec) -> bytes:
    """The heights in micrometres as 32-bit numbers, row by row, for a picture that is drawn elsewhere."""
    return np.ascontiguousarray(patch_of(spec).z * 1e6, dtype="<f4").tobytes()
