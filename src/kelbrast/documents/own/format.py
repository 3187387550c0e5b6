"""What a shop has of its own, `own/1`: tools, compounds, materials, machines and finishes that no catalogue lists."""

import json
from collections.abc import Iterator, Sequence
from datetime import date
from typing import Annotated, Any, Final, Literal

from pydantic import ConfigDict, Discriminator, Field, Tag, ValidationError

from kelbrast.core.catalogue.finishes import LayWanted
from kelbrast.core.catalogue.materials import families
from kelbrast.core.catalogue.own import OwnEntry, own_rows
from kelbrast.core.catalogue.tools import carriers, tools
from kelbrast.core.errors import BadInput, Fault, ReadError
from kelbrast.core.reference.own_rows import OwnRows, using
from kelbrast.documents.common.faults import faults_of
from kelbrast.documents.common.fields import ID, GradeText, Millimetres, NameText, Note, Strict, Text

MOST_ENTRIES: Final = 500
OWN_ID: Final = r"^(own-[a-z0-9]{1,40})?$"
Factor = Annotated[float, Field(ge=0.1, le=10, allow_inf_nan=False)]
Money = Annotated[float, Field(ge=0, le=1_000_000, allow_inf_nan=False)]
Turns = Annotated[float, Field(gt=0, le=200_000, allow_inf_nan=False)]
Roughness = Annotated[float, Field(ge=0.001, le=100, allow_inf_nan=False)]


class _Head(Strict):
    """`like`: id of what it is like, of a tool its carrier. What is left out is as of that. `id`: empty, and one is made."""

    id: Annotated[str, Field(pattern=OWN_ID)] = ""
    name: Text
    like: ID
    by: NameText = ""
    on: Annotated[date | None, Field(strict=False)] = None
    note: Note = ""
    retired: Annotated[bool, Field(description="not offered any more; what uses it goes on")] = False


class OwnToolFile(_Head):
    """A tool. `cuts`, `lasts` and `marks` are factors: twice as quick is 2. `cuts_like`: the grade that it cuts like, where it
    leaves marks like its own."""

    kind: Literal["tool"]
    grades: Annotated[list[GradeText], Field(default_factory=list, max_length=40)]
    cuts: Factor = 1
    cuts_like: GradeText | None = None
    lasts: Factor = 1
    marks: Factor = 1
    marked_m_s: Annotated[float, Field(gt=0, le=200, allow_inf_nan=False)] | None = None
    diameter_mm: Millimetres | None = None
    price: Money | None = None


class OwnCompoundFile(_Head):
    """A compound. `grain`: as a grade, also `3um`."""

    kind: Literal["compound"]
    grain: GradeText | None = None
    cuts: Factor = 1


class OwnHardness(Strict):
    """A hardness as it was read."""

    value: Annotated[float, Field(gt=0, le=10_000, allow_inf_nan=False)]
    scale: Literal["HV", "HB", "HRC", "HRB", "Shore D"]


class OwnMaterialFile(_Head):
    """A material. `coarsest`: the coarsest grade that it bears."""

    kind: Literal["material"]
    hardness: OwnHardness | None = None
    density_kg_m3: Annotated[float, Field(ge=10, le=25_000, allow_inf_nan=False)] | None = None
    expansion_um_mk: Annotated[float, Field(ge=0.1, le=500, allow_inf_nan=False)] | None = None
    limit_c: Annotated[float, Field(ge=25, le=1000, allow_inf_nan=False)] | None = None
    coarsest: GradeText | None = None


class OwnMachineFile(_Head):
    """A machine, with fixed speeds or a range of them."""

    kind: Literal["machine"]
    rpm: Annotated[list[Turns], Field(default_factory=list, max_length=20)]
    rpm_range: tuple[Turns, Turns] | None = None


class OwnFinishFile(_Head):
    """A finish: a band of Ra and a lay."""

    kind: Literal["finish"]
    ra_um: tuple[Roughness | None, Roughness | None] | None = None
    measured_ra_um: Annotated[Roughness | None, Field(description="of a piece that it shall look like")] = None
    lay: LayWanted | None = None


def _arm(given: Any) -> str:
    """Which of the kinds is given, by a word that is no key of any of them: a fault leaves it out of its place."""
    return f"own_{given.get('kind') if isinstance(given, dict) else getattr(given, 'kind', None)}"


OwnEntryFile = Annotated[
    Annotated[OwnToolFile, Tag("own_tool")]
    | Annotated[OwnCompoundFile, Tag("own_compound")]
    | Annotated[OwnMaterialFile, Tag("own_material")]
    | Annotated[OwnMachineFile, Tag("own_machine")]
    | Annotated[OwnFinishFile, Tag("own_finish")],
    Discriminator(
        _arm,
        custom_error_type="own_kind",
        custom_error_message='must say its "kind": tool, compound, material, machine or finish',
    ),
]


