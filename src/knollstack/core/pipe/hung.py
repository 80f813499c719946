"""Strings carry strings: what hangs in and stands on the first casing that reaches the wellhead.

Each inner string is landed with its weight hung in its mud. Preventers and wellhead stand on top. Nothing is taken
off for cement; the conductor shares through the base plate where policy says so.
"""

from __future__ import annotations

from knollstack.core.base.findings import Change, Finding, Remedy, force, remedy
from knollstack.core.base.formulas import safety_factor, steel_area_in2
from knollstack.core.base.working import headline
from knollstack.core.catalogue.product import Pipe
from knollstack.core.catalogue.rows import Catalogue
from knollstack.core.pipe.coarse import those_that_stand
from knollstack.core.pipe.exposure import exposure_of
from knollstack.core.pipe.findings import say
from knollstack.core.pipe.formulas import carried_load
from knollstack.core.pipe.frame import build_frame
from knollstack.core.pipe.landed import landed_weight_lbf
from knollstack.core.pipe.order import candidates, choice_of, pipe_words
from knollstack.core.pipe.results import PipeRow
from knollstack.core.program.equipped import Equipped, EquippedString

USUAL_ELEMENTS = ("annular", "pipe rams", "blind rams", "drilling spool")


def stack_weight_lbf(equipped: Equipped) -> float:
    """Weight on top: as policy gives it, else the heaviest stack that is decided, or the usual elements; and the wellhead."""
    given = equipped.well.policy.wellhead.stack_weight_lbf
    if given is not None:
        return given
    catalogue, design = equipped.catalogue, equipped.design
    planned = catalogue.piece("casing spool", 5_000.0).weight_lbf
    if design.wellhead.pieces:
        pieces = [planned if p.weight_lbf is None else p.weight_lbf for p in design.wellhead.pieces]
    else:
        pieces = [planned for s in equipped.strings if s.run != "liner"]
    usual = sum(_element_lbf(catalogue, name, None) for name in USUAL_ELEMENTS)
    typed = [
        sum(_element_lbf(catalogue, e.element, e.weight_lbf) for e in stack.elements) for stack in design.preventers
    ]
    return max(typed, default=usual) + sum(pieces)


def _element_lbf(catalogue: Catalogue, name: str, typed_lbf: float | None) -> float:
    """Weight of an element: as typed, else the catalogue's planning value."""
    row = catalogue.element(name)
    return typed_lbf if typed_lbf is not None else row.weight_lbf if row is not None else 0.0


def carrier(equipped: Equipped) -> EquippedString | None:
    """The string that carries the wellhead: the first cased to surface below the conductor."""
    return next((s for s in equipped.strings if s.role != "conductor" and s.run == "cased"), None)


def _conductor_area_in2(equipped: Equipped) -> float:
    """Steel of the conductor under the base plate; 0 where it does not share."""
    by_policy = equipped.well.policy.wellhead.stands_on == "casing and conductor"
    outer = equipped.strings[0]
    shares = by_policy and equipped.design.wellhead.base_plate_in > 0
    if not shares or outer.role != "conductor" or not outer.sections:
        return 0.0
    pipe = outer.sections[0].pipe
    return steel_area_in2(pipe.od_in, pipe.id_in)


def _carries(pipe: Pipe) -> float:
    """What the top of a casing carries: its body, or its joint where that is weaker."""
    return min(pipe.body_lbf, pipe.joint_lbf or pipe.body_lbf)


def _mend(equipped: Equipped, bearer: EquippedString, load_lbf: float) -> tuple[Remedy, ...]:
    """The cheapest pipe that stands the string's own loads and carries this one."""
    well, policy = equipped.well, equipped.well.policy.pipe
    exposed = exposure_of(equipped.laid, bearer, equipped.next(bearer))
    frame, asked = build_frame(well, bearer.laid, exposed, ()), policy.factors.compression
    pipes = candidates(well, equipped.catalogue, bearer, exposed)
    strong = [p for p in pipes if _carries(p) >= asked * load_lbf]
    if frame is None or not strong:
        return ()
    pipe = next(those_that_stand(policy, frame, strong), None)
    if pipe is None:
        return ()
    changes: tuple[Change, ...] = (bearer.change("pipe", choice_of(pipe)),)
    if bearer.own.sections:
        changes = (bearer.change("sections", []), *changes)
    return (remedy(changes, f"Use {pipe_words(pipe)} for the whole string"),)


def judge_hung(equipped: Equipped, rows: tuple[PipeRow, ...]) -> tuple[tuple[PipeRow, ...], tuple[Finding, ...]]:
    """The rows with the load on the carrying string; found short where its pipe does not stand it."""
    bearer = carrier(equipped)
    if bearer is None or not bearer.sections or equipped.well.site.setting == "subsea":
        return rows, ()
    inner = [s for s in equipped.strings[bearer.index + 1 :] if s.run != "liner" or s.own.tie_back]
    weights = [landed_weight_lbf(equipped.well, s) for s in inner]
    if not inner or any(w is None for w in weights):
        return rows, ()
    pipe, working = bearer.sections[0].pipe, f"pipe/{bearer.index}/hung"
    with headline(working):
        own = steel_area_in2(pipe.od_in, pipe.id_in)
        hung = [max(0.0, w) for w in weights if w is not None]
        load = carried_load(hung, stack_weight_lbf(equipped), own, _conductor_area_in2(equipped))
        factor = float(safety_factor(_carries(pipe), load))
    row = rows[bearer.index].model_copy(update={"hung_lbf": load, "hung_factor": factor})
    rows = (*rows[: bearer.index], row, *rows[bearer.index + 1 :])
    asked = equipped.well.policy.pipe.factors.compression
    if factor >= asked:
        return rows, ()
    finding = say(
        bearer,
        "stop",
        "Hung strings, wellhead and BOP stack put ",
        force(load),
        f" on its top: the factor is {factor:.2f}; policy asks {asked:g}.",
        remedies=_mend(equipped, bearer, load),
        working=working,
    )
    return rows, (finding,)
