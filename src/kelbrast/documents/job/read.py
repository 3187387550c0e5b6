"""From the text of a job file to a job of the core, with every fault named by its key."""

import json
import math
import re
from dataclasses import fields, replace
from typing import Any, Final

from pydantic import ValidationError

from kelbrast.core.catalogue.damages import damage
from kelbrast.core.catalogue.finishes import Finish, band, finish
from kelbrast.core.catalogue.grades import Grade, parse_grade
from kelbrast.core.catalogue.materials import Material, inserts, material
from kelbrast.core.catalogue.tools import tool
from kelbrast.core.errors import BadInput, Fault, NotFound, OutsideValidity, ReadError
from kelbrast.core.job import Job, OwnOperation
from kelbrast.core.precision.face import to_size
from kelbrast.core.surface.edge import edge_of
from kelbrast.core.surface.face import Face, Gauged, Wish
from kelbrast.core.surface.found import Found, Spots
from kelbrast.core.surface.limits import Bounds
from kelbrast.core.surface.part import Part
from kelbrast.core.surface.shapes import SHAPES, is_round, shape_area
from kelbrast.core.surface.sized import Sized
from kelbrast.core.tooling.at_hand import choose_rack
from kelbrast.core.units import from_si, to_si
from kelbrast.documents.common.faults import faults_of
from kelbrast.documents.common.versions import forms_read_as, up_to_date
from kelbrast.documents.job.face_ids import identified
from kelbrast.documents.job.format import (
    DepthRange,
    FaceFile,
    FoundFile,
    JobFile,
    OwnOperationFile,
    ShapeFile,
    SpotsFile,
    WantFile,
    WishFile,
)
from kelbrast.documents.size.wanted import gauge_in_si, readings_in_si, round_part

_JOB: Final = "job/2"
LARGEST_FILE: Final = 2 * 1024 * 1024  # bytes of a job or a rack


def read_job_file(text: str | bytes) -> JobFile:
    """Read and check a job file; every face of it has an id then.

    Raises:
        ReadError: not JSON at all, or not an object.
        BadInput: every key that is wrong, missing or not known, and why.
    """
    return identified(read_as_written(text))


def read_as_written(text: str | bytes) -> JobFile:
    """The same, with the ids of faces as they stand there: what has none may be known by its name."""
    try:
        data = json.loads(text, parse_constant=_no_constant)
    except (ValueError, RecursionError) as problem:
        raise ReadError.one("", f"this is not JSON: {problem}") from None
    if not isinstance(data, dict):
        raise ReadError.one("", "a job file is a JSON object, with { at the start")
    return _checked(data)


def check_job_file(data: dict[str, Any]) -> JobFile:
    """The same for JSON that is read already, with an id for every face. The version key is asked for, so that a stray file is
    not taken for a job."""
    return identified(_checked(data))


def _checked(data: dict[str, Any]) -> JobFile:
    if "kelbrast" not in data:
        raise BadInput.one("kelbrast", 'is missing; a job file says "kelbrast": "job/2"')
    newest = up_to_date(data, data["kelbrast"])
    if newest["kelbrast"] != _JOB:
        raise BadInput.one("kelbrast", f"must be one of {', '.join(forms_read_as(_JOB))}")
    try:
        return JobFile.model_validate_json(json.dumps(newest))
    except ValidationError as problem:
        raise BadInput(faults_of(problem)) from None


def to_job(file: JobFile) -> Job:
    """The job of the core, in SI.

    Raises:
        BadInput: ids that do not exist, grades that cannot be read, measures that do not fit the shape.
    """
    faults: list[Fault] = []
    faces: list[Face] = []
    stuff, rack = None, tuple(file.rack) if file.rack is not None else None
    try:
        stuff = material(file.material)
    except NotFound as missing:
        faults.append(Fault("material", str(missing), hint="see kelbrast list materials"))
    for place, key in enumerate(file.inserts):
        if key not in inserts():
            said = f'there is no insert "{key}"; there are {", ".join(inserts())}'
            faults.append(Fault(f"inserts[{place}]", said, hint="see kelbrast list inserts"))
    try:
        choose_rack(rack)
    except BadInput as bad:
        faults += bad.faults
    for number, face in enumerate(file.faces):
        try:
            found = _edge(face, f"faces[{number}]") if face.edge else _face(face, f"faces[{number}]")
            faces.append(with_fit(found, face, stuff, f"faces[{number}].fit"))
        except BadInput as bad:
            faults += bad.faults
    try:
        choose_rack(tuple(file.extras), field="extras")
    except BadInput as bad:
        faults += bad.faults
    diameters = tuple(sorted((key, to_si(mm, "mm")) for key, mm in file.diameters_mm.items()))
    for key, diameter in diameters:
        faults += _known([key], f"diameters_mm.{key}") or _worn(key, diameter)
    if faults or stuff is None:
        raise BadInput(faults)
    beside = {name for face in file.faces if face.edge and face.edge.wanted == "sharp" for name in face.edge.next_to}
    return Job(
        title=file.title,
        material=stuff,
        faces=tuple(replace(face, sharp_edges=face.key in beside) for face in faces),
        pieces=file.pieces,
        lot=file.lot,
        rack=rack,
        habit=file.habit,
        aim=file.aim,
        carried=file.carried,
        handover=file.handover,
        bench_speed=file.bench_speed,
        part=Part(file.covering, file.protect, tuple(file.inserts), _maybe(file.mass_g, "g"), file.held, file.wet),
        diameters=diameters,
        own_operations=tuple(_own(operation) for operation in file.own_operations),
        coats=file.coats,
    )


