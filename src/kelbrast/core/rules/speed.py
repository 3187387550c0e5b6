"""How fast a wheel runs: the band of its use and family, and the mark that is never passed (worked out in `process.speed`)."""

from typing import Final

from kelbrast.core.process.speed import marked_now
from kelbrast.core.rules.rule import Practice, ToolRule
from kelbrast.core.tooling.surfaces import Surfaces
from kelbrast.core.tooling.working_conditions import recommended_band
from kelbrast.core.wording import Measure, Sentence, sentence


def _reason(surfaces: Surfaces, _before: int, at: int) -> Sentence:
    carrier, label = surfaces.leaving(at).tool.carrier, surfaces.leaving(at).tool.label
    limit = carrier.running.marked_limit
    return sentence("speed.none", tool=label, mark=sentence("speed.mark", mark=Measure(limit, "speed")) if limit else "")


SETTING: Final = ToolRule(
    id="safe-setting",
    says="A wheel runs at the setting nearest to the middle of its band of surface speeds, never above the band, and no "
    "slower than a share of its lower end (speed.slowest_share): where no machine has such a setting it is not used.",
    source="buffing-handbooks",
    lifted_by="a machine with another speed, or a wheel of another diameter",
    refusal="speed",
    forbids=lambda on_face, _place: not on_face.drive.suited,
    reason=_reason,
)
MARKED: Final = Practice(
    id="marked-limit",
    says="The speed marked on a wheel is never passed; one that has worn down turns no faster than when it was new.",
    source="en-12413",
    lifted_by="nothing",
    kept_by=marked_now,
)
LOW_SCHOOL: Final = Practice(
    id="low-speed-school",
    says="The low-speed school runs machines that stand at a share of the usual band (speed.low_school): calmer, cooler, "
    "longer.",
    source="buffing-handbooks",
    lifted_by="choosing the usual speed",
    kept_by=recommended_band,
)
