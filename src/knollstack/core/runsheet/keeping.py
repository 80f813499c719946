"""The order rules: what every sheet keeps. A sheet by rule breaks none; a person's edit that does is told with the rule.

Each is an object with a name, its reason, and a test of one step in the state that all steps before it have left.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, field

from knollstack.core.runsheet.rule import Act, Does, Line


@dataclass
class WellNow:
    """The well as the steps so far have left it."""

    spudded: bool = False
    bowl: str = ""
    """The bowl under the BOPs that are on; empty where none are."""
    proved: bool = False
    casing_rams: bool = False
    covered: str = ""
    """The string that something is said to close on."""
    counted: set[str] = field(default_factory=set)
    bushings: dict[str, str] = field(default_factory=dict)
    """Bowls with a wear bushing in, and the step that put it there."""
    plugs: set[str] = field(default_factory=set)
    valves: set[str] = field(default_factory=set)
    broken: set[str] = field(default_factory=set)
    drilled: set[str] = field(default_factory=set)
    ran: set[str] = field(default_factory=set)
    cemented: set[str] = field(default_factory=set)
    hard: set[str] = field(default_factory=set)
    drilled_out: set[str] = field(default_factory=set)

    def take(self, does: Does, key: str) -> None:
        """What a step does to it."""
        act, at = does
        grown: dict[Act, set[str]] = {
            "count": self.counted,
            "plug in": self.plugs,
            "valve open": self.valves,
            "joint broken": self.broken,
            "drill": self.drilled,
            "run": self.ran,
            "conductor": self.ran,
            "cemented": self.cemented,
            "set": self.hard,
            "drill out": self.drilled_out,
        }
        if act in grown:
            grown[act].add(at)
        elif act == "plug out":
            self.plugs.discard(at)
            self.valves.discard(at)
        elif act == "joint tested":
            self.broken.discard(at)
        elif act == "bushing in":
            self.bushings[at] = key
        elif act == "bushing out":
            self.bushings.pop(at, None)
        else:
            self._stack(act, at)

    def _stack(self, act: Act, at: str) -> None:
        if act == "spud":
            self.spudded = True
        elif act == "on":
            self.bowl, self.proved, self.casing_rams, self.covered = at, False, False, ""
        elif act == "off":
            self.bowl, self.casing_rams = "", False
        elif act == "tested":
            self.proved = True
        elif act == "rams changed":
            self.casing_rams, self.proved = True, False
        elif act == "rams back":
            self.casing_rams = False
        elif act == "covered":
            self.covered = at


Breaks = Callable[[WellNow, str], str]


@dataclass(frozen=True)
class OrderRule:
    """`breaks` says why a step that does this may not be done now; nothing where it may."""

    name: str
    reason: str
    acts: tuple[Act, ...]
    breaks: Breaks


@dataclass(frozen=True)
class Broken:
    key: str
    rule: OrderRule
    why: str


def _told(wrong: bool, why: str) -> str:
    return why if wrong else ""


DUE = OrderRule("BOP test", "A test never runs out while the stack is on", (), lambda well, at: "")
PARITY = OrderRule("Wear bushing", "It comes out as often as it goes in", (), lambda well, at: "")
RULES: tuple[OrderRule, ...] = (
    OrderRule(
        "Spud",
        "No hole is made before everything that is to be ready has been signed",
        ("drill", "drill out"),
        lambda well, at: _told(not well.spudded, "the well is not spudded yet"),
    ),
    OrderRule(
        "Barriers",
        "Nothing that closes the well comes off, and no tree goes on, before enough verified barriers are counted",
        ("off", "tree on"),
        lambda well, at: _told(at not in well.counted, "its barriers are not counted before it"),
    ),
    OrderRule(
        "Barriers",
        "Cement counts once it has set",
        ("count", "off"),
        lambda well, at: _told(bool(well.cemented - well.hard), "cement has not set yet"),
    ),
    OrderRule(
        "Wear bushing",
        "It is in while a drill string turns in the bowl",
        ("drill", "drill out"),
        lambda well, at: _told(bool(well.bowl) and well.bowl not in well.bushings, "no wear bushing is in the bowl"),
    ),
    OrderRule(
        "Wear bushing",
        "It is out before a hanger, a seal or the test plug lands in its bowl, and before the stack comes off",
        ("hanger", "plug in"),
        lambda well, at: _told(at in well.bushings, "the wear bushing is still in the bowl"),
    ),
    OrderRule(
        "Wear bushing",
        "It is out before the stack comes off",
        ("off",),
        lambda well, at: _told(bool(well.bushings), "the wear bushing is still in the bowl"),
    ),
    OrderRule(
        "Wear bushing",
        "It goes in and comes out in turn",
        ("bushing in",),
        lambda well, at: _told(at in well.bushings, "it is in the bowl already"),
    ),
    OrderRule(
        "Wear bushing",
        "It goes in and comes out in turn",
        ("bushing out",),
        lambda well, at: _told(at not in well.bushings, "there is none in the bowl"),
    ),
    OrderRule(
        "Test plug",
        "A test on the plug needs a way for what leaks past it, so that it does not press the casing",
        ("plug test",),
        lambda well, at: (
            _told(at not in well.plugs, "no test plug is in the bowl")
            or _told(at not in well.valves, "the valve below the plug is not open")
        ),
    ),
    OrderRule(
        "Test plug",
        "It is out before the bowl is used for anything else",
        ("drill", "drill out", "hanger", "bushing in", "off"),
        lambda well, at: _told(bool(well.plugs), "the test plug is still in the bowl"),
    ),
    OrderRule(
        "BOP test",
        "After any broken seal the stack is tested before it is needed",
        ("drill", "drill out"),
        lambda well, at: _told(bool(well.bowl) and not well.proved, "the stack is not tested since it was opened"),
    ),
    OrderRule(
        "Seals of the wellhead",
        "Each weld, seal and flange is tested before the next stands on it",
        ("on",),
        lambda well, at: _told(bool(well.broken), "what it stands on is not tested"),
    ),
    OrderRule(
        "Cement strength",
        "No shoe is drilled out, and no string tested, before its cement has its strength",
        ("drill out", "casing test"),
        lambda well, at: _told(at in well.cemented - well.hard, "the cement has not set"),
    ),
    OrderRule(
        "Each string cemented before it is drilled out",
        "An empty annulus is a way up for what lies below",
        ("drill out",),
        lambda well, at: _told(at not in well.cemented, "the string is not cemented"),
    ),
    OrderRule(
        "Drilled out before it is drilled ahead",
        "The shoe is closed by its own cement until then",
        ("drill",),
        lambda well, at: _told(bool(well.cemented - well.drilled_out), "the shoe above is not drilled out"),
    ),
    OrderRule(
        "Hole before casing",
        "A string is run in a hole that is made",
        ("run",),
        lambda well, at: _told(at not in well.drilled, "its hole is not drilled yet"),
    ),
    OrderRule(
        "Casing before cement",
        "Cement goes around a string that is in the hole",
        ("cemented",),
        lambda well, at: _told(at not in well.ran, "the string is not run yet"),
    ),
    OrderRule(
        "Rams",
        "They fit what is run, or the plan says what closes on it",
        ("run",),
        lambda well, at: _told(bool(well.bowl) and well.covered != at, "nothing is rigged or said to close on it"),
    ),
    OrderRule(
        "Rams",
        "They fit the drill pipe again before it is run",
        ("drill", "drill out"),
        lambda well, at: _told(well.casing_rams, "casing rams are still in"),
    ),
    OrderRule(
        "Tree",
        "It is set on the tubing head and not on the BOPs",
        ("tree on",),
        lambda well, at: _told(bool(well.bowl), "the BOPs are still on"),
    ),
)


def broken_rules(lines: Iterable[Line], lost: float, limit_hours: float) -> tuple[Broken, ...]:
    """Every rule that the sheet breaks, step by step; what is crossed out is not done."""
    done = [line for line in lines if not line.crossed]
    return (*_broken(done), *_overdue(done, lost, limit_hours))


def _broken(done: list[Line]) -> Iterator[Broken]:
    well = WellNow()
    for line in done:
        for does in line.does:
            for rule in RULES:
                if does.act in rule.acts and (why := rule.breaks(well, does.at)):
                    yield Broken(line.key, rule, why)
            well.take(does, line.key)
    for bowl, key in well.bushings.items():
        if bowl != well.bowl:  # under a stack that stays on it may stay in
            yield Broken(key, PARITY, "it is never pulled")


def _overdue(done: list[Line], lost: float, limit_hours: float) -> Iterator[Broken]:
    """Steps in whose time the test of the BOPs runs out; told once for each time that it does."""
    since: float | None = None
    told = False
    for line in done:
        acts = {act for act, _ in line.does}
        if ("tested" in acts and since is not None) or "on" in acts:
            since, told = 0.0, False
        elif "off" in acts:
            since = None
        if since is None or line.beside:
            continue
        since += 0.0 if "tested" in acts else (line.hours or 0.0) * lost
        if since > limit_hours + 1e-6 and not told:
            told = True
            yield Broken(line.key, DUE, "the test of the BOPs runs out in its time")
