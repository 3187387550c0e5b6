"""Jobs know customer, promise and state; quotes."""

from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0010"
down_revision = "0009"
branch_labels = None
depends_on = None

_JOBS: dict[str, Any] = {
    "own_operations": sa.JSON(),
    "coats": sa.Integer(),
    "customer": sa.String(200),
    "due": sa.String(40),
    "note": sa.String(2000),
    "state": sa.String(20),
}


def upgrade() -> None:
    with op.batch_alter_table("jobs") as jobs:
        for name, kind in _JOBS.items():
            jobs.add_column(sa.Column(name, kind, nullable=True))
        jobs.create_index("ix_jobs_customer", ["customer"])
        jobs.create_index("ix_jobs_state", ["state"])
    op.create_table(
        "quotes",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("job_id", sa.Integer(), sa.ForeignKey("jobs.id", ondelete="CASCADE"), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("document", sa.JSON(), nullable=False),
    )
    op.create_index("ix_quotes_job_id", "quotes", ["job_id"])


def downgrade() -> None:
    op.drop_table("quotes")
    with op.batch_alter_table("jobs") as jobs:
        jobs.drop_index("ix_jobs_state")
        jobs.drop_index("ix_jobs_customer")
        for name in _JOBS:
            jobs.drop_column(name)
