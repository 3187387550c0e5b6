"""Sentences in answers: code, figures and words, for clients that render them in their own units."""

from typing import Annotated

from pydantic import BaseModel, Field

from kelbrast.core.units import to_si
from kelbrast.core.wording import UNITS, Measure, Quantity, Sentence
from kelbrast.documents.common.fields import shop


class FigureFile(BaseModel):
    """A figure of a sentence in the metric unit of its quantity, and to how many figures it is known."""

    value: float
    quantity: Quantity
    digits: int


class SentenceFile(BaseModel):
    """A sentence whose places, in braces, are filled from `values`."""

    code: Annotated[str, Field(description="names the kind of fact, whatever its figures are")]
    words: str
    values: dict[str, "str | FigureFile | SentenceFile"]


def to_sentence_file(fact: Sentence) -> SentenceFile:
    """The fact in the units of the files."""
    return SentenceFile(code=fact.code, words=fact.words, values={name: _value(value) for name, value in fact.values})


def to_sentence(file: SentenceFile) -> Sentence:
    """The fact of the core, to be told."""
    return Sentence(file.code, file.words, tuple((name, _of_core(value)) for name, value in file.values.items()))


def _value(value: Measure | str | Sentence) -> str | FigureFile | SentenceFile:
    if isinstance(value, Sentence):
        return to_sentence_file(value)
    if isinstance(value, Measure):
        unit, _ = UNITS[value.quantity]["metric"]
        return FigureFile(value=shop(value.value, unit), quantity=value.quantity, digits=value.digits)
    return value


def _of_core(value: str | FigureFile | SentenceFile) -> Measure | str | Sentence:
    if isinstance(value, SentenceFile):
        return to_sentence(value)
    if isinstance(value, FigureFile):
        unit, _ = UNITS[value.quantity]["metric"]
        return Measure(to_si(value.value, unit), value.quantity, value.digits)
    return value
