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
from kelbrast.core.surface.face import REACHES
from kelbrast.core.surface.found import ALL_OVER_KINDS, FOUND_KINDS, SPOT_KINDS
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
        families=[Choice(id=family.id, label=family.label) for family in families().values()],
        materials=[_brief(material) for material in list_materials()],
        finishes=[_brief(finish) for finish in list_finishes()],
        tools=[_brief(tool) for tool in list_tools()],
        machines=list_machines(),
        grades=list_grades(),
        shapes=list_shapes(),
        found=[
            FoundChoice(id=key, label=label, all_over=key in ALL_OVER_KINDS, in_places=key in SPOT_KINDS)
            for key, label in FOUND_KINDS.items()
        ],
        damages=list_damages(),
        feels=list_feels(),
        kits=[KitFile(id=kit.id, label=kit.label, about=kit.about, items=kit.items) for kit in kits().values()],
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
            label=shape.label,
            needs=[f"{need}_mm" for need in shape.needs],
            curved=shape.curved,
            round=shape.round,
            sized_as=ROUND_KINDS.get(key),
        )
        for key, shape in SHAPES.items()
    ]


def list_materials() -> list[MaterialFile]:
    return [
        MaterialFile(
            id=material.id,
            label=material.label,
            family=material.family,
            hardness_gpa=shop(material.hardness, "GPa"),
            conductivity_w_mk=material.conductivity,
            density_kg_m3=material.density,
            specific_heat_j_kgk=material.specific_heat,
            limit_c=shop(material.limit, "C"),
            figures=_figures(material.figures),
        )
        for material in materials().values()
    ]


def list_finishes() -> list[FinishFile]:
    return [
        FinishFile(
            id=finish.id,
            label=finish.label,
            purpose=tell(finish.purpose),
            purpose_said=to_sentence_file(finish.purpose),
            ra_um=(shop_or_none(finish.ra_low, "um"), shop_or_none(finish.ra_high, "um")),
            no_finer_than=finish.no_finer_than,
            lay=finish.lay,
            figures=_figures(finish.figures),
        )
        for finish in finishes().values()
    ]


def list_tools() -> list[ToolFile]:
    return [
        ToolFile(
            id=tool.id,
            label=tool.label,
            carrier=tool.carrier.id,
            kind=tool.carrier.kind,
            grade=tool.grade,
            charge=tool.charge,
            grain_um=shop(tool.grain, "um"),
            hold=tool.carrier.cutting.hold,
            reaches_depth_um=shop_or_none(tool.reaches_depth, "um"),
            levels=tool.carrier.cutting.levels,
            backed=tool.carrier.cutting.backed,
            wear=float(f"{tool.wear:.4g}"),
            lays=list(tool.carrier.cutting.lays),
            mount=tool.carrier.mount,
            diameter_mm=shop_or_none(tool.carrier.running.diameter, "mm"),
            speed_limit_m_s=tool.carrier.running.marked_limit,
            open=tool.carrier.access.open,
            tight=tool.carrier.access.tight,
            inside_radius_mm=shop_or_none(tool.carrier.access.inside_radius, "mm"),
            reach_in_mm=shop_or_none(tool.carrier.access.reach_in, "mm"),
            least_face_cm2=shop(tool.carrier.access.least_face, "cm2"),
            most_face_cm2=shop_or_none(tool.carrier.access.largest, "cm2"),
            not_for=list(tool.carrier.not_for),
            suits=list(tool.suits) if tool.suits is not None else None,
            price=tool.carrier.stock.price,
            unit=tool.carrier.stock.unit,
            figures=_figures(tool.carrier.figures),
        )
        for tool in tools().values()
    ]


def list_machines() -> list[MachineFile]:
    return [
        MachineFile(
            id=machine.id,
            label=machine.label,
            takes=list(machine.takes),
            contact=machine.contact,
            rpm=[shop(setting, "rev/min") for setting in machine.settings],
            rpm_range=(shop(machine.low, "rev/min"), shop(machine.high, "rev/min")) if machine.low and machine.high else None,
            orbit_mm=shop_or_none(machine.orbit, "mm"),
            stroke_m_s=machine.stroke,
            drawing=_drawing(machine.drawing) if machine.drawing else None,
        )
        for machine in machines().values()
    ]


def list_uses() -> list[UseFile]:
    return [
        UseFile(
            id=use.id,
            label=use.label,
            finish=use.finish,
            no_finer_than=use.no_finer_than,
            reason=tell(use.reason),
            reason_said=to_sentence_file(use.reason),
        )
        for use in uses().values()
    ]


def list_damages() -> list[DamageFile]:
    return [
        DamageFile(
            id=damage.id,
            label=damage.label,
            kind=damage.kind,
            likely_um=shop(damage.likely.si, "um"),
            worst_um=shop(damage.worst.si, "um"),
            length_mm=shop(damage.length.si, "mm") if damage.length is not None else None,
            width_mm=shop(damage.width.si, "mm") if damage.width is not None else None,
            says=damage.says,
        )
        for damage in damages().values()
    ]


def list_feels() -> list[FeelFile]:
    return [
        FeelFile(
            id=feel.id,
            label=feel.label,
            likely_um=shop(feel.likely.si, "um"),
            worst_um=shop(feel.worst.si, "um"),
            source=feel.likely.source.title,
            source_kind=feel.likely.source.kind,
        )
        for feel in feels().values()
    ]


def list_inserts() -> list[InsertFile]:
    return [
        InsertFile(
            id=insert.id, label=insert.label, limit_c=shop(insert.limit.si, "C"), forbids=list(insert.forbids), word=insert.word
        )
        for insert in inserts().values()
    ]


def list_grades() -> list[GradeFile]:
    return [GradeFile(grade=f"{system}{number}", um=shop(grain, "um")) for system in SYSTEMS for number, grain in scale(system)]


def figures() -> FiguresFile:
    """Every figure with its source."""
    return FiguresFile(
        materials={material.id: material.figures for material in list_materials()},
        finishes={finish.id: finish.figures for finish in list_finishes()},
        tools={tool.id: tool.figures for tool in list_tools()},
    )


_Row = TypeVar("_Row", MaterialFile, FinishFile, ToolFile)


def _brief(row: _Row) -> _Row:
    return row.model_copy(update={"figures": []})


def _drawing(drawing: Drawing) -> DrawingFile:
    return DrawingFile(
        view=drawing.view,
        turns=drawing.turns,
        worker_deg=shop(drawing.worker, "deg"),
        touch_deg=(shop(drawing.touch[0], "deg"), shop(drawing.touch[1], "deg")),
        where=drawing.where,
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
