"""The picture of quotes under a name of its own, so that a saved quote keeps the one that it was sent with."""

import hashlib
import json
from base64 import b64decode

import sqlalchemy as sa
from alembic import op

revision = "0018"
down_revision = "0017"
_SETTINGS = sa.table("settings", sa.column("key", sa.String), sa.column("value", sa.JSON))


def upgrade() -> None:
    connection = op.get_bind()
    value = connection.scalar(sa.select(_SETTINGS.c.value).where(_SETTINGS.c.key == "logo"))
    value = json.loads(value) if isinstance(value, str) else value
    if not value or "jpeg" not in value:
        return
    name = hashlib.sha256(b64decode(value["jpeg"])).hexdigest()[:16]
    connection.execute(_SETTINGS.insert().values(key=f"logo.{name}", value=value))
    connection.execute(_SETTINGS.update().where(_SETTINGS.c.key == "logo").values(value={"id": name}))


def downgrade() -> None:
    connection = op.get_bind()
    rows = connection.execute(sa.select(_SETTINGS.c.key, _SETTINGS.c.value).where(_SETTINGS.c.key.like("logo%"))).all()
    kept = {key: json.loads(value) if isinstance(value, str) else value for key, value in rows}
    present = kept.get("logo", {}).get("id")
    connection.execute(_SETTINGS.delete().where(_SETTINGS.c.key.like("logo.%")))
    if present:
        connection.execute(_SETTINGS.update().where(_SETTINGS.c.key == "logo").values(value=kept.get(f"logo.{present}", {})))
