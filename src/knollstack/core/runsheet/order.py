"""The sheet by rule: families one after another, from the site to the hand-over, as this well asks for them."""

from __future__ import annotations

from collections.abc import Iterable

from knollstack.core.base.findings import Words
from knollstack.core.program.equipped import EquippedString
from knollstack.core.runsheet import (
    barriers,
    casing,
    cementing,
    completing,
    drill_out,
    hanging,
    land,
    leaving,
    platform,
    preventers,
    rams,
    riser,
    sea,
    string,
    tree,
    wellhead,
)
from knollstack.core.runsheet.drilling import Driller
from knollstack.core.runsheet.plan import At, Plan
from knollstack.core.runsheet.rule import END, Line, Rule, lines

SITE_WORD = "site"


class Sheet:
    """Puts lines down one after another, and keeps the time since the BOPs were tested, lost time included."""

    def __init__(self, plan: Plan) -> None:
        self.plan, self.lines = plan, list[Line]()
        self.since_hours: float | None = None
        self.bushings: set[str] = set()
        """Bowls that a wear bushing sits in."""
        self.lost = 1 + plan.policy.npt_share

    def put(self, found: Iterable[Line]) -> None:
        for line in found:
            self.lines.append(line)
            acts = {act for act, _ in line.does}
            if acts:
                self.bushings |= {at for act, at in line.does if act == "bushing in"}
                self.bushings -= {at for act, at in line.does if act == "bushing out"}
            if "tested" in acts:
                self.since_hours = 0.0
            elif "off" in acts:
                self.since_hours = None
            elif self.since_hours is not None and not line.beside:
                self.since_hours += (line.hours or 0.0) * self.lost

    def rules(self, rules: Iterable[Rule], at: At, section: str | None = None) -> None:
        self.put(lines(rules, at, section))


def sheet_by_rule(plan: Plan) -> list[Line]:
    """Every step of the well in the order of the work; none without strings."""
    strings = plan.equipped.strings
    if not strings:
        return []
    sheet = Sheet(plan)
    _preparation(sheet, At(plan, strings[0]))
    spudded = any(act == "spud" for line in sheet.lines for act, _ in line.does)
    for own in strings:
        if own.role == "conductor" and (own.index == 0 or not own.drilled):
            continue
        at = At(plan, own)
        if not spudded:
            sheet.rules((string.SPUD,), at)
            spudded = True
        _section(sheet, at)
    _end(sheet, strings)
    return sheet.lines


def _preparation(sheet: Sheet, at: At) -> None:
    """What is done before the spud; at sea the conductor is the first thing in the sea floor, and its jetting the spud."""
    plan = sheet.plan
    if plan.subsea:
        sheet.rules((*sea.SITE, land.MEETING), at, SITE_WORD)
        if _is_carrier(plan, at.string):
            sheet.rules((riser.INSPECT,), at)
        if at.string.role == "conductor":
            made = lines((string.SPUD, *sea.CONDUCTOR), at)
            shoe = at.string.shoe_md_ft
            sheet.put(x._replace(md_ft=shoe) if x.kind == "drilling" and x.hours else x for x in made)
        return
    on_land = plan.well.site.setting == "land"
    family = land.SITE if on_land else platform.SITE
    sheet.rules((*family, land.RIG if on_land else platform.RIG, land.FLANGE), at, SITE_WORD)
    if land.has_diverter(at):
        sheet.rules(preventers.DIVERTER, at, SITE_WORD)
    sheet.rules((land.MEETING,), at, SITE_WORD)


def _section(sheet: Sheet, at: At) -> None:
    plan = sheet.plan
    if plan.subsea and _is_carrier(plan, at.string) and at.string.index > 0:
        sheet.rules((riser.INSPECT,), at)
    if at.string.drilled:
        _hole(sheet, at)
    if at.string.index == plan.equipped.strings[-1].index:
        _decision(sheet, at)
    if at.string in plan.standing:
        _case(sheet, at)
        _top(sheet, at)


def _hole(sheet: Sheet, at: At) -> None:
    """Drilled out, drilled, learnt from. The BOPs are tested before what cannot be broken off, where they fall due in it."""
    sheet.rules(drill_out.DRILL_OUT, at)
    if at.plan.subsea:
        sheet.rules(sea.RISERLESS[:1] if at.riserless else riser.SECTION, at)
    sheet.rules(string.BEFORE_DRILLING, at)
    if at.string in at.plan.standing:
        sheet.rules((casing.TALLY,), at)
    after = list(lines(string.AFTER_DRILLING, at))
    block = _block_hours(after, at) if at.bops else 0.0
    sheet.put(Driller(at, sheet.since_hours or 0.0, block).lines())
    if at.plan.subsea and at.riserless:
        sheet.put(after[:1])
        sheet.rules(sea.RISERLESS[1:], at)
        sheet.put(after[1:])
    else:
        sheet.put(after)


def _block_hours(after: list[Line], at: At) -> float:
    """From the end of the hole until the stack may be tested again: logs, the run, its cement and what is done on top."""
    cased = (*lines((*rams.BEFORE, *casing.RUN), at), *cementing.job(at)) if at.cement.applies else ()
    top = at.policy.nipple_up_hours + at.policy.nipple_down_hours + at.policy.slips_hours
    return sum(line.hours or 0.0 for line in (*after, *cased) if not line.beside) + top


def _case(sheet: Sheet, at: At) -> None:
    plan = sheet.plan
    gear, *run = casing.RUN
    sheet.rules((*rams.BEFORE, gear, *((cementing.LINES,) if at.cement.applies else ()), *run), at)
    if plan.well.site.setting == "platform":
        sheet.rules((platform.MUDLINE,), at)
    if _is_carrier(plan, at.string):
        sheet.rules(sea.HOUSED[:1], at)
    sheet.rules(casing.BREAK, at)
    if at.cement.applies:
        sheet.put(cementing.job(at))
    if _is_carrier(plan, at.string):
        sheet.rules(sea.HOUSED[1:], at)


