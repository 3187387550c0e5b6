"""The program as people start it, in a process of its own that can be killed with -9 and started again on the same port."""

import os
import re
import signal
import subprocess
import sys
from pathlib import Path


class Server:
    """`kelbrast serve` on one database; the first start takes a free port and keeps it."""

    def __init__(self, database: Path) -> None:
        self._database = database
        self._port = 0
        self.address = ""
        self.start()

    def start(self) -> None:
        command = [sys.executable, "-m", "kelbrast", "serve", "--port", str(self._port), "--database", str(self._database)]
        environment = {**os.environ, "PYTHONUNBUFFERED": "1"}
        self._process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True, env=environment)
        assert self._process.stdout is not None
        said = self._process.stdout.readline()
        told = re.search(r"http://[\d.]+:(\d+)", said)
        assert told is not None, said
        self._port, self.address = int(told[1]), told[0]

    def stop(self) -> None:
        """As Ctrl+C stops it."""
        self._process.send_signal(signal.SIGINT)
        self._process.wait(20)

    def kill(self) -> None:
        self._process.send_signal(signal.SIGKILL)
        self._process.wait()
