"""The open plan file, `plan/1`: what the command line prints and the screens draw."""

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field

from kelbrast.core.job import Aim, RackUsed
from kelbrast.core.planning.whole.operations import When
from kelbrast.core.planning.whole.spread import SpreadCause
from kelbrast.core.rules.lay import LayOfStep
from kelbrast.core.rules.rule import Refusal
from kelbrast.core.surface.edge import EdgeWanted
from kelbrast.documents.common.sentences import SentenceFile
from kelbrast.documents.size.answer import PlaceFile, SizeAnswer

FaceKey = Annotated[str, Field(description="of the face, whatever it is called; empty in plans from before faces had one")]
High = Annotated[float | None, Field(description="nine of ten stay below; null in plans that were kept without it")]


class Spent(BaseModel):
    """Abrasives for one piece: how many to have at hand, and how many of them (or of bars, tubs) are worn out."""

    count: int
    unit: str
    worn: float


class RestsFile(BaseModel):
    """How often the part is put down to cool, for how long, and after how much work; `by_hand`: the hand is the limit."""

    count: int
    seconds: float
    after_seconds: float
    by_hand: bool


class YoursFile(BaseModel):
    """The shop's own factors in a step's figures, learnt from its log: of removal rate, life and scratch left."""

    removal: float
    life: float
    scratch: float


class ZoneFile(BaseModel):
    """Places on a face: the names and ids of the spots, and the area around all of them that is worked. `begun`: those of them
    that no step before has worked."""

    spots: list[str]
    ids: list[FaceKey]
    begun: list[FaceKey]
    area_cm2: float
    margins_mm: Annotated[list[float], Field(description="how far around each of `spots` is worked")]
    band: Annotated[bool, Field(description="along the whole lay")] = False
    count: Annotated[int, Field(description="how many places that is")]


class StepFile(BaseModel):
    """One step. `takes_um = clearance * from_um`, and `from_um` is the `leaves_um` of the step before."""

    tool: str
    label: str
    machine: str
    machine_label: str
    grain_um: float
    from_um: float
    likely_um: float
    takes_um: float
    leaves_um: float
    leaves_ra_um: float
    clearance: float
    minutes: float
    minutes_high: High = None
    cut_minutes: float
    handling_minutes: Annotated[
        float | None, Field(description="beside the cutting, for each piece, as the account has it")
    ] = None
    lot_handling_minutes: Annotated[float, Field(description="in the account, once for a lot")] = 0.0
    set_up_minutes: Annotated[float | None, Field(description="once for a lot, as the account has it")] = None
    speed_m_s: float
    rpm: float | None
    speed_limit_m_s: float | None
    speed_band_m_s: tuple[float, float] | None
    diameter_mm: float | None
    new_diameter_mm: float | None
    force_n: float
    pressure: Literal["light", "normal"]
    wet: bool
    longest_stay_s: float | None
    rests: RestsFile | None
    marks_left: float
    marks_said: Annotated[SentenceFile | None, Field(description="the same in words, where there are any")] = None
    stays_um: float
    item: Annotated[int | None, Field(description="item of the shop's rack that it is done with")]
    commits: Annotated[bool, Field(description="doing it binds that item to this charge and metal for life")]
    life_minutes: Annotated[float | None, Field(description="its cutting rate falls to a third in so much work")]
    change_after_minutes: Annotated[float | None, Field(description="when a dying abrasive is changed, work on it")]
    recharge: Annotated[bool, Field(description="a wheel that is charged with a bar or paste again and again")]
    yours: YoursFile | None
    spent: Spent
    cost: float
    lay: LayOfStep
    check: str
    cautions: list[str]
    advice: Annotated[list[str], Field(description="what is good to know")] = []
    zone: Annotated[ZoneFile | None, Field(description="the places that it works; null for all of the face")] = None
    goes_on: Annotated[bool, Field(description="with the tool of the step before, which is set up already")] = False
    curve: Annotated[list[tuple[float, float]], Field(description="(minutes since the step began, deepest marks left in um)")]


