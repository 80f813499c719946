"""`python -m bench`: what an evaluation costs, as a ratio against the plain sum of its formula calls.

Every figure is the median of many runs on this machine in this process. The reference calls the same formulas
with the same inputs as one evaluation made, nothing else, so the ratio says what the rest of the house costs. Cold is
with every cache empty, warm with one shoe moved, as a drag does.
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
from knollstack.core.base.formula import tracing
from knollstack.core.base.remember import forget_all
from knollstack.core.base.working import recording
from knollstack.core.document.design import Design
from knollstack.core.evaluation.evaluate import evaluate, evaluated
from knollstack.core.evaluation.steps import STEPS
from knollstack.core.proposal.equipping import equipped
from knollstack.core.proposal.laid_out import laid_out
from knollstack.core.reading.read import parse
from knollstack.demo import documents
from knollstack.server.app import create_app

RUNS = 40
INCLINED, MOVED = 2, 2
"""The inclined demo well, and which of its strings is moved."""


def median_ms(run: Callable[[int], Any], runs: int = RUNS) -> float:
    """Median time of one run [ms]; the run is told its number, so that it can vary its input."""
    times = []
    for i in range(runs):
        start = time.perf_counter()
        run(i)
        times.append((time.perf_counter() - start) * 1000)
    return statistics.median(times)


def moved(document: dict[str, Any], i: int) -> dict[str, Any]:
    """The demo document with one shoe moved, as a drag does."""
    copy: dict[str, Any] = json.loads(json.dumps(document))
    copy["strings"][MOVED]["shoe_md_ft"] += float(i)
    return copy


def formula_calls_ms(design: Design) -> tuple[float, int]:
    """Median time of one evaluation's own formula calls, made alone, and their number."""
    forget_all()
    with recording() as records, tracing() as outside:
        evaluate(design, load())
    calls = [(c.formula.function, c.inputs) for c in [*outside, *(c for r in records.values() for c in r)]]
    return median_ms(lambda _: [function(**inputs) for function, inputs in calls]), len(calls)


def cold(run: Callable[[int], Any]) -> Callable[[int], Any]:
    def from_nothing(i: int) -> Any:
        forget_all()
        return run(i)

    return from_nothing


def round_trip_ms(document: dict[str, Any]) -> float:
    """Median of POST /api/evaluations over loopback, the shoe moved each time."""
    with tempfile.TemporaryDirectory() as folder:
        server = create_server(create_app(Path(folder) / "bench.sqlite"), host="127.0.0.1", port=0, threads=4)
        threading.Thread(target=server.run, daemon=True).start()
        connection = http.client.HTTPConnection("127.0.0.1", server.effective_port)

        def post(i: int) -> None:
            body = json.dumps({"document": moved(document, 200 + i)})  # not among the designs evaluated before
            connection.request("POST", "/api/evaluations", body, {"Content-Type": "application/json"})
            answer = connection.getresponse()
            assert answer.status == 200, answer.read()
            answer.read()

        post(-1)
        result = median_ms(post)
        server.close()
    return result


def stages(designs: list[Design]) -> list[tuple[str, float, float]]:
    """Cost [ms] of each stage, cold and warm: laying out, equipping, every step, and the whole answer as JSON."""
    stages: list[tuple[str, Callable[[int], Any]]] = []
    laid = [laid_out(d, load()) for d in designs]
    made = [equipped(program) for program in laid]
    stages.append(("laid out", lambda i: laid_out(designs[i], load())))
    stages.append(("equipped", lambda i: equipped(laid[i])))
    stages += [(entry.step, lambda i, judge=entry.judge: judge(made[i])) for entry in STEPS]
    answers = [evaluated(program) for program in made]
    rows = []
    for name, run in stages:
        warm = _warm_ms(designs, run, stages)
        rows.append((name, median_ms(cold(run), 10), warm))
    return [*rows, ("as JSON", *[median_ms(lambda i: answers[i].model_dump_json())] * 2)]


def _warm_ms(designs: list[Design], run: Callable[[int], Any], stages: list[tuple[str, Callable[[int], Any]]]) -> float:
    """With the stages before it done for this design, and the whole for the one before."""
    forget_all()
    evaluate(designs[0], load())
    times = []
    for i in range(1, len(designs)):
        for _, earlier in stages:
            if earlier is run:
                break
            earlier(i)
        start = time.perf_counter()
        run(i)
        times.append((time.perf_counter() - start) * 1000)
        evaluate(designs[i], load())
    return statistics.median(times)


def main() -> None:
    document = json.loads(documents()[INCLINED])
    texts = [json.dumps(moved(document, i)) for i in range(RUNS)]
    designs = [parse(json.loads(text)) for text in texts]
    evaluate(designs[0], load())
    reference, calls = formula_calls_ms(designs[0])
    whole = median_ms(cold(lambda i: evaluate(designs[i], load())))
    evaluate(designs[0], load())
    warm = median_ms(lambda i: evaluate(designs[(i + 1) % RUNS], load()))
    read = median_ms(lambda i: parse(json.loads(texts[i])))
    print(f"{os.cpu_count()} cores; medians of {RUNS} runs; inclined demo well, {calls} formula calls in an evaluation")
    print(f"{'the formula calls alone':38}{reference:8.1f} ms   1.00")
    for title, value in (
        ("evaluation from nothing", whole),
        ("evaluation, a shoe moved", warm),
        ("the document read and checked", read),
        ("HTTP round trip, a shoe moved", round_trip_ms(document)),
    ):
        print(f"{title:38}{value:8.1f} ms{value / reference:7.2f}")
    print(f"\n{'by stage':16}{'cold, ms':>10}{'a shoe moved, ms':>19}")
    for name, from_nothing, a_shoe in stages(designs):
        print(f"{name:16}{from_nothing:10.2f}{a_shoe:19.2f}")
    print()
    ground.main()
    print()
    pipe.main()


main()
