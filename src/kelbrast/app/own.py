"""What the shop has of its own: keeping it, sending it to others, and putting it in use."""

import secrets
from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime
from typing import Final, Literal

from sqlalchemy import Engine
from sqlalchemy.orm import Session

from kelbrast.core.errors import BadInput, Fault
from kelbrast.core.reference.own_rows import NOTHING, OWN, OwnRows
from kelbrast.documents.own.format import (
    MOST_ENTRIES,
    OwnEntryFile,
    OwnFile,
    check_own_file,
    read_own_file,
    rows_of,
    tool_ids,
)
from kelbrast.storage import own as store
from kelbrast.storage.database import as_committed, asked_directly
from kelbrast.storage.sessions import is_writing, reading, writing

_LETTERS: Final = "abcdefghjkmnpqrstuvwxyz23456789"  # none that is read as another
_ID_LENGTH: Final = 8


@dataclass(frozen=True, slots=True)
class KeptOwn:
    """An entry: how often it was changed, when last, and the entry itself."""

    revision: int
    updated_at: datetime
    file: OwnEntryFile


@dataclass(frozen=True, slots=True)
class OwnChange:
    """What an import does with one entry of the file: one of the same id, or of the same kind and name, is the same thing."""

    file: OwnEntryFile
    change: Literal["new", "changed", "same"]
    keys: tuple[str, ...]


