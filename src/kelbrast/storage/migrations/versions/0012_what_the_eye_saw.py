"""What the eye saw at light checks."""

import sqlalchemy as sa
from alembic import op

revision = "0012"
down_revision = "0011"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "eye_checks",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("run_id", sa.Integer(), sa.ForeignKey("runs.id", ondelete="CASCADE"), nullable=False),
        sa.Column("after", sa.Integer(), nullable=False),
        sa.Column("piece", sa.Integer(), nullable=False),
        sa.Column("face", sa.String(200), nullable=False),
        sa.Column("route", sa.Integer(), nullable=False),
        sa.Column("step", sa.Integer(), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("verdict", sa.String(20), nullable=False),
        sa.Column("score", sa.Float(), nullable=False),
    )
    op.create_index("ix_eye_checks_run_id", "eye_checks", ["run_id"])


def downgrade() -> None:
    op.drop_table("eye_checks")
