"""The wellhead on the sea floor: hangers and seal assemblies stacked in the bore of the high-pressure housing.

The string that is run with the housing carries it; each later string to the wellhead lands on the one before it. Heights are
over the mudline.
"""

from __future__ import annotations

from collections.abc import Iterator

from knollstack.core.base.findings import Change, Finding, Words, find, force, pressure, remedy, size
from knollstack.core.base.formulas import hydrostatic_pressure, steel_area_in2
from knollstack.core.base.working import headline
from knollstack.core.pipe.landed import landed_weight_lbf
from knollstack.core.program.equipped import Equipped, EquippedString
from knollstack.core.wellhead.classes import lowest_class_psi
from knollstack.core.wellhead.formulas import hanger_load, high_test_pressure
from knollstack.core.wellhead.results import SeaPass, SeatRow, SubseaHead
from knollstack.core.wellhead.stages import greatest_psi, stage_pressures

WHERE = "/sea/housing"
HAIR_IN = 1e-9


def hanging(equipped: Equipped, carrier: EquippedString) -> list[EquippedString]:
    """Strings that land in the housing, in their order: all to the wellhead after the one that carries it."""
    later = equipped.strings[carrier.index + 1 :]
    return [s for s in later if s.run == "cased" or (s.run == "liner" and s.own.tie_back)]


def needed_psi(equipped: Equipped, string: EquippedString) -> float | None:
    return greatest_psi(stage_pressures(equipped, string))


def class_of(equipped: Equipped, carrier: EquippedString) -> float | None:
    """Class of the housing: given, else the lowest over all that it sees and policy's least of a stack."""
    given = equipped.design.sea.housing.class_psi
    if given is not None:
        return given
    seen = [needed_psi(equipped, s) for s in (carrier, *hanging(equipped, carrier))]
    known = [psi for psi in seen if psi is not None]
    if len(known) < len(seen):
        return None
    return lowest_class_psi(max(*known, equipped.well.policy.preventers.minimum_class_psi, 0.0))


def set_down_lbf(equipped: Equipped, string: EquippedString) -> float | None:
    """What a string's hanger sets down on the sea floor; None where its pipe or mud is unknown."""
    force = landed_weight_lbf(equipped.well, string)
    if force is None or string.mud_ppg is None:
        return None
    pipe, top = string.sections[0].pipe, equipped.well.path.tvd(string.sections[0].top_md_ft)
    area = float(steel_area_in2(pipe.od_in, pipe.id_in))
    return float(hanger_load(force, float(hydrostatic_pressure(string.mud_ppg, top)), area))


def seats_of(equipped: Equipped, carrier: EquippedString) -> tuple[SeatRow, ...]:
    """Each string on its seat, the lowest first; none is left for those over the seats of the housing."""
    housing, top = equipped.design.sea.housing, equipped.design.sea.conductor.stick_up_ft * 12
    rows = []
    for n, string in enumerate(hanging(equipped, carrier)):
        held = n < housing.seats
        upper = top - housing.first_in - (housing.seats - 1 - n) * housing.hanger_in
        with headline(f"wellhead/hung/{string.index}"):
            load = set_down_lbf(equipped, string)
        with headline(f"wellhead/seal/{string.index}"):
            test = _test_psi(equipped, carrier, string)
        rows.append(
            SeatRow(
                string=string.index,
                what=string.words,
                place=f"{string.path}/od_in",
                seat_in=upper - housing.hanger_in if held else None,
                top_in=upper if held else None,
                load_lbf=load,
                needed_psi=needed_psi(equipped, string),
                test_psi=test,
                left=_left(equipped, string),
                working=f"wellhead/seal/{string.index}",
            )
        )
    return tuple(rows)


def _test_psi(equipped: Equipped, carrier: EquippedString, string: EquippedString) -> float | None:
    """Test of a seal assembly from above: over what it sees by policy's margin, no more than the housing's class."""
    rated, seen = class_of(equipped, carrier), needed_psi(equipped, string)
    if rated is None or seen is None:
        return None
    return float(high_test_pressure(rated, rated, seen, equipped.well.policy.preventers.test_margin_psi))


def _left(equipped: Equipped, string: EquippedString) -> str:
    """What still holds the annulus when its seal is lost."""
    outer, top = equipped.previous(string), string.cement_top_md_ft
    if outer is None or top is None:
        return "unknown"
    if top <= outer.shoe_md_ft:
        return "cement over the shoe"
    return "nothing: open to the rock"


