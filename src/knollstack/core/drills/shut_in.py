"""How a shut-in was done, by the policy's school: what each rule of it asks of what was played."""

from __future__ import annotations

from itertools import pairwise

from knollstack.core.base.findings import Words, depth, minutes, pressure, volume
from knollstack.core.drills.judging import (
    DEAD_PSI,
    NEVER,
    OUT_BBL,
    Said,
    clock,
    closings,
    done_events,
    element,
    first,
    first_closing_s,
    on,
)
from knollstack.core.drills.play import Play
from knollstack.core.preventers.coverage import SEALING

DRILLED = ("drilling", "failed annular", "leaking ram", "gas above")
TRIPPED = ("tripping", "swab", "collars", "unshearable")
CLOSED = 0.01
SOFT_OPEN = 0.25
UNFIT = {"cannot shear": "cannot cut", "no seal": "does not seal on", "unknown": "is not known to seal on"}
PSI_OFF, PSI_SHARE = 30.0, 0.08
BBL_OFF, BBL_SHARE = 2.0, 0.15


def shuts(play: Play) -> bool:
    """The well is to be shut in."""
    return not on(play, "diverter", "drift-off")


def in_time(play: Play) -> Said:
    policy, sign, shut = play.policy, play.first_sign_s, play.shut_in_s
    if sign is None:
        return Said(1.0, ("nothing flowed",))
    if shut is None:
        return Said(0.0, ("never shut in",))
    took, gain = (shut - sign) / 60, play.influx_at_shut_in_bbl or 0.0
    said: Words = ("shut in ", minutes(took), " after the first sign, with ", volume(gain), " taken in")
    late = max(took / policy.most_minutes, gain / policy.most_gain_bbl if policy.most_gain_bbl else 1.0)
    return Said(1.0 if late <= 1 else 0.5 if late <= 1.5 else 0.0, said, shut)


def picked_up(play: Play) -> Said:
    found, closing = first(done_events(play, "pick up")), first_closing_s(play)
    if found is None or found.at_s >= closing:
        return Said(0.0, ("closed without picking up",), None if closing == NEVER else closing)
    first_closed = first(closings(play))
    if first_closed is not None and first_closed.moved:
        return Said(0.5, ("closed while the string was still moving",), closing)
    return Said(1.0, ("picked up at ", clock(found.at_s)), found.at_s)


def pumps_off(play: Play) -> Said:
    closed = first(closings(play))
    if closed is None:
        return Said(0.0, ("nothing was closed",))
    ok = closed.spm < 1
    return Said(1.0 if ok else 0.0, ("pumps off" if ok else f"closed at {closed.spm:.0f} spm",), closed.at_s)


def flow_check(play: Play) -> Said:
    closing = first_closing_s(play)
    found = [e for e in done_events(play, "flow check") if e.at_s <= closing]
    if not found:
        return Said(0.0, ("no flow check",))
    still = [e for e in found if e.spm < 1 and not e.moved]
    if not still:
        return Said(0.0, ("checked with the pumps on or the string moving",), found[0].at_s)
    return Said(1.0, ("checked at ", clock(still[0].at_s)), still[0].at_s)


def school(play: Play) -> Said:
    closed = first(closings(play))
    if closed is None:
        return Said(0.0, ("nothing was closed",))
    opened = first(e for e in done_events(play, "open choke line"))
    if play.policy.shut_in == "hard":
        if closed.choke_line and closed.choke > CLOSED:
            return Said(0.0, ("choke line and choke stood open as the first element was closed",), closed.at_s)
        if opened is None:
            return Said(0.5, ("the choke line was never opened: casing pressure cannot be read",), closed.at_s)
        early = opened.at_s < closed.at_s
        return Said(0.5 if early else 1.0, ("choke line opened at ", clock(opened.at_s)), opened.at_s)
    if not closed.choke_line or closed.choke < SOFT_OPEN:
        return Said(0.0, ("closed without an open way through choke line and choke",), closed.at_s)
    shut = first(e for e in done_events(play, "choke") if e.at_s >= closed.at_s and (e.value or 0) <= CLOSED)
    if shut is None:
        return Said(0.5, ("the choke was never closed",), closed.at_s)
    return Said(1.0, ("choke closed at ", clock(shut.at_s)), shut.at_s)


def school_expected(play: Play) -> Words:
    if play.policy.shut_in == "hard":
        return ("choke closed, close the preventer, then open the choke line valve",)
    return ("open choke line and choke, close the preventer, then close the choke",)


def wanted_first(play: Play) -> tuple[str, str]:
    """Kind of the element to close first, and its name."""
    if on(play, "no pipe"):
        return "blind", "blind rams"
    if on(play, "leaking ram"):
        return "ram", "rams on the drill pipe"
    if on(play, *DRILLED, "tripping", "swab") and play.policy.first == "pipe rams":
        return "ram", "rams on the drill pipe"
    return "annular", "annular"


