"""The tables. Lengths are stored in the unit that their name gives, as in the job file."""

from datetime import UTC, date, datetime
from typing import Any

from sqlalchemy import (
    JSON,
    DateTime,
    Float,
    ForeignKey,
    Index,
    LargeBinary,
    String,
    TypeDecorator,
    UniqueConstraint,
    func,
    literal_column,
)
from sqlalchemy.engine import Dialect
from sqlalchemy.orm import DeclarativeBase, Mapped, mapped_column


class UtcTime(TypeDecorator[datetime]):
    """A moment, with its zone in the program and in UTC without one in the file: SQLite keeps no zones."""

    impl = DateTime
    cache_ok = True

    def process_bind_param(self, value: datetime | None, dialect: Dialect) -> datetime | None:  # noqa: ARG002, as SQLAlchemy calls it
        if value is None:
            return None
        assert value.tzinfo is not None, "nobody knows when a moment without its zone was"
        return value.astimezone(UTC).replace(tzinfo=None)

    def process_result_value(self, value: datetime | None, dialect: Dialect) -> datetime | None:  # noqa: ARG002, as SQLAlchemy calls it
        return value if value is None else value.replace(tzinfo=UTC)


class Base(DeclarativeBase):
    """All tables."""


class JobRow(Base):
    """A job as its file; `revision` counts its changes, so that two screens cannot overwrite each other unseen.

    What is looked for stands beside the document, and follows from it. `state` does not: it is the newest of `JobStateRow`.
    """

    __tablename__ = "jobs"

    id: Mapped[int] = mapped_column(primary_key=True)
    revision: Mapped[int] = mapped_column(default=1)
    created_at: Mapped[datetime] = mapped_column(UtcTime, default=lambda: datetime.now(UTC))
    updated_at: Mapped[datetime] = mapped_column(UtcTime, default=lambda: datetime.now(UTC), index=True)
    title: Mapped[str] = mapped_column(String(200))
    material: Mapped[str] = mapped_column(String(80), index=True)
    customer: Mapped[str] = mapped_column(String(200), index=True)
    due: Mapped[str | None] = mapped_column(String(40))
    state: Mapped[str] = mapped_column(String(20))
    document: Mapped[dict[str, Any]] = mapped_column(JSON)

    # As the list is put in order, and the jobs of a state by when they were changed.
    __table_args__ = (
        Index("ix_jobs_by_title", func.lower(title), id.desc()),
        Index("ix_jobs_by_due", due.is_(None), due, id.desc()),
        Index("ix_jobs_by_customer", customer == literal_column("''"), func.lower(customer), id.desc()),
        Index("ix_jobs_by_state", "state", "updated_at"),
        {"sqlite_autoincrement": True},
    )


class JobStateRow(Base):
    """That a job came to a state, from a person or from the bench. Rows are only ever added; `number` counts those of a job."""

    __tablename__ = "job_states"

    id: Mapped[int] = mapped_column(primary_key=True)
    job_id: Mapped[int] = mapped_column(ForeignKey("jobs.id", ondelete="CASCADE"))
    number: Mapped[int]
    at: Mapped[datetime] = mapped_column(UtcTime)
    state: Mapped[str] = mapped_column(String(20))

    __table_args__ = (UniqueConstraint("job_id", "number"),)


class QuoteRow(Base):
    """A price as it was told a customer, as its file."""

    __tablename__ = "quotes"

    id: Mapped[int] = mapped_column(primary_key=True)
    job_id: Mapped[int] = mapped_column(ForeignKey("jobs.id", ondelete="CASCADE"), index=True)
    at: Mapped[datetime] = mapped_column(UtcTime, default=lambda: datetime.now(UTC))
    document: Mapped[dict[str, Any]] = mapped_column(JSON)


class SizingRow(Base):
    """A bore or shaft that is worked to size, as its file; `revision` counts its changes."""

    __tablename__ = "sizings"

    id: Mapped[int] = mapped_column(primary_key=True)
    revision: Mapped[int] = mapped_column(default=1, server_default="1")
    updated_at: Mapped[datetime] = mapped_column(UtcTime, default=lambda: datetime.now(UTC), index=True)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)

    __table_args__ = ({"sqlite_autoincrement": True},)


class OwnEntryRow(Base):
    """Something of the shop's own, as it stands in its file, with the id that everything else knows it by."""

    __tablename__ = "own_entries"

    id: Mapped[int] = mapped_column(primary_key=True)
    revision: Mapped[int] = mapped_column(default=1, server_default="1")
    updated_at: Mapped[datetime] = mapped_column(UtcTime, default=lambda: datetime.now(UTC))
    key: Mapped[str] = mapped_column(String(80), unique=True)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)

    __table_args__ = ({"sqlite_autoincrement": True},)


