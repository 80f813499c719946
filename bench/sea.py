"""The step at sea of the deep demo well, from nothing, beside its own formula calls alone."""

from __future__ import annotations

import json

from bench.calls import made_by, make
from bench.ground import best_ms
from knollstack.catalogue import load
from knollstack.core.base.remember import CACHES
from knollstack.core.preventers import judge as preventers
from knollstack.core.proposal.equipping import program_of
from knollstack.core.reading.read import parse
from knollstack.core.running import judge as running
from knollstack.core.sea import judge as sea
from knollstack.demo import documents

DEEP = 3


def from_nothing_ms() -> tuple[float, float, int]:
    """The step, the same formulas called alone, and how many calls those are; what stands before the step is held."""
    program = program_of(parse(json.loads(documents()[DEEP])), load())
    preventers.judge(program)
    running.judge(program)

    def judged() -> None:
        for name, cache in CACHES.items():
            if ".core.sea." in name:
                cache.forget()
        sea.judge(program)

    judged()
    calls = made_by(judged)
    return best_ms(judged), best_ms(lambda: make(calls)), len(calls)


def main() -> None:
    ours, alone, count = from_nothing_ms()
    print("at sea: conductor, riser, disconnect, sealed annuli, landing of the deep demo well")
    print(f"{f'the step from nothing, {count} formula calls':48}{ours:8.1f} ms{ours / alone:7.1f} × the calls alone")
