"""Damage that was drawn on photos of a part and the spots of its job: two views of the same."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Final

from kelbrast.core.catalogue.damages import damages
from kelbrast.core.errors import OutsideValidity
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.found import SPOT_KINDS, SpotKind
from kelbrast.core.surface.photo_plane import PhotoPlane, area_on, length_on, lies_in
from kelbrast.core.units import from_si
from kelbrast.documents.job.face_ids import made_id
from kelbrast.documents.job.format import DepthRange, FaceFile, JobFile, SpotsFile
from kelbrast.documents.job.part_photo import MarkOnPhoto, PartPhotoFile, plane_of

_DIGITS: Final = 3


@dataclass(frozen=True, slots=True)
class _Size:
    """Of one place that was drawn (mm, cm2); `area` where it was drawn as an outline."""

    length: float
    width: float
    area: float | None


def told_apart(file: JobFile, drawn: PartPhotoFile) -> PartPhotoFile:
    """What is drawn, with every mark on a face and of a kind of spots: the face around it, and one kind for every word.

    Without a scale nothing is known of its size, and the marks stay what they were.
    """
    if plane_of(drawn) is None:
        return drawn
    faces = [face for face in file.faces if face.edge is None]
    known = {face.id: {spots.id: spots.called or "" for spots in face.spots} for face in faces}
    marks = []
    for mark in drawn.marks:
        face = mark.face if mark.face in known else _face_around(mark, drawn, faces)
        if face is None:
            marks.append(mark)
            continue
        kinds = known[face]
        key = mark.spots or next((key for key, word in kinds.items() if word == mark.damage), "")
        key = key or made_id(f"{face}-{mark.damage}", kinds)
        kinds.setdefault(key, mark.damage)
        marks.append(mark.model_copy(update={"face": face, "spots": key}))
    return drawn.model_copy(update={"marks": marks})


def _face_around(mark: MarkOnPhoto, drawn: PartPhotoFile, faces: Sequence[FaceFile]) -> str | None:
    """The face whose outline the mark lies in; the only one there is where none does."""
    x, y = (sum(along) / len(mark.points) for along in zip(*mark.points, strict=True))
    ids = {face.id for face in faces}
    around = (one.face for one in drawn.outlines if one.face in ids and lies_in((x, y), one.points))
    return next(around, faces[0].id if len(faces) == 1 else None)


def with_spots_drawn(file: JobFile, photos: Iterable[PartPhotoFile], *, were: Iterable[tuple[str, str]] = ()) -> JobFile:
    """The job with as many spots as are drawn, as large as they are drawn; kinds that are drawn no more (`were`) go.

    Args:
        photos: of the part before the work, with their marks told apart.
        were: (face, kind) of the marks that were there before.
    """
    sizes: dict[tuple[str, str], list[tuple[MarkOnPhoto, _Size]]] = {}
    for photo in photos:
        plane = plane_of(photo)
        if plane is None:
            continue
        for mark in (mark for mark in photo.marks if mark.face and mark.spots):
            sizes.setdefault((mark.face, mark.spots), []).append((mark, _size_of(mark, plane)))
    gone = {*were} - {*sizes}
    faces = [
        face.model_copy(update={"spots": _spots_of(face, sizes, gone)}) if face.edge is None else face for face in file.faces
    ]
    return file.model_copy(update={"faces": faces})


def _spots_of(
    face: FaceFile, sizes: dict[tuple[str, str], list[tuple[MarkOnPhoto, _Size]]], gone: set[tuple[str, str]]
) -> list[SpotsFile]:
    kept = [spots for spots in face.spots if (face.id, spots.id) not in gone]
    made = [_drawn_as(spots, sizes.get((face.id, spots.id))) for spots in kept]
    known = {spots.id for spots in kept}
    for (key, kind), drawn in sizes.items():
        if key == face.id and kind not in known:
            made.append(_drawn_as(_new(kind, drawn[0][0], {spots.name for spots in made}), drawn))
    return made


def _new(key: str, mark: MarkOnPhoto, taken: set[str]) -> SpotsFile:
    """A kind of spots by the word for the damage, with a first guess of its depth."""
    word = damages()[mark.damage] if mark.damage in damages() else damages()["scratches"]
    kind: SpotKind = next((kind for kind in SPOT_KINDS if kind == word.kind), "scratches")
    name, number = word.label, 1
    while name in taken:
        number += 1
        name = f"{word.label} {number}"
    depth = DepthRange(likely=from_si(word.likely.si, "um"), worst=from_si(word.worst.si, "um"))
    return SpotsFile(id=key, name=name, kind=kind, area_cm2=1.0, depth_um=depth, called=word.id)


def _drawn_as(spots: SpotsFile, drawn: Sequence[tuple[MarkOnPhoto, _Size]] | None) -> SpotsFile:
    if not drawn:
        return spots.model_copy(update={"drawn": False})
    count = len(drawn)
    if any(size.area is not None for _, size in drawn):
        areas = [size.area if size.area is not None else size.length * size.width / 100 for _, size in drawn]
        return spots.model_copy(
            update={"drawn": True, "count": count, "area_cm2": _round(sum(areas) / count), "length_mm": None, "width_mm": None}
        )
    length, width = (_round(sum(sides) / count) for sides in zip(*((one.length, one.width) for _, one in drawn), strict=True))
    sides = {"area_cm2": None, "length_mm": length, "width_mm": width}
    return spots.model_copy(update={"drawn": True, "count": count, **sides})


def _size_of(mark: MarkOnPhoto, plane: PhotoPlane) -> _Size:
    word = damages().get(mark.damage)
    usual = word.width.si if word is not None and word.width is not None else constant("blend.mark_width").si
    width = mark.width_mm or from_si(usual, "mm")
    if mark.closed and len(mark.points) >= 3:
        try:
            return _Size(width, width, from_si(area_on(plane, mark.points), "cm2"))
        except OutsideValidity:  # it crosses itself: then it is as long as it was drawn
            pass
    length = from_si(length_on(plane, mark.points), "mm")
    return _Size(max(length, width), width, None)


def _round(value: float) -> float:
    return float(f"{value:.{_DIGITS}g}")
