"""Planning a job file: the use case behind the command line and both plan endpoints; and going back from a light check."""

from dataclasses import replace
from typing import Final

from kelbrast.app.rack import Shelf
from kelbrast.core.catalogue.damages import feels
from kelbrast.core.catalogue.grades import parse_grade
from kelbrast.core.catalogue.materials import material
from kelbrast.core.errors import BadInput, Fault
from kelbrast.core.job import Job, RackUsed
from kelbrast.core.planning.face.face_plan import work_out
from kelbrast.core.planning.questions.choices import choices, named_routes, pareto_front
from kelbrast.core.planning.questions.derivation import derivations
from kelbrast.core.planning.questions.goback import go_back
from kelbrast.core.planning.questions.guess import bet
from kelbrast.core.planning.questions.whatif import what_if
from kelbrast.core.planning.whole.plan import DoneWithout, Plan, do_without, face_in_plan, plan_job, shortages
from kelbrast.core.process.scratch import depth_of_marks, roughness_left
from kelbrast.core.reference.own_rows import remembered
from kelbrast.core.units import to_si
from kelbrast.documents.job.format import JobFile
from kelbrast.documents.job.read import to_job
from kelbrast.documents.plan.card import CardFile, card_of
from kelbrast.documents.plan.format import PlanFile, RackCheck
from kelbrast.documents.plan.questions import (
    AdviceFile,
    ChoicesFile,
    GoBackFile,
    SumFile,
    WeighFile,
    WhatIfFile,
    to_advice_file,
    to_choices_file,
    to_goback_file,
    to_what_if_file,
    to_why_file,
)
from kelbrast.documents.plan.write import to_plan_file, to_rack_check


def plan_file(file: JobFile, shelf: Shelf | None = None, *, check: bool = True) -> PlanFile:
    """The plan of a job file; with `check`, against the shop's rack too, which plans it a second time.

    Raises:
        BadInput: the job names things that do not exist or do not fit.
    """
    job = job_of(file, shelf)
    made = _planned(job)
    if shelf is None or not shelf.in_use or not check:
        return made
    return made.model_copy(update={"rack": _rack_check(job, shelf)})


def choices_file(file: JobFile, shelf: Shelf | None = None) -> ChoicesFile:
    """The job by every aim and habit, side by side.

    Raises:
        BadInput: the job names things that do not exist or do not fit.
    """
    return _compared(job_of(file, shelf))


def why_file(file: JobFile, shelf: Shelf | None = None, *, face: str, step: int) -> list[SumFile]:
    """The sums behind one step (from 1) of a face.

    Raises:
        BadInput: the job, the face or the step cannot be used.
    """
    job = job_of(file, shelf)
    found = job.face(face)
    plan = face_in_plan(found, job)
    if not 1 <= step <= len(plan.steps):
        raise BadInput.one("step", f"the plan of this face has {len(plan.steps)} steps, and {step} is not one of them")
    return to_why_file(derivations(plan, step, job))


def advice_file(file: JobFile, shelf: Shelf | None = None, *, face: str) -> AdviceFile:
    """What a person may weigh on one face: the best trade-offs, and the bet on a guessed depth.

    Raises:
        BadInput: the job or the face cannot be used.
    """
    job = job_of(file, shelf)
    found = job.face(face)
    figures = work_out(found, job).figures
    if figures is None:
        return to_advice_file(found.name, None, None, (), None)
    return to_advice_file(found.name, figures, pareto_front(figures, job), named_routes(figures, job), bet(found, job))


def weigh_file(file: JobFile, shelf: Shelf | None = None) -> WeighFile:
    """Everything that a person may weigh on a job: every aim and habit, and for every face the front and the bet.

    Raises:
        BadInput: the job names things that do not exist or do not fit.
    """
    ways = choices_file(file, shelf)
    faces = [advice_file(file, shelf, face=face.id) for face in file.faces if not face.keep_off]
    return WeighFile(title=file.title, choices=ways, faces=faces)


def what_if_file(file: JobFile, shelf: Shelf | None = None, *, face: str, step: int) -> list[WhatIfFile]:
    """What changing one step (from 1) of a face's plan would lead to.

    Raises:
        BadInput: the job, the face or the step cannot be used.
    """
    job = job_of(file, shelf)
    return to_what_if_file(what_if(job.face(face), job, step=step))


