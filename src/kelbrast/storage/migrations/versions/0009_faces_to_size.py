"""Faces whose size is wanted."""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None


def upgrade() -> None:
    with op.batch_alter_table("faces") as faces:
        faces.add_column(sa.Column("fit", sa.JSON()))


def downgrade() -> None:
    with op.batch_alter_table("faces") as faces:
        faces.drop_column("fit")
