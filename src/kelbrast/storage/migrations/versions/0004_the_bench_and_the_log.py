"""Runs at the bench with everything that happened, and what follows from them."""

import sqlalchemy as sa
from alembic import op

revision = "0004"
down_revision = "0003"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "runs",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("job_id", sa.Integer(), sa.ForeignKey("jobs.id", ondelete="SET NULL"), nullable=True),
        sa.Column("title", sa.String(200), nullable=False),
        sa.Column("material", sa.String(80), nullable=False),
        sa.Column("finishes", sa.String(400), nullable=False),
        sa.Column("pieces", sa.Integer(), nullable=False),
        sa.Column("began_at", sa.DateTime(), nullable=False),
        sa.Column("job", sa.JSON(), nullable=False),
        sa.Column("plan", sa.JSON(), nullable=False),
        sa.Column("status", sa.String(20), nullable=False),
        sa.Column("well", sa.Boolean(), nullable=True),
        sa.Column("ended_at", sa.DateTime(), nullable=True),
        sa.Column("figures", sa.JSON(), nullable=False),
        sa.Column("words", sa.String(), nullable=False),
        sa.Column("taken", sa.JSON(), nullable=False),
        sa.Column("seen", sa.Integer(), nullable=False),
        sqlite_autoincrement=True,
    )
    for column in ("job_id", "material", "began_at", "status"):
        op.create_index(f"ix_runs_{column}", "runs", [column])
    op.create_table(
        "run_events",
        sa.Column("id", sa.Integer(), primary_key=True),
        _run(),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("tap", sa.String(40), nullable=False),
        sa.Column("document", sa.JSON(), nullable=False),
        sa.UniqueConstraint("run_id", "number"),
        sa.UniqueConstraint("run_id", "tap"),
    )
    op.create_table(
        "run_steps",
        sa.Column("id", sa.Integer(), primary_key=True),
        _run(),
        sa.Column("tool", sa.String(80), nullable=False),
        sa.Column("item", sa.Integer(), nullable=True),
        sa.Column("seconds", sa.Float(), nullable=False),
        sa.Column("ended_at", sa.DateTime(), nullable=False),
    )
    op.create_table(
        "observations",
        sa.Column("id", sa.Integer(), primary_key=True),
        _run(),
        sa.Column("carrier", sa.String(80), nullable=False),
        sa.Column("family", sa.String(40), nullable=False),
        sa.Column("quantity", sa.String(20), nullable=False),
        sa.Column("ratio", sa.Float(), nullable=False),
    )
    op.create_table(
        "photos",
        sa.Column("id", sa.Integer(), primary_key=True),
        _run(),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("shows", sa.String(20), nullable=False),
        sa.Column("width", sa.Integer(), nullable=False),
        sa.Column("height", sa.Integer(), nullable=False),
        sa.Column("across_mm", sa.Float(), nullable=True),
        sa.Column("data", sa.LargeBinary(), nullable=False),
    )
    op.create_table(
        "recipes",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("name", sa.String(80), nullable=False),
        sa.Column("run_id", sa.Integer(), sa.ForeignKey("runs.id", ondelete="SET NULL"), nullable=True),
        sa.Column("document", sa.JSON(), nullable=False),
    )
    op.create_table(
        "care_done",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("thing", sa.String(40), nullable=False),
        sa.Column("care", sa.String(40), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
    )
    op.create_table(
        "settings",
        sa.Column("key", sa.String(40), primary_key=True),
        sa.Column("value", sa.JSON(), nullable=False),
    )
    for table, column in (
        ("run_steps", "run_id"),
        ("run_steps", "tool"),
        ("run_steps", "item"),
        ("observations", "run_id"),
        ("photos", "run_id"),
        ("care_done", "thing"),
    ):
        op.create_index(f"ix_{table}_{column}", table, [column])


def downgrade() -> None:
    for name in ("settings", "care_done", "recipes", "photos", "observations", "run_steps", "run_events", "runs"):
        op.drop_table(name)


def _run() -> sa.Column[int]:
    return sa.Column("run_id", sa.Integer(), sa.ForeignKey("runs.id", ondelete="CASCADE"), nullable=False)
