"""Words in titles, customers, notes and remarks, found in an index of every three letters in a row that the database keeps.

SQLite has the index (FTS5 with its trigram tokenizer), which triggers keep; a server of PostgreSQL looks through the columns.
A part of a word is found as well, in small or capital letters. Fewer than three letters are looked for in its texts.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Final

from sqlalchemy import Column, ColumnElement, Connection, Integer, MetaData, String, Table, literal_column, or_, select
from sqlalchemy.orm import Session

from kelbrast.storage.tables import Base, JobRow, RunRow, SizingRow

_SHORTEST: Final = 3  # letters that the index can find
_FINISHES: Final = (
    "(select group_concat('|' || json_extract(value, '$.want.finish') || '|') from json_each({row}.document, '$.faces'))"
)


@dataclass(frozen=True, slots=True)
class Searched:
    """A table that is searched: what of a row a person may look for, and what a program looks for by its id (`|id|`)."""

    row: type[Base]
    texts: tuple[str, ...]
    keys: str = "''"
    changes: tuple[str, ...] = ()

    @property
    def index(self) -> str:
        return f"{self.row.__tablename__}_text"


JOBS: Final = Searched(
    JobRow,
    ("{row}.title", "{row}.customer", "coalesce(json_extract({row}.document, '$.note'), '')"),
    keys=f"coalesce({_FINISHES}, '')",
    changes=("title", "customer", "document"),
)
RUNS: Final = Searched(RunRow, ("{row}.title", "{row}.finishes", "{row}.words"), changes=("title", "finishes", "words"))
SIZINGS: Final = Searched(SizingRow, ("coalesce(json_extract({row}.document, '$.title'), '')",), changes=("document",))
ALL: Final = (JOBS, RUNS, SIZINGS)
# What the index consists of inside, beside its own name.
TABLES: Final = frozenset(
    searched.index + ending for searched in ALL for ending in ("", "_data", "_idx", "_content", "_docsize", "_config")
)


def missing(connection: Connection) -> list[Searched]:
    """The indexes that a database has not, or not whole."""
    there = {name for (name,) in connection.exec_driver_sql("select name from sqlite_master")}
    return [searched for searched in ALL if not {searched.index, *_triggers(searched)} <= there]


def make(connection: Connection, searched: Searched) -> None:
    """Make an index, filled with what is there, and what keeps it."""
    name, table = searched.index, searched.row.__tablename__
    for trigger in _triggers(searched):
        connection.exec_driver_sql(f"drop trigger if exists {trigger}")
    connection.exec_driver_sql(f"drop table if exists {name}")
    added, removed, changed = _triggers(searched)
    for statement in (
        f"create virtual table {name} using fts5(words, keys, tokenize = 'trigram')",
        f"insert into {name} (rowid, words, keys) select id, {_said(searched, table)} from {table}",
        f"create trigger {added} after insert on {table} begin"
        f" insert into {name} (rowid, words, keys) values (new.id, {_said(searched, 'new')}); end",
        f"create trigger {removed} after delete on {table} begin delete from {name} where rowid = old.id; end",
        f"create trigger {changed} after update of {', '.join(searched.changes)} on {table}"
        f" when {' or '.join(f'old.{one} is not new.{one}' for one in searched.changes)} begin"
        f" update {name} set (words, keys) = ({_said(searched, 'new')}) where rowid = new.id; end",
    ):
        connection.exec_driver_sql(statement)


def _triggers(searched: Searched) -> tuple[str, str, str]:
    return f"{searched.index}_added", f"{searched.index}_removed", f"{searched.index}_changed"


def _said(searched: Searched, row: str) -> str:
    words = " || char(10) || ".join(text.format(row=row) for text in searched.texts)
    return f"{words}, {searched.keys.format(row=row)}"


def found(
    session: Session,
    searched: Searched,
    word: str,
    keys: Sequence[str] = (),
    *,
    elsewhere: "Sequence[ColumnElement[bool]]",
) -> "ColumnElement[bool]":
    """Whether a row has this word, or one of these keys; `elsewhere`: how a server that has no such index finds that."""
    if session.get_bind().dialect.name != "sqlite":
        return or_(*elsewhere)
    index = Table(searched.index, MetaData(), Column("rowid", Integer, primary_key=True), Column("words", String))
    asked = [f"keys : {_quoted(f'|{key}|')}" for key in keys]
    hits: list[ColumnElement[bool]] = []
    if len(word) >= _SHORTEST:
        asked.append(f"words : {_quoted(word)}")
    else:
        hits.append(index.c.words.icontains(word, autoescape=True))
    if asked:
        hits.append(literal_column(searched.index).op("MATCH", is_comparison=True)(" OR ".join(asked)))
    key: ColumnElement[int] = searched.row.__table__.c.id
    return or_(*(key.in_(select(index.c.rowid).where(hit)) for hit in hits))


def _quoted(text: str) -> str:
    """Text for the index, whatever stands in it."""
    return '"' + text.replace('"', '""').replace("\0", "") + '"'
