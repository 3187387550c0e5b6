"""The demo workshop: the restoration of the Skerry Light, an invented lighthouse. Its job files stand in `examples/`."""

from pathlib import Path
from typing import Final

from kelbrast.documents.day.format import ShopFile
from kelbrast.documents.job.format import JobFile
from kelbrast.documents.job.read import read_job_file
from kelbrast.documents.rack.csv import read_rack
from kelbrast.documents.rack.format import ItemFile
from kelbrast.documents.size.format import SizeFile, read_size_file

# In a wheel they lie beside this module; in a checkout where people find them.
_PACKED: Final = Path(__file__).parent / "examples"
EXAMPLES: Final = _PACKED if _PACKED.is_dir() else Path(__file__).parents[3] / "examples"


def demo_shop() -> ShopFile:
    """The invented people and letterhead of the demo workshop."""
    return ShopFile.model_validate_json((EXAMPLES / "skerry-light.shop.json").read_text(encoding="utf-8"))


def demo_rack() -> list[ItemFile]:
    """The rack of the demo workshop, read as a user's file is."""
    return read_rack((EXAMPLES / "skerry-light.rack.json").read_text(encoding="utf-8"))


def demo_jobs() -> list[JobFile]:
    """The demo jobs, read as a user's files are."""
    return [read_job_file(path.read_bytes()) for path in sorted(EXAMPLES.glob("*.job.json"))]


def demo_sizes() -> list[SizeFile]:
    """What the demo workshop works to size, read as a user's files are."""
    return [read_size_file(path.read_bytes()) for path in sorted(EXAMPLES.glob("*.size.json"))]
