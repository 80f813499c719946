"""What is wrong with a section's mud: outside its window, too much while it moves, no margin without the riser."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Amount, Finding, Remedy, Severity, Words, depth, emw, find, remedy
from knollstack.core.ground.riserless import column_emw, worst_depths
from knollstack.core.ground.well import Well
from knollstack.core.mud.circulation import Moving
from knollstack.core.mud.friction import friction_of, missing_readings
from knollstack.core.mud.results import BoundResult, MudStepResult, RiserResult
from knollstack.core.program.laid import LaidString


def _find(
    string: LaidString,
    severity: Severity,
    *message: str | Amount,
    remedies: tuple[Remedy, ...] = (),
    working: str | None = None,
) -> Finding:
    subject = (*string.hole_words, ", mud")
    return find("mud", severity, f"{string.path}/mud_ppg", subject, *message, remedies=remedies, working=working)


def window_findings(string: LaidString, lower: BoundResult | None, upper: BoundResult | None) -> Iterator[Finding]:
    if lower is None or upper is None:
        text = "The mud window is unknown: pore or fracture is not given over the whole open hole."
        yield _find(string, "unknown", text)
        return
    if lower.mud_ppg > upper.mud_ppg + 1e-9:
        yield _find(
            string,
            "stop",
            "No one mud drills this section: ",
            emw(lower.mud_ppg),
            f" is asked by {lower.cause} at ",
            depth(lower.md_ft),
            " and ",
            emw(upper.mud_ppg),
            f" is all that {upper.cause} at ",
            depth(upper.md_ft),
            " allows.",
        )
        return
    mud, planned = string.mud_ppg, string.planned_mud_ppg
    offered = (remedy(string.change("mud_ppg", planned), "Drill with ", emw(planned)),) if planned is not None else ()
    if mud is None:
        yield _find(string, "unknown", "No mud weight is known for this section.")
    elif mud < lower.mud_ppg - 1e-9:
        yield _find(
            string,
            "stop",
            emw(mud),
            f" is less than {lower.cause} at ",
            depth(lower.md_ft),
            " asks, ",
            emw(lower.mud_ppg),
            ".",
            remedies=offered,
            working=f"mud/{string.index}/lower",
        )
    elif mud > upper.mud_ppg + 1e-9:
        yield _find(
            string,
            "stop",
            emw(mud),
            f" is more than {upper.cause} at ",
            depth(upper.md_ft),
            " allows, ",
            emw(upper.mud_ppg),
            ".",
            remedies=offered,
            working=f"mud/{string.index}/upper",
        )


def moving_findings(well: Well, string: LaidString, moved: Moving | None) -> Iterator[Finding]:
    """ECD and surge against the rock, swab against the pore pressure, where each is worst in the open hole."""
    yield from unknown_findings(well, string, moved)
    if moved is None:
        return
    for worst, what, key in ((moved.ecd_worst, "Circulating", "ecd"), (moved.surge_worst, "Tripping in", "surge")):
        if worst is not None and worst.emw_ppg > worst.rock_ppg + 1e-9:
            yield _find(
                string,
                "stop",
                f"{what}, the equivalent density is ",
                emw(worst.emw_ppg),
                " at ",
                depth(worst.md_ft),
                "; fracture is at ",
                emw(worst.rock_ppg),
                ".",
                working=f"mud/{string.index}/{key}_worst",
            )
    swab = moved.swab_worst
    if swab is not None and swab.emw_ppg < swab.rock_ppg - 1e-9:
        speed = Amount(value=well.policy.mud.trip_speed_ft_min, quantity="trip_speed")
        yield _find(
            string,
            "caution",
            "Tripping out at ",
            speed,
            " swabs the mud to ",
            emw(swab.emw_ppg),
            " at ",
            depth(swab.md_ft),
            "; pore pressure is ",
            emw(swab.rock_ppg),
            ". Trip slower or pump out.",
            working=f"mud/{string.index}/swab_worst",
        )


def unknown_findings(well: Well, string: LaidString, moved: Moving | None) -> Iterator[Finding]:
    """What of the moving mud cannot be told, and which of its inputs is missing or fits no fluid."""
    missing, flow = missing_readings(well, string.own), string.own.flow_gpm
    if moved is not None and flow:
        return
    if moved is not None:
        what, why, key = "ECD is", "the pump rate is not given", "flow_gpm"
    elif missing:
        *first, last = (str(rpm) for rpm in missing)
        speeds = f"{', '.join(first)} and {last}" if first else last
        rate = "" if flow else ", and the pump rate,"
        why = f"rheometer readings at {speeds} rpm{rate} are not given"
        what, key = "ECD, surge and swab are", f"reading_{missing[-1]}"
    elif string.mud_ppg is not None and friction_of(well, string.own, string.mud_ppg) is None:
        why = f"the rheometer readings fit no {well.policy.mud.rheology} fluid"
        what, key = "ECD, surge and swab are", "reading_600"
    else:
        what, why, key = "ECD, surge and swab are", "mud weight, hole size or the casing above is not known", "mud_ppg"
    yield find("mud", "unknown", f"{string.path}/{key}", (*string.hole_words, ", mud"), f"{what} unknown: {why}.")


def riser_findings(well: Well, string: LaidString, found: RiserResult | None) -> Iterator[Finding]:
    if found is None or found.held:
        return
    upper = well.window.bounds(*well.path.span(string.previous_shoe_md_ft, string.shoe_md_ft))[1]
    fits = upper is not None and found.needed_ppg <= upper.mud_ppg
    needed, at = emw(found.needed_ppg), depth(found.at_md_ft)
    message: Words
    if found.possible and fits:
        message = (
            "With the riser gone ",
            needed,
            " is needed to hold the pore pressure at ",
            at,
            "; ",
            emw(found.margin_ppg),
            " more than is carried.",
        )
    else:
        limit = emw(well.policy.mud.riser_mud_limit_ppg)
        why: Words = ("more than the window allows",) if not fits else ("more than the practical limit of ", limit)
        message = (
            "The riser margin cannot be held: ",
            needed,
            " would be needed at ",
            at,
            ", ",
            *why,
            ". Other barriers must be in place before the riser is disconnected.",
        )
    yield _find(string, "caution", *message, working=f"mud/{string.index}/riser")


def riserless_findings(well: Well, string: LaidString) -> Iterator[Finding]:
    """Returns to the sea floor: sea water and mud together must hold the pore pressure and not break the rock."""
    if string.mud_ppg is None:
        yield _find(string, "unknown", "No mud is known to stand in this riserless hole.")
        return
    under, over = worst_depths(well, string.mud_ppg, *well.path.span(string.previous_shoe_md_ft, string.shoe_md_ft))
    if under is None or over is None:
        yield _find(string, "unknown", "Pore or fracture is not given over the whole riserless hole.")
        return
    pore, fracture = float(well.ground.pore.at(under)), float(well.ground.fracture.at(over))
    light, heavy = column_emw(well, string.mud_ppg, under), column_emw(well, string.mud_ppg, over)
    low = (light < pore - 1e-9, light, under, "pore pressure is", pore)
    high = (heavy > fracture + 1e-9, heavy, over, "the rock breaks at", fracture)
    for wrong, column, tvd, rock, limit in (low, high):
        if wrong:
            yield _find(
                string,
                "stop",
                "With returns to the sea floor the column is ",
                emw(column),
                " at ",
                depth(well.path.md(tvd)),
                f"; {rock} ",
                emw(limit),
                ".",
            )


def step_findings(string: LaidString, steps: tuple[MudStepResult, ...]) -> Iterator[Finding]:
    """Weights by depth outside the window of the hole then open; the last is the section's own, judged already."""
    for row in steps[:-1]:
        if row.lower_ppg is None or row.upper_ppg is None:
            continue
        if not row.lower_ppg - 1e-9 <= row.mud_ppg <= row.upper_ppg + 1e-9:
            yield _find(
                string,
                "stop",
                "Down to ",
                depth(row.to_md_ft),
                " with ",
                emw(row.mud_ppg),
                ": the window is ",
                emw(row.lower_ppg),
                " to ",
                emw(row.upper_ppg),
                ".",
            )
