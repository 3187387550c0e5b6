"""Trial pieces: what to make one with, what it says, and accepting that."""

import math
from datetime import date
from typing import Final

from kelbrast.app.instruments import instruments
from kelbrast.app.kept_trials import KeptTrial, Trials
from kelbrast.app.rack import Shelf
from kelbrast.core.bench.instruments import QUANTITIES
from kelbrast.core.catalogue.grades import parse_grade
from kelbrast.core.catalogue.materials import material
from kelbrast.core.catalogue.tools import tool
from kelbrast.core.errors import BadInput, OutsideValidity
from kelbrast.core.job import Job
from kelbrast.core.learning.factors import LearntQuantity
from kelbrast.core.learning.trial import (
    Removed,
    Tried,
    layer_measured,
    layer_weighed,
    removal_tried,
    scratch_tried,
)
from kelbrast.core.process.removal import fresh_in
from kelbrast.core.reference.loader import constant, find, record
from kelbrast.core.rules.cautions import part_cautions, step_cautions
from kelbrast.core.tooling.trial_square import OnTrial, on_trial, suited
from kelbrast.core.units import from_si, to_si
from kelbrast.documents.own.trial import (
    TrialAnswer,
    TrialAsked,
    TrialFile,
    TrialReadingIn,
    TrialSet,
    looks_of,
    rate_um_min,
    to_figure,
    to_set,
)
from kelbrast.documents.run.format import ReadingFile

_STAND_INS: Final = "readings of stand-ins prove nothing: weigh or measure, or leave them out"
_NOTHING: Final = "nothing was seen or measured yet"


def trial_set(asked: TrialAsked, shelf: Shelf) -> TrialSet:
    """How to make a trial of a tool on a material.

    Raises:
        NotFound: no such tool or material.  BadInput: it cannot be tried, or the grade cannot be read.
    """
    trial, job = _on_trial(asked, shelf)
    face = trial.on_face
    cautions = (*step_cautions(face, trial.face, job.material), *part_cautions(job))
    return to_set(trial, asked.material, job.material.label, cautions)


def trial_answer(file: TrialFile, shelf: Shelf) -> TrialAnswer:
    """What a trial says, beside the tables.

    Raises:
        NotFound, BadInput: it cannot be understood.
    """
    trial, _ = _on_trial(file, shelf)
    removal, scratch = _tried(file, trial)
    why_not = _STAND_INS if file.simulated else "" if removal or scratch else _NOTHING
    return TrialAnswer(
        removal_um_min=to_figure(rate_um_min(trial), removal),
        ra_um=to_figure(from_si(trial.square.ra, "um"), scratch),
        usable=not why_not,
        why_not=why_not,
    )


def accept(file: TrialFile, shelf: Shelf, trials: Trials, *, today: date) -> KeptTrial:
    """Keep a trial: from now on plans and learning begin from what it says.

    Raises:
        NotFound, BadInput: it cannot be understood, or proves nothing.
    """
    answer = trial_answer(file, shelf)
    if not answer.usable:
        raise BadInput.one("simulated" if file.simulated else "looks", answer.why_not)
    trial, job = _on_trial(file, shelf)
    quantities: tuple[LearntQuantity, ...] = ("removal", "scratch")
    said = {which: tried for which, tried in zip(quantities, _tried(file, trial), strict=True) if tried is not None}
    file = file.model_copy(update={"on": file.on or today})
    return trials.add(file, trial.on_face.tool.carrier.id, job.material.family, said)


def trial_reading(asked: TrialReadingIn, shelf: Shelf, instrument_id: str) -> ReadingFile:
    """A reading of the piece; a stand-in reads what the tables expect of a plate a centimetre thick.

    Raises:
        NotFound: no such instrument.  BadInput: it reads something else, or the trial cannot be made.
    """
    instrument = find("instrument", instruments(), instrument_id)
    if instrument.quantity not in ("weight", "size"):
        raise BadInput.one(
            "instrument", f"a {instrument.label.lower()} tells nothing of what came off: take a balance or a micrometer"
        )
    trial, job = _on_trial(asked, shelf)
    kind = QUANTITIES[instrument.quantity]
    layer = trial.square.rate * float(fresh_in(seconds=asked.seconds, life=trial.square.life, change_after=math.inf))
    of_layer = job.material.density * trial.side**2 if instrument.quantity == "weight" else 1.0
    plate = constant("trial.plate").si * of_layer if asked.before is None else to_si(asked.before, kind.unit)
    value = float(f"{from_si(instrument.read(plate - layer * of_layer), kind.unit):.9g}")
    said = {"quantity": instrument.quantity, "value": value, "instrument": instrument.label, "simulated": instrument.simulated}
    return ReadingFile.model_validate(said)


def _on_trial(asked: TrialAsked, shelf: Shelf) -> tuple[OnTrial, Job]:
    tried = tool(asked.tool)
    job = Job(title="trial", faces=(), material=material(asked.material))
    if shelf.machines is not None:  # otherwise nobody knows which there are
        job = shelf.equip(job, extras=(asked.tool,), insist=True)
    if not tried.keeps_clean(job.material.family):
        raise BadInput.one("tool", f"{tried.label} may not be used on {job.material.label.lower()}")
    if asked.grade is None or asked.side_mm is None:
        return suited(asked.tool, job), job
    grade = parse_grade(asked.grade, field="grade")
    return on_trial(asked.tool, job, grade, side=to_si(asked.side_mm, "mm")), job


def _tried(file: TrialFile, trial: OnTrial) -> tuple[Tried | None, Tried | None]:
    """What it says of the removal rate and of the scratch."""
    removed = list(_removed(file, trial))
    try:
        removal = removal_tried(trial.square, looks_of(file), removed) if file.looks or removed else None
        scratch = None
        if (read := file.roughness) is not None:
            error = constant("trial.read" if read.by == "meter" else "trial.compared").value
            scratch = scratch_tried(to_si(read.ra_um, "um"), expected=trial.square.ra, error=error)
    except OutsideValidity as outside:
        raise BadInput.one("looks", str(outside)) from None
    return removal, scratch


def _removed(file: TrialFile, trial: OnTrial) -> list[Removed]:
    found, error = [], {name: row["error"].si for name, row in record("instruments").items()}
    if (weighed := file.weighed) is not None:
        lost = to_si(weighed.before_g - weighed.after_g, "g")
        if lost < 0:
            raise BadInput.one("weighed.after_g", "cannot be more than before the work")
        density = material(file.material).density
        layer = layer_weighed(lost=lost, density=density, area=trial.side**2, error=error["balance"])
        found.append(Removed(file.seconds, *layer))
    if (measured := file.measured) is not None:
        before, after = ([to_si(one, "mm") for one in read] for read in (measured.before_mm, measured.after_mm))
        if len(before) != len(after):
            raise BadInput.one("measured.after_mm", f"must be {len(before)} readings, one for each place before the work")
        found.append(Removed(file.seconds, *layer_measured(before, after, error=error["micrometer"])))
    return found