def card_file(file: JobFile, shelf: Shelf | None = None, *, inch: bool = False) -> CardFile:
    """What stands on the job card.

    Raises:
        BadInput: the job names things that do not exist or do not fit.
    """
    return card_of(plan_file(file, shelf), material=material(file.material).label, system="inch" if inch else "metric")


def card_pdf(file: JobFile, shelf: Shelf | None = None, *, inch: bool = False) -> bytes:
    """The job card as a PDF.

    Raises:
        BadInput: the job names things that do not exist or do not fit.
    """
    # The PDF library is large, and only this needs it: `kelbrast plan` stays quick.
    from kelbrast.documents.plan.card_pdf import job_card

    return job_card(card_file(file, shelf, inch=inch))


def job_of(file: JobFile, shelf: Shelf | None) -> Job:
    """The job of the core, planned from the shop's own rack wherever there is one, unless the file says any tool.

    Raises:
        BadInput: the job cannot be used, or asks for a rack that is not given.
    """
    job = to_job(file)
    if shelf is not None:
        job = replace(job, factors=shelf.factors)
    if rack_used(file, shelf) == "catalogue":
        return job
    if shelf is None:
        raise BadInput.one("use_rack", "this job is planned from your own rack: give the rack file with --rack")
    return shelf.equip(job, extras=file.extras, insist=file.insist)


def rack_used(file: JobFile, shelf: Shelf | None) -> RackUsed:
    """What a job is planned from: as it says, else from the own rack where anything stands there."""
    return file.use_rack or ("own" if shelf is not None and shelf.in_use else "catalogue")


def _rack_check(job: Job, shelf: Shelf) -> RackCheck:
    """What the plan needs and the rack has not, and the best plan without it."""
    offered = shelf.offer(job.material.family)
    plan, have = _plan(job), {own_tool.tool: own_tool.have for own_tool in offered.tools}
    short = shortages(plan, have)
    return to_rack_check(short, _done_without(job, frozenset(have.items())) if short else None, offered.refused)


# Every screen that opens a job asks for it.
@remembered(128)
def _compared(job: Job) -> ChoicesFile:
    return to_choices_file(choices(job))


@remembered(128)
def _plan(job: Job) -> Plan:
    return plan_job(job)


@remembered(128)
def _done_without(job: Job, have: frozenset[tuple[str, float]]) -> DoneWithout:
    return do_without(_plan(job), dict(have))


# A list of jobs shows the minutes of each; jobs rarely change between two looks at the list.
@remembered(512)
def _planned(job: Job) -> PlanFile:
    return to_plan_file(_plan(job))


DEEPEST_MARK_UM: Final = 20_000.0  # as deep as the job file can say


def goback_file(
    file: JobFile,
    shelf: Shelf | None = None,
    *,
    face: str,
    after: int,
    depth_um: float | None = None,
    like: str | None = None,
    fingernail: bool = False,
) -> GoBackFile:
    """What to do about a mark found after this step of a face.

    Args:
        face: the id of the face, or its name.
        after: the step whose light check showed the mark, from 1.
        depth_um, like, fingernail: how deep: measured, as left by a grade, or so that a fingernail catches it. Just one.

    Raises:
        BadInput: the job, the face, the step or the depth cannot be used.
    """
    job = job_of(file, shelf)
    found = job.face(face)
    depth = mark_depth(job, depth_um=depth_um, like=like, fingernail=fingernail)
    return to_goback_file(job, go_back(job, found, after=after, depth=depth))


def mark_depth(job: Job, *, depth_um: float | None, like: str | None, fingernail: bool) -> float:
    """How deep a mark is, in m, said in just one of three ways.

    Raises:
        BadInput: it is said in no way or in several, or the grade cannot be read.
    """
    if sum((depth_um is not None, like is not None, fingernail)) != 1:
        raise BadInput.one("depth_um", "say how deep in one way: by depth, like a grade, or a fingernail catches it")
    if like is not None:
        grain = parse_grade(like, field="like").grain
        return depth_of_marks(roughness_left(grain=grain, hold=1.0, hardness=job.material.hardness))
    if fingernail:
        return feels()["catches"].likely.si
    if depth_um is None or not 0 < depth_um <= DEEPEST_MARK_UM:  # NaN too
        said = f"must be above 0 and at most {DEEPEST_MARK_UM:g}"
        raise BadInput([Fault("depth_um", said, code="less_than_equal", limit=DEEPEST_MARK_UM)])
    return to_si(depth_um, "um")
