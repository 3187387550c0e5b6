"""Ids of faces and of the spots on them: made where a document has none, and then kept, whatever one is called later and
wherever it stands."""

import hashlib
import re
from collections.abc import Collection, Mapping, Sequence
from typing import Final

from kelbrast.documents.job.format import EdgeFile, FaceFile, JobFile, SpotsFile

_NO_LETTER: Final = re.compile(r"[^a-z0-9]+")
_LONGEST_SLUG: Final = 40


def made_id(name: str, taken: Collection[str] = ()) -> str:
    """Return the id that a face of this name gets: the same for everybody who reads the same document.

    A name that is no id in itself brings a digest of its letters, so that no two names come to the same id.

    >>> made_id("lid"), made_id("rim, outer"), made_id("lid", taken={"lid"})
    ('lid', 'rim-outer-0aa679', 'lid-2')
    """
    slug = _NO_LETTER.sub("-", name.lower()).strip("-")[:_LONGEST_SLUG]
    digest = hashlib.sha1(name.encode(), usedforsecurity=False).hexdigest()[:6]
    first = slug if slug == name else f"{slug or 'face'}-{digest}"
    made, turn = first, 1
    while made in taken:
        turn += 1
        made = f"{first}-{turn}"
    return made


def ids_for(given: Sequence[tuple[str, str]], before: Mapping[str, str] | None = None) -> list[str]:
    """Return an id for each of these faces.

    Args:
        given: name and id of each face, the id empty where it has none.
        before: ids by name, of the same job as it was: a face that comes without an id is the one that was called so.
            An id that a face had then is never given to another.
    """
    known = before or {}
    taken = {key for _, key in given if key}
    own = {name: known[name] for name, key in given if not key and name in known and known[name] not in taken}
    taken |= set(known.values())
    ids = []
    for name, key in given:
        key = key or own.get(name) or made_id(name, taken)
        taken.add(key)
        ids.append(key)
    return ids


def identified(file: JobFile, before: JobFile | None = None) -> JobFile:
    """Return the job with an id on every face and edge, and with edges that name the faces beside them by it.

    Args:
        file: as somebody wrote it; an edge may name the faces beside it by their names.
        before: the same job as it was. A face without an id is then the one that was called so.
    """
    known = {face.name: face.id for face in before.faces} if before is not None else None
    ids = ids_for([(face.name, face.id) for face in file.faces], known)
    given = {face.id for face in file.faces if face.id}
    by_name = {face.name: key for face, key in zip(file.faces, ids, strict=True)}
    made = [
        face.model_copy(
            update={"id": key, "spots": _spots(face, _of(before, key))}
            | ({"edge": _beside(face.edge, given, by_name)} if face.edge else {})
        )
        for face, key in zip(file.faces, ids, strict=True)
    ]
    return file.model_copy(update={"faces": made})


def _of(before: JobFile | None, key: str) -> FaceFile | None:
    return next((face for face in before.faces if face.id == key), None) if before is not None else None


def _spots(face: FaceFile, before: FaceFile | None) -> list[SpotsFile]:
    """The spots of a face with an id for each, by the same rules as the faces of a job."""
    known = {spots.name: spots.id for spots in before.spots} if before is not None else None
    ids = ids_for([(spots.name, spots.id) for spots in face.spots], known)
    return [spots.model_copy(update={"id": key}) for spots, key in zip(face.spots, ids, strict=True)]


def _beside(edge: EdgeFile, given: Collection[str], by_name: Mapping[str, str]) -> EdgeFile:
    return edge.model_copy(update={"next_to": [one if one in given else by_name.get(one, one) for one in edge.next_to]})
