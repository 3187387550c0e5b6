"""The catalogue, listed from the reference data."""

from collections.abc import Mapping
from typing import Any, TypeVar

from pydantic import BaseModel

from kelbrast.core.catalogue.damages import damages, feels
from kelbrast.core.catalogue.finishes import LAYS_WANTED, finishes
from kelbrast.core.catalogue.grades import scale
from kelbrast.core.catalogue.machines import Drawing, machines
from kelbrast.core.catalogue.materials import families, inserts, materials
from kelbrast.core.catalogue.tools import kits, tools, uses
from kelbrast.core.errors import NotFound
from kelbrast.core.job import AIMS, BENCH_SPEEDS, HABITS, HANDOVERS, JOB_STATES, OPEN_STATES
from kelbrast.core.rack.item import KINDS as KINDS_OF_ITEMS
from kelbrast.core.reference.loader import Constant, constant, record
from kelbrast.core.reference.schemas import KINDS, SYSTEMS
from kelbrast.core.surface.edge import EDGES_WANTED
from kelbrast.core.surface.face import COUNTED, FOUND_KINDS, REACHES, usual_share
from kelbrast.core.surface.part import COVERINGS, HELD, PROTECTIONS, WET
from kelbrast.core.surface.shapes import SHAPES
from kelbrast.core.surface.sized import ROUND_KINDS
from kelbrast.core.units import from_si
from kelbrast.core.wording import tell
from kelbrast.documents.catalogue.format import (
    Catalogue,
    Choice,
    DamageFile,
    DrawingFile,
    FeelFile,
    Figure,
    FiguresFile,
    FinishFile,
    FoundChoice,
    GradeFile,
    InsertFile,
    KitFile,
    MachineFile,
    MaterialFile,
    ShapeChoice,
    StateChoice,
    ToolFile,
    UseFile,
)
from kelbrast.documents.common.fields import shop, shop_or_none
from kelbrast.documents.common.sentences import to_sentence_file
from kelbrast.documents.job.format import FaceFile


def _new_edge() -> FaceFile:
    size, length = (from_si(constant(f"edges.{key}").si, "mm") for key in ("usual", "usual_length"))
    wanted = {"length_mm": length, "wanted": "break", "size_mm": size}
    return FaceFile.model_validate({"id": "edge", "name": "edge", "edge": wanted})


def catalogue() -> Catalogue:
    """All of it, without the figures."""
    return Catalogue(
        families=[Choice(id=one.id, label=one.label) for one in families().values()],
        materials=[_brief(one) for one in list_materials()],
        finishes=[_brief(one) for one in list_finishes()],
        tools=[_brief(one) for one in list_tools()],
        machines=list_machines(),
        grades=list_grades(),
        shapes=list_shapes(),
        found=[
            FoundChoice(id=key, label=label, share=usual_share(key), counted=key in COUNTED)
            for key, label in FOUND_KINDS.items()
        ],
        damages=list_damages(),
        feels=list_feels(),
        kits=[KitFile(id=one.id, label=one.label, about=one.about, items=list(one.items)) for one in kits().values()],
        reaches=_choices(REACHES),
        edges=_choices(EDGES_WANTED),
        new_edge=_new_edge(),
        habits=_choices(HABITS),
        handovers=_choices(HANDOVERS),
        bench_speeds=_choices(BENCH_SPEEDS),
        aims=_choices(AIMS),
        uses=list_uses(),
        inserts=list_inserts(),
        coverings=_choices(COVERINGS),
        protections=_choices(PROTECTIONS),
        held=_choices(HELD),
        wet=_choices(WET),
        lays=_choices(LAYS_WANTED),
        states=[StateChoice(id=key, label=label, open=key in OPEN_STATES) for key, label in JOB_STATES.items()],
        item_kinds=_choices(KINDS_OF_ITEMS),
        light={name: figure.value for name, figure in record("process")["light"].items()},
    )


def list_kind(kind: str) -> list[BaseModel]:
    """One kind, by the name that `kelbrast list` takes.

    Raises:
        NotFound: no such kind.
    """
    listings: dict[str, Any] = {
        "materials": list_materials,
        "finishes": list_finishes,
        "tools": list_tools,
        "machines": list_machines,
        "grades": list_grades,
        "uses": list_uses,
        "inserts": list_inserts,
        "damages": list_damages,
    }
    if kind not in listings:
        raise NotFound("list", kind, list(listings))
    return list(listings[kind]())


def list_shapes() -> list[ShapeChoice]:
    return [
        ShapeChoice(
            id=key,
            label=one.label,
            needs=[f"{need}_mm" for need in one.needs],
            curved=one.curved,
            round=one.round,
            sized_as=ROUND_KINDS.get(key),
        )
        for key, one in SHAPES.items()
    ]


def list_materials() -> list[MaterialFile]:
    return [
        MaterialFile(
            id=one.id,
            label=one.label,
            family=one.family,
            hardness_gpa=shop(one.hardness, "GPa"),
            conductivity_w_mk=one.conductivity,
            density_kg_m3=one.density,
            specific_heat_j_kgk=one.specific_heat,
            limit_c=shop(one.limit, "C"),
            figures=_figures(one.figures),
        )
        for one in materials().values()
    ]


