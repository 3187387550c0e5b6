"""What a run teaches: ratios to the published figures, house routes, and the outcomes of light checks."""

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from statistics import median_high

from kelbrast.core.bench.events import Measured, elapsed
from kelbrast.core.bench.run import Run, begin
from kelbrast.core.bench.taps import happen
from kelbrast.core.errors import BadInput
from kelbrast.core.job import Job
from kelbrast.core.learning.factors import LearntQuantity, Observation, Yours
from kelbrast.core.planning.questions.house import HouseWay, depth_of_find, kind_of_find
from kelbrast.core.process.removal import fresh_in
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.shapes import layer_between
from kelbrast.core.units import from_si

Stages = Mapping[tuple[str, int, int], "Planned"]  # by face, route, step
SecondsWorked = Mapping[tuple[str, int, int], float]  # seconds


@dataclass(frozen=True, slots=True)
class Planned:
    """What the plan expected of a step (SI), with the shop's factors that were in it.

    Attributes:
        seconds: on the work.  life: of its abrasive, and change_after: when that is changed; None for what does not die.
        takes: the layer that it probably takes off.  leaves_ra: what it leaves.
        guessed: how deep the marks were that it met is a guess, so its time alone says nothing about the rate.
        shape: the kind of the face's shape, for what two sizes mean.
    """

    carrier: str
    family: str
    seconds: float
    life: float | None
    change_after: float | None
    takes: float
    leaves_ra: float
    guessed: bool
    shape: str | None
    yours: Yours

    def fresh(self, seconds: float) -> float:
        return float(fresh_in(seconds=seconds, life=self.life or math.inf, change_after=self.change_after or math.inf))


def observed(run: Run, planned: Stages, *, run_id: int) -> list[Observation]:
    """Everything that a finished run teaches. Readings of stand-ins and steps that were tapped away teach nothing.

    The removal rate follows from the time that a step took to clear marks of known depth, or from two readings of a size or a
    coat around it; the life from how long an abrasive lasted that was changed; the scratch from a measured Ra.
    """
    found = [*_by_time(run, planned), *_by_readings(run, planned), *_by_changes(run, planned), *_by_roughness(run, planned)]
    return [Observation(run_id, what.carrier, what.family, quantity, ratio) for what, quantity, ratio in found if ratio > 0]


Said = Iterator[tuple[Planned, LearntQuantity, float]]


def _mistap() -> float:
    """Seconds: a step this short was tapped away, not worked."""
    return constant("learning.mistap").si


def _most() -> float:
    """The share of a step that must have been worked when a reading speaks of it."""
    return constant("learning.most_of_step").value


def _by_time(run: Run, planned: Stages) -> Said:
    for (_, face, route, step), work in run.works.items():
        what = planned.get((face, route, step))
        if what is None or what.guessed or work.outcome != "gone" or work.seconds < _mistap():
            continue
        yield what, "removal", what.yours.removal * what.fresh(what.seconds) / what.fresh(work.seconds)


def _by_readings(run: Run, planned: Stages) -> Said:
    """Two readings at one place with one planned step between them. A way back may have been over a patch beside the place."""
    before: dict[tuple[object, ...], tuple[Measured, SecondsWorked]] = {}
    for piece, face, reading, worked in _readings(run, ("size", "coat")):
        place = (piece, face, reading.quantity, reading.position, reading.direction)
        if place in before:
            old, then = before[place]
            spent = {key: seconds - then.get(key, 0.0) for key, seconds in worked.items()}
            between = [key for key, seconds in spent.items() if seconds >= _mistap()]
            what = planned.get(between[0]) if len(between) == 1 and between[0][1] == 0 else None
            if what is not None and spent[between[0]] >= _most() * worked[between[0]]:
                gone = layer_between(old.value, reading.value, what.shape if reading.quantity == "size" else None)
                expected = what.takes * what.fresh(spent[between[0]]) / what.fresh(what.seconds)
                yield what, "removal", what.yours.removal * gone / expected
        before[place] = reading, worked


def _by_changes(run: Run, planned: Stages) -> Said:
    for tool, lasted in run.worn_at.items():
        stages = (stage for stages in run.stages.values() for stage in stages if stage.tool == tool)
        what = next((planned[stage.key] for stage in stages if stage.key in planned), None)
        if what is None or what.change_after is None:
            continue
        for seconds in lasted:
            if seconds >= _mistap():
                yield what, "life", what.yours.life * seconds / what.change_after


