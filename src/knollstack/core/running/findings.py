"""What is wrong with a string's tally, its float equipment and how it is filled."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from knollstack.core.base.findings import (
    Amount,
    Finding,
    Remedy,
    Severity,
    Words,
    depth,
    find,
    length,
    pressure,
    remedy,
    size,
)
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.running.fill import Emptiest, crush, levels
from knollstack.core.running.gear import fill_joints_of, fill_of
from knollstack.core.running.run import Run
from knollstack.core.running.tally import PUPS_FT, loss_ft

MOST_TOLD = 5
STAB_IN_FROM_IN = 13.375


def say(
    run: Run,
    severity: Severity,
    key: str,
    *message: str | Amount,
    remedies: tuple[Remedy, ...] = (),
    working: str | None = None,
) -> Finding:
    """A finding of one string's run, at a place of its document."""
    subject = (*run.string.words, " running")
    place = f"{run.string.path}/running/{key}" if not key.startswith("/") else key
    at = None if working is None else f"running/{run.string.index}/{working}"
    return find("running", severity, place, subject, *message, remedies=remedies, working=at)


def _rows(run: Run) -> list[dict[str, object]]:
    return [joint.model_dump(mode="json") for joint in run.string.own.running.joints]


def _with_pup(run: Run, catalogue: Catalogue, short_ft: float, nearest: bool) -> Remedy | None:
    """A pup joint on top that closes what is short: the least that does, or the nearest where a hanger lands."""
    if not run.string.own.running.joints:
        return None
    lost = loss_ft(run.well, run.string, catalogue, 0)
    fits = [
        p for p in sorted(PUPS_FT) if p - lost >= short_ft - (run.well.policy.running.shoe_off_ft if nearest else 0)
    ]
    if not fits:
        return None
    pup = min(fits, key=lambda p: abs(p - lost - short_ft)) if nearest else fits[0]
    row = {"length_ft": pup, "section": None, "kind": "pup joint", "left_out": False}
    return remedy(run.string.change("running/joints", [*_rows(run), row]), "Add a pup joint of ", length(pup))


def _leaving(run: Run, count: int) -> Remedy | None:
    """The last joints left on the rack."""
    rows, kept = _rows(run), [int(r) for r in run.tally.row if r >= 0]
    if not kept or count < 1:
        return None
    for r in kept[-count:]:
        rows[r]["left_out"] = True
    words = f"Leave out the last {count} joints" if count > 1 else "Leave out the last joint"
    return remedy(run.string.change("running/joints", rows), words)


def tally_findings(run: Run, catalogue: Catalogue) -> Iterator[Finding]:
    """Too short, too long, off its depth; joints outside the range, sections out of order."""
    yield from _length_findings(run, catalogue)
    if run.tally.made:
        return
    yield from _range_findings(run, catalogue)
    yield from _section_findings(run)


def _length_findings(run: Run, catalogue: Catalogue) -> Iterator[Finding]:
    tally, policy = run.tally, run.well.policy.running
    over, tolerance = tally.over_ft, policy.shoe_off_ft
    spare = int(np.searchsorted(np.cumsum(tally.effective_ft[::-1]), over + 1e-9, side="right")) if over > 0 else 0
    if tally.hung == "mandrel":
        if abs(over) > tolerance + 1e-9:
            yield _lands_off(run, catalogue, over)
        return
    if over < -1e-6 and (tally.hung == "slips" or -over > tolerance):
        pup = _with_pup(run, catalogue, -over, False)
        what = "of its stick-up above the rotary" if tally.hung == "slips" else "of the liner top"
        severity: Severity = "stop" if tally.top_md_ft > tally.landing_md_ft + 1e-6 else "caution"
        text: Words = (f"The {'' if tally.made else 'measured '}tally is ", length(-over), f" short {what}.")
        yield say(run, severity, "joints", *text, remedies=(pup,) if pup else ())
    elif not tally.made and spare >= 1:
        mend = _leaving(run, spare)
        many = f"{spare} joints too many" if spare > 1 else "one joint too many"
        text = (f"The measured tally has {many}: it is ", length(over), " longer than is asked.")
        yield say(run, "caution", "joints", *text, remedies=(mend,) if mend else ())