def list_finishes() -> list[FinishFile]:
    return [
        FinishFile(
            id=one.id,
            label=one.label,
            purpose=tell(one.purpose),
            purpose_said=to_sentence_file(one.purpose),
            ra_um=(shop_or_none(one.ra_low, "um"), shop_or_none(one.ra_high, "um")),
            no_finer_than=one.no_finer_than,
            lay=one.lay,
            figures=_figures(one.figures),
        )
        for one in finishes().values()
    ]


def list_tools() -> list[ToolFile]:
    return [
        ToolFile(
            id=one.id,
            label=one.label,
            carrier=one.carrier.id,
            kind=one.carrier.kind,
            grade=one.grade,
            charge=one.charge,
            grain_um=shop(one.grain, "um"),
            hold=one.carrier.cutting.hold,
            reaches_depth_um=shop_or_none(one.reaches_depth, "um"),
            levels=one.carrier.cutting.levels,
            backed=one.carrier.cutting.backed,
            wear=one.wear,
            lays=list(one.carrier.cutting.lays),
            mount=one.carrier.mount,
            diameter_mm=shop_or_none(one.carrier.running.diameter, "mm"),
            speed_limit_m_s=one.carrier.running.marked_limit,
            open=one.carrier.access.open,
            tight=one.carrier.access.tight,
            inside_radius_mm=shop_or_none(one.carrier.access.inside_radius, "mm"),
            reach_in_mm=shop_or_none(one.carrier.access.reach_in, "mm"),
            least_face_cm2=shop(one.carrier.access.least_face, "cm2"),
            most_face_cm2=shop_or_none(one.carrier.access.largest, "cm2"),
            not_for=list(one.carrier.not_for),
            suits=list(one.suits) if one.suits is not None else None,
            price=one.carrier.stock.price,
            unit=one.carrier.stock.unit,
            figures=_figures(one.carrier.figures),
        )
        for one in tools().values()
    ]


def list_machines() -> list[MachineFile]:
    return [
        MachineFile(
            id=one.id,
            label=one.label,
            takes=list(one.takes),
            contact=one.contact,
            rpm=[shop(setting, "rev/min") for setting in one.settings],
            rpm_range=(shop(one.low, "rev/min"), shop(one.high, "rev/min")) if one.low and one.high else None,
            orbit_mm=shop_or_none(one.orbit, "mm"),
            stroke_m_s=one.stroke,
            drawing=_drawing(one.drawing) if one.drawing else None,
        )
        for one in machines().values()
    ]


def list_uses() -> list[UseFile]:
    return [
        UseFile(
            id=one.id,
            label=one.label,
            finish=one.finish,
            no_finer_than=one.no_finer_than,
            reason=tell(one.reason),
            reason_said=to_sentence_file(one.reason),
        )
        for one in uses().values()
    ]


def list_damages() -> list[DamageFile]:
    return [
        DamageFile(
            id=one.id,
            label=one.label,
            kind=one.kind,
            likely_um=shop(one.likely.si, "um"),
            worst_um=shop(one.worst.si, "um"),
            share=one.share.si if one.share is not None else None,
            says=one.says,
        )
        for one in damages().values()
    ]


def list_feels() -> list[FeelFile]:
    return [
        FeelFile(
            id=one.id,
            label=one.label,
            likely_um=shop(one.likely.si, "um"),
            worst_um=shop(one.worst.si, "um"),
            source=one.likely.source.title,
            source_kind=one.likely.source.kind,
        )
        for one in feels().values()
    ]


def list_inserts() -> list[InsertFile]:
    return [
        InsertFile(id=one.id, label=one.label, limit_c=shop(one.limit.si, "C"), forbids=list(one.forbids), word=one.word)
        for one in inserts().values()
    ]


def list_grades() -> list[GradeFile]:
    return [GradeFile(grade=f"{system}{number}", um=shop(grain, "um")) for system in SYSTEMS for number, grain in scale(system)]


def figures() -> FiguresFile:
    """Every figure with its source."""
    return FiguresFile(
        materials={one.id: one.figures for one in list_materials()},
        finishes={one.id: one.figures for one in list_finishes()},
        tools={one.id: one.figures for one in list_tools()},
    )


_Row = TypeVar("_Row", MaterialFile, FinishFile, ToolFile)


def _brief(one: _Row) -> _Row:
    return one.model_copy(update={"figures": []})


def _drawing(one: Drawing) -> DrawingFile:
    return DrawingFile(
        view=one.view,
        turns=one.turns,
        worker_deg=shop(one.worker, "deg"),
        touch_deg=(shop(one.touch[0], "deg"), shop(one.touch[1], "deg")),
        where=one.where,
    )


def _figures(figures: tuple[tuple[str, Constant], ...]) -> list[Figure]:
    return [
        Figure(
            name=name.replace("_", " "),
            value=figure.value,
            unit=figure.unit,
            kind=figure.source.kind,
            kind_label=KINDS[figure.source.kind],
            source=figure.source.title,
            locator=figure.locator,
        )
        for name, figure in figures
    ]


def _choices(labels: Mapping[Any, str]) -> list[Choice]:
    return [Choice(id=key, label=label) for key, label in labels.items()]
