"""What a shop adds to the reference: rows of its own, in force for as long as they are put in use.

Rows are asked for deep inside the planning, and which shop is planning is known only where a request begins. So the rows in
use belong to the context, as a language would: `using` puts them there, and everything inside sees them. Two shops that are
served by one program do not see each other's.
"""

from collections.abc import Callable, Iterator, Mapping
from contextlib import contextmanager
from contextvars import ContextVar
from dataclasses import dataclass, field
from functools import lru_cache, wraps
from typing import Any, Final, ParamSpec, TypeVar

WrittenRow = Mapping[str, Any]
Params = ParamSpec("Params")
Made = TypeVar("Made")


@dataclass(frozen=True, eq=False, slots=True)
class OwnRows:
    """Rows beside those of the reference, as they would be written there. Two sets are the same only if they are one object.

    Attributes:
        rows: by file of `records/` and id.
        joins: ids that lists of the reference's rows have besides: by file, id and key.
    """

    rows: Mapping[str, Mapping[str, WrittenRow]] = field(default_factory=dict)
    joins: Mapping[str, Mapping[str, Mapping[str, tuple[str, ...]]]] = field(default_factory=dict)

    def with_own(self, name: str, written: Mapping[str, WrittenRow]) -> dict[str, Any]:
        """A file of `records/` with what the shop adds to it. Nothing of the reference is replaced."""
        merged: dict[str, Any] = dict(written)
        for key, lists in self.joins.get(name, {}).items():
            merged[key] = {**written[key], **{which: [*written[key].get(which, ()), *more] for which, more in lists.items()}}
        return merged | {key: row for key, row in self.rows.get(name, {}).items() if key not in written}


OWN: Final = "own-"  # how ids of a shop's own rows begin
NOTHING: Final = OwnRows()
_IN_USE: ContextVar[OwnRows] = ContextVar("own_rows", default=NOTHING)


def in_use() -> OwnRows:
    """The rows that are in use here."""
    return _IN_USE.get()


@contextmanager
def using(own: OwnRows) -> Iterator[None]:
    """Put these rows in use within.

    >>> with using(OwnRows({"looks": {"tin": {}}})):
    ...     list(in_use().rows)
    ['looks']
    >>> in_use() is NOTHING
    True
    """
    before = _IN_USE.set(own)
    try:
        yield
    finally:
        _IN_USE.reset(before)


def use_from_here(own: OwnRows) -> None:
    """Put these rows in use for the rest of the context: of a program that answers once."""
    _IN_USE.set(own)


def carrying(act: Callable[Params, Made]) -> Callable[Params, Made]:
    """The same for another thread, with the rows that are in use here."""
    own = in_use()

    def carried(*given: Params.args, **named: Params.kwargs) -> Made:
        with using(own):
            return act(*given, **named)

    return carried


def remembered(most: int = 64) -> Callable[[Callable[Params, Made]], Callable[Params, Made]]:
    """Keeps the newest results of a function, apart for each set of own rows, which may decide them besides what it is given.

    >>> @remembered()
    ... def files():
    ...     return list(in_use().rows)
    >>> with using(OwnRows({"looks": {}})):
    ...     files()
    ['looks']
    >>> files()
    []
    """

    def decorate(act: Callable[Params, Made]) -> Callable[Params, Made]:
        @lru_cache(maxsize=most)
        def kept(_own: OwnRows, *given: Params.args, **named: Params.kwargs) -> Made:
            return act(*given, **named)

        @wraps(act)
        def asked(*given: Params.args, **named: Params.kwargs) -> Made:
            return kept(_IN_USE.get(), *given, **named)  # type: ignore[arg-type]  # hashable, as for any cache

        for name in ("cache_clear", "cache_info"):
            setattr(asked, name, getattr(kept, name))
        return asked

    return decorate