def _own(own_operation: OwnOperationFile) -> OwnOperation:
    return OwnOperation(
        label=own_operation.label,
        when=own_operation.when,
        active=to_si(own_operation.minutes, "min"),
        passive=to_si(own_operation.waiting_minutes, "min"),
        once=to_si(own_operation.lot_minutes, "min"),
        text=own_operation.text,
        caution=own_operation.caution,
        check=own_operation.check,
    )


def face_area(face: FaceFile, field: str = "face") -> float:
    """The area of a face in m2, given or worked out from its shape; of an edge that of its new surface."""
    if face.edge is not None:
        return _edge(face, field).area
    if face.shape is None:
        return to_si(face.area_cm2 or 0.0, "cm2")
    return shape_area(face.shape.kind, _measures(face.shape), field=f"{field}.shape")


def _face(face: FaceFile, field: str) -> Face:
    want, grade = _want(face.want, f"{field}.want")
    limit = _bounds(face).limit
    worked_out = {
        "area": face_area(face, field),
        "found": _found(face.found, f"{field}.found"),
        "spots": tuple(_spots(spots, f"{field}.spots[{at}]") for at, spots in enumerate(face.spots)),
        "want": want,
        "limit": limit.amount if limit else None,
        "limit_kind": limit.kind if limit else "metal",
        "curved": _curved(face),
        "longest": _longest(face),
        "bore_depth": _bore_depth(face),
        "turned": _maybe(face.shape.diameter_mm, "mm") if face.shape and SHAPES[face.shape.kind].turns else None,
        "no_finer_than": grade,
        "gauged": _gauged(face),
        "wish": _wish(face.wish, f"{field}.wish") if face.wish else Wish(),
    }
    return Face(**{**_as_said(face), **worked_out})


def _longest(face: FaceFile) -> float | None:
    """The longest measure of the shape, m; None where only the area is known."""
    if face.shape is None:
        return None
    said = (getattr(face.shape, key) for key in ShapeFile.model_fields if key.endswith("_mm"))
    return to_si(max(one for one in said if one is not None), "mm")


def _bore_depth(face: FaceFile) -> float | None:
    """How far the farthest place of a bore lies from an open end, m; None where its length is not known."""
    if face.reach != "inside" or face.shape is None or face.shape.length_mm is None:
        return None
    return to_si(face.shape.length_mm, "mm") / (1 if face.blind else 2)


_UNIT: Final = re.compile(r"_(um|mm|cm2)$")
_FIGURES: Final = frozenset(field.name for field in fields(Face)) - {"edge", "spots"}


def _as_said(face: FaceFile) -> dict[str, Any]:
    """What the core's face takes as the file says it: keys of one name, and figures by their name before the unit."""
    said: dict[str, Any] = {}
    for key in FaceFile.model_fields:
        name, unit, value = _UNIT.sub("", key), _UNIT.search(key), getattr(face, key)
        if name in _FIGURES:
            said[name] = _maybe(value, unit[1]) if unit else value
    return said


def _edge(face: FaceFile, field: str) -> Face:
    assert face.edge is not None, "only edges are read so"
    want, grade = _want(face.want, f"{field}.want")
    size = _maybe(face.edge.size_mm, "mm")
    edge = edge_of(to_si(face.edge.length_mm, "mm"), face.edge.wanted, size, field=f"{field}.edge")
    worked_out = {
        "area": edge.area,
        "found": Found("scratches", edge.depth, edge.depth),
        "want": want,
        "no_finer_than": grade,
        "wish": _wish(face.wish, f"{field}.wish") if face.wish else Wish(),
        "curved": False,
        "edge": edge,
    }
    return Face(**{**_as_said(face), **worked_out})


def _bounds(face: FaceFile) -> Bounds:
    layer = face.layer
    return Bounds(
        metal=_maybe(face.limit_um, "um"),
        coat=_maybe(face.coat_um, "um"),
        keep_coat=_maybe(face.keep_um, "um"),
        wall=_maybe(face.thickness_mm, "mm"),
        keep_wall=_maybe(face.keep_wall_mm, "mm"),
        size=_maybe(face.size_left_um, "um"),
        round=face.shape is not None and is_round(face.shape.kind),
        layer=(layer.kind, to_si(layer.thickness_um, "um"), to_si(layer.keep_um, "um")) if layer is not None else None,
    )


def _gauged(face: FaceFile) -> Gauged:
    shape = face.shape
    return Gauged(
        shape=shape.kind if shape else None,
        diameter=_maybe(shape.diameter_mm, "mm") if shape else None,
        coat=_maybe(face.coat_um, "um"),
        keep=_maybe(face.keep_um, "um"),
    )


