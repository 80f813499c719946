"""The family of a string that is hung: in slips under the lifted stack, or by its hanger through it; the top of a liner."""

from __future__ import annotations

from knollstack.core.base.findings import Amount, Words, depth, force, length, pressure
from knollstack.core.runsheet.barriers import refused
from knollstack.core.runsheet.plan import At
from knollstack.core.runsheet.rule import Does, Held, Rule
from knollstack.core.runsheet.times import trip_hours
from knollstack.core.runsheet.wellhead import cut_of, cut_working, final_cut, heights_words


def _hang(at: At) -> Words:
    row, piece = at.plan.hung(at.string), at.plan.piece_holding(at.string)
    where = piece.name if piece is not None else "wellhead"
    load: Words = (" with ", force(row.load_lbf), " of hang-off tension") if row and row.load_lbf is not None else ()
    return ("Set the slips around the ", *at.casing, f" in the bowl of the {where}", *load)


def too_heavy(at: At) -> Held | None:
    """Nothing heavier is hung than the bowl stands."""
    row = at.plan.hung(at.string)
    if row is None or row.load_lbf is None or row.capacity_lbf is None:
        return None
    if row.load_lbf <= row.capacity_lbf + 1e-6:
        return None
    return Held(("it hangs ", force(row.load_lbf), " in a bowl that carries ", force(row.capacity_lbf)))


HANG_SLIPS: tuple[Rule, ...] = (
    Rule(
        "lift",
        "BOPs",
        lambda at: (
            "Break the flange below the stack; lift the stack ",
            length(at.plan.well.policy.preventers.lift_ft),
        ),
        "Slips go around the casing under it: cement is set, barriers stand inside and outside.",
        "preventers",
        "toolpusher",
        hours=lambda at: at.policy.nipple_down_hours / 2,
        caution="Nobody under the stack while it hangs.",
        does=lambda at: (Does("off", at.item),),
        place=lambda at: at.stack.place if at.stack else "",
        held=refused,
    ),
    Rule(
        "slips",
        "wellhead",
        _hang,
        "Tension is set once, before the casing is cut.",
        "wellhead",
        "wellhead technician",
        hours=lambda at: at.policy.slips_hours / 2,
        does=lambda at: (Does("hanger", at.bowl), Does("hang", at.string.id)),
        place=lambda at: row.place if (row := at.plan.hung(at.string)) is not None else "/wellhead",
        working=lambda at: row.working if (row := at.plan.hung(at.string)) is not None else None,
        held=too_heavy,
    ),
    Rule(
        "rough-cut",
        "wellhead",
        lambda at: (
            "Drain the casing through cut holes; rough cut",
            *heights_words(at, cut_of(at, at.string.index), True),
            "; lay the cut joint out, lift the stack away",
        ),
        "The stack cannot pass over a joint that stands in it.",
        "wellhead",
        "wellhead technician",
        hours=lambda at: at.policy.slips_hours / 2 + at.policy.nipple_down_hours / 2,
        place=lambda at: "/wellhead",
        working=cut_working,
    ),
    final_cut("The stub is to reach into the secondary seal, and no further."),
)


def _seat(at: At) -> Amount | None:
    if at.plan.subsea:
        head = at.plan.wellhead.sea
        row = next((s for s in head.seats if s.string == at.string.index), None) if head is not None else None
        return None if row is None or row.test_psi is None else pressure(row.test_psi)
    piece = at.plan.piece_holding(at.string)
    return None if piece is None else pressure(piece.top_psi)


def _pack_off(at: At) -> Words:
    psi, what = _seat(at), "seal assembly" if at.plan.subsea else "pack-off"
    to: Words = (" to ", psi) if psi is not None else (": its pressure is not known",)
    return (f"Set the {what} of the ", *at.casing, " hanger; test it from above", *to, "; running tool out")


PACK_OFF: tuple[Rule, ...] = (
    Rule(
        "pack-off",
        "wellhead",
        _pack_off,
        "The annulus is closed while the stack is still on.",
        "wellhead",
        "wellhead technician, drilling supervisor",
        hours=lambda at: at.policy.hanger_hours + at.policy.head_test_hours,
        hold=True,
        does=lambda at: (Does("hang", at.string.id),),
        place=lambda at: "/sea/housing" if at.plan.subsea else "/wellhead",
        held=too_heavy,
    ),
)
LINER_TOP = Rule(
    "liner-top",
    "testing",
    lambda at: (
        "Run in, clean out to the liner's top at ",
        depth(at.string.top_md_ft),
        "; inflow test it with a lighter column inside",
    ),
    "Cement in the overlap is seen only by what comes through it.",
    "completion",
    "drilling supervisor",
    hours=lambda at: trip_hours(at.plan, at.string, at.string.top_md_ft) + at.policy.casing_test_hours,
    hold=True,
    does=lambda at: (Does("liner top", at.string.id),),
    place=lambda at: f"{at.path}/hanger_md_ft",
)
