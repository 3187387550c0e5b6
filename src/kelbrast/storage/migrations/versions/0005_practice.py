"""Answers to the questions of the practice."""

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.create_table(
        "practice_answers",
        sa.Column("id", sa.Integer(), primary_key=True),
        sa.Column("person", sa.String(80), nullable=False),
        sa.Column("at", sa.DateTime(), nullable=False),
        sa.Column("kind", sa.String(20), nullable=False),
        sa.Column("difficulty", sa.Float(), nullable=False),
        sa.Column("seed", sa.Integer(), nullable=False),
        sa.Column("options", sa.Integer(), nullable=False),
        sa.Column("right", sa.Boolean(), nullable=False),
    )
    op.create_index("ix_practice_answers_person", "practice_answers", ["person"])


def downgrade() -> None:
    op.drop_table("practice_answers")
