"""Pictures of how a surface looks at each stage: worked out in the background, kept by content."""

import threading
from collections import OrderedDict
from collections.abc import Sequence
from concurrent.futures import Future, ThreadPoolExecutor
from dataclasses import dataclass
from typing import Final

from kelbrast.app.board_at_bench import KeptRun
from kelbrast.app.photos import thumbnail
from kelbrast.app.planning import job_of, plan_file
from kelbrast.app.rack import Shelf
from kelbrast.core.catalogue.materials import material
from kelbrast.core.errors import NotFound
from kelbrast.core.reference.own_rows import carrying
from kelbrast.core.simulation.light import Lamp, look_of, reflected
from kelbrast.core.vision.fields import FIELD
from kelbrast.core.vision.old_marks import fields_needed, seen_on
from kelbrast.core.wording import Sentence, sentence
from kelbrast.documents.job.format import JobFile
from kelbrast.documents.surface.picture import (
    Asked,
    PatchSpec,
    asked_spec,
    found_spec,
    heights_of,
    in_words,
    mark_spec,
    not_yet_spec,
    patch_of,
    png_of,
    small_picture,
    width_of,
    working_specs,
)

_KNOWN: Final = 2000  # documents that can still be asked for by name
_KEPT: Final = 300  # pictures that are kept made; others are made again


@dataclass(frozen=True, slots=True)
class Tile:
    """A picture: the name that it can be asked for by, and what it shows."""

    key: str
    label: str
    step: int


class Light:
    """The pictures of this server."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._known: OrderedDict[str, PatchSpec] = OrderedDict()
        self._work: OrderedDict[str, Future[bytes]] = OrderedDict()
        self._pool = ThreadPoolExecutor(max_workers=1, thread_name_prefix="light")

    def strip(self, file: JobFile, shelf: Shelf, *, face: str) -> list[Tile]:
        """A face as found and after each step of its plan; the pictures are begun at once, in that order.

        Raises:
            BadInput: the job or the face cannot be used.
        """
        job = job_of(file, shelf)
        found = job.face(face)
        steps = next(face for face in plan_file(file, shelf, check=False).faces if face.id == found.key).steps
        if not steps or found.edge is not None:  # an edge has no surface of its own before it is worked
            return []
        base = PatchSpec(material=file.material, found=found_spec(found, job.material.hardness, steps))
        workings = working_specs(steps)
        where = steps[0].zone.begun if steps[0].zone else ()
        place = next((spots.name for spots in found.spots if spots.key in where), None)
        labels = [f"{place} as found" if place else "as found", *(step.label for step in steps)]
        specs = [base.model_copy(update={"steps": workings[:count]}) for count in range(len(steps) + 1)]
        return [Tile(self.offer(spec), label, step) for step, (spec, label) in enumerate(zip(specs, labels, strict=True))]

    def thumbnail(self, file: JobFile, shelf: Shelf) -> bytes | None:
        """The first face that is worked, as it will look when it is done; None where there is none."""
        job = job_of(file, shelf)
        for face in plan_file(file, shelf, check=False).faces:
            found = job.face(face.id)
            if face.steps and found.edge is None:
                base = PatchSpec(material=file.material, found=found_spec(found, job.material.hardness, face.steps))
                return thumbnail(self.picture(self.offer(base.model_copy(update={"steps": working_specs(face.steps)}))), "WEBP")
        return None

    def at_bench(self, kept: KeptRun) -> list[Tile]:
        """What the step in hand should look like when it is done, and what it looks like when it is not."""
        if kept.run.current is None:
            return []
        piece, stage = kept.run.current
        face = kept.job.face(stage.face)
        if face.edge is not None:
            return []
        before = [one for one in kept.run.stages[piece] if one.face == stage.face and one.route == stage.route]
        steps = [kept.steps[one.key] for one in before if one.step <= stage.step]
        hardness = kept.job.material.hardness
        found = mark_spec(steps[0].likely_um, hardness) if stage.route else found_spec(face, hardness, steps)
        base = PatchSpec(material=kept.file.material, found=found)
        workings = working_specs(steps)
        done = base.model_copy(update={"steps": workings})
        return [
            Tile(self.offer(spec), label, stage.step)
            for spec, label in ((done, "It should look like"), (not_yet_spec(done, steps[-1]), "Not yet, keep going"))
        ]

    def show(self, asked: Asked) -> str:
        """A patch that a person chose to look at.

        Raises:
            NotFound: no such material.  BadInput: a grade that cannot be read.
        """
        return self.offer(asked_spec(asked))

    def offer(self, spec: PatchSpec) -> str:
        """Begin a picture and give the name that it can be asked for by."""
        key = spec.key
        with self._lock:
            self._known[key] = spec
            self._known.move_to_end(key)
            while len(self._known) > _KNOWN:
                self._known.popitem(last=False)
            self._begun(key, spec)
        return key

    def _begun(self, key: str, spec: PatchSpec) -> Future[bytes]:
        """The work on a picture, begun if it is not yet. The lock is held."""
        if key not in self._work:
            self._work[key] = self._pool.submit(carrying(png_of), spec)
        while len(self._work) > _KEPT:
            self._work.popitem(last=False)
        return self._work[key]

    def picture_lit(self, key: str, lamp: Lamp) -> bytes:
        """A picture under a lamp that stands elsewhere."""
        return png_of(self._spec(key), lamp)

    def picture(self, key: str) -> bytes:
        """A picture by its name, waited for if it is still being made.

        Raises:
            NotFound: nobody asked for it since the program was started.
        """
        spec = self._spec(key)
        with self._lock:
            work = self._begun(key, spec)
        return work.result()

    def small_picture(self, key: str) -> bytes:
        """The same, small enough to be sent to many screens.

        Raises:
            NotFound: as above.
        """
        return small_picture(self.picture(key))

    def words(self, keys: Sequence[str]) -> list[Sentence]:
        """What pictures show, in figures. Each waits for its picture: the same patch is not worked out twice at once."""
        for key in keys:
            self.picture(key)
        return [in_words(self._spec(key)) for key in keys]

    def wide(self, key: str) -> Sentence:
        """How wide the part of the world is that a picture shows."""
        return sentence("picture.wide", wide=width_of(self._spec(key)))

    def reflected(self, key: str) -> float:
        """The share of light that a patch throws back as a mirror does."""
        return reflected(patch_of(self._spec(key)))

    def eye_says(self, key: str) -> Sentence | None:
        """What the eye sees of a worked face whose new marks run one way, on a piece as large as it needs; None of others."""
        spec = self._spec(key).model_copy(update={"rows": FIELD, "columns": fields_needed() * FIELD})
        if not spec.steps or spec.steps[-1].lay != "one-way":
            return None
        lay = -spec.steps[-1].angle  # rows run down
        seen = seen_on(patch_of(spec), look_of(material(spec.material)), lay)
        return sentence(f"eye.practice-{seen.verdict}")

    def heights(self, key: str) -> tuple[PatchSpec, bytes]:
        """The heights behind a picture.

        Raises:
            NotFound: as above.
        """
        spec = self._spec(key)
        return spec, heights_of(spec)

    def _spec(self, key: str) -> PatchSpec:
        with self._lock:
            spec = self._known.get(key)
        if spec is None:
            raise NotFound("picture", key)
        return spec
