"""Photos of a stage or a reference: checked, turned upright, made smaller, encoded anew, and rid of where they were taken; and
photos of a job's part, with what was drawn on them."""

import io
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass, replace
from datetime import UTC, datetime
from typing import Final, Literal

from PIL import Image, ImageOps, UnidentifiedImageError
from sqlalchemy import Engine
from sqlalchemy.orm import Session

from kelbrast.app.readable import UNREADABLE
from kelbrast.core.errors import BadInput
from kelbrast.documents.job.format import FaceFile, JobFile
from kelbrast.documents.job.part_photo import PartPhotoFile, areas_cm2, named_as_now
from kelbrast.documents.job.photo_spots import told_apart, with_spots_drawn
from kelbrast.documents.job.read import check_job_file
from kelbrast.storage import jobs as job_store
from kelbrast.storage import part_photos as store
from kelbrast.storage import runs as run_store
from kelbrast.storage import shop
from kelbrast.storage.sessions import reading, writing
from kelbrast.storage.shop import StoredPhoto

Shows = Literal["stage", "untouched", "finished"]
LARGEST_SIDE: Final = 2000  # pixels kept
THUMBNAIL: Final = 120  # pixels of its longer side, twice what a row shows
# More is not opened at all: a JPEG is read at a fraction of its size, the others pixel by pixel.
MOST_PIXELS: Final = {"JPEG": 60_000_000, "PNG": 40_000_000, "WEBP": 12_000_000}
LONGEST_SIDE: Final = 16_000  # pixels; a picture of one line and millions of rows takes longest of all