class SpotsLeftFile(BaseModel):
    """Spots that stay: the most sparing way takes `least_um` off there, and `may_um` may come off."""

    spots: str
    id: FaceKey = ""
    least_um: float
    may_um: float
    dish_radius_mm: Annotated[float, Field(description="of a dish that uses all that may come off")]
    dish_stays_um: Annotated[float, Field(description="how deep they still are in its middle")]


class SimplerFinish(BaseModel):
    """A finish that can be had with every mark taken out."""

    finish: str
    label: str
    minutes: float


class FallbackFile(BaseModel):
    """What the limit leaves possible: marks up to `cleared_um` still come out by these tools; what stays; a dish; simpler."""

    cleared_um: float
    stays_um: float
    minutes: float | None
    dear: Annotated[bool, Field(description="so much longer than without a limit that it is hardly worth it")] = False
    tools: list[str]
    simpler: list[SimplerFinish]
    dish_radius_mm: float
    dish_stays_um: float


class OperationFile(BaseModel):
    """Work before, between or after the steps. `minutes` of a person for each piece, `lot_minutes` once for a lot,
    `waiting_minutes` once for a lot; `counted`: the minutes are in the steps already; `within_minutes`: how soon after the last
    step it must be done."""

    id: str
    label: str
    when: When
    text: str
    minutes: float
    lot_minutes: float = 0.0
    waiting_minutes: float
    counted: bool
    within_minutes: float | None
    source_kind: str
    source: str
    cautions: list[str]
    check: Annotated[str, Field(description="what must be found right before it counts as done")] = ""


class FaceStep(BaseModel):
    """A step of a face, from 1."""

    face: str
    face_id: FaceKey = ""
    step: int


class SetUpFile(BaseModel):
    """A tool on its machine and the steps done with it before it comes off; sharing saves `saved_minutes` on a piece."""

    tool: str
    label: str
    machine: str
    machine_label: str
    rpm: float | None
    steps: list[FaceStep]
    saved_minutes: float


class GatheredFile(BaseModel):
    """What to lay out for all pieces: so many sheets, discs or bars of a tool."""

    tool: str
    label: str
    count: int
    unit: str


class EdgePlan(BaseModel):
    """An edge: how long, what becomes of it, and the leg of its break or its radius (0 where it stays sharp)."""

    length_mm: float
    wanted: EdgeWanted
    size_mm: float


class FitPlan(BaseModel):
    """A size that is wanted of a face: what the gauge says before any work, with the diameter to read after each step.
    `answer` is null before the first reading; `places`: where to read then."""

    limits_mm: tuple[float, float]
    answer: SizeAnswer | None
    places: list[PlaceFile]


class FacePlanFile(BaseModel):
    """The route of one face; `steps` is empty when it is not possible, kept off, or as wanted already."""

    id: FaceKey = ""
    name: str
    possible: bool
    binding: Refusal | None
    reason: Annotated[str | None, Field(description="in a sentence with the number that is missing, metric")]
    reason_said: Annotated[SentenceFile | None, Field(description="the same, its figures apart")] = None
    keep_off: bool
    found_as: Annotated[str, Field(description="the word that was chosen for what is wrong with it; empty for none")] = ""
    edge: EdgePlan | None = None
    aim: Aim
    minutes: float
    minutes_high: High = None
    metal_um: float
    above_um: Annotated[float, Field(description="of it, what stood above the face and does not count against the limit")]
    cost: float
    changes: int
    area_cm2: float
    limit_um: float | None
    limit_kind: str
    wanted_depth_um: float | None
    wanted_low_um: float | None
    rework_minutes: Annotated[float, Field(description="repeats to expect of steps that go far, beside the work")] = 0.0
    without_habit_minutes: Annotated[
        float | None, Field(description="what the work would take if the habit did not count, with more repeats to expect")
    ] = None
    end_note: Annotated[SentenceFile | None, Field(description="where fewer than nine of ten end as wanted")] = None
    limit_note: Annotated[SentenceFile | None, Field(description="where hardly anything of the limit is left")] = None
    habit_note: str | None
    wish_note: str | None
    marks_left: float
    marks_said: Annotated[SentenceFile | None, Field(description="the same in words, where there are any")] = None
    fallback: FallbackFile | None
    metal_elsewhere_um: Annotated[
        float | None, Field(description="what comes off where no spots are; null where all of the face is worked alike")
    ] = None
    rest_um: Annotated[float | None, Field(description="depth of what covers the face, where spots are worked first")] = None
    all_alike_minutes: Annotated[float | None, Field(description="what it would take to work all of the face alike")] = None
    left: Annotated[list[SpotsLeftFile], Field(description="spots that stay")] = []
    fit: FitPlan | None = None
    steps: list[StepFile]


