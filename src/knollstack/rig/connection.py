"""A connection to the rig: read as long as it stands, told when it is lost, and made again by itself."""

from __future__ import annotations

import contextlib
import socket
import threading
import time
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Literal

from knollstack.core.logbook.channels import Channel
from knollstack.rig.channels import STANDARD_CODES, Reading, reading_of
from knollstack.rig.rows import RowDecoder
from knollstack.rig.wits import Counts, Decoder

State = Literal["connecting", "connected", "lost", "stopped"]
QUIET_S = 15.0
"""Nothing for so long is a lost connection, though nobody closed it."""
AGAIN_S = (0.5, 1.0, 2.0, 4.0, 8.0)
"""Waits before it is made again."""
PIECE = 65_536


@dataclass(frozen=True)
class Source:
    """Where the feed comes from, and what it speaks."""

    host: str
    port: int
    protocol: Literal["WITS level 0", "CSV"] = "WITS level 0"
    metric: bool = False
    codes: tuple[tuple[str, Channel], ...] = ()
    """Codes of the feed's own beside the standard ones."""

    @property
    def all_codes(self) -> dict[str, Channel]:
        return STANDARD_CODES | dict(self.codes)


class Reading0:
    """Bytes of a source as readings."""

    def __init__(self, source: Source) -> None:
        self.source, self.codes = source, source.all_codes
        self.wits, self.rows = Decoder(), RowDecoder()

    @property
    def counts(self) -> Counts:
        return self.rows.counts if self.source.protocol == "CSV" else self.wits.counts

    def feed(self, data: bytes, now_s: int) -> Iterator[Reading]:
        if self.source.protocol == "CSV":
            self.rows.now_s = now_s
            yield from self.rows.feed(data)
            return
        for items in self.wits.feed(data):
            reading = reading_of(items, self.codes, self.source.metric, now_s)
            if reading is not None:
                yield reading


class Connection(threading.Thread):
    """Reads a source until it is stopped; `take` gets readings, `tell` each change of state with its reason."""

    def __init__(
        self, source: Source, take: Callable[[list[Reading]], None], tell: Callable[[State, str], None]
    ) -> None:
        super().__init__(daemon=True, name=f"feed {source.host}:{source.port}")
        self.source, self.take, self.tell = source, take, tell
        self.decoder = Reading0(source)
        self._ended = threading.Event()

    def stop(self) -> None:
        self._ended.set()

    def run(self) -> None:
        tries = 0
        while not self._ended.is_set():
            self.tell("connecting", "")
            try:
                with socket.create_connection((self.source.host, self.source.port), timeout=5.0) as line:
                    tries = 0
                    self.tell("connected", "")
                    why = self._read(line)
            except OSError as error:
                why = error.strerror or str(error)
            if self._ended.is_set():
                break
            self.tell("lost", why)
            self._ended.wait(AGAIN_S[min(tries, len(AGAIN_S) - 1)])
            tries += 1
        self.tell("stopped", "")

    def _read(self, line: socket.socket) -> str:
        """Until the line ends; returns why."""
        line.settimeout(0.5)
        self.decoder.wits = Decoder(self.decoder.wits.counts)  # half a record is not gone on with
        heard = time.monotonic()
        while not self._ended.is_set():
            with contextlib.suppress(TimeoutError):
                data = line.recv(PIECE)
                if not data:
                    return "closed by the other side"
                heard = time.monotonic()
                readings = list(self.decoder.feed(data, int(time.time())))
                if readings:
                    self.take(readings)
                continue
            if time.monotonic() - heard > QUIET_S:
                return f"nothing for {QUIET_S:.0f} s"
        return "stopped"
