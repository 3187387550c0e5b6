"""The demo workshop in a database of a test's own: filled once, and copied from then on."""

import tempfile
from functools import cache
from pathlib import Path

from kelbrast.app.jobs import Jobs
from kelbrast.app.workshop import load_demo


def demo_workshop(path: Path, *, with_past: bool = False) -> Jobs:
    path.write_bytes(_filled(with_past))
    return Jobs.open(path)


@cache
def _filled(with_past: bool) -> bytes:
    with tempfile.TemporaryDirectory() as folder:
        database = Path(folder) / "demo.sqlite"
        jobs = Jobs.open(database)
        load_demo(jobs, with_past=with_past)
        jobs.close()
        return database.read_bytes()