class ShortFile(BaseModel):
    """A tool of which all pieces use up `need`, and the rack has `have` (0: not there)."""

    tool: str
    label: str
    unit: str
    need: int
    have: float


class RefusedFile(BaseModel):
    """A tool that stands on the rack and may not be used on this metal, and why."""

    tool: str
    label: str
    reason: str


class RackCheck(BaseModel):
    """The plan against the shop's own rack: what is short, the hands-on minutes of the best plan of which nothing is short and
    the tools that it does without (null and none where no such plan is worth it: they are needed), and what is refused."""

    short: list[ShortFile]
    without_minutes: float | None
    without_possible: bool
    without_tools: list[str] = []
    refused: list[RefusedFile]


class SpreadShare(BaseModel):
    """Why minutes differ from the likely ones: a cause, and its share (0 to 1) of what they vary."""

    cause: SpreadCause
    label: str
    share: float


class TogetherFile(BaseModel):
    """What choosing the routes of the faces together saves on a piece against each face's own best; what is not the aim may
    be below 0. `exact`: no choice of these routes is better; else none saves more than `at_most` minutes (or changes)."""

    saves_minutes: float
    saves_changes: int
    exact: bool
    at_most: float


class AccountFile(BaseModel):
    """Minutes by line of the account. All but `waiting` are a person's hands-on time."""

    cutting: float
    handling: float
    set_up: float
    before_after: float
    waiting: float


class PlanFile(BaseModel):
    """The plan of a job. `minutes`: at the abrasives, for one piece; `around_minutes`: before and after, for one piece.

    The account is for all pieces: `hands_on_minutes` of a person, which nine of ten such jobs keep below
    `hands_on_minutes_high`, and `start_to_finish_minutes` with the waiting; `account` has them by line, `account_each` for
    every piece and `account_lot` for every lot; nine of ten stay below each line of `account_high`.
    """

    model_config = ConfigDict(title="Kelbrast plan, version 1")

    kelbrast: Literal["plan/1"] = "plan/1"
    title: str
    material: str
    pieces: int
    lots: Annotated[list[int], Field(description="how many pieces are in every lot")] = []
    possible: bool
    blocked: str | None
    minutes: float
    minutes_high: High = None
    spread: list[SpreadShare] = []
    around_minutes: float
    hands_on_minutes: float = 0.0
    hands_on_minutes_high: High = None
    start_to_finish_minutes: float = 0.0
    account: AccountFile | None = None
    account_each: AccountFile | None = None
    account_lot: AccountFile | None = None
    account_high: AccountFile | None = None
    changes: int
    order: list[str]
    faces: list[FacePlanFile]
    set_ups: list[SetUpFile]
    together: TogetherFile | None = None
    gather: list[GatheredFile]
    operations: list[OperationFile]
    planned_from: Annotated[RackUsed, Field(description="the shop's own rack, or any tool of the catalogue")] = "catalogue"
    rack: RackCheck | None = None
    cautions: list[str]
    advice: Annotated[list[str], Field(description="what is good to know")] = []
