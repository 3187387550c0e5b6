"""A network between a browser and the program that can be cut: at once, or just when an answer is on its way back."""

import contextlib
import socket
import threading


class Net:
    """Forwards connections of a port of its own to another one, for as long as it is whole."""

    def __init__(self, to_port: int) -> None:
        self._to = to_port
        self._listening = socket.create_server(("127.0.0.1", 0))
        self.port: int = self._listening.getsockname()[1]
        self._whole, self._answers_left = True, -1
        self._open: set[socket.socket] = set()
        threading.Thread(target=self._accept, daemon=True).start()

    def cut(self) -> None:
        """From now on nothing comes through."""
        self._whole = False
        for one in list(self._open):
            with contextlib.suppress(OSError):
                one.shutdown(socket.SHUT_RDWR)

    def cut_before_answer(self, after: int = 0) -> None:
        """So many answers still come back; what the next one answers is done, but nobody hears of it."""
        self._answers_left = after

    def mend(self) -> None:
        self._answers_left = -1
        self._whole = True

    def _accept(self) -> None:
        while True:
            here, _ = self._listening.accept()
            if not self._whole:
                here.close()
                continue
            try:
                there = socket.create_connection(("127.0.0.1", self._to))
            except OSError:
                here.close()
                continue
            self._open |= {here, there}
            threading.Thread(target=self._forward, args=(here, there, False), daemon=True).start()
            threading.Thread(target=self._forward, args=(there, here, True), daemon=True).start()

    def _forward(self, source: socket.socket, target: socket.socket, answers: bool) -> None:
        with contextlib.suppress(OSError):
            while data := source.recv(65536):
                if answers and self._answers_left == 0:
                    self.cut()
                if not self._whole:
                    break
                if answers and self._answers_left > 0:
                    self._answers_left -= 1
                target.sendall(data)
        for one in (source, target):
            with contextlib.suppress(OSError):
                one.close()
            self._open.discard(one)