class TrialRow(Base):
    """A trial piece as it was worked, with what it said. Rows are added and taken away, never changed."""

    __tablename__ = "trials"

    id: Mapped[int] = mapped_column(primary_key=True)
    document: Mapped[dict[str, Any]] = mapped_column(JSON)

    __table_args__ = ({"sqlite_autoincrement": True},)


class RackItemRow(Base):
    """A thing on the rack, as it stands in its file; `revision` counts changes of what is said of it."""

    __tablename__ = "rack_items"

    id: Mapped[int] = mapped_column(primary_key=True)
    revision: Mapped[int] = mapped_column(default=1, server_default="1")
    document: Mapped[dict[str, Any]] = mapped_column(JSON)

    __table_args__ = ({"sqlite_autoincrement": True},)


class RackEventRow(Base):
    """Something that happened to an item, as it stands in its file. What work used on one day is one row."""

    __tablename__ = "rack_events"

    id: Mapped[int] = mapped_column(primary_key=True)
    item_id: Mapped[int] = mapped_column(ForeignKey("rack_items.id", ondelete="CASCADE"), index=True)
    at: Mapped[datetime] = mapped_column(UtcTime, default=lambda: datetime.now(UTC))
    document: Mapped[dict[str, Any]] = mapped_column(JSON)


class RunRow(Base):
    """A run of a job at the bench, with the job and the plan as they were when it began.

    Everything from `status` to `words` follows from the events: it stands here so that the log can be searched quickly.
    `taken`: what the run took from the rack so far, by item. `seen`: number of the newest event.
    """

    __tablename__ = "runs"

    id: Mapped[int] = mapped_column(primary_key=True)
    job_id: Mapped[int | None] = mapped_column(ForeignKey("jobs.id", ondelete="SET NULL"), index=True)
    title: Mapped[str] = mapped_column(String(200))
    material: Mapped[str] = mapped_column(String(80))
    finishes: Mapped[str] = mapped_column(String(400))
    pieces: Mapped[int]
    began_at: Mapped[datetime] = mapped_column(UtcTime, index=True)
    job: Mapped[dict[str, Any]] = mapped_column(JSON)
    plan: Mapped[dict[str, Any]] = mapped_column(JSON)
    status: Mapped[str] = mapped_column(String(20), default="open")
    well: Mapped[bool | None]
    ended_at: Mapped[datetime | None] = mapped_column(UtcTime)
    figures: Mapped[dict[str, Any]] = mapped_column(JSON, default=dict)
    words: Mapped[str] = mapped_column(default="")
    waxed_at: Mapped[datetime | None] = mapped_column(UtcTime, index=True)
    taken: Mapped[dict[str, Any]] = mapped_column(JSON, default=dict)
    seen: Mapped[int] = mapped_column(default=0)

    __table_args__ = (
        Index("ix_runs_by_status", "status", "began_at"),
        Index("ix_runs_by_material", "material", "began_at"),
        {"sqlite_autoincrement": True},
    )


class RunEventRow(Base):
    """Something that happened in a run. Rows are only ever added; `tap` makes a tap that is sent twice count once.

    `form`: of the document, as `documents.common.versions` names it.
    """

    __tablename__ = "run_events"

    id: Mapped[int] = mapped_column(primary_key=True)
    run_id: Mapped[int] = mapped_column(ForeignKey("runs.id", ondelete="CASCADE"))
    number: Mapped[int]
    tap: Mapped[str] = mapped_column(String(40))
    form: Mapped[str] = mapped_column(String(20))
    document: Mapped[dict[str, Any]] = mapped_column(JSON)

    __table_args__ = (UniqueConstraint("run_id", "number"), UniqueConstraint("run_id", "tap"))


class RunStepRow(Base):
    """A step of a run that is over: what it was done with and how long it took. Follows from the events."""

    __tablename__ = "run_steps"

    id: Mapped[int] = mapped_column(primary_key=True)
    run_id: Mapped[int] = mapped_column(ForeignKey("runs.id", ondelete="CASCADE"), index=True)
    tool: Mapped[str] = mapped_column(String(80))
    item: Mapped[int | None]
    seconds: Mapped[float] = mapped_column(Float)
    ended_at: Mapped[datetime] = mapped_column(UtcTime)

    __table_args__ = (
        Index("ix_run_steps_by_tool", "tool", "run_id"),
        Index("ix_run_steps_by_item", "item", "ended_at"),
        Index("ix_run_steps_by_end", "ended_at"),
    )


class WorkDayRow(Base):
    """How long a thing of the rack was worked with on one day (UTC), and when first: the sum of its `RunStepRow`s of that day.

    `item`: 0 for work with what is on no rack.
    """

    __tablename__ = "work_days"

    item: Mapped[int] = mapped_column(primary_key=True, autoincrement=False)
    day: Mapped[date] = mapped_column(primary_key=True)
    seconds: Mapped[float] = mapped_column(Float)
    first: Mapped[datetime] = mapped_column(UtcTime)


