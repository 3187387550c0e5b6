"""Upkeep of the workshop: what is due, and that it was done."""

from datetime import UTC, datetime

from kelbrast.app.jobs import Jobs
from kelbrast.app.rack import KeptItem
from kelbrast.core.catalogue.tools import tool
from kelbrast.core.errors import BadInput
from kelbrast.core.rack.item import carrier_of
from kelbrast.core.rack.upkeep import Due, On, Thing, care, upkeep
from kelbrast.storage import runs as store
from kelbrast.storage import shop
from kelbrast.storage.sessions import reading, writing

_SHOP = "shop"


class Upkeep:
    """The upkeep of one database."""

    def __init__(self, jobs: Jobs) -> None:
        self._jobs = jobs

    def due(self, now: datetime | None = None) -> list[Due]:
        """Everything that is looked after, what is due first."""
        return upkeep(self._things(), now or datetime.now(UTC))

    def done(self, thing: str, name: str, now: datetime | None = None) -> None:
        """A care was done.

        Raises:
            NotFound: no such care.  BadInput: there is no such thing, or it does not need that.
        """
        wanted = care(name)
        if not any(one.key == thing and one.on == wanted.on for one in self._things()):
            raise BadInput.one("thing", f'"{thing}" is not looked after in this way')
        with writing(self._jobs.engine) as session:
            shop.add_care(session, thing, name, now or datetime.now(UTC))

    def _things(self) -> list[Thing]:
        with reading(self._jobs.engine) as session:
            work = store.work_of_items(session)
            done = shop.care_done(session)
            waxed = store.waxed_runs(session)
        by_item: dict[int | None, list[tuple[datetime, float]]] = {}
        for item, _, seconds, at in work:
            by_item.setdefault(item, []).append((at, seconds))

        def thing(key: str, label: str, on: On, since: datetime, worked: list[tuple[datetime, float]]) -> Thing:
            told = tuple((care, at) for name, care, at in done if name == key)
            return Thing(key, label, on, since, tuple(worked), told)

        everything = [(at, seconds) for _, _, seconds, at in work]
        began = min((at for at, _ in everything), default=datetime.now(UTC))
        found = [thing(_SHOP, "The workshop", "shop", began, everything)]
        for kept in self._jobs.rack.items():
            if (on := _looked_after(kept)) is not None:
                since = kept.at[0] if kept.at else datetime.min.replace(tzinfo=UTC)
                found.append(thing(f"item:{kept.id}", _label(kept), on, since, by_item.get(kept.id, [])))
        found += [thing(f"run:{run_id}", title, "waxed", at, []) for run_id, title, at in waxed]
        return found


def _looked_after(kept: KeptItem) -> On | None:
    carrier = carrier_of(kept.item.what)
    if kept.item.retired or carrier is None:
        return None
    if carrier.wear_law == "compound" and carrier.mount != "hand":
        return "wheel"
    return "abrasive-wheel" if carrier.wears_down and carrier.wear_law != "compound" else None


def _label(kept: KeptItem) -> str:
    carrier = carrier_of(kept.item.what)
    label = carrier.label if carrier is not None and carrier.id == kept.item.what else tool(kept.item.what).label
    return f"{label}, {kept.file.name}" if kept.file.name else label
