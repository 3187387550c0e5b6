"""What covers a part, what is stuck in it, how it is held, more limits, habits and wishes. Missing means the default."""

from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0002"
down_revision = "0001"
branch_labels = None
depends_on = None

_JOBS: dict[str, Any] = {
    "handover": sa.String(20),
    "bench_speed": sa.String(20),
    "covering": sa.String(20),
    "protect": sa.String(20),
    "inserts": sa.JSON(),
    "mass_g": sa.Float(),
    "held": sa.String(20),
    "wet": sa.String(20),
    "diameters_mm": sa.JSON(),
}
_FACES: dict[str, Any] = {"keep_wall_mm": sa.Float(), "size_left_um": sa.Float(), "layer": sa.JSON(), "wish": sa.JSON()}


def upgrade() -> None:
    for table, columns in (("jobs", _JOBS), ("faces", _FACES)):
        with op.batch_alter_table(table) as batch:
            for name, kind in columns.items():
                batch.add_column(sa.Column(name, kind, nullable=True))


def downgrade() -> None:
    for table, columns in (("jobs", _JOBS), ("faces", _FACES)):
        with op.batch_alter_table(table) as batch:
            for name in columns:
                batch.drop_column(name)
