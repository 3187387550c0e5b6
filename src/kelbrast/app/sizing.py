"""A part that is worked to size: the use case behind the command line and the API."""

from kelbrast.core.precision.advice import advise
from kelbrast.core.reference.loader import constant
from kelbrast.exchange.size_answer import SizeAnswer, to_size_answer
from kelbrast.exchange.size_file import SizeFile, gauge_of, grades_of, part_of, rounds_of


def size_answer(file: SizeFile) -> SizeAnswer:
    """Where the work stands, and the next move.

    Raises:
        BadInput: something in the file does not exist or does not fit.
    """
    risk = constant("precision.risk").value if file.pass_risk is None else file.pass_risk
    found = advise(part_of(file), rounds_of(file), gauge_of(file), risk=risk, grades=grades_of(file))
    return to_size_answer(file.title, found)
