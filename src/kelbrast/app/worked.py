"""A job was worked from the rack: its wheels are bound for life, and what it used up is counted down."""

from kelbrast.app.jobs import Jobs
from kelbrast.app.planning import job_of
from kelbrast.core.catalogue.tools import Tool, tool
from kelbrast.core.errors import BadInput
from kelbrast.core.planning.plan import plan_job
from kelbrast.core.rack.item import keeps_to_one_family
from kelbrast.exchange.rack_file import EventFile
from kelbrast.storage.runs import runs_of_job
from kelbrast.storage.sessions import reading

Events = list[tuple[int, EventFile]]


def job_worked(jobs: Jobs, job_id: int) -> int:
    """Write down what the plan of a kept job does to the rack, for all its pieces. Returns how many items changed.

    Raises:
        NotFound: no such job.  BadInput: it is not planned from the rack, or has no plan.
    """
    file = jobs.get(job_id).job
    if file.use_rack != "own":
        raise BadInput.one("use_rack", "this job is planned from the catalogue; plan it from your own rack first")
    with reading(jobs.engine) as session:
        if runs_of_job(session, job_id):
            raise BadInput.one("use_rack", "this job was at the bench, and every tap there told the rack already")
    job = job_of(file, jobs.rack.shelf())
    plan = plan_job(job)
    if not plan.possible:
        raise BadInput.one("faces", "this job has no plan that could have been worked")
    worn: dict[tuple[str, int], float] = {}
    for face in plan.faces:
        for step in face.steps:
            if step.own is not None:
                key = step.tool.id, step.own.item
                worn[key] = worn.get(key, 0.0) + step.worn * job.pieces
    bars = jobs.rack.bars()
    events: Events = []
    for (name, item), used in worn.items():
        events += effects(tool(name), item, used, job.material.family, bars)
    jobs.rack.note_all(events, why=f"worked: {file.title}")
    return len({item for item, _ in events})


def effects(one: Tool, item: int, used: float, family: str, bars: dict[str, int]) -> Events:
    """A wheel is bound and its bar counted down; a lap is bound; everything else is counted down."""
    found: Events = []
    if keeps_to_one_family(one.carrier):
        found.append((item, EventFile(kind="used", charge=one.charge, family=family)))
    if one.carrier.wear_law == "compound":
        bar = bars.get(one.charge or "")
        return [*found, (bar, EventFile(kind="stock", amount=-round(used, 4)))] if bar is not None and used else found
    if one.carrier.wear_law != "lap" and used:
        found.append((item, EventFile(kind="stock", amount=-round(used, 4))))
    return found
