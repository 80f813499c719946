"""The test plan of a stack as CSV: a line a test, as the tester carries it out."""

from __future__ import annotations

import csv
import io

from knollstack.core.base.units import UnitSet, plain
from knollstack.core.preventers.results import StackProof, StackRow
from knollstack.formats.defused import defused


def write_test_plan(row: StackRow, units: UnitSet) -> str:
    """Every test of a nipple-up in order, in a person's units."""
    pressure, force = units.of("pressure"), units.of("force")
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(
        [
            "No.",
            "Test",
            f"Low ({pressure.unit})",
            f"High ({pressure.unit})",
            "High pressure by",
            "Across",
            "Tool",
            "Valves",
            "Sees the pressure",
            f"Pull on pipe ({force.unit})",
            "Done",
        ]
    )
    writer.writerows([[str(n), *_cells(test, units), ""] for n, test in enumerate(row.tests, start=1)])
    return out.getvalue()


def _cells(test: StackProof, units: UnitSet) -> list[str]:
    pressure, force = units.of("pressure"), units.of("force")
    high = "" if test.high_psi is None else f"{test.high_psi * pressure.factor:.{pressure.decimals}f}"
    low = "" if test.high_psi is None else f"{test.low_psi * pressure.factor:.{pressure.decimals}f}"
    pull = "" if test.tension_lbf is None else f"{test.tension_lbf * force.factor:.{force.decimals}f}"
    across = plain(test.across, units)
    return [defused(text) for text in (test.title, low, high, test.by, across, test.tool, test.opened, test.sees, pull)]
