"""The eye: photos opened as they are in their files, judged in the background one after the other, with how far it is; and
asked at a light check, where what it saw is kept."""

import io
import math
import threading
from collections import OrderedDict
from collections.abc import Callable
from concurrent.futures import Future, ThreadPoolExecutor
from dataclasses import dataclass
from itertools import groupby
from typing import Final

import numpy as np
from PIL import Image, ImageOps

from kelbrast.app.board_at_bench import KeptRun
from kelbrast.app.photos import check_size, told_of_pictures
from kelbrast.app.runs import Runs, came_of
from kelbrast.core.bench.observed import LightCheck, TurnedOut
from kelbrast.core.catalogue.grades import parse_grade
from kelbrast.core.catalogue.tools import tool
from kelbrast.core.errors import BadInput, NotFound
from kelbrast.core.process.scratch import grain_of_marks
from kelbrast.core.reference.own_rows import carrying
from kelbrast.core.units import to_si
from kelbrast.core.vision.agreement import CheckTurnedOut, Rightness, agreement
from kelbrast.core.vision.light_check import CanNotSay, CheckAsked, EyeSaw, LayShown, lay_shown, light_check, width_of_marks
from kelbrast.core.vision.photo_file import Photo
from kelbrast.core.wording import tell
from kelbrast.documents.run.eye import ShowsAnswer, refusal_sentence, to_shows_answer
from kelbrast.storage import eye_checks
from kelbrast.storage.sessions import reading, writing

MOST_PIXELS: Final = 60_000_000
_KEPT: Final = 50  # answers that can still be asked for


@dataclass(frozen=True, slots=True)
class EyeLook:
    """A look that was asked for: how far it is (0 to 1), the width of photo 2 in pixels, and the answer when it is done."""

    width: int
    share: float
    answer: EyeSaw | CanNotSay | None


class Eye:
    """The looks of this server."""

    def __init__(self) -> None:
        self._lock = threading.Lock()
        self._work: OrderedDict[int, Future[EyeSaw | CanNotSay]] = OrderedDict()
        self._shares: dict[int, float] = {}
        self._widths: dict[int, int] = {}
        self._last = 0
        self._pool = ThreadPoolExecutor(max_workers=1, thread_name_prefix="eye")

    def begin(
        self, across: bytes, along: bytes, asked: Callable[[Photo], CheckAsked], done: Callable[[EyeSaw | CanNotSay], object]
    ) -> int:
        """Begin a light check of two photos. Returns the look's number.

        Args:
            across: with the lamp across the new marks.  along: with the lamp along them.
            asked: says what is known, when the first is open.
            done: is told the answer, before anybody else is.

        Raises:
            BadInput: one is not a picture that can be read, or too large.
        """
        first, second = opened(across), opened(along)
        known = asked(first)
        with self._lock:
            self._last += 1
            look = self._last
            self._shares[look], self._widths[look] = 0.0, second.grey.shape[1]
            self._work[look] = self._pool.submit(carrying(self._judge), look, first, second, known, done)
            while len(self._work) > _KEPT:
                old, _ = self._work.popitem(last=False)
                self._shares.pop(old, None)
                self._widths.pop(old, None)
        return look

    def lay(self, across: bytes, across_mm: float) -> LayShown | CanNotSay:
        """How the new marks run on a photo with the lamp across them. It waits for a look that is under way.

        Raises:
            BadInput: it is not a picture that can be read, or too large.
        """
        photo = opened(across)
        return self._pool.submit(carrying(lay_shown), photo, to_si(across_mm, "mm") / photo.grey.shape[1]).result()

    def look(self, look: int) -> EyeLook:
        """How far a look is.

        Raises:
            NotFound: nobody asked for it since the program was started.
        """
        with self._lock:
            work, share, width = self._work.get(look), self._shares.get(look, 0.0), self._widths.get(look, 0)
        if work is None:
            raise NotFound("look", str(look))
        return EyeLook(width, share, work.result() if work.done() else None)

    def _judge(
        self, look: int, first: Photo, second: Photo, known: CheckAsked, done: Callable[[EyeSaw | CanNotSay], object]
    ) -> EyeSaw | CanNotSay:
        def told(share: float) -> None:
            with self._lock:
                self._shares[look] = share

        answer = light_check(first, second, known, told)
        done(answer)
        return answer


def opened(data: bytes) -> Photo:
    """A photo in grey, upright, with the mean step of its JPEG table.

    Raises:
        BadInput: it is not a JPEG or PNG that can be read, or has too many pixels.
    """
    with told_of_pictures("JPEG and PNG"), Image.open(io.BytesIO(data), formats=("JPEG", "PNG")) as picture:
        check_size(picture, MOST_PIXELS)
        tables = getattr(picture, "quantization", None)
        coarse = min(float(np.mean(table)) for table in tables.values()) if tables else None
        grey = ImageOps.exif_transpose(picture).convert("L")
    return Photo(np.asarray(grey), coarse)


@dataclass(frozen=True, slots=True)
class Stated:
    """What the person says: how wide photo 1 is, that the new marks run so on it, and how the old ones cross them."""

    across_mm: float
    lay_deg: float | None
    crossing_deg: float


class EyeAtBench:
    """The eye beside the runs of one database."""

    def __init__(self, runs: Runs, eye: Eye) -> None:
        self._runs, self._eye = runs, eye

    def begin(self, run_id: int, across: bytes, along: bytes, stated: Stated) -> int:
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
                    eye_checks.add_look(session, eye_checks.StoredLook(run_id, check, answer.verdict), score=answer.score)

        return self._eye.begin(across, along, lambda photo: asked(kept, photo, stated), done)

    def shows(self, run_id: int, across_mm: float, pixels: int | None) -> ShowsAnswer:
        """What a camera shows at a width of the marks that the step in hand takes out.

        Raises:
            NotFound: no such run.  BadInput: no step is in hand.
        """
        kept = self._runs.get(run_id)
        if kept.run.current is None:
            raise BadInput.one("run", "every step of every piece is done")
        return to_shows_answer(across_mm=across_mm, pixels=pixels, grain=grain_before(kept), before=step_before(kept))

    def right(self) -> dict[str, Rightness]:
        """How often the person and the eye were right, of the checks of which it is known."""
        with reading(self._runs.engine) as session:
            looks = eye_checks.all_looks(session)
        known: list[CheckTurnedOut] = []
        for run_id, each in groupby(looks, key=lambda look: look.run_id):
            there = list(each)
            # Kept before what came of a check was kept with it.
            kept = self._runs.get(run_id) if any(look.came is None for look in there) else None
            for look in there:
                came = look.came or (came_of(kept, look.check) if kept else TurnedOut(None, None))
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


def shows_of_any_face(across_mm: float, pixels: int | None, before: str) -> ShowsAnswer:
    """What a camera shows at a width of marks of a grade.

    Raises:
        BadInput: not a grade.
    """
    grade = parse_grade(before, field="before")
    return to_shows_answer(across_mm=across_mm, pixels=pixels, grain=grade.grain, before=grade.name)


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
