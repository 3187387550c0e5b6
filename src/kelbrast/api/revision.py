"""The revision that a screen changed, sent as If-Match, so that no other change is lost."""

import re
from typing import Annotated

from fastapi import Depends, Header
from starlette.exceptions import HTTPException


def _revision(if_match: Annotated[str | None, Header()] = None) -> int:
    found = re.fullmatch(r'\s*(?:W/)?"?(\d{1,15})"?\s*', if_match or "")
    if not found:
        raise HTTPException(428, "Send the revision that you changed as If-Match, so that no other change is lost")
    return int(found[1])


Revision = Annotated[int, Depends(_revision)]
