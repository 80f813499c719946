"""The one stack on the sea floor: room for it in the moon pool, what is done through it, and its drawing over the mudline."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Finding, Words, depth, find
from knollstack.core.preventers.inforce import InForce
from knollstack.core.preventers.moments import tree_items
from knollstack.core.preventers.results import Moment, StackItem, StackRow
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.wellhead.subsea import SeatRow, seats_of
from knollstack.core.wellhead.tree import tree_of, tree_row

LOW_HOUSING_IN = 40.0
"""Height of the low-pressure housing under the high-pressure one's shoulder, as drawn."""
HOUSING_WALL = 1.45
"""OD over bore of the housing, as drawn."""
RISER_STUB_IN, TREE_BORE_IN = 60.0, 3.0
SHOULDER_IN = 6.0
"""Of the housing under its lowest seat, as drawn."""


def sea_room_findings(equipped: Equipped, rows: tuple[StackRow, ...]) -> Iterator[Finding]:
    """The stack is skidded under the rotary in the moon pool before it is run."""
    place, heights = "/sea/riser/moon_pool_ft", [r.height_in for r in rows if r.elements and r.height_in is not None]
    if not heights:
        return
    room, tallest = equipped.design.sea.riser.moon_pool_ft, max(heights) / 12
    if room is None:
        text = "The room in the moon pool is not given. The stack is "
        yield find("preventers", "unknown", place, ("Stack height",), text, depth(tallest), " high.")
    elif tallest > room:
        yield find(
            "preventers",
            "stop",
            place,
            ("Stack height",),
            "The stack is ",
            depth(tallest),
            " high; the moon pool has room for ",
            depth(room),
            ".",
            value=depth(tallest),
            limit=depth(room),
        )


def sea_steps(found: InForce) -> tuple[Words, ...]:
    """From one string to the next, all through stack and riser."""
    equipped, string = found.ground.equipped, found.ground.string
    below = equipped.next(string)
    if not found.elements:
        return ()
    steps: list[Words] = []
    if found.ground.carrier is string:
        steps.append(("Run stack and riser, space out over the housing, land and latch; pull to check the latch.",))
        steps.append(
            ("Test the connector and the stack on the test plug; function both pods, dead-man and automatic shear.",)
        )
        steps.append(("Displace the riser to mud; run the bore protector.",))
    if below is None:
        return tuple(steps)
    days = equipped.well.policy.preventers.test_days
    if below.run == "liner":
        steps.append(("Run, hang and cement the ", *below.words, " liner; test its top."))
        return tuple(steps)
    steps.append(("Pull the bore protector; wash the housing.",))
    steps.append(("Run ", *below.words, " casing on its landing string, land the hanger in the housing, cement."))
    steps.append(("Set and test the seal assembly; release the running tool. Count the barriers.",))
    steps.append((f"Run the wear bushing; test the stack on the plug, and again within {days} days.",))
    return tuple(steps)


def _item(kind: str, title: str, place: str, span: tuple[float, float], bore: float | None, od: float) -> StackItem:
    step = "preventers" if place.startswith("/preventers") else "wellhead"
    return StackItem(
        kind=kind, title=title, step=step, place=place, bottom_in=span[0], top_in=span[1], bore_in=bore, od_in=od
    )


def _housings(equipped: Equipped, carrier: EquippedString, seats: tuple[SeatRow, ...], most: int) -> list[StackItem]:
    """Conductor and its housing, the high-pressure housing in it, and the hangers that are landed by then."""
    housing, top = equipped.design.sea.housing, equipped.design.sea.conductor.stick_up_ft * 12
    low = max(0.0, top - LOW_HOUSING_IN)
    first, place = equipped.strings[0], "/sea/housing/bore_in"
    wide = HOUSING_WALL * housing.bore_in
    items = []
    if first.od_in is not None:
        items.append(_item("conductor", "conductor", f"{first.path}/od_in", (0.0, low), None, first.od_in))
        items.append(
            _item("casing head housing", "low-pressure housing", place, (low - 24, low), first.od_in, wide + 8)
        )
    base = min([low, *(max(0.0, s.seat_in - SHOULDER_IN) for s in seats if s.seat_in is not None)])
    items.append(_item("casing head housing", "high-pressure housing", place, (base, top), housing.bore_in, wide))
    if carrier.od_in is not None:
        bore = carrier.pipe.id_in if carrier.pipe is not None else None
        name = f"{carrier.role} casing"
        items.append(_item("casing", name, f"{carrier.path}/od_in", (0.0, base), bore, carrier.od_in))
    for seat in seats:
        string = equipped.strings[seat.string]
        if seat.seat_in is None or seat.top_in is None or seat.string > most or string.od_in is None:
            continue
        path, bore = f"{string.path}/od_in", string.pipe.id_in if string.pipe is not None else None
        middle = (seat.seat_in + seat.top_in) / 2
        items.append(_item("casing", f"{string.role} casing", path, (0.0, middle), bore, string.od_in))
        items.append(_item("hanger", "hanger", path, (seat.seat_in, middle), string.od_in, housing.bore_in))
        items.append(_item("seal", "seal assembly", path, (middle, seat.top_in), string.od_in, housing.bore_in))
    return items


