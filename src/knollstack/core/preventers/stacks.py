"""The stack on a string in force: decided, else the least of policy for its class and what the well asks over that."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace

from knollstack.core.base.findings import Words, size
from knollstack.core.catalogue.rows import Catalogue, RamRange
from knollstack.core.document.preventers import ClassElements, ElementKind, PreventersPolicy, Stack, StackElement
from knollstack.core.preventers.tubulars import Tubular
from knollstack.core.program.equipped import EquippedString
from knollstack.core.wellhead.classes import lowest_class_psi

SIZED = ("pipe rams", "casing rams")
BLIND = ("blind rams", "blind shear rams")
ON_PIPE = ("pipe rams", "variable rams")
HELD_OPEN = ("drilling spool", "spacer spool", "adapter", "connector")
"""Elements that close on nothing."""


@dataclass(frozen=True)
class Cavity:
    """One element of a stack with every value filled in; None is not known."""

    index: int
    id: str
    place: str
    element: str
    title: str
    kind: str
    size_in: float | None
    from_in: float | None
    to_in: float | None
    class_psi: float | None
    bore_in: float | None
    height_in: float | None
    weight_lbf: float | None
    close_gal: float | None
    open_gal: float | None
    closing_ratio: float | None
    area_in2: float | None
    hang_off_lbf: float | None
    shears_to_in: float | None
    joined: bool
    outlets: int
    why: str

    @property
    def closes(self) -> bool:
        return self.kind in ("annular", "ram", "diverter")

    @property
    def fits(self) -> Words:
        if self.element in SIZED and self.size_in is not None:
            return (size(self.size_in),)
        if self.element == "variable rams" and self.from_in is not None and self.to_in is not None:
            return (size(self.from_in), " to ", size(self.to_in))
        return ()


def stack_class_psi(policy: PreventersPolicy, surface_pressure_psi: float) -> float | None:
    """The lowest class over the surface pressure and policy's minimum."""
    return lowest_class_psi(max(surface_pressure_psi, policy.minimum_class_psi))


def least_of(policy: PreventersPolicy, class_psi: float | None) -> ClassElements | None:
    """What policy asks of a class."""
    rows = [row for row in policy.least_elements if row.from_class_psi <= (class_psi or 0.0)]
    return max(rows, key=lambda row: row.from_class_psi, default=None)


def least_on_sea_floor(policy: PreventersPolicy, class_psi: float | None) -> ClassElements | None:
    """What policy asks of the stack on the sea floor."""
    rows = [row for row in policy.least_at_sea if row.from_class_psi <= (class_psi or 0.0)]
    return max(rows, key=lambda row: row.from_class_psi, default=None)


