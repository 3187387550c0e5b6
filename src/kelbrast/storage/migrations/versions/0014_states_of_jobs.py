"""The states that a job came to, one after the other; and titles of nothing but spaces, which no document may have any more."""

import sqlalchemy as sa
from alembic import op

revision = "0014"
down_revision = "0013"


def upgrade() -> None:
    op.create_table(
        "job_states",
        sa.Column("id", sa.Integer, primary_key=True),
        sa.Column("job_id", sa.Integer, sa.ForeignKey("jobs.id", ondelete="CASCADE"), nullable=False),
        sa.Column("number", sa.Integer, nullable=False),
        sa.Column("at", sa.DateTime, nullable=False),
        sa.Column("state", sa.String(20), nullable=False),
        sa.UniqueConstraint("job_id", "number"),
    )
    for table, document in (("jobs", "document"), ("runs", "job"), ("sizings", "document")):
        title = f"json_extract({document}, '$.title')"
        op.execute(f"update {table} set {document} = json_set({document}, '$.title', 'Untitled') where trim({title}) = ''")
    for table in ("jobs", "runs"):
        op.execute(f"update {table} set title = 'Untitled' where trim(title) = ''")


def downgrade() -> None:
    op.drop_table("job_states")