def _is_carrier(plan: Plan, own: EquippedString) -> bool:
    carrier = plan.equipped.carrier
    return carrier is not None and carrier.index == own.index


def _top(sheet: Sheet, at: At) -> None:
    """What is done on top once a string is cemented, until the next hole may be drilled."""
    plan, own = sheet.plan, at.string
    if plan.subsea:
        _top_at_sea(sheet, at)
        return
    if own.run == "liner" and not own.own.tie_back:
        if at.ram is not None:
            sheet.rules((preventers.BACK,), at)
        sheet.rules((hanging.LINER_TOP,), at)
        return
    state = f"off {own.id}"
    if at.on is None:
        sheet.rules((*wellhead.SET_HEAD, *wellhead.PROVE), at)
        _nipple_up(sheet, at)
        return
    if at.diverter:
        sheet.rules((barriers.COUNT, *wellhead.OFF_CONDUCTOR, *wellhead.SET_HEAD, *wellhead.PROVE), at.about(state))
        _nipple_up(sheet, at)
    elif _one_head(at):
        sheet.rules(hanging.PACK_OFF, at)
        if at.ram is not None:
            sheet.rules((preventers.BACK,), at)
        _bushing(sheet, at)
    else:
        first = (barriers.COUNT, *hanging.HANG_SLIPS) if at.run.hung != "mandrel" else _by_mandrel()
        sheet.rules((*first, *wellhead.SET_SPOOL, *wellhead.PROVE), at.about(state))
        _nipple_up(sheet, at)


def _by_mandrel() -> tuple[Rule, ...]:
    return (*hanging.PACK_OFF, barriers.COUNT, wellhead.OFF_CONDUCTOR[0])


def _one_head(at: At) -> bool:
    """One head holds this string and the one above: the stack stays on."""
    return at.plan.piece_on(at.string) is None and at.plan.piece_holding(at.string) is not None


def _nipple_up(sheet: Sheet, at: At) -> None:
    """The stack on the new string, tested; only where something is done through it."""
    plan, own = sheet.plan, at.string
    if not _goes_on(plan, own):
        return
    if not preventers.own_stack(at).elements:
        sheet.rules((preventers.UNKNOWN,), at)
        return
    if own.role == "conductor":
        sheet.rules(preventers.DIVERTER, at)
        return
    sheet.rules((*preventers.UP, *preventers.TEST), at)
    _bushing(sheet, at)


def _bushing(sheet: Sheet, at: At) -> None:
    if _goes_on(sheet.plan, at.string):
        sheet.rules((preventers.BUSHING,), at)


def _goes_on(plan: Plan, own: EquippedString) -> bool:
    """A hole is drilled below, or the well is completed or plugged through the stack."""
    return own.index < plan.equipped.strings[-1].index or plan.completion.decision is not None


def _top_at_sea(sheet: Sheet, at: At) -> None:
    plan, own = sheet.plan, at.string
    if _is_carrier(plan, own):
        if preventers.own_stack(at).elements:
            sheet.rules((*riser.RISER, *preventers.TEST, riser.DISPLACE), at)
            _bushing(sheet, at)
        else:
            sheet.rules((preventers.UNKNOWN,), at)
        return
    if at.riserless or at.stack is None:
        return
    if own.run == "liner" and not own.own.tie_back:
        sheet.rules((hanging.LINER_TOP,), at)
        return
    sheet.rules(hanging.PACK_OFF, at)
    if preventers.own_stack(at).elements and _goes_on(plan, own):
        sheet.rules(preventers.TEST, at)
    _bushing(sheet, at)


DECIDE: Words = ("Decide at total depth: complete, suspend, or plug and abandon",)


def _decision(sheet: Sheet, at: At) -> None:
    """Evaluation is done; what follows depends on it."""
    decision = sheet.plan.completion.decision
    words: Words = (*DECIDE, f". Planned: {decision}") if decision is not None else (*DECIDE, ". Not decided yet")
    told = Rule(
        "decision",
        "evaluation",
        lambda _: words,
        "Evaluation is done; production string, plugs and tree hang on it.",
        "completion",
        "drilling supervisor, geologist",
        hold=True,
        place=lambda _: "/completion/decision",
    )
    sheet.rules((told,), at)


def _end(sheet: Sheet, strings: tuple[EquippedString, ...]) -> None:
    """The well completed, suspended or abandoned, where that is decided."""
    plan, decision = sheet.plan, sheet.plan.completion.decision
    last = At(plan, strings[-1])
    if decision == "complete" and plan.completion.completion is not None and plan.equipped.producing is not None:
        held = last.about("tree off")
        sheet.rules(completing.CLEAN, held, END)
        sheet.rules(completing.TUBING, last.about(completing.bowl(last) in sheet.bushings), END)
        sheet.rules((barriers.COUNT, *_riser_off(plan), *tree.TREE), held, END)
    elif plan.leaving is not None:
        inner = At(plan, plan.standing[-1])
        open_hole = inner.string is not strings[-1]
        on = completing.bowl(inner) in sheet.bushings
        sheet.rules(leaving.PLUGS, (last if open_hole else inner).about(on), END)
        state = "suspended" if decision == "suspend" else "plugged"
        sheet.rules((barriers.COUNT, *_riser_off(plan), *leaving.TAKE_OFF), inner.about(state), END)


def _riser_off(plan: Plan) -> tuple[Rule, ...]:
    return riser.OFF if plan.subsea else ()
