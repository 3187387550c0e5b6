"""The open job file, `job/2`: what people write, script, keep beside drawings and send to each other.

These models are the one definition of the format: the schema, the API and the command line all use them.
"""

from datetime import datetime
from typing import Annotated, Any, Final, Literal, Self

from pydantic import ConfigDict, Field, model_validator
from pydantic_core import PydanticCustomError

from kelbrast.core.catalogue.finishes import LayWanted
from kelbrast.core.job import Aim, BenchSpeed, HabitKey, Handover, JobState, OwnWhen, RackUsed
from kelbrast.core.surface.edge import EdgeWanted
from kelbrast.core.surface.face import Reach
from kelbrast.core.surface.found import AllOverKind, SpotKind
from kelbrast.core.surface.limits import LayerKind
from kelbrast.core.surface.part import Covering, Held, Protect, Wet
from kelbrast.core.surface.shapes import ShapeKind
from kelbrast.core.surface.sized import ROUND_KINDS, RoundKind
from kelbrast.documents.common.fields import (
    ID,
    Address,
    FaceId,
    GradeText,
    Micrometres,
    Millimetres,
    NameText,
    Note,
    NotTiny,
    Remark,
    Strict,
    Text,
)
from kelbrast.documents.job.local_damage import with_spots
from kelbrast.documents.size.wanted import Celsius, SizeGauge, SizeReading, SizeWanted


class DepthRange(Strict):
    """A guessed depth: what is likely, and the worst it could be, which is at least as much."""

    likely: Micrometres
    worst: Micrometres

    @model_validator(mode="after")
    def _in_order(self) -> Self:
        if self.worst < self.likely:
            raise PydanticCustomError("worst_below_likely", "worst must be at least likely")
        return self


class ShapeFile(Strict):
    """Measures from which the area of a face follows."""

    kind: ShapeKind
    length_mm: Millimetres | None = None
    width_mm: Millimetres | None = None
    diameter_mm: Millimetres | None = None
    inside_diameter_mm: Millimetres | None = None
    height_mm: Millimetres | None = None


class FoundFile(Strict):
    """What covers all of a face as found: a kind of damage with its depth, or `after` a grade; or `as_wanted`, where nothing is
    to be done (a grade may be said with it). `called`: the word for it."""

    kind: AllOverKind = "scratches"
    depth_um: Micrometres | DepthRange | None = None
    after: GradeText | None = None
    as_wanted: bool = False
    called: ID | None = None

    @model_validator(mode="after")
    def _depth_or_grade(self) -> Self:
        if self.as_wanted and self.depth_um is not None:
            raise PydanticCustomError("depth_as_wanted", "what is as wanted has no depth to be taken out")
        if not self.as_wanted and (self.depth_um is None) == (self.after is None):
            raise PydanticCustomError(
                "depth_or_grade", "give depth_um, or after with a grade such as P180, and not both; or say as_wanted"
            )
        return self


class SpotsFile(Strict):
    """Damage of one kind in some places of a face, deeper than what covers all of it: how many, how large each is (length and
    width, or an area), and how deep, or `after` which grade. `called`: the word for it.

    `id` stays whatever they are called; where it is missing, one is made. `drawn`: how many and how large they are is as
    drawn on a photo of the part."""

    id: FaceId = ""
    name: Text
    kind: SpotKind = "scratches"
    count: Annotated[int, Field(ge=1, le=1000)] = 1
    length_mm: Millimetres | None = None
    width_mm: Millimetres | None = None
    area_cm2: Annotated[float, Field(gt=0, le=1_000_000, allow_inf_nan=False), NotTiny] | None = None
    depth_um: Micrometres | DepthRange | None = None
    after: GradeText | None = None
    called: ID | None = None
    drawn: bool = False

    @model_validator(mode="after")
    def _size_and_depth(self) -> Self:
        if (self.length_mm is None) != (self.width_mm is None):
            raise PydanticCustomError("spot_sides", "length_mm and width_mm go together")
        if (self.area_cm2 is None) == (self.length_mm is None):
            raise PydanticCustomError("spot_size", "give length_mm with width_mm, or area_cm2, and not both")
        if (self.depth_um is None) == (self.after is None):
            raise PydanticCustomError("spot_depth", "give depth_um, or after with a grade such as P180, and not both")
        return self


