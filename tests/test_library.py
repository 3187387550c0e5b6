"""The core as a library and the example client of docs/library.md, as others would run them."""

import doctest
import subprocess
import sys
from pathlib import Path

from serving import serve

DOCS = Path(__file__).parents[1] / "docs"


def test_the_examples_run_as_they_are_written() -> None:
    failed, tried = doctest.testfile(str(DOCS / "library.md"), module_relative=False, encoding="utf-8")
    assert (failed, tried > 20) == (0, True)


def test_the_example_client_keeps_plans_and_begins_a_job(tmp_path: Path) -> None:
    served = serve(tmp_path / "kept.sqlite", demo=False)
    job = DOCS.parent / "examples" / "01-gallery-rail-collar.job.json"
    done = subprocess.run([sys.executable, str(DOCS / "client.py"), served.address, str(job)], capture_output=True, text=True)
    served.stop()
    assert done.returncode == 0, done.stderr
    assert "outer barrel" in done.stdout
    assert done.stdout.endswith("is at step 1, begun\n")
    code = [line for line in (DOCS / "client.py").read_text().split('"""', 2)[2].splitlines() if line]
    assert len(code) <= 20
