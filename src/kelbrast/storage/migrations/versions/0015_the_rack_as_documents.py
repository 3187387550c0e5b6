"""Things on the rack and what happened to them as documents in the form of the rack file."""

import warnings
from typing import Any

import sqlalchemy as sa
from alembic import op

revision = "0015"
down_revision = "0014"

_ITEM: dict[str, Any] = {
    "what": sa.String(80), "name": sa.String(80), "count": sa.Float(), "low": sa.Float(), "diameter_mm": sa.Float(),
    "marked_m_s": sa.Float(), "price": sa.Float(), "life_min": sa.Float(), "length_mm": sa.Float(), "set_out_um": sa.Float(),
    "set_out_by": sa.String(8), "rpm": sa.JSON(none_as_null=True), "made": sa.String(40), "note": sa.String(400),
}  # fmt: skip
_EVENT: dict[str, Any] = {
    "kind": sa.String(20), "charge": sa.String(80), "family": sa.String(40), "amount": sa.Float(), "size_mm": sa.Float(),
    "why": sa.String(400),
}  # fmt: skip
_NEEDED = {
    "what": "",
    "name": "",
    "count": 1.0,
    "made": "",
    "note": "",
    "set_out_by": "turn",
    "kind": "",
    "amount": 0.0,
    "why": "",
}
_TABLES = (("rack_items", _ITEM, True), ("rack_events", _EVENT, False))


def upgrade() -> None:
    warnings.filterwarnings("ignore", "Unnamed CHECK", UserWarning)  # the check of the count goes with its column
    op.drop_index("ix_rack_items_what", "rack_items")
    for name, columns, counted in _TABLES:
        op.add_column(name, sa.Column("document", sa.JSON(), nullable=False, server_default="{}"))
        table = _table(name, columns)
        for row in op.get_bind().execute(sa.select(table)).mappings().all():
            said = {key: row[key] for key in columns if row[key] is not None}
            op.get_bind().execute(table.update().where(table.c.id == row["id"]).values(document=said))
        newest = _newest_id(name)
        with op.batch_alter_table(name, table_kwargs={"sqlite_autoincrement": counted}) as batch:
            for key in columns:
                batch.drop_column(key)
            batch.alter_column("document", existing_type=sa.JSON(), server_default=None)
        _go_on_after(name, newest)


def downgrade() -> None:
    for name, columns, counted in _TABLES:
        for key, kind in columns.items():
            op.add_column(name, sa.Column(key, kind))
        table = _table(name, columns)
        for row_id, document in op.get_bind().execute(sa.select(table.c.id, table.c.document)).all():
            said = {key: document.get(key, _NEEDED.get(key)) for key in columns}
            op.get_bind().execute(table.update().where(table.c.id == row_id).values(said))
        newest = _newest_id(name)
        with op.batch_alter_table(name, table_kwargs={"sqlite_autoincrement": counted}) as batch:
            batch.drop_column("document")
            for key in columns.keys() & _NEEDED.keys():
                default = "turn" if key == "set_out_by" else None
                batch.alter_column(key, existing_type=columns[key], nullable=False, server_default=default)
        _go_on_after(name, newest)
    op.create_index("ix_rack_items_what", "rack_items", ["what"])


def _table(name: str, columns: dict[str, Any]) -> sa.Table:
    known = [sa.Column(key, kind) for key, kind in columns.items()]
    return sa.Table(name, sa.MetaData(), sa.Column("id", sa.Integer, primary_key=True), sa.Column("document", sa.JSON), *known)


def _newest_id(name: str) -> int | None:
    newest: int | None = op.get_bind().exec_driver_sql("select seq from sqlite_sequence where name = ?", (name,)).scalar()
    return newest


def _go_on_after(name: str, newest: int | None) -> None:
    """A table that is made anew forgets the ids of rows that are gone, and would give them again."""
    if newest is not None:
        op.get_bind().exec_driver_sql("delete from sqlite_sequence where name = ?", (name,))
        op.get_bind().exec_driver_sql("insert into sqlite_sequence (name, seq) values (?, ?)", (name, newest))
