"""Trials that were accepted: what plans and learning begin from."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from sqlalchemy import Engine
from sqlalchemy.orm import Session

from kelbrast.core.learning.factors import LearntQuantity, Switch
from kelbrast.core.learning.trial import Tried, together
from kelbrast.documents.own.trial import TrialFile
from kelbrast.storage import trials as store
from kelbrast.storage.sessions import reading, writing


@dataclass(frozen=True, slots=True)
class KeptTrial:
    """A trial with its id, and what it said of a carrier on a family of metals, by quantity. Without a file it is what another
    shop learnt."""

    id: int
    file: TrialFile | None
    carrier: str
    family: str
    said: Mapping[LearntQuantity, Tried]


class Trials:
    """The trials of one database."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def all(self) -> list[KeptTrial]:
        """Every one, the newest first."""
        with reading(self._engine) as session:
            return _all(session)

    def add(self, file: TrialFile | None, carrier: str, family: str, said: Mapping[LearntQuantity, Tried]) -> KeptTrial:
        """Keep one."""
        document = {
            "trial": file.model_dump(mode="json", exclude_none=True) if file is not None else None,
            "carrier": carrier,
            "family": family,
            "said": {quantity: [tried.mean, tried.error] for quantity, tried in said.items()},
        }
        with writing(self._engine) as session:
            return _kept(store.add_trial(session, document), document)

    def take_over(self, carrier: str, family: str, quantity: LearntQuantity, tried: Tried) -> None:
        """What another shop learnt, in the place of what another shop said of it before."""
        with writing(self._engine):
            for kept in self.all():
                if kept.file is None and (kept.carrier, kept.family, *kept.said) == (carrier, family, quantity):
                    self.remove(kept.id)
            self.add(None, carrier, family, {quantity: tried})

    def remove(self, trial_id: int) -> None:
        """Back to what was believed without it.

        Raises:
            NotFound: no such trial.
        """
        with writing(self._engine) as session:
            store.remove_trial(session, trial_id)


def tried_in(session: Session) -> dict[Switch, Tried]:
    """What all trials say, by carrier, family and quantity."""
    said: dict[Switch, list[Tried]] = {}
    for kept in _all(session):
        for quantity, one in kept.said.items():
            said.setdefault((kept.carrier, kept.family, quantity), []).append(one)
    return {which: together(several) for which, several in said.items()}


def _all(session: Session) -> list[KeptTrial]:
    return [_kept(number, document) for number, document in store.all_trials(session)]


def _kept(number: int, document: Mapping[str, Any]) -> KeptTrial:
    file = TrialFile.model_validate(document["trial"], strict=False) if document["trial"] else None
    said = {quantity: Tried(*pair) for quantity, pair in document["said"].items()}
    return KeptTrial(number, file, document["carrier"], document["family"], said)