def _lands_off(run: Run, catalogue: Catalogue, over_ft: float) -> Finding:
    """A hanger lands at its depth, so the tally decides where the shoe stands."""
    tally, string = run.tally, run.string
    deep = tally.shoe_md_ft > string.shoe_md_ft + run.well.policy.cement.rathole_ft + 1e-9
    side = "below" if over_ft > 0 else "above"
    mends = []
    if over_ft < 0:
        mends.append(_with_pup(run, catalogue, -over_ft, True))
    elif over_ft >= float(tally.effective_ft[-1]) / 2:
        mends.append(_leaving(run, 1))
    if 0 < tally.shoe_md_ft <= run.well.path.total_md_ft:
        at = round(tally.shoe_md_ft, 1)
        mends.append(remedy(string.change("shoe_md_ft", at), "Plan the shoe at ", Amount(value=at, quantity="length")))
    text: Words = ("The hanger lands and the shoe stands ", length(abs(over_ft)), f" {side} its planned depth")
    rest: Words = (", deeper than the hole.",) if deep else (".",)
    return say(run, "stop" if deep else "caution", "joints", *text, *rest, remedies=tuple(m for m in mends if m))


def _range_findings(run: Run, catalogue: Catalogue) -> Iterator[Finding]:
    """Joints that are none of the length range: one finding a joint, as far as they are told."""
    kinds = catalogue.range_of[run.well.policy.pipe.length_range]
    joints = run.string.own.running.joints
    odd = [
        k
        for k, joint in enumerate(joints)
        if joint.kind == "joint" and not joint.left_out and not kinds.shortest_ft <= joint.length_ft <= kinds.longest_ft
    ]
    for k in odd[:MOST_TOLD]:
        ends: Words = (length(kinds.shortest_ft), " to ", length(kinds.longest_ft))
        text: Words = (
            f"Joint {k + 1} of the tally measures ",
            length(joints[k].length_ft),
            f"; range {kinds.range} is ",
        )
        yield say(run, "caution", f"joints/{k}/length_ft", *text, *ends, ".")
    if len(odd) > MOST_TOLD:
        more = len(odd) - MOST_TOLD
        yield say(run, "caution", "joints", f"{more} more joints of the tally are outside range {kinds.range}.")


def _section_findings(run: Run) -> Iterator[Finding]:
    """Sections count from the top, so from the shoe up they never rise; each has to end where it is planned to."""
    count = max(len(run.string.own.sections), 1)
    joints, below = run.string.own.running.joints, None
    for k, joint in enumerate(joints):
        if joint.left_out or joint.section is None:
            continue
        if joint.section > count:
            text = f"Joint {k + 1} of the tally is of section {joint.section}; the string has {count}."
            yield say(run, "caution", f"joints/{k}/section", text)
            return
        if below is not None and joint.section > below:
            text = f"Joint {k + 1} of the tally is of section {joint.section}, over a joint of section {below}: out of order."
            yield say(run, "caution", f"joints/{k}/section", text)
            return
        below = joint.section
    longest = float(run.tally.length_ft.max())
    for k, section in enumerate(run.string.own.sections[:-1]):
        tops = run.tally.top_ft[run.tally.section > k]
        planned = section.to_md_ft
        if planned is None or not len(tops):
            continue
        lands = run.tally.shoe_md_ft - float(tops[-1])
        if abs(lands - planned) > longest:
            text_: Words = (
                f"By the tally section {k + 1} ends at ",
                depth(lands),
                "; it is planned to ",
                depth(planned),
                ".",
            )
            yield say(run, "caution", "joints", *text_)