class ChangeCountRow(Base):
    """How often what follows from the runs has changed: quicker to ask than whether any of a million rows has."""

    __tablename__ = "change_counts"

    what: Mapped[str] = mapped_column(String(40), primary_key=True)
    count: Mapped[int] = mapped_column(default=0)


class ObservationRow(Base):
    """What a finished run said about one carrier on one metal family. Follows from the events."""

    __tablename__ = "observations"

    id: Mapped[int] = mapped_column(primary_key=True)
    run_id: Mapped[int] = mapped_column(ForeignKey("runs.id", ondelete="CASCADE"), index=True)
    carrier: Mapped[str] = mapped_column(String(80))
    family: Mapped[str] = mapped_column(String(40))
    quantity: Mapped[str] = mapped_column(String(20))
    ratio: Mapped[float] = mapped_column(Float)

    __table_args__ = (Index("ix_observations_by_kind", "carrier", "family", "quantity", "id"),)


class EyeCheckRow(Base):
    """What the eye saw at a light check: after which event, at which stage of which piece.

    `person`, `left`: what follows from the events, as `core.bench.observed.TurnedOut` has it, where `followed`.
    """

    __tablename__ = "eye_checks"

    id: Mapped[int] = mapped_column(primary_key=True)
    run_id: Mapped[int] = mapped_column(ForeignKey("runs.id", ondelete="CASCADE"), index=True)
    after: Mapped[int]
    piece: Mapped[int]
    face: Mapped[str] = mapped_column(String(200))
    route: Mapped[int]
    step: Mapped[int]
    at: Mapped[datetime] = mapped_column(UtcTime)
    verdict: Mapped[str] = mapped_column(String(20))
    score: Mapped[float] = mapped_column(Float)
    person: Mapped[bool | None]
    left: Mapped[bool | None]
    followed: Mapped[bool] = mapped_column(default=True, server_default=literal_column("0"))


class PhotoRow(Base):
    """A photo, re-encoded. `across_mm`: how wide the part of the world is that it shows; None when nobody said."""

    __tablename__ = "photos"

    id: Mapped[int] = mapped_column(primary_key=True)
    run_id: Mapped[int] = mapped_column(ForeignKey("runs.id", ondelete="CASCADE"), index=True)
    at: Mapped[datetime] = mapped_column(UtcTime)
    shows: Mapped[str] = mapped_column(String(20))
    width: Mapped[int]
    height: Mapped[int]
    across_mm: Mapped[float | None] = mapped_column(Float)
    data: Mapped[bytes] = mapped_column(LargeBinary, deferred=True)


class PartPhotoRow(Base):
    """A photo of a job's part, re-encoded, with what was drawn on it. `was`: its job, for when that comes back by an undo."""

    __tablename__ = "part_photos"

    id: Mapped[int] = mapped_column(primary_key=True)
    job_id: Mapped[int | None] = mapped_column(ForeignKey("jobs.id", ondelete="SET NULL"), index=True)
    was: Mapped[int]
    at: Mapped[datetime] = mapped_column(UtcTime)
    shows: Mapped[str] = mapped_column(String(20))
    width: Mapped[int]
    height: Mapped[int]
    drawn: Mapped[dict[str, Any]] = mapped_column(JSON)
    data: Mapped[bytes] = mapped_column(LargeBinary, deferred=True)


class RecipeRow(Base):
    """A house way: how a kind of face is done here, from a run that went well."""

    __tablename__ = "recipes"

    id: Mapped[int] = mapped_column(primary_key=True)
    name: Mapped[str] = mapped_column(String(80))
    run_id: Mapped[int | None] = mapped_column(ForeignKey("runs.id", ondelete="SET NULL"))
    document: Mapped[dict[str, Any]] = mapped_column(JSON)


class CareRow(Base):
    """A care of upkeep that was done. Rows are only ever added."""

    __tablename__ = "care_done"

    id: Mapped[int] = mapped_column(primary_key=True)
    thing: Mapped[str] = mapped_column(String(40), index=True)
    care: Mapped[str] = mapped_column(String(40))
    at: Mapped[datetime] = mapped_column(UtcTime)


class SettingRow(Base):
    """A choice that holds for the whole shop."""

    __tablename__ = "settings"

    key: Mapped[str] = mapped_column(String(40), primary_key=True)
    value: Mapped[dict[str, Any]] = mapped_column(JSON)


class PracticeRow(Base):
    """An answer to a question of the practice. The question follows from kind, difficulty and seed."""

    __tablename__ = "practice_answers"

    id: Mapped[int] = mapped_column(primary_key=True)
    person: Mapped[str] = mapped_column(String(80), index=True)
    at: Mapped[datetime] = mapped_column(UtcTime)
    kind: Mapped[str] = mapped_column(String(20))
    difficulty: Mapped[float] = mapped_column(Float)
    seed: Mapped[int]
    options: Mapped[int]
    right: Mapped[bool]
