"""Transactions. A writing one takes the right to write before it reads, so that what it read still holds when it writes."""

import threading
from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from contextvars import ContextVar
from pathlib import Path
from typing import Any
from weakref import WeakKeyDictionary

from sqlalchemy import Engine
from sqlalchemy.orm import Session

from kelbrast.storage.trouble import told, trouble

_WRITES = "kelbrast_writes"  # execution option: the transaction begins as one that writes
_TURN_S = 30.0  # a longer queue than that is not worth waiting in
_turns: "WeakKeyDictionary[Engine, threading.Lock]" = WeakKeyDictionary()
_open: ContextVar[tuple[Engine, Session] | None] = ContextVar("open", default=None)


@contextmanager
def reading(engine: Engine) -> Iterator[Session]:
    """A session to read with. Inside a writing transaction it is that one, so that it sees what was written.

    Raises:
        StoreTrouble: the database cannot be read.
    """
    if (outer := _outer(engine)) is not None:
        yield outer
        return
    with told(_file_of(engine)), Session(engine) as session:
        yield session


@contextmanager
def writing(engine: Engine) -> Iterator[Session]:
    """One transaction: it happens whole or not at all. Inside another one it is a part of that.

    Raises:
        StoreTrouble: the database cannot be written to; nothing was.
    """
    if (outer := _outer(engine)) is not None:
        yield outer
        return
    with _turn(engine), _transaction(engine) as session:
        yield session


@contextmanager
def _turn(engine: Engine) -> Iterator[None]:
    """One writer of this program at a time, first come, first served: SQLite would let them try again and again."""
    turn = _turns.setdefault(engine, threading.Lock())
    if not turn.acquire(timeout=_TURN_S):
        raise trouble("locked", _file_of(engine))
    try:
        yield
    finally:
        turn.release()


@contextmanager
def _transaction(engine: Engine) -> Iterator[Session]:
    writes = engine.execution_options(**{_WRITES: True})
    with told(_file_of(engine)), Session(writes) as session, session.begin():
        mark = _open.set((engine, session))
        try:
            yield session
        finally:
            _open.reset(mark)


def is_writing(engine: Engine) -> bool:
    """Whether this is inside a writing transaction, whose end is not sure yet."""
    return _outer(engine) is not None


def begins(options: Mapping[str, Any]) -> str:
    """How a transaction with these execution options begins."""
    return "BEGIN IMMEDIATE" if options.get(_WRITES) else "BEGIN"


def _file_of(engine: Engine) -> Path | None:
    return Path(engine.url.database) if engine.url.database else None


def _outer(engine: Engine) -> Session | None:
    found = _open.get()
    return found[1] if found is not None and found[0] is engine else None
