"""Finding a thing by its id, with a kind hint when it is not there."""

from collections.abc import Mapping
from difflib import get_close_matches
from typing import TypeVar

from kelbrast.core.errors import NotFound

Thing = TypeVar("Thing")


def find(kind: str, things: Mapping[str, Thing], key: str) -> Thing:
    """The thing with this id.

    Raises:
        NotFound: with the ids that look most like it.
    """
    try:
        return things[key]
    except KeyError:
        raise NotFound(kind, key, get_close_matches(key, list(things), n=2)) from None