def _sleeve(equipped: Equipped, seats: tuple[SeatRow, ...], most: int) -> StackItem | None:
    """What the bit runs through: the bore protector until a hanger is landed, then a wear bushing over the last one."""
    housing, top = equipped.design.sea.housing, equipped.design.sea.conductor.stick_up_ft * 12
    landed = [seat for seat in seats if seat.top_in is not None and seat.string <= most]
    low = min((seat.seat_in for seat in seats if seat.seat_in is not None), default=top - housing.first_in)
    title, place, bore = "bore protector", "/sea/housing/protector_in", housing.protector_in
    bore = equipped.well.policy.sea.protector_in if bore is None else bore
    if landed:
        low, pipe = max(seat.top_in or 0.0 for seat in landed), equipped.strings[landed[-1].string].pipe
        title, place = "wear bushing", f"{equipped.strings[landed[-1].string].path}/od_in"
        bore = bore if pipe is None else pipe.id_in
    return None if low >= top else _item("protector", title, place, (low, top), bore, housing.bore_in)


def sea_moments(
    equipped: Equipped,
    carrier: EquippedString | None,
    stacks: tuple[StackRow, ...],
    stack_items: dict[int, list[StackItem]],
) -> tuple[Moment, ...]:
    """The stack on the housing, section by section, over the mudline."""
    if carrier is None:
        return ()
    seats, found = seats_of(equipped, carrier), []
    for string, stack in zip(equipped.strings, stacks, strict=True):
        if not stack.elements or stack.height_in is None:
            continue
        through = equipped.next(string)
        sleeve = _sleeve(equipped, seats, string.index) if through is not None else None
        items = [*_housings(equipped, carrier, seats, string.index), *([] if sleeve is None else [sleeve])]
        items += stack_items[string.index]
        over = (stack.base_in or 0.0) + stack.height_in
        flex = over + equipped.design.sea.riser.flex_ft * 12
        inside = equipped.well.policy.mud.riser_id_in
        items.append(_item("adapter", "lower flex joint", "/sea/riser/flex_ft", (over, flex), inside, inside * 1.4))
        items.append(
            _item("spacer spool", "riser", "/sea/riser/joints", (flex, flex + RISER_STUB_IN), inside, inside + 2)
        )
        what: Words = (*through.hole_words,) if through is not None else ("completion",)
        found.append(
            Moment(
                title=("Stack on the sea floor: ", *what),
                string=string.index,
                items=tuple(items),
                ground_in=0.0,
                rotary_in=None,
                beams_in=None,
                flow_line_in=None,
            )
        )
    return (*found, *_completed(equipped, carrier, seats))


def _completed(equipped: Equipped, carrier: EquippedString, seats: tuple[SeatRow, ...]) -> Iterator[Moment]:
    """The tree on the housing, once riser and stack are recovered."""
    tree = tree_of(equipped, ())
    if tree is None:
        return
    top, housing = equipped.design.sea.conductor.stick_up_ft * 12, equipped.design.sea.housing
    last = len(equipped.strings) - 1
    items = [*_housings(equipped, carrier, seats, last)]
    items += tree_items(tree_row(equipped, tree), top, tree.bore_in or TREE_BORE_IN, HOUSING_WALL * housing.bore_in)
    yield Moment(
        title=("Completed, tree on the sea floor",),
        string=carrier.index,
        items=tuple(items),
        ground_in=0.0,
        rotary_in=None,
        beams_in=None,
        flow_line_in=None,
    )
