"""`python -m bench growth`: what an evaluation costs as a well grows: points, zones, stations, strings, each by itself.

Each is taken at a size and at ten times of it (strings at three and at twelve), in one run: a ratio of ten is linear growth.
"""

from __future__ import annotations

import json
import time
from collections.abc import Callable
from itertools import pairwise
from typing import Any

import numpy as np

from knollstack.catalogue import load
from knollstack.core.base.remember import forget_all
from knollstack.core.evaluation.evaluate import evaluate
from knollstack.core.reading.read import parse
from knollstack.demo import documents

TOTAL_FT, ROUNDS = 12_600.0, 3
SIZES_IN = (30.0, 26.0, 20.0, 18.625, 16.0, 13.375, 11.75, 9.625, 8.625, 7.625, 7.0, 5.5)
Document = dict[str, Any]


def _well() -> Document:
    made: Document = json.loads(documents()[1])
    return made


def points(count: int) -> Document:
    """Pore and fracture pressure, rough at every point."""
    document, draw = _well(), np.random.default_rng(1)
    for name, low in (("pore", 8.6), ("fracture", 14.0)):
        document["ground"][name] = [
            {"tvd_ft": float(z), "emw_ppg": float(low + 0.3 * e + z / TOTAL_FT)}
            for z, e in zip(np.linspace(30, TOTAL_FT, count), draw.random(count), strict=True)
        ]
    return document


def zones(count: int) -> Document:
    document = _well()
    edges = np.linspace(30, TOTAL_FT, count + 1).tolist()
    document["ground"]["zones"] = [
        {"id": f"z{i}", "name": f"Layer {i}", "top_tvd_ft": a, "base_tvd_ft": b, "permeable": i % 2 == 0}
        for i, (a, b) in enumerate(pairwise(edges))
    ]
    return document


def stations(count: int) -> Document:
    document = _well()
    document["trajectory"] = {
        "stations": [
            {"md_ft": float(md), "inclination_deg": float(min(20.0, md / 300) + i % 2 * 0.1) if i else 0.0}
            for i, md in enumerate(np.linspace(0, TOTAL_FT, count))
        ]
    }
    return document


def strings(count: int) -> Document:
    document, sizes = _well(), SIZES_IN[-count:]
    shoes = np.linspace(300, TOTAL_FT, count).round(0).tolist()
    document["strings"] = [
        {
            "id": f"s{i}",
            "role": "intermediate",
            "shoe_md_ft": shoe,
            "od_in": od,
            "bit_in": od + 2,
            "mud_ppg": 9.0 + 0.3 * i,
        }
        for i, (od, shoe) in enumerate(zip(sizes, shoes, strict=True))
    ]
    document["strings"][0] |= {"role": "conductor", "run": "driven", "bit_in": None, "mud_ppg": None}
    document["strings"][-1]["role"] = "production"
    return document


def seconds(document: Document) -> float:
    """The least time of an evaluation from nothing."""
    design, times = parse(document), []
    for _ in range(ROUNDS):
        forget_all()
        start = time.perf_counter()
        evaluate(design, load())
        times.append(time.perf_counter() - start)
    return min(times)


def main() -> None:
    rows: tuple[tuple[str, Callable[[int], Document], tuple[int, int, int]], ...] = (
        ("profile points", points, (50, 500, 5_000)),
        ("zones", zones, (5, 50, 500)),
        ("stations", stations, (50, 500, 5_000)),
        ("strings", strings, (3, 6, 12)),
    )
    for title, made, counts in rows:
        times = [seconds(made(count)) for count in counts]
        told = ", ".join(f"{n:,}: {t * 1000:.0f} ms" for n, t in zip(counts, times, strict=True))
        factor = counts[-1] / counts[-2]
        print(f"{title}: {told}; the last {factor:.0f} times costs {times[-1] / times[-2]:.1f} times")
