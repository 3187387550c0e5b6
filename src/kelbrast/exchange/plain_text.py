"""Text that people type: without invisible characters, which break labels and tables, and as the name of a file."""

import re
from typing import Final

from pydantic import AfterValidator

# Signs that turn the direction of writing (UAX #9), or take no room: a name with them is not what it looks like.
_TURNING: Final = re.compile(r"[\u200b\u200e\u200f\u061c\u202a-\u202e\u2060-\u2069\ufeff]")
_UNSEEN: Final = re.compile(r"[\x00-\x1f\x7f-\x9f\u2028\u2029\ufffe\uffff]")
_UNSEEN_IN_LINES: Final = re.compile(r"[\x00-\x08\x0b-\x1f\x7f-\x9f\u2028\u2029\ufffe\uffff]")


def one_line(text: str) -> str:
    """The text on one line, without unseen signs.

    >>> one_line("left\\rend\\x00")
    'left end '
    >>> one_line("rim\u202ereversed")
    'rimreversed'
    """
    return _UNSEEN.sub(" ", _TURNING.sub("", text))


def lines(text: str) -> str:
    """The text with its lines, without other unseen signs."""
    return _UNSEEN_IN_LINES.sub(" ", _TURNING.sub("", text).replace("\r\n", "\n").replace("\r", "\n"))


OneLine: Final = AfterValidator(one_line)
Lines: Final = AfterValidator(lines)

_LONGEST_FILE_NAME: Final = 120  # bytes: file systems take 255, and an ending, a number and a folder come on top


def file_name(title: str) -> str:
    """A title in letters, digits and dashes, no longer than any system takes: letters beyond ASCII are several bytes each.

    >>> file_name("Gallery rail, collar"), file_name("..."), len(file_name("щ" * 200).encode())
    ('gallery-rail-collar', 'job', 120)
    """
    name = re.sub(r"[^\w-]+", "-", title.lower()).strip("-") or "job"
    return name.encode()[:_LONGEST_FILE_NAME].decode(errors="ignore")