class OwnThings:
    """The own things of one database. Every method is one transaction: it happens whole or not at all."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine
        self._committed: object | None = None
        self._read: tuple[object, OwnRows] = (None, NOTHING)

    def entries(self) -> list[KeptOwn]:
        """Every entry, retired ones too, in the order in which they came."""
        with reading(self._engine) as session:
            return [
                KeptOwn(stored.revision, stored.updated_at, _file(dict(stored.document))) for stored in store.all_own(session)
            ]

    def rows(self) -> OwnRows:
        """What the catalogue gets from them. Everything asks for it; it is the same object as long as nothing changed."""
        committed = None if is_writing(self._engine) else as_committed(self._engine)  # before it is read
        if committed is not None and self._committed == committed:
            return self._read[1]
        mark: object = None if committed is None else asked_directly(self._engine, store.MARK_OF_OWN)
        if mark is not None and self._read[0] == mark:
            self._committed = committed
            return self._read[1]
        with reading(self._engine) as session:
            mark = store.mark_of_own(session)
            if self._read[0] != mark:
                rows = rows_of([_file(dict(stored.document)) for stored in store.all_own(session)])
                if committed is None:  # what is not kept for good yet is not remembered
                    return rows
                self._read = mark, rows
        self._committed = committed
        return self._read[1]

    def add(self, file: OwnEntryFile, *, today: date) -> KeptOwn:
        """Keep a new one, with an id and today's date unless it brings its own.

        Raises:
            BadInput: what is wrong with it, or with it beside the others.
        """
        with writing(self._engine) as session:
            if any(stored.document["id"] == file.id for stored in store.all_own(session)):
                raise BadInput.one("id", "is that of another one here: leave it out, and it gets its own")
            file = file.model_copy(update={"id": file.id or _new_id(), "on": file.on or today})
            store.add_own(session, file.id, _document(file))
            self._check(session, file.id)
        return self._one(file.id)

    def change(self, key: str, file: OwnEntryFile, *, revision: int) -> KeptOwn:
        """Say something else of one that is still at this revision; what kind it is stays.

        Raises:
            NotFound: none of this id.  BadInput: what is wrong with it.  Conflict: it was changed elsewhere.
        """
        with writing(self._engine) as session:
            self._replace(session, key, file.model_copy(update={"id": key}), revision=revision)
            self._check(session, key)
        return self._one(key)

    def _replace(self, session: Session, key: str, file: OwnEntryFile, *, revision: int | None) -> None:
        """Say something else of one, but take nothing away that something uses."""
        before = next((kept.file for kept in self.entries() if kept.file.id == key), None)
        if before is not None and before.kind != file.kind:
            raise BadInput.one("kind", f"is {before.kind}, and stays so: retire this one and describe another")
        store.change_own(session, key, _document(file), revision=revision)
        for gone in sorted(tool_ids(before) - tool_ids(file)):
            if uses := store.uses_of(session, gone):
                grade = gone.removeprefix(f"{key}-").upper()
                raise BadInput.one("grades", f"must keep {grade}: {_used(uses)} it")

    def remove(self, key: str) -> None:
        """Take away what was put in by mistake; what something uses is retired instead.

        Raises:
            NotFound: none of this id.  BadInput: something uses it.
        """
        with writing(self._engine) as session:
            if uses := store.uses_of(session, key):
                raise BadInput.one("id", f"{_used(uses)} it: retire it instead")
            store.remove_own(session, key)

    def preview(self, text: str | bytes) -> list[OwnChange]:
        """What importing a file would do, without doing it.

        Raises:
            ReadError, BadInput: what is wrong with the file, all of it.
        """
        here = [kept.file for kept in self.entries()]
        changes = []
        for file in read_own_file(text).entries:
            match = next((one for one in here if _same(one, file)), None)
            if match is None:
                changes.append(OwnChange(file, "new", ()))
                continue
            file = file.model_copy(update={"id": match.id})
            new, old = file.model_dump(), match.model_dump()
            keys = tuple(key for key in new if new[key] != old.get(key))
            changes.append(OwnChange(file, "changed" if keys else "same", keys))
        return changes

    def take_in(self, text: str | bytes, *, today: date) -> list[OwnChange]:
        """Import: new entries are added, known ones changed. All of it or nothing."""
        with writing(self._engine) as session:
            changes = self.preview(text)
            for change in changes:
                if change.change == "new":
                    self.add(change.file, today=today)
                elif change.change == "changed":
                    self._replace(session, change.file.id, change.file, revision=None)
            self._check(session)
        return changes

    def file(self) -> OwnFile:
        """All of it as a file."""
        return OwnFile(entries=[kept.file for kept in self.entries()])

    def _check(self, session: Session, key: str = "") -> None:
        """Whether all of them can be used together; where one entry alone is meant, its faults are named by key.

        Raises:
            BadInput: what cannot; nothing is kept then.
        """
        files = [_file(dict(stored.document)) for stored in store.all_own(session)]
        if len(files) > MOST_ENTRIES:
            raise BadInput.one("entries", f"there can be {MOST_ENTRIES} at most: remove what nothing uses")
        try:
            rows_of(files)
        except BadInput as bad:
            place = next((f"entries[{at}]." for at, file in enumerate(files) if file.id == key), None)
            raise BadInput(_of_the_entry(bad, place)) from None

    def _one(self, key: str) -> KeptOwn:
        return next(kept for kept in self.entries() if kept.file.id == key)


def _of_the_entry(bad: BadInput, place: str | None) -> Sequence[Fault]:
    """Faults with the keys of the one entry that was sent."""
    return bad.faults if place is None else [replace(fault, field=fault.field.removeprefix(place)) for fault in bad.faults]


def _used(count: int) -> str:
    """So many things use it, in words.

    >>> _used(1), _used(2)
    ('1 job, run or thing on the rack uses', '2 jobs, runs or things on the rack use')
    """
    return f"{count} job, run or thing on the rack uses" if count == 1 else f"{count} jobs, runs or things on the rack use"


def _same(one: OwnEntryFile, other: OwnEntryFile) -> bool:
    named = (one.kind, one.name.lower()) == (other.kind, other.name.lower())
    return named or bool(other.id and one.id == other.id and one.kind == other.kind)


def _new_id() -> str:
    return OWN + "".join(secrets.choice(_LETTERS) for _ in range(_ID_LENGTH))


def _document(file: OwnEntryFile) -> dict[str, object]:
    return file.model_dump(mode="json", exclude_none=True, exclude_defaults=True) | {"kind": file.kind, "id": file.id}


def _file(document: dict[str, object]) -> OwnEntryFile:
    return check_own_file({"kelbrast": "own/1", "entries": [document]}).entries[0]
