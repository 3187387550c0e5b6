"""Photos of a job's part: kept as the photos of runs are, with what was drawn on them and the areas that follow."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Literal

from sqlalchemy import Engine
from sqlalchemy.orm import Session

from kelbrast.app.photos import encoded_anew, thumbnail
from kelbrast.app.readable import UNREADABLE
from kelbrast.documents.job.format import FaceFile
from kelbrast.documents.job.part_photo import PartPhotoFile, areas_cm2, named_as_now
from kelbrast.documents.job.read import check_job_file
from kelbrast.storage import jobs as job_store
from kelbrast.storage import part_photos as store
from kelbrast.storage.sessions import reading, writing

PartShows = Literal["before", "after"]


@dataclass(frozen=True, slots=True)
class PartPhoto:
    """A photo with what is drawn on it. `areas`: of its outlines in their order, cm2; None where the scale is not known."""

    id: int
    job_id: int
    shows: str
    width: int
    height: int
    drawn: PartPhotoFile
    areas: tuple[float | None, ...]


class PartPhotos:
    """The photos of parts of one database. Every method is one transaction."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def add(self, job_id: int, data: bytes, *, shows: PartShows) -> PartPhoto:
        """Keep a photo of a job's part.

        Raises:
            NotFound: no such job.  BadInput: it is not a picture that can be read, or too large.
        """
        clean, size = encoded_anew(data)
        with writing(self._engine) as session:
            faces = _faces(session, job_id)
            return _photo(store.add(session, job_id, shows=shows, size=size, at=datetime.now(UTC), data=clean), faces)

    def of_job(self, job_id: int) -> list[PartPhoto]:
        """The photos of a job's part.

        Raises:
            NotFound: no such job.
        """
        with reading(self._engine) as session:
            faces = _faces(session, job_id)
            return [_photo(one, faces) for one in store.of_job(session, job_id)]

    def draw(self, photo_id: int, drawn: PartPhotoFile) -> PartPhoto:
        """Keep what is drawn on a photo.

        Raises:
            NotFound: no such photo.  BadInput: an outline or the scale cannot be.
        """
        areas_cm2(drawn)
        with writing(self._engine) as session:
            kept = store.draw(session, photo_id, drawn.model_dump(mode="json"))
            return _photo(kept, _faces(session, kept.job_id))

    def remove(self, photo_id: int) -> None:
        """Forget a photo.

        Raises:
            NotFound: no such photo.
        """
        with writing(self._engine) as session:
            store.remove(session, photo_id)

    def picture(self, photo_id: int) -> bytes:
        """The picture, a JPEG.

        Raises:
            NotFound: no such photo.
        """
        with reading(self._engine) as session:
            return store.picture(session, photo_id)

    def thumbnail(self, job_id: int) -> bytes | None:
        """The first photo of a job's part, small; None where there is none."""
        with reading(self._engine) as session:
            photos = store.of_job(session, job_id)
            data = store.picture(session, photos[0].id) if photos else None
        return None if data is None else thumbnail(data, "JPEG")

    def follow(self, was: int, job_id: int) -> None:
        """A deleted job is there again under another number: its photos are its own again."""
        with writing(self._engine) as session:
            store.follow(session, was, job_id)

    def forget_left(self) -> None:
        """Forget the photos of jobs that were deleted: nobody can take that back any more."""
        with writing(self._engine) as session:
            store.forget_left(session)


def _faces(session: Session, job_id: int) -> list[FaceFile]:
    """The faces of a job; none where the job cannot be understood."""
    stored = job_store.get_job(session, job_id)
    try:
        return check_job_file(dict(stored.document)).faces
    except UNREADABLE:
        return []


def _photo(one: store.StoredPartPhoto, faces: Sequence[FaceFile]) -> PartPhoto:
    drawn = named_as_now(PartPhotoFile.model_validate(dict(one.drawn)), faces)
    return PartPhoto(one.id, one.job_id, one.shows, one.width, one.height, drawn, tuple(areas_cm2(drawn)))
