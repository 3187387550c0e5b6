"""Files in requests and answers. A job is read as the command line reads it, so that faults have the same words."""

import json
from collections.abc import Mapping
from typing import Annotated, Any, Final
from urllib.parse import quote

from fastapi import Depends, Request, Response
from starlette.exceptions import HTTPException

from kelbrast.documents.common.fields import file_name
from kelbrast.documents.job.format import JobFile
from kelbrast.documents.job.read import LARGEST_FILE, read_as_written, read_job_file

JOB_IN_BODY: Final[dict[str, Any]] = {
    "requestBody": {
        "required": True,
        "content": {"application/json": {"schema": {"$ref": "#/components/schemas/JobFile"}}},
    }
}

PICTURE_IN_BODY: Final[dict[str, Any]] = {
    "requestBody": {
        "required": True,
        "content": {
            kind: {"schema": {"type": "string", "format": "binary"}} for kind in ("image/jpeg", "image/png", "image/webp")
        },
    }
}


async def text_in_body(request: Request, what: str) -> bytes:
    """The JSON of a request, no larger than a file may be."""
    # Another site's page can send text without asking, but not JSON.
    if not request.headers.get("content-type", "").startswith("application/json"):
        raise HTTPException(415, f"Send the {what} as application/json")
    body = bytearray()
    async for chunk in request.stream():
        body += chunk
        if len(body) > LARGEST_FILE:
            raise HTTPException(413, f"A {what} file may hold at most {LARGEST_FILE // 1024 // 1024} MB; split it")
    return bytes(body)


async def _job_in_body(request: Request) -> JobFile:
    return read_job_file(await text_in_body(request, "job"))


async def _job_as_written(request: Request) -> JobFile:
    return read_as_written(await text_in_body(request, "job"))


JobBody = Annotated[JobFile, Depends(_job_in_body)]
JobAsWritten = Annotated[JobFile, Depends(_job_as_written)]  # its faces may still be without ids


def file_answer(document: Mapping[str, Any], title: str, ending: str) -> Response:
    """The document as it is stored."""
    text = json.dumps(document, indent=2, ensure_ascii=False) + "\n"
    return Response(text, media_type="application/json", headers=named(title, ending))


def named(title: str, ending: str) -> dict[str, str]:
    """The header that names a file after what is in it."""
    return {"content-disposition": f"attachment; filename*=UTF-8''{quote(file_name(title))}.{ending}"}
