"""What is wrong with the riser, its tension and the disconnect."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.fields import MOST_LBF
from knollstack.core.base.findings import (
    Amount,
    Change,
    Finding,
    Remedy,
    Severity,
    Words,
    depth,
    find,
    force,
    length,
    minutes,
    remedy,
)
from knollstack.core.program.equipped import Equipped
from knollstack.core.sea.makeup import MadeUp
from knollstack.core.sea.results import AcrossRow, DisconnectResult, DriftRow, RiserString, TensionRow

RISER = "/sea/riser"
STEP_LBF = 5_000.0


def say(severity: Severity, place: str, subject: Words, *text: str | Amount, **more: object) -> Finding:
    return find("sea", severity, place, subject, *text, **more)  # type: ignore[arg-type]


def no_stack(equipped: Equipped) -> Finding:
    return say(
        "unknown", "/preventers", ("Riser",), "The height of the stack is not known: the riser cannot be made up."
    )


def makeup_findings(equipped: Equipped, made: MadeUp) -> Iterator[Finding]:
    """Joints that do not reach, or do not come out within the stroke that policy leaves for spacing out."""
    riser = equipped.design.sea.riser
    room = riser.stroke_ft * equipped.well.policy.sea.stroke_share
    if made.space_ft <= 0:
        yield say(
            "stop",
            "/site/water_depth_ft",
            ("Riser",),
            "There is no room for a riser: stack and telescopic joint meet in ",
            depth(equipped.well.site.water_depth_ft),
            " of water.",
        )
        return
    if abs(made.off_ft) <= room + 1e-9:
        return
    if made.off_ft < 0 and not made.usual and made.short > 1:
        yield say(
            "stop",
            f"{RISER}/joints",
            ("Riser",),
            "The riser joints aboard reach ",
            depth(made.made_ft),
            " of ",
            depth(made.space_ft),
            f": {made.short} joints are wanting.",
            value=depth(made.made_ft),
            limit=depth(made.space_ft),
        )
        return
    side = "short of" if made.off_ft < 0 else "over"
    yield say(
        "stop",
        f"{RISER}/joints",
        ("Riser",),
        "The riser comes out ",
        length(abs(made.off_ft)),
        f" {side} its space; spacing out may take ",
        length(room),
        " of the stroke. A pup is wanting.",
        value=length(abs(made.off_ft)),
        limit=length(room),
    )


def tension_findings(equipped: Equipped, found: RiserString) -> Iterator[Finding]:
    riser = equipped.design.sea.riser
    for key, words in (("tensioners", "How many tensioners there are"), ("tensioner_lbf", "What one tensioner pulls")):
        if getattr(riser, key) is None:
            text = f"{words} is not given: the tension of the riser is unknown."
            yield say("unknown", f"{RISER}/{key}", ("Riser tension",), text)
    if found.tensioners is not None and found.failed >= found.tensioners:
        text = "As many tensioners are taken as lost as there are: nothing holds the riser."
        yield say("stop", f"{RISER}/failed", ("Riser tension",), text)
    known = [row for row in found.tensions if row.least_failed_lbf is not None]
    if known:
        worst = max(known, key=lambda row: row.least_failed_lbf or 0.0)
        yield from _tension(equipped, found, worst)
    for row in found.tensions:
        if row.mud_ppg is None:
            place = f"/strings/{row.string}/mud_ppg"
            yield say(
                "unknown", place, ("Riser tension",), "The mud of ", *row.what, " is not known: its tension is not."
            )


def _tension(equipped: Equipped, found: RiserString, row: TensionRow) -> Iterator[Finding]:
    """The section that asks most: too slack, too tight, or the package not lifted clear."""
    lost = f" with {found.failed} of {found.tensioners} tensioners lost" if found.failed else ""
    if (row.set_lbf or 0.0) < (row.least_failed_lbf or 0.0) - 1:
        yield _slack(equipped, found, row, lost)
    policy, most = equipped.well.policy.sea, found.most_lbf
    if most is not None and (row.set_lbf or 0.0) > most * policy.tension_share + 1:
        yield _tight(equipped, found, row, lost)
    given = equipped.design.sea.riser.package_lbf
    package = given if given is not None else policy.package_lbf
    if row.package_lbf is not None and row.package_lbf < package:
        left = force(max(0.0, row.package_lbf))
        yield say(
            "caution",
            f"{RISER}/setting_lbf",
            ("Disconnect",),
            "At a disconnect the riser package, ",
            force(package),
            ", is not lifted clear: ",
            left,
            " are left at the foot of the riser.",
            value=left,
            limit=force(package),
        )


def _slack(equipped: Equipped, found: RiserString, row: TensionRow, lost: str) -> Finding:
    least, held = row.least_failed_lbf or 0.0, row.set_lbf or 0.0
    return say(
        "stop",
        f"{RISER}/setting_lbf",
        ("Riser tension",),
        "The riser goes into compression at its foot: ",
        force(held),
        " are set, ",
        *row.what,
        " mud asks ",
        force(least),
        f"{lost}.",
        value=force(held),
        limit=force(least),
        remedies=tuple(_tighter(equipped, found, least)),
        working=row.working,
    )


def _tight(equipped: Equipped, found: RiserString, row: TensionRow, lost: str) -> Finding:
    least, held, most = row.least_failed_lbf or 0.0, row.set_lbf or 0.0, found.most_lbf or 0.0
    allowed, typed = most * equipped.well.policy.sea.tension_share, equipped.design.sea.riser.setting_lbf is not None
    over = held > most
    return say(
        "stop" if over else "caution",
        f"{RISER}/setting_lbf" if typed else f"{RISER}/tensioner_lbf",
        ("Riser tension",),
        "The tension that is set, ",
        force(held),
        ", is over " + ("what the tensioners pull, " if over else "policy's share of what the tensioners pull, "),
        force(most if over else allowed),
        "." if typed else f"{lost}.",
        value=force(held),
        limit=force(allowed),
        remedies=tuple(_slacker(equipped, found, least)),
        working=row.working,
    )


def _tighter(equipped: Equipped, found: RiserString, least: float) -> Iterator[Remedy]:
    policy = equipped.well.policy.sea
    wanted = -(-(least + policy.tension_margin_lbf) // STEP_LBF) * STEP_LBF
    if found.most_lbf is not None and wanted <= min(MOST_LBF, found.most_lbf * policy.tension_share):
        yield remedy(Change(path=f"{RISER}/setting_lbf", value=wanted), "Set ", force(wanted))


def _slacker(equipped: Equipped, found: RiserString, least: float) -> Iterator[Remedy]:
    most = (found.most_lbf or 0.0) * equipped.well.policy.sea.tension_share
    wanted = most // STEP_LBF * STEP_LBF
    if least <= wanted <= MOST_LBF:
        yield remedy(Change(path=f"{RISER}/setting_lbf", value=wanted), "Set ", force(wanted))


def disconnect_findings(equipped: Equipped, found: DisconnectResult) -> Iterator[Finding]:
    if not any(row.drift_ft_min for row in found.drift):
        text = "No drift speed is given for any weather: whether the riser can be unlatched in time is unknown."
        yield say("unknown", "/sea/weather", ("Disconnect",), text)
    for k, row in enumerate(found.drift):
        yield from _drift(k, row, found)
    for across in found.across:
        yield from _across(across)


def _drift(k: int, row: DriftRow, found: DisconnectResult) -> Iterator[Finding]:
    place = f"/sea/weather/{k}/drift_ft_min"
    if row.drift_ft_min is None:
        yield say("unknown", place, ("Disconnect",), f"The drift in {row.name or 'this weather'} is not given.")
    if row.seconds is None or row.red_ft is None or row.yellow_ft is None:
        return
    needed = found.answer_s + found.emergency_s
    if row.red_ft <= 0:
        yield say(
            "stop",
            place,
            ("Disconnect",),
            f"In {row.name or 'this weather'} the flex joint is at its limit after ",
            minutes(row.seconds / 60),
            "; the emergency sequence takes ",
            minutes(needed / 60),
            ".",
            value=minutes(row.seconds / 60),
            limit=minutes(needed / 60),
            working=f"sea/drift/{k}",
        )
    elif row.yellow_ft <= 0:
        yield say(
            "caution",
            place,
            ("Disconnect",),
            f"In {row.name or 'this weather'} there is no time to hang off: the string would be sheared where it stands. ",
            minutes(row.seconds / 60),
            " to the limit, ",
            minutes((needed + found.secure_s) / 60),
            " wanted.",
            value=minutes(row.seconds / 60),
            limit=minutes((needed + found.secure_s) / 60),
            working=f"sea/drift/{k}",
        )


def _across(row: AcrossRow) -> Iterator[Finding]:
    place = f"/strings/{row.string}"
    if row.kind == "tool joint":  # no ram cuts one: it is spaced out, and the clock tells it
        return
    if row.cut == "not cut":
        text = " is cut by no ram of the stack: the emergency sequence cannot free the rig while it stands across."
        yield say("caution", place, ("Disconnect",), *row.what, text)
    elif row.cut == "cut, not sealed" and row.margin_held is False:
        text = " is cut but not sealed, and the riser margin is not held: a barrier must stand before it is run."
        yield say("caution", place, ("Disconnect",), *row.what, text)
