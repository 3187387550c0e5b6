"""Work to size on the command line."""

import json
from typing import Annotated

import typer

from kelbrast.app.sizing import size_answer
from kelbrast.cli.output import Format, say, text_of
from kelbrast.core.catalogue.machines import machine
from kelbrast.core.catalogue.materials import families
from kelbrast.core.catalogue.tolerance_classes import tolerance_class
from kelbrast.core.errors import BadInput, OutsideValidity
from kelbrast.core.precision.lathe import FERROUS, lathe_speeds
from kelbrast.core.precision.tolerances import clearance, deviations
from kelbrast.core.units import from_si, to_si
from kelbrast.documents.size.answer import size_text
from kelbrast.documents.size.format import read_size_file

FormatOption = Annotated[Format, typer.Option("--format", help="text to read, json to script")]


def size(
    file: Annotated[str, typer.Argument(metavar="FILE.json", help="a size file, or - for standard input")],
    format: FormatOption = Format.text,
) -> None:
    """Say where a bore or shaft stands that is worked to size, and the next move."""
    made = size_answer(read_size_file(text_of(file)))
    say(made.model_dump_json(indent=2) if format is Format.json else size_text(made))


def fit(
    nominal_mm: Annotated[float, typer.Argument(metavar="NOMINAL_MM", help="nominal size, mm")],
    hole: Annotated[str, typer.Argument(metavar="HOLE", help="class of the hole, as in H7")],
    shaft: Annotated[str, typer.Argument(metavar="SHAFT", help="class of the shaft, as in g6")],
    format: FormatOption = Format.text,
) -> None:
    """Limits and clearance of a shaft in a hole."""
    of_hole, of_shaft = tolerance_class(hole, field="HOLE"), tolerance_class(shaft, field="SHAFT")
    if not of_hole.is_hole or of_shaft.is_hole:
        raise BadInput.one("HOLE" if not of_hole.is_hole else "SHAFT", "a hole has a capital letter and a shaft a small one")
    try:
        reduced = [
            deviations(nominal=to_si(nominal_mm, "mm"), written=tolerance_class) for tolerance_class in (of_hole, of_shaft)
        ]
    except OutsideValidity as problem:
        raise BadInput.one("NOMINAL_MM", str(problem)) from None
    room = clearance(hole=reduced[0], shaft=reduced[1])
    answer = {
        "hole_um": [_um(reduced[0].low), _um(reduced[0].high)],
        "shaft_um": [_um(reduced[1].low), _um(reduced[1].high)],
        "clearance_um": [_um(one) for one in room],
    }
    if format is Format.json:
        return say(json.dumps(answer))
    for name, (low, high) in zip((hole, shaft), (answer["hole_um"], answer["shaft_um"]), strict=True):
        sizes = f"{nominal_mm + low / 1000:.4f} to {nominal_mm + high / 1000:.4f} mm"
        say(f"{nominal_mm:g} {name}: {low:+g} to {high:+g} µm, {sizes}")
    return say(f"clearance {answer['clearance_um'][0]:g} to {answer['clearance_um'][1]:g} µm (below 0 it is tight)")


def lathe(
    diameter_mm: Annotated[float, typer.Option("--diameter-mm", help="of the work")],
    family: Annotated[str, typer.Option("--family", help="ferrous, or a family of materials")],
    cutting_ft_min: Annotated[float | None, typer.Option("--cutting-ft-min", help="cutting speed of rough turning")] = None,
    cutting_m_min: Annotated[float | None, typer.Option("--cutting-m-min", help="the same in m/min")] = None,
    most_rpm: Annotated[
        float | None, typer.Option("--most-rpm", help="the highest that machine and chuck bear, or the starter lathe's")
    ] = None,
    format: FormatOption = Format.text,
) -> None:
    """Spindle speeds of rough turning, filing and polishing in the lathe."""
    if (cutting_ft_min is None) == (cutting_m_min is None):
        raise BadInput.one("--cutting-ft-min", "give the cutting speed, in ft/min or with --cutting-m-min")
    known = ("ferrous", "non-ferrous", *families())
    if family not in known:
        raise BadInput.one("--family", f'"{family}" is not one of {", ".join(known)}')
    for name, value in (
        ("--diameter-mm", diameter_mm),
        ("--cutting-ft-min", cutting_ft_min),
        ("--cutting-m-min", cutting_m_min),
        ("--most-rpm", most_rpm),
    ):
        if value is not None and not 0 < value < 1e6:
            raise BadInput.one(name, "must be above 0")
    cutting = to_si(cutting_ft_min, "ft/min") if cutting_ft_min is not None else (cutting_m_min or 0.0) / 60
    most = machine("lathe").top if most_rpm is None else to_si(most_rpm, "rev/min")
    found = lathe_speeds(diameter=to_si(diameter_mm, "mm"), cutting=cutting, ferrous=family in ("ferrous", *FERROUS), most=most)
    answer = {
        "rough_rpm": _rpm(found.rough),
        "rough_rpm_exact": _rpm(found.rough_exact),
        "file_rpm": [_rpm(one) for one in found.file],
        "polish_rpm": _rpm(found.polish),
        "capped": found.capped,
    }
    if format is Format.json:
        return say(json.dumps(answer))
    say(f"rough turning {answer['rough_rpm']} rev/min by the shop's 4 ({answer['rough_rpm_exact']} by 12/pi)")
    say(f"filing {_rpm(found.file[0])} to {_rpm(found.file[1])} rev/min: live centre, handle on, left hand at the chuck")
    capped = ", the machine's highest" if found.capped else ""
    return say(f"cloth {answer['polish_rpm']} rev/min{capped}: never by hand with a rag near the work")


def _um(value: float) -> float:
    return round(from_si(value, "um"), 6)


def _rpm(value: float) -> int:
    return round(from_si(value, "rev/min"))
