"""A simulated rig on a port: it begins when the first reader comes, and sends every reader the same from then on."""

from __future__ import annotations

import contextlib
import socket
import threading
import time

from knollstack.rig.channels import DATE, ROWS, TIME, Reading
from knollstack.rig.simulated.rig import SimulatedRig
from knollstack.rig.wits import encoded

LEAST_STEP_S = 1.0
RECORDS_A_SECOND = 20.0
"""No more than these are sent: at a great speed their steps of the rig's clock get longer."""
MOST_READERS = 20
FASTEST = 20_000.0


def record(reading: Reading) -> bytes:
    """A reading as a record of WITS level 0, in its field units."""
    at = time.gmtime(reading.at_s)
    items = {DATE: time.strftime("%y%m%d", at), TIME: time.strftime("%H%M%S", at)}
    for channel, value in reading.values.items():
        row = ROWS[channel]
        items[row.code] = f"{value / row.field:.2f}"
    return encoded(items)


class Playing(threading.Thread):
    """Plays a simulated rig at a speed, over TCP; port 0 takes a free one."""

    def __init__(self, rig: SimulatedRig, speed: float, port: int = 0, host: str = "127.0.0.1") -> None:
        super().__init__(daemon=True, name="simulated rig")
        self.rig, self.speed = rig, min(FASTEST, max(0.1, speed))
        self.listener = socket.create_server((host, port))
        self.listener.settimeout(0.2)
        self.port: int = self.listener.getsockname()[1]
        self.sent = 0
        self.over = False
        self._readers: list[socket.socket] = []
        self._ended = threading.Event()

    def stop(self) -> None:
        self._ended.set()

    def run(self) -> None:
        try:
            while not self._readers and not self._ended.is_set():
                self._accept()
            self._play()
            while not self._ended.is_set():
                self._accept()
        finally:
            for reader in (*self._readers, self.listener):
                reader.close()

    def _play(self) -> None:
        """Readings at their times; what comes late is sent at once."""
        step = max(LEAST_STEP_S, self.speed / RECORDS_A_SECOND)
        begun = time.monotonic()
        for count, reading in enumerate(self.rig.readings(step)):
            due = begun + count * step / self.speed
            while not self._ended.is_set() and (left := due - time.monotonic()) > 0:
                self._ended.wait(min(left, 0.2))
            if self._ended.is_set():
                return
            if count % 8 == 0:
                self._accept(wait=False)
            self._send(record(reading))
        self.over = True

    def _accept(self, wait: bool = True) -> None:
        self.listener.settimeout(0.2 if wait else 0.0)
        with contextlib.suppress(TimeoutError, BlockingIOError):
            reader, _ = self.listener.accept()
            if len(self._readers) >= MOST_READERS:
                reader.close()
                return
            reader.settimeout(2.0)
            self._readers.append(reader)

    def _send(self, data: bytes) -> None:
        self.sent += 1
        for reader in list(self._readers):
            try:
                reader.sendall(data)
            except OSError:
                reader.close()
                self._readers.remove(reader)
