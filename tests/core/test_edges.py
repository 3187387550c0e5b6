"""Edges: what is taken off by geometry, with what, when, and what an edge that stays sharp asks of its faces."""

from dataclasses import replace

import numpy as np
import pytest

from kelbrast.core.errors import BadInput
from kelbrast.core.job import Job
from kelbrast.core.planning.face.face_plan import FacePlan, figures_of
from kelbrast.core.planning.whole.plan import plan_job
from kelbrast.core.process.removal import break_volume, radius_volume
from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.softness import takes_in_all
from kelbrast.core.surface.edge import EdgeWanted, edge_of
from kelbrast.core.surface.face import Face
from kelbrast.core.surface.found import Found
from making import face, job, plan

WHEELS = {"felt", "felt-bob", "sisal", "sewn", "cotton-bob", "wool"}


def edge_face(length: float, wanted: EdgeWanted, size: float | None, want: str = "paint-ready") -> Face:
    edge = edge_of(length, wanted, size)
    return replace(face(want), name="edge", area=edge.area, found=Found("scratches", edge.depth, edge.depth), edge=edge)


def planned(stuff: str, face: Face, **more: object) -> FacePlan:
    return plan(stuff, face, **more)


# By hand: 0.3 x 0.3 / 2 x 400 = 18 mm3; (1 - 3.14159 / 4) x 1 x 100 = 21.46 mm3.
def test_volumes_by_hand() -> None:
    assert break_volume(leg=0.3e-3, length=0.4) == pytest.approx(18e-9)
    assert radius_volume(radius=1e-3, length=0.1) == pytest.approx(21.46e-9, rel=1e-3)
    assert radius_volume(radius=0.5e-3, length=0.1) < break_volume(leg=0.5e-3, length=0.1)


def test_what_is_left_by_hand() -> None:
    broken, rounded = edge_of(0.4, "break", 0.3e-3), edge_of(0.1, "radius", 1e-3)
    assert broken.area == pytest.approx(0.4 * 0.4243e-3, rel=1e-3)
    assert broken.depth == pytest.approx(0.2121e-3, rel=1e-3)
    assert rounded.area == pytest.approx(0.1 * 1.5708e-3, rel=1e-3)
    assert rounded.depth == pytest.approx(0.4142e-3, rel=1e-3)


@pytest.mark.parametrize("stuff", ["brass", "mild-steel", "aluminium-wrought", "acrylic", "stainless-304", "polycarbonate"])
@pytest.mark.parametrize(("wanted", "size"), [("break", 0.1e-3), ("break", 0.5e-3), ("radius", 1e-3), ("radius", 3e-3)])
def test_an_edge_is_worked_in_minutes_and_by_no_hard_wheel(stuff: str, wanted: EdgeWanted, size: float) -> None:
    made = planned(stuff, edge_face(0.3, wanted, size))
    assert made.possible
    assert not {step.tool.carrier.id for step in made.steps} & WHEELS
    assert all(step.tool.carrier.access.edges for step in made.steps)
    assert all("cuts" in " ".join(step.cautions) for step in made.steps)
    assert made.seconds < (5400 if size > 1e-3 else 900)
    assert made.marks_left == 0


def test_the_first_step_takes_the_volume_and_covers_what_is_left_with_its_own_marks() -> None:
    one = edge_face(0.4, "break", 0.3e-3)
    figures = figures_of(one, job("brass", one))
    assert figures is not None
    at = figures.surfaces.ids.index("file-smooth") + 1
    own = figures.surfaces.depth_worst[at] * one.area
    (first,) = np.flatnonzero((figures.graph.before == 0) & (figures.met.after == at))
    assert figures.fresh[first] == pytest.approx((18e-9 + own) / figures.tools[at - 1].rate)


def test_a_gloss_on_a_radius_comes_from_soft_cotton_after_abrasive() -> None:
    made = planned("brass", edge_face(0.1, "radius", 1e-3, want="bright"))
    assert made.possible
    assert made.steps[0].tool.carrier.cutting.wear_law != "compound"
    assert made.steps[-1].tool.carrier.id in {"loose", "flannel", "cloth"}


def test_edges_come_first_and_one_that_stays_sharp_is_left_alone() -> None:
    edge, sharp = edge_face(0.3, "break", 0.3e-3), replace(edge_face(0.2, "sharp", None), name="seat")
    asked = job("brass", face("mirror", depth=15))
    made = plan_job(replace(asked, faces=(*asked.faces, sharp, edge)))
    assert made.possible
    assert made.order == ("edge", "face")
    assert made.faces[1].steps == ()
    assert "mask" not in {operation.id for operation in made.operations}


def test_beside_a_sharp_edge_a_soft_wheel_takes_half_and_is_warned_of() -> None:
    plain, beside = face("mirror", depth=15), face("mirror", depth=15, sharp_edges=True)
    both: list[Job] = [job("brass", plain), job("brass", beside)]
    (free, held) = (figures_of(one.faces[0], one) for one in both)
    assert free is not None
    assert held is not None
    wheel = next(tool for tool in free.tools if tool.tool.id == "sewn-tripoli")
    share = takes_in_all(wheel, held.surfaces) / takes_in_all(wheel, free.surfaces)
    assert share == constant("edges.sharp_share").value
    made = planned("brass", beside)
    soft = [step for step in made.steps if step.tool.carrier.cutting.takes_in_all is not None]
    assert soft
    assert all(any("stays sharp" in caution for caution in step.cautions) for step in soft)
    assert not any("stays sharp" in caution for step in planned("brass", plain).steps for caution in step.cautions)
    assert all(step.marks.likely_layer <= takes_in_all(step.on_face, held.surfaces) * (1 + 1e-9) for step in soft)


@pytest.mark.parametrize(
    ("wanted", "size"), [("sharp", 1e-4), ("break", None), ("break", 0.05e-3), ("break", 0.6e-3), ("radius", 4e-3)]
)
def test_sizes_that_are_none(wanted: EdgeWanted, size: float | None) -> None:
    with pytest.raises(BadInput) as bad:
        edge_of(0.3, wanted, size)
    assert bad.value.faults[0].field == "edge.size_mm"
