"""Jobs with their faces as documents in the form of the job file; events say the form of theirs; when work was waxed."""

import json
import warnings
from datetime import UTC, datetime
from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0013"
down_revision = "0012"
branch_labels = None
depends_on = None

# The columns of the job file as the tables had them; what is null was never said.
_SOUGHT = ("title", "material", "customer", "due")
_JOB = (
    "pieces", "habit", "aim", "carried", "handover", "bench_speed", "covering", "protect", "mass_g", "held", "wet", "use_rack",
    "insist", "coats", "note",
)  # fmt: skip
_JOB_JSON = ("rack", "inserts", "diameters_mm", "extras", "own_operations")
_FACE = (
    "name", "area_cm2", "thickness_mm", "reach", "inside_radius_mm", "limit_um", "coat_um", "keep_um", "keep_wall_mm",
    "size_left_um", "curved", "keep_off",
)  # fmt: skip
_FACE_JSON = ("shape", "found", "want", "layer", "fit", "wish", "edge")
_TRUTHS = ("carried", "insist", "curved", "keep_off")


def upgrade() -> None:
    connection = op.get_bind()
    op.add_column("run_events", sa.Column("form", sa.String(20), nullable=False, server_default="event/1"))
    op.add_column("runs", sa.Column("waxed_at", sa.DateTime()))
    op.create_index("ix_runs_waxed_at", "runs", ["waxed_at"])
    op.add_column("jobs", sa.Column("document", sa.JSON(), nullable=False, server_default="{}"))
    jobs, faces, runs = (sa.Table(name, sa.MetaData(), autoload_with=connection) for name in ("jobs", "faces", "runs"))
    for run_id, figures in connection.execute(sa.select(runs.c.id, runs.c.figures)).all():
        if figures.get("protected") == "wax":
            at = datetime.fromisoformat(figures["protected_at"]).astimezone(UTC).replace(tzinfo=None)
            connection.execute(runs.update().where(runs.c.id == run_id).values(waxed_at=at))
    for job in connection.execute(sa.select(jobs)).mappings().all():
        rows = connection.execute(sa.select(faces).where(faces.c.job_id == job["id"]).order_by(faces.c.position)).mappings()
        said = _told(job, (*_SOUGHT, *_JOB, *_JOB_JSON))
        document = {"kelbrast": "job/1", **said, "faces": [_told(face, (*_FACE, *_FACE_JSON)) for face in rows]}
        first = {"customer": job["customer"] or "", "state": job["state"] or "asked"}  # older tables said nothing
        connection.execute(jobs.update().where(jobs.c.id == job["id"]).values(document=document, **first))
    # That a check of the pieces goes with their column is what is wanted here.
    warnings.filterwarnings("ignore", "Unnamed CHECK", UserWarning)
    with op.batch_alter_table("jobs", table_kwargs={"sqlite_autoincrement": True}) as batch:
        for name in (*_JOB, *_JOB_JSON):
            batch.drop_column(name)
        batch.alter_column("customer", existing_type=sa.String(200), nullable=False)
        batch.alter_column("state", existing_type=sa.String(20), nullable=False)
        batch.alter_column("document", existing_type=sa.JSON(), server_default=None)
    with op.batch_alter_table("run_events") as events:
        events.alter_column("form", existing_type=sa.String(20), server_default=None)
    op.drop_table("faces")


def _told(row: Any, keys: tuple[str, ...]) -> dict[str, Any]:
    """What a row says, as the file has it."""
    return {key: row[key] for key in keys if row[key] is not None}


def downgrade() -> None:
    connection = op.get_bind()
    op.create_table(
        "faces",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("job_id", sa.Integer(), sa.ForeignKey("jobs.id", ondelete="CASCADE"), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        *(sa.Column(name, kind, nullable=name not in _SAID) for name, kind in _FACE_KINDS.items()),
        sa.UniqueConstraint("job_id", "position"),
    )
    op.create_index("ix_faces_job_id", "faces", ["job_id"])
    for name, kind in _JOB_KINDS.items():
        op.add_column("jobs", sa.Column(name, kind))
    for job_id, text in connection.execute(sa.text("select id, document from jobs")).all():
        document = json.loads(text)
        _write(connection, "update jobs set {} where id = :id", _JOB_KINDS, document, {"id": job_id})
        for position, face in enumerate(document["faces"]):
            at = {"id": job_id, "at": position}
            connection.execute(sa.text(_NEW_FACE), at)
            said = {"reach": "open", "keep_off": False, **face}
            _write(connection, "update faces set {} where job_id = :id and position = :at", _FACE_KINDS, said, at)
    with op.batch_alter_table("jobs", table_kwargs={"sqlite_autoincrement": True}) as jobs:
        jobs.drop_column("document")
        jobs.alter_column("customer", existing_type=sa.String(200), nullable=True)
        jobs.alter_column("state", existing_type=sa.String(20), nullable=True)
        jobs.alter_column("pieces", existing_type=sa.Integer(), nullable=False)
    with op.batch_alter_table("run_events") as events:
        events.drop_column("form")
    op.drop_index("ix_runs_waxed_at", "runs")
    op.drop_column("runs", "waxed_at")


_NEW_FACE = "insert into faces (job_id, position, name, reach, found, want, keep_off) values (:id, :at, '', '', '', '', 0)"
_SAID = ("name", "reach", "found", "want", "keep_off")
_NUMBERS: dict[str, Any] = {name: sa.Float() for name in (*_JOB, *_FACE) if name.rsplit("_", 1)[-1] in ("um", "mm", "cm2", "g")}
_OTHERS: dict[str, Any] = {
    **{name: sa.JSON() for name in (*_JOB_JSON, *_FACE_JSON)},
    **{name: sa.Boolean() for name in _TRUTHS},
    **{name: sa.Integer() for name in ("pieces", "coats")},
}
_JOB_KINDS: dict[str, Any] = {name: _NUMBERS.get(name) or _OTHERS.get(name) or sa.String(2000) for name in (*_JOB, *_JOB_JSON)}
_FACE_KINDS: dict[str, Any] = {
    name: _NUMBERS.get(name) or _OTHERS.get(name) or sa.String(200) for name in (*_FACE, *_FACE_JSON)
}


def _write(connection: Any, statement: str, kinds: dict[str, Any], document: dict[str, Any], at: dict[str, Any]) -> None:
    said = {name: document.get(name) for name in kinds}
    packed = {
        name: json.dumps(said[name]) if isinstance(kinds[name], sa.JSON) and said[name] is not None else said[name]
        for name in kinds
    }
    connection.execute(sa.text(statement.format(", ".join(f"{name} = :{name}" for name in kinds))), {**packed, **at})