def gear_findings(run: Run) -> Iterator[Finding]:
    """What float equipment needs and forbids."""
    gear, own, string = run.tally.gear, run.string.own.running, run.string
    fill, use_collar = (
        fill_of(run.well, string),
        remedy(string.change("running/collar", "float collar"), "Use a float collar"),
    )
    if not gear.closes:
        text = f"A {gear.shoe.gear}{'' if gear.collar is None else f' and a {gear.collar.gear}'} hold nothing back after the job."
        yield say(run, "stop", "collar", text, remedies=(use_collar,))
    elif gear.collar is None:
        text = "Without a collar the plug lands on the shoe: no shoe track keeps contaminated cement from around it."
        yield say(run, "caution", "collar", text, remedies=(use_collar,))
    if gear.collar_joint is not None and gear.collar_joint > run.tally.count:
        text = f"The collar is to stand in joint {gear.collar_joint}; the tally has {run.tally.count}."
        yield say(run, "stop", "collar_joint", text)
    elif own.collar_joint is not None and own.collar_joint > 3:
        text = f"The collar stands in joint {own.collar_joint}: a long shoe track to drill out. The second or third is usual."
        yield say(run, "note", "collar_joint", text)
    if fill == "auto-fill" and gear.fills == "closed":
        yield say(run, "stop", "fill", *_closed_words(run), remedies=(_auto_gear(run),))
    if fill == "floated in" and gear.fills in ("auto", "through"):
        text = f"A string with {_gear_words(run)} fills itself: it cannot be floated in."
        mends = (string.change("running/shoe", "float shoe"), string.change("running/collar", "float collar"))
        yield say(run, "stop", "fill", text, remedies=(remedy(mends, "Use float shoe and float collar"),))
    if "stab-in" in gear.shoe.gear and (string.od_in or 0.0) < STAB_IN_FROM_IN:
        text_: Words = ("Cement by stab-in is for large casing; from ", size(STAB_IN_FROM_IN), " up is usual.")
        yield say(run, "caution", "shoe", *text_)
    if any(piece.fills in ("auto", "differential") for piece in gear.pieces):
        yield say(
            run, "note", "shoe", f"The {_gear_words(run)} must be converted before cementing, and the float checked."
        )
    for key, md in zip(("stage_collar_md_ft", "upper_collar_md_ft"), run.tally.stages_md_ft, strict=False):
        name = "stage collar" if key == "stage_collar_md_ft" else "upper stage collar"
        at: Words = (f"The {name} stands at ", depth(md), ": it takes a pair of plugs of its own.")
        yield say(run, "note", f"{string.path}/cement/{key}", *at)


def _gear_words(run: Run) -> str:
    return (
        " and ".join(piece.gear for piece in run.tally.gear.pieces if piece.fills != "through")
        or run.tally.gear.shoe.gear
    )


def _closed_words(run: Run) -> Words:
    return (f"Auto-fill is planned, and the {_gear_words(run)} let no mud in: the string would run empty.",)


def _auto_gear(run: Run) -> Remedy:
    mends = (
        run.string.change("running/shoe", "auto-fill float shoe"),
        run.string.change("running/collar", "auto-fill float collar"),
    )
    return remedy(mends, "Use auto-fill shoe and collar")


def fill_findings(run: Run, worst: Emptiest | None) -> Iterator[Finding]:
    """Pipe run empty beyond what it stands: at which joint, where, and what would mend it."""
    asked = run.well.policy.pipe.factors.collapse
    if worst is None or worst.factor >= asked - 1e-9:
        return
    crushed = worst.factor < 1
    when = f"at joint {worst.joint}" if worst.joint <= run.tally.count else "while it is landed on drill pipe"
    what = f"The pipe is crushed {when}" if crushed else f"The pipe is near collapse {when}"
    rest = "" if crushed else f" Factor {worst.factor:.2f}; policy asks {asked:g}."
    yield say(
        run,
        "stop",
        "fill_joints" if fill_of(run.well, run.string) == "every few joints" else "fill",
        f"{what}: with the shoe at ",
        depth(worst.shoe_md_ft),
        " it is empty to ",
        depth(worst.empty_ft),
        "; at ",
        depth(worst.at_md_ft),
        " ",
        pressure(worst.load_psi),
        " press on ",
        pressure(worst.rating_psi),
        " of collapse." + rest,
        remedies=tuple(_fuller(run, asked)),
        working="crushed" if crushed else "crush",
    )


def _stands(run: Run, method: str, joints: int, asked: float) -> bool:
    crushed = crush(run, levels(run, method, joints))  # type: ignore[arg-type]
    return bool(crushed.factor.min() >= asked - 1e-9)


def _fuller(run: Run, asked: float) -> Iterator[Remedy]:
    """More fills, then equipment that lets mud in; each tried on the pipe."""
    string, now = run.string, fill_joints_of(run.well, run.string)
    method = fill_of(run.well, string)
    most = run.tally.count if method in ("floated in", "auto-fill") else now - 1
    low, high = 0, most + 1  # fewer joints between fills never are worse
    while high - low > 1:
        middle = (low + high) // 2
        if _stands(run, "every few joints", middle, asked):
            low = middle
        else:
            high = middle
    low = min(low, run.well.policy.running.fill_joints)
    if low >= 1:
        changes = (string.change("running/fill", "every few joints"), string.change("running/fill_joints", low))
        yield remedy(changes, f"Fill every {low} joints" if low > 1 else "Fill every joint")
    if run.tally.gear.fills == "closed":
        auto = _auto_gear(run)
        yield remedy((string.change("running/fill", "auto-fill"), *auto.changes), "Use auto-fill shoe and collar")
