"""A hole drilled in pieces: where its mud changes, where a bit is spent, and where the BOPs fall due for their test."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Amount, Words, depth, emw, size
from knollstack.core.base.working import headline
from knollstack.core.runsheet.drill_out import new_hole_md_ft
from knollstack.core.runsheet.due import DUE
from knollstack.core.runsheet.plan import At
from knollstack.core.runsheet.rule import Does, Line, line_of, lines
from knollstack.core.runsheet.string import CORE, cores
from knollstack.core.runsheet.times import bit_hours, drilled_hours, on_bottom_hours, rates, trip_hours

LEAST_FT = 1.0
MOST_STOPS = 60
"""Of one hole: beyond, what is left of it is one step."""
WORN_SHARE = 0.1
"""Of its life, that a bit is left on for the last of a hole."""
Piece = tuple[float, float, float]


def begins_md_ft(at: At) -> float:
    """Under the new hole that was drilled for the leak-off test, where there was one; never above the ground."""
    above = at.above
    if above is None:
        return at.plan.well.ground_md_ft
    opened = above.drilled and at.plan.cement.strings[above.index].applies and at.bops
    return new_hole_md_ft(at) if opened else max(above.shoe_md_ft, at.plan.well.ground_md_ft)


def mud_changes(at: At, top: float) -> list[tuple[float, float | None]]:
    """Down to which depth with which mud, to the end of the hole."""
    steps = [(s.to_md_ft, s.mud_ppg) for s in at.string.own.mud_steps if top < s.to_md_ft < at.string.shoe_md_ft]
    return [*steps, (at.string.shoe_md_ft, at.string.mud_ppg)]


def _cut(pieces: list[Piece], hours: float) -> float:
    """Depth that is reached after so long on bottom."""
    for top, base, rate in pieces:
        taken = (base - top) / rate
        if taken >= hours:
            return top + hours * rate
        hours -= taken
    return pieces[-1][1]


class Driller:
    """Walks down a hole. `since_hours` is the time since the BOPs were last tested, with what of it is lost.

    `block_hours` is what follows the hole and cannot be broken off for a test: logs, the run of casing, its cement.
    """

    def __init__(self, at: At, since_hours: float, block_hours: float) -> None:
        self.at, self.since, self.md_ft = at, since_hours, begins_md_ft(at)
        self.bit_left, self.bits, self.due, self.piece = bit_hours(at.plan, at.string), 1, 0, 0
        self.lost = 1 + at.policy.npt_share
        self.block = block_hours * self.lost
        self.limit = at.plan.well.policy.preventers.test_days * 24.0
        self.cores = [held for held in cores(at) if held[1][0].from_md_ft >= self.md_ft - LEAST_FT]

    def lines(self) -> Iterator[Line]:
        end = self.at.string.shoe_md_ft
        for to, mud in mud_changes(self.at, self.md_ft):
            while to - self.md_ft >= LEAST_FT:
                if self.cores and self.cores[0][1][0].from_md_ft - self.md_ft < LEAST_FT:
                    if self._due_in(self.cores[0][1][1]):
                        yield from self.test(self.md_ft)
                    yield self._core()
                else:
                    yield from self._on(min(to, self.cores[0][1][0].from_md_ft) if self.cores else to, mud)
        if self.at.bops and 0 < self.limit - self.since < self.block:
            yield from self.test(end)

    def _due_in(self, hours: float | None) -> bool:
        """The test would run out in work that is not broken off, and would be no nearer had it just been done."""
        ready = 2 * self.at.policy.bushing_hours
        return self.at.bops and 0 < self.limit - self.since < ((hours or 0.0) + ready) * self.lost

    def _core(self) -> Line:
        key, item = self.cores.pop(0)
        line = line_of(CORE, self.at.about(item), f"{self.at.string.id}/core/{key}", self.at.string.id)
        self.md_ft = min(item[0].to_md_ft, self.at.string.shoe_md_ft)
        self.since += (line.hours or 0.0) * self.lost
        return line._replace(md_ft=self.md_ft)

    def _on(self, to: float, mud: float | None) -> Iterator[Line]:
        """As far as mud, core, bit and test let it drill; then what stops it, where that is not the end of the hole."""
        pieces = rates(self.at.plan, self.at.string, (self.md_ft, to))
        if pieces is None:
            yield self._drill(to, mud, None)
            return
        reach, why = self._reach(pieces, to)
        cut = [(a, min(b, reach), r) for a, b, r in pieces if a < reach]
        yield self._drill(reach, mud, cut)
        if self.at.string.shoe_md_ft - reach < LEAST_FT or self.piece > MOST_STOPS:
            return
        if why == "test" or (why == "bit" and self._due_before_next(reach)):
            yield from self.test(reach)
        elif why == "bit":
            yield self._trip()
            self._new_bit()

    def _reach(self, pieces: list[Piece], to: float) -> tuple[float, str]:
        """The depth of the first stop, and what stops there."""
        reach, why = to, "end"
        if self.piece >= MOST_STOPS:
            return to, why
        if self.bit_left is not None and on_bottom_hours(pieces) > self.bit_left and not self._last_bit(pieces, to):
            reach, why = _cut(pieces, self.bit_left), "bit"
        if self.at.bops:
            ready = trip_hours(self.at.plan, self.at.string, to) + 2 * self.at.policy.bushing_hours
            left = (self.limit - self.since) / self.lost - ready
            share = on_bottom_hours(pieces) / max(drilled_hours(self.at.plan, pieces), 1e-9)
            due = _cut(pieces, max(left * share, 0.0))
            if due < reach - LEAST_FT and self.since > 0:
                return max(due, self.md_ft + LEAST_FT), "test"
        return max(reach, self.md_ft + LEAST_FT), why

    def _last_bit(self, pieces: list[Piece], to: float) -> bool:
        """No bit is changed for the last of the hole."""
        life, end = bit_hours(self.at.plan, self.at.string), self.at.string.shoe_md_ft
        rest = rates(self.at.plan, self.at.string, (to, end)) if to < end else []
        if life is None or self.bit_left is None or rest is None:
            return False
        return on_bottom_hours(pieces) + on_bottom_hours(rest) <= self.bit_left + WORN_SHARE * life

    def _due_before_next(self, md_ft: float) -> bool:
        """At a trip for a bit: the test would fall due before the next one, or before casing is cemented."""
        at, end = self.at, self.at.string.shoe_md_ft
        pieces = rates(at.plan, at.string, (md_ft, end)) if at.bops else None
        if pieces is None:
            return False
        life, rest = bit_hours(at.plan, at.string), on_bottom_hours(pieces)
        ends = life is None or rest <= life
        share = 1.0 if ends or life is None else life / rest
        ahead = drilled_hours(at.plan, pieces) * share + sum(spent for _, (_, spent) in self.cores)
        ahead += 3 * trip_hours(at.plan, at.string, end) + at.policy.bha_hours
        return self.since + ahead * self.lost + (self.block if ends else 0.0) > self.limit

    def _drill(self, to: float, mud: float | None, pieces: list[Piece] | None) -> Line:
        at, top = self.at, self.md_ft
        key = f"{at.string.id}/drill/{self.piece}"
        with headline(f"runsheet/{key}"):
            planned = None if pieces is None else drilled_hours(at.plan, pieces)
        given = at.plan.given_hours.get(key)
        spent = planned if given is None else given
        self.since += (spent or 0.0) * self.lost
        if self.bit_left is not None and pieces is not None:
            self.bit_left -= on_bottom_hours(pieces)
        self.md_ft, self.piece = to, self.piece + 1
        return Line(
            key=key,
            kind="drilling",
            text=_drill_words(at, (top, to), mud, pieces),
            why="The hole above is cased and proved; what it stands on is the mud." if at.above else "First hole.",
            step="mud",
            signs="driller",
            string=at.string.index,
            hours=spent,
            caution=_zones(at, top, to),
            does=(Does("drill", at.string.id),),
            place=f"{at.path}/mud_ppg",
            working=f"mud/{at.string.index}/upper" if at.mud.upper is not None else None,
            md_ft=to,
            given=given is not None,
        )

    def _new_bit(self) -> None:
        self.bit_left, self.bits = bit_hours(self.at.plan, self.at.string), self.bits + 1

    def _trip(self) -> Line:
        """Out of the hole for a new bit, and in again."""
        at, key = self.at, f"{self.at.string.id}/trip/{self.piece}"
        with headline(f"runsheet/{key}"):
            planned = 2 * trip_hours(at.plan, at.string, self.md_ft) + at.policy.bha_hours
        given = at.plan.given_hours.get(key)
        spent = planned if given is None else given
        self.since += spent * self.lost
        return Line(
            key=key,
            kind="tripping",
            text=(
                "Pull out at ",
                depth(self.md_ft),
                f" for bit {self.bits + 1}, ",
                size(at.string.bit_in or 0.0),
                "; run in",
            ),
            why="The bit is spent by then; the hole is watched on the trip tank.",
            step="runsheet",
            signs="driller",
            string=at.string.index,
            hours=spent,
            place="/policy/runsheet/rates",
            given=given is not None,
        )

    def test(self, md_ft: float) -> Iterator[Line]:
        """Out of the hole, every element tested, and in again with a new bit."""
        self.due += 1
        found = list(lines(DUE, self.at.about(md_ft), f"{self.at.string.id}/due{self.due}"))
        after = next(k for k, line in enumerate(found) if any(act == "tested" for act, _ in line.does)) + 1
        self.since = sum(line.hours or 0.0 for line in found[after:]) * self.lost
        self._new_bit()
        yield from found


def _drill_words(at: At, span: tuple[float, float], mud: float | None, pieces: list[Piece] | None) -> Words:
    top, to = span
    words: list[str | Amount] = ["Drill ", *at.string.hole_words, " from ", depth(top), " to ", depth(to)]
    words += [" with ", emw(mud), " mud"] if mud is not None else [", mud not decided"]
    if at.riserless:
        words.append(", returns to the sea floor")
    if pieces:
        rate = (to - top) / on_bottom_hours(pieces)
        words += [" at about ", Amount(value=rate, quantity="drilling_rate")]
    lean = float(at.plan.well.path.direction_at(min(to, at.plan.well.path.total_md_ft))[0])
    words += ["; inclination by plan ", Amount(value=lean, quantity="angle")] if lean >= 0.5 else ["; keep it vertical"]
    return tuple(words)


def _zones(at: At, top: float, to: float) -> Words:
    """What lies in an interval that the crew is told of."""
    words: list[str | Amount] = []
    path = at.plan.well.path
    for zone in at.plan.well.ground.model.zones:
        told = [*zone.hazards, *([zone.fluid] if zone.fluid in ("gas", "oil", "fresh water") else [])]
        if not told or zone.top_tvd_ft >= path.deepest_tvd_ft:
            continue
        at_md = path.md(zone.top_tvd_ft)
        if top <= at_md < to:
            words += ["; " if words else "", f"{zone.name} from ", depth(at_md), f": {', '.join(told)}"]
    return (*words, ".") if words else ()
