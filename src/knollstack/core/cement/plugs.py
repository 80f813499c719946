"""Balanced plugs: volumes, spacer behind and displacement, and what their column does to the rock with the pipe in it."""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import partial
from itertools import pairwise

import numpy as np

from knollstack.core.base.constants import BBL_PER_FT_PER_IN2, PSI_PER_PPG_FT
from knollstack.core.base.findings import Change, Finding, Remedy, Step, Words, depth, emw, find, remedy
from knollstack.core.base.formula import sweeping
from knollstack.core.base.formulas import circle_capacity, interval_volume, sacks
from knollstack.core.base.working import headline
from knollstack.core.cement.checks import rock_md_ft
from knollstack.core.cement.column import mixed
from knollstack.core.cement.formulas import balanced_plug, mix_water, slurry
from knollstack.core.cement.hole import hole_of
from knollstack.core.cement.results import PlugRow
from knollstack.core.document.plugs import BalancedPlug
from knollstack.core.ground.well import Well
from knollstack.core.program.equipped import Equipped, EquippedString

_find = partial(find, "cement")
STEP_FT, ON_BOTTOM_FT = 10.0, 20.0


@dataclass(frozen=True)
class Placed:
    """A plug where it stands: the hole that it is set in, and its mean diameter [in] with what is pumped in excess."""

    index: int
    own: BalancedPlug
    string: EquippedString
    hole_in: float
    volume_bbl: float
    pipe_od_in: float
    pipe_id_in: float
    mud_ppg: float
    path: str
    working: str

    @property
    def hole_md_ft(self) -> float:
        """The end of the hole when the plug is set."""
        given = self.own.hole_to_md_ft
        return (
            self.string.shoe_md_ft if given is None else max(min(given, self.string.shoe_md_ft), self.own.bottom_md_ft)
        )

    @property
    def words(self) -> Words:
        return (self.own.name or f"Plug {self.index + 1}",)


def _hole_string(program: Equipped, own: BalancedPlug, standing: int) -> EquippedString | None:
    """In open hole the string whose hole it is; in casing the last of them that is there."""
    if own.inside == "casing":
        cased = program.strings[:standing]
        inside = [s for s in cased if s.top_md_ft <= own.top_md_ft and s.shoe_md_ft >= own.bottom_md_ft]
        return inside[-1] if inside else None
    holes = (s for s in program.strings if s.drilled and s.previous_shoe_md_ft < own.bottom_md_ft <= s.shoe_md_ft)
    return next(holes, None)


def _volume_bbl(program: Equipped, string: EquippedString, own: BalancedPlug, standing: int) -> float | None:
    """Of what the plug fills, interval by interval: casing by its bore, open hole with its excess; None where unknown."""
    around = list(program.strings[:standing]) if own.inside == "casing" else list(program.strings[: string.index])
    hole, whole = hole_of(program.well, string.laid), 0.0
    if hole is not None and own.excess is not None:
        hole = replace(hole, excess=own.excess, intervals=())
    edges = (m for s in around for m in (s.top_md_ft, s.shoe_md_ft))
    ends = sorted({own.top_md_ft, own.bottom_md_ft, *(m for m in edges if own.top_md_ft < m < own.bottom_md_ft)})
    for low, high in pairwise(ends):
        cased = [s for s in around if s.top_md_ft <= low and s.shoe_md_ft >= high]
        if cased:
            bores = cased[-1].bores(low, high)
            if not bores:
                return None
            whole += sum(float(interval_volume(circle_capacity(bore), length)) for length, bore in bores)
        elif hole is None:
            return None
        else:
            whole += hole.annulus_bbl(low, high, 0.0)
    return whole


