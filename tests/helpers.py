"""Designs for tests: small, made by hand, each number stated."""

from __future__ import annotations

import copy
import json
import os
from functools import cached_property
from pathlib import Path
from typing import Any

from knollstack.catalogue import load
from knollstack.core.base.findings import SEVERITIES, Assumption, Change, Finding
from knollstack.core.document.policy import Policy
from knollstack.core.evaluation.evaluate import evaluate, evaluated
from knollstack.core.evaluation.results import Evaluation
from knollstack.core.evaluation.steps import STEPS, WORDS, outcome
from knollstack.core.pipe.frame import Frame
from knollstack.core.pipe.judge import exposed_of, frame_of
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.proposal.equipping import program_of
from knollstack.core.reading.read import parse
from knollstack.core.runsheet.detail import sheet_detail
from knollstack.core.runsheet.plan import Plan
from knollstack.core.runsheet.results import SheetDetail
from knollstack.core.runsheet.sheet import SheetInForce, sheet_of
from knollstack.core.wellhead.judge import surface_pressures
from knollstack.demo import documents

DATA = Path(__file__).parent / "data"
MORE = float(os.environ.get("KNOLLSTACK_MORE", "1"))


def many(count: int) -> int:
    """How many made-up cases: KNOLLSTACK_MORE times as many for a thorough run by hand."""
    return max(1, round(count * MORE))


CATALOGUE = load()
EVEN = {"joint_mean_ft": 38.675, "joint_spread_ft": 0.0}
"""Joints all alike: 38.3 ft with a make-up loss of 4.5 in."""
RIG = {
    "hook_load_limit_lbf": 2_000_000.0,
    "block_lbf": 40_000.0,
    "elevator_lbf": 2_000_000.0,
    "spider_lbf": 2_000_000.0,
    "tong_ft_lbf": 100_000.0,
}


def demo() -> dict[str, Any]:
    """The demo well's document."""
    return json.loads(documents()[1])


def empty_demo() -> dict[str, Any]:
    """The same ground with nothing decided."""
    return json.loads(documents()[0])


def points(*pairs: tuple[float, float]) -> list[dict[str, float]]:
    return [{"tvd_ft": float(z), "emw_ppg": float(e)} for z, e in pairs]


def well(**parts: Any) -> dict[str, Any]:
    """A vertical land well of 10,000 ft in uniform ground: pore 9.0 ppg, fracture 14.0 ppg, rig floor 30 ft.

    Joints add 38.3 ft each, so that float shoe, float collar (1.8 and 1.6 ft) and two of them are a shoe track of 80 ft; the
    rig lifts anything, and its closing unit cuts drill pipe.
    """
    document = {
        "format": "knollstack.well",
        "version": 9,
        "name": "Test",
        "site": {"rig_floor_ft": 30.0, "h2s_ppm": 0.0, "co2_percent": 0.0, "rotary_room_ft": 30.0, **RIG},
        "policy": {"running": dict(EVEN)},
        "closing_unit": {"operating_psi": 5000.0},
        "trajectory": {"stations": [{"md_ft": 0.0}, {"md_ft": 10_000.0}]},
        "ground": {"pore": points((30, 9), (10_000, 9)), "fracture": points((30, 14), (10_000, 14)), "zones": []},
        "strings": [],
    }
    for path, value in parts.items():
        put(document, path.split("__"), value)
    return document


def elements(*names: str) -> list[dict[str, Any]]:
    """Rows of a stack, bottom to top."""
    return [{"id": f"e{n}", "element": name} for n, name in enumerate(names, start=1)]


def policy(**values: Any) -> dict[str, Any]:
    """Policy by step from the names of its fields alone."""
    grouped: dict[str, Any] = {"running": dict(EVEN)}
    for name, value in values.items():
        step = next(step for step, f in Policy.model_fields.items() if name in f.annotation.model_fields)
        grouped.setdefault(step, {})[name] = value
    return grouped


def framed(document: dict[str, Any], index: int) -> tuple[Equipped, EquippedString, Frame]:
    """One string of a program with its pipe, and the loads that it is judged by."""
    program = program_of(parse(document), CATALOGUE)
    string = program.strings[index]
    frame = frame_of(program.well, string, exposed_of(program, string))
    assert frame is not None
    return program, string, frame


def put(document: Any, keys: list[str], value: Any) -> None:
    for key in keys[:-1]:
        document = document.setdefault(key, {}) if isinstance(document, dict) else document[int(key)]
    document[keys[-1] if isinstance(document, dict) else int(keys[-1])] = value


class Run:
    """A design's evaluation, of which a step is judged when it is asked: most tests ask one."""

    def __init__(self, document: dict[str, Any]) -> None:
        self.program = program_of(parse(document), CATALOGUE)

    @cached_property
    def whole(self) -> Evaluation:
        return evaluated(self.program)

    @cached_property
    def by_step(self) -> dict[str, Any]:
        return {}

    def judged(self, step: str) -> tuple[Any, tuple[Finding, ...], tuple[Assumption, ...]]:
        if step not in self.by_step:
            entry = STEPS[WORDS.index(step)]
            self.by_step[step] = outcome(entry.judged(self.program, self.before(step) if entry.follows else {}))
        return self.by_step[step]

    def before(self, step: str) -> dict[str, Any]:
        """Results of the steps before one, by their words."""
        return {word: self.judged(word)[0] for word in WORDS[: WORDS.index(step)]}

    def sheet(self) -> SheetInForce:
        return sheet_of(Plan.of(self.program, self.before("runsheet")))

    def detail(self) -> SheetDetail:
        """The run sheet as its views read it."""
        return sheet_detail(self.program, self.before("runsheet"))

    def found(self, step: str) -> list[Finding]:
        if not self.program.design.strings:  # their remedies adopt the proposal first
            return [f for f in self.whole.findings if f.step == step]
        told = (*self.program.laid.findings, *self.judged(step)[1])
        return sorted((f for f in told if f.step == step), key=lambda f: SEVERITIES.index(f.severity))

    def __getattr__(self, name: str) -> Any:
        return self.judged(name)[0] if name in WORDS else getattr(self.whole, name)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Run) and self.whole == other.whole

    __hash__ = object.__hash__


def run(document: dict[str, Any]) -> Run:
    return Run(document)


def evaluation_of(document: dict[str, Any]) -> Evaluation:
    return evaluate(parse(document), CATALOGUE)


def applied(document: dict[str, Any], changes: tuple[Change, ...]) -> dict[str, Any]:
    """The document with changes applied as the browser does."""
    result = copy.deepcopy(parse(document).model_dump(mode="json"))
    for change in changes:
        put(result, change.path.split("/")[1:], change.value)
    return result


def surface_psi(document: dict[str, Any], index: int) -> float | None:
    """Maximum anticipated surface pressure on a string."""
    return surface_pressures(program_of(parse(document), CATALOGUE))[index]


def find(judged: Run, step: str, severity: str | None = None) -> list[Finding]:
    return [f for f in judged.found(step) if severity in (None, f.severity)]
