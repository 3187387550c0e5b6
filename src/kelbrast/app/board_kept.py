"""Stores the schedule between looks: block positions, pins, blocks reported done, mounted wheels.

Blocks are known by their keys (`core.day.from_plan.block_key`): what is kept of one never comes to another.
"""

from collections.abc import Mapping, Sequence
from datetime import date
from typing import Any

from sqlalchemy import Engine

from kelbrast.core.day.follow import Pin
from kelbrast.core.day.schedule import Placed
from kelbrast.core.day.shop import DayWork, Station
from kelbrast.storage import shop as store
from kelbrast.storage.sessions import reading, writing

_BOARD = "board"


class KeptBoard:
    """The board of one shop in its database."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def pins(self) -> dict[str, Pin]:
        """Where people put blocks, by their keys."""
        return {key: Pin(**one) for key, one in self._stored().get("pins", {}).items()}

    def pin(self, pins: Mapping[str, Pin]) -> None:
        """Keep where people put blocks."""
        self._put(pins={key: {"begins": pin.begins, "person": pin.person, "spindle": pin.spindle} for key, pin in pins.items()})

    def events(self, day: date) -> list[tuple[int, dict[str, Any]]]:
        """What was said to have happened today, each with when it was said (minute) and as it was said."""
        kept = self._stored()
        return [tuple(one) for one in kept.get("events", [])] if kept.get("day") == day.isoformat() else []

    def keep_events(self, events: Sequence[tuple[int, dict[str, Any]]]) -> None:
        """Keep what happened today."""
        self._put(events=[list(one) for one in events])

    def said_done(self, work: DayWork, day: date) -> dict[int, int]:
        """Blocks that somebody said to be done today, with the minute."""
        kept = self._stored()
        said = kept.get("done", {}) if kept.get("day") == day.isoformat() else {}
        return {task.id: said[task.key] for task in work.tasks if task.key in said}

    def say_done(self, key: str, minute: int) -> None:
        """Somebody says that a block is done."""
        self._put(done={**self._stored().get("done", {}), key: minute})

    def last(self, work: DayWork, day: date) -> tuple[Placed, ...]:
        """Where blocks stood when the board was last looked at today."""
        kept = self._stored()
        if kept.get("day") != day.isoformat():
            return ()
        placed = kept.get("placed", {})
        return tuple(Placed(task.id, *placed[task.key]) for task in work.tasks if task.key in placed)

    def this_morning(self, day: date) -> dict[str, list[str | None]]:
        """What stood on the spindles when the day began: what was left there the evening before."""
        kept = self._stored()
        left: dict[str, list[str | None]] = kept.get("morning" if kept.get("day") == day.isoformat() else "standing", {})
        return left

    def keep(self, keys: Mapping[int, str], blocks: Sequence[Placed], stations: Sequence[Station], day: date) -> None:
        """Where blocks stand now, so that it is there after the program was started anew. `keys`: of the blocks."""
        kept = self._stored()
        placed = {keys[block.task]: [block.begins, block.ends, block.person, block.spindle, block.change] for block in blocks}
        if placed == kept.get("placed") and kept.get("day") == day.isoformat():
            return
        over_night = {"done": {}, "pins": {}, "events": [], "morning": kept.get("standing", {})}
        fresh: dict[str, Any] = {} if kept.get("day") == day.isoformat() else over_night
        standing = {**kept.get("standing", {}), **{station.id: list(station.standing) for station in stations}}
        self._put(placed=placed, day=day.isoformat(), standing=standing, **fresh)

    def _stored(self) -> dict[str, Any]:
        with reading(self._engine) as session:
            return dict(store.get_setting(session, _BOARD))

    def _put(self, **more: Any) -> None:
        with writing(self._engine) as session:
            store.put_setting(session, _BOARD, {**store.get_setting(session, _BOARD), **more})