def placed(
    program: Equipped,
    index: int,
    own: BalancedPlug,
    *,
    standing: int | None = None,
    path: str = "/balanced_plugs",
    working: str = "cement/plug",
) -> Placed | tuple[str, str]:
    """Where a plug stands, or what is wanting and where it is given; `standing` strings are run by then, else all."""
    count = len(program.strings) if standing is None else standing
    string = _hole_string(program, own, count)
    if string is None:
        where = "no hole of the program" if own.inside == "open hole" else "no casing"
        return "bottom_md_ft", f"{where} holds it"
    drill = program.well.drill_string(string.bit_in or 0.0)
    pipe_od, pipe_id = own.pipe_od_in or drill.pipe_od_in, own.pipe_id_in or drill.pipe_id_in
    volume = _volume_bbl(program, string, own, count)
    if pipe_id is None or volume is None:
        return "pipe_id_in", "a size of the pipe or of the hole is not given"
    mud = own.mud_ppg or (program.strings[-1] if own.inside == "casing" else string).mud_ppg
    if mud is None:
        return "mud_ppg", "the mud in the hole is not given"
    hole = float(np.sqrt(volume / (own.bottom_md_ft - own.top_md_ft) / BBL_PER_FT_PER_IN2))
    if not pipe_id < pipe_od < hole:
        return "pipe_od_in", "the pipe does not go into the hole, or its bore not into it"
    place = f"{path}/{index}", f"{working}{index}"
    return Placed(index, own, string, hole, volume, pipe_od, pipe_id, mud, *place)


@sweeping()
def plug_row(well: Well, plug: Placed) -> PlugRow:
    """What is mixed and pumped, in the order of the job, and the column with the pipe in it."""
    own, water = plug.own, plug.own.water_gal_sk or well.policy.cement.water_gal_sk
    recipe = mixed(0.0, water)
    with headline(plug.working):
        held = balanced_plug(
            plug.volume_bbl, plug.hole_in, plug.pipe_od_in, plug.pipe_id_in, own.spacer_bbl, own.bottom_md_ft
        )
    count = float(sacks(plug.volume_bbl, slurry(**recipe.mix)["yield_ft3_sk"]))
    found = _nearest(well, plug, recipe.density_ppg, held["height_with_pipe_ft"])
    return PlugRow(
        hole_in=plug.hole_in,
        mud_ppg=plug.mud_ppg,
        slurry_ppg=recipe.density_ppg,
        slurry_bbl=plug.volume_bbl,
        sacks=count,
        water_bbl=mix_water(count, water),
        spacer_behind_bbl=held["spacer_behind_bbl"],
        displacement_bbl=held["displacement_bbl"],
        top_with_pipe_md_ft=own.bottom_md_ft - held["height_with_pipe_ft"],
        **dict(zip(("reached_ppg", "fracture_ppg", "weakest_md_ft"), found or (None, None, None), strict=True)),
    )


def _nearest(well: Well, plug: Placed, slurry_ppg: float, height_ft: float) -> tuple[float, float, float] | None:
    """Equivalent weight, fracture and depth where the open hole is nearest to breaking; None where that is not known."""
    own, string = plug.own, plug.string
    if own.inside == "casing":
        return None
    md = rock_md_ft(well, string.previous_shoe_md_ft, plug.hole_md_ft)
    tvd = well.path.tvd_at(md)
    fracture = well.ground.fracture.at(tvd)
    if np.any(np.isnan(fracture)):
        return None
    around = BBL_PER_FT_PER_IN2 * (plug.hole_in**2 - plug.pipe_od_in**2)
    tops = np.maximum(own.bottom_md_ft - height_ft - np.array([own.spacer_bbl / around, 0.0]), 0.0)
    spacer_top, cement_top, bottom = well.path.tvd_at(np.append(tops, own.bottom_md_ft)).tolist()
    weights = (own.spacer_ppg or plug.mud_ppg, slurry_ppg)
    more = sum(
        PSI_PER_PPG_FT * (ppg - plug.mud_ppg) * np.clip(tvd - top, 0.0, base - top)
        for ppg, top, base in zip(weights, (spacer_top, cement_top), (cement_top, bottom), strict=True)
    )
    reached = plug.mud_ppg + more / (PSI_PER_PPG_FT * tvd)
    k = int(np.argmax(reached - fracture))
    return float(reached[k]), float(fracture[k]), float(md[k])


