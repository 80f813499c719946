"""The demo wells' evaluations against those kept: a change of any number, state or finding is seen and must be meant.

`python -m tests.core.evaluation.test_regression` writes the file anew; its difference belongs in the change's message.
"""

import json
from typing import Any

import pytest

from knollstack.core.base.units import plain
from knollstack.core.evaluation.results import Evaluation
from knollstack.demo import documents
from tests.helpers import DATA, run

KEPT = DATA / "demo-evaluations.json"


def told(value: Any) -> Any:
    """An evaluation with its numbers at nine digits, so that it is the same on every machine."""
    if isinstance(value, float):
        return float(f"{value:.9g}")
    if isinstance(value, dict):
        return {k: told(v) for k, v in value.items()}
    return [told(v) for v in value] if isinstance(value, list) else value


def summary(evaluation: Evaluation) -> dict[str, Any]:
    whole = told(evaluation.model_dump(mode="json"))
    whole["findings"] = [
        [f.severity, f.step, f.place, plain(f.message), [plain(r.label) for r in f.remedies]]
        for f in evaluation.findings
    ]
    return whole


def kept() -> list[dict[str, Any]]:
    return json.loads(KEPT.read_text(encoding="utf-8"))


def differences(old: Any, new: Any, place: str = "") -> list[str]:
    if isinstance(old, dict) and isinstance(new, dict):
        keys = sorted(old.keys() | new.keys())
        return [d for k in keys for d in differences(old.get(k), new.get(k), f"{place}/{k}")]
    if isinstance(old, list) and isinstance(new, list) and len(old) == len(new):
        return [d for i, pair in enumerate(zip(old, new, strict=True)) for d in differences(*pair, f"{place}/{i}")]
    if isinstance(old, float) and isinstance(new, int | float):
        return [] if new == pytest.approx(old, rel=1e-7, abs=1e-9) else [f"{place}: {old} was kept, {new} came"]
    return [] if old == new else [f"{place}: {old} was kept, {new} came"]


def test_the_demo_wells_are_evaluated_as_they_were():
    wells = [json.loads(text) for text in documents()]
    old = kept()
    assert len(old) == len(wells)
    for document, was in zip(wells, old, strict=True):
        came = json.loads(json.dumps(summary(run(document))))
        assert differences(was, came)[:20] == [], document["name"]


if __name__ == "__main__":
    evaluations = [summary(run(json.loads(text))) for text in documents()]
    KEPT.write_text(json.dumps(evaluations, separators=(",", ":"), ensure_ascii=False) + "\n", encoding="utf-8")
