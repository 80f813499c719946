"""Strings carry strings: what hangs in and stands on the first casing that reaches the wellhead.

Each inner string is landed with its weight hung in its mud. Preventers and wellhead stand on top. Nothing is taken
off for cement; the conductor shares through the base plate where policy says so.
"""

from __future__ import annotations

import numpy as np

from knollstack.core.basics import safety_factor, steel_area_in2
from knollstack.core.findings import Amount, Change, Finding, Remedy, Words
from knollstack.core.formula import formula
from knollstack.core.pipe.frame import build_frame
from knollstack.core.pipe.landed import landed_weight_lbf
from knollstack.core.pipe.loads import CASING_DESIGN
from knollstack.core.pipe.order import candidates
from knollstack.core.pipe.product import Pipe
from knollstack.core.pipe.strength import stand_alone
from knollstack.core.program import Planned, Program
from knollstack.core.results_pipe import PipeRow
from knollstack.core.working import headline

USUAL_ELEMENTS = ("annular", "pipe rams", "blind rams", "drilling spool")


@formula(
    "W = (ΣW_i + W_s)·Aₛ/(Aₛ + A_c)",
    "lbf",
    CASING_DESIGN + "; a base plate shares by steel area, A_c = 0 without one",
    ("stack_lbf >= 0", "steel_area_in2 > 0", "conductor_area_in2 >= 0"),
)
def carried_load(
    hung_lbf: list[float], stack_lbf: float, steel_area_in2: float, conductor_area_in2: float = 0.0
) -> float:
    """Load on the top of the casing that carries the wellhead: every string hung in it and all that stands on it.

    Example: 300,000 lbf hung and 60,000 lbf on top, 15.5 and 26.9 in² of steel, leave 131,604 lbf on the casing.
    """
    share = steel_area_in2 / (steel_area_in2 + conductor_area_in2)
    return (float(np.sum(hung_lbf)) + stack_lbf) * share


def stack_weight_lbf(program: Program) -> float:
    """Weight on top: as policy gives it, else that of the usual elements and one piece of wellhead a string."""
    given = program.well.policy.stack_weight_lbf
    if given is not None:
        return given
    catalogue = program.catalogue
    elements = [catalogue.element(name) for name in USUAL_ELEMENTS]
    pieces = [catalogue.piece("spool", 5_000.0).weight_lbf for s in program.strings if s.run != "liner"]
    return sum(e.weight_lbf for e in elements if e is not None) + sum(pieces)


def carrier(program: Program) -> Planned | None:
    """The string that carries the wellhead: the first cased to surface below the conductor."""
    return next((s for s in program.strings if s.role != "conductor" and s.run == "cased"), None)


def _conductor_area_in2(program: Program) -> float:
    """Steel of the conductor under the base plate; 0 where it does not share."""
    shares = program.well.policy.wellhead_on == "casing and conductor" and program.design.wellhead.base_plate_in > 0
    outer = program.strings[0]
    if not shares or outer.role != "conductor" or not outer.sections:
        return 0.0
    pipe = outer.sections[0].pipe
    return steel_area_in2(pipe.od_in, pipe.id_in)


def _carries(pipe: Pipe) -> float:
    """What the top of a casing carries: its body, or its joint where that is weaker."""
    return min(pipe.body_lbf, pipe.joint_lbf or pipe.body_lbf)


def _mend(program: Program, bearer: Planned, load_lbf: float) -> tuple[Remedy, ...]:
    """The cheapest pipe that stands the string's own loads and carries this one."""
    frame, asked = build_frame(program, bearer), program.well.policy.factors.compression
    strong = [p for p in candidates(program, bearer) if _carries(p) >= asked * load_lbf]
    if frame is None or not strong:
        return ()
    fits = np.flatnonzero(stand_alone(program.well.policy, frame, strong))
    if not len(fits):
        return ()
    pipe = strong[int(fits[0])]
    value = {"weight_ppf": pipe.weight_ppf, "grade": pipe.grade.grade, "connection": pipe.connection}
    changes = program.change(bearer, "pipe", value)
    if bearer.own.sections:
        changes = (*Change(path=f"{bearer.path}/sections", value=[]), *changes)
    label: Words = (f"Use {pipe.weight_ppf:g} lb/ft {pipe.grade.grade} {pipe.connection} for the whole string",)
    return (Remedy(label=label, changes=changes),)


def judge_hung(program: Program, rows: tuple[PipeRow, ...]) -> tuple[PipeRow, ...]:
    """The rows with the load on the carrying string; found short where its pipe does not stand it."""
    bearer = carrier(program)
    if bearer is None or not bearer.sections or program.design.site.setting == "subsea":
        return rows
    inner = [s for s in program.strings[bearer.index + 1 :] if s.run != "liner" or s.own.tie_back]
    weights = [landed_weight_lbf(program, s) for s in inner]
    if not inner or any(w is None for w in weights):
        return rows
    pipe = bearer.sections[0].pipe
    with headline(f"pipe/{bearer.index}/hung"):
        own = steel_area_in2(pipe.od_in, pipe.id_in)
        hung = [max(0.0, w) for w in weights if w is not None]
        load = carried_load(hung, stack_weight_lbf(program), own, _conductor_area_in2(program))
        factor = float(safety_factor(_carries(pipe), load))
    asked = program.well.policy.factors.compression
    if factor < asked:
        message: Words = (
            "All that hangs in it and stands on it puts ", Amount(value=load, quantity="force"),
            f" on its top: the factor is {factor:.2f}; policy asks {asked:g}.",
        )  # fmt: skip
        program.findings.append(
            Finding(severity="stop", step="pipe", place=f"{bearer.path}/pipe", subject=(*bearer.words, " casing"),
                    message=message, remedies=_mend(program, bearer, load), working=f"pipe/{bearer.index}/hung")
        )  # fmt: skip
    row = rows[bearer.index].model_copy(update={"hung_lbf": load, "hung_factor": factor})
    return (*rows[: bearer.index], row, *rows[bearer.index + 1 :])
