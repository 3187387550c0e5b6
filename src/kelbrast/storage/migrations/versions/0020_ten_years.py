"""Indexes for every question that is asked of years of work, and the work of each day in one row."""

from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0020"
down_revision = "0019"
_GONE = (
    ("ix_jobs_state", "jobs", ["state"]),
    ("ix_runs_status", "runs", ["status"]),
    ("ix_runs_material", "runs", ["material"]),
    ("ix_run_steps_tool", "run_steps", ["tool"]),
    ("ix_run_steps_item", "run_steps", ["item"]),
)
_MADE: dict[str, tuple[str, list[Any]]] = {
    "ix_jobs_by_title": ("jobs", [sa.text("lower(title)"), sa.text("id DESC")]),
    "ix_jobs_by_due": ("jobs", [sa.text("(due IS NULL)"), "due", sa.text("id DESC")]),
    "ix_jobs_by_customer": ("jobs", [sa.text("(customer = '')"), sa.text("lower(customer)"), sa.text("id DESC")]),
    "ix_jobs_by_state": ("jobs", ["state", "updated_at"]),
    "ix_runs_by_status": ("runs", ["status", "began_at"]),
    "ix_runs_by_material": ("runs", ["material", "began_at"]),
    "ix_sizings_updated_at": ("sizings", ["updated_at"]),
    "ix_run_steps_by_tool": ("run_steps", ["tool", "run_id"]),
    "ix_run_steps_by_item": ("run_steps", ["item", "ended_at"]),
    "ix_run_steps_by_end": ("run_steps", ["ended_at"]),
    "ix_observations_by_kind": ("observations", ["carrier", "family", "quantity", "id"]),
}


def upgrade() -> None:
    for name, table, _ in _GONE:
        op.drop_index(name, table)
    for name, (table, columns) in _MADE.items():
        op.create_index(name, table, columns)
    op.create_table(
        "work_days",
        sa.Column("item", sa.Integer(), primary_key=True, autoincrement=False),
        sa.Column("day", sa.Date(), primary_key=True),
        sa.Column("seconds", sa.Float(), nullable=False),
        sa.Column("first", sa.DateTime(), nullable=False),
    )
    op.execute(
        "insert into work_days (item, day, seconds, first)"
        " select coalesce(item, 0), date(ended_at), sum(seconds), min(ended_at) from run_steps group by 1, 2"
    )
    op.add_column("eye_checks", sa.Column("person", sa.Boolean()))
    op.add_column("eye_checks", sa.Column("left", sa.Boolean()))
    op.add_column("eye_checks", sa.Column("followed", sa.Boolean(), nullable=False, server_default=sa.text("0")))
    op.create_table(
        "change_counts", sa.Column("what", sa.String(40), primary_key=True), sa.Column("count", sa.Integer(), nullable=False)
    )


def downgrade() -> None:
    with op.batch_alter_table("eye_checks") as batch:
        for name in ("person", "left", "followed"):
            batch.drop_column(name)
    op.drop_table("change_counts")
    op.drop_table("work_days")
    for name, (table, _) in _MADE.items():
        op.drop_index(name, table)
    for name, table, columns in _GONE:
        op.create_index(name, table, columns)
