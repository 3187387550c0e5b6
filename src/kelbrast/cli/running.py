"""Commands that run the server or look after the database."""

import os
import socket
from datetime import datetime
from pathlib import Path
from typing import Annotated

import typer

from kelbrast.cli.output import say
from kelbrast.core.errors import BadInput

DatabaseOption = Annotated[Path, typer.Option("--database", envvar="KELBRAST_DATABASE", help="the SQLite file")]
PortOption = Annotated[int, typer.Option("--port", envvar="PORT", min=0, max=65535, help="0 takes any free port")]
HostOption = Annotated[str, typer.Option("--host", help="address to listen on; others than 127.0.0.1 let the network in")]


def serve(
    database: DatabaseOption = Path("data/kelbrast.sqlite"), port: PortOption = 8642, host: HostOption = "127.0.0.1"
) -> None:
    """Start the program on your own database."""
    _run(database, port, host, demo=False)


def demo(database: DatabaseOption = Path("data/demo.sqlite"), port: PortOption = 8642) -> None:
    """Start the program on the demo workshop."""
    _run(database, port, "127.0.0.1", demo=True)


def backup(
    database: DatabaseOption = Path("data/kelbrast.sqlite"),
    to: Annotated[Path | None, typer.Option("--to", help="where to; when not given, beside the database")] = None,
) -> None:
    """Copy the database, also while the program runs."""
    from kelbrast.storage.copies import back_up, backup_name

    if not database.is_file():
        raise BadInput.one("--database", f"there is no database at {database}")
    say(f"Copied to {back_up(database, to or backup_name(database))}")


def restore(
    backup: Annotated[Path, typer.Argument(metavar="BACKUP", help="a backup or another copy of a database")],
    database: DatabaseOption = Path("data/kelbrast.sqlite"),
    yes: Annotated[bool, typer.Option("--yes", help="do it; without, only say what would change")] = False,
) -> None:
    """Put a backup in the place of the database; what was there is kept as a backup first. Without --yes, only look."""
    from kelbrast.app.jobs import Jobs
    from kelbrast.storage.backups import Backups

    if not backup.is_file():
        raise BadInput.one("BACKUP", f"there is no file at {backup}")
    Jobs.open(database).close()  # a new machine has none yet
    backups = Backups(database)
    changes = backups.changes(backup)
    for one in changes:
        say(f"{one.table}: {one.come} come back, {one.go} go, {one.other} become as they were")
    if not changes:
        say("Nothing would change.")
    elif yes:
        before = backups.restore(backup, datetime.now())
        say(f"Restored. What was there before is kept as {backups.folder / before.name}")
    else:
        say("Nothing was changed yet: say --yes to do it.")


def _run(database: Path, port: int, host: str, *, demo: bool) -> None:
    listening = _listen(host, port)
    # The web server and the database are only loaded by the commands that need them: `kelbrast plan` stays quick.
    import uvicorn

    from kelbrast.api.application import LOCAL_HOSTS, WEB, create_app
    from kelbrast.app.jobs import Jobs
    from kelbrast.app.workshop import load_demo

    if not (WEB / "index.html").is_file():
        raise BadInput.one("web/dist", "the screens are not built yet; run make demo, or npm run build in web/")
    jobs = Jobs.open(database)
    if demo:
        load_demo(jobs)
    hosts = LOCAL_HOSTS if host in LOCAL_HOSTS else (*LOCAL_HOSTS, host, socket.gethostname())
    server = uvicorn.Server(
        uvicorn.Config(create_app(jobs, hosts=hosts, daily_backups=not demo), log_level="warning", server_header=False)
    )
    say(f"Kelbrast is at http://{host}:{listening.getsockname()[1]}/  (stop it with Ctrl+C)")
    server.run(sockets=[listening])


def _listen(host: str, port: int) -> socket.socket:
    """A listening socket, or a clear word on why not."""
    listening = socket.socket(socket.AF_INET6 if ":" in host else socket.AF_INET)
    if os.name == "posix":
        listening.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listening.bind((host, port))
        listening.listen(128)
    except OSError as problem:
        listening.close()
        raise BadInput.one("--port", f"port {port} is in use; take another, as in: make demo PORT={port + 1}") from problem
    return listening
