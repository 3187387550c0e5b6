"""The shop's rack: putting things on it, what happens to them, and what they make up for a job."""

from collections import Counter
from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from datetime import UTC, datetime
from typing import Literal

from sqlalchemy import Engine
from sqlalchemy.orm import Session

from kelbrast.app.learnt import Learning
from kelbrast.core.catalogue.machines import Machine, machines
from kelbrast.core.errors import BadInput, NotFound
from kelbrast.core.job import Job
from kelbrast.core.learning.factors import ShopFactors
from kelbrast.core.rack.item import KINDS, Effects, Item, ItemEvent, ItemKind, carrier_of, in_place, joined, misfits
from kelbrast.core.rack.offer import Offer, Own, offer
from kelbrast.core.reference.own_rows import OwnRows, in_use
from kelbrast.core.wording import Sentence
from kelbrast.documents.rack.csv import continued, is_csv, read_rack
from kelbrast.documents.rack.format import (
    ItemEventFile,
    ItemFile,
    check_items,
    item_faults,
    to_event_file,
    to_item,
    to_item_event,
)
from kelbrast.storage import rack as store
from kelbrast.storage.database import as_committed
from kelbrast.storage.sessions import is_writing, reading, writing


@dataclass(frozen=True, slots=True)
class KeptItem:
    """An item: its id, how often it was changed, the file that describes it, when its events were, and what does not fit.

    `mark`: another one whenever anything about it has changed.
    """

    id: int
    revision: int
    file: ItemFile
    item: Item
    at: tuple[datetime, ...]
    misfits: tuple[Sentence, ...]
    mark: tuple[int, int]


@dataclass(frozen=True, slots=True)
class ItemsWanted:
    """Which items are looked for; "" for any. `words`: each of them is found in what it is called, its mark or its note."""

    words: str = ""
    carrier: str = ""
    family: str = ""
    retired: bool = False

    def fits(self, kept: KeptItem) -> bool:
        """Whether it is one of them."""
        item, carrier = kept.item, carrier_of(kept.item.what)
        said = f"{item.label} {kept.file.made} {kept.file.note}".lower()
        return (
            all(word in said for word in self.words.lower().split())
            and (not self.carrier or (carrier is not None and carrier.id == self.carrier))
            and (not self.family or self.family in item.suits)
        )


@dataclass(frozen=True, slots=True)
class RackPage:
    """Some of the rack: how many items there are at all and of what is looked for, these by kind, all carriers, the page."""

    everything: int
    count: int
    of_kind: list[tuple[ItemKind, int]]
    carriers: dict[str, str]
    items: list[KeptItem]


@dataclass(frozen=True, slots=True)
class ImportChange:
    """What an import does with one item of the file: by `what` and name."""

    file: ItemFile
    change: Literal["new", "changed", "same"]
    keys: tuple[str, ...]
    item_id: int | None


@dataclass(frozen=True, slots=True)
class Shelf:
    """What a shop plans with, wherever it is kept: its items, and what it learnt about its own way of working.

    What it offers to a family is worked out once.
    """

    items: tuple[Item, ...]
    factors: ShopFactors = field(default_factory=ShopFactors)
    _offers: dict[tuple[OwnRows, str, bool], Offer] = field(default_factory=dict, init=False, repr=False, compare=False)

    @property
    def in_use(self) -> bool:
        """Whether anything stands there that could be worked with."""
        return any(not item.retired for item in self.items)

    @property
    def machines(self) -> frozenset[str] | None:
        """Ids of the machines that stand there; None where none does, so that nobody knows."""
        return frozenset(item.what for item in self.items if item.kind == "machine" and not item.retired) or None

    def offer(self, family: str, *, insist: bool = False) -> Offer:
        """What the rack makes up for a metal family."""
        key = in_use(), family, insist
        if key not in self._offers:
            self._offers[key] = offer(self.items, family, insist=insist)
        return self._offers[key]

    def equip(self, job: Job, *, extras: Sequence[str] = (), insist: bool = False) -> Job:
        """The job, planned from this rack."""
        made = self.offer(job.material.family, insist=insist)
        return replace(job, own=Own(made.tools, made.machines, tuple(extras)))


