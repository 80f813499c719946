"""An item of the list of materials: what, how many with spares, its weight, and by when it is ordered."""

from __future__ import annotations

import math
from dataclasses import dataclass

from knollstack.core.base.findings import Words
from knollstack.core.document.runsheet import MaterialKind, Order
from knollstack.core.runsheet.plan import Plan
from knollstack.core.runsheet.schedule import Schedule

LB_SACK = 94.0
"""A sack of cement."""


@dataclass(frozen=True)
class Item:
    """`used` are the steps that it is first used in, without what each is about; weights are of one unit."""

    key: str
    kind: MaterialKind
    what: Words
    unit: str
    quantity: float
    spare: float
    used: tuple[str, ...]
    string: int | None = None
    weight_lb: float | None = None
    price: float | None = None

    @property
    def total(self) -> float:
        return self.quantity + self.spare


@dataclass(frozen=True)
class Needed:
    """An item with its dates, in days from the spud; None where the step is not in the sheet."""

    item: Item
    lead_days: float | None
    lead_given: bool
    needed_day: float | None
    order_day: float | None
    price: float | None
    ordered: str


def whole(count: float) -> float:
    """Pieces are whole: the next number up."""
    return float(math.ceil(count - 1e-9))


def dated(plan: Plan, schedule: Schedule, items: list[Item]) -> tuple[Needed, ...]:
    """When each is wanted on the rig, and when it is ordered for that."""
    orders = {o.item: o for o in plan.own.orders}
    leads = {row.kind: float(row.days) for row in plan.policy.leads}
    first: dict[str, float] = {}
    for slot in schedule.slots:
        step = "/".join(slot.line.key.split("/", 2)[:2])
        first[step] = min(slot.begins, first.get(step, slot.begins))
    return tuple(_dated(first, item, orders.get(item.key), leads.get(item.kind)) for item in items)


def _dated(first: dict[str, float], item: Item, order: Order | None, usual: float | None) -> Needed:
    """`first` is when each step begins, whatever it is about."""
    day = min((first[step] for step in item.used if step in first), default=None)
    given = order is not None and order.lead_days is not None
    lead = float(order.lead_days) if order is not None and order.lead_days is not None else usual
    return Needed(
        item=item,
        lead_days=lead,
        lead_given=given,
        needed_day=day,
        order_day=None if day is None or lead is None else float(math.floor(day - lead)),
        price=order.price if order is not None and order.price is not None else item.price,
        ordered=order.ordered if order is not None else "",
    )
