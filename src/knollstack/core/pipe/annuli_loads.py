"""What pressure built up in sealed annuli does to the casings around them, with the columns on either side."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from knollstack.core.base.constants import PSI_PER_PPG_FT, SEA_WATER_PPG
from knollstack.core.base.findings import Finding, Severity
from knollstack.core.base.formulas import safety_factor
from knollstack.core.base.remember import remembered
from knollstack.core.base.working import headline
from knollstack.core.pipe.annuli import Annulus, annulus_of, around, solved
from knollstack.core.pipe.annuli_formulas import annulus_load
from knollstack.core.pipe.findings import say
from knollstack.core.pipe.results import LoadKind, LoadResult, PipeRow
from knollstack.core.program.equipped import Equipped, EquippedString

NAME = "heat in sealed annuli"


@dataclass(frozen=True, eq=False)
class Annuli:
    """All annuli between strings to the wellhead, from the innermost outwards, and the pressure built up in each."""

    pairs: tuple[tuple[EquippedString, EquippedString], ...]
    annuli: tuple[Annulus | None, ...]
    pressure_psi: tuple[float | None, ...]


@remembered(8)
def annuli_of(equipped: Equipped) -> Annuli:
    pairs, share = tuple(around(equipped)), equipped.well.policy.sea.heat_share
    found = tuple(annulus_of(equipped, inner, outer, share**k) for k, (inner, outer) in enumerate(pairs))
    return Annuli(pairs, found, tuple(solved(equipped.well, list(found))))


def beside(found: Annuli, k: int) -> tuple[float, float]:
    """Pressure built up inside the inner casing of an annulus, and outside its outer one."""
    inside = found.pressure_psi[k - 1] if k else 0.0
    outside = found.pressure_psi[k + 1] if k + 1 < len(found.pressure_psi) else 0.0
    return inside or 0.0, outside or 0.0


@dataclass(frozen=True)
class CasingLoad:
    """What an annulus does to a casing beside it: pressure over that of the other side at its worst depth, and the rating."""

    psi: float
    rated_psi: float
    at_md_ft: float


def _columns(equipped: Equipped, found: Annuli, k: int) -> tuple[float, float, float]:
    """Densities inside the inner casing, in the annulus, outside the outer casing.

    Inside the producing string stands the packer fluid, outside the last annulus the sea and what came after it.
    """
    inside = found.pairs[k - 1][0].mud_ppg if k else equipped.well.policy.pipe.packer_fluid_ppg
    outside = found.pairs[k + 1][0].mud_ppg if k + 1 < len(found.pairs) else SEA_WATER_PPG
    own = found.pairs[k][0].mud_ppg or SEA_WATER_PPG
    return inside or own, own, outside or own


def loads_of(equipped: Equipped, found: Annuli, k: int) -> tuple[CasingLoad, CasingLoad] | None:
    """Collapse of the inner casing and burst of the outer one, with the columns on either side; None where unknown."""
    annulus, own = found.annuli[k], found.pressure_psi[k]
    if annulus is None or own is None:
        return None
    (inside, outside), (light, ppg, beyond) = beside(found, k), _columns(equipped, found, k)
    tvd = equipped.well.path.tvd
    with headline(f"sea/annulus_loads/{annulus.inner.index}"):
        collapse = _worst(annulus, annulus.inner, "collapse_psi", own - inside, ppg - light, tvd)
        burst = _worst(annulus, annulus.outer, "burst_psi", own - outside, ppg - beyond, tvd)
    return collapse, burst


def _worst(
    annulus: Annulus, string: EquippedString, key: str, built_psi: float, over_ppg: float, tvd: Callable[[float], float]
) -> CasingLoad:
    """At the ends of each section beside the annulus: the load is straight in depth, the rating that of the section."""
    tried = []
    for section in string.sections:
        if section.top_md_ft >= annulus.bottom_md_ft:
            continue
        for md in (max(section.top_md_ft, annulus.top_md_ft), min(section.bottom_md_ft, annulus.bottom_md_ft)):
            load = built_psi + PSI_PER_PPG_FT * over_ppg * tvd(md)
            tried.append((load / float(getattr(section.pipe, key)), load, float(getattr(section.pipe, key)), md))
    _, load, rated, md = max(tried)
    return CasingLoad(float(annulus_load(built_psi, over_ppg, tvd(md))), rated, md)


def judge_annuli(equipped: Equipped, rows: tuple[PipeRow, ...]) -> tuple[tuple[PipeRow, ...], tuple[Finding, ...]]:
    """On the sea floor nobody bleeds an annulus: what heat builds up there is a load of the casings on either side."""
    if equipped.well.site.setting != "subsea":
        return rows, ()
    found, told, findings = annuli_of(equipped), list(rows), list[Finding]()
    for k, (inner, outer) in enumerate(found.pairs):
        loads = loads_of(equipped, found, k)
        if loads is None:
            continue
        factors = equipped.well.policy.pipe.factors
        sides: tuple[tuple[EquippedString, LoadKind, CasingLoad, float], ...] = (
            (inner, "collapse", loads[0], factors.collapse),
            (outer, "burst", loads[1], factors.burst),
        )
        for string, kind, load, asked in sides:
            result = _result(string, kind, load, asked)
            if result is None:
                continue
            told[string.index] = _with(told[string.index], result, string)
            if result.factor < asked - 1e-9:
                findings.append(_finding(string, result))
    return tuple(told), tuple(findings)


def _result(string: EquippedString, kind: LoadKind, load: CasingLoad, asked: float) -> LoadResult | None:
    if load.psi <= 0:
        return None
    section = next(i for i, s in enumerate(string.sections) if load.at_md_ft <= s.bottom_md_ft + 1e-6)
    return LoadResult(
        name=NAME,
        stage="production",
        kind=kind,
        factor=load.rated_psi / load.psi,
        required=asked,
        at_md_ft=load.at_md_ft,
        section=section,
        load=load.psi,
        rating=load.rated_psi,
    )


def _with(row: PipeRow, result: LoadResult, string: EquippedString) -> PipeRow:
    """The row with this load where it governs its kind; its working is then that of the load."""
    before = next((load for load in row.loads if load.kind == result.kind), None)
    if before is None or before.factor <= result.factor:
        return row
    with headline(f"pipe/{string.index}/{result.kind}"):
        safety_factor(result.rating, result.load)
    return row.model_copy(update={"loads": tuple(result if load is before else load for load in row.loads)})


def _finding(string: EquippedString, result: LoadResult) -> Finding:
    severity: Severity = "stop" if result.factor < 1 else "caution"
    text = f"Heat in sealed annuli: {result.kind} factor is {result.factor:.2f}; policy asks {result.required:g}. "
    key = f"sea/annulus_loads/{string.index if result.kind == 'collapse' else string.index + 1}"
    return say(string, severity, text, "What lets the pressure go stands under At sea.", working=key)