class Photos:
    """The photos of one database."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def add(self, run_id: int, data: bytes, *, shows: Shows, across_mm: float | None) -> StoredPhoto:
        """Keep a photo of a run.

        Raises:
            NotFound: no such run.  BadInput: it is not a picture that can be read, or too large.
        """
        clean, (width, height) = encoded_anew(data)
        photo = StoredPhoto(0, run_id, datetime.now(UTC), shows, width, height, across_mm)
        with writing(self._engine) as session:
            run_store.seen_of(session, run_id)
            return replace(photo, id=shop.add_photo(session, photo, clean))

    def of_run(self, run_id: int) -> list[StoredPhoto]:
        """The photos of a run."""
        with reading(self._engine) as session:
            return shop.photos_of(session, run_id)

    def references(self) -> list[StoredPhoto]:
        """Every photo of an untouched or finished surface, of whatever run."""
        with reading(self._engine) as session:
            return shop.photos_of(session, None)

    def picture(self, photo_id: int) -> bytes:
        """The picture itself, a JPEG.

        Raises:
            NotFound: no such photo.
        """
        with reading(self._engine) as session:
            return shop.picture(session, photo_id)

    def scale(self, photo_id: int, across_mm: float | None) -> None:
        """Say how many millimetres a photo is wide, so that it can be shown at the scale of another.

        Raises:
            NotFound: no such photo.
        """
        with writing(self._engine) as session:
            shop.set_scale(session, photo_id, across_mm)


def thumbnail(data: bytes, kind: Literal["JPEG", "WEBP"]) -> bytes:
    """The same picture, small enough for a row of a list."""
    out = io.BytesIO()
    with Image.open(io.BytesIO(data)) as picture:
        picture.thumbnail((THUMBNAIL, THUMBNAIL))
        picture.convert("RGB").save(out, kind, quality=75)
    return out.getvalue()


@contextmanager
def told_of_pictures(kinds: str) -> Iterator[None]:
    """What a picture cannot be read for is raised as a `BadInput` of the photo; `kinds` that can be."""
    try:
        yield
    except UnidentifiedImageError:
        raise BadInput.one("photo", f"is not a picture that can be read; {kinds} can") from None
    except Image.DecompressionBombError:
        raise BadInput.one("photo", "has far too many megapixels; make it smaller") from None
    except (OSError, SyntaxError, ValueError) as problem:
        raise BadInput.one("photo", f"is damaged and cannot be read: {problem}") from None


def check_size(picture: Image.Image, most: int) -> None:
    """Refuse a picture by its size alone, before any of it is decoded.

    Raises:
        BadInput: it has more pixels than `most`, or a side is too long.
    """
    if max(picture.size) > LONGEST_SIDE:
        raise BadInput.one("photo", f"has a side of more than {LONGEST_SIDE} pixels; make it smaller")
    if picture.width * picture.height > most:
        raise BadInput.one("photo", f"has more than {most // 1_000_000} megapixels; make it smaller")


def encoded_anew(data: bytes, *, largest: int = LARGEST_SIDE) -> tuple[bytes, tuple[int, int]]:
    """The picture as a fresh JPEG with nothing else in it, and its size in pixels. No side is larger than `largest`; what was
    clear is white.

    Only the pixels are taken over: position, time, camera and whatever else the file carried are gone.

    Raises:
        BadInput: not a JPEG, PNG or WebP that can be read, or too large.
    """
    with told_of_pictures("JPEG, PNG and WebP"), Image.open(io.BytesIO(data), formats=tuple(MOST_PIXELS)) as picture:
        check_size(picture, MOST_PIXELS[picture.format or ""])
        picture.draft("RGB", (largest, largest))  # a JPEG is read at a fraction of its size where that will do
        plain = picture if picture.mode in ("RGB", "RGBA", "L") else picture.convert("RGB")
        plain.thumbnail((largest, largest))  # before anything else, for a large one takes much room
        plain.info = picture.info
        upright = ImageOps.exif_transpose(plain).convert("RGBA")
    bare = Image.new("RGB", upright.size, "white")
    bare.paste(upright, mask=upright)
    out = io.BytesIO()
    bare.save(out, "JPEG", quality=88)
    return out.getvalue(), bare.size


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
            return [_photo(stored_part_photo, faces) for stored_part_photo in store.of_job(session, job_id)]

    def draw(self, photo_id: int, drawn: PartPhotoFile) -> PartPhoto:
        """Keep what is drawn on a photo; damage that is drawn before the work is the spots of the job, as many and as large.

        Raises:
            NotFound: no such photo.  BadInput: an outline or the scale cannot be.
        """
        areas_cm2(drawn)
        with writing(self._engine) as session:
            was = store.get(session, photo_id)
            file = _file(session, was.job_id)
            if file is None or was.shows != "before":
                kept = store.draw(session, photo_id, drawn.model_dump(mode="json"))
                return _photo(kept, file.faces if file else [])
            kept = store.draw(session, photo_id, told_apart(file, drawn).model_dump(mode="json"))
            before = [(mark.face, mark.spots) for mark in PartPhotoFile.model_validate(dict(was.drawn)).marks if mark.spots]
            return _photo(kept, _take_spots(session, file, was.job_id, were=before).faces)

    def remove(self, photo_id: int) -> None:
        """Forget a photo. Spots that were drawn on it stay in the job, to be changed there.

        Raises:
            NotFound: no such photo.
        """
        with writing(self._engine) as session:
            was = store.get(session, photo_id)
            store.remove(session, photo_id)
            if (file := _file(session, was.job_id)) is not None and was.shows == "before":
                _take_spots(session, file, was.job_id)

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
    file = _file(session, job_id)
    return file.faces if file is not None else []


def _file(session: Session, job_id: int) -> JobFile | None:
    """A job; None where it cannot be understood."""
    stored = job_store.get_job(session, job_id)
    try:
        return check_job_file(dict(stored.document))
    except UNREADABLE:
        return None


def _take_spots(session: Session, file: JobFile, job_id: int, *, were: Sequence[tuple[str, str]] = ()) -> JobFile:
    """The job with the spots that are drawn on its photos now; `were`: (face, kind) of those that were drawn before."""
    photos = [PartPhotoFile.model_validate(dict(one.drawn)) for one in store.of_job(session, job_id) if one.shows == "before"]
    now = with_spots_drawn(file, photos, were=were)
    if now != file:
        revision = job_store.get_job(session, job_id).revision
        job_store.change_job(session, job_id, now.model_dump(mode="json", exclude_none=True), revision=revision)
    return now


def _photo(stored_part_photo: store.StoredPartPhoto, faces: Sequence[FaceFile]) -> PartPhoto:
    drawn = named_as_now(PartPhotoFile.model_validate(dict(stored_part_photo.drawn)), faces)
    return PartPhoto(
        stored_part_photo.id,
        stored_part_photo.job_id,
        stored_part_photo.shows,
        stored_part_photo.width,
        stored_part_photo.height,
        drawn,
        tuple(areas_cm2(drawn)),
    )
