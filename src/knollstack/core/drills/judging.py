"""What a rule of the drill says of what was done: an outcome with its credit, what was expected, and why."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from typing import Literal

from knollstack.core.base.findings import Result, Words
from knollstack.core.drills.events import ActionName, DrillEvent
from knollstack.core.drills.play import Play
from knollstack.core.drills.setup import Element

Source = Literal["Well control practice", "Policy of this design", "Rating of the equipment", "Kill sheet"]
PRACTICE: Source = "Well control practice"
POLICY: Source = "Policy of this design"
RATING: Source = "Rating of the equipment"
SHEET: Source = "Kill sheet"
NEVER = 10**9
OUT_BBL, DEAD_PSI = 0.3, 60.0
"""Gas left in the hole, and pressure at surface, under which a well may be opened."""


class RuleOutcome(Result):
    """One rule at the end of a drill; `credit` is from 0 to 1."""

    key: str
    title: str
    credit: float
    weight: float
    at_s: int | None
    done: Words
    expected: Words
    why: str
    source: Source


@dataclass(frozen=True)
class Said:
    credit: float
    done: Words
    at_s: int | None = None


@dataclass(frozen=True)
class Rule:
    key: str
    title: str
    expected: Callable[[Play], Words]
    why: str
    source: Source
    weight: float
    applies: Callable[[Play], bool]
    judge: Callable[[Play], Said]

    def outcome(self, play: Play) -> RuleOutcome:
        said = self.judge(play)
        return RuleOutcome(
            key=self.key,
            title=self.title,
            credit=said.credit,
            weight=self.weight,
            at_s=said.at_s,
            done=said.done,
            expected=self.expected(play),
            why=self.why,
            source=self.source,
        )


def clock(seconds: int) -> str:
    """As on the panel: h:mm:ss."""
    return f"{seconds // 3600}:{seconds // 60 % 60:02d}:{seconds % 60:02d}"


def done_events(play: Play, *actions: ActionName) -> list[DrillEvent]:
    return [e for e in play.events if e.action in actions and not e.refused]


def first(events: Iterable[DrillEvent]) -> DrillEvent | None:
    return next(iter(events), None)


def element(play: Play, index: int | None) -> Element | None:
    return next((e for e in play.made.setup.elements if e.index == index), None)


def is_rig_diverter(play: Play, event: DrillEvent) -> bool:
    found = element(play, event.target)
    return found is not None and found.kind == "diverter"


def closings(play: Play) -> list[DrillEvent]:
    """Elements of the stack that were closed, the diverter apart."""
    return [e for e in done_events(play, "close") if not is_rig_diverter(play, e)]


def first_closing_s(play: Play) -> int:
    found = first(closings(play))
    return found.at_s if found is not None else NEVER


def on(play: Play, *kinds: str) -> bool:
    return play.made.scene.kind in kinds
