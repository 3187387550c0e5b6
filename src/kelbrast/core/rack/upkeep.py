"""Maintenance due, by use and by date."""

from collections import defaultdict
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from datetime import date, datetime, timedelta
from functools import cache
from typing import Any, Final, Literal

from kelbrast.core.rack.item import Item, carrier_of
from kelbrast.core.reference.loader import Source, constant, find, record

On = Literal["wheel", "abrasive-wheel", "shop", "waxed"]


@dataclass(frozen=True, slots=True)
class Care:
    """A kind of upkeep. Due after so much work, or so long after it was last done, whichever comes first.

    Attributes:
        after: seconds of work; None when only the calendar counts.
        every: time between; None when only work counts.
        worked: only due when there was work since.
    """

    id: str
    label: str
    on: On
    text: str
    after: float | None
    every: timedelta | None
    worked: bool
    source: Source


@dataclass(frozen=True, slots=True)
class LookedAfter:
    """Something that is looked after: a wheel of the rack, the shop, a waxed piece of work.

    Attributes:
        key: names it, such as "item:7".
        since: when it came, or was waxed.
        worked: (when, seconds) of work with it.
        done: when each care was done, by its id; only the newest counts.
    """

    key: str
    label: str
    on: On
    since: datetime
    worked: tuple[tuple[datetime, float], ...] = ()
    done: tuple[tuple[str, datetime], ...] = ()


@dataclass(frozen=True, slots=True)
class Due:
    """A care of a thing: work since it was last done (s), when by the calendar, and whether it is due now."""

    care: Care
    thing: LookedAfter
    last: datetime | None
    worked: float
    on_day: datetime | None
    now: bool

    @property
    def share(self) -> float:
        """How much of the allowed work is used up; 0 where work does not count."""
        return self.worked / self.care.after if self.care.after else 0.0


@cache
def cares() -> dict[str, Care]:
    """Every kind of upkeep by id."""
    return {key: _care(key, row) for key, row in record("upkeep").items()}


def care(key: str) -> Care:
    """The kind of upkeep with this id."""
    return find("upkeep", cares(), key)


def upkeep(things: Sequence[LookedAfter], now: datetime) -> list[Due]:
    """Every care of these things, what is due first, then by how near it is."""
    dues = [_due(care, thing, now) for thing in things for care in cares().values() if care.on == thing.on]
    far = datetime.max.replace(tzinfo=now.tzinfo)
    return sorted(dues, key=lambda due: (not due.now, -due.share, due.on_day or far, due.thing.key, due.care.id))


_SHOP: Final = "shop"
_RUN: Final = "run:"


def minded_since(now: datetime) -> datetime:
    """Work that was neither waxed nor cared for since then is not looked after any more."""
    longest = max(care.every for care in cares().values() if care.on == "waxed" and care.every)
    return now - constant("upkeep.minded").value * longest


def runs_cared_for(done: Iterable[tuple[str, str, datetime]], since: datetime) -> list[int]:
    """The runs whose work somebody cared for since then.

    >>> day = datetime(2026, 3, 1)
    >>> runs_cared_for([("run:7", "wax", day), ("item:7", "rake", day), ("run:8", "wax", datetime(2020, 1, 1))], day)
    [7]
    """
    return [int(key.removeprefix(_RUN)) for key, _, at in done if key.startswith(_RUN) and at >= since]


def told_closely(
    items: Iterable[tuple[Item, datetime | None]],
    days: Sequence[tuple[int | None, date]],
    done: Iterable[tuple[str, str, datetime]],
) -> set[tuple[int | None, date]]:
    """The days in the middle of which counting may begin: (item, day), None in the place of an item for all of them.

    Of every other day it is enough to know how much there was in all, and when its first step was over. Everything is UTC.

    Args:
        items, done: as `looked_after` takes them.  days: (item, day) of all work.
    """
    last: dict[tuple[str, str], datetime] = {}
    for key, care, at in done:
        last[key, care] = max(at, last.get((key, care), at))
    begins = defaultdict(set)
    for (key, _), at in last.items():
        begins[key].add(at.date())
    for item, since in items:
        if since is not None and _cared_for_as(item) is not None:
            begins[f"item:{item.id}"].add(since.date())
    shop: set[tuple[int | None, date]] = {(None, day) for day in begins[_SHOP]}
    if days:
        shop.add((None, min(day for _, day in days)))
    return shop | {(item, day) for item, day in days if item is not None and day in begins.get(f"item:{item}", ())}


def looked_after(
    items: Iterable[tuple[Item, datetime | None]],
    waxed: Iterable[tuple[int, str, datetime]],
    *,
    work: Sequence[tuple[int | None, datetime, float]],
    done: Sequence[tuple[str, str, datetime]],
    now: datetime,
) -> list[LookedAfter]:
    """Everything that is looked after: the shop, the wheels of its rack, the work that was waxed.

    Args:
        items: of the rack, with when their history begins.  waxed: (run, title, when).
        work: (item, when, seconds) of every step that was done.  done: (key, care, when) of everything cared for.
    """

    # Years of work on thousands of things: each list is gone through once.
    work_of: dict[int | None, list[tuple[datetime, float]]] = defaultdict(list)
    done_to: dict[str, list[tuple[str, datetime]]] = defaultdict(list)
    for item_id, at, seconds in work:
        work_of[item_id].append((at, seconds))
    for key, care, at in done:
        done_to[key].append((care, at))

    def thing(key: str, label: str, on: On, since: datetime, worked: Iterable[tuple[datetime, float]]) -> LookedAfter:
        return LookedAfter(key, label, on, since, tuple(worked), tuple(done_to.get(key, ())))

    everything = [(at, seconds) for _, at, seconds in work]
    looked_afters = [thing(_SHOP, "The workshop", "shop", min((at for at, _ in everything), default=now), everything)]
    for item, since in items:
        if (on := _cared_for_as(item)) is not None:
            began = since or datetime.min.replace(tzinfo=now.tzinfo)
            looked_afters.append(thing(f"item:{item.id}", item.label, on, began, work_of.get(item.id, ())))
    return looked_afters + [thing(f"{_RUN}{run}", title, "waxed", at, []) for run, title, at in waxed]


def _cared_for_as(item: Item) -> On | None:
    carrier = carrier_of(item.what)
    if item.retired or carrier is None:
        return None
    if carrier.cutting.wear_law == "compound":
        return "wheel" if carrier.mount != "hand" else None
    return "abrasive-wheel" if carrier.stock.wears_down else None


def _due(care: Care, thing: LookedAfter, now: datetime) -> Due:
    last = max((at for name, at in thing.done if name == care.id), default=None)
    begin = last or thing.since
    work = [(at, seconds) for at, seconds in thing.worked if at > begin]
    worked = sum(seconds for _, seconds in work)
    on_day = begin + care.every if care.every is not None else None
    if care.worked:  # by the end of the day on which there was work
        on_day = min(at for at, _ in work) + care.every if work and care.every else None
    used_up = care.after is not None and worked >= care.after
    return Due(care, thing, last, worked, on_day, used_up or (on_day is not None and on_day <= now))


def _care(key: str, row: dict[str, Any]) -> Care:
    after, every = row.get("after"), row.get("every")
    return Care(
        id=key,
        label=row["label"],
        on=row["on"],
        text=row["text"],
        after=after.si if after else None,
        every=timedelta(seconds=every.si) if every else None,
        worked=row.get("worked", False),
        source=next(figure.source for figure in (after, every) if figure),
    )
