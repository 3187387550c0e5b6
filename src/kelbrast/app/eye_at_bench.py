"""The eye asked at a light check: what is known of the step in hand, what it saw is kept, and how often it was right."""

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from itertools import groupby

from kelbrast.app.at_bench import KeptRun
from kelbrast.app.eye import Eye
from kelbrast.app.runs import Runs
from kelbrast.core.bench.observed import LightCheck, turned_out
from kelbrast.core.catalogue.grades import parse_grade
from kelbrast.core.catalogue.tools import tool
from kelbrast.core.errors import BadInput
from kelbrast.core.process.scratch import grain_of_marks
from kelbrast.core.units import to_si
from kelbrast.core.vision.agreement import CheckTurnedOut, Rightness, agreement
from kelbrast.core.vision.light_check import CanNotSay, CheckAsked, EyeSaw, Photo, width_of_marks
from kelbrast.core.wording import tell
from kelbrast.documents.run.eye import refusal_sentence
from kelbrast.storage import eye as store
from kelbrast.storage.sessions import reading, writing


@dataclass(frozen=True, slots=True)
class Stated:
    """What the person says: how wide photo 1 is, how the new marks run on it, and how the old ones cross them."""

    across_mm: float
    lay_deg: float | None
    crossing_deg: float


class EyeAtBench:
    """The eye beside the runs of one database."""

    def __init__(self, runs: Runs, eye: Eye) -> None:
        self._runs, self._eye = runs, eye

    def begin(self, run_id: int, along: bytes, across: bytes, stated: Stated) -> int:
        """Have the step in hand looked at. Returns the look's number; what is seen is kept beside the run.

        Raises:
            NotFound: no such run.  BadInput: no step is in hand, or a photo cannot be read.
        """
        kept = self._runs.get(run_id)
        if kept.run.current is None:
            raise BadInput.one("run", "every step of every piece is done")
        piece, stage = kept.run.current
        if (refused := cannot_judge_step(kept)) is not None:
            raise BadInput.one("eye", tell(refusal_sentence(refused)))
        check = LightCheck(kept.run.seen, piece, stage.key)

        def done(answer: EyeSaw | CanNotSay) -> None:
            if isinstance(answer, EyeSaw):
                with writing(self._runs.engine) as session:
                    store.add_look(session, store.StoredLook(run_id, check, answer.verdict), score=answer.score)

        return self._eye.begin(along, across, lambda photo: asked(kept, photo, stated), done)

    def right(self) -> dict[str, Rightness]:
        """How often the person and the eye were right, of the checks of which it is known."""
        with reading(self._runs.engine) as session:
            looks = store.all_looks(session)
        known: list[CheckTurnedOut] = []
        for run_id, each in groupby(looks, key=lambda look: look.run_id):
            kept = self._runs.get(run_id)
            for look in each:
                face, route, step = look.check.stage
                # Kept by its name before faces had ids.
                check = replace(look.check, stage=(kept.job.face(face).key, route, step))
                came = turned_out(kept.run, check)
                if came.person is not None and came.left is not None and look.verdict != "look-again":
                    known.append(CheckTurnedOut(came.person, look.verdict == "seen", came.left))
        return agreement(known)


def asked(kept: KeptRun, photo: Photo, stated: Stated) -> CheckAsked:
    """What is known of the step in hand, and of the photo."""
    assert kept.run.current is not None, "asked for a step in hand"
    _, stage = kept.run.current
    return _asked(photo, stated, grain_before(kept), curved=kept.job.face(stage.face).curved)


def cannot_judge_step(kept: KeptRun) -> CanNotSay | None:
    """Why the eye cannot help at the step in hand, whatever the photos are; None where it can."""
    assert kept.run.current is not None, "asked for a step in hand"
    _, stage = kept.run.current
    return CanNotSay.before_any_photo(curved=kept.job.face(stage.face).curved, directed=kept.steps[stage.key].lay != "none")


def of_any_face(stated: Stated, before: str) -> Callable[[Photo], CheckAsked]:
    """What is known of a face that is not at the bench: the grade that was worked before.

    Raises:
        BadInput: not a grade.
    """
    grain = parse_grade(before, field="before").grain
    return lambda photo: _asked(photo, stated, grain, curved=False)


def _asked(photo: Photo, stated: Stated, grain: float, *, curved: bool) -> CheckAsked:
    return CheckAsked(
        pixel=to_si(stated.across_mm, "mm") / photo.grey.shape[1],
        lay=math.radians(stated.lay_deg) if stated.lay_deg is not None else None,
        crossing=math.radians(stated.crossing_deg),
        width=width_of_marks(grain),
        curved=curved,
    )


def step_before(kept: KeptRun) -> str | None:
    """The label of the step before the one in hand on its face; None for the first."""
    assert kept.run.current is not None, "asked for a step in hand"
    face, route, step = kept.run.current[1].key
    before = kept.steps.get((face, route, step - 1))
    return before.label if before else None


def grain_before(kept: KeptRun) -> float:
    """The grain that left what the step in hand takes out: of the step before, or of the marks that were found."""
    assert kept.run.current is not None, "asked for a step in hand"
    face, route, step = kept.run.current[1].key
    before = kept.steps.get((face, route, step - 1))
    if before is not None:
        return tool(before.tool).grain
    return grain_of_marks(depth=to_si(kept.steps[face, route, step].likely_um, "um"), hardness=kept.job.material.hardness)
