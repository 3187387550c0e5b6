"""Roughness on the command line."""

from pathlib import Path
from typing import Annotated

import typer

from kelbrast.cli.output import Format, say, write_new
from kelbrast.core.errors import BadInput
from kelbrast.core.metrology.parameters import AcceptanceRule, accepted
from kelbrast.core.metrology.profile import Profile
from kelbrast.documents.surface.measured.points import Surface, points_text
from kelbrast.documents.surface.measured.read import read_surface, surface_bytes
from kelbrast.documents.surface.measured.x3p import write_x3p
from kelbrast.documents.surface.report import MeasureFile
from kelbrast.documents.surface.report import measure as evaluated

_FIGURES = ("Ra", "Rq", "Rz", "Rt", "Rp", "Rv", "RSm", "Rk", "Rpk", "Rvk", "Sa", "Sq", "Sz", "Sk", "Spk", "Svk")
_PLAIN = ("Rsk", "Rku", "Ssk", "Sku")


def measure(
    file: Annotated[Path, typer.Argument(metavar="FILE", help="a measured profile or map: CSV, text, X3P or SDF")],
    x_unit: Annotated[str, typer.Option("--x-unit", help="of places in text: m, mm or um")] = "mm",
    z_unit: Annotated[str, typer.Option("--z-unit", help="of heights in text: m, mm or um")] = "um",
    form: Annotated[int, typer.Option("--form", help="degree of the polynomial that is taken off", min=0, max=12)] = 1,
    lambda_s: Annotated[float | None, typer.Option("--lambda-s", help="noise limit, um; by the cut-off when not given")] = None,
    lambda_c: Annotated[float | None, typer.Option("--lambda-c", help="cut-off, mm; by ISO 4288 when not given")] = None,
    length: Annotated[float | None, typer.Option("--length", help="only the central part of this length, mm")] = None,
    at_most: Annotated[float | None, typer.Option("--at-most", help="upper limit of Ra, um: says whether it is kept")] = None,
    rule: Annotated[str, typer.Option("--rule", help="16% or max: how the sections are held against the limit")] = "16%",
    to: Annotated[Path | None, typer.Option("--to", help="write the profile or map to this .x3p or (a profile) .csv")] = None,
    format: Annotated[Format, typer.Option("--format", help="text to read, json to script")] = Format.text,
) -> None:
    """Evaluate the roughness of a measured profile or map."""
    for name, value in (("--lambda-s", lambda_s), ("--lambda-c", lambda_c), ("--length", length)):
        if value is not None and not 0 < value < 1e6:
            raise BadInput.one(name, "must be above 0")
    try:
        data = surface_bytes(file)
    except OSError as problem:
        raise BadInput.one(str(file), f"cannot be read: {problem.strerror}") from None
    surface = read_surface(data, x_unit=x_unit, z_unit=z_unit)
    made = evaluated(surface, form=form, lambda_s_um=lambda_s, lambda_c_mm=lambda_c, length_mm=length)
    if to is not None:
        _write(surface, to)
    if format is Format.json:
        return say(made.model_dump_json(indent=2))
    found = made.model_dump()
    for name in _FIGURES:
        if found.get(f"{name}_um") is not None:
            say(f"{name:4} {found[f'{name}_um']:.4g} µm")
    for name in _PLAIN:
        if name in found:
            say(f"{name:4} {found[name]:.3g}")
    if isinstance(made, MeasureFile):
        say(f"reflects {made.reflected:.3g} % of green light as a mirror does, gloss {made.gloss:.3g} at 60 degrees, by its Rq")
        noise = f", lambda-s {made.lambda_s_um:g} µm" if made.lambda_s_um is not None else ""
        spacing = ", by the spacing of marks that repeat" if made.cut_off_by_spacing else ""
        by = f"by ISO 4288{spacing}" if made.cut_off_chosen else "as asked"
        say(f"cut-off {made.lambda_c_mm:g} mm ({by}){noise}, form of degree {made.form_degree}, {made.sections} sections")
        if at_most is not None:
            kept = accepted(made.Ra_sections_um, limit=at_most, rule=_rule(rule))
            say(f"Ra at most {at_most:g} µm by the {rule} rule: {'kept' if kept else 'not kept'}")
    return None


def _rule(text: str) -> AcceptanceRule:
    if text not in ("16%", "max"):
        raise BadInput.one("--rule", 'must be "16%" or "max"')
    return "max" if text == "max" else "16%"


def _write(surface: Surface, to: Path) -> None:
    if to.suffix.lower() == ".csv" and isinstance(surface, Profile):
        data = points_text(surface).encode()
    elif to.suffix.lower() == ".x3p":
        data = write_x3p(surface)
    else:
        raise BadInput.one("--to", "must end in .x3p, or in .csv for a profile")
    write_new(to, data)
