"""In which order grades, faces and jobs follow each other."""

from collections.abc import Iterable, Sequence
from typing import Final, Literal, TypeVar, get_args

from kelbrast.core.rules.lay import is_brushed
from kelbrast.core.rules.rule import PassageRule, Practice
from kelbrast.core.surface.face import Face
from kelbrast.core.tooling.surfaces import Surfaces
from kelbrast.core.validity import Flags

Grouped = TypeVar("Grouped")
Round = Literal["edges", "recesses", "open faces", "brushed faces"]
ROUNDS: Final[tuple[Round, ...]] = get_args(Round)


def round_of(face: Face) -> Round:
    """In which round of the work a face is done: edges first, before they cut a hand or a wheel."""
    if face.edge is not None:
        return "edges"
    if is_brushed(face):
        return "brushed faces"
    return "recesses" if face.reach in ("inside", "tight") else "open faces"


def turn_of(face: Face) -> int:
    """The place of its round in the order of work."""
    return ROUNDS.index(round_of(face))


def order_of_work(faces: tuple[Face, ...]) -> list[Face]:
    """The faces that are worked, in their order."""
    return sorted((face for face in faces if not face.left_alone), key=turn_of)


def coarsest_to_come(leaves: Sequence[float]) -> list[float]:
    """Of each step of a face, the depth of the coarsest marks (m) that it or a later one leaves.

    In places a grade may be finer than the first one over everything after it: in the order of work it comes before that.

    >>> coarsest_to_come([20e-6, 2e-6, 6e-6])
    [2e-05, 6e-06, 6e-06]
    """
    return [max(leaves[at:]) for at in range(len(leaves))]


def place_in_order(turn: int, leaves: float, tool: str) -> tuple[int, float, str]:
    """Where a step stands in the work of a part: by round, and within one down the grades, coarsest marks (m) first."""
    return turn, -leaves, tool


def families_apart(work: Iterable[tuple[str, Grouped]]) -> list[list[Grouped]]:
    """Grouped with the metal family of each, a list for every family, in the order in which families first come.

    >>> families_apart([("steel", "hinge"), ("plastic", "lens"), ("steel", "bolt")])
    [['hinge', 'bolt'], ['lens']]
    """
    groups: dict[str, list[Grouped]] = {}
    for family, grouped in work:
        groups.setdefault(family, []).append(grouped)
    return list(groups.values())


def _goes(surfaces: Surfaces) -> Flags:
    finer: Flags = surfaces.depth_worst[:, None] > surfaces.depth_worst[None, :]
    finer[0, :] = True
    finer[:, 0] = False
    return finer


COARSE_TO_FINE: Final = PassageRule(
    id="coarse-to-fine",
    says="Every step leaves shallower marks than the one before; only from the surface as found anything goes, because a "
    "face can be too fine.",
    source="bench-practice",
    lifted_by="nothing",
    mask=_goes,
)
RECESSES_FIRST: Final = Practice(
    id="recesses-first",
    says="Recesses and insides are worked before the open faces around them, which would be scratched by the work in them.",
    source="bench-practice",
    lifted_by="nothing",
    kept_by=round_of,
)
GRADES_TOGETHER: Final = Practice(
    id="grades-together",
    says="Faces of one round go down the grades together, so that a tool is set up once and no coarse grit comes after fine.",
    source="bench-practice",
    lifted_by="another order of the pieces at the bench",
    kept_by=place_in_order,
)
FAMILIES_APART: Final = Practice(
    id="families-apart",
    says="Of several jobs, those of one metal family are worked together and families follow each other, so that nothing "
    "is mixed.",
    source="bench-practice",
    lifted_by="nothing",
    kept_by=families_apart,
)
