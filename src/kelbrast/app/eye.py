"""The eye: photos opened as they are in their files, judged in the background one after the other, with how far it is."""

import io
import threading
from collections import OrderedDict
from collections.abc import Callable
from concurrent.futures import Future, ThreadPoolExecutor
from dataclasses import dataclass
from typing import Final

import numpy as np
from PIL import Image, ImageOps

from kelbrast.app.photos import check_size, told_of_pictures
from kelbrast.core.errors import NotFound
from kelbrast.core.vision.light_check import CanNotSay, CheckAsked, EyeSaw, Photo, light_check

MOST_PIXELS: Final = 60_000_000
_KEPT: Final = 50  # answers that can still be asked for


@dataclass(frozen=True, slots=True)
class EyeLook:
    """A look that was asked for: how far it is (0 to 1), the width of photo 1 in pixels, and the answer when it is done."""

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
        self, along: bytes, across: bytes, asked: Callable[[Photo], CheckAsked], done: Callable[[EyeSaw | CanNotSay], object]
    ) -> int:
        """Begin a light check of two photos. Returns the look's number.

        Args:
            asked: says what is known, when the first is open.
            done: is told the answer, before anybody else is.

        Raises:
            BadInput: one is not a picture that can be read, or too large.
        """
        first, second = opened(along), opened(across)
        known = asked(first)
        with self._lock:
            self._last += 1
            look = self._last
            self._shares[look], self._widths[look] = 0.0, first.grey.shape[1]
            self._work[look] = self._pool.submit(self._judge, look, first, second, known, done)
            while len(self._work) > _KEPT:
                old, _ = self._work.popitem(last=False)
                self._shares.pop(old, None)
                self._widths.pop(old, None)
        return look

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
