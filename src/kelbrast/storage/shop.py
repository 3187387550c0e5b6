"""Keeping what belongs to the shop: choices, house ways, upkeep that was done, photos."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from sqlalchemy import select
from sqlalchemy.orm import Session

from kelbrast.core.errors import NotFound
from kelbrast.storage.tables import CareRow, PhotoRow, RecipeRow, SettingRow


@dataclass(frozen=True, slots=True)
class StoredRecipe:
    """A house way as kept."""

    id: int
    name: str
    run_id: int | None
    document: Mapping[str, Any]


@dataclass(frozen=True, slots=True)
class StoredPhoto:
    """What is known of a photo, without the picture itself."""

    id: int
    run_id: int
    at: datetime
    shows: str
    width: int
    height: int
    across_mm: float | None


def get_setting(session: Session, key: str) -> Mapping[str, Any]:
    """A choice of the shop; empty when nobody chose yet."""
    row = session.get(SettingRow, key)
    return row.value if row is not None else {}


def put_setting(session: Session, key: str, value: Mapping[str, Any]) -> None:
    """Choose."""
    session.merge(SettingRow(key=key, value=dict(value)))


def all_recipes(session: Session) -> list[StoredRecipe]:
    """Every house way, the newest first."""
    rows = session.scalars(select(RecipeRow).order_by(RecipeRow.id.desc()))
    return [StoredRecipe(row.id, row.name, row.run_id, row.document) for row in rows]


def add_recipe(session: Session, name: str, run_id: int, document: Mapping[str, Any]) -> int:
    """Keep a house way. Returns its id."""
    row = RecipeRow(name=name, run_id=run_id, document=dict(document))
    session.add(row)
    session.flush()
    return row.id


def remove_recipe(session: Session, recipe_id: int) -> None:
    """Forget a house way.

    Raises:
        NotFound: no house way with this id.
    """
    row = session.get(RecipeRow, recipe_id)
    if row is None:
        raise NotFound("house way", str(recipe_id))
    session.delete(row)


def care_done(session: Session) -> list[tuple[str, str, datetime]]:
    """(thing, care, when) of all upkeep that was done."""
    rows = session.execute(select(CareRow.thing, CareRow.care, CareRow.at).order_by(CareRow.id))
    return [(thing, care, at) for thing, care, at in rows]


def add_care(session: Session, thing: str, care: str, at: datetime) -> None:
    """A care was done."""
    session.add(CareRow(thing=thing, care=care, at=at))


def add_photo(session: Session, photo: StoredPhoto, data: bytes) -> int:
    """Keep a photo. Returns its id."""
    row = PhotoRow(
        run_id=photo.run_id,
        at=photo.at,
        shows=photo.shows,
        width=photo.width,
        height=photo.height,
        across_mm=photo.across_mm,
        data=data,
    )
    session.add(row)
    session.flush()
    return row.id


def photos_of(session: Session, run_id: int | None) -> list[StoredPhoto]:
    """The photos of a run, or every reference photo of the shop, in the order in which they came."""
    query = select(PhotoRow).order_by(PhotoRow.id)
    query = query.where(PhotoRow.run_id == run_id) if run_id is not None else query.where(PhotoRow.shows != "stage")
    return [
        StoredPhoto(row.id, row.run_id, row.at, row.shows, row.width, row.height, row.across_mm)
        for row in session.scalars(query)
    ]


def picture(session: Session, photo_id: int) -> bytes:
    """The picture of a photo.

    Raises:
        NotFound: no photo with this id.
    """
    data = session.scalar(select(PhotoRow.data).where(PhotoRow.id == photo_id))
    if data is None:
        raise NotFound("photo", str(photo_id))
    return data


def set_scale(session: Session, photo_id: int, across_mm: float | None) -> None:
    """Say how wide the part of the world is that a photo shows.

    Raises:
        NotFound: no photo with this id.
    """
    row = session.get(PhotoRow, photo_id)
    if row is None:
        raise NotFound("photo", str(photo_id))
    row.across_mm = across_mm
