"""Pictures that teach: what is not done yet is told from what is done, on every material and kind of step of the demo."""

import pytest

from kelbrast.app.planning import job_of, plan_file
from kelbrast.core.catalogue.materials import material
from kelbrast.core.reference.loader import constant
from kelbrast.core.simulation.light import Lamp, lit, look_of, told_apart
from kelbrast.demo.workshop import demo_jobs
from kelbrast.documents.surface.picture import PatchSpec, found_spec, not_yet_spec, patch_of, working_specs

JOBS = {file.title: file for file in demo_jobs()}


def seen(spec: PatchSpec):
    return lit(patch_of(spec), look_of(material(spec.material)), Lamp())


@pytest.mark.parametrize(
    ("title", "face", "step"),
    [
        ("Gallery rail collar", 0, 1),  # a belt on brass
        ("Keepers' name plates", 0, 4),  # the last wheel
        ("Barometer lens", 0, 2),  # wet paper on a clear plastic
        ("Lacquered chart case lid", 0, 1),  # paper on a coat
        ("Tide gauge spindle", 0, 1),  # a lap on steel
    ],
)
def test_not_yet_is_told_from_done_under_the_same_lamp(title: str, face: int, step: int) -> None:
    file = JOBS[title]
    plan, job = plan_file(file, None, check=False), job_of(file, None)
    faces = [one for one in plan.faces if one.steps and one.edge is None]
    steps = faces[face].steps[:step]
    found = found_spec(job.face(faces[face].id), job.material.hardness, faces[face].steps)
    done = PatchSpec(material=file.material, found=found, steps=working_specs(steps), rows=88, columns=192)
    early = not_yet_spec(done, steps[-1])
    assert early.steps[-1].share < 1
    assert early.steps[:-1] == done.steps[:-1]
    assert told_apart(seen(done), seen(early)) >= constant("simulation.tells_apart").value


def test_it_is_stopped_no_earlier_than_it_must_be() -> None:
    file = JOBS["Gallery rail collar"]
    plan, job = plan_file(file, None, check=False), job_of(file, None)
    steps = plan.faces[0].steps[:1]
    found = found_spec(job.face(plan.faces[0].id), job.material.hardness, plan.faces[0].steps)
    done = PatchSpec(material=file.material, found=found, steps=working_specs(steps), rows=88, columns=192)
    share = not_yet_spec(done, steps[-1]).steps[-1].share
    later = done.model_copy(update={"steps": [done.steps[-1].model_copy(update={"share": 2 * share})]})
    assert share >= 0.4 or told_apart(seen(done), seen(later)) < constant("simulation.tells_apart").value
