"""The log on the command line: the runs, or one of them told from beginning to end."""

from collections.abc import Mapping
from pathlib import Path
from typing import Annotated, Any

import typer

from kelbrast.cli.output import Format, say
from kelbrast.cli.running import DatabaseOption
from kelbrast.core.errors import BadInput
from kelbrast.core.reference.own_rows import use_from_here
from kelbrast.core.wording import minutes_text
from kelbrast.storage.holding import is_database


def log(
    run: Annotated[int | None, typer.Argument(metavar="RUN", help="number of a run; without it, all are listed")] = None,
    database: DatabaseOption = Path("data/kelbrast.sqlite"),
    text: Annotated[str, typer.Option("--text", help="only runs with these words in title, finish, notes or troubles")] = "",
    format: Annotated[Format, typer.Option("--format", help="text to read, json to script (run/1)")] = Format.text,
) -> None:
    """List the runs of the log, or tell everything that happened in one."""
    if not is_database(database):
        raise BadInput.one("--database", f"there is no database at {database}")
    from kelbrast.app.jobs import Jobs
    from kelbrast.app.log import Log
    from kelbrast.app.runs import Runs
    from kelbrast.storage.runs import Wanted

    jobs = Jobs.open(database)
    use_from_here(jobs.own.rows())
    kept = Log(Runs(jobs))
    if run is not None:
        file = kept.run_file(run)
        if format is Format.json:
            return say(file.model_dump_json(indent=2))
        say(f"{file.title}, {file.job.pieces} of {file.job.material}: {file.status}")
        for event, said in zip(file.events, file.told, strict=True):
            say(f"{event.number:5}  {event.at.astimezone():%Y-%m-%d %H:%M:%S}  {said}")
        return None
    if format is Format.json:
        return say(f"[{','.join(file.model_dump_json() for file in kept.run_files(Wanted(text=text)))}]")
    for line in kept.search(Wanted(text=text), limit=None)[1]:
        came = "as wanted" if line.well else "not as wanted" if line.status == "finished" else line.status
        minutes = _minutes(line.figures)
        day = f"{line.began_at.astimezone():%Y-%m-%d}"
        say(f"{line.id:5}  {day}  {line.title}, {line.pieces} of {line.material}: {minutes}, {came}")
    return None


def _minutes(figures: Mapping[str, Any]) -> str:
    """Hands-on against planned; of a run from before the account the cutting alone."""
    if figures.get("hands_on_minutes"):
        return f"hands-on {minutes_text(figures['spent_minutes'])} of {minutes_text(figures['hands_on_minutes'])}"
    return f"cutting {minutes_text(figures.get('minutes', 0))} of {minutes_text(figures.get('planned_minutes', 0))}"
