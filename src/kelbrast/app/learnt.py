"""What the shop learnt from its log, and the switches that let plans use it."""

from collections.abc import Sequence

from sqlalchemy import Engine
from sqlalchemy.orm import Session

from kelbrast.app.kept_trials import Trials, tried_in
from kelbrast.core.errors import BadInput
from kelbrast.core.learning.factors import Learnt, ShopFactors, Switch, factors_of, learn
from kelbrast.core.reference.loader import constant
from kelbrast.storage import run_results, shop
from kelbrast.storage.sessions import reading, writing
from kelbrast.storage.trials import mark_of_trials

_SETTING = "learning"


class Learning:
    """The shop's own factors of one database."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine
        self.trials = Trials(engine)
        self._kept: tuple[object, list[Learnt]] | None = None

    def learnt(self) -> list[Learnt]:
        """Every factor that the log says something about, used or not."""
        with reading(self._engine) as session:
            everything_off, off = _switches(session)
            key = (run_results.observations_change(session), mark_of_trials(session), everything_off, off)
            if self._kept is None or self._kept[0] != key:
                said = run_results.newest_observations(session, int(constant("learning.newest").value))
                self._kept = key, learn(said, trials=tried_in(session), off=off, everything_off=everything_off)
            return self._kept[1]

    def factors(self) -> ShopFactors:
        """What plans use."""
        return factors_of(self.learnt())

    @property
    def on(self) -> bool:
        """Whether plans use what was learnt at all."""
        with reading(self._engine) as session:
            return not _switches(session)[0]

    def switch(self, *, on: bool) -> None:
        """Use everything that was learnt, or nothing."""
        with writing(self._engine) as session:
            _, off = _switches(session)
            shop.put_setting(session, _SETTING, {"everything_off": not on, "off": [list(one) for one in off]})

    def switch_one(self, which: Switch, *, on: bool) -> None:
        """Use one factor, or the published figure in its place.

        Raises:
            BadInput: nothing was learnt about that.
        """
        if which not in {(learnt.carrier, learnt.family, learnt.quantity) for learnt in self.learnt()}:
            raise BadInput.one("carrier", f"nothing was learnt yet about {' '.join(which)}")
        with writing(self._engine) as session:
            everything_off, off = _switches(session)
            left: Sequence[Switch] = [one for one in off if one != which] + ([] if on else [which])
            shop.put_setting(session, _SETTING, {"everything_off": everything_off, "off": [list(one) for one in left]})


def _switches(session: Session) -> tuple[bool, tuple[Switch, ...]]:
    value = shop.get_setting(session, _SETTING)
    return bool(value.get("everything_off", False)), tuple(tuple(one) for one in value.get("off", []))