def _by_roughness(run: Run, planned: Stages) -> Said:
    """A measured Ra speaks of the last step that was done on the face, if the next was not begun."""
    for piece, _, reading, worked in _readings(run, ("ra",)):
        done = [key for key, seconds in worked.items() if seconds >= _mistap()]
        last = max(done, key=lambda key: key[1:], default=None)
        if last is None or last not in planned:
            continue
        what, at = planned[last], (piece, *last)
        if run.works[at].outcome == "gone" and worked[last] >= _most() * run.works[at].seconds:
            yield what, "scratch", what.yours.scratch * reading.value / what.leaves_ra


def _readings(run: Run, quantities: tuple[str, ...]) -> Iterator[tuple[int, str, Measured, SecondsWorked]]:
    """Every real reading of these: piece, face, reading, and the seconds worked so far at each stage of that."""
    now = begin(run.layout)
    for event in run.standing:
        now = happen(now, event)
        reading = event.measured
        if reading is None or reading.simulated or reading.quantity not in quantities:
            continue
        if event.piece is None or event.stage is None:
            continue
        face = event.stage[0]
        worked = {
            (at_face, route, step): work.seconds
            for (piece, at_face, route, step), work in now.works.items()
            if piece == event.piece and at_face == face
        }
        if now.clock is not None and now.current is not None and now.current[0] == event.piece:
            stage = now.current[1]
            if stage.face == face:
                worked[stage.key] = worked.get(stage.key, 0.0) + elapsed(now.clock, event.at)
        yield event.piece, face, reading, worked


@dataclass(frozen=True, slots=True)
class LightCheck:
    """When and where a light check was made: after the event `after`, at a stage (face, route, step) of a piece."""

    after: int
    piece: int
    stage: tuple[str, int, int]


@dataclass(frozen=True, slots=True)
class TurnedOut:
    """Whether the person said at the check that old marks are left, and whether there were; None while nobody knows."""

    person: bool | None
    left: bool | None


def turned_out(run: Run, check: LightCheck) -> TurnedOut:
    """What the person said next at that stage, and what came of it.

    They look under the lamp, so what they see is there: "keep going" and "found a deep one" say that marks were left. "Old
    marks gone" is right if nobody went back on that face of the piece later on and the run came out as wanted.
    """
    later = [event for event in run.standing if event.number > check.after]
    said = next(
        (
            event.kind
            for event in later
            if event.piece == check.piece and event.stage == check.stage and event.kind in ("gone", "more", "back", "accepted")
        ),
        None,
    )
    if said is None:
        return TurnedOut(None, None)
    if said != "gone":
        return TurnedOut(True, True)
    on_face = [event for event in later if event.piece == check.piece and event.stage and event.stage[0] == check.stage[0]]
    if any(event.kind in ("back", "accepted") for event in on_face):
        return TurnedOut(False, True)
    return TurnedOut(False, False if run.status == "finished" and run.well else None)


def way_of(run: Run, job: Job, face: str, name: str) -> HouseWay:
    """The planned route of a face, with the median time of the pieces that went straight through it.

    Raises:
        BadInput: no name is given, the run is not finished well, or the face was not worked as it can be told from.
    """
    if not name.strip():
        raise BadInput.one("name", "give it a name that the shop knows it by")
    if run.status != "finished" or not run.well:
        raise BadInput.one("run", "only a run that was finished as wanted can become a house way")
    found = job.face(face)
    stages = [stage for stage in run.layout.stages if stage.face == found.key]
    if not stages:
        raise BadInput.one("face", f'no face "{face}" was worked in this run')
    if not found.want.id:
        raise BadInput.one("face", "a house way is for a finish by name, and this face was wanted by its roughness")
    seconds = _seconds_straight_through(run, found.key)
    if not seconds:
        raise BadInput.one("face", "no piece went through this face without going back or leaving a step out")
    took = median_high(seconds)
    if took < constant("house.worked").value * sum(stage.seconds for stage in stages):
        raise BadInput.one(
            "face", f"its steps were tapped through in {from_si(took, 'min'):.2g} min; put their times right first"
        )
    return HouseWay(
        id=0,
        name=name.strip(),
        family=job.material.family,
        finish=found.want.id,
        kind=kind_of_find(found),
        reach=found.reach,
        depth=depth_of_find(found),
        area=found.area,
        seconds=took,
        metal=sum(stage.takes for stage in stages),
        route=tuple(stage.tool for stage in stages),
    )


def _seconds_straight_through(run: Run, face: str) -> list[float]:
    """Seconds on the work of every piece that went straight through the face."""
    by_piece = [[run.work(piece, stage) for stage in stages if stage.face == face] for piece, stages in run.stages.items()]
    return [sum(work.seconds for work in works) for works in by_piece if all(work.outcome == "gone" for work in works)]
