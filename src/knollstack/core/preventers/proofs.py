"""The test plan of a nipple-up: each element low and high, with what is across, which valves stand how, what sees it."""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Words, size
from knollstack.core.base.formulas import steel_area_in2
from knollstack.core.base.working import headline
from knollstack.core.preventers.formulas import cup_test_tension
from knollstack.core.preventers.results import StackProof
from knollstack.core.preventers.stacks import Cavity, bodies
from knollstack.core.preventers.tubulars import GRADES_PSI, Tubular, drill_pipe_id_in
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.wellhead.formulas import high_test_pressure
from knollstack.core.wellhead.pieces import HeadPiece

PLUG = "test plug"
OPEN_BELOW = "side outlet valve below the plug open"
LINES = "choke and kill valves shut"


class Nippled:
    """A stack nippled up on its head, to be tested at a pressure."""

    def __init__(
        self,
        equipped: Equipped,
        string: EquippedString,
        head: HeadPiece | None,
        elements: tuple[Cavity, ...],
        tubulars: tuple[Tubular, ...],
        casing_ram: Cavity | None,
        surface_psi: float | None,
    ) -> None:
        self.equipped, self.string, self.head, self.elements = equipped, string, head, elements
        self.tubulars, self.casing_ram, self.surface_psi = tubulars, casing_ram, surface_psi
        self.policy = equipped.well.policy.preventers

    @property
    def top(self) -> str:
        words = self.equipped.well.top_words
        return words[0].lower() + words[1:]

    @property
    def key(self) -> str:
        return f"preventers/{self.string.index}/test"

    def least_class(self, up_to: int | None = None) -> float | None:
        """The least class of what a test presses: the whole stack, or what stands under an element."""
        pressed = [e.class_psi for e in self.elements if up_to is None or e.index < up_to]
        return min((psi for psi in pressed if psi is not None), default=None)

    def high(self, rated_psi: float | None, key: str) -> tuple[float | None, str]:
        """The high pressure of one test, and which of class, head and surface pressure gives it."""
        if rated_psi is None or self.surface_psi is None:
            return None, f"unknown: a class or {self.top} is"
        head = self.head.top_psi if self.head is not None else rated_psi
        with headline(key):
            psi = float(high_test_pressure(rated_psi, head, self.surface_psi, self.policy.test_margin_psi))
        if psi == rated_psi:
            return psi, "its class"
        return psi, "class of the head" if psi == head else f"{self.top} and margin"

    def below(self, element: Cavity) -> str:
        under = [e.title for e in self.elements if e.index < element.index]
        seat = f"bowl of the {self.head.name}" if self.head is not None else "head"
        return ", ".join(["from the plug in the " + seat, *under])


def _row(n: Nippled, element: Cavity, rated: float | None, across: Words, title: str = "") -> StackProof:
    key, under = f"{n.key}/{element.index}", n.least_class(element.index)
    weaker = rated is not None and under is not None and under < rated
    psi, by = n.high(under if weaker else rated, key)
    if by == "its class" and weaker:
        by = "class of what stands under it"
    elif by == "its class" and element.kind == "annular":
        by = "policy's share of its class"
    return StackProof(
        element=element.index,
        title=title or element.title,
        low_psi=n.policy.low_test_psi,
        high_psi=psi,
        by=by,
        across=across,
        tool=PLUG,
        opened=f"{OPEN_BELOW}; {LINES}",
        sees=n.below(element),
        working=key if psi is not None else None,
    )


def _element_rows(n: Nippled, element: Cavity) -> Iterator[StackProof]:
    pipes = bodies(n.tubulars, "drill pipe")
    if element.kind == "annular":
        rated = None if element.class_psi is None else n.policy.annular_share * element.class_psi
        yield _row(n, element, rated, (size(pipes[-1]), " pipe") if pipes else ("unknown",))
    elif element.element == "variable rams":
        least, most = element.from_in, element.to_in
        inside = [s for s in pipes if least is not None and most is not None and least <= s <= most]
        for od in sorted({inside[0], inside[-1]}) if inside else pipes[:1]:
            yield _row(n, element, element.class_psi, (size(od), " pipe"))
    elif element.element in ("pipe rams", "casing rams"):
        across: Words = (size(element.size_in), " pipe") if element.size_in is not None else ("unknown",)
        yield _row(n, element, element.class_psi, across)
    else:
        yield _row(n, element, element.class_psi, ("no pipe",))


