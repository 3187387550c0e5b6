"""Names of files, made of what people call things."""

import re
from typing import Final

_LONGEST: Final = 120  # bytes: file systems take 255, and an ending, a number and a folder come on top


def file_name(title: str) -> str:
    """A title in letters, digits and dashes, no longer than any system takes: letters beyond ASCII are several bytes each.

    >>> file_name("Gallery rail, collar"), file_name("..."), len(file_name("щ" * 200).encode())
    ('gallery-rail-collar', 'job', 120)
    """
    name = re.sub(r"[^\w-]+", "-", title.lower()).strip("-") or "job"
    return name.encode()[:_LONGEST].decode(errors="ignore")
