"""The instruments at hand: the stand-ins that ship with the program, and whatever a package adds.

A package offers a real instrument as an entry point of the group `kelbrast.instruments`: a callable without arguments that
returns an object with the interface of `kelbrast.core.bench.instruments.Instrument`.
"""

from functools import cache
from importlib.metadata import entry_points

from kelbrast.app.board_at_bench import KeptRun
from kelbrast.core.bench.expected import expected
from kelbrast.core.bench.instruments import QUANTITIES, Instrument, stand_ins
from kelbrast.core.reference.loader import find
from kelbrast.core.units import from_si
from kelbrast.documents.run.format import ReadingFile

GROUP = "kelbrast.instruments"


@cache
def instruments() -> dict[str, Instrument]:
    """Every instrument by id."""
    added = [point.load()() for point in entry_points(group=GROUP)]
    return {**stand_ins(), **{one.id: one for one in added}}


def read(kept: KeptRun, instrument_id: str) -> ReadingFile:
    """A reading at the piece and step in hand. It is not kept until it is tapped.

    Raises:
        NotFound: no such instrument.  BadInput: there is nothing to read.
    """
    instrument = find("instrument", instruments(), instrument_id)
    piece, stage = kept.run.current or (kept.run.layout.pieces, None)
    value = instrument.read(expected(kept.run, kept.job, instrument.quantity, piece, stage, kept.now))
    shown = float(f"{from_si(value, QUANTITIES[instrument.quantity].unit):.9g}")
    return ReadingFile.model_validate(
        {
            "quantity": instrument.quantity,
            "value": shown,
            "instrument": instrument.label,
            "simulated": instrument.simulated,
        }
    )
