"""The tables. Lengths are stored in the unit that their name gives, as in the job file."""

from datetime import UTC, datetime
from typing import Any

from sqlalchemy import JSON, CheckConstraint, DateTime, Float, ForeignKey, String, UniqueConstraint
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column, relationship


class Base(DeclarativeBase):
    """All tables."""


class JobRow(Base):
    """A job; `revision` counts its changes, so that two screens can not overwrite each other unseen."""

    __tablename__ = "jobs"

    id: Mapped[int] = mapped_column(primary_key=True)
    revision: Mapped[int] = mapped_column(default=1)
    created_at: Mapped[datetime] = mapped_column(DateTime, default=lambda: datetime.now(UTC))
    updated_at: Mapped[datetime] = mapped_column(DateTime, default=lambda: datetime.now(UTC), index=True)
    title: Mapped[str] = mapped_column(String(200))
    material: Mapped[str] = mapped_column(String(80), index=True)
    pieces: Mapped[int] = mapped_column(CheckConstraint("pieces >= 1"))
    rack: Mapped[list[str] | None] = mapped_column(JSON)
    habit: Mapped[str] = mapped_column(String(20))
    aim: Mapped[str] = mapped_column(String(20))
    carried: Mapped[bool | None]
    handover: Mapped[str | None] = mapped_column(String(20))
    bench_speed: Mapped[str | None] = mapped_column(String(20))
    covering: Mapped[str | None] = mapped_column(String(20))
    protect: Mapped[str | None] = mapped_column(String(20))
    inserts: Mapped[list[str] | None] = mapped_column(JSON)
    mass_g: Mapped[float | None] = mapped_column(Float)
    held: Mapped[str | None] = mapped_column(String(20))
    wet: Mapped[str | None] = mapped_column(String(20))
    diameters_mm: Mapped[dict[str, float] | None] = mapped_column(JSON)
    use_rack: Mapped[str | None] = mapped_column(String(20))
    extras: Mapped[list[str] | None] = mapped_column(JSON)
    insist: Mapped[bool | None]
    faces: Mapped[list["FaceRow"]] = relationship(
        back_populates="job", cascade="all, delete-orphan", order_by="FaceRow.position", lazy="selectin"
    )

    __table_args__ = ({"sqlite_autoincrement": True},)


class RackItemRow(Base):
    """A thing on the rack. What is null is as in the catalogue."""

    __tablename__ = "rack_items"

    id: Mapped[int] = mapped_column(primary_key=True)
    what: Mapped[str] = mapped_column(String(80), index=True)
    name: Mapped[str] = mapped_column(String(80))
    count: Mapped[float] = mapped_column(Float, CheckConstraint("count >= 0"))
    low: Mapped[float | None] = mapped_column(Float)
    diameter_mm: Mapped[float | None] = mapped_column(Float)
    marked_m_s: Mapped[float | None] = mapped_column(Float)
    price: Mapped[float | None] = mapped_column(Float)
    life_min: Mapped[float | None] = mapped_column(Float)
    rpm: Mapped[list[float] | None] = mapped_column(JSON)
    made: Mapped[str] = mapped_column(String(40))
    note: Mapped[str] = mapped_column(String(400))
    events: Mapped[list["RackEventRow"]] = relationship(
        back_populates="item", cascade="all, delete-orphan", order_by="RackEventRow.id", lazy="selectin"
    )

    __table_args__ = ({"sqlite_autoincrement": True},)


class RackEventRow(Base):
    """Something that happened to an item. Rows are only ever added."""

    __tablename__ = "rack_events"

    id: Mapped[int] = mapped_column(primary_key=True)
    item_id: Mapped[int] = mapped_column(ForeignKey("rack_items.id", ondelete="CASCADE"), index=True)
    at: Mapped[datetime] = mapped_column(DateTime, default=lambda: datetime.now(UTC))
    kind: Mapped[str] = mapped_column(String(20))
    charge: Mapped[str | None] = mapped_column(String(80))
    family: Mapped[str | None] = mapped_column(String(40))
    amount: Mapped[float] = mapped_column(Float, default=0.0)
    size_mm: Mapped[float | None] = mapped_column(Float)
    why: Mapped[str] = mapped_column(String(400), default="")
    item: Mapped[RackItemRow] = relationship(back_populates="events")


class FaceRow(Base):
    """A face of a job. What has a form of its own in the job file (shape, found, want) stays in that form."""

    __tablename__ = "faces"

    id: Mapped[int] = mapped_column(primary_key=True)
    job_id: Mapped[int] = mapped_column(ForeignKey("jobs.id", ondelete="CASCADE"), index=True)
    position: Mapped[int]
    name: Mapped[str] = mapped_column(String(200))
    area_cm2: Mapped[float | None] = mapped_column(Float)
    shape: Mapped[dict[str, Any] | None] = mapped_column(JSON)
    thickness_mm: Mapped[float | None] = mapped_column(Float)
    reach: Mapped[str] = mapped_column(String(20))
    inside_radius_mm: Mapped[float | None] = mapped_column(Float)
    found: Mapped[dict[str, Any]] = mapped_column(JSON)
    want: Mapped[dict[str, Any]] = mapped_column(JSON)
    limit_um: Mapped[float | None] = mapped_column(Float)
    coat_um: Mapped[float | None] = mapped_column(Float)
    keep_um: Mapped[float | None] = mapped_column(Float)
    keep_wall_mm: Mapped[float | None] = mapped_column(Float)
    size_left_um: Mapped[float | None] = mapped_column(Float)
    layer: Mapped[dict[str, Any] | None] = mapped_column(JSON)
    curved: Mapped[bool | None]
    keep_off: Mapped[bool]
    wish: Mapped[dict[str, Any] | None] = mapped_column(JSON)
    job: Mapped[JobRow] = relationship(back_populates="faces")

    __table_args__ = (UniqueConstraint("job_id", "position"),)
