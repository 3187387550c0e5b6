"""A practice bore in the units of the files."""

from pydantic import BaseModel

from kelbrast.core.practice.bores import PracticeBore, PracticeEnd
from kelbrast.core.surface.sized import Reading
from kelbrast.documents.common.fields import shop
from kelbrast.documents.common.sentences import SentenceFile, to_sentence_file
from kelbrast.documents.size.format import SizeFile, check_size_file
from kelbrast.documents.size.wanted import SizeReading


class BoreEndFile(BaseModel):
    """How a practice bore ended: points, and where the program's own moves end on the same bore, after how many rounds."""

    on_size: bool
    points: int
    size_mm: float
    said: SentenceFile
    program_size_mm: float
    program_rounds: int


def to_size_file(bore: PracticeBore) -> SizeFile:
    """What is known of the bore, as its file, before any reading."""
    part = bore.part
    return check_size_file(
        {
            "kelbrast": "size/1",
            "title": "Practice bore",
            "material": "bronze",
            "kind": part.kind,
            "length_mm": shop(part.length, "mm"),
            "want": {"limits_mm": [shop(part.wanted.low, "mm"), shop(part.wanted.high, "mm")]},
            "gauge": {
                "repeatability_um": shop(bore.gauge.repeatability, "um"),
                "bias_um": shop(bore.gauge.bias, "um"),
            },
            "lap": {"grade": bore.tool.grade},
            "rounds": [{"readings": []}],
        }
    )


def to_readings(readings: tuple[Reading, ...]) -> list[SizeReading]:
    """Readings as the gauge shows them: to a tenth of a micrometre."""
    return [
        SizeReading(
            z_mm=shop(reading.height, "mm"), phi_deg=shop(reading.direction, "deg"), mm=round(shop(reading.diameter, "mm"), 4)
        )
        for reading in readings
    ]


def to_bore_end(end: PracticeEnd) -> BoreEndFile:
    """The end in the units of the file."""
    return BoreEndFile(
        on_size=end.on_size,
        points=end.points,
        size_mm=shop(end.size, "mm"),
        said=to_sentence_file(end.said),
        program_size_mm=shop(end.program_size, "mm"),
        program_rounds=end.program_rounds,
    )
