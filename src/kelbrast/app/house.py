"""House ways: made from a run that went well, offered for the faces of a job."""

from dataclasses import dataclass

from sqlalchemy import Engine

from kelbrast.app.at_bench import KeptRun
from kelbrast.app.planning import job_of
from kelbrast.app.rack import Shelf
from kelbrast.core.errors import BadInput
from kelbrast.core.planning.house import HouseWay, depth_of_find, kind_of_find, offers
from kelbrast.core.reference.loader import constant
from kelbrast.core.units import from_si
from kelbrast.exchange.house_file import HouseOfferFile, HouseWayFile, to_offer_file, to_way
from kelbrast.exchange.job_file import JobFile
from kelbrast.storage import shop
from kelbrast.storage.sessions import reading, writing


@dataclass(frozen=True, slots=True)
class KeptWay:
    """A house way with its id and the run that it comes from."""

    id: int
    name: str
    run_id: int | None
    file: HouseWayFile


class HouseWays:
    """The house ways of one database."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def all(self) -> list[KeptWay]:
        """Every house way, the newest first."""
        with reading(self._engine) as session:
            return [
                KeptWay(one.id, one.name, one.run_id, HouseWayFile.model_validate(dict(one.document)))
                for one in shop.all_recipes(session)
            ]

    def make(self, kept: KeptRun, face: str, name: str) -> KeptWay:
        """The way in which a face of this run was done becomes the house way for its kind.

        Raises:
            BadInput: the run is not finished well, the face was not worked, or no name is given.
        """
        if not name.strip():
            raise BadInput.one("name", "give it a name that the shop knows it by")
        if kept.run.status != "finished" or not kept.run.well:
            raise BadInput.one("run", "only a run that was finished as wanted can become a house way")
        file = _way_of(kept, face)
        with writing(self._engine) as session:
            made = shop.add_recipe(session, name.strip(), kept.id, file.model_dump(mode="json"))
        return KeptWay(made, name.strip(), kept.id, file)

    def forget(self, way_id: int) -> None:
        """Raises NotFound where there is no such house way."""
        with writing(self._engine) as session:
            shop.remove_recipe(session, way_id)

    def offered(self, file: JobFile, shelf: Shelf) -> list[HouseOfferFile]:
        """The house ways that fit the faces of a job, with their figures there.

        Raises:
            BadInput: the job can not be used.
        """
        ways: list[HouseWay] = [to_way(one.id, one.name, one.file) for one in self.all()]
        if not ways:
            return []
        job = job_of(file, shelf)
        return [to_offer_file(face.name, offer) for face in job.faces for offer in offers(face, job, ways)]


def _way_of(kept: KeptRun, name: str) -> HouseWayFile:
    """The planned route, with the median time of the pieces that went straight through it."""
    job = kept.job
    face = next((one for one in job.faces if one.name == name), None)
    plan = next((one for one in kept.plan.faces if one.name == name), None)
    if face is None or plan is None or not plan.steps:
        raise BadInput.one("face", f'no face "{name}" was worked in this run')
    if next(one for one in kept.file.faces if one.name == name).want.finish is None:
        raise BadInput.one("face", "a house way is for a finish by name, and this face was wanted by its roughness")
    minutes = sorted(from_si(seconds, "min") for seconds in _seconds_by_piece(kept, name).values())
    if not minutes:
        raise BadInput.one("face", "no piece went through this face without going back or leaving a step out")
    took, planned = minutes[len(minutes) // 2], sum(step.cut_minutes for step in plan.steps)
    if took < constant("house.worked").value * planned:
        raise BadInput.one("face", f"its steps were tapped through in {took:.2g} min; put their times right first")
    return HouseWayFile(
        family=job.material.family,
        finish=face.want.id,
        kind=kind_of_find(face),
        reach=face.reach,
        depth_um=from_si(depth_of_find(face), "um"),
        area_cm2=from_si(face.area, "cm2"),
        minutes=took,
        metal_um=plan.metal_um,
        route=[step.tool for step in plan.steps],
    )


def _seconds_by_piece(kept: KeptRun, face: str) -> dict[int, float]:
    """Seconds on the work for every piece that went straight through."""
    found = {}
    for piece, stages in kept.run.stages.items():
        works = [kept.run.work(piece, stage) for stage in stages if stage.face == face]
        if all(work.outcome == "gone" for work in works):
            found[piece] = sum(work.seconds for work in works)
    return found
