"""The registry of steps: each with its word, its judge, and what of the document it works on. One line a step.

A step is added by its own room and one entry here. The keys of the document say on which step a place is worked:
the longest that it begins with decides, `*` standing for any row.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any

from knollstack.core.base.findings import Assumption, Finding, Result, Step
from knollstack.core.cement import judge as cement
from knollstack.core.completion import judge as completion
from knollstack.core.depths import judge as depths
from knollstack.core.drills import judge as drills
from knollstack.core.ground import judge as ground
from knollstack.core.ground.well import Well
from knollstack.core.logbook import judge as logbook
from knollstack.core.logbook.drilled import Drilled
from knollstack.core.mud import judge as mud
from knollstack.core.pipe import judge as pipe
from knollstack.core.preventers import judge as preventers
from knollstack.core.program.equipped import Equipped
from knollstack.core.running import judge as running
from knollstack.core.runsheet import judge as runsheet
from knollstack.core.sea import judge as sea
from knollstack.core.sizes import judge as sizes
from knollstack.core.wellhead import judge as wellhead

Judgement = tuple[Result, tuple[Finding, ...]] | tuple[Result, tuple[Finding, ...], tuple[Assumption, ...]]


@dataclass(frozen=True)
class StepEntry:
    """One step of the work: `judge` gives its result, what was found, and what was assumed.

    A step that `follows` from what all before it gave takes their results by their words as well; that of the log takes the log.
    """

    step: Step
    title: str
    judge: Callable[..., Judgement]
    places: tuple[str, ...]
    at_sea: bool = False
    """Only for wells at sea: on land it is no step of the path."""
    follows: bool = False

    def judged(self, equipped: Equipped, results: Mapping[str, Any], drilled: Drilled | None = None) -> Judgement:
        if self.step == "logbook":
            return self.judge(equipped, drilled or Drilled(equipped.design, equipped.design))
        return self.judge(equipped, results) if self.follows else self.judge(equipped)

    def applies(self, well: Well) -> bool:
        return not self.at_sea or well.site.setting != "land"


STEPS: tuple[StepEntry, ...] = (
    StepEntry("ground", "Ground", lambda e: ground.judge(e.well), ("", "/site", "/trajectory", "/ground")),
    StepEntry("depths", "Depths", lambda e: depths.judge(e.laid), ("/strings",)),
    StepEntry("sizes", "Sizes", sizes.judge, ("/strings/*/od_in", "/strings/*/bit_in", "/strings/*/opened_from_in")),
    StepEntry(
        "mud",
        "Mud",
        mud.judge,
        tuple(
            f"/strings/*/{key}"
            for key in ("mud_ppg", "mud_steps", "flow_gpm", "reading_3", "reading_6", "reading_300", "reading_600")
        ),
    ),
    StepEntry(
        "pipe",
        "Pipe",
        pipe.judge,
        (
            "/pipes",
            "/stock",
            *(
                f"/strings/*/{key}"
                for key in ("pipe", "sections", "connection", "tie_back", "wear_percent", "test_psi", "loads")
            ),
        ),
    ),
    StepEntry(
        "running",
        "Running",
        running.judge,
        (
            "/centralizers",
            "/strings/*/running",
            *(
                f"/site/{key}"
                for key in ("hook_load_limit_lbf", "block_lbf", "elevator_lbf", "spider_lbf", "tong_ft_lbf")
            ),
        ),
    ),
    StepEntry("cement", "Cement", cement.judge, ("/strings/*/cement", "/balanced_plugs")),
    StepEntry("wellhead", "Wellhead", wellhead.judge, ("/wellhead", "/sea/housing", "/site/cellar_depth_ft")),
    StepEntry("preventers", "BOPs", preventers.judge, ("/preventers", "/closing_unit")),
    StepEntry("sea", "At sea", sea.judge, ("/sea",), at_sea=True),
    StepEntry("completion", "Completion", completion.judge, ("/completion",)),
    StepEntry("runsheet", "Run sheet", runsheet.judge, ("/runsheet",), follows=True),
    StepEntry("logbook", "Logbook", logbook.judge, ("/log",)),
    StepEntry("drills", "Drills", drills.judge, ("/drills",), follows=True),
)
WORDS: tuple[Step, ...] = tuple(entry.step for entry in STEPS)


def outcome(judgement: Judgement) -> tuple[Any, tuple[Finding, ...], tuple[Assumption, ...]]:
    """A judgement in full, with no assumptions where its step makes none."""
    result, findings, *rest = judgement
    return result, findings, rest[0] if rest else ()
