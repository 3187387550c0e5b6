"""What work used of a thing on one day is one entry of its history: years of work would make it too long to be read."""

from collections import defaultdict

import sqlalchemy as sa
from alembic import op

revision = "0019"
down_revision = "0018"
_EVENTS = sa.table(
    "rack_events", sa.column("id", sa.Integer), sa.column("item_id", sa.Integer), sa.column("at", sa.DateTime),
    sa.column("document", sa.JSON),
)  # fmt: skip
_BY_WORK, _SEVERAL = "bench: ", "bench: several jobs"


def upgrade() -> None:
    connection = op.get_bind()
    days = defaultdict(list)
    for row in connection.execute(sa.select(_EVENTS).order_by(_EVENTS.c.id)):
        if row.document.get("kind") == "stock" and str(row.document.get("why", "")).startswith(_BY_WORK):
            days[row.item_id, row.at.date()].append(row)
    for rows in days.values():
        *before, last = rows
        if not before:
            continue
        amount = round(sum(row.document.get("amount", 0.0) for row in rows), 4)
        why = _SEVERAL if len({row.document["why"] for row in rows}) > 1 else last.document["why"]
        changed = _EVENTS.update().where(_EVENTS.c.id == last.id)
        connection.execute(changed.values(document={**last.document, "amount": amount, "why": why}))
        connection.execute(_EVENTS.delete().where(_EVENTS.c.id.in_([row.id for row in before])))


def downgrade() -> None:
    """An entry for a day is one that the version before could have written."""