def sea_order(least: ClassElements) -> list[ElementKind]:
    """The lower stack on its connector, rams for the string under the shears; above, the riser package and its annular."""
    variable = min(least.variable_rams, least.pipe_rams)
    order: list[ElementKind] = ["connector"]
    order += ["pipe rams"] * (least.pipe_rams - variable)
    order += ["variable rams"] * variable
    order += ["casing shear rams"] * least.casing_shears
    order += [least.blind] * least.blind_rams
    order += ["annular"] * (least.annulars // 2)
    order += ["connector"]
    return order + ["annular"] * (least.annulars - least.annulars // 2)


def usual_order(least: ClassElements) -> list[ElementKind]:
    """The least of a class bottom to top: with three rams and more the outlets stand over the lowest."""
    variable = min(least.variable_rams, least.pipe_rams)
    fixed: list[ElementKind] = ["pipe rams"] * (least.pipe_rams - variable)
    below = fixed[:1] if least.pipe_rams + least.blind_rams >= 3 else []
    order: list[ElementKind] = [*below, "drilling spool"]
    order += [least.blind] * least.blind_rams
    order += fixed[len(below) :]
    order += ["variable rams"] * variable
    return order + ["annular"] * least.annulars


def bodies(tubulars: Iterable[Tubular], *kinds: str) -> list[float]:
    """Sizes of what is smooth and long enough to close a ram on, the largest first."""
    return sorted({t.od_in for t in tubulars if t.kind in kinds}, reverse=True)


def range_for(catalogue: Catalogue, bore_in: float | None, sizes: list[float]) -> RamRange | None:
    """The variable block that closes on most of these sizes, on the first of all, with the least range."""
    if not sizes or bore_in is None:
        return None
    fits = [r for r in catalogue.ram_ranges if r.least_bore_in <= bore_in + 1e-9 and r.from_in <= sizes[0] <= r.to_in]
    return max(
        fits, key=lambda r: (sum(r.from_in <= s <= r.to_in for s in sizes), -(r.to_in - r.from_in)), default=None
    )


def proposed_rows(
    policy: PreventersPolicy,
    catalogue: Catalogue,
    string: EquippedString,
    class_psi: float | None,
    bore_in: float | None,
    tubulars: tuple[Tubular, ...],
    under_sea: bool = False,
) -> tuple[tuple[StackElement, ...], dict[str, str]]:
    """The least of policy, and rams for drill pipe that nothing but the annular would close on; with the reasons."""
    if string.role == "conductor":
        rows = StackElement(id="e1", element="adapter"), StackElement(id="e2", element="diverter")
        return rows, {"e1": "flange on the conductor", "e2": "a kick on the conductor is led away, not shut in"}
    if class_psi is None:
        return (), {}
    least = least_on_sea_floor(policy, class_psi) if under_sea else least_of(policy, class_psi)
    order = sea_order if under_sea else usual_order
    names = order(least) if least is not None else []
    why = [f"least of policy for {class_psi:,.0f} psi"] * len(names)
    pipes = bodies(tubulars, "drill pipe")
    closed_on = sum(name in ON_PIPE for name in names)
    if pipes and not closed_on:
        at = names.index("annular") if "annular" in names else len(names)
        names.insert(at, "pipe rams")
        why.insert(at, "closes on the drill pipe")
    sized = [
        _sized(StackElement(id=f"e{n}", element=name), catalogue, bore_in, tubulars)
        for n, name in enumerate(names, start=1)
    ]
    return tuple(sized), {row.id: reason for row, reason in zip(sized, why, strict=True)}


def _sized(
    row: StackElement, catalogue: Catalogue, bore_in: float | None, tubulars: tuple[Tubular, ...]
) -> StackElement:
    """A ram with the pipe that it is for."""
    pipes = bodies(tubulars, "drill pipe")
    if row.element == "pipe rams" and row.size_in is None and pipes:
        return row.model_copy(update={"size_in": pipes[0]})
    if row.element == "variable rams" and row.from_in is None and row.to_in is None:
        wanted = pipes + [s for s in bodies(tubulars, "tubing", "casing") if s not in pipes]
        block = range_for(catalogue, bore_in, wanted)
        if block is not None:
            return row.model_copy(update={"from_in": block.from_in, "to_in": block.to_in})
    return row


@dataclass(frozen=True)
class Carried:
    """What a stack's elements take from the stack itself."""

    class_psi: float | None
    bore_in: float | None
    place: str
    decided: bool


def cavities(
    catalogue: Catalogue,
    rows: tuple[StackElement, ...],
    carried: Carried,
    tubulars: tuple[Tubular, ...],
    why: dict[str, str],
) -> tuple[Cavity, ...]:
    return tuple(
        _cavity(catalogue, i, _sized(row, catalogue, row.bore_in or carried.bore_in, tubulars), carried, why)
        for i, row in enumerate(rows)
    )


def _cavity(catalogue: Catalogue, i: int, row: StackElement, carried: Carried, why: dict[str, str]) -> Cavity:
    """An element with the catalogue's planning values where it gives none."""
    usual = catalogue.element(row.element)
    bore = row.bore_in if row.bore_in is not None else carried.bore_in
    kind = usual.kind if usual is not None else "unknown"
    driven = "shear" if usual is not None and usual.shears_share else kind
    by = (
        catalogue.operator(driven, bore)
        if bore is not None and driven in ("ram", "shear", "annular", "diverter")
        else None
    )

    def filled(own: float | None, key: str, source: object) -> float | None:
        return own if own is not None else getattr(source, key, None)

    shears = bore * usual.shears_share if usual is not None and usual.shears_share and bore is not None else None
    return Cavity(
        index=i,
        id=row.id,
        place=f"{carried.place}/elements/{i}" if carried.decided else carried.place,
        element=row.element,
        title=row.name or (usual.title if usual is not None else "other element"),
        kind=kind,
        size_in=row.size_in,
        from_in=row.from_in,
        to_in=row.to_in,
        class_psi=row.class_psi if row.class_psi is not None else carried.class_psi,
        bore_in=bore,
        height_in=filled(row.height_in, "height_in", usual),
        weight_lbf=filled(row.weight_lbf, "weight_lbf", usual),
        close_gal=filled(row.close_gal, "close_gal", by),
        open_gal=filled(row.open_gal, "open_gal", by),
        closing_ratio=filled(row.closing_ratio, "closing_ratio", by),
        area_in2=filled(row.area_in2, "area_in2", by),
        hang_off_lbf=filled(row.hang_off_lbf, "hang_off_lbf", by),
        shears_to_in=shears,
        joined=row.joined,
        outlets=int(usual.outlets) if usual is not None else 0,
        why=why.get(row.id, ""),
    )


def casing_ram_of(
    policy: PreventersPolicy, stack: Stack | None, elements: tuple[Cavity, ...]
) -> tuple[Cavity | None, bool]:
    """The cavity whose rams are changed to the casing's size; and whether the one decided is gone.

    Where nobody decided, policy puts them in the topmost cavity on pipe.
    """
    if stack is not None and stack.casing_ram is not None:
        named = next((e for e in elements if e.id == stack.casing_ram), None)
        return named, named is None
    if stack is not None or not policy.casing_rams:
        return None, False
    return next((e for e in reversed(elements) if e.element in ON_PIPE), None), False


def changed_to(element: Cavity, od_in: float) -> Cavity:
    """The cavity with casing rams in it."""
    return replace(element, element="casing rams", title="casing rams", size_in=od_in, from_in=None, to_in=None)


def line_at(named: str | None, elements: tuple[Cavity, ...]) -> int | None:
    """The element at whose outlet a line stands: the one named, else the drilling spool, else the lowest ram."""
    by_id = {e.id: e.index for e in elements}
    if named is not None and named in by_id:
        return by_id[named]
    spool = next((e.index for e in elements if e.element == "drilling spool"), None)
    return spool if spool is not None else next((e.index for e in elements if e.kind == "ram"), None)
