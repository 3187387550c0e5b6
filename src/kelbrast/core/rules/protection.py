"""What protects a part when it is done, and how long it may wait for that: how long may copper wait for its lacquer?"""

from typing import Final

from kelbrast.core.job import Job
from kelbrast.core.rules.rule import Practice


def protection_of(job: Job) -> tuple[str, float | None]:
    """What protects the part at the end ("none", "oil", "wax" or "lacquer"), and within how many seconds it must be on."""
    chosen = job.material.protection if job.part.protect == "usual" else job.part.protect
    if job.part.protect == "usual" and any(
        face.want.deformed == 0 for face in job.faces if not face.left_alone and face.edge is None
    ):
        chosen = "none"  # a face that waits for paint must stay clean
    return chosen, job.material.protect_within


def time_left(*, within: float | None, since_last_step: float | None) -> float | None:
    """Seconds until a protection must be on, below 0 when it is late; None while it can wait, or before the last step ends.

    >>> time_left(within=1800.0, since_last_step=2000.0)
    -200.0
    """
    return None if within is None or since_last_step is None else within - since_last_step


USUAL: Final = Practice(
    id="usual-protection",
    says="A part gets what its material or family is usually protected with (families.toml: protection), unless a face "
    "waits for paint and must stay clean.",
    source="bench-practice",
    lifted_by="choosing another protection, or none",
    kept_by=protection_of,
)
BEFORE_IT_TARNISHES: Final = Practice(
    id="before-it-tarnishes",
    says="What tarnishes is protected within so long after the last step (families.toml: protect_within); the bench counts"
    " down.",
    source="bench-practice",
    lifted_by="nothing",
    kept_by=time_left,
)