class OwnFactorFile(Strict):
    """What a shop learnt about a carrier on a family: a factor to the tables, and the standard error of its logarithm."""

    carrier: ID
    family: ID
    quantity: Literal["removal", "life", "scratch"]
    factor: Annotated[float, Field(ge=0.01, le=100, allow_inf_nan=False)]
    error: Annotated[float, Field(gt=0, le=1, allow_inf_nan=False)]


class OwnFile(Strict):
    """What a shop has of its own, and what it learnt about its tools; nothing of its customers."""

    model_config = ConfigDict(extra="forbid", frozen=True, strict=True, title="Kelbrast, what a shop has of its own, version 1")

    kelbrast: Literal["own/1"] = "own/1"
    entries: Annotated[list[OwnEntryFile], Field(max_length=MOST_ENTRIES)]
    factors: Annotated[list[OwnFactorFile], Field(max_length=2000)] = []


def read_own_file(text: str | bytes) -> OwnFile:
    """Read and check a file of own entries; that they can be used too.

    Raises:
        ReadError: not JSON at all, or not an object.
        BadInput: every fault, by entry.
    """
    try:
        data = json.loads(text)
    except (ValueError, RecursionError) as problem:
        raise ReadError.one("", f"this is not JSON: {problem}") from None
    if not isinstance(data, dict) or "kelbrast" not in data:
        raise BadInput.one("kelbrast", 'is missing; a file of own things says "kelbrast": "own/1"')
    file = check_own_file(data)
    with using(rows_of(file.entries)):
        faults = [
            Fault(f"factors[{at}].{key}", f'there is no {key} "{named}"')
            for at, one in enumerate(file.factors)
            for key, named, known in (("carrier", one.carrier, carriers()), ("family", one.family, families()))
            if named not in known
        ]
    if faults:
        raise BadInput(faults)
    return file


def check_own_file(data: dict[str, Any]) -> OwnFile:
    """The shape alone, of JSON that is read already."""
    try:
        return OwnFile.model_validate_json(json.dumps(data))
    except ValidationError as problem:
        raise BadInput(faults_of(problem)) from None


def rows_of(files: Sequence[OwnEntryFile]) -> OwnRows:
    """The rows that these entries make.

    Raises:
        BadInput: every fault, by entry: two of one name or one id, and what cannot be used.
    """
    if faults := list(_twice(files)):
        raise BadInput(faults)
    return own_rows(to_entry(file, file.id or f"own-new{at}") for at, file in enumerate(files))


def tool_ids(file: OwnEntryFile | None) -> set[str]:
    """Ids of the tools that an entry makes by itself; of none there are none."""
    if file is None or file.kind != "tool":
        return set()
    with using(rows_of([file])):
        return {one.id for one in tools().values() if one.carrier.id == file.id}


def _twice(files: Sequence[OwnEntryFile]) -> Iterator[Fault]:
    for which in ("name", "id"):
        seen: set[tuple[str, str]] = set()
        for at, file in enumerate(files):
            said = str(getattr(file, which)).lower()
            one = (file.kind if which == "name" else "", said)
            if said and one in seen:
                yield Fault(f"entries[{at}].{which}", "another of the shop's own has it already")
            seen.add(one)


def to_entry(file: OwnEntryFile, key: str) -> OwnEntry:
    """The entry of the core."""
    more: dict[str, Any] = {}
    match file:
        case OwnToolFile():
            more = {
                "grades": tuple(file.grades),
                "cuts": file.cuts,
                "cuts_like": file.cuts_like or "",
                "lasts": file.lasts,
                "marks": file.marks,
                "marked_limit": file.marked_m_s,
                "diameter": file.diameter_mm,
                "price": file.price,
                "retired": file.retired,
            }
        case OwnCompoundFile():
            more = {"grain": file.grain or "", "cuts": file.cuts, "retired": file.retired}
        case OwnMaterialFile():
            more = {
                "hardness": (file.hardness.value, file.hardness.scale) if file.hardness else None,
                "density": file.density_kg_m3,
                "expansion": file.expansion_um_mk,
                "limit": file.limit_c,
                "coarsest": file.coarsest or "",
            }
        case OwnMachineFile():
            more = {"speeds": tuple(file.rpm), "speed_range": file.rpm_range}
        case OwnFinishFile():
            more = {"ra": file.ra_um, "measured_ra": file.measured_ra_um, "lay": file.lay or ""}
    return OwnEntry(id=key, kind=file.kind, name=file.name, like=file.like, by=file.by, on=file.on, **more)