class WantFile(Strict):
    """The wanted surface: a finish by id, or a band of Ra with a lay."""

    finish: ID | None = None
    no_finer_than: GradeText | None = None
    ra_um: tuple[Micrometres | None, Micrometres | None] | None = None
    lay: LayWanted | None = None

    # Arrays arrive as JSON lists; strictness would ask for a tuple.
    model_config = ConfigDict(extra="forbid", frozen=True, strict=False)

    @model_validator(mode="after")
    def _finish_or_band(self) -> Self:
        if (self.finish is None) == (self.ra_um is None):
            raise PydanticCustomError("finish_or_band", "give finish, or ra_um with [low or null, high or null], and not both")
        if self.finish is not None and self.lay is not None:
            raise PydanticCustomError("lay_of_band", "lay belongs to ra_um; a finish brings its own")
        if self.ra_um is not None:
            low, high = self.ra_um
            if low is None and high is None:
                raise PydanticCustomError("band_without_end", "ra_um needs at least one end")
            if low is not None and high is not None and low > high:
                raise PydanticCustomError("band_upside_down", "ra_um must be [low, high] with low not above high")
        return self


class LayerFile(Strict):
    """A hardened or plated layer: how thick it is, and what of it must stay."""

    kind: LayerKind
    thickness_um: Micrometres
    keep_um: Micrometres

    @model_validator(mode="after")
    def _something_to_spare(self) -> Self:
        if self.keep_um >= self.thickness_um:
            raise PydanticCustomError("keep_below_layer", "keep_um must be below thickness_um")
        return self


class WishFile(Strict):
    """What is wanted of the route, by tool ids. A `route` stands for itself."""

    start: ID | None = None
    lock: Annotated[list[ID], Field(max_length=20)] = []
    leave_out: Annotated[list[ID], Field(max_length=500)] = []
    route: Annotated[list[ID], Field(max_length=40)] = []

    @model_validator(mode="after")
    def _one_way(self) -> Self:
        if self.route and (self.start or self.lock or self.leave_out):
            raise PydanticCustomError("route_or_wishes", "give a route, or start, lock and leave_out, and not both")
        return self


class EdgeFile(Strict):
    """A right-angled edge: how long, what becomes of it, the leg of its break or its radius, and the faces beside it, by their
    ids or, until they have some, by their names."""

    length_mm: Millimetres
    wanted: EdgeWanted
    size_mm: Millimetres | None = None
    next_to: Annotated[list[Text], Field(max_length=20)] = []


_EDGE_FOUND: Final = {"kind": "scratches", "depth_um": 1.0}
_EDGE_WANT: Final = {"ra_um": [None, 3.2]}  # a worked edge, as drawings have it
NOT_OF_EDGES: Final = (
    "area_cm2", "shape", "thickness_mm", "inside_radius_mm", "limit_um", "coat_um", "keep_um", "keep_wall_mm", "size_left_um",
    "layer", "curved", "fit",
)  # fmt: skip


class FitFile(Strict):
    """A size that is wanted of a cylinder or bore: the gauge that decides, and what it read before any work."""

    want: SizeWanted
    gauge: SizeGauge
    gauge_c: Celsius | None = None
    readings: Annotated[list[SizeReading], Field(max_length=500)] = []


