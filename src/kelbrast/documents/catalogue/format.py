"""What there is to choose from, as the command line lists it and the screens offer it."""

from pydantic import BaseModel

from kelbrast.core.surface.sized import RoundKind
from kelbrast.documents.common.sentences import SentenceFile
from kelbrast.documents.job.format import FaceFile


class Figure(BaseModel):
    """A number with where it comes from. `kind`: published, memory, practice, fitted or assumed."""

    name: str
    value: float
    unit: str
    kind: str
    kind_label: str
    source: str
    locator: str


class MaterialFile(BaseModel):
    id: str
    label: str
    family: str
    hardness_gpa: float
    conductivity_w_mk: float
    density_kg_m3: float
    specific_heat_j_kgk: float
    limit_c: float
    figures: list[Figure] = []


class FinishFile(BaseModel):
    id: str
    label: str
    purpose: str
    purpose_said: SentenceFile
    ra_um: tuple[float | None, float | None]
    no_finer_than: str | None
    lay: str
    figures: list[Figure] = []


class ToolFile(BaseModel):
    id: str
    label: str
    carrier: str
    kind: str
    grade: str
    charge: str | None
    grain_um: float
    hold: float
    reaches_depth_um: float | None
    levels: bool
    backed: bool
    wear: float
    lays: list[str]
    mount: str
    diameter_mm: float | None
    speed_limit_m_s: float | None
    open: bool
    tight: bool
    inside_radius_mm: float | None
    reach_in_mm: float | None
    least_face_cm2: float
    most_face_cm2: float | None
    not_for: list[str]
    suits: list[str] | None
    price: float
    unit: str
    figures: list[Figure] = []


class DrawingFile(BaseModel):
    """How a machine turns and where the work may touch it, for drawing. Degrees anticlockwise from three o'clock.

    `view`: "side" looks along the spindle with the worker on the left, "face" at the disc or pad as it meets the work.
    """

    view: str
    turns: str
    worker_deg: float
    touch_deg: tuple[float, float]
    where: str


class MachineFile(BaseModel):
    id: str
    label: str
    takes: list[str]
    contact: float
    rpm: list[float]
    rpm_range: tuple[float, float] | None
    orbit_mm: float | None
    stroke_m_s: float | None
    drawing: DrawingFile | None


class InsertFile(BaseModel):
    id: str
    label: str
    limit_c: float
    forbids: list[str]
    word: str


class UseFile(BaseModel):
    id: str
    label: str
    finish: str
    no_finer_than: str | None
    reason: str
    reason_said: SentenceFile


class GradeFile(BaseModel):
    grade: str
    um: float


class Choice(BaseModel):
    """An id with its words."""

    id: str
    label: str


class ShapeChoice(Choice):
    """A shape with the measures it needs, as keys of the job file.

    `curved`: unless it is said otherwise.  `round`: its size is measured across.  `sized_as`: what a gauge judges it as.
    """

    needs: list[str]
    curved: bool
    round: bool
    sized_as: RoundKind | None


class FoundChoice(Choice):
    """A kind of damage: whether it can cover all of a face, and whether it can be in some places only."""

    all_over: bool
    in_places: bool


class StateChoice(Choice):
    """How far a job is with its customer. `open`: not over yet."""

    open: bool


class DamageFile(Choice):
    """What people call what is wrong, and what it becomes: the kind of the job file with a first guess of its depth, and
    of the size of one place where it lies in places and not all over."""

    kind: str
    likely_um: float
    worst_um: float
    length_mm: float | None
    width_mm: float | None
    says: str


class FeelFile(Choice):
    """How deep a mark is by what one can tell of it, with where that is from."""

    likely_um: float
    worst_um: float
    source: str
    source_kind: str


class KitFile(Choice):
    """What a shop of a kind has to begin with: ids of things that can stand on a rack, and how many of each."""

    about: str
    items: dict[str, int]


class FiguresFile(BaseModel):
    """The figures behind materials, finishes and tools with their sources, by id."""

    materials: dict[str, list[Figure]]
    finishes: dict[str, list[Figure]]
    tools: dict[str, list[Figure]]


class Catalogue(BaseModel):
    """Everything the screens offer to choose from; what stands behind the figures is asked for apart.

    `new_edge`: an edge that was added, as one is usually wanted.
    """

    families: list[Choice]
    materials: list[MaterialFile]
    finishes: list[FinishFile]
    tools: list[ToolFile]
    machines: list[MachineFile]
    grades: list[GradeFile]
    shapes: list[ShapeChoice]
    found: list[FoundChoice]
    damages: list[DamageFile]
    feels: list[FeelFile]
    kits: list[KitFile]
    reaches: list[Choice]
    edges: list[Choice]
    new_edge: FaceFile
    habits: list[Choice]
    handovers: list[Choice]
    bench_speeds: list[Choice]
    aims: list[Choice]
    uses: list[UseFile]
    inserts: list[InsertFile]
    coverings: list[Choice]
    protections: list[Choice]
    held: list[Choice]
    wet: list[Choice]
    lays: list[Choice]
    states: list[StateChoice]
    item_kinds: list[Choice]
    light: dict[str, float]
