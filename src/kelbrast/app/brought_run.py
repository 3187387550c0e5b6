"""A run that was done elsewhere, from its file into the log."""

from dataclasses import replace
from datetime import datetime

from kelbrast.app.board_at_bench import KeptRun
from kelbrast.app.followed import figures_of, follows
from kelbrast.app.runs import Runs
from kelbrast.core.bench.events import Moment
from kelbrast.core.bench.taps import replay
from kelbrast.core.errors import BadInput
from kelbrast.documents.common.versions import EVENT
from kelbrast.documents.job.read import to_job
from kelbrast.documents.run.format import EventFile, RunFile, in_ids, moment_of, to_events, to_layout
from kelbrast.storage import run_results
from kelbrast.storage import runs as store
from kelbrast.storage.sessions import writing


def bring_run(runs: Runs, file: RunFile) -> int:
    """Put a run that is over into the log and learn from it; the rack of this shop had no part in it. Returns its id.

    Raises:
        BadInput: it is not over, is in the log already, or an event of it cannot have happened.
    """
    if not file.events:
        raise BadInput.one("events", "nothing happened in this run")
    if file.status == "open":
        raise BadInput.one("status", "this run is still open where it is worked: finish or stop it there first")
    kept = _replayed(file)
    with writing(runs.engine) as session:
        if (there := store.run_begun(session, file.job.title, kept.began_at)) is not None:
            raise BadInput.one("events", f"this run is in the log already, as number {there}")
        run_id = store.add_run(
            session,
            job_id=None,
            job=file.job.model_dump(mode="json", exclude_none=True),
            plan=kept.plan.model_dump(mode="json"),
            finishes=runs.finishes_of(kept),
            began_at=kept.began_at,
            figures=figures_of(kept),
        )
        for event in kept.events:
            document = event.model_dump(mode="json", exclude_defaults=True)
            store.append_event(session, run_id, event.number, f"brought-in-{event.number}", EVENT, document)
        found = follows(replace(kept, id=run_id), {})
        elsewhere = [(tool, None, seconds, at) for tool, _, seconds, at in found.steps]
        run_results.replace_what_follows(session, run_id, kept.run.seen, replace(found, steps=elsewhere))
    return run_id


def _replayed(file: RunFile) -> KeptRun:
    job = to_job(file.job)
    plan, events = in_ids(file.plan, [_without_photo(event) for event in file.events], job)
    if [event.number for event in events] != list(range(1, len(events) + 1)):
        raise BadInput.one("events", "must be numbered from 1 without a gap")
    try:
        happened = tuple(to_events(events, job))
        run = replay(to_layout(job, plan), happened)
    except KeyError as missing:
        raise BadInput.one("events", f"speak of {missing}, which is not in the job or its plan") from None
    if run.status != file.status:
        raise BadInput.one("status", f'says "{file.status}", and by its events the run is "{run.status}"')
    began: datetime = happened[0].at.when
    now: Moment = moment_of(events[-1])
    return KeptRun(0, None, began, file.job, job, plan, events, happened, run, now)


def _without_photo(event: EventFile) -> EventFile:
    """A photo is not in the file of its run: that there was one is all that is left of it."""
    if event.kind != "photo":
        return event
    words = f"A photo was taken. {event.words}".strip()
    return event.model_copy(update={"kind": "note", "photo": None, "words": words})
