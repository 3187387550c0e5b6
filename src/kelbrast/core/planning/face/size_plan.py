"""The route of a face whose size is wanted, by the gauge: what to read after each step, and the first move."""

from kelbrast.core.catalogue.materials import Material
from kelbrast.core.learning.factors import Yours
from kelbrast.core.planning.face.face_plan import FacePlan
from kelbrast.core.precision.advice import SizingAdvice, usual_lap
from kelbrast.core.precision.face import SizingStep, size_of_face, sizing_tools
from kelbrast.core.precision.state import WorkRound
from kelbrast.core.reference.loader import constant


def size_plan(plan: FacePlan, material: Material) -> SizingAdvice | None:
    """What the gauge says of a face before any work; None without a size or readings. Without steps: for a coarse lap."""
    sized = plan.face.sized
    if sized is None or not sized.readings:
        return None
    steps = [SizingStep(one.tool.id, one.marks.layer, one.time.cut) for one in plan.steps]
    learnt = any(one.on_face.yours != Yours() for one in plan.steps)
    spread = constant("precision.prior_known" if learnt else "precision.prior").value
    tool = sizing_tools(steps, spread=spread)[0] if steps else usual_lap(material)
    return size_of_face(sized, steps, [WorkRound(0.0, tool, sized.readings)], material)