class FaceFile(Strict):
    """One face of the part, or with `edge` one of its edges: then `found` and `want` may be left out, and how it was found is
    taken for sharp, whatever stands there. `found` is what covers all of it, `spots` where it is worse. `blind`: a bore that is
    open at one end only; `looked_through`: a window; `lay_runs_out`: a brushed lay that runs out at both ends.

    `id` stays whatever the face is called; where it is missing, one is made."""

    id: FaceId = ""
    name: Text
    edge: EdgeFile | None = None
    area_cm2: Annotated[float, Field(gt=0, le=1_000_000, allow_inf_nan=False), NotTiny] | None = None
    shape: ShapeFile | None = None
    thickness_mm: Millimetres | None = None
    reach: Reach = "open"
    inside_radius_mm: Millimetres | None = None
    blind: bool = False
    found: FoundFile
    spots: Annotated[list[SpotsFile], Field(max_length=12)] = []
    looked_through: bool = False
    lay_runs_out: bool = False
    want: WantFile
    limit_um: Micrometres | None = None
    coat_um: Micrometres | None = None
    keep_um: Micrometres | None = None
    keep_wall_mm: Millimetres | None = None
    size_left_um: Micrometres | None = None
    layer: LayerFile | None = None
    fit: FitFile | None = None
    curved: bool | None = None
    stays_flat: bool = False
    keep_off: bool = False
    wish: WishFile | None = None

    @property
    def round_kind(self) -> RoundKind | None:
        """Bore or shaft; None for what is neither, or has not both measures."""
        shape = self.shape
        if shape is None or shape.length_mm is None or shape.diameter_mm is None:
            return None
        return ROUND_KINDS.get(shape.kind)

    @model_validator(mode="before")
    @classmethod
    def _edges_are_found_sharp(cls, data: Any) -> Any:
        if isinstance(data, dict) and data.get("edge") is not None:
            return {"want": _EDGE_WANT, **data, "found": _EDGE_FOUND}
        return with_spots(data) if isinstance(data, dict) else data

    @model_validator(mode="after")
    def _belong_together(self) -> Self:
        if self.edge is not None:
            if (
                self.reach != "open"
                or self.keep_off
                or self.stays_flat
                or self.blind
                or self.spots
                or self.looked_through
                or self.lay_runs_out
                or any(getattr(self, key) is not None for key in NOT_OF_EDGES)
            ):
                raise PydanticCustomError("edge_alone", "an edge has a length and a size: measures and limits belong to faces")
            return self
        if (self.area_cm2 is None) == (self.shape is None):
            raise PydanticCustomError("area_or_shape", "give area_cm2, or shape with its measures, and not both")
        if (self.coat_um is None) != (self.keep_um is None):
            raise PydanticCustomError("coat_and_keep", "coat_um and keep_um go together")
        if self.coat_um is not None and self.limit_um is not None:
            raise PydanticCustomError("limit_or_coat", "give limit_um, or coat_um with keep_um, and not both")
        if self.coat_um is not None and self.keep_um is not None and self.keep_um >= self.coat_um:
            raise PydanticCustomError("keep_below_coat", "keep_um must be below coat_um")
        if self.keep_wall_mm is not None and (self.thickness_mm is None or self.keep_wall_mm >= self.thickness_mm):
            raise PydanticCustomError("keep_below_wall", "keep_wall_mm needs thickness_mm, and must be below it")
        if self.fit is not None and self.round_kind is None:
            raise PydanticCustomError("fit_of_round", "fit belongs to a cylinder or a bore: give its shape with both measures")
        if self.fit is not None and self.size_left_um is not None:
            raise PydanticCustomError("fit_or_size_left", "give fit, or size_left_um, and not both")
        if self.reach == "inside" and self.inside_radius_mm is None:
            raise PydanticCustomError("inside_radius", "reach inside needs inside_radius_mm")
        _told_apart([spots.name for spots in self.spots], [spots.id for spots in self.spots])
        return self


