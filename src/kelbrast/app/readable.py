"""Reads stored documents one by one: one that this version cannot read is reported, the others are returned."""

import logging
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Final, TypeVar

from pydantic import ValidationError

from kelbrast.core.errors import KelbrastError

# What reading a document can end with, when it is not as this version writes it.
UNREADABLE: Final = (KelbrastError, ValidationError, ValueError, TypeError, KeyError, AttributeError)
log = logging.getLogger(__name__)
AsKept = TypeVar("AsKept")
Read = TypeVar("Read")


@dataclass(frozen=True, slots=True)
class Unreadable:
    """A document that cannot be read: its id, what it is called, and why."""

    id: int
    title: str
    reason: str


def why_unreadable(problem: BaseException) -> str:
    """The first line of what reading it ended with.

    >>> why_unreadable(ValueError("colour: unknown key\\nmore about it"))
    'colour: unknown key'
    """
    return (str(problem).splitlines() or [type(problem).__name__])[0]


def readable(
    stored: Iterable[AsKept], read: Callable[[AsKept], Read], named: Callable[[AsKept], tuple[int, str]]
) -> tuple[list[Read], list[Unreadable]]:
    """Read each document. Those that cannot be read come back beside the others. `named`: id and title of a document."""
    reads, failed = [], []
    for as_kept in stored:
        try:
            reads.append(read(as_kept))
        except UNREADABLE as problem:
            failed.append(Unreadable(*named(as_kept), why_unreadable(problem)))
            log.warning("%s %s cannot be read: %s", type(as_kept).__name__, named(as_kept)[0], failed[-1].reason)
    return reads, failed
