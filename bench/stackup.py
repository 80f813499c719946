"""The wellhead and preventer steps of a five-string inclined well of 20,000 ft, beside their own formula calls alone."""

from __future__ import annotations

from bench.calls import made_by, make
from bench.ground import best_ms
from bench.running import five_strings
from knollstack.catalogue import load
from knollstack.core.base.remember import CACHES
from knollstack.core.preventers import judge as preventers
from knollstack.core.proposal.equipping import program_of
from knollstack.core.wellhead import judge as wellhead

ROOMS = (".core.wellhead.", ".core.preventers.")


def forget() -> None:
    for name, cache in CACHES.items():
        if any(room in name for room in ROOMS):
            cache.forget()


def main() -> None:
    program = program_of(five_strings(), load())
    print("stack-up: five strings, a stack on each that carries one")
    for title, judge in (("wellhead", wellhead.judge), ("preventers", preventers.judge)):

        def from_nothing(judge=judge) -> None:  # type: ignore[no-untyped-def]
            forget()
            judge(program)

        judge(program)
        ours = best_ms(from_nothing)
        calls = made_by(from_nothing)
        alone = best_ms(lambda calls=calls: make(calls))  # type: ignore[misc]
        words = f"{title} from nothing, {len(calls)} formula calls"
        print(f"{words:48}{ours:8.1f} ms{ours / alone:7.1f} × the calls alone")