def proofs_of(n: Nippled) -> tuple[StackProof, ...]:
    """Every element, the valves of the lines, casing rams once they are in, and the head under a cup."""
    if n.string.role == "conductor":
        return tuple(_function_test(n, e) for e in n.elements if e.closes)
    rows = [row for e in n.elements if e.closes for row in _element_rows(n, e)]
    rows += [_line(n, line) for line in ("choke line", "kill line") if any(e.outlets for e in n.elements)]
    rows += _bonnets(n)
    rows += _cup(n)
    return tuple(rows)


def _function_test(n: Nippled, element: Cavity) -> StackProof:
    return StackProof(
        element=element.index,
        title=f"{element.title}, function test",
        low_psi=0.0,
        high_psi=None,
        by="opened and closed from both stations; never shut in",
        across=("drill pipe",),
        tool="none",
        opened="vent line opens before it closes",
        sees="nothing: flow is led away",
        working=None,
    )


def _line(n: Nippled, line: str) -> StackProof:
    key = f"{n.key}/{line.split()[0]}"
    psi, by = n.high(n.least_class(), key)
    return StackProof(
        element=None,
        title=f"{line}, inner and outer valve",
        low_psi=n.policy.low_test_psi,
        high_psi=psi,
        by=by.replace("its class", "class of the stack"),
        across=("no pipe",),
        tool=PLUG,
        opened=f"{OPEN_BELOW}; each valve shut in turn, those before it open",
        sees=f"the stack below its lowest closed ram, the {line} up to the valve",
        working=key if psi is not None else None,
    )


def _bonnets(n: Nippled) -> Iterator[StackProof]:
    """Rams changed for casing are tested before it is run."""
    if n.casing_ram is None:
        return
    for od in bodies((t for t in n.tubulars if t.run is not None), "casing"):
        title = f"casing rams in the {n.casing_ram.title}, bonnets"
        yield _row(n, n.casing_ram, n.casing_ram.class_psi, (size(od), " test joint"), title)


def _cup(n: Nippled) -> Iterator[StackProof]:
    """Head, valves and stack over a cup in the casing: under a share of its burst, with the pull on the pipe."""
    pipes, sections = [t for t in n.tubulars if t.kind == "drill pipe"], n.string.sections
    if not pipes or not sections or n.head is None or n.surface_psi is None:
        return
    pipe, casing = max(pipes, key=lambda t: t.od_in), sections[0].pipe
    if pipe.od_in >= casing.id_in:
        return
    share, key = n.policy.cup_share, f"{n.key}/cup"
    with headline(key):
        burst, stack = share * casing.burst_psi, n.least_class()
        pressed = burst if stack is None else min(burst, stack)
        psi = float(high_test_pressure(pressed, n.head.top_psi, n.surface_psi, n.policy.test_margin_psi))
        tension = float(cup_test_tension(psi, casing.id_in, pipe.od_in))
    limits = (
        (burst, "share of the casing's burst"),
        (stack, "class of the stack"),
        (n.head.top_psi, "class of the head"),
    )
    body = n.equipped.well.drill_string(n.string.bit_in or casing.id_in)
    bore = pipe.id_in if pipe.id_in is not None else drill_pipe_id_in(n.equipped.catalogue, body)
    most = None
    if bore is not None:
        most = share * GRADES_PSI[n.policy.drill_pipe_grade] * steel_area_in2(pipe.od_in, bore)
    yield StackProof(
        element=None,
        title=f"{n.head.name} and its valves",
        low_psi=n.policy.low_test_psi,
        high_psi=psi,
        by=next((words for limit, words in limits if psi == limit), f"{n.top} and margin"),
        across=(size(pipe.od_in), " pipe"),
        tool="cup tester",
        opened="pipe open at the rotary; side outlet valves shut",
        sees="the casing over the cup, the head and the stack up to the closed ram",
        working=key,
        tension_lbf=tension,
        most_lbf=most,
    )
