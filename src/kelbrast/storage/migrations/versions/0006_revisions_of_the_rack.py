"""Things on the rack count their changes, so that two screens can not overwrite each other unseen."""

import sqlalchemy as sa
from alembic import op

revision = "0006"
down_revision = "0005"
branch_labels = None
depends_on = None


def upgrade() -> None:
    with op.batch_alter_table("rack_items") as batch:
        batch.add_column(sa.Column("revision", sa.Integer(), nullable=False, server_default="1"))


def downgrade() -> None:
    with op.batch_alter_table("rack_items") as batch:
        batch.drop_column("revision")