def _wish(wish: WishFile, field: str) -> Wish:
    faults = [] if wish.start is None else _known([wish.start], f"{field}.start")
    for name in ("lock", "leave_out", "route"):
        faults += _known(getattr(wish, name), f"{field}.{name}", several=True)
    if faults:
        raise BadInput(faults)
    return Wish(wish.start, tuple(wish.lock), tuple(wish.leave_out), tuple(wish.route))


def _worn(key: str, diameter: float) -> list[Fault]:
    """A fault when this is no diameter that the tool can have worn down to."""
    carrier = tool(key).carrier
    new = carrier.running.diameter
    if new is None or not carrier.stock.wears_down:
        return [Fault(f"diameters_mm.{key}", "does not wear down in diameter")]
    if diameter <= new * (1 + 1e-9):
        return []
    new_mm = from_si(new, "mm")
    return [Fault(f"diameters_mm.{key}", f"must be at most {new_mm:g}, as new", code="larger_than_new", limit=new_mm)]


def _known(keys: list[str], field: str, *, several: bool = False) -> list[Fault]:
    """A fault for every id that is no tool."""
    faults = []
    for place, key in enumerate(keys):
        try:
            tool(key)
        except NotFound as missing:
            at = f"{field}[{place}]" if several else field
            faults.append(Fault(at, str(missing), hint="see kelbrast list tools"))
    return faults


def _curved(face: FaceFile) -> bool:
    """As said; or else as its shape is, and an area alone is taken as flat."""
    if face.curved is not None:
        return face.curved
    return face.shape is not None and SHAPES[face.shape.kind].curved


def _found(found: FoundFile | SpotsFile, field: str) -> Found:
    try:
        called = damage(found.called).id if found.called else ""
    except NotFound as missing:
        raise BadInput([Fault(f"{field}.called", str(missing), hint="see kelbrast list damages")]) from None
    as_wanted = isinstance(found, FoundFile) and found.as_wanted
    after = parse_grade(found.after, field=f"{field}.after") if found.after is not None else None
    depth = found.depth_um
    likely, worst = (depth.likely, depth.worst) if isinstance(depth, DepthRange) else (depth, depth)
    return Found(found.kind, _maybe(likely, "um"), _maybe(worst, "um"), after, called, as_wanted)


def _spots(file: SpotsFile, field: str) -> Spots:
    side = math.sqrt(to_si(file.area_cm2, "cm2")) if file.area_cm2 is not None else 0.0
    return Spots(
        found=_found(file, field),
        length=_maybe(file.length_mm, "mm") or side,
        width=_maybe(file.width_mm, "mm") or side,
        count=file.count,
        name=file.name,
        id=file.id,
    )


def _want(want: WantFile, field: str) -> tuple[Finish, Grade | None]:
    if want.finish is None:
        low, high = want.ra_um or (None, None)
        return band(_maybe(low, "um"), _maybe(high, "um"), want.lay or "any"), _no_finer(want.no_finer_than, field)
    try:
        wanted = finish(want.finish)
    except NotFound as missing:
        raise BadInput([Fault(f"{field}.finish", str(missing), hint="see kelbrast list finishes")]) from None
    if want.no_finer_than is not None and wanted.no_finer_than is None:
        raise BadInput.one(f"{field}.no_finer_than", "goes with the finish grip, or with a band of Ra")
    return wanted, _no_finer(want.no_finer_than or wanted.no_finer_than, field)


def _no_finer(grade: str | None, field: str) -> Grade | None:
    return parse_grade(grade, field=f"{field}.no_finer_than") if grade is not None else None


def _measures(shape: ShapeFile) -> dict[str, float]:
    given = shape.model_dump(exclude={"kind"}, exclude_none=True)
    return {name.removesuffix("_mm"): to_si(value, "mm") for name, value in given.items()}


def _maybe(value: float | None, unit: str) -> float | None:
    return None if value is None else to_si(value, unit)


def _no_constant(name: str) -> float:
    raise ValueError(f"{name} is not a number that JSON knows")


def with_fit(face: Face, file: FaceFile, made_of: Material | None, field: str) -> Face:
    """The face with the size that is wanted of it, if one is; without a material no reading is one at a temperature.

    Raises:
        BadInput: the size wanted is none, or the readings cannot be of one part.
    """
    fit, kind, shape = file.fit, file.round_kind, file.shape
    if fit is None or kind is None or shape is None or shape.length_mm is None or made_of is None:
        return face
    part = round_part(fit.want, kind, length=to_si(shape.length_mm, "mm"), marks=face.found.worst or 0.0, field=f"{field}.")
    read = readings_in_si(fit.readings, part, made_of, gauge_c=fit.gauge_c, field=f"{field}.readings")
    try:
        return to_size(face, Sized(part, gauge_in_si(fit.gauge), read))
    except OutsideValidity as problem:
        raise BadInput.one(f"{field}.readings", f"these readings cannot be of one part: {problem}") from None
