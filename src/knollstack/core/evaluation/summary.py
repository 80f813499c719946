"""A design in a line: the state of each step, how many findings are open, and its strings for a small drawing."""

from __future__ import annotations

from collections import Counter

from knollstack.core.base.findings import Result
from knollstack.core.evaluation.results import Evaluation, StepState


class SummaryString(Result):
    od_in: float | None
    top_md_ft: float
    shoe_md_ft: float


class Summary(Result):
    path: tuple[StepState, ...] = ()
    stops: int = 0
    cautions: int = 0
    unknowns: int = 0
    total_md_ft: float = 0.0
    strings: tuple[SummaryString, ...] = ()
    unreadable: str = ""


def summary_of(evaluation: Evaluation) -> Summary:
    counts = Counter(f.severity for f in evaluation.findings)
    return Summary(
        path=evaluation.path,
        stops=counts["stop"],
        cautions=counts["caution"],
        unknowns=counts["unknown"],
        total_md_ft=evaluation.basis.total_md_ft,
        strings=tuple(
            SummaryString(od_in=s.od_in, top_md_ft=s.top_md_ft, shoe_md_ft=s.shoe_md_ft) for s in evaluation.strings
        ),
    )
