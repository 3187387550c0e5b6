"""A stored document as a file to save, under a name that every system can unpack."""

import json
from collections.abc import Mapping
from typing import Any
from urllib.parse import quote

from fastapi import Response

from kelbrast.exchange.file_name import file_name


def file_answer(document: Mapping[str, Any], title: str, ending: str) -> Response:
    """The document as it is stored."""
    text = json.dumps(document, indent=2, ensure_ascii=False) + "\n"
    return Response(text, media_type="application/json", headers=named(title, ending))


def named(title: str, ending: str) -> dict[str, str]:
    """The header that names a file after what is in it."""
    return {"content-disposition": f"attachment; filename*=UTF-8''{quote(file_name(title))}.{ending}"}
