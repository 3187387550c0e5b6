"""Jobs and their faces."""

import sqlalchemy as sa
from alembic import op

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "jobs",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("revision", sa.Integer(), nullable=False),
        sa.Column("created_at", sa.DateTime(), nullable=False),
        sa.Column("updated_at", sa.DateTime(), nullable=False),
        sa.Column("title", sa.String(200), nullable=False),
        sa.Column("material", sa.String(80), nullable=False),
        sa.Column("pieces", sa.Integer(), sa.CheckConstraint("pieces >= 1"), nullable=False),
        sa.Column("rack", sa.JSON(), nullable=True),
        sa.Column("habit", sa.String(20), nullable=False),
        sa.Column("aim", sa.String(20), nullable=False),
        sa.Column("carried", sa.Boolean(), nullable=True),
        sqlite_autoincrement=True,
    )
    op.create_index("ix_jobs_material", "jobs", ["material"])
    op.create_index("ix_jobs_updated_at", "jobs", ["updated_at"])
    op.create_table(
        "faces",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("job_id", sa.Integer(), sa.ForeignKey("jobs.id", ondelete="CASCADE"), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(200), nullable=False),
        sa.Column("area_cm2", sa.Float(), nullable=True),
        sa.Column("shape", sa.JSON(), nullable=True),
        sa.Column("thickness_mm", sa.Float(), nullable=True),
        sa.Column("reach", sa.String(20), nullable=False),
        sa.Column("inside_radius_mm", sa.Float(), nullable=True),
        sa.Column("found", sa.JSON(), nullable=False),
        sa.Column("want", sa.JSON(), nullable=False),
        sa.Column("limit_um", sa.Float(), nullable=True),
        sa.Column("coat_um", sa.Float(), nullable=True),
        sa.Column("keep_um", sa.Float(), nullable=True),
        sa.Column("curved", sa.Boolean(), nullable=True),
        sa.Column("keep_off", sa.Boolean(), nullable=False),
        sa.UniqueConstraint("job_id", "position"),
    )
    op.create_index("ix_faces_job_id", "faces", ["job_id"])


def downgrade() -> None:
    op.drop_table("faces")
    op.drop_table("jobs")