class Rack:
    """The rack of one database. Every method is one transaction: it happens whole or not at all."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine
        self._read: _Reading | None = None
        self._shelf: tuple[object, Shelf] | None = None
        self.learning = Learning(engine)

    def items(self) -> list[KeptItem]:
        """Everything on the rack, retired things too. Every plan asks for it: only what has changed is read again."""
        return list(self._reading().items.values())

    def _reading(self) -> "_Reading":
        with reading(self._engine) as session:
            items, events = store.mark_of(session)
            before = self._read
            if before is not None and (before.own != in_use() or events.newest < before.events_mark.newest):
                before = None  # other own things, or a backup was put back
            if before is not None and (before.items_mark, before.events_mark) == (items, events):
                return before
            if before is not None and before.items_mark == items:
                fresh = store.told_since(session, before.events_mark.newest)
                known, gone = before.items, set[int]()
            else:  # things came, went, or something else is said of them
                marks, known = store.marks(session), before.items if before is not None else {}
                fresh = {key: mark for key, mark in marks.items() if key not in known or known[key].mark != mark}
                gone = known.keys() - marks.keys()
            read = {one.id: _as_read(one, fresh[one.id]) for one in store.items_by_id(session, fresh)} if fresh else {}
            now = _following(
                before, {key: kept for key, kept in {**known, **read}.items() if key not in gone}, read, items, events
            )
            if not is_writing(self._engine):  # what is not kept for good yet is not remembered
                self._read = now
            return now

    def page(self, wanted: ItemsWanted, *, offset: int, limit: int) -> RackPage:
        """Some of what stands there and is looked for, in the order of the rack."""
        items = self.items()
        everything = [kept for kept in items if wanted.retired or not kept.item.retired]
        found = [kept for kept in everything if wanted.fits(kept)]
        found.sort(key=lambda kept: in_place(kept.item))
        carriers = {kept.item.what: kept.item for kept in everything}
        kinds = Counter(kept.item.kind for kept in found)
        of_kind = [(kind, kinds[kind]) for kind in KINDS if kinds[kind]]
        named = {carrier.id: carrier.label for item in carriers.values() if (carrier := carrier_of(item.what)) is not None}
        return RackPage(len(items), len(found), of_kind, named, found[offset : offset + limit])

    def get(self, item_id: int) -> KeptItem:
        """One item.

        Raises:
            NotFound: none with this id.
        """
        kept = self._reading().items.get(item_id)
        if kept is None:
            raise NotFound("rack item", str(item_id))
        return kept

    def add(self, files: Sequence[ItemFile]) -> list[KeptItem]:
        """Put things on the rack, all or none.

        Raises:
            BadInput: every fault, by item.
        """
        check_items(list(files))
        with writing(self._engine) as session:
            ids = [store.add_item(session, file.model_dump()) for file in files]
        return [kept for kept in self.items() if kept.id in ids]

    def change(self, item_id: int, file: ItemFile, *, revision: int) -> KeptItem:
        """Say something else of an item that is still at this revision. What it is and its history stay.

        Raises:
            NotFound: no such item.  BadInput: what is wrong with it.  Conflict: it was changed elsewhere.
        """
        if faults := item_faults(file, ""):
            raise BadInput(faults)
        with writing(self._engine) as session:
            if store.get_item(session, item_id).document["what"] != file.what:
                raise BadInput.one("what", "cannot be changed; retire this one and add another")
            store.change_item(session, item_id, file.model_dump(), revision=revision)
        return self.get(item_id)

    def note(self, item_id: int, events: Sequence[ItemEventFile]) -> KeptItem:
        """Append to the history of an item."""
        with writing(self._engine) as session:
            document = store.get_item(session, item_id).document
            file = ItemFile.model_validate({**document, "history": [event.model_dump() for event in events]}, strict=False)
            if faults := item_faults(file, ""):
                raise BadInput(faults)
            store.add_events(session, item_id, [event.model_dump() for event in events])
        return self.get(item_id)

    def note_all(self, events: Sequence[tuple[int, ItemEvent]], *, why: str) -> None:
        """Append to the history of several items, all or none."""
        with writing(self._engine) as session:
            for item_id, event in events:
                store.add_events(session, item_id, [to_event_file(event, why).model_dump()])

    def tell(self, session: Session, events: Effects, *, why: str) -> None:
        """Write down what work used. What the same thing lost earlier on the day becomes one entry with it."""
        for item_id, event in events:
            try:
                before = store.newest_event(session, item_id)
            except NotFound:  # it was taken off the rack while the run was at the bench
                continue
            event, one = replace(event, why=why), None
            if before is not None and before.at.date() == datetime.now(UTC).date():
                one = joined(to_item_event(ItemEventFile.model_validate(before.document, strict=False)), event)
            if before is None or one is None:
                store.add_events(session, item_id, [to_event_file(event, why).model_dump()])
            else:
                store.replace_newest(session, item_id, before, to_event_file(one, one.why).model_dump())

    def remove(self, item_id: int) -> None:
        """Take away what was put on the rack by mistake; what has a history of use is retired instead.

        Raises:
            BadInput: it was used, so its history must stay.
        """
        with writing(self._engine) as session:
            document = store.get_item(session, item_id).document
            if any(event["kind"] in ("used", "downgraded") for event in document["history"]):
                raise BadInput.one("id", "it was used, and its history must stay: retire it instead")
            store.remove_item(session, item_id)

    def preview(self, text: str) -> list[ImportChange]:
        """What importing a rack, JSON or CSV, would do, without doing it. One item matches one, by `what` and name.

        Raises:
            ReadError, BadInput: what is wrong with the text, all of it.
        """
        files, now = read_rack(text), is_csv(text)
        here = [kept for kept in self.items() if not (now and kept.item.retired)]
        import_changes = []
        for file in files:
            match = next((kept for kept in here if (kept.file.what, kept.file.name) == (file.what, file.name)), None)
            if match is None:
                import_changes.append(ImportChange(file, "new", (), None))
                continue
            here.remove(match)
            if now:
                goes_on, keys = continued(match.file, file)
                import_changes.append(ImportChange(goes_on, "changed" if keys else "same", keys, match.id))
                continue
            new, old = file.model_dump(exclude={"history"}), match.file.model_dump(exclude={"history"})
            keys = tuple(key for key in new if new[key] != old[key])
            more = len(file.history) > len(match.file.history)
            keys = (*keys, "history") if more else keys
            import_changes.append(ImportChange(file, "changed" if keys else "same", keys, match.id))
        return import_changes

    def take_in(self, text: str) -> list[ImportChange]:
        """Import: new items are added, known ones changed, and a longer history is continued. All or nothing."""
        with writing(self._engine) as session:  # before the preview: a second import waits, and finds what the first one made
            changes = self.preview(text)
            for change in changes:
                if change.item_id is None:
                    store.add_item(session, change.file.model_dump())
                elif change.change == "changed":
                    had = len(store.get_item(session, change.item_id).document["history"])
                    store.change_item(session, change.item_id, change.file.model_dump())
                    store.add_events(session, change.item_id, [event.model_dump() for event in change.file.history[had:]])
        return changes

    def bars(self) -> dict[str, int]:
        """By compound, the item that is counted down when it is used."""
        return self._reading().bars

    def shelf(self) -> Shelf:
        """The rack as it stands now and what the shop learnt, to plan with. Every plan asks for it."""
        mark = None if is_writing(self._engine) else as_committed(self._engine)  # before it is read: it may change meanwhile
        if mark is not None and self._shelf is not None and self._shelf[0] == mark:
            return self._shelf[1]
        shelf = Shelf(tuple(kept.item for kept in self.items()), self.learning.factors())
        if mark is not None:
            self._shelf = mark, shelf
        return shelf


@dataclass(frozen=True, slots=True)
class _Reading:
    """The rack as it was read: when nothing had changed since those marks, with these own rows and these machines in use.

    `bars`: by compound, the item that is counted down.
    """

    items_mark: object
    events_mark: store.EventsMark
    own: OwnRows
    turning: list[Machine]
    items: dict[int, KeptItem]
    bars: dict[str, int]


def _following(
    before: _Reading | None, items: dict[int, KeptItem], read: dict[int, KeptItem], items_mark: object, events: store.EventsMark
) -> _Reading:
    """The rack with what was read again. What follows from all of it is kept where nothing of that has changed."""
    whole = before is None or before.items_mark != items_mark
    if before is None or whole or any(kept.item.kind == "machine" for kept in read.values()):
        own = {kept.item.what for kept in items.values() if kept.item.kind == "machine" and not kept.item.retired}
        turning = [machines()[what] for what in ("hand", *sorted(own))] if own else list(machines().values())
    else:
        turning = before.turning
    fitted = read if before is not None and before.turning == turning else items
    fits = {key: replace(kept, misfits=tuple(misfits(kept.item, turning))) for key, kept in fitted.items()}
    if before is None or whole or any(kept.item.kind == "compound" for kept in read.values()):
        there = (kept for kept in items.values() if kept.item.kind == "compound" and not kept.item.retired)
        bars = {kept.file.what: kept.id for kept in there if kept.item.have > 0}
    else:
        bars = before.bars
    return _Reading(items_mark, events, in_use(), turning, {**items, **fits}, bars)


def _as_read(stored: store.StoredItem, mark: tuple[int, int]) -> KeptItem:
    """Without what does not fit, which others on the rack decide."""
    file = ItemFile.model_validate(dict(stored.document), strict=False)
    return KeptItem(stored.id, stored.revision, file, to_item(file, stored.id), stored.at, (), mark)
