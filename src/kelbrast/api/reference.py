"""What there is to choose from."""

from fastapi import APIRouter

from kelbrast import __version__
from kelbrast.api.schemas import Health
from kelbrast.exchange.catalogue_file import Catalogue
from kelbrast.exchange.catalogue_lists import catalogue

router = APIRouter(prefix="/api")


@router.get("/catalogue")
def read_catalogue() -> Catalogue:
    """Materials, finishes, tools, machines, grades and shapes, each figure with its source."""
    return catalogue()


@router.get("/health")
def health() -> Health:
    """Whether the program is there, and which version."""
    return Health(version=__version__)
