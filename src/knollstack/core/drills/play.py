"""A drill being played: a scene, its clock, what was done, and what it looked like every few seconds.

The same scene and the same doings give the same drill, second by second: that is its replay.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, field

from knollstack.core.base.constants import PSI_PER_PPG_FT
from knollstack.core.document.drills import DrillsPolicy
from knollstack.core.drills.acting import do, spaced
from knollstack.core.drills.column import Cell
from knollstack.core.drills.events import MOST_S, DrillDoing, DrillEvent
from knollstack.core.drills.gas import ATMOSPHERE_PSI, gas_of
from knollstack.core.drills.gauges import Gauges, gauges
from knollstack.core.drills.made import Made
from knollstack.core.drills.state import State
from knollstack.core.drills.stepping import advance

SAMPLE_S = 5
RISER_GAS_AT = 0.08
"""Share of the riser's length, from the rig floor, at which gas that nobody saw come up stands."""
SETTLED_PSI = 3.0
"""Rise in a minute under which shut-in pressures are read."""
SWABBED_BBL = 0.5
VOID_BBL, FED_BPM = 0.02, 0.01
"""Changes in a minute, and inflow, under which nothing moves any more but what gas does by rising."""


@dataclass(frozen=True)
class Sample:
    """Truth at a moment, for scoring and replay."""

    at_s: int
    pipe_psi: float
    casing_psi: float
    bottom_psi: float
    shoe_psi: float
    gain_bbl: float
    spm: float
    choke: float
    out_bpm: float
    influx_bpm: float
    loss_bpm: float
    strokes: float
    tight: bool
    gas: tuple[tuple[float, float], ...]
    """Top and bottom MD [ft] of every bubble."""
    bit_md_ft: float | None
    closed: tuple[int, ...]
    gas_bbl: float
    pumped_bbl: float


