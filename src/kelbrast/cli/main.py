"""The command line. Exit code 0 for an answer, also for "not possible"; 2 for input that cannot be used."""

import json
import sys
from collections.abc import Sequence
from contextvars import copy_context
from pathlib import Path
from typing import Annotated, Any

import typer
from pydantic import BaseModel

from kelbrast.app.planning import card_pdf, goback_file, plan_file, weigh_file
from kelbrast.cli import doctor, eye_kit, logged, measuring, pricing, running, sizing
from kelbrast.cli.output import Format, RackOption, print_table, say, shelf_of, text_of, use_own, writable_output, write_new
from kelbrast.core.catalogue.grades import micrometres, nearest_everywhere, parse_grade
from kelbrast.core.errors import BadInput, Fault, KelbrastError, OutsideValidity
from kelbrast.core.process.speed import spindle_speed, surface_speed
from kelbrast.core.units import from_si, to_si
from kelbrast.core.wording import rounded_down
from kelbrast.documents.catalogue.lists import list_kind
from kelbrast.documents.job.read import read_job_file
from kelbrast.documents.plan.text import goback_text, plan_text, weigh_text
from kelbrast.documents.schema import schema

app = typer.Typer(
    name="kelbrast",
    help="From a scratched part to the finish it needs: grits, wheels, speeds and minutes, worked out.",
    no_args_is_help=True,
    add_completion=False,
    pretty_exceptions_enable=False,
)
OwnOption = Annotated[
    Path | None,
    typer.Option("--own", help="what the shop has of its own: an own/1 file, or the program's database; before the command"),
]
FormatOption = Annotated[Format, typer.Option("--format", help="text to read, json to script")]


@app.callback()
def everywhere(own: OwnOption = None) -> None:
    """From a scratched part to the finish it needs: grits, wheels, speeds and minutes, worked out."""
    use_own(own)


for command in (
    running.serve,
    running.demo,
    running.backup,
    running.export,
    running.restore,
    doctor.doctor,
    logged.log,
    measuring.measure,
    eye_kit.eye,
    sizing.size,
    sizing.fit,
    sizing.lathe,
    pricing.day,
    pricing.quote,
):
    app.command()(command)


@app.command()
def plan(
    job: Annotated[str, typer.Argument(metavar="JOB.json", help="a job file, or - for standard input")],
    rack: RackOption = None,
    format: FormatOption = Format.text,
) -> None:
    """Plan a job file."""
    made = plan_file(read_job_file(text_of(job)), shelf_of(rack))
    say(made.model_dump_json(indent=2) if format is Format.json else plan_text(made))


@app.command()
def goback(
    job: Annotated[str, typer.Argument(metavar="JOB.json", help="a job file, or - for standard input")],
    face: Annotated[str, typer.Option("--face", help="name of the face")],
    after: Annotated[int, typer.Option("--after", help="the step whose light check failed, from 1")],
    depth_um: Annotated[float | None, typer.Option("--depth-um", help="how deep the mark is")] = None,
    like: Annotated[str | None, typer.Option("--like", help="or: it looks as left by this grade")] = None,
    fingernail: Annotated[bool, typer.Option("--fingernail", help="or: a fingernail catches it")] = False,
    rack: RackOption = None,
    format: FormatOption = Format.text,
) -> None:
    """A mark is still there at a light check: the way to the finish from there."""
    file = read_job_file(text_of(job))
    made = goback_file(file, shelf_of(rack), face=face, after=after, depth_um=depth_um, like=like, fingernail=fingernail)
    say(made.model_dump_json(indent=2) if format is Format.json else goback_text(made))


@app.command()
def weigh(
    job: Annotated[str, typer.Argument(metavar="JOB.json", help="a job file, or - for standard input")],
    rack: RackOption = None,
    format: FormatOption = Format.text,
) -> None:
    """The job by every aim and habit, the best trade-offs, and the bet on a guessed depth."""
    made = weigh_file(read_job_file(text_of(job)), shelf_of(rack))
    say(made.model_dump_json(indent=2) if format is Format.json else weigh_text(made))


