"""Maintenance of the workshop: what is due, and recording that it was done."""

from datetime import UTC, datetime

from kelbrast.app.jobs import Jobs
from kelbrast.core.errors import BadInput
from kelbrast.core.rack.upkeep import Due, LookedAfter, care, looked_after, minded_since, runs_cared_for, told_closely, upkeep
from kelbrast.storage import run_results, shop
from kelbrast.storage.sessions import reading, writing


class Upkeep:
    """The upkeep of one database."""

    def __init__(self, jobs: Jobs) -> None:
        self._jobs = jobs

    def due(self, now: datetime | None = None) -> list[Due]:
        """Everything that is looked after, what is due first."""
        now = now or datetime.now(UTC)
        return upkeep(self._things(now), now)

    def done(self, thing: str, name: str, now: datetime | None = None) -> None:
        """A care was done.

        Raises:
            NotFound: no such care.  BadInput: there is no such thing, or it does not need that.
        """
        now = now or datetime.now(UTC)
        wanted = care(name)
        if not any(looked_after.key == thing and looked_after.on == wanted.on for looked_after in self._things(now)):
            raise BadInput.one("thing", f'"{thing}" is not looked after in this way')
        with writing(self._jobs.engine) as session:
            shop.add_care(session, thing, name, now)

    def _things(self, now: datetime) -> list[LookedAfter]:
        items = [(kept.item, kept.at[0] if kept.at else None) for kept in self._jobs.rack.items()]
        with reading(self._jobs.engine) as session:
            done, since = shop.care_done(session), minded_since(now)
            days = run_results.work_days(session)
            work = run_results.work_done(session, days, told_closely(items, [(each.item, each.day) for each in days], done))
            waxed = run_results.waxed_runs(session, since, also=runs_cared_for(done, since))
        return looked_after(items, waxed, work=work, done=done, now=now)
