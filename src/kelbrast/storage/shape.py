"""Compares the tables of a database with the models, and repairs what can be repaired.

The number of the newest migration says which tables there should be, not which there are: a database from a version between two
releases has the number and other columns.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from sqlalchemy import Column, Connection, Index, Table
from sqlalchemy.dialects.sqlite import dialect
from sqlalchemy.schema import CreateColumn, CreateIndex, CreateTable

from kelbrast.storage.tables import Base
from kelbrast.storage.text_search import Searched, make, missing

_DIALECT = dialect()


@dataclass(frozen=True, slots=True)
class Differences:
    """How the tables differ from the models: what is missing and can be added, and what cannot be repaired, in words."""

    tables: Sequence[Table] = ()
    columns: "Sequence[Column[Any]]" = ()
    indexes: Sequence[Index] = ()
    texts: Sequence[Searched] = ()
    beyond_repair: Sequence[str] = ()

    def __bool__(self) -> bool:
        return bool(self.tables or self.columns or self.indexes or self.texts or self.beyond_repair)


def differences(connection: Connection) -> Differences:
    """Compare every table of the models with the one that is there."""
    there = {name for (name,) in connection.exec_driver_sql("select name from sqlite_master where type = 'table'")}
    tables, columns, indexes, wrong = [], [], [], []
    for table in Base.metadata.sorted_tables:
        if table.name not in there:
            tables.append(table)
            continue
        found = {row[1]: row for row in connection.exec_driver_sql(f'PRAGMA table_info("{table.name}")')}
        for column in table.columns:
            if column.name in found:
                wrong += _wrong(column, *found[column.name][2:6])
            elif column.nullable or column.server_default is not None:
                columns.append(column)
            else:
                wrong.append(f"{table.name} has no {column.name}")
        for name, (_, _, _, needed, default, _) in found.items():
            if name not in table.columns and needed and default is None:
                wrong.append(f"{table.name} has a {name} that this version does not know")
        named = {row[1] for row in connection.exec_driver_sql(f'PRAGMA index_list("{table.name}")')}
        indexes += [index for index in table.indexes if index.name not in named]
        wrong += _without_constraints(connection, table)
    return Differences(tables, columns, indexes, [] if tables else missing(connection), wrong)


def repair(connection: Connection, found: Differences) -> None:
    """Add what is missing."""
    for table in found.tables:
        connection.execute(CreateTable(table))
        for index in table.indexes:
            connection.execute(CreateIndex(index))
    for column in found.columns:
        said = CreateColumn(column).compile(dialect=_DIALECT)
        connection.exec_driver_sql(f'ALTER TABLE "{column.table.name}" ADD COLUMN {said}')
    for index in found.indexes:
        connection.execute(CreateIndex(index))
    for searched in found.texts:
        make(connection, searched)


def _wrong(column: "Column[Any]", kind: str, needed: int, default: str | None, primary: int) -> list[str]:
    where = f"{column.table.name}.{column.name}"
    wanted = column.type.compile(dialect=_DIALECT)
    if _kind(kind) != _kind(wanted):
        return [f"{where} is {kind}, not {wanted}"]
    if bool(primary) != column.primary_key:
        return [f"{where} {'is' if primary else 'is not'} the key"]
    if needed and column.nullable and default is None and not primary:
        return [f"{where} cannot be left empty"]
    return []


def _kind(declared: str) -> str:
    """The type without its length, which SQLite ignores."""
    return declared.partition("(")[0].strip().upper()


def _without_constraints(connection: Connection, table: Table) -> list[str]:
    """Keys to other tables and what may be there once only, where they are missing."""
    keys = {(row[3], row[2]) for row in connection.exec_driver_sql(f'PRAGMA foreign_key_list("{table.name}")')}
    missing = [
        f"{table.name}.{key.parent.name} does not point at {key.column.table.name}"
        for key in table.foreign_keys
        if (key.parent.name, key.column.table.name) not in keys
    ]
    unique = set()
    for row in connection.exec_driver_sql(f'PRAGMA index_list("{table.name}")'):
        if row[2]:
            unique.add(frozenset(one[2] for one in connection.exec_driver_sql(f'PRAGMA index_info("{row[1]}")')))
    for constraint in table.constraints:
        names = frozenset(column.name for column in getattr(constraint, "columns", ()))
        if type(constraint).__name__ == "UniqueConstraint" and names not in unique:
            missing.append(f"{table.name} allows {' and '.join(sorted(names))} twice")
    return missing
