"""Trials that were accepted: what plans and learning begin from."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from sqlalchemy import Engine

from kelbrast.core.learning.factors import LearntQuantity, Switch
from kelbrast.core.learning.trial import Tried, together
from kelbrast.documents.own.trial import TrialFile
from kelbrast.storage import trials as store
from kelbrast.storage.sessions import reading, writing


@dataclass(frozen=True, slots=True)
class KeptTrial:
    """A trial with its id, and what it said of a carrier on a family of metals, by quantity."""

    id: int
    file: TrialFile
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
            return [_kept(number, document) for number, document in store.all_trials(session)]

    def add(self, file: TrialFile, carrier: str, family: str, said: Mapping[LearntQuantity, Tried]) -> KeptTrial:
        """Keep one."""
        document = {
            "trial": file.model_dump(mode="json", exclude_none=True),
            "carrier": carrier,
            "family": family,
            "said": {quantity: [tried.mean, tried.error] for quantity, tried in said.items()},
        }
        with writing(self._engine) as session:
            return _kept(store.add_trial(session, document), document)

    def remove(self, trial_id: int) -> None:
        """Back to what was believed without it.

        Raises:
            NotFound: no such trial.
        """
        with writing(self._engine) as session:
            store.remove_trial(session, trial_id)

    def tried(self) -> dict[Switch, Tried]:
        """What all trials say, by carrier, family and quantity."""
        said: dict[Switch, list[Tried]] = {}
        for kept in self.all():
            for quantity, one in kept.said.items():
                said.setdefault((kept.carrier, kept.family, quantity), []).append(one)
        return {which: together(several) for which, several in said.items()}


def _kept(number: int, document: Mapping[str, Any]) -> KeptTrial:
    file = TrialFile.model_validate(document["trial"], strict=False)
    said = {quantity: Tried(*pair) for quantity, pair in document["said"].items()}
    return KeptTrial(number, file, document["carrier"], document["family"], said)