def first_element(play: Play) -> Said:
    closed = first(closings(play))
    e = element(play, closed.target) if closed is not None else None
    if closed is None or e is None:
        return Said(0.0, ("nothing was closed",))
    kind, _ = wanted_first(play)
    blind = e.element in ("blind rams", "blind shear rams")
    own = "blind" if blind else e.kind
    casing = on(play, "casing") and e.kind == "ram" and not blind
    right = (own == kind or casing) and closed.verdict in SEALING[:2]
    return Said(1.0 if right else 0.0, (f"{e.title} first, on {closed.across}",), closed.at_s)


def fits(play: Play) -> Said:
    bad = [e for e in closings(play) if e.verdict in UNFIT]
    if not bad:
        return Said(1.0, ("every element closed on what it fits",))
    worst = bad[0]
    e = element(play, worst.target)
    what = UNFIT[worst.verdict]
    title = e.title if e is not None else "element"
    return Said(0.0, (f"{title} closed at {clock(worst.at_s)}: it {what} {worst.across}",), worst.at_s)


def never_cut(play: Play) -> Said:
    cut = [e for e in closings(play) if e.verdict in ("shears", "shears and seals")]
    if not cut:
        return Said(1.0, ("nothing was sheared",))
    return Said(0.0, (f"{cut[0].across} was sheared",), cut[0].at_s)


def valve(play: Play) -> Said:
    closing = first_closing_s(play)
    stabbed, closed = (first(done_events(play, a)) for a in ("stab valve", "close valve"))
    if stabbed is None:
        return Said(0.0, ("no safety valve was stabbed",))
    if closed is None:
        return Said(0.25, ("stabbed and left open",), stabbed.at_s)
    before = closed.at_s <= closing
    return Said(1.0 if before else 0.5, ("stabbed and closed at ", clock(closed.at_s)), closed.at_s)


def slips(play: Play) -> Said:
    found, closing = first(done_events(play, "slips")), first_closing_s(play)
    ok = found is not None and found.at_s <= closing
    return Said(
        1.0 if ok else 0.0,
        ("set in slips" if ok else "not set in slips before closing",),
        found.at_s if found else None,
    )


def reads_pipe(play: Play) -> bool:
    return on(play, *DRILLED)


def recorded(play: Play) -> Said:
    found = done_events(play, "record")
    if not found:
        return Said(0.0, ("nothing was recorded",))
    best = max(found, key=lambda e: e.settled)
    wrong: list[str | object] = []
    if not best.settled:
        return Said(0.25, ("recorded before the pressures had settled",), best.at_s)
    checks = [("casing pressure", best.sicp_psi, best.true_sicp_psi)]
    if reads_pipe(play):
        checks.append(("drill pipe pressure", best.sidpp_psi, best.true_sidpp_psi))
    for name, given, true in checks:
        if given is None or abs(given - true) > max(PSI_OFF, PSI_SHARE * true):
            wrong.append(name)
    if best.gain_bbl is None or abs(best.gain_bbl - best.pit_gain_bbl) > max(BBL_OFF, BBL_SHARE * best.pit_gain_bbl):
        wrong.append("gain")
    if wrong:
        return Said(0.5, (f"recorded with another {' and '.join(map(str, wrong))} than stood",), best.at_s)
    return Said(1.0, ("recorded at ", clock(best.at_s)), best.at_s)


def recorded_expected(play: Play) -> Words:
    base: Words = ("once they rest: casing pressure ", pressure(play.state.now.top_psi), " at the end, and the gain")
    return (*base, ", and drill pipe pressure") if reads_pipe(play) else base


def rock_held(play: Play) -> Said:
    if play.broke_s is None:
        return Said(1.0, ("no rock broke",))
    assert play.broke_md_ft is not None
    return Said(0.0, ("the rock at ", depth(play.broke_md_ft), " broke at ", clock(play.broke_s)), play.broke_s)


def stayed(play: Play) -> Said:
    """Not opened but onto a well that is dead: no gas in it, and no pressure before it was opened."""
    if play.shut_in_s is None:
        return Said(0.0, ("never shut in",))
    rows = [s for s in play.samples if s.at_s > play.shut_in_s]
    for before, after in pairwise([*rows[:1], *rows]):
        opened = not after.tight and (before.tight or before is after)
        if opened and (before.casing_psi > DEAD_PSI or after.gas_bbl > OUT_BBL):
            return Said(0.0, ("the well was open again at ", clock(after.at_s)), after.at_s)
    return Said(1.0, ("it stayed closed",))