@dataclass
class Play:
    made: Made
    policy: DrillsPolicy
    state: State = field(init=False)
    events: list[DrillEvent] = field(default_factory=list)
    samples: list[Sample] = field(default_factory=list)
    read: list[Gauges] = field(default_factory=list)
    """The gauges, each time a sample is taken."""
    clock_s: int = 0
    ended: bool = False
    shut_in_s: int | None = None
    """When the well was first closed without a leak."""
    first_sign_s: int | None = None
    influx_at_shut_in_bbl: float | None = None
    influx_bbl: float = 0.0
    broke_s: int | None = None
    broke_md_ft: float | None = None
    minute: list[tuple[float, float]] = field(default_factory=list)
    """Pressure on bottom and what is missing in the string, each second of the last minute shut in."""

    def __post_init__(self) -> None:
        made = self.made
        self.state = State(made.setup)
        state = self.state
        state.flowing = False
        state.leaks = dict(made.leaks)
        state.swab_psi = made.swab_psi
        state.moves.pulling = made.pulling
        state.float_holds = made.float_holds
        drilling = made.scene.kind in (
            "drilling",
            "failed annular",
            "leaking ram",
            "gas above",
            "diverter",
            "drift-off",
        )
        state.made_up = drilling
        if drilling:
            state.spm = state.wanted_spm = made.setup.pumps.drilling_spm
        if made.unfilled_bbl and state.inside is not None:
            for _ in state.inside.out_above(made.unfilled_bbl):
                state.inside.void_bbl = made.unfilled_bbl
        if made.riser_gas_bbl:
            self._gas_in_riser(made.riser_gas_bbl)
        # friction follows the flow by a step: with the pumps on the gauges are steady after two
        advance(state, 2.0 if drilling else 1.0)
        state.t_s, state.strokes, state.pit_bbl = 0.0, 0.0, made.setup.pit_bbl
        self._sample()

    def _gas_in_riser(self, bbl: float) -> None:
        """A bubble that nobody saw come up, near the top of the riser."""
        state, column = self.state, self.state.column
        at = column.way.volume_at(RISER_GAS_AT * self.made.setup.stack_md_ft)
        psia = PSI_PER_PPG_FT * self.made.setup.mud_ppg * RISER_GAS_AT * self.made.setup.stack_md_ft + ATMOSPHERE_PSI
        heat = column.heat.at(RISER_GAS_AT * self.made.setup.stack_md_ft)
        column.take(bbl, at, 0.0)
        i = column.split(at, 0.0)
        gas = gas_of(self.made.setup.gas_sg)
        column.cells.insert(i, Cell(0.0, bbl, gas.amount(bbl, psia, heat), gas.zt(psia, heat), psia))
        state.counted.gas_in += column.cells[i].amount

    @property
    def gain_bbl(self) -> float:
        """Pit gain: what came back over what was pumped and filled."""
        return self.state.pit_bbl + self.state.filled_bbl - self.made.setup.pit_bbl

    def advance(self, to_s: int) -> None:
        """Let the clock run to a second; what the scene brings with it happens on the way."""
        while self.clock_s < min(to_s, MOST_S) and not self.ended:
            if self.clock_s >= self.made.starts_s and self.made.scene.kind != "drift-off":
                self.state.flowing = True
            if self.made.connection and self.clock_s == int(self.made.starts_s):
                self.state.wanted_spm = 0.0
            for index in self.made.out_of_service:
                self.state.wanted[index] = False
            advance(self.state, 1.0)
            self.clock_s += 1
            self._watch()
            if self.clock_s % SAMPLE_S == 0:
                self._sample()
        if self.clock_s >= MOST_S:
            self.ended = True

    def _watch(self) -> None:
        state = self.state
        self.influx_bbl += state.now.influx_bpm / 60
        if self.first_sign_s is None and (self.influx_bbl > SWABBED_BBL or self.made.riser_gas_bbl):
            self.first_sign_s = self.clock_s
        tight = state.tight and state.leak_cv <= 0 and state.string_closed
        if tight and self.shut_in_s is None:
            self.shut_in_s, self.influx_at_shut_in_bbl = self.clock_s, self.influx_bbl
        if self.broke_s is None and any(state.broken.values()):
            self.broke_s = self.clock_s
            self.broke_md_ft = self.made.setup.rock[min(k for k, broken in state.broken.items() if broken)].md_ft
        void = state.inside.void_bbl if state.inside is not None and not state.cut else 0.0
        still = state.tight and state.spm == 0
        self.minute = [*self.minute[-60:], (state.now.bottom_psi, void)] if still else []

    @property
    def settled(self) -> bool:
        """Shut in for a minute with the pressures at rest."""
        if len(self.minute) <= 60:
            return False
        (before, void), (after, left) = self.minute[0], self.minute[-1]
        rests = abs(after - before) < SETTLED_PSI or self.state.now.influx_bpm < FED_BPM
        return rests and abs(left - void) < VOID_BBL

    def act(self, doing: DrillDoing) -> DrillEvent:
        """Something done now; the clock is first brought to its second."""
        self.advance(doing.at_s)
        state = self.state
        before = self._around(doing)
        why = "the drill has ended" if self.ended else self._out_of_service(doing)
        why = why or do(state, doing, self.policy.pick_up_ft)
        event = before.model_copy(update={"refused": why})
        self.events.append(event)
        if doing.action == "end" and not why:
            self.ended = True
            self._sample()
        return event

    def _out_of_service(self, doing: DrillDoing) -> str:
        gone = doing.action == "close" and doing.target in self.made.out_of_service
        return "it is out of service" if gone else ""

    def _around(self, doing: DrillDoing) -> DrillEvent:
        state = self.state
        e = next((x for x in state.setup.elements if x.index == doing.target), None)
        column = state.inside.column_psi if state.inside is not None else 0.0
        return DrillEvent(
            **doing.model_dump(),
            across=state.across(e) if e is not None else "",
            verdict=state.verdict(e) if e is not None else "",
            spm=state.spm,
            pit_gain_bbl=self.gain_bbl,
            tight=state.tight,
            choke=state.valves.choke,
            choke_line=state.valves.choke_line,
            overboard=state.valves.overboard,
            moved=state.moves.target_md_ft is not None or state.moves.pulling,
            spaced=spaced(state),
            true_sidpp_psi=max(0.0, state.now.bit_psi - column),
            true_sicp_psi=state.now.top_psi,
            settled=self.settled,
        )

    def _sample(self) -> None:
        state, now = self.state, self.state.now
        self.read.append(gauges(self.made, state, self.clock_s))
        self.samples.append(
            Sample(
                at_s=self.clock_s,
                pipe_psi=now.pipe_psi,
                casing_psi=now.top_psi,
                bottom_psi=now.bottom_psi,
                shoe_psi=now.shoe_psi,
                gain_bbl=self.gain_bbl,
                spm=state.spm,
                choke=state.valves.choke,
                out_bpm=now.out_bpm,
                influx_bpm=now.influx_bpm,
                loss_bpm=now.loss_bpm,
                strokes=state.strokes,
                tight=state.tight,
                gas=self._bubbles(),
                bit_md_ft=state.bit_md_ft,
                closed=tuple(e.index for e in state.setup.elements if state.closed(e)),
                gas_bbl=state.column.gas_bbl,
                pumped_bbl=state.counted.mud_in,
            )
        )

    def _bubbles(self) -> tuple[tuple[float, float], ...]:
        state, way = self.state, self.state.column.way
        found = [
            (way.md_at(a), way.md_at(b))
            for cell, a, b in state.column.place(state.now.top_psi)
            if cell.is_gas and b > a
        ]
        riser = state.riser
        if riser is not None:
            found += [(riser.way.md_at(a), riser.way.md_at(b)) for c, a, b in riser.place(0.0) if c.is_gas and b > a]
        return tuple(found)


def replayed(made: Made, policy: DrillsPolicy, doings: Iterable[DrillDoing], to_s: int) -> Play:
    """A drill played again from what was done."""
    play = Play(made, policy)
    for doing in doings:
        play.act(doing)
    play.advance(to_s)
    return play
