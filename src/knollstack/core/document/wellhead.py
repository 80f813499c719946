"""The wellhead as decided: its pieces bottom to top, how it stands on the casing, and the policy of it.

None is not decided.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from knollstack.core.base.constants import CLASSES_PSI
from knollstack.core.base.fields import (
    Depth,
    Factor,
    Id,
    Load,
    Name,
    Of,
    Part,
    PieceHeight,
    Pressure,
    Size,
    listed,
    number,
    told,
)

PieceKind = Literal["casing head housing", "casing spool", "multi-bowl head", "tubing spool", "adapter", "tree"]
Mounting = Literal["slip-on weld", "threaded", "slip-on grips"]
Inches = Annotated[float, number(0, 60), Of("height")]
Outlets = Annotated[int, Field(strict=True, ge=0, le=4), Of("count")]


class WellheadPiece(Part):
    id: Id = told("Id")
    name: Name = told("Name")
    kind: PieceKind | None = told("Piece", None, help="empty goes by its place: a head, spools, a tubing spool on top")
    string: Id | None = told("Stands on", None, help="id of its string; empty goes by its place in the wellhead")
    height_in: PieceHeight = told("Height", help="face to face; of a slip-on head from its lower end")
    bore_in: Size = told("Bore", help="of the top face, nominal")
    bottom_bore_in: Size | None = told(
        "Bottom bore", None, help="of the bottom face; empty is that of the face under it"
    )
    bottom_psi: Pressure | None = told(
        "Bottom face", None, help="pressure class; empty for a weld", offered=CLASSES_PSI
    )
    top_psi: Pressure = told("Top face", help="pressure class", offered=CLASSES_PSI)
    gap_in: Annotated[float, number(0, 10), Of("height")] = told(
        "Gap under it", 0.0, help="between the made-up faces, by the ring's stand-off"
    )
    bowls: Annotated[int, Field(strict=True, ge=0, le=4), Of("count")] = told("Bowls", 1, help="hangers that it holds")
    bowl_depth_in: Inches | None = told("Bowl below top face", None, help="landing shoulder of the hanger")
    bowl_lbf: Load | None = told("Hanging capacity", None, help="of each bowl with its hanger")
    seal_in: Inches | None = told("Seal engagement", None, help="how far the casing under it stands up into its seal")
    wear_bushing_in: Size | None = told("Wear bushing bore", None)
    outlets: Outlets = told("Outlets", 2, help="at the side, with a valve each")
    weight_lbf: Load | None = told("Weight", None)


class Wellhead(Part):
    """Pieces bottom to top; empty is not decided. The reference face is the top of the last piece below the tree."""

    pieces: tuple[WellheadPiece, ...] = listed("Pieces", 20)
    mounting: Mounting = told("Head on surface casing", "slip-on weld")
    socket_depth_in: Annotated[float, number(0, 40), Of("height")] = told("Socket depth", 4.5)
    base_plate_in: Annotated[float, number(0, 40), Of("height")] = told(
        "Base plate", 2.0, help="thickness; 0 where none shares the load with the conductor"
    )
    reference_in: Annotated[float, number(-240, 600), Of("height")] | None = told(
        "Tubing head top flange above ground", None, help="or above the wellhead deck; empty is at ground level on land"
    )
    deck_md_ft: Depth | None = told("Wellhead deck below rotary", None, help="on a platform")
    free_conductor_ft: Depth | None = told(
        "Free length of conductor",
        None,
        help="between supports that hold it sideways; empty is the cellar on land, mudline to deck on a platform",
    )
    mudline_hangers: Literal["none", "every string below the conductor"] = told(
        "Mudline suspension", "none", help="hangers at the mudline carry what hangs below them"
    )
    seabed_hanger_ft: Annotated[float, number(0, 500), Of("depth")] = told(
        "Mudline hangers below mudline", 15.0, help="of the mudline suspension"
    )


SUPPORT, TESTS = "Load and height", "Tests of the wellhead"


class WellheadPolicy(Part):
    stands_on: Literal["casing and conductor", "casing alone"] = told(
        "Wellhead load carried by",
        "casing and conductor",
        group=SUPPORT,
        help="by steel area where a base plate shares it",
    )
    stack_weight_lbf: Annotated[float, number(0, 2_000_000), Of("force")] | None = told(
        "BOP stack and tree weight", None, group=SUPPORT, help="empty takes the catalogue's"
    )
    arrangement: Literal["spools", "multi-bowl head"] = told(
        "Wellhead proposed", "spools", group=SUPPORT, help="a spool for each string, or one head that holds them all"
    )
    rough_cut_in: Inches = told(
        "Rough cut above the final cut", 12.0, group=SUPPORT, help="left on the casing when it is first cut"
    )
    end_factor: Annotated[float, number(0.5, 3), Of("factor")] = told(
        "End factor of a free conductor",
        2.0,
        group=SUPPORT,
        help="2 for a fixed foot and a free top, 0.7 for a guided top",
    )
    buckling: Factor = told("Buckling factor", 1.5, group=SUPPORT, help="of a free-standing conductor")
    conductor_factor: Factor = told("Conductor compression factor", 1.2, group=SUPPORT)
    growth_in: Inches = told(
        "Wellhead growth", 2.0, group=SUPPORT, help="in production, over which flow lines are told to allow for it"
    )
    collapse_share: Annotated[float, number(0.1, 1), Of("fraction")] = told(
        "Collapse in a weld or seal test", 0.8, group=TESTS, help="share of the casing's collapse rating"
    )
