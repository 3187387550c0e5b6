"""How warm a part may get (computed in `process.heat` and `tooling.working_conditions`)."""

from typing import Final

from kelbrast.core.process.heat import work_until_hot
from kelbrast.core.reference.loader import constant
from kelbrast.core.rules.rule import Practice, ToolRule
from kelbrast.core.tooling.surfaces import Surfaces
from kelbrast.core.tooling.working_conditions import choose_conditions
from kelbrast.core.wording import Measure, Sentence, sentence


def _reason(surfaces: Surfaces, _before: int, at: int) -> Sentence:
    on_face = surfaces.leaving(at)
    working, label = on_face.working, on_face.tool.label
    hottest = surfaces.material.limit if working.by_hand else working.allowed + constant("heat.room").si
    limit, wanted = Measure(hottest, "temperature"), Measure(constant("heat.shortest_stay").si, "time")
    if working.until_hot < working.stay:
        stay = Measure(working.until_hot, "time")
        if working.by_hand:
            return sentence("heat.hold", tool=label, stay=stay, wanted=wanted)
        return sentence("heat.part", tool=label, limit=limit, stay=stay, wanted=wanted)
    return sentence("heat.spot", tool=label, limit=limit, stay=Measure(working.stay, "time"), wanted=wanted)


TOO_HOT: Final = ToolRule(
    id="too-hot",
    says="Where even light pressure, wet if the tool can be wet, brings the spot to the material's limit or the part to "
    "what a hand in finger guards bears (heat.guarded) within heat.shortest_stay, the tool is not used.",
    source="bench-practice",
    lifted_by="a slower or softer tool, work in a clamp, wet work, or taking out what must not get warm",
    refusal="heat",
    forbids=lambda on_face, _place: on_face.working.too_hot,
    reason=_reason,
)
FIRM_BEFORE_LIGHT: Final = Practice(
    id="firm-before-light",
    says="A tool is pressed firmly before lightly and run dry before wet, whichever is the first that is cool enough; "
    "materials that clog and burn dry are worked wet from the start.",
    source="bench-practice",
    lifted_by="saying how wet the part is worked",
    kept_by=choose_conditions,
)
RESTS: Final = Practice(
    id="rests",
    says="A part that warms as a whole is put down to cool before it passes its limit, or what a hand in finger guards bears; "
    "that they are needed is said with the step.",
    source="our-choice",
    lifted_by="holding it in a clamp",
    kept_by=work_until_hot,
)
