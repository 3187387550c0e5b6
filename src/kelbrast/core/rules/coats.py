"""What covers a part must be known and off before anything is ground."""

from typing import Final

from kelbrast.core.catalogue.damages import Damage, damage
from kelbrast.core.catalogue.materials import family
from kelbrast.core.job import Job
from kelbrast.core.reference.loader import constant, record
from kelbrast.core.rules.rule import Practice

RESIDUE: Final = ("residue-ultrasonic", "residue-wash", "residue-lukewarm", "residue-dry")  # the gentlest last
STRIPS: Final = {"anodised": "strip-anodising", "lacquered": "strip-lacquer"}


def blocked(job: Job) -> str | None:
    """Why the coat on this part cannot be dealt with here; None when it can."""
    if job.part.covering == "painted":
        return "Painted parts are not stripped by this route: have the paint taken off first, then describe what is found."
    if (key := STRIPS.get(job.part.covering)) is None:
        return None
    if key == "strip-anodising" and not family(job.material.family).anodises:
        return f"Anodising is a coat of aluminium; this part is {job.material.label.lower()}. Say what covers it instead."
    if job.forbids & set(record("operations")[key].get("forbidden_by", ())):
        return "What is stuck in this part does not bear the stripping: take it out first, or leave the coat on."
    return None


def off_first(job: Job) -> tuple[str, ...]:
    """The ids of the operations that take rust, scale or heat tint off before anything is ground, each once."""
    chosen = (next((key for key in word.off_first if _borne(key, job)), None) for word in _called(job))
    return tuple(dict.fromkeys(key for key in chosen if key is not None))


def passivates(job: Job) -> bool:
    """Whether stainless steel is passivated at the end: where it was welded, tinted or scaled, if the part bears it."""
    called = any(word.passivate for word in _called(job))
    return called and job.material.passivates and _borne("passivate", job)


def _called(job: Job) -> list[Damage]:
    """The words for what is wrong anywhere on its faces."""
    found = [found for face in job.faces if not face.left_alone for found in face.found_anywhere]
    return [damage(each.called) for each in found if each.called]


def _borne(key: str, job: Job) -> bool:
    """Whether the material and what is stuck in the part bear this operation."""
    row = record("operations")[key]
    suits = job.material.family in row.get("families", (job.material.family,))
    return suits and not job.forbids & set(row.get("forbidden_by", ()))


def residue_removal(job: Job) -> str:
    """The id of the operation that takes the residue off at the end."""
    largest = max((face.area for face in job.faces if not face.left_alone), default=0.0)
    no_bath = not family(job.material.family).bath or largest > constant("work.bath").si
    forbids = job.forbids | ({"ultrasonic"} if no_bath else set())
    return next(key for key in RESIDUE if not forbids & set(record("operations")[key].get("forbidden_by", ())))


COAT_FIRST: Final = Practice(
    id="coat-first",
    says="A coat comes off before the first step: lacquer and anodising in the bath that takes them, unless an insert does"
    " not bear it; paint elsewhere; what is not known is found out first.",
    source="bench-practice",
    lifted_by="taking out what does not bear the bath",
    kept_by=blocked,
)
OFF_FIRST: Final = Practice(
    id="off-first",
    says="Rust, scale and heat tint come off before the first step, by remover or pickle where metal and part bear it, else by "
    "brush; what lies beneath is what is planned.",
    source="bench-practice",
    lifted_by="calling what was found by another word",
    kept_by=off_first,
)
PASSIVATED: Final = Practice(
    id="passivated",
    says="Stainless steel that was welded, tinted or scaled is passivated at the end: without it, it rusts there.",
    source="bench-practice",
    lifted_by="an insert that does not bear it",
    kept_by=passivates,
)
BATH_OR_BY_HAND: Final = Practice(
    id="cleaned-as-it-bears",
    says="Residue comes off in the gentlest way that does it: an ultrasonic bath where the family and the inserts bear one"
    " and the part fits into it, else washing, lukewarm water, or dry.",
    source="bench-practice",
    lifted_by="taking out what does not bear it",
    kept_by=residue_removal,
)