@app.command()
def card(
    job: Annotated[str, typer.Argument(metavar="JOB.json", help="a job file, or - for standard input")],
    to: Annotated[Path, typer.Option("--to", help="the PDF to write; an existing one is left as it is")],
    inch: Annotated[bool, typer.Option("--inch", help="thousandths of an inch and ft/min")] = False,
    rack: RackOption = None,
) -> None:
    """Write the job card: one page to print, take to the bench and tick."""
    made = card_pdf(read_job_file(text_of(job)), shelf_of(rack), inch=inch)
    write_new(to, made)
    say(f"Written to {to}")


@app.command(name="list")
def list_(
    kind: Annotated[
        str, typer.Argument(metavar="KIND", help="materials, finishes, tools, machines, grades, uses, inserts or damages")
    ],
    format: FormatOption = Format.text,
) -> None:
    """List what a job file may name."""
    rows: list[BaseModel] = list_kind(kind)
    if format is Format.json:
        say(json.dumps([row.model_dump(mode="json") for row in rows], indent=2, ensure_ascii=False))
    else:
        print_table(rows)


@app.command(name="schema")
def schema_(kind: Annotated[str, typer.Argument(metavar="KIND", help="job, plan, rack, own or run")]) -> None:
    """Print the JSON Schema of a file."""
    say(json.dumps(schema(kind), indent=2, ensure_ascii=False))


@app.command()
def grade(
    grade: Annotated[str, typer.Argument(help="P600, F400, CAMI600, JIS1000 or 3um")],
    format: FormatOption = Format.text,
) -> None:
    """Convert a grade to micrometres and to the nearest grades of the other systems."""
    found = parse_grade(grade)
    answer = {"grade": found.name, "um": micrometres(found.grain), "nearest": nearest_everywhere(found.grain)}
    if format is Format.json:
        say(json.dumps(answer))
    else:
        say(f"{found.name}: {answer['um']:g} µm; nearest " + (", ".join(nearest_everywhere(found.grain).values()) or "none"))


@app.command()
def speed(
    diameter_mm: Annotated[float, typer.Option("--diameter-mm", help="diameter of the wheel")],
    rpm: Annotated[float | None, typer.Option("--rpm", help="spindle speed, rev/min")] = None,
    m_s: Annotated[float | None, typer.Option("--m-s", help="surface speed, m/s")] = None,
    format: FormatOption = Format.text,
) -> None:
    """Surface speed from spindle speed, or the other way round."""
    answer = _speed(diameter_mm, rpm, m_s)
    if format is Format.json:
        say(json.dumps(answer))
    else:
        turns = rpm if rpm is not None else rounded_down(answer["rpm"])  # worked out from a speed: never above it
        say(f"{turns:.0f} rev/min on {diameter_mm:g} mm: {answer['m_s']:.2f} m/s, {answer['ft_min']:.0f} ft/min")


def _speed(diameter_mm: float, rpm: float | None, m_s: float | None) -> dict[str, float]:
    if (rpm is None) == (m_s is None):
        raise BadInput.one("--rpm", "give --rpm or --m-s, and not both")
    given = {"--diameter-mm": diameter_mm, "--rpm": rpm, "--m-s": m_s}
    # "not above 0" also catches nan
    faults = [Fault(name, "must be above 0") for name, value in given.items() if value is not None and not 0 < value < 1e12]
    if faults:
        raise BadInput(faults)
    diameter = to_si(diameter_mm, "mm")
    if rpm is not None:
        surface = surface_speed(diameter=diameter, spindle=to_si(rpm, "rev/min"))
    else:
        surface = m_s or 0.0
        rpm = from_si(spindle_speed(diameter=diameter, surface=surface), "rev/min")
    return {"diameter_mm": diameter_mm, "rpm": rpm, "m_s": surface, "ft_min": from_si(surface, "ft/min")}


def main(arguments: Sequence[str] | None = None) -> Any:
    """Run the command line; faults go to standard error, one line each, and never as a traceback."""
    with writable_output():
        _run(arguments)


def _run(arguments: Sequence[str] | None) -> None:
    try:
        # In a context of its own: what is put in use ends with the command.
        copy_context().run(app, args=list(arguments) if arguments is not None else None)
    except BadInput as bad:
        for fault in bad.faults:
            print(fault, file=sys.stderr)
        sys.exit(2)
    except (KelbrastError, OutsideValidity) as problem:
        print(problem, file=sys.stderr)
        sys.exit(2)
