"""`formula`: one formula worked at the terminal, or a file of cases checked."""

from __future__ import annotations

import argparse
import json
from pathlib import Path
from typing import Any

import numpy as np

from knollstack.commands.say import FAULTY, say
from knollstack.core.base.endings import unit_of
from knollstack.core.base.formula import CallError, Formula, FormulaError, call_named
from knollstack.handbook import registry


def _with_units(formula: Formula, result: Any) -> tuple[Any, Any]:
    if isinstance(result, dict):
        return {k: _listed(v) for k, v in result.items()}, {k: unit_of(k) for k in result}
    return _listed(result), formula.unit


def _listed(value: Any) -> Any:
    return value.tolist() if hasattr(value, "tolist") else value


def run_formula(arguments: argparse.Namespace) -> int:
    """Print one formula's result with unit and source as JSON, list all, or check a file of cases."""
    formulas = registry()
    if arguments.list:
        print("\n".join(sorted(formulas)))
        return 0
    if arguments.cases:
        return check_cases(formulas, Path(arguments.cases))
    formula = formulas.get(arguments.name or "")
    if formula is None:
        say(f"{arguments.name}: no such formula; `formula --list` names all")
        return FAULTY
    try:
        inputs = {}
        for pair in arguments.inputs:
            key, _, text = pair.partition("=")
            inputs[key] = json.loads(text)
        result, unit = _with_units(formula, call_named(formula, inputs))
    except ValueError as error:
        say(
            str(error)
            if isinstance(error, FormulaError | CallError)
            else f"{pair}: expected key=value with a JSON value"
        )
        return FAULTY
    print(
        json.dumps(
            {"formula": formula.name, "result": result, "unit": unit, "source": formula.source}, ensure_ascii=False
        )
    )
    return 0


def check_cases(formulas: dict[str, Formula], path: Path) -> int:
    """Run a file of reference cases; print each that differs; 1 if any does."""
    try:
        document = json.loads(path.read_text(encoding="utf-8"))
        cases = document["cases"]
        tolerance = float(document.get("tolerance", 1e-4))
    except (OSError, ValueError, KeyError, TypeError) as error:
        say(f"{path}: {error}; expected a JSON file with a list of cases")
        return FAULTY
    wrong = [line for case in cases for line in case_faults(formulas, case, tolerance)]
    print("\n".join(wrong) if wrong else f"{len(cases)} cases agree")
    return 1 if wrong else 0


def case_faults(formulas: dict[str, Formula], case: dict[str, Any], tolerance: float) -> list[str]:
    """Lines for the results of one case that differ by more than the relative tolerance."""
    formula = formulas.get(case["formula"])
    if formula is None:
        return [f"{case['formula']}: no such formula"]
    try:
        result = call_named(formula, case["inputs"])
    except (FormulaError, CallError) as error:
        return [str(error)]
    expect = case["expect"]
    pairs = [(k, result[k], v) for k, v in expect.items()] if isinstance(expect, dict) else [("result", result, expect)]
    single = [
        (name, one, other)
        for name, got, want in pairs
        for one, other in zip(np.atleast_1d(got), np.atleast_1d(want), strict=True)
    ]
    return [
        f"{formula.name} {name}: {float(got):.7g}, expected {want:.7g}"
        for name, got, want in single
        if abs(float(got) - want) > tolerance * max(abs(want), 1e-12)
    ]