def judge_plugs(program: Equipped) -> tuple[tuple[PlugRow | None, ...], tuple[Finding, ...]]:
    """Every plug of the design; None where something is wanting, which is told."""
    rows: list[PlugRow | None] = []
    found: list[Finding] = []
    for index, own in enumerate(program.design.balanced_plugs):
        plug = placed(program, index, own)
        if not isinstance(plug, Placed):
            key, words = plug
            name = own.name or f"Plug {index + 1}"
            found.append(
                _find("unknown", f"/balanced_plugs/{index}/{key}", (name,), f"Its volumes are unknown: {words}.")
            )
            rows.append(None)
            continue
        row = plug_row(program.well, plug)
        rows.append(row)
        found += rock_findings(program, plug, row)
    return tuple(rows), tuple(found)


def rock_findings(program: Equipped, plug: Placed, row: PlugRow, step: Step = "cement") -> Iterator[Finding]:
    """Whether the plug can be set so: its height with the pipe in it, the rock, what it stands on."""
    own = plug.own
    if row.displacement_bbl < 0:
        text: Words = ("With the pipe in it the plug and its spacer reach over the top of the pipe. Set it in two.",)
        yield find(step, "stop", f"{plug.path}/top_md_ft", plug.words, *text)
    if own.inside == "open hole" and row.reached_ppg is None:
        yield find(
            step,
            "unknown",
            "/ground/fracture",
            plug.words,
            "Whether the rock stands it is unknown: fracture is not given.",
        )
    elif row.reached_ppg is not None and row.fracture_ppg is not None and row.reached_ppg > row.fracture_ppg + 1e-9:
        reached, rock = emw(row.reached_ppg), emw(row.fracture_ppg)
        words: Words = (
            "With the pipe in it the hole at ",
            depth(row.weakest_md_ft or 0.0),
            " bears ",
            reached,
            "; it breaks at ",
            rock,
        )
        mends = tuple(_shorter(program, plug))
        more = "." if mends else ". Nothing tried here mends it."
        yield find(
            step, "stop", f"{plug.path}/top_md_ft", plug.words, *words, more, value=reached, limit=rock, remedies=mends
        )
    on_bottom = own.inside == "open hole" and plug.hole_md_ft - own.bottom_md_ft <= ON_BOTTOM_FT
    if not on_bottom and row.slurry_ppg > plug.mud_ppg + 1e-9:
        text = (
            emw(row.slurry_ppg),
            " cement stands on ",
            emw(plug.mud_ppg),
            " mud: without a viscous pill or a bridge plug under it, it falls.",
        )
        yield find(step, "note", f"{plug.path}/bottom_md_ft", plug.words, *text)


def _shorter(program: Equipped, plug: Placed) -> Iterator[Remedy]:
    """The highest top, in tens, at which the rock stands it."""
    own = plug.own

    def stands(top_md_ft: float) -> bool:
        tried = placed(program, plug.index, own.model_copy(update={"top_md_ft": top_md_ft}))
        row = plug_row(program.well, tried) if isinstance(tried, Placed) else None
        reached, rock = (None, None) if row is None else (row.reached_ppg, row.fracture_ppg)
        return reached is not None and rock is not None and reached <= rock

    tops = np.arange(np.ceil(own.top_md_ft / STEP_FT) * STEP_FT, own.bottom_md_ft - STEP_FT, STEP_FT).tolist()
    least = bisect_left(tops, True, key=stands)
    if least < len(tops):
        change = Change(path=f"{plug.path}/top_md_ft", value=tops[least])
        yield remedy(change, "Set the top of the plug at ", depth(tops[least]))
