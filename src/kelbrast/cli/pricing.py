"""The day and the price on the command line."""

from datetime import date
from typing import Annotated

import typer

from kelbrast.app.day import DayJob, day_file, told_apart, work_of
from kelbrast.app.planning import job_of
from kelbrast.app.quotes import USUAL_PIECES, quote_file
from kelbrast.cli.output import Format, RackOption, say, shelf_of, text_of
from kelbrast.core.day.air import Rooms
from kelbrast.core.day.shop import Worker
from kelbrast.core.errors import BadInput, OutsideValidity
from kelbrast.core.planning.whole.plan import plan_job
from kelbrast.core.price.quote import Rates
from kelbrast.documents.day.format import day_text, minute_of
from kelbrast.documents.job.read import read_job_file
from kelbrast.documents.quote.format import quote_text

FormatOption = Annotated[Format, typer.Option("--format", help="text to read, json to script")]


def day(
    jobs: Annotated[list[str], typer.Argument(metavar="JOB.json...", help="job files; `due` in them is their promise")],
    people: Annotated[int, typer.Option("--people", min=1, max=30, help="how many are there")] = 1,
    begins: Annotated[str, typer.Option("--from", help="when the day begins")] = "08:00",
    ends: Annotated[str, typer.Option("--to", help="and when it ends")] = "16:30",
    on: Annotated[str | None, typer.Option("--on", help="the date, as 2026-11-27; today unless given")] = None,
    rack: RackOption = None,
    seconds: Annotated[float, typer.Option("--seconds", min=0, max=600, help="to look for a better plan")] = 10,
    seed: Annotated[int, typer.Option("--seed", min=0, max=1_000_000, help="the same one gives the same plan")] = 1,
    format: FormatOption = Format.text,
) -> None:
    """Plan the day of several jobs: who does what when, on which spindle."""
    origin, end = minute_of(begins, "--from"), minute_of(ends, "--to")
    if origin >= end:
        raise BadInput.one("--to", "must be after --from")
    try:
        today = date.fromisoformat(on) if on is not None else date.today()
    except ValueError:
        raise BadInput.one("--on", "must be a date, as 2026-11-27") from None
    shelf = shelf_of(rack)
    files = [read_job_file(text_of(job)) for job in jobs]
    names = told_apart([file.title for file in files], range(1, len(files) + 1))
    work = work_of(
        [
            DayJob(str(at), name, plan_job(job_of(file, shelf)), file.due)
            for at, (name, file) in enumerate(zip(names, files, strict=True), start=1)
        ],
        tuple(Worker(str(number), origin, end) for number in range(1, people + 1)),
        day=today,
        now=origin,
        shaking=400.0,
        rooms=Rooms(extractors=1),
    )
    board = day_file(work, origin=origin, seconds=seconds, seed=seed)
    say(board.model_dump_json(indent=2) if format is Format.json else day_text(board))


def quote(
    job: Annotated[str, typer.Argument(metavar="JOB.json", help="a job file, or - for standard input")],
    pieces: Annotated[str, typer.Option("--pieces", help="numbers of pieces, with commas")] = ",".join(map(str, USUAL_PIECES)),
    rate: Annotated[float, typer.Option("--rate", help="what an hour of a person is charged at")] = 48.0,
    margin: Annotated[float, typer.Option("--margin", help="a share on everything, as 0.15")] = 0.15,
    currency: Annotated[str, typer.Option("--currency", help="to stand behind the prices")] = "",
    rack: RackOption = None,
    format: FormatOption = Format.text,
) -> None:
    """The price of a job for several numbers of pieces, what drives it, and what a simpler finish would cost."""
    try:
        numbers = [int(one) for one in pieces.split(",")]
    except ValueError:
        raise BadInput.one("--pieces", "must be whole numbers with commas, as 1,5,20") from None
    try:
        rates = Rates(rate, margin)
    except OutsideValidity as problem:
        raise BadInput.one("--rate" if rate <= 0 else "--margin", str(problem)) from None
    made = quote_file(read_job_file(text_of(job)), shelf_of(rack), rates=rates, pieces=numbers, currency=currency[:8])
    say(made.model_dump_json(indent=2) if format is Format.json else quote_text(made))
