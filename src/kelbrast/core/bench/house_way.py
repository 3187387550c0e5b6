"""A house way made of a run that came out well."""

from statistics import median_high

from kelbrast.core.bench.run import Run
from kelbrast.core.errors import BadInput
from kelbrast.core.job import Job
from kelbrast.core.planning.questions.house import HouseWay, depth_of_find, kind_of_find
from kelbrast.core.reference.loader import constant
from kelbrast.core.units import from_si


def way_of(run: Run, job: Job, face: str, name: str) -> HouseWay:
    """The planned route of a face, with the median time of the pieces that went straight through it.

    Raises:
        BadInput: no name is given, the run is not finished well, or the face was not worked as it can be told from.
    """
    if not name.strip():
        raise BadInput.one("name", "give it a name that the shop knows it by")
    if run.status != "finished" or not run.well:
        raise BadInput.one("run", "only a run that was finished as wanted can become a house way")
    found = next((one for one in job.faces if face in (one.key, one.name)), None)
    stages = [stage for stage in run.layout.stages if found is not None and stage.face == found.key]
    if found is None or not stages:
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
    by_piece = [[run.work(piece, one) for one in stages if one.face == face] for piece, stages in run.stages.items()]
    return [sum(work.seconds for work in works) for works in by_piece if all(work.outcome == "gone" for work in works)]
