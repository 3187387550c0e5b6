"""Commands that run the server or look after the database."""

import os
import signal
import socket
from datetime import datetime
from pathlib import Path
from typing import Annotated, Final

import typer

from kelbrast.cli.log_file import LogLevel, set_up_log
from kelbrast.cli.output import say
from kelbrast.core.errors import BadInput, StoreTrouble

DatabaseOption = Annotated[Path, typer.Option("--database", envvar="KELBRAST_DATABASE", help="the SQLite file")]
PortOption = Annotated[int, typer.Option("--port", envvar="PORT", min=0, max=65535, help="0 takes any free port")]
ShopOption = Annotated[bool, typer.Option("--shop", help="also let paired tablets and phones in, over the shop's network")]
ShopPortOption = Annotated[int, typer.Option("--shop-port", min=0, max=65535, help="for them; 0 takes any free port")]
LogOption = Annotated[LogLevel, typer.Option("--log-level", help="how much the log beside the database tells")]
PlainOption = Annotated[bool, typer.Option("--plain", help="with --shop: without a certificate, so that others can listen")]

_INTERRUPTED: Final = 130  # as shells say it: 128 and the number of the signal
_NOT_YET: Final = "Nothing was changed yet: say --yes to do it."


def serve(
    database: DatabaseOption = Path("data/kelbrast.sqlite"),
    port: PortOption = 8642,
    shop: ShopOption = False,
    shop_port: ShopPortOption = 8643,
    plain: PlainOption = False,
    log_level: LogOption = LogLevel.info,
) -> None:
    """Start the program on your own database."""
    _run(database, port, demo=False, shop_port=shop_port if shop else None, plain=plain, log_level=log_level)


def demo(
    database: DatabaseOption = Path("data/demo.sqlite"),
    port: PortOption = 8642,
    shop: ShopOption = False,
    shop_port: ShopPortOption = 8643,
    plain: PlainOption = False,
    log_level: LogOption = LogLevel.info,
) -> None:
    """Start the program on the demo workshop."""
    _run(database, port, demo=True, shop_port=shop_port if shop else None, plain=plain, log_level=log_level)


def backup(
    database: DatabaseOption = Path("data/kelbrast.sqlite"),
    to: Annotated[Path | None, typer.Option("--to", help="where to; when not given, beside the database")] = None,
) -> None:
    """Copy the database, also while the program runs."""
    from kelbrast.storage.copies import back_up, backup_name

    if not database.is_file():
        raise BadInput.one("--database", f"there is no database at {database}")
    say(f"Copied to {back_up(database, to or backup_name(database))}")


def export(
    to: Annotated[Path, typer.Argument(metavar="ARCHIVE.zip", help="the archive to write; an existing one is left as it is")],
    database: DatabaseOption = Path("data/kelbrast.sqlite"),
) -> None:
    """Write everything that is kept as one archive in the open, also while the program runs."""
    from kelbrast.storage.everything import write_everything

    if not database.is_file():
        raise BadInput.one("--database", f"there is no database at {database}")
    say(f"Written to {write_everything(database, to)}")


def restore(
    backup: Annotated[Path, typer.Argument(metavar="BACKUP", help="a backup, or an archive of everything")],
    database: DatabaseOption = Path("data/kelbrast.sqlite"),
    yes: Annotated[bool, typer.Option("--yes", help="do it; without, only say what would change")] = False,
) -> None:
    """Put a backup in the place of the database; what was there is kept as a backup first. Without --yes, only look."""
    from kelbrast.app.everything import as_database, look_into
    from kelbrast.app.jobs import Jobs
    from kelbrast.storage.backups import Backups

    if not backup.is_file():
        raise BadInput.one("BACKUP", f"there is no file at {backup}")
    if backup.resolve() == database.resolve():
        raise BadInput.one("BACKUP", "is the database itself")
    backups = Backups(database)
    with as_database(backup) as brought:
        try:
            Jobs.open(database).close()  # a new machine has none yet
        except StoreTrouble as trouble:
            if trouble.cause != "damaged":
                raise
            say(f"{trouble.title}. It would be set aside, and the backup put in its place.")
            if yes:
                say(f"Restored. The damaged file is kept as {backups.folder / backups.set_aside(datetime.now()).name}")
                backups.put_in_place(brought)
            else:
                say(_NOT_YET)
            return
        look = look_into(backups, brought)
        for table in look.tables:
            say(f"{table.table}: {table.come} come back, {table.go} go, {table.other} become as they were (now {table.now})")
        if look.doubts:
            say(f"Careful: {look.doubts}.")
        if not look.tables:
            say("Nothing would change.")
        elif yes:
            before = backups.restore(brought, datetime.now())
            say(f"Restored. What was there before is kept as {backups.folder / before.name}")
        else:
            say(_NOT_YET)


def _run(database: Path, port: int, *, demo: bool, shop_port: int | None, plain: bool, log_level: LogLevel) -> None:
    listening = _listen("127.0.0.1", port, "--port")
    outside = _listen("0.0.0.0", shop_port, "--shop-port") if shop_port is not None else None
    # The web server and the database are only loaded by the commands that need them: `kelbrast plan` stays quick.
    from kelbrast.api.application import WEB, create_app
    from kelbrast.api.serving import open_shop, serve_both
    from kelbrast.app.jobs import Jobs
    from kelbrast.app.workshop import load_demo
    from kelbrast.storage.holding import held_by_server

    if not (WEB / "index.html").is_file():
        raise BadInput.one("web/dist", "the screens are not built yet; run make demo, or npm run build in web/")
    address = f"http://127.0.0.1:{listening.getsockname()[1]}/"
    # Ctrl+C ends a start at once: what is written is written whole, and an interruption in the middle of a library may be lost.
    signal.signal(signal.SIGINT, lambda *_: os._exit(_INTERRUPTED))
    with held_by_server(database, address):
        set_up_log(database, log_level)
        jobs = Jobs.open(database)
        if demo:
            load_demo(jobs)
        app = create_app(jobs, looked_after=not demo, improving=True)
        say(f"Kelbrast is at {address}  (stop it with Ctrl+C)")
        door = None
        if outside is not None:
            door = open_shop(app, database, outside, secure=not plain)
            for line in door.said:
                say(line)
        serve_both(app, listening, door)


def _listen(host: str, port: int, option: str) -> socket.socket:
    """A listening socket, or a clear word on why not."""
    listening = socket.socket()
    if os.name == "posix":
        listening.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
    try:
        listening.bind((host, port))
        listening.listen(128)
    except OSError as problem:
        listening.close()
        again = f"make demo PORT={port + 1}" if option == "--port" else f"--shop-port {port + 1}"
        raise BadInput.one(option, f"port {port} is in use; take another, as in: {again}") from problem
    return listening
