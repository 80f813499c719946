"""What is wrong with the closing unit: bottles without gas, too few of them, slow pumps, slow elements."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Amount, Assumption, Change, Finding, assume, find, minutes, pressure, remedy
from knollstack.core.document.preventers import MOST_BOTTLES, ClosingUnit, PreventersPolicy
from knollstack.core.preventers.results import AccumulatorRow, ClosingRow, StackRow

SUBJECT = ("Closing unit",)


def _gallons(value: float) -> Amount:
    return Amount(value=value, quantity="gallons")


def _seconds(value: float) -> Amount:
    return Amount(value=value, quantity="seconds")


def gas_findings(unit: ClosingUnit, policy: PreventersPolicy) -> Iterator[Finding]:
    """Bottles that give nothing: without gas, without precharge, or charged over what works them."""
    if unit.gas_volume_gal <= 0:
        yield find("preventers", "stop", "/closing_unit/gas_volume_gal", SUBJECT, "Its bottles hold no gas.")
    elif unit.precharge_psi is not None and unit.precharge_psi <= 0:
        use = remedy(Change(path="/closing_unit/precharge_psi", value=None), "Use the best precharge")
        text = "Its bottles have no precharge."
        yield find("preventers", "stop", "/closing_unit/precharge_psi", SUBJECT, text, remedies=(use,))
    elif unit.operating_psi < policy.left_psi + (unit.precharge_psi or 0.0) + 1.0:
        place = "/closing_unit/operating_psi"
        yield find(
            "preventers",
            "stop",
            place,
            SUBJECT,
            "Operating pressure of ",
            pressure(unit.operating_psi),
            " leaves no fluid over the precharge and the ",
            pressure(policy.left_psi),
            " that policy leaves.",
        )


def unit_findings(unit: ClosingUnit, policy: PreventersPolicy, rows: tuple[StackRow, ...]) -> Iterator[Finding]:
    """The stack that asks most, against the bottles; the time to charge them."""
    yield from gas_findings(unit, policy)
    asked = [row.accumulators for row in rows if row.accumulators is not None]
    if any(row.needed_gal is None for row in asked):
        text = "The fluid that closes an element is unknown, so that no bottles follow."
        yield find("preventers", "unknown", "/closing_unit/bottles", SUBJECT, text)
    known = [row for row in asked if row.bottles_needed is not None]
    most = max(known, key=_bottles, default=None)
    if most is not None and unit.bottles is not None and unit.bottles < _bottles(most):
        needed = _bottles(most)
        change = Change(path="/closing_unit/bottles", value=needed)
        yield find(
            "preventers",
            "stop",
            "/closing_unit/bottles",
            SUBJECT,
            f"{unit.bottles} bottles hold ",
            _gallons(unit.bottles * (most.usable_gal or 0.0)),
            "; the functions of policy ask ",
            _gallons(policy.fluid_factor * (most.needed_gal or 0.0)),
            f": {needed} bottles.",
            remedies=(remedy(change, f"Use {needed} bottles"),) if needed <= MOST_BOTTLES else (),
            working=most.working,
        )
    slow = max((row.charging_minutes for row in asked if row.charging_minutes is not None), default=None)
    if slow is not None and slow > policy.pump_minutes:
        place = "/closing_unit/pump_gpm"
        yield find(
            "preventers",
            "caution",
            place,
            SUBJECT,
            "The pumps charge it in ",
            minutes(slow),
            "; policy asks ",
            minutes(policy.pump_minutes),
            ".",
            value=minutes(slow),
            limit=minutes(policy.pump_minutes),
        )


def _bottles(row: AccumulatorRow) -> int:
    return row.bottles_needed or 0


def closing_findings(rows: tuple[StackRow, ...]) -> Iterator[Finding]:
    """The element that closes slowest against its time, once a title."""
    worst: dict[str, ClosingRow] = {}
    for row in rows:
        for closing in row.closing:
            title = row.elements[closing.element].title
            late = closing.seconds is not None and closing.seconds > closing.allowed_seconds
            if late and (title not in worst or (worst[title].seconds or 0.0) < (closing.seconds or 0.0)):
                worst[title] = closing
    for title, closing in worst.items():
        assert closing.seconds is not None
        yield find(
            "preventers",
            "caution",
            "/closing_unit/line_gpm",
            (title[:1].upper() + title[1:],),
            "It closes in ",
            _seconds(closing.seconds),
            "; policy asks ",
            _seconds(closing.allowed_seconds),
            ".",
            value=_seconds(closing.seconds),
            limit=_seconds(closing.allowed_seconds),
        )


def unit_assumption(unit: ClosingUnit, rows: tuple[StackRow, ...]) -> Iterator[Assumption]:
    """What is filled in where nobody says what the rig has."""
    needed = max((_bottles(r.accumulators) for r in rows if r.accumulators is not None), default=0)
    if unit.bottles is None and needed:
        text = f"The closing unit is taken to hold the {needed} bottles that its functions ask; give those of the rig."
        yield assume("preventers", "/closing_unit/bottles", text)
