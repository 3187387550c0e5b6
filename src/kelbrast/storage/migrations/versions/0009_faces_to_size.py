"""Faces whose size is wanted, and laps that are set out."""

import sqlalchemy as sa
from alembic import op

revision = "0009"
down_revision = "0008"
branch_labels = None
depends_on = None


def upgrade() -> None:
    with op.batch_alter_table("faces") as faces:
        faces.add_column(sa.Column("fit", sa.JSON()))
    with op.batch_alter_table("rack_items") as items:
        items.add_column(sa.Column("length_mm", sa.Float()))
        items.add_column(sa.Column("set_out_um", sa.Float()))
        items.add_column(sa.Column("set_out_by", sa.String(8), nullable=False, server_default="turn"))


def downgrade() -> None:
    with op.batch_alter_table("rack_items") as items:
        for name in ("set_out_by", "set_out_um", "length_mm"):
            items.drop_column(name)
    with op.batch_alter_table("faces") as faces:
        faces.drop_column("fit")
