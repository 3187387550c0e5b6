"""Totals of a run: time, abrasives and metal, planned and actual."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import NamedTuple

from kelbrast.core.bench.events import Measured
from kelbrast.core.bench.run import Run
from kelbrast.core.surface.shapes import layer_between


@dataclass(frozen=True, slots=True)
class Figures:
    """Totals of a run (SI).

    Attributes:
        planned, worked: seconds on the work, of all pieces.
        planned_worn, worn: by tool, abrasives, bars or tubs worn out.
        planned_metal: the most that the plan takes off a face; metal: the most that two readings of one place differ by,
            None where nothing was measured twice.
        backs: how often a piece went back.
    """

    planned: float
    worked: float
    planned_worn: dict[str, float]
    worn: dict[str, float]
    planned_metal: float
    metal: float | None
    backs: int


def figures(run: Run, shapes: Mapping[str, str | None]) -> Figures:
    """What a run came to so far. `shapes`: the kind of shape of each face, see `Job.shapes`."""
    planned_worn: dict[str, float] = {}
    layers: dict[str, float] = {}
    for stage in run.layout.stages:
        planned_worn[stage.tool] = planned_worn.get(stage.tool, 0.0) + run.layout.pieces * stage.worn
        layers[stage.face] = layers.get(stage.face, 0.0) + stage.takes
    return Figures(
        planned=run.layout.pieces * sum(stage.seconds for stage in run.layout.stages),
        worked=sum(work.seconds for work in run.works.values()),
        planned_worn=planned_worn,
        worn=worn_out(run),
        planned_metal=max(layers.values(), default=0.0),
        metal=max(_gone(run, shapes).values(), default=None),
        backs=sum(work.outcome == "back" for work in run.works.values()),
    )


def worn_out(run: Run) -> dict[str, float]:
    """By tool, how many abrasives, bars or tubs the run has used up: dead ones by count, the rest by time."""
    found: dict[str, float] = {}
    stages = {stage.key: stage for stages in run.stages.values() for stage in stages}
    for (_, face, route, step), work in run.works.items():
        stage = stages[face, route, step]
        if stage.change_after is None and stage.seconds > 0:
            found[stage.tool] = found.get(stage.tool, 0.0) + stage.worn * work.seconds / stage.seconds
        elif stage.change_after is not None:
            on = run.on_tool.get(stage.tool, 0.0)
            found[stage.tool] = run.changes.get(stage.tool, 0) + min(1.0, on / stage.change_after)
    return found


def gone_by_measurement(run: Run, piece: int, face: str, shapes: Mapping[str, str | None]) -> float | None:
    """What came off a face of a piece by two readings of one place, m; None where nothing was measured twice."""
    return max((gone for at, gone in _gone(run, shapes).items() if at[:2] == (piece, face)), default=None)


def first_reading(run: Run, like: Measured, piece: int | None, face: str | None) -> float | None:
    """The first reading of the same quantity at the same place of a piece, to compare a later one with.

    Readings of stand-ins are only compared with each other.
    """
    wanted = _Place(piece, face, like.quantity, like.position, like.direction)
    return next((value for place, value in _sizes(run, simulated=like.simulated) if place == wanted), None)


class _Place(NamedTuple):
    piece: int | None
    face: str | None
    quantity: str
    position: str
    direction: str


def _gone(run: Run, shapes: Mapping[str, str | None]) -> dict[_Place, float]:
    first: dict[_Place, float] = {}
    gone: dict[_Place, float] = {}
    for place, value in _sizes(run, simulated=False):
        if place in first:
            kind = shapes.get(place.face or "") if place.quantity == "size" else None
            gone[place] = layer_between(first[place], value, kind)
        first.setdefault(place, value)
    return gone


def _sizes(run: Run, *, simulated: bool) -> list[tuple[_Place, float]]:
    found = []
    for event in run.standing:
        measured = event.measured
        if measured is not None and measured.quantity in ("size", "coat") and measured.simulated == simulated:
            face = event.stage[0] if event.stage else None
            found.append((_Place(event.piece, face, measured.quantity, measured.position, measured.direction), measured.value))
    return found
