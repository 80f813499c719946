"""Run sheet, schedule and materials of the demo wells, from what the steps before give, beside their own formula calls alone."""

from __future__ import annotations

import json
from typing import Any

from bench.calls import made_by, make
from bench.ground import best_ms
from knollstack.catalogue import load
from knollstack.core.base.remember import CACHES
from knollstack.core.evaluation.steps import STEPS, outcome
from knollstack.core.program.equipped import Equipped
from knollstack.core.proposal.equipping import program_of
from knollstack.core.reading.read import parse
from knollstack.core.runsheet.detail import sheet_detail
from knollstack.core.runsheet.judge import judge
from knollstack.demo import documents

WELLS = {"land": 1, "platform": 2, "deep": 3}


def before(equipped: Equipped) -> dict[str, Any]:
    """Results of every step that the run sheet follows from."""
    return {entry.step: outcome(entry.judge(equipped))[0] for entry in STEPS if not entry.follows}


def forget() -> None:
    for name, cache in CACHES.items():
        if ".core.runsheet." in name:
            cache.forget()


def main() -> None:
    print("run sheet: its sheet, schedule and materials, what was worked before being held")
    for title, index in WELLS.items():
        program = program_of(parse(json.loads(documents()[index])), load())
        results = before(program)

        def judged(program=program, results=results) -> None:  # type: ignore[no-untyped-def]
            forget()
            judge(program, results)

        def detailed(program=program, results=results) -> None:  # type: ignore[no-untyped-def]
            forget()
            sheet_detail(program, results)

        lines = len(sheet_detail(program, results).lines)
        for words, run in ((f"{title}, {lines} steps, as judged", judged), (f"{title}, every line and item", detailed)):
            run()
            calls = made_by(run)
            ours, alone = best_ms(run), best_ms(lambda calls=calls: make(calls))  # type: ignore[misc]
            print(f"{words:48}{ours:8.1f} ms{ours / alone:7.1f} × its {len(calls)} formula calls alone")
