"""Runs at the bench: begin one, tap, look, go back. Every tap is one transaction: it is kept whole before it is answered."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import replace
from functools import partial
from typing import Any, Final, cast

from sqlalchemy.orm import Session

from kelbrast.app.board_at_bench import KeptRun
from kelbrast.app.clock import machine_clock
from kelbrast.app.followed import figures_of, follows, taken_from_rack
from kelbrast.app.jobs import Jobs
from kelbrast.app.planning import job_of, mark_depth, plan_file
from kelbrast.app.readable import readable
from kelbrast.core.bench.events import Clock, Moment, elapsed
from kelbrast.core.bench.expected import ahead, done_on
from kelbrast.core.bench.figures import gone_by_measurement
from kelbrast.core.bench.observed import LightCheck, TurnedOut, turned_out
from kelbrast.core.bench.run import Run
from kelbrast.core.bench.taps import BESIDE, check_undo, happen, replay
from kelbrast.core.catalogue.damages import fault_of_work
from kelbrast.core.catalogue.finishes import finishes
from kelbrast.core.errors import BadInput, Conflict
from kelbrast.core.job import JobState, state_after_tap
from kelbrast.core.planning.questions.goback import back_from
from kelbrast.core.rack.item import of_work
from kelbrast.core.units import from_si, to_si
from kelbrast.documents.common.versions import EVENT, up_to_date
from kelbrast.documents.job.format import JobFile
from kelbrast.documents.job.read import check_job_file, to_job
from kelbrast.documents.plan.format import FacePlanFile, PlanFile
from kelbrast.documents.plan.questions import GoBackFile, to_goback_file
from kelbrast.documents.run.format import (
    EventFile,
    TapFile,
    in_ids,
    kept_tap,
    moment_of,
    to_events,
    to_layout,
    to_measured,
)
from kelbrast.storage import eye_checks, run_results
from kelbrast.storage import jobs as job_store
from kelbrast.storage import runs as store
from kelbrast.storage.sessions import is_writing, reading, writing

MOST_PIECES: Final = 500  # each has a place on the screen
_TAP_MAY_WAIT: Final = 24 * 3600.0  # a tap that could not be sent is kept by the screen, and says how old it is


class Runs:
    """The runs of one database."""

    def __init__(self, jobs: Jobs, clock: Clock = machine_clock) -> None:
        self._jobs = jobs
        self.engine = jobs.engine
        self._clock = clock

    def begin(self, job_id: int) -> KeptRun:
        """Take a kept job to the bench, with its plan as it is now; the run that it has there already is gone on with.

        Raises:
            NotFound: no such job.  BadInput: it has no plan that could be followed.
        """
        kept = self._beginning(job_id)
        with writing(self.engine) as session:
            if (there := store.open_run_of(session, job_id)) is not None:
                return self._kept(store.get_run(session, there))
            job_store.set_state(session, job_id, "at-the-bench")
            return replace(kept, id=self._add(session, kept))

    def take_in(self, job_id: int, events_of: Callable[[JobFile, PlanFile], Sequence[EventFile]]) -> KeptRun:
        """A run that is over already, with everything that happened, in one transaction. The rack is not told.

        Raises:
            NotFound: no such job.  BadInput: it has no plan, or an event cannot have happened.
        """
        kept = self._beginning(job_id)
        events = tuple(events_of(kept.file, kept.plan))
        happened = tuple(to_events(events, kept.job))
        began = happened[0].at.when if happened else kept.began_at
        kept = replace(kept, events=events, happened=happened, run=replay(kept.run.layout, happened), began_at=began)
        with writing(self.engine) as session:
            kept = replace(kept, id=self._add(session, kept))
            for event in events:
                document = event.model_dump(mode="json", exclude_defaults=True)
                store.append_event(session, kept.id, event.number, f"taken-in-{event.number}", EVENT, document)
            run_results.replace_what_follows(session, kept.id, kept.run.seen, follows(kept, {}))
        return kept

    def _beginning(self, job_id: int) -> KeptRun:
        """A run of a kept job before anything happened; not kept yet."""
        file = self._jobs.get(job_id).job
        plan = plan_file(file, self._jobs.rack.shelf())
        if not plan.possible:
            reason = plan.blocked or next((face.reason for face in plan.faces if face.reason), "")
            raise BadInput.one("job", f"this job has no plan that could be followed: {reason}")
        if plan.pieces > MOST_PIECES:
            raise BadInput.one("pieces", f"a run takes at most {MOST_PIECES} pieces; work them in batches")
        if not any(face.steps for face in plan.faces):
            raise BadInput.one("job", "there is nothing to do on this job: every face is as wanted")
        now = self._clock()
        job = to_job(file)
        return KeptRun(0, job_id, now.when, file, job, plan, (), (), replay(to_layout(job, plan), []), now)

    def _add(self, session: Session, kept: KeptRun) -> int:
        return store.add_run(
            session,
            job_id=kept.job_id,
            job=kept.file.model_dump(mode="json", exclude_none=True),
            plan=kept.plan.model_dump(mode="json"),
            finishes=self.finishes_of(kept),
            began_at=kept.began_at,
            figures=figures_of(kept),
        )

    @staticmethod
    def finishes_of(kept: KeptRun) -> str:
        """The finishes that were wanted, by their labels."""
        wanted = [face.want.finish for face in kept.file.faces if face.want.finish and not face.keep_off and not face.edge]
        return ", ".join(dict.fromkeys(finishes()[name].label for name in wanted))

    def open(self) -> list[KeptRun]:
        """The runs that are at the bench, the newest first; without those that this version cannot read."""
        with reading(self.engine) as session:
            stored = [store.get_run(session, run_id) for run_id in store.open_runs(session)]
            return readable(stored, self._kept, lambda stored_run: (stored_run.id, str(stored_run.job.get("title", ""))))[0]

    def get(self, run_id: int) -> KeptRun:
        """A run as it stands now.

        Raises:
            NotFound: no such run.
        """
        with reading(self.engine) as session:
            return self._read(session, run_id)[0]

    def _read(self, session: Session, run_id: int) -> tuple[KeptRun, Mapping[str, Any]]:
        """A run, and what it took from the rack so far; from memory where nothing was tapped since."""
        newest = store.newest_tap(session, run_id)
        known = self._jobs.runs_read.get(run_id, newest)
        if known is not None:
            return replace(known[0], now=self._clock()), known[1]
        stored = store.get_run(session, run_id)
        kept = self._kept(stored)
        if not is_writing(self.engine):
            self._jobs.runs_read.put(run_id, newest, kept, stored.taken)
        return kept, stored.taken

    def ahead(self, run_id: int) -> tuple[int, list[KeptRun]]:
        """The newest event, and the run as it would stand after each of the next steps if all goes as planned.

        Raises:
            NotFound: no such run.
        """
        kept = self.get(run_id)
        return kept.run.seen, [
            replace(kept, run=foreseen.run, now=foreseen.at) for foreseen in ahead(kept.run, kept.job, kept.now)
        ]

    def seen(self, run_id: int) -> int:
        """The number of the newest event: cheap to ask every second.

        Raises:
            NotFound: no such run.
        """
        with reading(self.engine) as session:
            return store.seen_of(session, run_id)

    def tap(
        self, run_id: int, tap: TapFile, *, name: str, after: int, after_tap: str | None = None, age: float = 0.0
    ) -> KeptRun:
        """Keep a tap, if it can have happened. When this returns, it is on the disk.

        Args:
            name: names this very tap, so that sending it twice keeps it once.
            after: number of the newest event that the screen had seen.
            after_tap: or: the tap of its own that it had kept before this one, while nobody answered it.
            age: seconds since the tap, when it had to wait.

        Raises:
            NotFound: no such run.  BadInput: it cannot have happened.
            Conflict: somebody else tapped since the screen looked; nothing was kept.
        """
        bars = self._jobs.rack.bars()  # read before anybody else has to wait
        with writing(self.engine) as session:
            kept, before_taken = self._read(session, run_id)
            if store.tapped_already(session, run_id, name):
                return kept
            if after > kept.run.seen:
                raise Conflict("this run is not the one that the screen had seen: look again, then tap")
            if after_tap is not None:
                after = store.number_of(session, run_id, after_tap)
            if tap.kind not in BESIDE and any(event.kind not in BESIDE for event in kept.events[after:]):
                raise Conflict("another screen has tapped since this one looked: look again, then tap")
            event = self._as_kept(kept, tap, age)
            files = (*kept.events, event)
            happened = (*kept.happened, *to_events([event], kept.job))
            if tap.kind == "undone":
                check_undo(kept.run, happened[-1])
                run = replay(kept.run.layout, happened)
            else:
                run = happen(kept.run, happened[-1])
            store.append_event(session, run_id, event.number, name, EVENT, event.model_dump(mode="json", exclude_defaults=True))
            before, kept = kept.run, replace(kept, events=files, happened=happened, run=run)
            if _matters(tap):
                taken, told = taken_from_rack(kept, dict(before_taken), bars)
                self._jobs.rack.tell(session, told, why=of_work(kept.file.title))
                run_results.replace_what_follows(session, run_id, event.number, follows(kept, taken))
                eye_checks.follow_looks(session, run_id, partial(came_of, kept))
                _tell_job(session, before, kept)
            else:
                taken = dict(before_taken)
                store.count_event(session, run_id, event.number)
        if not is_writing(self.engine):  # kept for good
            self._jobs.runs_read.put(run_id, (event.number, name, kept.job_id), kept, taken)
        return replace(kept, now=self._clock())

    def ways_back(self, run_id: int, *, depth_um: float | None, like: str | None, fingernail: bool) -> GoBackFile:
        """What to do about a mark of this depth that the light check of the step in hand showed.

        Raises:
            NotFound: no such run.  BadInput: nothing is in hand, or the depth cannot be used.
        """
        kept = self.get(run_id)
        return self._ways_back(kept, mark_depth(kept.job, depth_um=depth_um, like=like, fingernail=fingernail))

    def _ways_back(self, kept: KeptRun, depth: float) -> GoBackFile:
        if kept.run.current is None:
            raise BadInput.one("kind", "every step of every piece is done")
        piece, stage = kept.run.current
        job = job_of(kept.file, self._jobs.rack.shelf())
        done = done_on(kept.run, piece, stage.face, with_current=True)
        gone = gone_by_measurement(kept.run, piece, stage.face, kept.job.shapes)
        return to_goback_file(job, back_from(job, job.face(stage.face), done, depth=depth, gone=gone))

    def _as_kept(self, kept: KeptRun, tap: TapFile, age: float) -> EventFile:
        """The tap with its number and moment, and with what the planner answers to a mark."""
        at = self._moment(kept, age)
        depth_um, back, way = tap.depth_um, None, None
        if tap.kind in ("back", "accepted"):
            depth = mark_depth(kept.job, depth_um=tap.depth_um, like=tap.like, fingernail=tap.fingernail)
            depth_um = round(from_si(depth, "um"), 4)
            if tap.kind == "back":
                back, way = self._new_route(kept, tap, to_si(depth_um, "um")), kept.run.next_route
        if tap.measured is not None:
            to_measured(tap.measured)
        if tap.fault is not None:
            fault_of_work(tap.fault)
        return kept_tap(tap, kept.run.seen + 1, at, depth_um=depth_um, back=back, way=way)

    def _new_route(self, kept: KeptRun, tap: TapFile, depth: float) -> FacePlanFile:
        goback = self._ways_back(kept, depth).goback
        chosen = goback.patch if tap.extent == "patch" else goback.whole if tap.extent == "whole" else None
        if chosen is None:
            raise BadInput.one("extent", 'must be "whole", or "patch" where a patch would not show')
        if not chosen.possible:
            raise BadInput.one("extent", f"there is no way back: {chosen.reason}")
        return chosen

    def _moment(self, kept: KeptRun, age: float) -> Moment:
        """When it was tapped, but never before what happened last."""
        now = self._clock()
        at = now.earlier(min(max(age, 0.0), _TAP_MAY_WAIT))
        last = moment_of(kept.events[-1]) if kept.events else None
        if last is None or elapsed(last, at) > 0:
            return at
        return last if elapsed(last, now) > 0 else now

    def _kept(self, stored: store.StoredRun) -> KeptRun:
        file = check_job_file(dict(stored.job))
        job = to_job(file)
        as_kept = PlanFile.model_validate(up_to_date(stored.plan, stored.plan.get("kelbrast")))
        happened_then = [EventFile.model_validate(up_to_date(one, form), strict=False) for form, one in stored.events]
        plan, events = in_ids(as_kept, happened_then, job)
        happened = tuple(to_events(events, job))
        run = replay(to_layout(job, plan), happened)
        return KeptRun(stored.id, stored.job_id, stored.began_at, file, job, plan, events, happened, run, self._clock())


def came_of(kept: KeptRun, check: LightCheck) -> TurnedOut:
    """What came of a light check. Before faces had ids, they were kept by their names."""
    face, route, step = check.stage
    return turned_out(kept.run, replace(check, stage=(kept.job.face(face).key, route, step)))


def _matters(tap: TapFile) -> bool:
    """Whether a tap changes what follows from the events: nearly all do; starting the clock does not."""
    return tap.kind not in ("started", "picked", "order", "recharged", "waiting", "photo")


def _tell_job(session: Session, before: Run, kept: KeptRun) -> None:
    """A job whose run came out as wanted is done; one whose end was taken back is at the bench again."""
    if kept.job_id is not None:
        state = cast(JobState, job_store.get_job(session, kept.job_id).state)
        job_store.set_state(session, kept.job_id, state_after_tap(state, was_well=_well(before), is_well=_well(kept.run)))


def _well(run: Run) -> bool:
    return run.status == "finished" and bool(run.well)
