"""What a person drew on a photo of a part: scale, faces as outlines, damage, and two points to lay photos over each other."""

from collections.abc import Sequence
from typing import Annotated, Any, Literal

from pydantic import Field

from kelbrast.core.errors import BadInput, Fault, OutsideValidity
from kelbrast.core.surface.face import known_as
from kelbrast.core.surface.photo_plane import MOST_CURVED, PhotoPlane, area_on, plane_by_length, plane_by_rectangle
from kelbrast.core.units import from_si, to_si
from kelbrast.documents.common.fields import Millimetres, NameText, OneLine, Strict, Text
from kelbrast.documents.job.format import FaceFile

_Along = Annotated[float, Field(ge=-10_000, le=20_000, allow_inf_nan=False)]
Point = Annotated[tuple[_Along, _Along], Field(strict=False)]  # pixels of the kept picture; JSON has no tuples


class LengthOnPhoto(Strict):
    """A known length on a photo that was taken square on."""

    kind: Literal["length"]
    ends: Annotated[list[Point], Field(min_length=2, max_length=2)]
    mm: Millimetres


class RectangleOnPhoto(Strict):
    """Four corners of a rectangle of known sides, in turn, the first side its width: it takes the slant out."""

    kind: Literal["rectangle"]
    corners: Annotated[list[Point], Field(min_length=4, max_length=4)]
    width_mm: Millimetres
    height_mm: Millimetres


class OutlineOnPhoto(Strict):
    """A face, by its id; one that was drawn before faces had ids, by its name. `name`: what it is called, for a face that the
    job does not have yet. `curved`: by how much it is larger than it looks from there. `keep_off`: nothing may touch it."""

    face: Text
    name: NameText = ""
    points: Annotated[list[Point], Field(min_length=3, max_length=400)]
    curved: Annotated[float, Field(ge=1, le=MOST_CURVED, allow_inf_nan=False)] = 1.0
    keep_off: bool = False


class MarkOnPhoto(Strict):
    """Damage by the word for it: a point, a stroke, or where it is `closed` the outline of a place. `face` and `spots`: the
    face that it is on and the kind of spots there, by their ids; empty until they are known. `width_mm` of a stroke."""

    damage: Annotated[str, Field(max_length=40), OneLine]
    points: Annotated[list[Point], Field(min_length=1, max_length=400)]
    closed: bool = False
    face: Annotated[str, Field(max_length=60), OneLine] = ""
    spots: Annotated[str, Field(max_length=60), OneLine] = ""
    width_mm: Millimetres | None = None


class PartPhotoFile(Strict):
    """Everything that was drawn on one photo. `anchors`: the two points that another photo of the part has too."""

    scale: Annotated[LengthOnPhoto | RectangleOnPhoto, Field(discriminator="kind")] | None = None
    outlines: Annotated[list[OutlineOnPhoto], Field(max_length=200)] = []
    marks: Annotated[list[MarkOnPhoto], Field(max_length=400)] = []
    anchors: Annotated[list[Point], Field(max_length=2)] = []


def named_as_now(drawn: PartPhotoFile, faces: Sequence[FaceFile]) -> PartPhotoFile:
    """Return what is drawn with every outline of a face of the job by its id, and under the name that it has now."""
    names = {face.id: face.name for face in faces}
    ids = known_as((face.id, face.name) for face in faces)

    def now(outline: OutlineOnPhoto) -> OutlineOnPhoto:
        key = ids.get(outline.face, outline.face)
        return outline.model_copy(update={"face": key, "name": names.get(key, outline.name)})

    return drawn.model_copy(update={"outlines": [now(outline) for outline in drawn.outlines]})


def areas_cm2(drawn: PartPhotoFile) -> list[float | None]:
    """The area of every outline; None for all where the scale is not known.

    Raises:
        BadInput: the scale or an outline cannot be, each with its place and the mend.
    """
    plane = plane_of(drawn)
    if plane is None:
        return [None] * len(drawn.outlines)
    found: list[float | None] = []
    faults = []
    for at, outline in enumerate(drawn.outlines):
        try:
            found.append(round(from_si(area_on(plane, outline.points, curved=outline.curved), "cm2"), 2))
        except OutsideValidity as problem:
            faults.append(Fault(f"outlines[{at}]", f"{outline.name or outline.face}: {problem}"))
    if faults:
        raise BadInput(faults)
    return found


def plane_of(drawn: PartPhotoFile) -> PhotoPlane | None:
    """How the picture lies on the plane of the part; None where the scale is not known.

    Raises:
        BadInput: the scale cannot be.
    """
    scale = drawn.scale
    if scale is None:
        return None
    try:
        if isinstance(scale, LengthOnPhoto):
            a, b = scale.ends
            return plane_by_length(a, b, length=to_si(scale.mm, "mm"))
        sides: dict[str, Any] = {"width": to_si(scale.width_mm, "mm"), "height": to_si(scale.height_mm, "mm")}
        return plane_by_rectangle(scale.corners, **sides)
    except OutsideValidity as problem:
        raise BadInput.one("scale", str(problem)) from None
