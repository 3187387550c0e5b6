"""A run as it stands at the bench: what it is, what its readings are held against, and what a stand-in would read."""

from dataclasses import dataclass
from datetime import datetime

from kelbrast.core.bench.clock import Moment, elapsed
from kelbrast.core.bench.events import Event, Stage
from kelbrast.core.bench.figures import first_reading
from kelbrast.core.bench.instruments import gloss_of
from kelbrast.core.bench.limits import Facts, Verdict, judge
from kelbrast.core.bench.run import Run
from kelbrast.core.catalogue.machines import machine
from kelbrast.core.planning.goback import Done
from kelbrast.core.planning.job import Job
from kelbrast.core.reference.loader import constant
from kelbrast.core.surface.shapes import ROUND, size_after
from kelbrast.core.units import to_si
from kelbrast.exchange.job_file import JobFile
from kelbrast.exchange.plan_file import PlanFile, StepFile
from kelbrast.exchange.read import to_job
from kelbrast.exchange.run_file import EventFile, shapes_of, steps_of_run


@dataclass(frozen=True, slots=True)
class KeptRun:
    """A run with its files, its state, and the moment for which that holds."""

    id: int
    job_id: int | None
    began_at: datetime
    file: JobFile
    plan: PlanFile
    events: tuple[EventFile, ...]
    happened: tuple[Event, ...]
    run: Run
    now: Moment

    @property
    def job(self) -> Job:
        """The job of the core as it was when the run began."""
        return to_job(self.file)

    @property
    def shapes(self) -> dict[str, str]:
        """The kind of shape of each face that has one."""
        return shapes_of(self.file)

    @property
    def steps(self) -> dict[tuple[str, int, int], StepFile]:
        """Every step of the plan and of the ways back, by face, route and number."""
        return steps_of_run(self.plan, self.events)

    def done_on(self, piece: int, face: str, *, with_current: bool) -> list[Done]:
        """The steps that were done on a face of a piece, in order; with the one in hand, whose light check failed."""
        found = []
        for stage in self.run.stages[piece]:
            outcome = self.run.work(piece, stage).outcome
            in_hand = with_current and self.run.current == (piece, stage)
            if stage.face == face and (outcome in ("gone", "back") or in_hand):
                found.append(Done(stage.takes, stage.leaves))
        return found

    def verdict(self, event: Event) -> Verdict | None:
        """What a reading means against the limits that held for it."""
        if event.measured is None:
            return None
        stage = event.stage
        first = first_reading(self.run, event.measured, event.piece, stage[0] if stage else None)
        return judge(event.measured, self._facts(stage, event.piece), first)

    def expected(self, quantity: str, piece: int, stage: Stage | None) -> float | None:
        """What the plan expects an instrument to read now, in SI; None where it expects nothing."""
        if stage is None:
            return None
        step, face = self.steps.get(stage.key), next(one for one in self.file.faces if one.name == stage.face)
        done = self.done_on(piece, stage.face, with_current=False)
        gone = sum(one.layer for one in done)
        ra = done[-1].leaves / constant("scratch.depth_per_ra").value if done else None
        match quantity:
            case "coat":
                return to_si(face.coat_um, "um") - gone if face.coat_um is not None else None
            case "size" if face.shape is not None and face.shape.kind in ROUND and face.shape.diameter_mm is not None:
                return size_after(to_si(face.shape.diameter_mm, "mm"), gone, face.shape.kind)
            case "size" if face.thickness_mm is not None:
                return size_after(to_si(face.thickness_mm, "mm"), gone, None)
            case "ra":
                return ra
            case "gloss":
                return gloss_of(ra) if ra is not None else None
            case "spindle" if step is not None and step.rpm is not None:
                return to_si(step.rpm, "rev/min")
            case "temperature":
                return self._warmth(step)
        return None

    def _in_hand(self, step: StepFile) -> bool:
        """A bare hand holds the part to a machine that stands."""
        job = self.job
        return job.part.held == "hand" and job.comes_to_the_bench and machine(step.machine).stands

    def _warmth(self, step: StepFile | None) -> float:
        """The part as warm as the plan has it: from the room's warmth up to where it is put down to rest, K."""
        room = constant("heat.room").si
        if step is None or step.rests is None or self.run.clock is None:
            return room
        limit = constant("heat.hand").si if step.rests.by_hand else self.job.hottest
        return room + (limit - room) * min(1.0, elapsed(self.run.clock, self.now) / step.rests.after_seconds)

    def _facts(self, key: tuple[str, int, int] | None, piece: int | None) -> Facts:
        job = self.job
        if key is None:
            return Facts(hottest=job.hottest)
        face = next(one for one in job.faces if one.name == key[0])
        file = next(one for one in self.file.faces if one.name == key[0])
        step = self.steps.get(key)
        finished = piece is not None and all(
            self.run.work(piece, stage).outcome != "open" for stage in self.run.stages[piece] if stage.face == key[0]
        )
        low, high = (face.want.ra_low, face.want.ra_high) if finished else (None, None)
        return Facts(
            keep=to_si(file.keep_um, "um") if file.keep_um is not None else None,
            may_go=face.limit,
            shape=self.shapes.get(key[0]),
            hottest=job.hottest,
            by_hand=step is not None and self._in_hand(step),
            diameter=to_si(step.diameter_mm, "mm") if step and step.diameter_mm is not None else None,
            marked=step.speed_limit_m_s if step else None,
            spindle=to_si(step.rpm, "rev/min") if step and step.rpm is not None else None,
            ra_low=low,
            ra_high=high,
        )
