"""The rack with its history, and which rack a job is planned from. Missing means the default."""

import sqlalchemy as sa
from alembic import op

revision = "0003"
down_revision = "0002"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "rack_items",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("what", sa.String(80), nullable=False),
        sa.Column("name", sa.String(80), nullable=False),
        sa.Column("count", sa.Float(), sa.CheckConstraint("count >= 0"), nullable=False),
        sa.Column("low", sa.Float(), nullable=True),
        sa.Column("diameter_mm", sa.Float(), nullable=True),
        sa.Column("marked_m_s", sa.Float(), nullable=True),
        sa.Column("price", sa.Float(), nullable=True),
        sa.Column("life_min", sa.Float(), nullable=True),
        sa.Column("rpm", sa.JSON(), nullable=True),
        sa.Column("made", sa.String(40), nullable=False),
        sa.Column("note", sa.String(400), nullable=False),
        sqlite_autoincrement=True,
    )
    op.create_index("ix_rack_items_what", "rack_items", ["what"])
    op.create_table(
        "rack_events",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("item_id", sa.Integer(), sa.ForeignKey("rack_items.id", ondelete="CASCADE"), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("kind", sa.String(20), nullable=False),
        sa.Column("charge", sa.String(80), nullable=True),
        sa.Column("family", sa.String(40), nullable=True),
        sa.Column("amount", sa.Float(), nullable=False),
        sa.Column("size_mm", sa.Float(), nullable=True),
        sa.Column("why", sa.String(400), nullable=False),
    )
    op.create_index("ix_rack_events_item_id", "rack_events", ["item_id"])
    with op.batch_alter_table("jobs") as batch:
        batch.add_column(sa.Column("use_rack", sa.String(20), nullable=True))
        batch.add_column(sa.Column("extras", sa.JSON(), nullable=True))
        batch.add_column(sa.Column("insist", sa.Boolean(), nullable=True))


def downgrade() -> None:
    with op.batch_alter_table("jobs") as batch:
        for name in ("use_rack", "extras", "insist"):
            batch.drop_column(name)
    op.drop_table("rack_events")
    op.drop_table("rack_items")
