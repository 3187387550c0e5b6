"""Random faces and racks, of every material, finish, damage and habit: what holds for plans must hold for these."""

import random
from dataclasses import replace
from functools import cache

from kelbrast.core.catalogue.finishes import finishes
from kelbrast.core.catalogue.machines import machines
from kelbrast.core.catalogue.materials import materials
from kelbrast.core.catalogue.tools import tools
from kelbrast.core.job import HANDOVERS, Job
from kelbrast.core.planning.face.face_plan import Worked, work_out
from kelbrast.core.surface.face import Face
from kelbrast.core.surface.found import Found

HABITS = ("double-up", "double-up", "long-steps")  # every grade is a list of grades, so a larger rack is more work by itself
FINISHES = ("mirror", "bright", "satin", "brushed-fine", "paint-ready", "wipes-clean", "N4", "N6", "N8")


def random_job(chance: random.Random) -> Job:
    """One face of some material, 2 to 3000 cm2, with marks of 3 to 250 um."""
    likely = 3e-6 * (250 / 3) ** chance.random()
    found = Found(chance.choice(("lay", "scratches", "pits")), likely, likely * chance.uniform(1.0, 1.6))
    area = 2e-4 * 1500 ** chance.random()
    limit = chance.choice((None, None, 2e-5 * 20 ** chance.random()))
    one = Face("face", area, found, finishes()[chance.choice(FINISHES)], limit=limit, curved=chance.random() < 0.3)
    return Job(
        "random",
        materials()[chance.choice(sorted(materials()))],
        (one,),
        habit=chance.choice(HABITS),
        handover=chance.choice(tuple(HANDOVERS)),
    )


def random_rack(chance: random.Random) -> tuple[str, ...]:
    """A third to two thirds of all tools, with every machine."""
    some = [key for key in sorted(tools()) if chance.random() < chance.choice((0.35, 0.6))]
    return (*some, *sorted(machines()))


def worked(job: Job) -> Worked:
    """The face with its route."""
    return work_out(job.faces[0], job)


def with_face(job: Job, **changes: object) -> Job:
    """The same job with another face."""
    return replace(job, faces=(replace(job.faces[0], **changes),))


@cache
def all_tools() -> tuple[str, ...]:
    return tuple(sorted(tools()))
