"""The command line, in a process of its own and in this one."""

import contextlib
import io
import os
import subprocess
import sys
from pathlib import Path

from kelbrast.cli.main import main

ROOT = Path(__file__).parents[1]


def run_process(*arguments: str | Path) -> subprocess.CompletedProcess[str]:
    """A process of its own, as a script starts it."""
    command = [sys.executable, "-m", "kelbrast", *map(str, arguments)]
    return subprocess.run(command, capture_output=True, text=True, cwd=ROOT, timeout=60)


def run(*arguments: str | Path, text: str | None = None) -> subprocess.CompletedProcess[str]:
    """The same in this process: starting one anew takes seconds each time."""
    out, err, code, stdin, here = io.StringIO(), io.StringIO(), 0, sys.stdin, Path.cwd()
    sys.stdin = io.TextIOWrapper(io.BytesIO((text or "").encode()), encoding="utf-8")
    os.chdir(ROOT)
    try:
        with contextlib.redirect_stdout(out), contextlib.redirect_stderr(err):
            main([str(argument) for argument in arguments])
    except SystemExit as left:
        code = left.code if isinstance(left.code, int) else int(left.code is not None)
    finally:
        sys.stdin = stdin
        os.chdir(here)
    assert "Traceback" not in err.getvalue()
    return subprocess.CompletedProcess(list(map(str, arguments)), code, out.getvalue(), err.getvalue())
