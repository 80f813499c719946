"""`python -m bench`: what an evaluation costs, as a ratio against the plain sum of its formula calls.

Every figure is the median of many runs on this machine in this process. The reference calls the same formulas
with the same inputs as one evaluation made, nothing else, so the ratio says what the rest of the house costs.
"""

from __future__ import annotations

import http.client
import json
import os
import statistics
import tempfile
import threading
import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

from waitress import create_server

from bench import ground, pipe
from knollstack.catalogue import load
from knollstack.core import depths, well
from knollstack.core.base.formula import tracing
from knollstack.core.document.design import Design
from knollstack.core.reading.read import parse
from knollstack.core.evaluation.evaluate import evaluate
from knollstack.demo import documents
from knollstack.server.app import create_app

RUNS = 40


def median_ms(run: Callable[[int], Any], runs: int = RUNS) -> float:
    """Median time of one run [ms]; the run is told its number, so that it can vary its input."""
    times = []
    for i in range(runs):
        start = time.perf_counter()
        run(i)
        times.append((time.perf_counter() - start) * 1000)
    return statistics.median(times)


def moved(document: dict[str, Any], i: int) -> dict[str, Any]:
    """The demo document with the 9 5/8 in shoe moved, as a drag does."""
    copy = json.loads(json.dumps(document))
    copy["strings"][2]["shoe_md_ft"] = 7000.0 + i
    return copy


def formula_calls_ms(design: Design) -> tuple[float, int]:
    """Median time of one evaluation's own formula calls, made alone, and their number."""
    with tracing() as steps:
        evaluate(design, load())
    calls = [(step.formula.function, step.inputs) for step in steps]
    return median_ms(lambda _: [function(**inputs) for function, inputs in calls]), len(calls)


def forget() -> None:
    """Empty the caches that hold what follows from the ground alone."""
    well._build.cache_clear()
    depths.propose.cache_clear()


def evaluate_cold(design: Design) -> None:
    forget()
    evaluate(design, load())


def round_trip_ms(document: dict[str, Any]) -> float:
    """Median of POST /api/evaluations over loopback, the shoe moved each time."""
    with tempfile.TemporaryDirectory() as folder:
        server = create_server(create_app(Path(folder) / "bench.sqlite"), host="127.0.0.1", port=0, threads=4)
        threading.Thread(target=server.run, daemon=True).start()
        connection = http.client.HTTPConnection("127.0.0.1", server.effective_port)

        def post(i: int) -> None:
            body = json.dumps({"document": moved(document, i)})
            connection.request("POST", "/api/evaluations", body, {"Content-Type": "application/json"})
            answer = connection.getresponse()
            assert answer.status == 200, answer.read()
            answer.read()

        post(0)
        result = median_ms(post)
        server.close()
    return result


def main() -> None:
    document = json.loads(documents()[1])
    designs = [parse(moved(document, i)) for i in range(RUNS)]
    evaluate(designs[0], load())
    reference, calls = formula_calls_ms(designs[0])
    warm = median_ms(lambda i: evaluate(designs[i], load()))
    cold = median_ms(lambda i: evaluate_cold(designs[i]))
    trip = round_trip_ms(document)
    print(f"{os.cpu_count()} cores; medians of {RUNS} runs; demo well, {calls} formula calls in an evaluation")
    print(f"{'the formula calls alone':38}{reference:8.1f} ms   1.00")
    for title, value in (
        ("evaluation, a shoe moved", warm),
        ("evaluation, the ground changed", cold),
        ("HTTP round trip, a shoe moved", trip),
    ):
        print(f"{title:38}{value:8.1f} ms{value / reference:7.2f}")
    print()
    ground.main()
    print()
    pipe.main()


main()
