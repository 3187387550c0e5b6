"""What there is to choose from, and the figures behind it. It only changes with the program, so a page asks whether it did."""

import hashlib

from fastapi import APIRouter, Request, Response
from pydantic import BaseModel

from kelbrast.core.reference.own_rows import remembered
from kelbrast.documents.catalogue.format import Catalogue, FiguresFile
from kelbrast.documents.catalogue.lists import catalogue, figures

router = APIRouter(prefix="/api")


@router.get("/catalogue", response_model=Catalogue, responses={304: {"description": "As it was"}})
def read_catalogue(request: Request) -> Response:
    """Materials, finishes, tools, machines, grades and shapes."""
    return _by_content(request, *_catalogue())


@router.get("/catalogue/figures", response_model=FiguresFile, responses={304: {"description": "As it was"}})
def read_figures(request: Request) -> Response:
    """Every figure of materials, finishes and tools, with its source."""
    return _by_content(request, *_figures())


@remembered(8)
def _catalogue() -> tuple[bytes, str]:
    return _named(catalogue())


@remembered(8)
def _figures() -> tuple[bytes, str]:
    return _named(figures())


def _named(answer: BaseModel) -> tuple[bytes, str]:
    """An answer, and a name for just this content."""
    data = answer.model_dump_json(exclude_defaults=False).encode()
    return data, f'W/"{hashlib.sha256(data).hexdigest()[:24]}"'


def _by_content(request: Request, data: bytes, name: str) -> Response:
    if name in request.headers.get("if-none-match", ""):
        return Response(status_code=304, headers={"etag": name})
    return Response(data, media_type="application/json", headers={"etag": name})
