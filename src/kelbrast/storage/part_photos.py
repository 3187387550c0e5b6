"""Keeping photos of parts with what was drawn on them."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import delete, select, update
from sqlalchemy.orm import Session

from kelbrast.core.errors import NotFound
from kelbrast.storage.tables import PartPhotoRow


@dataclass(frozen=True, slots=True)
class StoredPartPhoto:
    """What is known of a photo of a part, without the picture itself."""

    id: int
    job_id: int
    shows: str
    width: int
    height: int
    drawn: Mapping[str, Any]


def add(session: Session, job_id: int, *, shows: str, size: tuple[int, int], at: datetime, data: bytes) -> StoredPartPhoto:
    """Keep a photo of a job's part."""
    row = PartPhotoRow(job_id=job_id, was=job_id, shows=shows, width=size[0], height=size[1], at=at, drawn={}, data=data)
    session.add(row)
    session.flush()
    return _stored(row)


def of_job(session: Session, job_id: int) -> list[StoredPartPhoto]:
    """The photos of a job's part, in the order in which they came."""
    rows = session.scalars(select(PartPhotoRow).where(PartPhotoRow.job_id == job_id).order_by(PartPhotoRow.id))
    return [_stored(row) for row in rows]


def get(session: Session, photo_id: int) -> StoredPartPhoto:
    """What is known of one photo.

    Raises:
        NotFound: no such photo.
    """
    return _stored(_row(session, photo_id))


def draw(session: Session, photo_id: int, drawn: Mapping[str, Any]) -> StoredPartPhoto:
    """Keep what is drawn on a photo.

    Raises:
        NotFound: no such photo.
    """
    row = _row(session, photo_id)
    row.drawn = dict(drawn)
    return _stored(row)


def remove(session: Session, photo_id: int) -> None:
    """Forget a photo.

    Raises:
        NotFound: no such photo.
    """
    session.delete(_row(session, photo_id))


def picture(session: Session, photo_id: int) -> bytes:
    """The picture of a photo.

    Raises:
        NotFound: no such photo.
    """
    return _row(session, photo_id).data


def follow(session: Session, was: int, job_id: int) -> None:
    """The photos of a job that was deleted and is there again under another number."""
    session.execute(
        update(PartPhotoRow).where(PartPhotoRow.was == was, PartPhotoRow.job_id.is_(None)).values(job_id=job_id, was=job_id)
    )


def forget_left(session: Session) -> None:
    """Forget the photos of jobs that were deleted for good."""
    session.execute(delete(PartPhotoRow).where(PartPhotoRow.job_id.is_(None)))


def _row(session: Session, photo_id: int) -> PartPhotoRow:
    row = session.get(PartPhotoRow, photo_id)
    if row is None:
        raise NotFound("photo", str(photo_id))
    return row


def _stored(row: PartPhotoRow) -> StoredPartPhoto:
    return StoredPartPhoto(row.id, row.job_id or row.was, row.shows, row.width, row.height, row.drawn)
