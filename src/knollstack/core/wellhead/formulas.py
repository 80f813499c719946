"""Cut-off heights of surface casing and conductor on land, from the pieces that stand on them."""

from collections.abc import Sequence

import numpy as np

from knollstack.core.base.formula import formula


@formula(
    "surface = H − (Σhᵢ + Σgⱼ) + s,  conductor = surface − s − b",
    "",
    "Stack-up of wellhead pieces, geometry",
    ("piece_heights_in >= 0", "gaps_in >= 0", "socket_depth_in >= 0", "base_plate_in >= 0"),
)
def cut_off_height(
    reference_height_in: float,
    piece_heights_in: Sequence[float],
    gaps_in: Sequence[float],
    socket_depth_in: float,
    base_plate_in: float,
) -> dict[str, float]:
    """Heights above the cellar floor at which surface casing and conductor are cut.

    A negative height means that the cellar is too shallow by that much.
    """
    surface = reference_height_in - float(np.sum(piece_heights_in) + np.sum(gaps_in)) + socket_depth_in
    return {"surface_casing_in": surface, "conductor_in": surface - socket_depth_in - base_plate_in}
