"""House ways: made from a run that went well, offered for the faces of a job."""

from dataclasses import dataclass

from sqlalchemy import Engine

from kelbrast.app.board_at_bench import KeptRun
from kelbrast.app.planning import job_of
from kelbrast.app.rack import Shelf
from kelbrast.app.readable import Unreadable, readable
from kelbrast.core.bench.observed import way_of
from kelbrast.core.planning.questions.house import offers
from kelbrast.documents.job.format import JobFile
from kelbrast.documents.run.house import HouseOfferFile, HouseWayFile, to_offer_file, to_way, to_way_file
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
        return self._read()[0]

    def unreadable(self) -> list[Unreadable]:
        """House ways that this version cannot read."""
        return self._read()[1]

    def _read(self) -> tuple[list[KeptWay], list[Unreadable]]:
        def read(stored_recipe: shop.StoredRecipe) -> KeptWay:
            return KeptWay(
                stored_recipe.id,
                stored_recipe.name,
                stored_recipe.run_id,
                HouseWayFile.model_validate(dict(stored_recipe.document)),
            )

        with reading(self._engine) as session:
            return readable(shop.all_recipes(session), read, lambda stored_recipe: (stored_recipe.id, stored_recipe.name))

    def make(self, kept: KeptRun, face: str, name: str) -> KeptWay:
        """The way in which a face of this run was done becomes the house way for its kind.

        Raises:
            BadInput: the run is not finished well, the face was not worked, or no name is given.
        """
        way = way_of(kept.run, kept.job, face, name)
        file = to_way_file(way)
        with writing(self._engine) as session:
            made = shop.add_recipe(session, way.name, kept.id, file.model_dump(mode="json"))
        return KeptWay(made, way.name, kept.id, file)

    def forget(self, way_id: int) -> None:
        """Raises NotFound where there is no such house way."""
        with writing(self._engine) as session:
            shop.remove_recipe(session, way_id)

    def offered(self, file: JobFile, shelf: Shelf) -> list[HouseOfferFile]:
        """The house ways that fit the faces of a job, with their figures there.

        Raises:
            BadInput: the job cannot be used.
        """
        ways = [to_way(kept_way.id, kept_way.name, kept_way.file) for kept_way in self.all()]
        if not ways:
            return []
        job = job_of(file, shelf)
        return [to_offer_file(face, offer) for face in job.faces for offer in offers(face, job, ways)]