def passing(equipped: Equipped, carrier: EquippedString) -> tuple[SeaPass, ...]:
    """Bits through the bore protector, hangers through stack and riser, casing through the hangers before it."""
    housing, policy = equipped.design.sea.housing, equipped.well.policy
    protector = housing.protector_in if housing.protector_in is not None else policy.sea.protector_in
    rows: list[SeaPass] = []

    def row(what: Words, od: float, through: str, bore: float, place: str) -> None:
        rows.append(
            SeaPass(what=what, od_in=od, through=through, bore_in=bore, passes=od <= bore + HAIR_IN, place=place)
        )

    for string in equipped.strings[carrier.index + 1 :]:
        if string.bit_in is not None:
            # behind a hanger its own wear bushing, no narrower than its casing, takes the place of the protector
            row((size(string.bit_in), " bit"), string.bit_in, "bore protector", protector, f"{WHERE}/protector_in")
        if string.sections:
            wide = max(s.pipe.coupling_od_in for s in string.sections)
            row((*string.words, " coupling"), wide, "housing", housing.bore_in, f"{WHERE}/bore_in")
    row(("hanger body",), housing.bore_in, "riser", policy.mud.riser_id_in, "/policy/mud/riser_id_in")
    return tuple(rows)


def head_of(equipped: Equipped, carrier: EquippedString) -> SubseaHead:
    housing, sea = equipped.design.sea.housing, equipped.design.sea.conductor
    policy = equipped.well.policy.sea
    return SubseaHead(
        carrier=carrier.index,
        bore_in=housing.bore_in,
        class_psi=class_of(equipped, carrier),
        class_given=housing.class_psi is not None,
        needed_psi=needed_psi(equipped, carrier),
        top_in=sea.stick_up_ft * 12,
        seat_lbf=housing.seat_lbf if housing.seat_lbf is not None else policy.seat_lbf,
        protector_in=housing.protector_in if housing.protector_in is not None else policy.protector_in,
        seats=seats_of(equipped, carrier),
        passing=passing(equipped, carrier),
    )


def head_findings(equipped: Equipped, head: SubseaHead) -> Iterator[Finding]:
    subject: Words = ("Wellhead housing",)
    housing = equipped.design.sea.housing
    missing = [row for row in head.seats if row.seat_in is None]
    if missing:
        wanted = len(head.seats)
        text = f"The housing has {housing.seats} hanger seats; {wanted} strings land in it: "
        last = missing[-1].what
        add = remedy(Change(path=f"{WHERE}/seats", value=wanted), f"Use a housing of {wanted} seats")
        yield find(
            "wellhead",
            "stop",
            f"{WHERE}/seats",
            subject,
            text,
            *last,
            " has none.",
            remedies=(add,) if wanted <= 6 else (),
        )
    yield from _class_findings(equipped, head)
    for bad in head.passing:
        if not bad.passes:
            text = (
                f" does not pass the {bad.through} of " if bad.through != "housing" else " does not pass the bore of "
            )
            yield find(
                "wellhead",
                "stop",
                bad.place,
                subject,
                "The ",
                *bad.what,
                text,
                size(bad.bore_in),
                ".",
                value=size(bad.od_in),
                limit=size(bad.bore_in),
            )
    yield from _load_findings(equipped, head)
    yield from _seal_findings(head)


def _class_findings(equipped: Equipped, head: SubseaHead) -> Iterator[Finding]:
    seen = [head.needed_psi, *(row.needed_psi for row in head.seats)]
    known = [psi for psi in seen if psi is not None]
    place, subject = f"{WHERE}/class_psi", ("Wellhead housing",)
    if len(known) < len(seen):
        text = f"{equipped.well.top_words} is unknown: the class of the housing cannot be judged."
        yield find("wellhead", "unknown", place, subject, text)
        return
    if head.class_psi is None:
        yield find("wellhead", "stop", place, subject, "No pressure class covers ", pressure(max(known)), ".")
    elif max(known) > head.class_psi:
        better = lowest_class_psi(max(known))
        use = Change(path=place, value=better)
        yield find(
            "wellhead",
            "stop",
            place,
            subject,
            f"{equipped.well.top_words} reaches ",
            pressure(max(known)),
            "; it is rated ",
            pressure(head.class_psi),
            ".",
            value=pressure(max(known)),
            limit=pressure(head.class_psi),
            remedies=(remedy(use, "Use class ", pressure(better)),) if better is not None else (),
        )


def _load_findings(equipped: Equipped, head: SubseaHead) -> Iterator[Finding]:
    loads = [row.load_lbf for row in head.seats]
    known = [load for load in loads if load is not None]
    place, subject = f"{WHERE}/seat_lbf", ("Wellhead housing",)
    if len(known) < len(loads):
        yield find(
            "wellhead", "unknown", place, subject, "The load of a string is unknown: its pipe or mud is missing."
        )
        return
    total = sum(max(0.0, load) for load in known)
    if total > head.seat_lbf:
        yield find(
            "wellhead",
            "stop",
            place,
            subject,
            "All hangers together set down ",
            force(total),
            " on its load shoulder; it carries ",
            force(head.seat_lbf),
            ".",
            value=force(total),
            limit=force(head.seat_lbf),
        )


def _seal_findings(head: SubseaHead) -> Iterator[Finding]:
    """With its seal lost an annulus that no cement closes is open: told, since nobody reaches it under the sea."""
    for row in head.seats:
        if row.left.startswith("nothing"):
            text = "Its seal assembly is the only barrier of its annulus: cement stops under the shoe outside."
            yield find("wellhead", "note", row.place, (*row.what, " hanger"), text)