def _told_apart(names: list[str], ids: list[str]) -> None:
    twice = next((name for name in names if names.count(name) > 1), None)
    if twice is not None:
        said = 'two kinds of spots on this face are called "{name}"; each needs a name of its own'
        raise PydanticCustomError("same_spots", said, {"name": twice})
    same = next((key for key in ids if key and ids.count(key) > 1), None)
    if same is not None:
        said = 'two kinds of spots on this face have the id "{id}"; each needs one of its own, or none to get one'
        raise PydanticCustomError("same_spots_id", said, {"id": same})


class OwnOperationFile(Strict):
    """Work that a person adds to a job. `minutes` of a person for one piece, `lot_minutes` once for a lot, which then waits
    `waiting_minutes` together.

    `check`: what must be found right before it counts as done.
    """

    label: Text
    when: OwnWhen
    minutes: Annotated[float, Field(ge=0, le=10_000, allow_inf_nan=False)]
    lot_minutes: Annotated[float, Field(ge=0, le=10_000, allow_inf_nan=False)] = 0
    waiting_minutes: Annotated[float, Field(ge=0, le=100_000, allow_inf_nan=False)] = 0
    text: Note = ""
    caution: Remark = ""
    check: Remark = ""


class JobFile(Strict):
    """A job as a file. Lengths are in the unit that each key names."""

    model_config = ConfigDict(extra="forbid", frozen=True, strict=True, title="Kelbrast job, version 2")

    kelbrast: Literal["job/2"] = "job/2"
    title: Text
    material: ID
    pieces: Annotated[int, Field(ge=1, le=100_000)] = 1
    lot: Annotated[
        int | None, Field(ge=1, le=100_000, description="pieces that are worked together; null for as many as go")
    ] = None
    faces: Annotated[list[FaceFile], Field(min_length=1, max_length=200)]
    carried: bool | None = None
    rack: Annotated[list[ID], Field(min_length=1, max_length=2000)] | None = None
    habit: HabitKey = "double-up"
    handover: Handover = "free"
    bench_speed: BenchSpeed = "usual"
    aim: Aim = "time"
    covering: Covering = "bare"
    protect: Protect = "usual"
    inserts: Annotated[list[ID], Field(max_length=20)] = []
    mass_g: Annotated[float, Field(gt=0, le=10_000_000, allow_inf_nan=False), NotTiny] | None = None
    held: Held = "hand"
    wet: Wet = "needed"
    use_rack: Annotated[
        RackUsed | None, Field(description="what it is planned from; null for the shop's own rack wherever there is one")
    ] = None
    extras: Annotated[list[ID], Field(max_length=500)] = []
    insist: bool = False
    diameters_mm: Annotated[dict[ID, Millimetres], Field(max_length=500)] = {}
    own_operations: Annotated[list[OwnOperationFile], Field(max_length=50)] = []
    coats: Annotated[int, Field(ge=1, le=20)] = 1
    customer: NameText = ""
    customer_address: Address = ""
    due: Annotated[datetime | None, Field(strict=False)] = None
    note: Note = ""
    state: JobState | None = None

    @model_validator(mode="after")
    def _faces_told_apart(self) -> Self:
        names = [face.name for face in self.faces]
        twice = next((name for name in names if names.count(name) > 1), None)
        if twice is not None:
            said = 'two faces are called "{name}"; every face needs a name of its own'
            raise PydanticCustomError("same_name", said, {"name": twice})
        ids = [face.id for face in self.faces if face.id]
        same = next((key for key in ids if ids.count(key) > 1), None)
        if same is not None:
            said = 'two faces have the id "{id}"; every face needs one of its own, or none to get one'
            raise PydanticCustomError("same_id", said, {"id": same})
        faces = {called for face in self.faces if face.edge is None for called in (face.id, face.name)}
        for face in self.faces:
            unknown = next((name for name in (face.edge.next_to if face.edge else ()) if name not in faces), None)
            if unknown is not None:
                said = 'edge "{edge}" is next to "{name}", and no face is called so'
                raise PydanticCustomError("edge_beside", said, {"edge": face.name, "name": unknown})
        return self
