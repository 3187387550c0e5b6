"""Edges of a part beside its faces."""

import sqlalchemy as sa
from alembic import op

revision = "0007"
down_revision = "0006"
branch_labels = None
depends_on = None


def upgrade() -> None:
    with op.batch_alter_table("faces") as batch:
        batch.add_column(sa.Column("edge", sa.JSON(), nullable=True))


def downgrade() -> None:
    with op.batch_alter_table("faces") as batch:
        batch.drop_column("edge")
