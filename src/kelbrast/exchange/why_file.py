"""The sums behind a step, for the screens."""

from pydantic import BaseModel

from kelbrast.core.planning.questions.derivation import Derivation, Given
from kelbrast.core.reference.schemas import KINDS


class TermFile(BaseModel):
    """A value in a sum. `kind` and `source` are null for what is worked out or measured."""

    symbol: str
    name: str
    value: float
    unit: str
    kind: str | None
    kind_label: str | None
    source: str | None


class SumFile(BaseModel):
    """A number of the plan with its formula and the values put in."""

    what: str
    formula: str
    terms: list[TermFile]
    result: float
    unit: str


def to_why_file(sums: tuple[Derivation, ...]) -> list[SumFile]:
    return [
        SumFile(what=one.what, formula=one.formula, terms=[_term(term) for term in one.terms], result=one.result, unit=one.unit)
        for one in sums
    ]


def _term(term: Given) -> TermFile:
    source = term.constant.source if term.constant else None
    return TermFile(
        symbol=term.symbol,
        name=term.name,
        value=float(f"{term.value:.6g}"),
        unit=term.unit,
        kind=source.kind if source else None,
        kind_label=KINDS[source.kind] if source else None,
        source=source.title if source else None,
    )
