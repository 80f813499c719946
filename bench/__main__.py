"""`python -m bench`: what an evaluation costs, as a ratio against its own formula calls made alone.

The reference calls the same formulas with the same inputs as one evaluation from nothing made, on single numbers and on
fields of them, and does nothing else: the ratio says what the rest of the house costs. Figures that stand in one ratio are
taken in turn in the same rounds, since the machine's speed changes between runs. Cold is with every cache empty, warm
with one shoe moved, as a drag does.
"""

from __future__ import annotations

import http.client
import json
import os
import statistics
import tempfile
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from waitress import create_server

from bench import cement, ground, pipe, running, runsheet, sea, stackup
from bench.calls import made_by, make
from knollstack.catalogue import load
from knollstack.core.base.remember import forget_all
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


def cold(run: Callable[[int], Any]) -> Callable[[int], Any]:
    def from_nothing(i: int) -> Any:
        forget_all()
        return run(i)

    return from_nothing


@contextmanager
def served() -> Iterator[Callable[[str], None]]:
    """A server of its own, and how to ask it for an evaluation over loopback."""
    with tempfile.TemporaryDirectory() as folder:
        server = create_server(create_app(Path(folder) / "bench.sqlite"), host="127.0.0.1", port=0, threads=4)
        threading.Thread(target=server.run, daemon=True).start()
        connection = http.client.HTTPConnection("127.0.0.1", server.effective_port)

        def post(body: str) -> None:
            connection.request("POST", "/api/evaluations", body, {"Content-Type": "application/json"})
            answer = connection.getresponse()
            text = answer.read()
            assert answer.status == 200, text

        yield post
        server.close()


def in_turn(runs: dict[str, Callable[[int], Any]]) -> dict[str, float]:
    """Median times [ms] of several things, each done once in every round."""
    times: dict[str, list[float]] = {name: [] for name in runs}
    for i in range(RUNS):
        for name, run in runs.items():
            start = time.perf_counter()
            run(i)
            times[name].append((time.perf_counter() - start) * 1000)
    return {name: statistics.median(values) for name, values in times.items()}


def stages(designs: list[Design]) -> list[tuple[str, float, float]]:
    """Cost [ms] of each stage, cold and warm: laying out, equipping, every step, and the whole answer as JSON."""
    stages: list[tuple[str, Callable[[int], Any]]] = []
    laid = [laid_out(d, load()) for d in designs]
    made = [equipped(program) for program in laid]
    stages.append(("laid out", lambda i: laid_out(designs[i], load())))
    stages.append(("equipped", lambda i: equipped(laid[i])))
    gave = [runsheet.before(program) for program in made]
    stages += [(entry.step, lambda i, entry=entry: entry.judged(made[i], gave[i])) for entry in STEPS]
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


def whole() -> None:
    document = json.loads(documents()[INCLINED])
    # a moved shoe is another one each time: no answer is held already
    texts = [json.dumps(moved(document, i)) for i in range(3 * RUNS + 1)]
    designs = [parse(json.loads(text)) for text in texts]
    evaluate(designs[-1], load())
    forget_all()
    calls = made_by(lambda: evaluate(designs[-1], load()))
    singles = [call for call in calls if not call[2]]
    with served() as post:
        warm = in_turn(
            {
                "all formula calls of a cold evaluation, alone": lambda _: make(calls),
                "those on single numbers only": lambda _: make(singles),
                "evaluation, a shoe moved": lambda i: evaluate(designs[i], load()),
                "the document read and checked": lambda i: parse(json.loads(texts[i])),
                "HTTP round trip, a shoe moved": lambda i: post(f'{{"document":{texts[RUNS + i]}}}'),
            }
        )
    from_nothing = in_turn(
        {"reference": lambda _: make(calls), "evaluation from nothing": cold(lambda i: evaluate(designs[i], load()))}
    )
    reference = warm["all formula calls of a cold evaluation, alone"]
    print(f"{os.cpu_count()} cores; medians of {RUNS} rounds; inclined demo well")
    print(f"{len(calls)} formula calls in an evaluation from nothing, {len(singles)} of them on single numbers")
    for title, value in warm.items():
        print(f"{title:48}{value:8.1f} ms{value / reference:7.2f}")
    title, value = "evaluation from nothing", from_nothing["evaluation from nothing"]
    print(f"{title:48}{value:8.1f} ms{value / from_nothing['reference']:7.2f}")


def main() -> None:
    whole()
    document = json.loads(documents()[INCLINED])
    print(f"\n{'by stage':16}{'cold, ms':>10}{'a shoe moved, ms':>19}")
    for name, from_nothing, a_shoe in stages([parse(moved(document, i)) for i in range(RUNS)]):
        print(f"{name:16}{from_nothing:10.2f}{a_shoe:19.2f}")
    print()
    ground.main()
    print()
    pipe.main()
    print()
    running.main()
    print()
    cement.main()
    print()
    stackup.main()
    sea.main()
    print()
    runsheet.main()


main()
