"""`python -m bench people`: several people at one server: ten drag at once, and one drags beside eight long jobs.

The reference is one person who drags alone, in the same run.
"""

from __future__ import annotations

import http.client
import json
import re
import statistics
import subprocess
import sys
import tempfile
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

from knollstack.demo import documents

PEOPLE, EDITS, JOBS = 10, 30, 8
DRAGGED = 1
DEEP = 3


@contextmanager
def served() -> Iterator[int]:
    """The port of a server as it is served to people."""
    with tempfile.TemporaryDirectory() as folder:
        command = [sys.executable, "-m", "knollstack", "serve", "--port", "0", "--no-browser", "--data", folder]
        with subprocess.Popen(command, stdout=subprocess.PIPE, text=True) as server:
            assert server.stdout is not None
            found = re.search(r":(\d+)/", server.stdout.readline())
            assert found is not None
            yield int(found[1])
            server.terminate()


class Person:
    """One browser with a well of its own."""

    def __init__(self, port: int, number: int, well: int) -> None:
        self.connection, self.number = http.client.HTTPConnection("127.0.0.1", port), number
        self.document: dict[str, Any] = json.loads(documents()[well])
        self.document["site"]["rig_floor_ft"] += 0.1 * number

    def ask(self, path: str) -> float:
        """Milliseconds from a question to its answer."""
        headers = {"Content-Type": "application/json", "Knollstack-Browser": f"bench-{self.number}"}
        start = time.perf_counter()
        self.connection.request("POST", path, json.dumps({"document": self.document}), headers)
        answer = self.connection.getresponse()
        text = answer.read()
        assert answer.status == 200, text
        return (time.perf_counter() - start) * 1000

    def drag(self, times: list[float]) -> None:
        """Move a shoe foot by foot, each time the answer is back."""
        for _ in range(EDITS):
            self.document["strings"][DRAGGED]["shoe_md_ft"] += 1.0
            times.append(self.ask("/api/evaluations"))


def together(people: list[Person]) -> list[float]:
    times: list[float] = []
    threads = [threading.Thread(target=person.drag, args=(times,)) for person in people]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return times


def main() -> None:
    with served() as port:
        people = [Person(port, i, 1 + i % 3) for i in range(PEOPLE)]
        one = Person(port, PEOPLE, 1)
        for person in (*people, one):
            person.ask("/api/evaluations")
        alone = statistics.median(together([one]))
        crowd = statistics.median(together(people))
        jobs = [threading.Thread(target=Person(port, 100 + i, DEEP).ask, args=("/api/programs",)) for i in range(JOBS)]
        for job in jobs:
            job.start()
        beside = statistics.median(together([one]))
        for job in jobs:
            job.join()
    print(f"one person drags alone: an answer in {alone:.0f} ms (median)")
    print(f"{PEOPLE} drag at once: {crowd:.0f} ms, {crowd / alone:.1f} times")
    print(f"one drags beside {JOBS} long jobs: {beside:.0f} ms, {beside / alone:.2f} times")
