"""The disconnect: its steps in time, the circles that drift leaves in each weather, and what stands across the stack.

With all power lost the rig drifts at a steady speed. At the red circle the emergency sequence begins, so that it ends when the
lower flex joint comes to its limit; at the yellow one the drill string is spaced out and hung off.
"""

from __future__ import annotations

from typing import Literal

from knollstack.core.base.working import headline
from knollstack.core.document.sea import DisconnectStep, Weather
from knollstack.core.mud.plan import riser
from knollstack.core.preventers.results import CoverRow, PreventersResult, StackRow
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.sea.formulas import drift_seconds, offset_at_angle
from knollstack.core.sea.makeup import MadeUp
from knollstack.core.sea.results import AcrossRow, DisconnectResult, DisconnectStepRow, DriftRow
from knollstack.core.sea.riser import through_riser

USUAL = (
    DisconnectStep(name="Stop, pick up, space out the tool joint", seconds=120.0, when="secure"),
    DisconnectStep(name="Close the hang-off ram, slack off", seconds=60.0, when="secure"),
    DisconnectStep(name="Close the shear rams", seconds=30.0, when="emergency"),
    DisconnectStep(name="Lock, vent choke and kill lines", seconds=15.0, when="emergency"),
    DisconnectStep(name="Unlatch choke, kill and pod connectors", seconds=8.0, when="emergency"),
    DisconnectStep(name="Unlatch the riser package", seconds=7.0, when="emergency"),
)
"""Planning values, in the usual order."""


SEALING = ("blind rams", "blind shear rams")


def steps_of(equipped: Equipped) -> tuple[DisconnectStep, ...]:
    return equipped.design.sea.disconnect or USUAL


def seconds_of(steps: tuple[DisconnectStep, ...], when: str) -> float:
    return sum(step.seconds for step in steps if step.when == when)


def timed(steps: tuple[DisconnectStep, ...], answer_s: float) -> tuple[DisconnectStepRow, ...]:
    """Steps one after another: securing from the yellow circle, the emergency sequence from the red one; each clock from 0."""
    at = {"secure": 0.0, "emergency": answer_s}
    rows = []
    for step in sorted(steps, key=lambda s: s.when != "secure"):
        begins = at[step.when]
        at[step.when] = begins + step.seconds
        rows.append(DisconnectStepRow(name=step.name, when=step.when, begins_s=begins, ends_s=at[step.when]))
    return tuple(rows)


def riser_length_ft(equipped: Equipped, made: MadeUp) -> float:
    """Between the flex joints."""
    return max(0.0, made.foot_md_ft - equipped.design.sea.riser.upper_ft)


def drift_row(equipped: Equipped, made: MadeUp, k: int, weather: Weather) -> DriftRow:
    policy, steps = equipped.well.policy.sea, steps_of(equipped)
    emergency = policy.answer_seconds + seconds_of(steps, "emergency")
    secure = seconds_of(steps, "secure")
    drift = weather.drift_ft_min
    if not drift:
        bare = dict.fromkeys(("limit_ft", "seconds", "red_ft", "yellow_ft", "red_s", "yellow_s", "spare_seconds"))
        return DriftRow(name=weather.name, drift_ft_min=drift, **bare)
    with headline(f"sea/drift/{k}"):
        limit = float(offset_at_angle(riser_length_ft(equipped, made), policy.flex_deg))
        seconds = float(drift_seconds(limit, 0.0, drift))
    red = limit - drift * emergency / 60
    return DriftRow(
        name=weather.name,
        drift_ft_min=drift,
        limit_ft=limit,
        seconds=seconds,
        red_ft=red,
        yellow_ft=red - drift * secure / 60,
        red_s=max(0.0, seconds - emergency),
        yellow_s=max(0.0, seconds - emergency - secure),
        spare_seconds=seconds - emergency - secure,
    )


def stack_over(equipped: Equipped, stacks: PreventersResult, string: EquippedString) -> StackRow | None:
    """The stack that a hole is drilled through: that on the string before it, or under a liner on the one before that."""
    for outer in reversed(equipped.strings[: string.index]):
        row = stacks.strings[outer.index]
        if row.elements:
            return row
    return None


def across_rows(equipped: Equipped, stacks: PreventersResult) -> tuple[AcrossRow, ...]:
    """Section by section: the drill pipe, and the casing while it is run."""
    found: list[AcrossRow] = []
    for string in through_riser(equipped):
        stack, margin = stack_over(equipped, stacks, string), riser(equipped.well, string)
        if stack is None:
            continue
        crossing = {cover.what: cover for cover in stack.coverage if _crosses(cover, string)}
        found += [_across(string, stack, cover, None if margin is None else margin.held) for cover in crossing.values()]
    return tuple(found)


def _crosses(cover: CoverRow, string: EquippedString) -> bool:
    """Drill pipe of this hole, or the casing that is run into it."""
    if cover.kind == "casing":
        return string.od_in is not None and abs(cover.od_in - string.od_in) < 1e-6
    return cover.kind in ("drill pipe", "tool joint")


def _across(string: EquippedString, stack: StackRow, cover: CoverRow, margin_held: bool | None) -> AcrossRow:
    titles = [element.title for element in stack.elements]
    at = {word: [k for k, cell in enumerate(cover.cells) if cell == word] for word in dict.fromkeys(cover.cells)}
    by = at.get("shears and seals") or at.get("shears") or []
    hang = at.get("seals and hangs") or []
    # what a casing shear ram has cut falls away: blind rams above it close on the open hole
    over = [e.title for k, e in enumerate(stack.elements) if by and k > by[-1] and e.element in SEALING]
    cut: Literal["cut and sealed", "cut, not sealed", "not cut", "unknown"] = "not cut"
    if by:
        cut = "cut and sealed" if "shears and seals" in at or over else "cut, not sealed"
    elif "unknown" in at:
        cut = "unknown"
    names = [titles[by[-1]], *over[:1]] if by and "shears and seals" not in at else [titles[by[-1]]] if by else []
    return AcrossRow(
        string=string.index,
        section=string.words,
        what=cover.what,
        kind=cover.kind,
        cut=cut,
        by=", ".join(names),
        hang_off=titles[hang[-1]] if hang else "",
        margin_held=margin_held,
    )


def result_of(equipped: Equipped, made: MadeUp, stacks: PreventersResult) -> DisconnectResult:
    steps, policy = steps_of(equipped), equipped.well.policy.sea
    return DisconnectResult(
        steps=timed(steps, policy.answer_seconds),
        usual=not equipped.design.sea.disconnect,
        answer_s=policy.answer_seconds,
        secure_s=seconds_of(steps, "secure"),
        emergency_s=seconds_of(steps, "emergency"),
        drift=tuple(drift_row(equipped, made, k, w) for k, w in enumerate(equipped.design.sea.weather)),
        across=across_rows(equipped, stacks),
    )
