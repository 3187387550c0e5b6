"""What happens in a day: tried on the schedule, told to it, taken back; and why a promise is late."""

from collections.abc import Collection

from kelbrast.app.board import Board, Boards, Standing
from kelbrast.core.day.events import DayEvent, has_job
from kelbrast.core.day.greedy import put_job_first
from kelbrast.core.day.promises import cures, effect, reason
from kelbrast.core.errors import BadInput
from kelbrast.documents.day.events import DayEventFile, EffectFile, LateFile, to_effect_file, to_event, to_late_file


def try_event(boards: Boards, file: DayEventFile) -> EffectFile:
    """What something that happens would do to every promise; nothing is changed.

    Raises:
        BadInput: it does not say what its kind needs, or nobody and nothing here is called so.
    """
    stands = boards.standing()
    return to_effect_file(effect(stands.work, stands.plan, _event(stands, file)), stands.work)


def happen(boards: Boards, file: DayEventFile) -> Board:
    """Something happened: the rest of the day is planned around it.

    Raises:
        BadInput: as above, or nothing could be planned then.
    """
    stands = boards.standing()
    event = _event(stands, file)
    if effect(stands.work, stands.plan, event) is None:
        raise BadInput.one("kind", "nothing could be planned then")
    return boards.keep_events([*boards.events(stands.day), (event.at, _as_soon_as_it_can_be(stands, file))])


def _as_soon_as_it_can_be(stands: Standing, file: DayEventFile) -> DayEventFile:
    """An urgent job without a time is wanted by when it would be done if it went first."""
    if file.kind != "urgent" or file.until_min is not None:
        return file
    first = put_job_first(stands.work, str(file.job))
    if first is None:
        return file
    work, plan = first
    ends = max(placed.ends for placed in plan if work.by_id[placed.task].job == str(file.job))
    return file.model_copy(update={"until_min": max(0, ends - stands.origin)})


def forget(boards: Boards, number: int) -> Board:
    """Take back what was said to have happened today; `number`: from 0, as the board lists it.

    Raises:
        BadInput: there is no such thing.
    """
    events = boards.events(boards.standing().day)
    if not 0 <= number < len(events):
        raise BadInput.one("number", "nothing of this number happened today")
    return boards.keep_events([one for at, one in enumerate(events) if at != number])


def late(boards: Boards, job_id: int) -> LateFile:
    """Why a job's promise is late, and what would help.

    Raises:
        BadInput: it is not on the schedule.
    """
    stands, job = boards.standing(), str(job_id)
    work, plan = stands.work, stands.plan
    ends = {placed.task: placed.ends for placed in plan}
    if not any(work.by_id[task].job == job for task in ends):
        raise BadInput.one("job", "this job is not on the schedule")
    found = reason(work, plan, job)
    return to_late_file(job, found, cures(work, plan, job), work, ends.__getitem__, stands.origin)


def _event(stands: Standing, file: DayEventFile) -> DayEvent:
    """The event as it is said now, about somebody or something that is here."""
    here: dict[str, Collection[str]] = {
        "person": [person.name for person in stands.work.people],
        "machine": [station.id for station in stands.work.stations],
        "block": [task.key for task in stands.work.tasks],
        "operation": [task.operation for task in stands.work.tasks if task.operation],
    }
    for what, known in here.items():
        said = getattr(file, what)
        if said is not None and said not in known:
            raise BadInput.one(what, f"{said} is not on this schedule")
    if file.job is not None and has_job(stands.work, str(file.job)) is None:
        raise BadInput.one("job", "this job is not on the schedule")
    return to_event(file, at=stands.work.now, origin=stands.origin)
