"""What the program sheet prints of a well at sea: conductor, riser, hangers, disconnect."""

from __future__ import annotations

from collections.abc import Callable

from knollstack.core.base.findings import Quantity, Words
from knollstack.core.evaluation.results import Evaluation

Show = Callable[[float | None, Quantity], str]
Say = Callable[[Words], str]
Table = tuple[list[list[str]], list[float]]


def sea_tables(evaluation: Evaluation, show: Show, say: Say) -> list[Table]:
    """Tables with the shares of their columns; a part that does not apply has its heading alone."""
    return [
        (_conductor(evaluation, show), [2.6, 1, 1.2, 1.2, 0.8]),
        (_seats(evaluation, show, say), [1, 1, 1, 1.1, 1.2, 1.1, 2]),
        (_tensions(evaluation, show, say), [1, 0.9, 1.3, 1.4, 1.3, 1.5, 1.2]),
        (_drift(evaluation, show), [1.6, 1, 1.2, 1.2, 1.2, 1.2]),
        (_annuli(evaluation, show, say), [1.8, 1, 1, 1.4, 1.2, 1.2]),
    ]


def _conductor(evaluation: Evaluation, show: Show) -> list[list[str]]:
    rows = [["Conductor in the sea floor", "After", "Carries", "Soil bears", "Factor"]]
    found = evaluation.sea.conductor
    for row in found.rows if found is not None else ():
        cells = show(row.hours, "hours"), show(row.load_lbf, "force"), show(row.capacity_lbf, "force")
        rows.append([row.moment, *cells, show(row.factor, "factor")])
    return rows


def _seats(evaluation: Evaluation, show: Show, say: Say) -> list[list[str]]:
    """Heights over the mudline, pressures at the wellhead on the sea floor."""
    rows = [["Hanger", "Seat", "Seal to", "Load", "Sees", "Seal test", "Seal lost, left"]]
    head = evaluation.wellhead.sea
    for row in reversed(head.seats) if head is not None else ():
        heights = show(row.seat_in, "height"), show(row.top_in, "height")
        pressures = show(row.needed_psi, "pressure"), show(row.test_psi, "pressure")
        rows.append([say(row.what), *heights, show(row.load_lbf, "force"), *pressures, row.left])
    return rows


def _tensions(evaluation: Evaluation, show: Show, say: Say) -> list[list[str]]:
    riser = evaluation.sea.riser
    lost = f"Least, {riser.failed} lost" if riser is not None else "Least"
    rows = [["Riser, section to", "Mud", "Least tension", lost, "Set", "Left for package", "Run in"]]
    for row in riser.tensions if riser is not None else ():
        forces = row.least_lbf, row.least_failed_lbf, row.set_lbf, row.package_lbf
        hours = show(riser.hours, "hours") if riser is not None else "-"
        rows.append([say(row.what), show(row.mud_ppg, "emw"), *(show(f, "force") for f in forces), hours])
    return rows


def _drift(evaluation: Evaluation, show: Show) -> list[list[str]]:
    rows = [["Disconnect, weather", "Drift", "To the limit", "Limit at", "Red circle", "Yellow circle"]]
    found = evaluation.sea.disconnect
    for row in found.drift if found is not None else ():
        minutes = None if row.seconds is None else row.seconds / 60
        circles = (_circle(radius, show) for radius in (row.red_ft, row.yellow_ft))
        first = row.name or "-", show(row.drift_ft_min, "trip_speed"), show(minutes, "minutes")
        rows.append([*first, show(row.limit_ft, "depth"), *circles])
    return rows


def _circle(radius_ft: float | None, show: Show) -> str:
    return "none" if radius_ft is not None and radius_ft <= 0 else show(radius_ft, "depth")


def _annuli(evaluation: Evaluation, show: Show, say: Say) -> list[list[str]]:
    rows = [["Sealed annulus", "Down to", "Heated by", "Builds up, sea floor", "Inner sees", "Outer sees"]]
    for row in evaluation.sea.annuli:
        pressures = row.pressure_psi, row.collapse_load_psi, row.burst_load_psi
        first = say(row.what), show(row.bottom_md_ft, "depth"), show(row.heating_f, "temperature_change")
        rows.append([*first, *(show(p, "pressure") for p in pressures)])
    return rows
